using Microsoft.EntityFrameworkCore;
using RuddySpring.Server.Hosting;
using RuddySpring.Store;

namespace RuddySpring.Measure;

/// <summary>Households with as many shots as wanted.</summary>
internal static class ManyShots
{
    /// <summary>Makes the sample household in a folder, its shots copied until there are so many more, each with a
    /// trace.</summary>
    /// <param name="folder">An empty one.</param>
    /// <param name="count">Shots besides the sample's own, 0 to 100 000.</param>
    public static void Fill(string folder, int count)
    {
        using var held = RuddyServer.PrepareData(new ServerOptions(0, folder, true, folder), DateTime.UtcNow);
        using var db = new RuddyContext(StoreFile.Options(folder));
        using var connection = db.Database.GetDbConnection();
        connection.Open();
        List<string> Columns(string table)
        {
            using var command = connection.CreateCommand();
            command.CommandText = $"SELECT name FROM pragma_table_info('{table}')";
            using var reader = command.ExecuteReader();
            var names = new List<string>();
            while (reader.Read())
                names.Add(reader.GetString(0));
            return names;
        }

        void Run(string sql)
        {
            using var command = connection.CreateCommand();
            command.CommandText = sql;
            command.ExecuteNonQuery();
        }

        object? Ask(string sql)
        {
            using var command = connection.CreateCommand();
            command.CommandText = sql;
            return command.ExecuteScalar();
        }

        var shots = Columns("Shots");
        string Quoted(IEnumerable<string> names) => string.Join(", ", names.Select(n => $"\"{n}\""));
        string From(string n) =>
            n switch
            {
                "Id" => "s.Id + 100 * c.value",
                "PulledAt" => $"s.PulledAt - c.value * {TimeSpan.TicksPerMinute * 6}",
                _ => $"s.\"{n}\"",
            };
        Run(
            "CREATE TEMP TABLE copies AS WITH RECURSIVE c(value) AS (SELECT 1 UNION ALL SELECT value + 1 FROM c WHERE value "
                + "< 2000) SELECT value FROM c"
        );
        Run(
            $"INSERT INTO Shots ({Quoted(shots)}) SELECT {string.Join(", ", shots.Select(From))} FROM Shots s, copies c "
                + $"LIMIT {count}"
        );
        var traces = Columns("Traces");
        var own = (long)Ask("SELECT count(*) FROM Traces")!;
        Run(
            $"INSERT INTO Traces ({Quoted(traces)}) SELECT "
                + $"{string.Join(", ", traces.Select(n => n == "ShotId" ? "s.Id" : $"t.\"{n}\""))} FROM Shots s JOIN Traces t "
                + $"ON t.ShotId = 1 + (s.Id % {own}) WHERE s.Id NOT IN (SELECT ShotId FROM Traces)"
        );
        if ((long)Ask("SELECT count(*) FROM Traces")! != (long)Ask("SELECT count(*) FROM Shots")!)
            throw new InvalidOperationException("There are shots without traces.");
        Run("INSERT INTO ShotSearch(ShotSearch) VALUES ('optimize')");
        // as the application does by itself within the first minute, and then as its shots grow more
        using var context = new RuddyContext(StoreFile.Options(folder));
        StoreFile.CountAnewAsync(context).GetAwaiter().GetResult();
    }
}
