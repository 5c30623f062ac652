using System.Text.Json.Nodes;
using Microsoft.AspNetCore.SignalR.Client;

namespace RuddySpring.Server.Tests.Pull;

/// <summary>Pulls over a real hub and real sockets, with what goes wrong on the way.</summary>
public sealed class PullTests : IAsyncLifetime
{
    private readonly LiveServer _server = new();

    public ValueTask InitializeAsync() => _server.InitializeAsync();

    public ValueTask DisposeAsync() => _server.DisposeAsync();

    private async Task<JsonNode> FrameAsync() => (await _server.GetAsync("/api/pull"))["frame"]!;

    private Task UntilStageAsync(string stage) =>
        LiveServer.UntilAsync(async () => (string)(await FrameAsync())["stage"]! == stage, $"the pull is {stage}");

    private static string Line(double t, string channel, double value) =>
        FormattableString.Invariant($"{{\"t\":{t:0.###},\"{channel}\":{value:0.##}}}\n");

    [Fact]
    public async Task A_scale_that_vanishes_is_told_and_the_pull_is_kept()
    {
        using var gauge = await DeviceClient.ConnectAsync(_server.Instruments, DeviceClient.Hello("My gauge", "pressure", "psi"));
        using var scale = await DeviceClient.ConnectAsync(_server.Instruments, DeviceClient.Hello("My scale", "weight", "g"));
        await LiveServer.UntilAsync(async () => (await FrameAsync())["devices"]!.AsArray().Count == 2, "both are connected");
        await _server.ReadyAsync();
        await gauge.HearAsync("\"pull\":\"ready\"");
        for (var i = 0; i < 40; i++)
        {
            await scale.SendAsync(Line(1 + (i * 0.02), "weight", 60 + Math.Max(0, (i - 15) * 0.02)));
            await gauge.SendAsync(Line(1 + (i * 0.02), "pressure", i < 5 ? 0 : 45));
            await Task.Delay(20);
        }

        await UntilStageAsync("Running");
        scale.Vanish();
        await LiveServer.UntilAsync(
            async () =>
                (await FrameAsync())["notices"]!.ToJsonString().Contains("My scale has disconnected", StringComparison.Ordinal),
            "the loss is told"
        );
        for (var i = 40; i < 125; i++)
        {
            await gauge.SendAsync(Line(1 + (i * 0.02), "pressure", Math.Min(100, 45 + (i - 40))));
            await Task.Delay(20);
        }

        await LiveServer.UntilAsync(
            async () => (double?)(await FrameAsync())["reading"]!["pressureBar"] > 6.8,
            "the gauge goes on"
        );
        await _server.PostAsync("/api/pull/stop");
        await gauge.HearAsync("\"pull\":\"ended\"");
        var id = (int)(await _server.PostAsync("/api/pull/save"))!["shotId"]!;
        var shot = await _server.GetAsync($"/api/shots/{id}");
        Assert.Contains("My scale has disconnected", (string)shot["notices"]!, StringComparison.Ordinal);
        Assert.Equal(6.89, (double)shot["shot"]!["measures"]!["peakBar"]!, 0.1); // 100 psi
    }

    [Fact]
    public async Task Garbage_on_the_line_is_answered_and_good_lines_still_count()
    {
        using var gauge = await DeviceClient.ConnectAsync(
            _server.Instruments,
            DeviceClient.Hello("Rough gauge", "pressure", "bar")
        );
        await gauge.SendAsync("this is no JSON\n{\"t\":1,\"pressure\":400}\n{\"t\":1.1,\"press");
        await gauge.HearAsync("line 2: this is not a JSON object");
        await gauge.HearAsync("Pressure is 400 bar; it must lie between -1 and 25 bar.");
        await gauge.SendAsync("ure\":1.5}\n" + new string('x', 5000) + "\n");
        await gauge.HearAsync("longer than 1024 bytes");
        await LiveServer.UntilAsync(
            async () => (double?)(await FrameAsync())["devices"]![0]!["latest"]!["Pressure"] == 1.5,
            "the line cut in two is read whole"
        );
        Assert.Equal(2, (int)(await FrameAsync())["devices"]![0]!["badLines"]!);
    }

    [Fact]
    public async Task A_device_with_a_wrong_unit_is_told_and_sent_away()
    {
        using var gauge = await DeviceClient.ConnectAsync(
            _server.Instruments,
            DeviceClient.Hello("Odd gauge", "pressure", "furlong")
        );
        await gauge.HearAsync("unit furlong does not go with pressure; use one of bar, psi, kPa");
        await gauge.ClosedAsync();
        Assert.Empty((await FrameAsync())["devices"]!.AsArray());
    }

    [Fact]
    public async Task A_device_that_only_sends_rubbish_is_closed()
    {
        using var gauge = await DeviceClient.ConnectAsync(_server.Instruments, DeviceClient.Hello("Babble", "pressure", "bar"));
        await gauge.SendAsync(string.Concat(Enumerable.Repeat("rubbish\n", 150)));
        await gauge.ClosedAsync();
    }

