using System.Text.Json.Nodes;
using Microsoft.Data.Sqlite;
using RuddySpring.Store;

namespace RuddySpring.Server.Tests.Ledger;

/// <summary>The ledger in any order, by any filter, counted as far as it is worth.</summary>
public sealed class OrderTests : IAsyncLifetime
{
    private readonly LiveServer _server = new();

    public ValueTask InitializeAsync() => _server.InitializeAsync();

    public ValueTask DisposeAsync() => _server.DisposeAsync();

    private async Task<List<JsonNode>> ShotsAsync(string query) =>
        [.. (await _server.GetAsync($"/api/shots?size=100&{query}"))["shots"]!.AsArray().Select(s => s!)];

    [Theory]
    [InlineData("R10", "measures", "r10")]
    [InlineData("Time", "measures", "secondsFromPressure")]
    [InlineData("Cup", "measures", "cupGrams")]
    [InlineData("Liking", "taste", "liking")]
    [InlineData("Dose", null, "doseGrams")]
    [InlineData("Grind", null, "grindSetting")]
    public async Task Shots_come_in_the_order_that_is_asked_for(string order, string? part, string number)
    {
        double Of(JsonNode shot) => (double)(part is null ? shot : shot[part]!)[number]!;
        foreach (var ascending in new[] { true, false })
        {
            var shots = await ShotsAsync($"order={order}&ascending={(ascending ? "true" : "false")}");
            Assert.True(shots.Count > 20);
            var values = shots.Select(Of).ToList();
            Assert.Equal(ascending ? values.Order() : values.OrderDescending(), values);
            Assert.True(values[0] != values[^1]);
        }
    }

    [Fact]
    public async Task Measures_that_were_moved_change_the_place_in_the_order()
    {
        // a stop that is moved is another time: the database takes it from the measures by itself
        var (id, version) = (10, (int)(await _server.GetAsync("/api/shots/10"))["shot"]!["version"]!);
        var moments = (await _server.GetAsync("/api/shots/10"))["marked"]!.DeepClone().AsObject();
        moments["stop"] = 20.0;
        var (status, _) = await _server.SendAsync(HttpMethod.Put, $"/api/shots/{id}/moments?version={version}", moments);
        Assert.Equal(200, status);
        Assert.Equal(id, (int)(await ShotsAsync("order=Time&ascending=true"))[0]["id"]!);
    }

    [Fact]
    public async Task Filters_take_each_its_part_away()
    {
        var all = await ShotsAsync("");
        var some = all[all.Count / 2];
        var day = ((string)some["pulledAt"]!)[..10];
        var until = await ShotsAsync($"until={day}");
        var from = await ShotsAsync($"from={day}");
        Assert.InRange(until.Count, 1, all.Count - 1);
        Assert.InRange(from.Count, 1, all.Count - 1);
        var both = await ShotsAsync($"from={day}&until={day}");
        Assert.Equal(until.Count + from.Count - both.Count, all.Count);
        Assert.NotEmpty(both);
        var one = await ShotsAsync("brewerId=1");
        Assert.InRange(one.Count, 1, all.Count - 1);
        Assert.Single(one.Select(s => (string)s["brewer"]!).Distinct());
        var ground = await ShotsAsync("grinderId=1");
        Assert.Single(ground.Select(s => (string)s["grinder"]!).Distinct());
        Assert.Empty(await ShotsAsync("from=9999-12-31"));
        Assert.Equal(all.Count, (await ShotsAsync("from=0001-01-01&until=9999-12-31")).Count);
        Assert.Equal(400, (await _server.SendAsync(HttpMethod.Get, "/api/shots?from=soon", null)).Status);
        Assert.Equal(400, (await _server.SendAsync(HttpMethod.Get, "/api/shots?order=Colour", null)).Status);
    }

    [Fact]
    public async Task Pages_follow_each_other_without_gaps_and_say_when_they_end()
    {
        var all = await ShotsAsync("order=R10");
        var seen = new List<int>();
        for (var page = 0; ; page++)
        {
            var answer = await _server.GetAsync($"/api/shots?size=20&page={page}&order=R10");
            seen.AddRange(answer["shots"]!.AsArray().Select(s => (int)s!["id"]!));
            Assert.Equal(all.Count, (int)answer["total"]!);
            Assert.False((bool)answer["isMore"]!);
            if (!(bool)answer["hasOlder"]!)
                break;
        }

        Assert.Equal(all.Select(s => (int)s["id"]!), seen);
    }

    [Fact]
    public async Task Every_page_says_that_there_are_more_than_a_thousand()
    {
        await using (var connection = new SqliteConnection($"Data Source={StoreFile.PathIn(_server.Folder)};Pooling=False"))
        {
            await connection.OpenAsync();
            await using var command = connection.CreateCommand();
            var columns = await ShotColumns.OfAsync(connection);
            command.CommandText = $"""
                CREATE TEMP TABLE n AS
                  WITH RECURSIVE c(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM c WHERE i < 1100) SELECT i FROM c;
                CREATE TEMP TABLE more AS SELECT one.*, n.i FROM (SELECT {columns} FROM Shots LIMIT 1) one, n;
                UPDATE more SET Id = 1000 + i, PulledAt = PulledAt + i, PullId = NULL, FileHash = NULL;
                ALTER TABLE more DROP COLUMN i;
                INSERT INTO Shots ({columns}) SELECT {columns} FROM more;
                """;
            await command.ExecuteNonQueryAsync();
        }

        foreach (var order in new[] { "Date", "Dose" })
        {
            foreach (var (page, left) in new[] { (0, 200), (4, 200), (5, 155), (6, 0) })
            {
                var answer = await _server.GetAsync($"/api/shots?size=200&page={page}&order={order}");
                Assert.Equal(left, answer["shots"]!.AsArray().Count);
                Assert.Equal(1000, (int)answer["total"]!);
                Assert.True((bool)answer["isMore"]!);
                Assert.Equal(page < 5, (bool)answer["hasOlder"]!);
            }
        }
    }
}
