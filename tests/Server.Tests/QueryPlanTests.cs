using System.Collections.Concurrent;
using System.Diagnostics;
using System.Text.RegularExpressions;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore.Diagnostics;
using RuddySpring.Server.Storage;
using RuddySpring.Store;

namespace RuddySpring.Server.Tests;

/// <summary>What the daily job asks of the shots, as the database itself says that it will look it up: by an index, and in its
/// order. A household of many years would wait otherwise, and the sample would not show it.</summary>
public sealed partial class QueryPlanTests
{
    [Fact]
    public async Task NothingThatIsAskedForEachKeystrokeSortsOrGoesThroughAllShots()
    {
        await using var server = new LiveServer();
        var file = StoreFile.PathIn(server.Folder);
        using var heard = new Asked(file);
        await server.InitializeAsync();
        // without knowing how many rows a value has, the database would rather sort those of a narrow filter
        await server.Service<Upkeep>().DoAsync(DateTime.UtcNow, default);
        heard.Texts.Clear();
        await server.GetAsync("/api/prepare");
        await server.GetAsync("/api/prepare/prediction");
        await server.GetAsync("/api/prepare/landing");
        await server.GetAsync("/api/shots?size=50");
        await server.GetAsync("/api/shots?size=50&machineId=2&minLiking=4&taste=Dry&atLeast=3");
        await server.ReadyAsync();
        var ofShots = heard.Texts.Distinct().Where(t => FromShots().IsMatch(t)).ToList();
        Assert.True(ofShots.Count >= 6, $"only {ofShots.Count} questions were heard");
        using var connection = new SqliteConnection($"Data Source={file};Mode=ReadOnly");
        connection.Open();
        foreach (var text in ofShots)
        {
            var plan = Plan(connection, text);
            Assert.DoesNotContain(plan, p => ScanOfShots().IsMatch(p) && !p.Contains("INDEX", StringComparison.Ordinal));
            // what stands outside of a bounded page is put in order again, which is cheap
            if (!text.Contains("FROM (", StringComparison.Ordinal))
                Assert.DoesNotContain(plan, p => p.Contains("TEMP B-TREE FOR ORDER BY", StringComparison.Ordinal));
        }
    }

    [Fact]
    public async Task Every_order_of_the_ledger_has_an_index_with_all_that_is_filtered_by()
    {
        await using var server = new LiveServer();
        await server.InitializeAsync();
        using var connection = new SqliteConnection($"Data Source={StoreFile.PathIn(server.Folder)};Mode=ReadOnly");
        connection.Open();
        var filtered = Columns(connection, "IX_Shots_Ledger").Except(["DeletedAt", "Id"]).ToList();
        Assert.Equal(15, filtered.Count);
        foreach (
            var order in new[] { "GrindSetting", "DoseGrams", "CupGramsToOrderBy", "SecondsToOrderBy", "R10ToOrderBy", "Liking" }
        )
        {
            var columns = Columns(connection, $"IX_Shots_{order}");
            Assert.Equal(["DeletedAt", order, "Id"], columns.Take(3));
            Assert.Empty(filtered.Except(columns));
        }
    }