    [Fact]
    public async Task Lines_may_also_be_posted()
    {
        var lines = DeviceClient.Hello("Posting probe", "temperature", "degF") + "\n{\"t\":1,\"temperature\":190}\nnonsense\n";
        using var content = new StringContent(lines, System.Text.Encoding.UTF8, "application/x-ndjson");
        using var response = await _server.Http.PostAsync(new Uri("/instruments", UriKind.Relative), content);
        Assert.Equal(400, (int)response.StatusCode);
        Assert.Contains("line 3", await response.Content.ReadAsStringAsync(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Without_any_instrument_the_clock_and_keys_make_a_shot()
    {
        await _server.ReadyAsync();
        await _server.PostAsync("/api/pull/begin");
        await Task.Delay(150);
        await _server.PostAsync("/api/pull/mark", new { moment = "drops" });
        var (status, problem) = await _server.SendAsync(HttpMethod.Post, "/api/pull/mark", new { moment = "applause" });
        Assert.Equal(400, status);
        Assert.Equal("moment", (string)problem!["field"]!);
        await Task.Delay(150);
        await _server.PostAsync("/api/pull/stop");
        var id = (int)(await _server.PostAsync("/api/pull/save"))!["shotId"]!;
        var measures = (await _server.GetAsync($"/api/shots/{id}"))["shot"]!["measures"]!;
        Assert.InRange((double)measures["secondsFromLever"]!, 0.25, 5);
        Assert.True((double)measures["secondsToDrops"]! > 0.1);
        Assert.Null((double?)measures["r10"]);
    }

    [Fact]
    public async Task What_does_not_go_now_is_refused_with_a_reason()
    {
        foreach (
            var (path, part) in new[]
            {
                ("stop", "no pull under way"),
                ("save", "no pull under way"),
                ("discard", "no pull under way"),
            }
        )
        {
            var (status, problem) = await _server.SendAsync(HttpMethod.Post, $"/api/pull/{path}");
            Assert.Equal(409, status);
            Assert.Contains(part, (string)problem!["detail"]!, StringComparison.Ordinal);
        }

        await _server.ReadyAsync();
        await _server.PostAsync("/api/pull/begin");
        Assert.Equal(
            409,
            (
                await _server.SendAsync(
                    HttpMethod.Post,
                    "/api/pull/ready",
                    new { sheetVersion = (int)(await _server.GetAsync("/api/prepare"))["version"]! }
                )
            ).Status
        );
        Assert.Equal(409, (await _server.SendAsync(HttpMethod.Post, "/api/pull/save")).Status);
        await _server.PostAsync("/api/pull/discard");
        Assert.Equal("Idle", (string)(await FrameAsync())["stage"]!);
    }

    [Fact]
    public async Task A_needle_followed_by_hand_makes_a_trace_that_says_so()
    {
        await using var hub = new HubConnectionBuilder().WithUrl(new Uri(_server.Address, "/live")).Build();
        await hub.StartAsync();
        await _server.ReadyAsync();
        for (var i = 0; i < 60; i++)
        {
            await hub.InvokeAsync("Follow", (string?)null, i < 20 ? 2.5 : 7.0);
            await Task.Delay(15);
        }

        await hub.InvokeAsync("Follow", (string?)null, 400.0); // no such pressure: left out
        Assert.Equal("Running", (string)(await FrameAsync())["stage"]!);
        Assert.Equal("Followed", (string)(await FrameAsync())["reading"]!["pressureIs"]!);
        await _server.PostAsync("/api/pull/stop");
        var id = (int)(await _server.PostAsync("/api/pull/save"))!["shotId"]!;
        var shot = await _server.GetAsync($"/api/shots/{id}");
        Assert.Equal("Followed", (string)Assert.Single(shot["origins"]!.AsArray())!["origin"]!);
        Assert.InRange((double)shot["shot"]!["measures"]!["peakBar"]!, 6.8, 7.7); // smoothing overshoots a step a little
    }

    [Fact]
    public async Task With_nothing_but_a_clock_the_pressure_is_assumed_and_nothing_is_reckoned_from_it()
    {
        await _server.ReadyAsync();
        await _server.PostAsync("/api/pull/begin");
        await LiveServer.UntilAsync(
            async () => (double)(await FrameAsync())["reading"]!["seconds"]! > 2,
            "two seconds have passed"
        );
        var reading = (await FrameAsync())["reading"]!;
        Assert.Equal("Assumed", (string)reading["pressureIs"]!);
        Assert.True((double)reading["coach"]!["movedMl"]! > 0.5);
        await _server.PostAsync("/api/pull/stop");
        var id = (int)(await _server.PostAsync("/api/pull/save"))!["shotId"]!;
        var shot = await _server.GetAsync($"/api/shots/{id}");
        Assert.Equal("Assumed", (string)Assert.Single(shot["origins"]!.AsArray())!["origin"]!);
        Assert.Null((double?)shot["shot"]!["measures"]!["peakBar"]);
        Assert.Null(shot["curves"]!["pressureBar"]);
        Assert.Null((double?)shot["shot"]!["measures"]!["workJoules"]);
    }

    [Fact]
    public async Task Two_brewers_pull_on_two_machines_at_once_each_with_an_instrument()
    {
        using var first = await DeviceClient.ConnectAsync(
            _server.Instruments,
            DeviceClient.Hello("Left gauge", "pressure", "bar")
        );
        await LiveServer.UntilAsync(
            async () => (await FrameAsync())["devices"]!.AsArray().Count == 1,
            "the first gauge is connected"
        );
        var left = (string)(await _server.ReadyAsync())["frame"]!["pullId"]!;
        using var second = await DeviceClient.ConnectAsync(
            _server.Instruments,
            DeviceClient.Hello("Right gauge", "pressure", "bar")
        );
        await LiveServer.UntilAsync(async () => (await FrameAsync())["devices"]!.AsArray().Count == 2, "the second too");
        var machines = (await _server.GetAsync("/api/bench"))["machines"]!.AsArray();
        var mine = (int)(await _server.GetAsync("/api/prepare"))["sheet"]!["machineId"]!;
        var other = machines.First(m => (int)m!["id"]! != mine)!;
        var (status, sheet) = await _server.SendAsync(HttpMethod.Put, "/api/prepare", other["start"]!.DeepClone());
        Assert.True(status == 200, sheet?.ToJsonString());
        var right = (string)(await _server.ReadyAsync())["frame"]!["pullId"]!;
        Assert.NotEqual(left, right);
        for (var i = 0; i < 50; i++)
        {
            await first.SendAsync(Line(1 + (i * 0.02), "pressure", 3));
            await second.SendAsync(Line(1 + (i * 0.02), "pressure", 6));
            await Task.Delay(10);
        }

        async Task<double?> BarAsync(string id) =>
            (double?)(await _server.GetAsync($"/api/pull?pull={id}"))["frame"]!["reading"]!["pressureBar"];
        await LiveServer.UntilAsync(
            async () => await BarAsync(left) == 3 && await BarAsync(right) == 6,
            "each gauge tells of its own pull"
        );
        var hands = (await FrameAsync())["pulls"]!.AsArray();
        Assert.Equal([left, right], hands.Select(p => (string)p!["id"]!));
        Assert.Equal(["Right gauge"], hands[1]!["devices"]!.AsArray().Select(d => (string)d!));
        await _server.PostAsync($"/api/pull/instrument?pull={right}", new { device = "Left gauge" });
        // of one quantity a pull hears one instrument
        Assert.Equal(["Left gauge"], (await FrameAsync())["pulls"]![1]!["devices"]!.AsArray().Select(d => (string)d!));
        Assert.Equal(
            404,
            (await _server.SendAsync(HttpMethod.Post, $"/api/pull/instrument?pull={right}", new { device = "No such" })).Status
        );

        await _server.PostAsync($"/api/pull/stop?pull={left}");
        var one = (int)(await _server.PostAsync($"/api/pull/save?pull={left}"))!["shotId"]!;
        // a second tab that asks for the same is told of the same shot
        Assert.Equal(one, (int)(await _server.PostAsync($"/api/pull/save?pull={left}"))!["shotId"]!);
        await _server.PostAsync($"/api/pull/stop?pull={right}");
        var two = (int)(await _server.PostAsync($"/api/pull/save?pull={right}"))!["shotId"]!;
        Assert.NotEqual(one, two);
        Assert.Equal("Idle", (string)(await FrameAsync())["stage"]!);
    }

    [Fact]
    public async Task A_pull_whose_flow_has_ended_stops_by_itself()
    {
        using var gauge = await DeviceClient.ConnectAsync(_server.Instruments, DeviceClient.Hello("My gauge", "pressure", "bar"));
        using var scale = await DeviceClient.ConnectAsync(_server.Instruments, DeviceClient.Hello("My scale", "weight", "g"));
        await LiveServer.UntilAsync(async () => (await FrameAsync())["devices"]!.AsArray().Count == 2, "both are connected");
        await _server.ReadyAsync();
        var t = 1.0;
        async Task PlayAsync(double seconds, Func<double, double> bar, Func<double, double> grams)
        {
            for (var s = 0.0; s < seconds; s += 0.05, t += 0.05)
            {
                await gauge.SendAsync(Line(t, "pressure", bar(s)));
                await scale.SendAsync(Line(t, "weight", 60 + grams(s)));
                await Task.Delay(12);
            }
        }

        await PlayAsync(0.5, _ => 0, _ => 0);
        await PlayAsync(5, _ => 3, _ => 0);
        await PlayAsync(14, _ => 7, s => s * 2);
        await PlayAsync(4, _ => 0, _ => 28);
        await UntilStageAsync("Settling");
        Assert.InRange((double)(await FrameAsync())["reading"]!["cupGrams"]!, 24, 30);
    }
}
