namespace RuddySpring.Server.Tests;

public sealed class PrepareTests(LiveServer server) : IClassFixture<LiveServer>
{
    [Fact]
    public async Task The_hut_has_a_first_sheet_that_fits()
    {
        var answer = await server.GetAsync("/api/prepare");
        Assert.True((bool)answer["fits"]!);
        Assert.InRange((double)answer["ratio"]!, 1.5, 3);
    }

    [Fact] // water = yield + 1.05 * dose + dead water: 32 + 15.75 + 5
    public async Task Water_to_pour_is_the_balance()
    {
        await server.ChangeSheetAsync("doseGrams", 15.0);
        var answer = await server.ChangeSheetAsync("yieldGrams", 32.0);
        // held by the coffee and by the machine, less the solids that a cup of this ratio takes along
        var solids = 15 * 0.236 * (1 - Math.Exp(-0.97 * 32 / 15));
        Assert.Equal(32 + (15 * 1.25) + 5 - solids, (double)answer["waterGrams"]!, 1e-9);
        Assert.Equal(52.75, (double)answer["waterGrams"]!, 0.2); // by weighed pucks alone: 32 + 15 x 1.05 + 5
        Assert.Equal(32.0 / 15, (double)answer["ratio"]!, 1e-9);
    }

    [Fact] // statics: 8 bar on 45 mm through 8 with 40 N of seal friction
    public async Task Hand_force_at_the_peak_is_the_levers()
    {
        var answer = await server.ChangeSheetAsync("planKey", "early-peak");
        var expected = ((8e5 * Math.PI * 0.045 * 0.045 / 4) + 40) / (8 * 9.80665);
        Assert.Equal(expected, (double)answer["handForceKgf"]!, 1e-6);
    }

    [Fact]
    public async Task A_yield_that_the_chamber_cannot_give_is_told_with_what_would()
    {
        var answer = await server.ChangeSheetAsync("yieldGrams", 60.0);
        Assert.False((bool)answer["fits"]!);
        Assert.Contains("Ask for at most", (string)answer["fitSentence"]!, StringComparison.Ordinal);
        var (status, problem) = await server.SendAsync(
            HttpMethod.Post,
            "/api/pull/ready",
            new { sheetVersion = (int)(await server.GetAsync("/api/prepare"))["version"]! }
        );
        Assert.Equal(400, status);
        Assert.Equal("yieldGrams", (string)problem!["field"]!);
        await server.ChangeSheetAsync("yieldGrams", 32.0);
    }

    [Fact]
    public async Task What_is_typed_is_kept_even_where_it_does_not_do()
    {
        var answer = await server.ChangeSheetAsync("doseGrams", 99.0);
        Assert.Equal("doseGrams", (string)answer["problems"]![0]!["field"]!);
        Assert.Contains("between 5 and 30 g", (string)answer["problems"]![0]!["sentence"]!, StringComparison.Ordinal);
        Assert.Equal(99.0, (double)(await server.GetAsync("/api/prepare"))["sheet"]!["doseGrams"]!);
        await server.ChangeSheetAsync("doseGrams", 15.0);
    }

    [Fact]
    public async Task A_spring_machine_is_asked_for_no_hand_force_and_gets_its_own_plan()
    {
        var spring = (await server.GetAsync("/api/bench"))["machines"]!
            .AsArray()
            .Single(m => (string)m!["pressureBy"]! == "Spring")!;
        var portable = (int)(await server.GetAsync("/api/prepare"))["sheet"]!["machineId"]!;
        var answer = await server.ChangeSheetAsync("machineId", (int)spring["id"]!);
        Assert.Null(answer["handForceKgf"]);
        Assert.Equal("free-spring", (string)answer["sheet"]!["planKey"]!);
        await server.ChangeSheetAsync("machineId", portable);
    }

    [Fact]
    public async Task The_session_under_way_moves_the_sheets_water()
    {
        var usual = (double)(await server.GetAsync("/api/prepare"))["waterC"]!;
        var session = await server.GetAsync("/api/session");
        Assert.Equal(94.5, (double)session["boilingPointC"]!, 0.1); // IF97 at 1640 m
        var (status, _) = await server.SendAsync(
            HttpMethod.Put,
            "/api/session",
            new { wants = session["wants"], readyAt = (DateTime?)null }
        );
        Assert.Equal(200, status);
        await server.PostAsync("/api/session/done", new { key = "boil-1" });
        var cold = (double)(await server.GetAsync("/api/prepare"))["waterC"]!;
        Assert.True(cold < usual - 10, $"{cold} {usual}");
        await server.PostAsync("/api/session/done", new { key = "preheat" });
        Assert.True((double)(await server.GetAsync("/api/prepare"))["waterC"]! > cold + 10);
        await server.PostAsync("/api/session/end");
        Assert.Equal(usual, (double)(await server.GetAsync("/api/prepare"))["waterC"]!, 0.01);
    }

    [Fact] // a boiler too cool for the band gets no made-up time
    public async Task A_group_that_never_reaches_its_band_is_said_so()
    {
        var bench = await server.GetAsync("/api/bench");
        var dipper = bench["machines"]!.AsArray().Single(m => (string)m!["name"]! == "Window dipper")!;
        var portable = (int)(await server.GetAsync("/api/prepare"))["sheet"]!["machineId"]!;
        var spec = dipper["spec"]!.DeepClone();
        spec["boilerGaugeBar"] = 0.2;
        spec["heat"] = System.Text.Json.JsonSerializer.SerializeToNode(new { boilerGroupWPerK = 0.06 });
        await server.SendAsync(HttpMethod.Patch, $"/api/bench/machines/{dipper["id"]}", new { name = "Window dipper", spec });
        await server.ChangeSheetAsync("machineId", (int)dipper["id"]!);
        var session = await server.GetAsync("/api/session");
        Assert.Contains("does not reach its band", (string)session["problem"]!, StringComparison.Ordinal);
        Assert.NotEmpty(session["remedies"]!.AsArray());
        await server.SendAsync(
            HttpMethod.Patch,
            $"/api/bench/machines/{dipper["id"]}",
            new { name = "Window dipper", spec = dipper["spec"] }
        );
        Assert.Null((await server.GetAsync("/api/session"))["problem"]);
        await server.ChangeSheetAsync("machineId", portable);
    }
}
