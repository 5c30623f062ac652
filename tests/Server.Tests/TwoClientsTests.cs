using System.Text.Json.Nodes;
using Microsoft.Data.Sqlite;
using RuddySpring.Store;

namespace RuddySpring.Server.Tests;

/// <summary>Two screens that change the same thing: the later one is told, and nothing is overwritten.</summary>
public sealed class TwoClientsTests : IAsyncLifetime
{
    private readonly LiveServer _server = new();

    public ValueTask InitializeAsync() => _server.InitializeAsync();

    public ValueTask DisposeAsync() => _server.DisposeAsync();

    private async Task<JsonNode> ThingAsync(string things, int at = 0) => (await _server.GetAsync("/api/bench"))[things]![at]!;

    private async Task<(int Status, string Sentence)> ChangeAsync(HttpMethod method, string path, object change)
    {
        var (status, body) = await _server.SendAsync(method, path, change);
        return (status, (string?)body?["detail"] ?? "");
    }

    [Theory]
    [InlineData("bags", "/api/bench/bags/{0}?version={1}")]
    [InlineData("machines", "/api/bench/machines/{0}?version={1}")]
    [InlineData("grinders", "/api/bench/grinders/{0}?version={1}")]
    [InlineData("baskets", "/api/bench/baskets/{0}?version={1}")]
    [InlineData("brewers", "/api/bench/brewers/{0}?version={1}")]
    public async Task The_later_change_of_a_thing_is_told(string things, string path)
    {
        var thing = await ThingAsync(things);
        var address = string.Format(System.Globalization.CultureInfo.InvariantCulture, path, thing["id"], thing["version"]);
        Assert.Equal(200, (await ChangeAsync(HttpMethod.Patch, address, new { name = "First" })).Status);
        var (status, sentence) = await ChangeAsync(HttpMethod.Patch, address, new { name = "Second" });
        Assert.Equal(409, status);
        Assert.Contains("was changed on another screen meanwhile. Nothing was overwritten", sentence, StringComparison.Ordinal);
        Assert.Contains((await _server.GetAsync("/api/bench"))[things]!.AsArray(), t => (string)t!["name"]! == "First");
    }

    [Fact]
    public async Task Shot_sheet_household_plan_and_session_tell_the_later_one_too()
    {
        // the liking stays: only what is owned by the shot's row changes
        var liking = (int)(await _server.GetAsync("/api/shots/3"))["shot"]!["taste"]!["liking"]!;
        var taste = new
        {
            sour = 1,
            bitter = 1,
            dry = 1,
            sweet = 1,
            body = 1,
            liking,
            words = "first",
        };
        Assert.Equal(200, (await ChangeAsync(HttpMethod.Put, "/api/shots/3/taste?version=0", taste)).Status);
        Assert.Equal(
            409,
            (await ChangeAsync(HttpMethod.Put, "/api/shots/3/taste?version=0", taste with { words = "second" })).Status
        );
        Assert.Equal("first", (string)(await _server.GetAsync("/api/shots/3"))["shot"]!["taste"]!["words"]!);

        var answer = await _server.GetAsync("/api/prepare");
        var sheet = answer["sheet"]!.DeepClone();
        sheet["doseGrams"] = 14.2;
        Assert.Equal(200, (await ChangeAsync(HttpMethod.Put, $"/api/prepare?version={answer["version"]}", sheet)).Status);
        Assert.Equal(409, (await ChangeAsync(HttpMethod.Put, $"/api/prepare?version={answer["version"]}", sheet)).Status);

        var household = (await _server.GetAsync("/api/household")).AsObject();
        household["name"] = "First";
        Assert.Equal(200, (await ChangeAsync(HttpMethod.Put, "/api/household?version=0", household)).Status);
        Assert.Equal(409, (await ChangeAsync(HttpMethod.Put, "/api/household?version=0", household)).Status);

        var plan = (await _server.GetAsync("/api/bench"))["plans"]!
            .AsArray()
            .Single(p => ((string)p!["key"]!).StartsWith("own-", StringComparison.Ordinal))!;
        plan["name"] = "Later";
        Assert.Equal(200, (await ChangeAsync(HttpMethod.Put, "/api/plans/1?version=0", plan.DeepClone())).Status);
        Assert.Equal(409, (await ChangeAsync(HttpMethod.Put, "/api/plans/1?version=0", plan.DeepClone())).Status);

        var wants = (await _server.GetAsync("/api/session"))["wants"]!;
        Assert.Equal(
            200,
            (
                await ChangeAsync(
                    HttpMethod.Put,
                    "/api/session?version=0",
                    new { wants = wants.DeepClone(), readyAt = (DateTime?)null }
                )
            ).Status
        );
        Assert.Equal(
            409,
            (
                await ChangeAsync(
                    HttpMethod.Put,
                    "/api/session?version=0",
                    new { wants = wants.DeepClone(), readyAt = (DateTime?)null }
                )
            ).Status
        );
    }

