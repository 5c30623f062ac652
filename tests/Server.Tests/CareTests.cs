using System.Text.Json.Nodes;
using Microsoft.Data.Sqlite;
using RuddySpring.Core.Care;
using RuddySpring.Store;

namespace RuddySpring.Server.Tests;

/// <summary>What is due, done and left out; what wear does to the reasons of a shot.</summary>
public sealed class CareTests
{
    private static readonly string Today = DateTime.Now.ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture);

    [Fact]
    public async Task WhatIsDoneIsNoLongerDueAndStandsInTheHistory()
    {
        await using var server = new LiveServer();
        await server.InitializeAsync();
        await server.SendAsync(
            HttpMethod.Put,
            "/api/care/task",
            new
            {
                machineId = 1,
                task = "rinse",
                interval = new { shots = 1 },
            }
        );
        Assert.Contains(await DueAsync(server), d => d is ("rinse", 1));
        var done = await server.PostAsync(
            "/api/care/done",
            new
            {
                machineId = 1,
                task = "rinse",
                on = Today,
                note = "new brush",
            }
        );
        Assert.DoesNotContain(await DueAsync(server), d => d is ("rinse", 1));
        var machine = await MachineAsync(server, 1);
        Assert.Equal("new brush", (string)machine["history"]!.AsArray()[0]!["note"]!);
        Assert.Equal(Today, (string)TaskOf(machine, "rinse")["lastDone"]!);
        await server.SendAsync(HttpMethod.Delete, $"/api/care/done/{done!["id"]}");
        Assert.Contains(await DueAsync(server), d => d is ("rinse", 1));
        Assert.Equal(404, (await server.SendAsync(HttpMethod.Delete, $"/api/care/done/{done["id"]}")).Status);
    }

    [Fact]
    public async Task UseIsCountedFromTheShotsThatAreThere()
    {
        await using var server = new LiveServer();
        await server.InitializeAsync();
        var before = TaskOf(await MachineAsync(server, 1), "seal-new")["due"]!;
        var name = (string)(await MachineAsync(server, 1))["machine"]!;
        var ids = (await server.GetAsync("/api/shots?size=60"))["shots"]!
            .AsArray()
            .Where(s => (string)s!["machine"]! == name)
            .Select(s => (int)s!["id"]!)
            .ToList();
        // the first day is the day that it counts from
        await server.SendAsync(HttpMethod.Delete, $"/api/shots/{ids[0]}");
        var after = TaskOf(await MachineAsync(server, 1), "seal-new")["due"]!;
        Assert.Equal((int)before["shots"]! - 1, (int)after["shots"]!);
        Assert.InRange((double)before["litres"]! / (int)before["shots"]!, 0.025, 0.12); // a shot's water, common practice
    }

    [Fact]
    public async Task ALeftOutTaskIsNeverDueAndAnIntervalOfOnesOwnHolds()
    {
        await using var server = new LiveServer();
        await server.InitializeAsync();
        await server.SendAsync(
            HttpMethod.Put,
            "/api/care/task",
            new
            {
                machineId = 1,
                task = "rinse",
                isOff = true,
            }
        );
        Assert.DoesNotContain(await DueAsync(server), d => d is ("rinse", 1));
        Assert.Null(TaskOf(await MachineAsync(server, 1), "rinse")["due"]);
        await server.SendAsync(
            HttpMethod.Put,
            "/api/care/task",
            new
            {
                machineId = 1,
                task = "rinse",
                interval = new { days = 3 },
            }
        );
        Assert.Equal(3, (int)TaskOf(await MachineAsync(server, 1), "rinse")["interval"]!["days"]!);
        await server.SendAsync(HttpMethod.Put, "/api/care/task", new { machineId = 1, task = "rinse" });
        Assert.False((bool)TaskOf(await MachineAsync(server, 1), "rinse")["isOwn"]!);
    }

    [Fact]
    public async Task HardWaterIsDueForDescalingSooner()
    {
        await using var server = new LiveServer();
        await server.InitializeAsync();
        async Task<string> OnAsync(double hardness)
        {
            Assert.Equal(
                204,
                (await server.SendAsync(HttpMethod.Put, "/api/care/hardness", new { waterHardness = hardness })).Status
            );
            var care = await server.GetAsync("/api/care");
            return (string)
                TaskOf(care["machines"]!.AsArray().First(m => TaskOrNull(m!, "boiler") is not null)!, "descale")["due"]!["on"]!;
        }

        Assert.True(string.CompareOrdinal(await OnAsync(1000), await OnAsync(60)) < 0);
        var (status, problem) = await server.SendAsync(HttpMethod.Put, "/api/care/hardness", new { waterHardness = 1001 });
        Assert.Equal((400, "waterHardness"), (status, (string)problem!["field"]!));
    }

    [Theory]
    [InlineData(1, "polish", "2026-01-01", "task")]
    [InlineData(1, "rinse", "1989-12-31", "on")]
    [InlineData(1, "rinse", "2999-01-01", "on")]
    [InlineData(1, "rinse", "yesterday", "on")]
    public async Task WhatCannotBeIsRefusedByName(int machineId, string task, string on, string field)
    {
        await using var server = new LiveServer();
        await server.InitializeAsync();
        var (status, problem) = await server.SendAsync(
            HttpMethod.Post,
            "/api/care/done",
            new
            {
                machineId,
                task,
                on,
            }
        );
        Assert.Equal((400, field), (status, (string)problem!["field"]!));
    }

    [Fact]
    public async Task AnotherParserReadsTheDatesOfTheCalendar()
    {
        await using var server = new LiveServer();
        await server.InitializeAsync();
        var text = await server.Http.GetStringAsync("/api/care/calendar.ics");
        var tasks = (await server.GetAsync("/api/care"))["machines"]!.AsArray().SelectMany(m => m!["tasks"]!.AsArray()).ToList();
        Assert.Equal(tasks.Count(t => t!["due"] is not null), text.Split("BEGIN:VEVENT").Length - 1);
        // folded by RFC 5545
        Assert.DoesNotContain("\n ", text.Replace("\r\n ", "", StringComparison.Ordinal), StringComparison.Ordinal);
        Assert.Contains("DTSTART;VALUE=DATE:", text, StringComparison.Ordinal);
    }

    [Fact]
    public async Task ASpringThatSagsIsFoundAndBlamed()
    {
        await using var server = new LiveServer();
        await server.InitializeAsync();
        var spring = (int)
            (await server.GetAsync("/api/bench"))["machines"]!
                .AsArray()
                .Single(m => (string)m!["spec"]!["family"]! == "BoilerSpring")!["id"]!;
        Assert.Empty((await MachineAsync(server, spring))["findings"]!.AsArray());
        await using (var connection = new SqliteConnection($"Data Source={StoreFile.PathIn(server.Folder)};Pooling=False"))
        {
            await connection.OpenAsync();
            await using var command = connection.CreateCommand();
            var columns = await ShotColumns.OfAsync(connection);
            // the newest shots of the sample, pulled again and again by a spring that gives an eighth less
            command.CommandText = $"""
                CREATE TEMP TABLE n AS
                  WITH RECURSIVE c(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM c WHERE i < 40) SELECT i FROM c;
                CREATE TEMP TABLE one AS SELECT {columns} FROM Shots
                  WHERE MachineId = {spring} AND json_extract(Measures, '$.peakBar') > 1
                  ORDER BY PulledAt DESC LIMIT 1;
                CREATE TEMP TABLE more AS SELECT one.*, n.i FROM one, n;
                UPDATE more SET Id = Id + 1000 + i, PulledAt = PulledAt + i * 36000000000, PullId = NULL, FileHash = NULL,
                  Measures = json_set(Measures, '$.peakBar', 9.0 * CASE WHEN i > 25 THEN 0.875 ELSE 1 END * (1 + 0.01 * (i % 3)));
                ALTER TABLE more DROP COLUMN i;
                INSERT INTO Shots ({columns}) SELECT {columns} FROM more;
                """;
            await command.ExecuteNonQueryAsync();
        }

        var found = (await MachineAsync(server, spring))["findings"]!.AsArray().Single()!;
        Assert.Equal("SpringSags", (string)found["kind"]!);
        Assert.Equal(CareList.SpringService, (string)found["task"]!);
        // a new spring begins again
        await server.PostAsync(
            "/api/care/done",
            new
            {
                machineId = spring,
                task = CareList.SpringService,
                on = Today,
            }
        );
        Assert.Empty((await MachineAsync(server, spring))["findings"]!.AsArray());
    }

    private static JsonNode TaskOf(JsonNode machine, string key) => TaskOrNull(machine, key)!;

    private static JsonNode? TaskOrNull(JsonNode machine, string key) =>
        machine["tasks"]!.AsArray().SingleOrDefault(t => (string)t!["key"]! == key);

    private static async Task<JsonNode> MachineAsync(LiveServer server, int id) =>
        (await server.GetAsync("/api/care"))["machines"]!.AsArray().Single(m => (int)m!["machineId"]! == id)!;

    private static async Task<List<(string, int)>> DueAsync(LiveServer server) =>
        [.. (await server.GetAsync("/api/care/due")).AsArray().Select(d => ((string)d!["task"]!, (int)d["machineId"]!))];
}
