using System.Text.Json.Nodes;

namespace RuddySpring.Server.Tests.Sessions;

/// <summary>A morning on the hut's dipper over HTTP: plan, tick, read, fall behind, end.</summary>
public sealed class SessionTests : IAsyncLifetime
{
    private readonly LiveServer _server = new();
    private int _dipper;

    public async ValueTask InitializeAsync()
    {
        await _server.InitializeAsync();
        _dipper = await MachineAsync("Window dipper");
        await _server.ChangeSheetAsync("machineId", _dipper);
    }

    public ValueTask DisposeAsync() => _server.DisposeAsync();

    private async Task<int> MachineAsync(string name) =>
        (int)(await _server.GetAsync("/api/bench"))["machines"]!.AsArray().Single(m => (string)m!["name"]! == name)!["id"]!;

    private async Task<JsonNode> PlanAsync(int drinks, DateTime? readyAt = null, bool cloth = true)
    {
        var wants = (await _server.GetAsync("/api/session"))["wants"]!.DeepClone();
        wants["drinks"] = new JsonArray([
            .. Enumerable.Range(0, drinks).Select(i => new JsonObject { ["for"] = $"Guest {i + 1}", ["milkGrams"] = 0 }),
        ]);
        wants["cloth"] = cloth;
        var (status, body) = await _server.SendAsync(HttpMethod.Put, "/api/session", new { wants, readyAt });
        Assert.True(status == 200, $"{status} {body}");
        return body!;
    }

    private static List<string> Keys(JsonNode session, string state) =>
        [.. session["steps"]!.AsArray().Where(s => (string)s!["state"]! == state).Select(s => (string)s!["key"]!)];

