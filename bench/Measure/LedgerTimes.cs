using System.Diagnostics;
using Microsoft.Data.Sqlite;
using RuddySpring.Store;

namespace RuddySpring.Measure;

/// <summary>A ledger of 100 000 shots, the server as a process of its own.</summary>
internal static class LedgerTimes
{
    private const int Shots = 100_000;

    private static readonly (string Name, string Path, string Sql)[] Questions =
    [
        (
            "a page",
            "/api/shots?page=40&size=50",
            "SELECT * FROM Shots WHERE DeletedAt IS NULL ORDER BY PulledAt DESC, Id DESC LIMIT 50 OFFSET 2000"
        ),
        (
            "a filter",
            "/api/shots?size=50&machineId=2&minLiking=4",
            "SELECT * FROM Shots WHERE DeletedAt IS NULL AND MachineId = 2 AND Liking >= 4 ORDER BY PulledAt DESC, Id DESC "
                + "LIMIT 50"
        ),
        (
            "ordered by R10",
            "/api/shots?size=50&order=R10&ascending=true&machineId=1",
            "SELECT * FROM Shots WHERE DeletedAt IS NULL AND MachineId = 1 AND R10ToOrderBy IS NOT NULL "
                + "ORDER BY R10ToOrderBy, Id LIMIT 50"
        ),
        (
            "a text search",
            "/api/shots?size=50&search=tomo%20gentian",
            "SELECT * FROM Shots WHERE DeletedAt IS NULL AND Id IN (SELECT rowid FROM ShotSearch WHERE ShotSearch MATCH "
                + "'tomo* gentian*') ORDER BY PulledAt DESC, Id DESC LIMIT 50"
        ),
    ];

    public static async Task<IReadOnlyList<Row>> MeasureAsync(bool quick)
    {
        var folder = Directory.CreateTempSubdirectory("ruddy-measure-").FullName;
        try
        {
            ManyShots.Fill(folder, Shots);
            var rows = new List<Row>();
            var start = Stopwatch.StartNew();
            await using var server = await ServerProgram.StartAsync(folder);
            var http = server.Http;
            await http.GetStringAsync(new Uri("/api/household", UriKind.Relative));
            rows.Add(Row.AtMost("server: start to first answer", start.Elapsed.TotalSeconds, "s", 2.5));
            foreach (var (name, path, sql) in Questions)
            {
                var asked = await AskAsync(http, path, quick ? 40 : 200);
                var plain = Plain(folder, sql, quick ? 40 : 200);
                rows.Add(Row.AtMost($"ledger of 100 000: {name} (p95)", Row.Percentile(asked, 0.95), "ms", 30));
                rows.Add(
                    Row.AtMost(
                        $"ledger of 100 000: {name}, over plain SQL with its count (median)",
                        Row.Percentile(asked, 0.5) / Row.Percentile(plain, 0.5),
                        "times",
                        1.5
                    )
                );
            }

            // after a shot was saved: its causes, with all those shots behind it
            foreach (
                var (what, path, budget) in new[]
                {
                    ("why a shot was as it was", "/api/shots/54/why", 300.0),
                    ("a puck read back", "/api/shots/54/puck", 300.0),
                }
            )
                rows.Add(
                    Row.AtMost(
                        $"ledger of 100 000: {what} (p95)",
                        Row.Percentile(await AskAsync(http, path, quick ? 20 : 60), 0.95),
                        "ms",
                        budget
                    )
                );

            // with traces looked at and laid over each other, as a household does
            for (var i = 1; i <= 40; i++)
                await http.GetByteArrayAsync(new Uri($"/api/shots/{i}", UriKind.Relative));
            await http.GetByteArrayAsync(
                new Uri($"/api/shots/compare?ids={string.Join(',', Enumerable.Range(1, 20))}", UriKind.Relative)
            );
            rows.Add(Row.AtMost("server: memory with 100 000 shots", await server.MemoryMegabytesAsync(), "MB", 250));
            return rows;
        }
        finally
        {
            SqliteConnection.ClearAllPools();
            Directory.Delete(folder, recursive: true);
        }
    }

    private static async Task<List<double>> AskAsync(HttpClient http, string path, int times)
    {
        var took = new List<double>();
        for (var i = 0; i < times + 10; i++)
        {
            var from = Stopwatch.GetTimestamp();
            await http.GetByteArrayAsync(new Uri(path, UriKind.Relative));
            if (i >= 10)
                took.Add(Stopwatch.GetElapsedTime(from).TotalMilliseconds);
        }

        return took;
    }

    /// <summary>The same rows through Microsoft.Data.Sqlite alone: the page and the count of all that fit.</summary>
    private static List<double> Plain(string folder, string sql, int times)
    {
        using var connection = new SqliteConnection($"Data Source={Path.Combine(folder, StoreFile.FileName)};Mode=ReadOnly");
        connection.Open();
        var where = sql[sql.IndexOf("WHERE", StringComparison.Ordinal)..sql.IndexOf("ORDER BY", StringComparison.Ordinal)];
        var took = new List<double>();
        for (var i = 0; i < times + 10; i++)
        {
            var from = Stopwatch.GetTimestamp();
            foreach (var text in new[] { sql, $"SELECT count(*) FROM (SELECT 1 FROM Shots {where} LIMIT 1001)" })
            {
                using var command = connection.CreateCommand();
                command.CommandText = text;
                using var reader = command.ExecuteReader();
                var values = new object[reader.FieldCount];
                while (reader.Read())
                    reader.GetValues(values);
            }

            if (i >= 10)
                took.Add(Stopwatch.GetElapsedTime(from).TotalMilliseconds);
        }

        return took;
    }
}