    [Fact]
    public async Task A_form_that_stood_open_puts_back_nothing_that_a_shot_took()
    {
        var bag = (await _server.GetAsync("/api/bench"))["bags"]!.AsArray().First(b => b!["gramsLeft"] is not null)!;
        var sheet = (await _server.GetAsync("/api/prepare"))["sheet"]!.DeepClone();
        sheet["bagId"] = (int)bag["id"]!;
        await _server.PutSheetAsync(sheet);
        await _server.ReadyAsync();
        await _server.PostAsync("/api/pull/begin");
        await _server.PostAsync("/api/pull/stop");
        await _server.PostAsync("/api/pull/save");
        var form = new { name = "Renamed", gramsLeft = (double)bag["gramsLeft"]! };
        Assert.Equal(
            409,
            (await ChangeAsync(HttpMethod.Patch, $"/api/bench/bags/{bag["id"]}?version={bag["version"]}", form)).Status
        );
        // a page sends what was typed, and nothing else of the form
        Assert.Equal(
            200,
            (await _server.SendAsync(HttpMethod.Patch, $"/api/bench/bags/{bag["id"]}", new { name = "Renamed" })).Status
        );
        var now = (await _server.GetAsync("/api/bench"))["bags"]!.AsArray().Single(b => (int)b!["id"]! == (int)bag["id"]!)!;
        Assert.Equal("Renamed", (string)now["name"]!);
        Assert.Equal((double)bag["gramsLeft"]! - (double)sheet["doseGrams"]!, (double)now["gramsLeft"]!, 0.06);
    }

    [Fact]
    public async Task A_rename_leaves_a_measurement_that_was_kept_meanwhile()
    {
        var machine = (await _server.GetAsync("/api/bench"))["machines"]!
            .AsArray()
            .First(m => (string)m!["pressureBy"]! == "Arm")!;
        var rows = new[]
        {
            new
            {
                handKgf = 5.0,
                pressureBar = 3.0,
                strokeShare = (double?)null,
            },
            new
            {
                handKgf = 10.0,
                pressureBar = 6.1,
                strokeShare = (double?)null,
            },
            new
            {
                handKgf = 14.0,
                pressureBar = 8.7,
                strokeShare = (double?)null,
            },
        };
        var (status, problem) = await _server.SendAsync(
            HttpMethod.Post,
            $"/api/machines/{machine["id"]}/measure",
            new { keep = true, handle = rows }
        );
        Assert.True(status == 200, $"{problem}");
        await _server.SendAsync(HttpMethod.Patch, $"/api/bench/machines/{machine["id"]}", new { name = "By another name" });
        var now = await _server.GetAsync($"/api/machines/{machine["id"]}");
        Assert.Equal("By another name", (string)now["name"]!);
        Assert.NotEmpty(now["spec"]!["measured"]!.AsArray());
    }

