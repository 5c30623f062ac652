using System.Diagnostics;
using Microsoft.Data.Sqlite;

namespace RuddySpring.Measure;

/// <summary>A ledger of 100 000 shots, the server as a process of its own.</summary>
internal static class LedgerTimes
{
    private const int Shots = 100_000;

    /// <summary>How often each question is asked: of sixty times the median still moved by a third.</summary>
    private const int Times = 200;

    private static readonly TimeSpan WarmUp = TimeSpan.FromSeconds(25);

    private sealed record Question(string Name, string Path, string Where, string Order, int Page = 0)
    {
        /// <summary>The address of the server's own answer.</summary>
        public Uri Asked { get; } = new(Path, UriKind.Relative);

        /// <summary>The address of the bare server's.</summary>
        public Uri Fetched { get; } =
            new($"/?where={Uri.EscapeDataString(Where)}&order={Uri.EscapeDataString(Order)}&page={Page}", UriKind.Relative);

        /// <summary>The answer of plain SQL.</summary>
        public byte[] Answered(PlainLedger plain) => plain.Answer(Where, Order, Page);
    }

    private static readonly Question[] Questions =
    [
        new("a page", "/api/shots?page=40&size=50&count=false", "DeletedAt IS NULL", PlainLedger.Newest, 40),
        new(
            "a filter",
            "/api/shots?size=50&machineId=2&minLiking=4&count=false",
            "DeletedAt IS NULL AND MachineId = 2 AND Liking >= 4",
            PlainLedger.Newest
        ),
        // nothing fits: every shot is gone through
        new(
            "a filter that nothing fits",
            "/api/shots?size=50&brewerId=2&waterFromC=97&count=false",
            "DeletedAt IS NULL AND BrewerId = 2 AND WaterC >= 97",
            PlainLedger.Newest
        ),
        new(
            "a strong taste that none has",
            "/api/shots?size=50&taste=Dry&atLeast=4&count=false",
            "DeletedAt IS NULL AND Taste_Dry >= 4",
            PlainLedger.Newest
        ),
        new(
            "the shots of a bag with three more filters",
            "/api/shots?size=50&bagId=1&brewerId=2&minLiking=5&waterFromC=97&count=false",
            "DeletedAt IS NULL AND BagId = 1 AND BrewerId = 2 AND Liking >= 5 AND WaterC >= 97",
            PlainLedger.Newest
        ),
        new(
            "ordered by R10",
            "/api/shots?size=50&order=R10&ascending=true&machineId=1&count=false",
            "DeletedAt IS NULL AND MachineId = 1 AND R10ToOrderBy IS NOT NULL",
            "R10ToOrderBy, Id"
        ),
        new(
            "a text search",
            "/api/shots?size=50&search=tomo%20gentian&count=false",
            "DeletedAt IS NULL AND Id IN (SELECT rowid FROM ShotSearch WHERE ShotSearch MATCH 'tomo* gentian*')",
            PlainLedger.Newest
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
            using var plain = new PlainLedger(folder);
            await using var bare = await PlainServer.StartAsync(folder);
            await WarmAsync(http, plain, bare.Http);
            foreach (var question in Questions)
            {
                var (asked, answered, fetched) = await InTurnAsync(http, plain, bare.Http, question, Times);
                rows.Add(Row.AtMost($"ledger of 100 000: {question.Name} (p95)", Row.Percentile(asked, 0.95), "ms", 30));
                rows.Add(
                    Row.AtMost(
                        $"ledger of 100 000: {question.Name}, over the same answer from plain SQL (median)",
                        Row.Percentile(asked, 0.5) / Row.Percentile(answered, 0.5),
                        "times",
                        1.5
                    )
                );
                rows.Add(
                    Row.AtMost(
                        $"ledger of 100 000: {question.Name}, over the same fetched from a bare server (median)",
                        Row.Percentile(asked, 0.5) / Row.Percentile(fetched, 0.5),
                        "times",
                        1.5
                    )
                );
            }

            // how many fit is said a moment after the page, and once for all its pages
            foreach (
                var (what, path) in new[]
                {
                    ("a filter", "/api/shots/count?machineId=2&minLiking=4"),
                    ("a text search", "/api/shots/count?search=tomo%20gentian"),
                }
            )
                rows.Add(
                    Row.AtMost(
                        $"ledger of 100 000: {what} counted (p95)",
                        Row.Percentile(await AskAsync(http, path, quick ? 20 : 60), 0.95),
                        "ms",
                        100
                    )
                );

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

    /// <summary>Asks all three everything until they are warm: the runtime compiles what is used often again, beside the
    /// answers.</summary>
    /// <exception cref="InvalidOperationException">They answer differently.</exception>
    private static async Task WarmAsync(HttpClient http, PlainLedger plain, HttpClient bare)
    {
        foreach (var question in Questions)
            if (!PlainLedger.Same(await http.GetByteArrayAsync(question.Asked), question.Answered(plain)))
                throw new InvalidOperationException($"The server and plain SQL answer {question.Name} differently.");
        for (var start = Stopwatch.GetTimestamp(); Stopwatch.GetElapsedTime(start) < WarmUp; )
            foreach (var question in Questions)
                await InTurnAsync(http, plain, bare, question, 1);
    }

    /// <summary>The server, plain SQL by itself and plain SQL behind a bare server in turn, ms each.</summary>
    private static async Task<(List<double> Asked, List<double> Answered, List<double> Fetched)> InTurnAsync(
        HttpClient http,
        PlainLedger plain,
        HttpClient bare,
        Question question,
        int times
    )
    {
        var (asked, answered, fetched) = (new List<double>(), new List<double>(), new List<double>());
        for (var i = 0; i < times; i++)
        {
            var from = Stopwatch.GetTimestamp();
            await http.GetByteArrayAsync(question.Asked);
            var between = Stopwatch.GetTimestamp();
            question.Answered(plain);
            var after = Stopwatch.GetTimestamp();
            await bare.GetByteArrayAsync(question.Fetched);
            var end = Stopwatch.GetTimestamp();
            asked.Add(Stopwatch.GetElapsedTime(from, between).TotalMilliseconds);
            answered.Add(Stopwatch.GetElapsedTime(between, after).TotalMilliseconds);
            fetched.Add(Stopwatch.GetElapsedTime(after, end).TotalMilliseconds);
        }

        return (asked, answered, fetched);
    }
}
