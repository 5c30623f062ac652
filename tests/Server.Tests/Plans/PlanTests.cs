using System.Text.Json.Nodes;

namespace RuddySpring.Server.Tests.Plans;

/// <summary>Pull plans through the whole server: seen, kept, changed, thrown away, passed on.</summary>
public sealed class PlanTests(LiveServer server) : IClassFixture<LiveServer>
{
    private async Task<JsonNode> ShippedAsync(string key) =>
        (await server.GetAsync("/api/bench"))["plans"]!.AsArray().Single(p => (string)p!["key"]! == key)!.DeepClone();

    private async Task PackLeverAsync()
    {
        var pack = (await server.GetAsync("/api/bench"))["machines"]!.AsArray().Single(m => (string)m!["name"]! == "Pack lever")!;
        await server.ChangeSheetAsync("machineId", (int)pack["id"]!);
    }

    [Fact]
    public async Task Every_family_gets_a_sheet_with_a_plan_that_it_can_pull()
    {
        var starts = (await server.GetAsync("/api/machines/starts")).AsArray();
        Assert.Equal(9, starts.Count);
        foreach (var start in starts)
        {
            var name = $"Trial {start!["start"]!["key"]}";
            await server.PostAsync("/api/bench/machines", new { name, spec = start["start"]!["defaults"]!.DeepClone() });
            var row = (await server.GetAsync("/api/bench"))["machines"]!.AsArray().Single(m => (string)m!["name"]! == name)!;
            Assert.True(row["planKeys"]!.AsArray().Count >= 2, name);
            await server.ChangeSheetAsync("basketId", null); // as the screen does with another machine
            await server.ChangeSheetAsync("machineId", (int)row["id"]!);
            await server.ChangeSheetAsync("doseGrams", (double)start["start"]!["doseGrams"]!);
            var answer = await server.ChangeSheetAsync("yieldGrams", (double)start["start"]!["yieldGrams"]!);
            Assert.True((bool)answer["fits"]!, $"{name}: {answer["fitSentence"]}");
            Assert.True(answer["planProblems"]!.AsArray().Count == 0, $"{name}: {answer["planProblems"]}");
            Assert.True((int)answer["strokes"]! >= 1);
            foreach (
                var key in row["planKeys"]!
                    .AsArray()
                    .Select(k => (string)k!)
                    .Where(k => !k.StartsWith("own-", StringComparison.Ordinal))
                    .ToList()
            )
            {
                var view = (await server.PostAsync("/api/plans/preview", await ShippedAsync(key)))!;
                Assert.True(view["preview"]!["points"]!.AsArray().Count > 50, $"{name} {key}");
            }
        }

        await PackLeverAsync();
    }

    [Fact]
    public async Task A_plan_is_seen_as_it_would_run()
    {
        await PackLeverAsync();
        var view = (await server.PostAsync("/api/plans/preview", await ShippedAsync("early-peak")))!;
        Assert.Equal("Pack lever", (string)view["machineName"]!);
        var points = view["preview"]!["points"]!.AsArray();
        Assert.Equal(0, (int)points[0]!["phase"]!);
        Assert.Equal(4, (int)points[^1]!["phase"]!);
        Assert.Equal(8, points.Max(p => (double)p!["targetBar"]!), 0.01);
        Assert.True(points.Zip(points.Skip(1)).All(p => (double)p.Second!["cupGrams"]! >= (double)p.First!["cupGrams"]!));
    }

    [Fact]
    public async Task A_copy_is_kept_changed_used_thrown_away_and_taken_back()
    {
        await PackLeverAsync();
        var plan = await ShippedAsync("flat-firm");
        plan["name"] = "Mine";
        plan["phases"]![2]!["toBar"] = 6.5;
        var kept = (await server.PostAsync("/api/plans", plan))!;
        var (id, key) = ((int)kept["id"]!, (string)kept["plan"]!["key"]!);
        Assert.Equal($"own-{id}", key);
        var answer = await server.ChangeSheetAsync("planKey", key);
        Assert.Equal(key, (string)answer["sheet"]!["planKey"]!);
        plan["phases"]![2]!["toBar"] = 7.0;
        var changed = await server.SendAsync(HttpMethod.Put, $"/api/plans/{id}", plan);
        Assert.Equal(7.0, (double)changed.Body!["plan"]!["phases"]![2]!["toBar"]!);
        await server.SendAsync(HttpMethod.Delete, $"/api/plans/{id}");
        // the sheet falls back to a plan that is there
        Assert.Equal("early-peak", (string)(await server.GetAsync("/api/prepare"))["sheet"]!["planKey"]!);
        await server.PostAsync($"/api/plans/{id}/restore", new { });
        Assert.Contains((await server.GetAsync("/api/bench"))["plans"]!.AsArray(), p => (string)p!["key"]! == key);
        await server.ChangeSheetAsync("planKey", "early-peak");
    }