    [Fact]
    public async Task A_morning_is_planned_ticked_off_and_kept()
    {
        Assert.Null((await _server.GetAsync("/api/session"))["id"]);
        var session = await PlanAsync(4);
        Assert.NotNull(session["id"]);
        Assert.False((bool)session["begun"]!);
        Assert.Equal(["fill", "on", "bleed"], Keys(session, "Due").Take(3));
        Assert.Equal(4, Keys(session, "Due").Count(k => k.StartsWith("shot-", StringComparison.Ordinal)));
        Assert.Contains(session["steps"]!.AsArray(), s => (string)s!["title"]! == "Pull 2 for Guest 2");

        await _server.PostAsync("/api/session/done", new { key = "fill" });
        session = (await _server.PostAsync("/api/session/done", new { key = "on" }))!;
        Assert.True((bool)session["begun"]!);
        Assert.Equal(["fill", "on"], Keys(session, "Done"));
        Assert.True((bool)session["now"]!["elementOn"]!);

        // begun and not ended yet
        session = (await _server.PostAsync("/api/session/begin", new { key = "bleed" }))!;
        Assert.Equal(["bleed"], Keys(session, "UnderWay"));
        session = (await _server.PostAsync("/api/session/undo", new { key = "bleed" }))!;
        Assert.Empty(Keys(session, "UnderWay"));
        session = (await _server.PostAsync("/api/session/done", new { key = "grind-1", skipped = true }))!;
        Assert.Equal(["grind-1"], Keys(session, "Skipped"));

        // nothing of it is lost when the wants change, or the server is asked again
        session = await PlanAsync(2);
        Assert.Equal(["fill", "on"], Keys(session, "Done"));
        Assert.Equal(2, Keys(session, "Due").Count(k => k.StartsWith("shot-", StringComparison.Ordinal)));
        Assert.Equal(session.ToJsonString().Length, (await _server.GetAsync("/api/session")).ToJsonString().Length, 400.0);

        session = (await _server.PostAsync("/api/session/end"))!;
        Assert.Null(session["id"]);
        var (status, problem) = await _server.SendAsync(HttpMethod.Post, "/api/session/done", new { key = "bleed" });
        Assert.Equal(409, status);
        Assert.Contains("No session is open", (string)problem!["detail"]!, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_step_ticked_late_moves_the_curve_and_the_plan()
    {
        var planned = (double)(await PlanAsync(2))["lastCupSeconds"]!;
        await _server.PostAsync("/api/session/done", new { key = "fill", secondsAgo = 1830 });
        var session = (await _server.PostAsync("/api/session/done", new { key = "on", secondsAgo = 1800 }))!;
        Assert.InRange((double)session["nowSeconds"]!, 1800, 1900);
        // half an hour on, not bled: the gauge shows pressure and the water is cool behind it
        var hidden = session["now"]!["false"]!;
        Assert.InRange((double)hidden["waterC"]!, 75, 93);
        Assert.True((double)hidden["bledC"]! > 105);
        Assert.True((double)session["lastCupSeconds"]! > planned);
        Assert.Equal("bleed", Keys(session, "Due")[0]);
        await _server.PostAsync("/api/session/end");
    }

    [Fact]
    public async Task Readings_steer_the_curve_are_kept_and_can_be_taken_back()
    {
        await PlanAsync(1);
        var (status, problem) = await _server.SendAsync(
            HttpMethod.Post,
            "/api/session/readings",
            new { kind = "Strip", value = 70 }
        );
        Assert.Equal(400, status);
        Assert.Contains("before the machine was switched on", (string)problem!["detail"]!, StringComparison.Ordinal);
        await _server.PostAsync("/api/session/done", new { key = "fill", secondsAgo = 1300 });
        await _server.PostAsync("/api/session/done", new { key = "on", secondsAgo = 1290 });
        await _server.PostAsync("/api/session/done", new { key = "bleed", secondsAgo = 900 });
        var before = (double)(await _server.GetAsync("/api/session"))["now"]!["groupC"]!;
        var session = (await _server.PostAsync("/api/session/readings", new { kind = "Strip", value = before + 12 }))!;
        Assert.InRange((double)session["now"]!["groupC"]!, before + 6, before + 12);
        Assert.True((double)session["now"]!["plusMinusK"]! < 2);
        (status, problem) = await _server.SendAsync(
            HttpMethod.Post,
            "/api/session/readings",
            new { kind = "Strip", value = 400 }
        );
        Assert.Equal(400, status);
        Assert.Contains("between -10 and 150", (string)problem!["detail"]!, StringComparison.Ordinal);
        (status, _) = await _server.SendAsync(
            HttpMethod.Post,
            "/api/session/readings",
            new
            {
                kind = "Strip",
                value = 50,
                secondsAgo = 7000,
            }
        );
        Assert.Equal(400, status);
        (_, var after) = await _server.SendAsync(
            HttpMethod.Delete,
            FormattableString.Invariant($"/api/session/readings/0?atSeconds={(double)session["readings"]![0]!["seconds"]!:R}")
        );
        Assert.Empty(after!["readings"]!.AsArray());
        Assert.Equal(before, (double)after["now"]!["groupC"]!, 1.0);
        await _server.PostAsync("/api/session/end");
    }

    [Fact]
    public async Task A_pull_that_is_kept_ticks_its_shot_off_and_takes_its_dose_from_the_bag()
    {
        await PlanAsync(2);
        foreach (var (key, ago) in new[] { ("fill", 1500), ("on", 1490), ("bleed", 1180), ("grind-1", 200), ("flush-1", 90) })
            await _server.PostAsync("/api/session/done", new { key, secondsAgo = ago });
        var bagId = (int)(await _server.GetAsync("/api/prepare"))["sheet"]!["bagId"]!;
        async Task<double> LeftAsync() =>
            (double)(await _server.GetAsync("/api/bench"))["bags"]!.AsArray().Single(b => (int)b!["id"]! == bagId)!["gramsLeft"]!;
        var left = await LeftAsync();
        await _server.ReadyAsync();
        await _server.PostAsync("/api/pull/begin");
        await Task.Delay(300);
        await _server.PostAsync("/api/pull/stop");
        await _server.PostAsync("/api/pull/save");
        var session = await _server.GetAsync("/api/session");
        Assert.Contains("shot-1", Keys(session, "Done"));
        Assert.Contains("prepare-1", Keys(session, "Done"));
        Assert.DoesNotContain("shot-1", Keys(session, "Due"));
        Assert.Contains("shot-2", Keys(session, "Due"));
        Assert.Equal(left - (double)(await _server.GetAsync("/api/prepare"))["sheet"]!["doseGrams"]!, await LeftAsync(), 0.05);
        await _server.PostAsync("/api/session/end");
    }

    [Fact]
    public async Task A_time_in_the_past_and_wrong_wants_are_named_and_nothing_is_kept()
    {
        var session = await _server.GetAsync("/api/session");
        var (status, problem) = await _server.SendAsync(
            HttpMethod.Put,
            "/api/session",
            new { wants = session["wants"], readyAt = DateTime.UtcNow.AddMinutes(-5) }
        );
        Assert.Equal(400, status);
        Assert.Equal("readyAt", (string)problem!["field"]!);
        Assert.Contains("in the past", (string)problem["detail"]!, StringComparison.Ordinal);
        var wants = session["wants"]!.DeepClone();
        wants["drinks"] = new JsonArray();
        (status, problem) = await _server.SendAsync(HttpMethod.Put, "/api/session", new { wants, readyAt = (DateTime?)null });
        Assert.Equal(400, status);
        Assert.Equal("drinks", (string)problem!["field"]!);
        Assert.Null((await _server.GetAsync("/api/session"))["id"]);
    }

    [Fact]
    public async Task A_time_too_soon_says_what_would_help()
    {
        var session = await PlanAsync(5, DateTime.UtcNow.AddMinutes(12), cloth: false);
        Assert.Contains("after the time you asked for", (string)session["problem"]!, StringComparison.Ordinal);
        Assert.True(session["remedies"]!.AsArray().Count >= 2);
        await _server.PostAsync("/api/session/end");
    }

    [Fact] // RFC 5545: a calendar of events with start, end, summary; caution in the description
    public async Task The_plan_is_a_calendar()
    {
        await PlanAsync(2, DateTime.UtcNow.AddHours(3));
        using var answer = await _server.Http.GetAsync(new Uri("/api/session/plan.ics", UriKind.Relative));
        Assert.Equal("text/calendar", answer.Content.Headers.ContentType!.MediaType);
        var calendar = Ical.Net.Calendar.Load(await answer.Content.ReadAsStringAsync())!;
        var shot = calendar.Events.Single(e => e.Summary!.StartsWith("Pull 1", StringComparison.Ordinal));
        Assert.NotEmpty(shot.Alarms);
        Assert.Contains("Caution:", shot.Description, StringComparison.Ordinal);
        Assert.Contains(calendar.Events, e => e.Summary!.StartsWith("Switch on", StringComparison.Ordinal));
        Assert.All(calendar.Events, e => Assert.True(e.End!.AsUtc > e.Start!.AsUtc));
        await _server.PostAsync("/api/session/end");
    }

    [Fact]
    public async Task A_streaming_probe_on_the_group_is_read_into_the_session()
    {
        await PlanAsync(1);
        await _server.PostAsync("/api/session/done", new { key = "fill", secondsAgo = 900 });
        await _server.PostAsync("/api/session/done", new { key = "on", secondsAgo = 890 });
        using var probe = await DeviceClient.ConnectAsync(
            _server.Instruments,
            """{"hello":"ruddy-line/1","device":"Clip","channels":{"group":"degC"}}"""
        );
        await probe.SendAsync("{\"t\":1,\"group\":61.3}\n");
        await LiveServer.UntilAsync(
            async () =>
            {
                await probe.SendAsync(
                    FormattableString.Invariant($$"""{"t":{{DateTime.UtcNow.TimeOfDay.TotalSeconds}},"group":61.3}""") + "\n"
                );
                return (await _server.GetAsync("/api/session"))["readings"]!
                    .AsArray()
                    .Any(r => (string)r!["kind"]! == "Probe" && (double)r["value"]! == 61.3);
            },
            "the probe is read"
        );
        await _server.PostAsync("/api/session/end");
    }

    [Fact]
    public async Task The_kettle_machine_compares_its_ways_and_a_bloom_cools()
    {
        var portable = await MachineAsync("Pack lever");
        await _server.ChangeSheetAsync("machineId", portable);
        var ways = (await _server.GetAsync("/api/warm/ways?bloomSeconds=30"))["ways"]!.AsArray();
        Assert.Equal(5, ways.Count);
        Assert.All(ways, w => Assert.True((double)w!["bloomedC"]! < (double)w["nowC"]! || (string)w["method"]! == "None"));
        Assert.True((double)ways.Single(w => (string)w!["method"]! == "None")!["lossC"]! > 20);
        var (status, problem) = await _server.SendAsync(HttpMethod.Get, "/api/warm/ways?bloomSeconds=900");
        Assert.Equal(400, status);
        Assert.Equal("bloomSeconds", (string)problem!["field"]!);
        await _server.ChangeSheetAsync("machineId", _dipper);
    }

    [Fact]
    public async Task Temperature_by_pressure_says_what_to_bleed_to_and_the_boilers_gauge_what_it_hides()
    {
        var spring = await MachineAsync("Hall spring");
        await _server.ChangeSheetAsync("machineId", spring);
        var now = await _server.GetAsync("/api/warm/bleed?wantedC=95");
        var (low, high) = ((double)now["lowestC"]!, (double)now["highestC"]!);
        Assert.True(low < high - 2, $"{low} {high}");
        var wanted = FormattableString.Invariant($"{high - 1.5}");
        var plan = (await _server.GetAsync($"/api/warm/bleed?wantedC={wanted}"))["plan"]!;
        Assert.InRange((double)plan["gaugeBar"]!, 0.3, 1.1);
        Assert.True((int)plan["shots"]! >= 1);
        Assert.InRange((double)plan["backSeconds"]!, 5, 600);
        Assert.Null((await _server.GetAsync("/api/warm/bleed?wantedC=104.9"))["plan"]);
        var boiler = await _server.GetAsync("/api/warm/boiler");
        Assert.True((double)boiler["unbledC"]! < (double)boiler["setC"]! - 12);
        var (status, _) = await _server.SendAsync(HttpMethod.Get, "/api/warm/bleed?wantedC=300");
        Assert.Equal(400, status);
        await _server.ChangeSheetAsync("machineId", _dipper);
    }

    [Fact]
    public async Task A_heated_group_goes_to_the_step_that_is_asked_for_and_no_other()
    {
        var start = (await _server.GetAsync("/api/machines/starts"))
            .AsArray()
            .Single(s => (string)s!["start"]!["key"]! == "HeatedGroup")!;
        await _server.PostAsync(
            "/api/bench/machines",
            new { name = "Loft group", spec = start["start"]!["defaults"]!.DeepClone() }
        );
        await _server.ChangeSheetAsync("machineId", await MachineAsync("Loft group"));
        var session = await _server.GetAsync("/api/session");
        Assert.Equal([85, 90, 95, 103], session["heaterStepsC"]!.AsArray().Select(s => (double)s!));
        var wants = session["wants"]!.DeepClone();
        wants["heaterStepC"] = 90;
        var (status, preview) = await _server.SendAsync(
            HttpMethod.Post,
            "/api/session/preview",
            new { wants, readyAt = (DateTime?)null }
        );
        Assert.Equal(200, status);
        Assert.InRange((double)preview!["shots"]![0]!["leverUpC"]!, 87, 93);
        Assert.Null((await _server.GetAsync("/api/session"))["wants"]!["heaterStepC"]); // a look ahead keeps nothing
        wants["heaterStepC"] = 97;
        (status, var problem) = await _server.SendAsync(HttpMethod.Put, "/api/session", new { wants, readyAt = (DateTime?)null });
        Assert.Equal(400, status);
        Assert.Equal("heaterStepC", (string)problem!["field"]!);
        await _server.ChangeSheetAsync("machineId", _dipper);
    }

    [Fact]
    public async Task The_lamp_alone_and_a_drop_of_water_are_readings_too()
    {
        await PlanAsync(2);
        await _server.PostAsync("/api/session/done", new { key = "fill", secondsAgo = 1260 });
        await _server.PostAsync("/api/session/done", new { key = "on", secondsAgo = 1200 });
        var before = (double)(await _server.GetAsync("/api/session"))["now"]!["groupC"]!;
        var session = (await _server.PostAsync("/api/session/readings", new { kind = "LampOff" }))!;
        Assert.Equal("LampOff", (string)session["readings"]![0]!["kind"]!);
        // a drop that does not sizzle says only what the model knows already; one that does lifts the group toward boiling
        session = (await _server.PostAsync("/api/session/readings", new { kind = "DoesNotSizzle" }))!;
        Assert.Equal(before, (double)session["now"]!["groupC"]!, 1.0);
        session = (await _server.PostAsync("/api/session/readings", new { kind = "Sizzles" }))!;
        Assert.True((double)session["now"]!["groupC"]! > before + 10);
    }
}