    [Theory]
    [InlineData("Sour", "")]
    [InlineData("Bitter", "&machineId=2&minLiking=4")]
    [InlineData("Dry", "&brewerId=1")]
    [InlineData("Sweet", "&until=2100-01-01")]
    [InlineData("Body", "&waterFromC=80")]
    public async Task Shots_of_a_strong_taste_are_looked_up_in_its_own_index(string taste, string other)
    {
        await using var server = new LiveServer();
        var file = StoreFile.PathIn(server.Folder);
        using var heard = new Asked(file);
        await server.InitializeAsync();
        // without knowing how many rows a value has, the database goes by another index where more is asked
        await server.Service<Upkeep>().DoAsync(DateTime.UtcNow, default);
        using var connection = new SqliteConnection($"Data Source={file};Mode=ReadOnly");
        connection.Open();
        Assert.DoesNotContain($"IX_Shots_Taste_{taste}", await PlanAsync(2), StringComparison.Ordinal);
        Assert.Contains($"IX_Shots_Taste_{taste}", await PlanAsync(3), StringComparison.Ordinal);
        Assert.Contains($"IX_Shots_Taste_{taste}", await PlanAsync(4), StringComparison.Ordinal);

        async Task<string> PlanAsync(int atLeast)
        {
            heard.Texts.Clear();
            await server.GetAsync($"/api/shots?size=50&count=false&taste={taste}&atLeast={atLeast}{other}");
            var page = Assert.Single(heard.Texts.Distinct(), t => t.Contains($"\"Taste_{taste}\" >=", StringComparison.Ordinal));
            return string.Join("; ", Plan(connection, page));
        }
    }

    [Theory]
    [InlineData("Bag")]
    [InlineData("Grinder")]
    [InlineData("PlanName")]
    public async Task What_is_looked_up_by_bag_grinder_or_plan_has_all_that_is_filtered_by_in_its_index(string name)
    {
        await using var server = new LiveServer();
        await server.InitializeAsync();
        using var connection = new SqliteConnection($"Data Source={StoreFile.PathIn(server.Folder)};Mode=ReadOnly");
        connection.Open();
        Assert.Empty(Columns(connection, "IX_Shots_Ledger").Except(Columns(connection, $"IX_Shots_{name}")));
    }

    private static List<string> Columns(SqliteConnection connection, string index)
    {
        using var command = connection.CreateCommand();
        command.CommandText = "SELECT name FROM pragma_index_info($index) ORDER BY seqno";
        command.Parameters.AddWithValue("$index", index);
        using var reader = command.ExecuteReader();
        var names = new List<string>();
        while (reader.Read())
            names.Add(reader.GetString(0));
        return names;
    }

    private static List<string> Plan(SqliteConnection connection, string text)
    {
        using var command = connection.CreateCommand();
        command.CommandText = $"EXPLAIN QUERY PLAN {text}";
        foreach (var name in Parameter().Matches(text).Select(m => m.Value).Distinct())
            command.Parameters.AddWithValue(name, 1);
        using var reader = command.ExecuteReader();
        var lines = new List<string>();
        while (reader.Read())
            lines.Add(reader.GetString(3));
        return lines;
    }

    [GeneratedRegex("FROM \"(Shots|Traces)\"")]
    private static partial Regex FromShots();

    [GeneratedRegex("^SCAN (s|t|Shots|Traces)\\b")]
    private static partial Regex ScanOfShots();

    [GeneratedRegex(@"@\w+")]
    private static partial Regex Parameter();

    /// <summary>Hears every command that is sent to one database. It must listen before the first one: where nobody does, the
    /// mapper does not look again for a second (<c>LoggingCacheTime</c>), and a quick test would hear nothing.</summary>
    private sealed class Asked : IDisposable, IObserver<DiagnosticListener>, IObserver<KeyValuePair<string, object?>>
    {
        private readonly ConcurrentBag<IDisposable> _heard = [];
        private readonly string _file;

        public Asked(string file)
        {
            _file = file;
            _heard.Add(DiagnosticListener.AllListeners.Subscribe(this));
        }

        public ConcurrentBag<string> Texts { get; } = [];

        public void OnNext(DiagnosticListener value)
        {
            if (value.Name == "Microsoft.EntityFrameworkCore")
                _heard.Add(value.Subscribe(this));
        }

        public void OnNext(KeyValuePair<string, object?> value)
        {
            if (value.Value is CommandEventData { Command: { } command } && command.Connection?.DataSource == _file)
                Texts.Add(command.CommandText);
        }

        public void OnCompleted() { }

        public void OnError(Exception error) { }

        public void Dispose()
        {
            foreach (var listener in _heard)
                listener.Dispose();
        }
    }
}