    [Fact]
    public async Task A_plan_goes_out_as_a_file_and_comes_in_again_unchanged()
    {
        var file = await server.GetAsync("/api/plans/hold-flow/file");
        Assert.Equal("ruddy-spring-plan", (string)file["format"]!);
        var kept = (await server.PostAsync("/api/plans/import", file))!;
        var (was, now) = (file["plan"]!.AsObject(), kept["plan"]!.AsObject());
        Assert.Equal(was["phases"]!.ToJsonString(), now["phases"]!.ToJsonString());
        Assert.Equal((string)was["name"]!, (string)now["name"]!);
        file["format"] = "something-else";
        var (status, problem) = await server.SendAsync(HttpMethod.Post, "/api/plans/import", file);
        Assert.Equal(400, status);
        Assert.Equal("format", (string)problem!["field"]!);
        (status, problem) = await server.SendAsync(
            HttpMethod.Post,
            "/api/plans/import",
            new { format = "ruddy-spring-plan", version = 1 }
        );
        Assert.Equal(400, status);
        Assert.Equal("plan", (string)problem!["field"]!);
        Assert.Equal("plan is missing.", (string)problem["detail"]!);
    }

    [Theory]
    [InlineData("toBar", 14, "toBar", "between 0 and 12 bar")]
    [InlineData("endsAt", 0, "phases", "points cross")]
    public async Task A_wrong_point_gets_one_sentence_and_nothing_is_kept(string field, double value, string named, string words)
    {
        var before = (await server.GetAsync("/api/bench"))["plans"]!.AsArray().Count;
        var plan = await ShippedAsync("early-peak");
        plan["phases"]![3]![field] = value;
        var (status, problem) = await server.SendAsync(HttpMethod.Post, "/api/plans", plan);
        Assert.Equal(400, status);
        Assert.Equal(named, (string)problem!["field"]!);
        Assert.Contains(words, (string)problem["detail"]!, StringComparison.Ordinal);
        Assert.Equal(before, (await server.GetAsync("/api/bench"))["plans"]!.AsArray().Count);
    }

    [Fact]
    public async Task A_plan_above_the_machine_says_what_to_change_and_one_that_ships_is_not_overwritten()
    {
        await PackLeverAsync();
        var plan = await ShippedAsync("early-peak");
        plan["phases"]![1]!["toBar"] = 11;
        plan["phases"]![2]!["toBar"] = 11;
        var problems = (await server.PostAsync("/api/plans/preview", plan))!["preview"]!["problems"]!.AsArray();
        Assert.Equal(2, problems.Count);
        Assert.Contains("Lower the point", (string)problems[0]!["sentence"]!, StringComparison.Ordinal);
        var (status, _) = await server.SendAsync(HttpMethod.Put, "/api/plans/9999", plan);
        Assert.Equal(404, status);
    }

    [Fact]
    public async Task Pressing_softer_all_the_way_is_kept_as_a_plan_of_its_own()
    {
        var kept = (await server.PostAsync("/api/plans/early-peak/scaled?factor=0.9", new { }))!;
        Assert.Equal("Early peak, long ease, 10 % softer", (string)kept["plan"]!["name"]!);
        Assert.Equal(7.2, (double)kept["plan"]!["phases"]![1]!["toBar"]!, 9);
        Assert.Equal("Ramp to {bar}", (string)kept["plan"]!["phases"]![1]!["cue"]!);
        var (status, problem) = await server.SendAsync(HttpMethod.Post, "/api/plans/early-peak/scaled?factor=3");
        Assert.Equal(400, status);
        Assert.Equal("factor", (string)problem!["field"]!);
    }
}