    [Fact]
    public async Task Eight_at_once_leave_one_open_session()
    {
        var wants = (await _server.GetAsync("/api/session"))["wants"]!;
        var answers = await Task.WhenAll(
            Enumerable
                .Range(0, 8)
                .Select(_ =>
                    ChangeAsync(
                        HttpMethod.Put,
                        "/api/session?version=0",
                        new { wants = wants.DeepClone(), readyAt = (DateTime?)null }
                    )
                )
        );
        Assert.Equal(1, answers.Count(a => a.Status == 200));
        Assert.Equal(7, answers.Count(a => a.Status == 409));
        using var db = new SqliteConnection($"Data Source={StoreFile.PathIn(_server.Folder)};Pooling=False");
        db.Open();
        using var command = db.CreateCommand();
        command.CommandText = "SELECT count(*) FROM Sessions WHERE EndedAt IS NULL";
        Assert.Equal(1L, command.ExecuteScalar());
    }

    [Fact]
    public async Task Two_who_take_back_or_forget_take_back_one_thing()
    {
        var wants = (await _server.GetAsync("/api/session"))["wants"]!;
        await _server.SendAsync(HttpMethod.Put, "/api/session", new { wants = wants.DeepClone(), readyAt = (DateTime?)null });
        foreach (var key in (await _server.GetAsync("/api/session"))["steps"]!.AsArray().Take(2).Select(s => (string)s!["key"]!))
            await _server.PostAsync("/api/session/done", new { key });
        var last = (string)(await _server.GetAsync("/api/session"))["lastTick"]!;
        Assert.Equal(200, (await ChangeAsync(HttpMethod.Post, "/api/session/undo", new { key = last })).Status);
        var (status, sentence) = await ChangeAsync(HttpMethod.Post, "/api/session/undo", new { key = last });
        Assert.Equal(409, status);
        Assert.Contains("nothing was taken back", sentence, StringComparison.Ordinal);
        foreach (var value in new[] { 70, 72 })
            await _server.PostAsync("/api/session/readings", new { kind = "Probe", value });
        var readings = (await _server.GetAsync("/api/session"))["readings"]!;
        var path = FormattableString.Invariant($"/api/session/readings/0?atSeconds={(double)readings[0]!["seconds"]!:R}");
        Assert.Equal(200, (await ChangeAsync(HttpMethod.Delete, path, new { })).Status);
        Assert.Equal(404, (await ChangeAsync(HttpMethod.Delete, path, new { })).Status);
        Assert.Equal(72, (double)(await _server.GetAsync("/api/session"))["readings"]!.AsArray().Single()!["value"]!);
    }
}

/// <summary>The search goes by the names as they are.</summary>
public sealed class RenamedTests(LiveServer server) : IClassFixture<LiveServer>
{
    [Theory]
    [InlineData("bags", "name")]
    [InlineData("bags", "roaster")]
    [InlineData("machines", "name")]
    [InlineData("grinders", "name")]
    [InlineData("brewers", "name")]
    public async Task A_new_name_is_found_and_the_old_one_is_not(string things, string member)
    {
        var thing = (await server.GetAsync("/api/bench"))[things]!.AsArray().Last()!;
        var old = (string)thing[member]!;
        var before = (int)(await server.GetAsync($"/api/shots?search={Uri.EscapeDataString(old)}"))["total"]!;
        Assert.True(before > 0, $"no shot of {old}");
        foreach (
            var same in (await server.GetAsync("/api/bench"))[things]!
                .AsArray()
                .Where(t => ((string)t![member]!).Contains(old, StringComparison.Ordinal))
                .ToList()
        )
            await server.SendAsync(
                HttpMethod.Patch,
                $"/api/bench/{things}/{same!["id"]}",
                new Dictionary<string, string> { [member] = "Qu\u00e9tsche " + things + member }
            );
        Assert.True((int)(await server.GetAsync($"/api/shots?search=quetsche%20{things}{member}"))["total"]! > 0);
        Assert.Equal(0, (int)(await server.GetAsync($"/api/shots?search={Uri.EscapeDataString(old)}"))["total"]!);
    }
}
