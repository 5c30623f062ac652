namespace RuddySpring.Server.Tests.Machines;

public sealed class MachineTests : IAsyncLifetime
{
    private readonly LiveServer _server = new();

    public ValueTask InitializeAsync() => _server.InitializeAsync();

    public ValueTask DisposeAsync() => _server.DisposeAsync();

    private async Task<int> IdAsync(string name) =>
        (int)(await _server.GetAsync("/api/bench"))["machines"]!.AsArray().Single(m => (string)m!["name"]! == name)!["id"]!;

    [Fact]
    public async Task All_families_and_the_restricting_basket_are_there_to_start_from_and_can_be_kept()
    {
        var starts = (await _server.GetAsync("/api/machines/starts")).AsArray();
        Assert.Equal(9, starts.Count);
        foreach (var start in starts)
        {
            var bench = await _server.PostAsync(
                "/api/bench/machines",
                new { name = $"A {start!["start"]!["key"]}", spec = start["start"]!["defaults"] }
            );
            var id = (int)bench!["machines"]!.AsArray().Single(m => (string)m!["name"]! == $"A {start["start"]!["key"]}")!["id"]!;
            var detail = await _server.GetAsync($"/api/machines/{id}");
            Assert.True((double)detail["cutaway"]!["strokeMm"]! > 3);
            Assert.True((double)detail["can"]!["largestYieldGrams"]! > 15);
            Assert.InRange((int)detail["can"]!["strokesForUsualYield"]!, 1, 90);
            Assert.All(detail["numbers"]!.AsArray(), n =>
                Assert.InRange((double)n!["value"]!, (double)n["min"]!, (double)n["max"]!)
            );
            Assert.Contains("stroke", detail["ways"]!.AsArray().Select(w => (string)w!));
        }
    }

    [Fact] // p = F r / A: 45 mm, ratio 8.1: 18 kgf at the handle is 9 bar (worked example), 12 kgf is 6
    public async Task Weighing_the_handle_gives_the_ratio_and_says_what_it_changed()
    {
        var id = await IdAsync("Pack lever");
        var rows = new[]
        {
            new { handKgf = 6.01, pressureBar = 3.0 },
            new { handKgf = 12.02, pressureBar = 6.0 },
            new { handKgf = 18.02, pressureBar = 9.0 },
        };
        var shown = await _server.PostAsync($"/api/machines/{id}/measure", new { keep = false, handle = rows });
        Assert.Equal(8.1, (double)shown!["changes"]![0]!["value"]!, 0.05);
        Assert.False((bool)shown["kept"]!);
        Assert.Equal(8, (double)(await _server.GetAsync($"/api/machines/{id}"))["spec"]!["leverRatio"]!);
        await _server.PostAsync($"/api/machines/{id}/measure", new { keep = true, handle = rows });
        var ratio = (await _server.GetAsync($"/api/machines/{id}"))["numbers"]!
            .AsArray()
            .Single(n => (string)n!["field"]! == "leverRatio")!;
        Assert.Equal("Measured", (string)ratio["origin"]!);
        Assert.Equal(8.1, (double)ratio["value"]!, 0.05);
        Assert.Equal("weighing the handle", (string)ratio["way"]!);
    }

    [Fact]
    public async Task Wrong_rows_are_named_and_change_nothing()
    {
        var id = await IdAsync("Hall spring");
        var before = (await _server.GetAsync($"/api/machines/{id}"))["spec"]!.ToJsonString();
        var (status, problem) = await _server.SendAsync(
            HttpMethod.Post,
            $"/api/machines/{id}/measure",
            new
            {
                keep = true,
                stroke = new[]
                {
                    new
                    {
                        pouredGrams = (double?)null,
                        caughtGrams = -3,
                        waterC = 60,
                    },
                },
            }
        );
        Assert.Equal(400, status);
        Assert.Equal("caughtGrams", (string)problem!["field"]!);
        (status, problem) = await _server.SendAsync(HttpMethod.Post, $"/api/machines/{id}/measure", new { keep = true });
        Assert.Equal("rows", (string)problem!["field"]!);
        (status, _) = await _server.SendAsync(
            HttpMethod.Post,
            $"/api/machines/{id}/measure",
            new { keep = true, spring = new[] { new { movedMl = 5, pressureBar = 9 } } }
        );
        Assert.Equal(400, status);
        Assert.Equal(before, (await _server.GetAsync($"/api/machines/{id}"))["spec"]!.ToJsonString());
    }

    [Fact] // the hut's dipper loses 18 % more to the room than its family, and has three mornings of strip readings
    public async Task Heat_is_learned_from_the_mornings_of_a_machine_over_sessions()
    {
        var id = await IdAsync("Window dipper");
        var fit = await _server.GetAsync($"/api/machines/{id}/heat-fit");
        Assert.Equal(3, (int)fit["sessions"]!);
        Assert.True((int)fit["readings"]! >= 9);
        Assert.False((bool)fit["kept"]!);
        var before = await _server.GetAsync($"/api/machines/{id}");
        Assert.True((bool)before["heatIsFamily"]!);
        await _server.PostAsync($"/api/machines/{id}/heat-fit");
        var heat = (await _server.GetAsync($"/api/machines/{id}"))["heat"]!;
        Assert.InRange(
            (double)heat["boilerGroupWPerK"]! / (double)heat["groupAmbientWPerK"]!,
            0.75 * 0.837 / 0.708,
            1.25 * 0.837 / 0.708
        );
        Assert.True((double)heat["spreadK"]! < 2.5);
    }

    [Fact]
    public async Task Heat_is_learned_from_logged_temperatures_and_can_be_reset()
    {
        var id = await IdAsync("Window dipper");
        var rows = new[] { (5, 26), (10, 47), (15, 58), (20, 65), (25, 69), (30, 71), (40, 73) }.Select(r => new
        {
            minutes = r.Item1,
            groupC = r.Item2,
        });
        var shown = await _server.PostAsync($"/api/machines/{id}/measure", new { keep = true, temperatures = rows });
        Assert.Equal(3, shown!["changes"]!.AsArray().Count);
        var detail = await _server.GetAsync($"/api/machines/{id}");
        Assert.False((bool)detail["heatIsFamily"]!);
        Assert.Equal(7, (int)detail["heat"]!["fittedReadings"]!);
        Assert.True((double)detail["heat"]!["spreadK"]! < 4);
        detail = await _server.PostAsync($"/api/machines/{id}/heat-reset");
        Assert.True((bool)detail!["heatIsFamily"]!);
        var (status, problem) = await _server.SendAsync(HttpMethod.Get, $"/api/machines/{await IdAsync("Hall spring")}/heat-fit");
        Assert.Equal(400, status);
        Assert.Contains("At least 4 readings", (string)problem!["detail"]!, StringComparison.Ordinal);
    }
}
