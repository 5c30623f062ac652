using System.Text.Json.Nodes;
using Microsoft.AspNetCore.SignalR.Client;
using RuddySpring.Instruments;

namespace RuddySpring.Server.Tests.Pull;

/// <summary>A whole pull by the stand-in over a real hub and real sockets, both at four times the speed of life. The hand presses
/// on until the pull is stopped: what the coach says early on a machine that stood still is no part of this.</summary>
public sealed class WholePullTests : IAsyncLifetime
{
    private const double Speed = 4;
    private readonly LiveServer _server = new() { Speed = Speed };

    public ValueTask InitializeAsync() => _server.InitializeAsync();

    public ValueTask DisposeAsync() => _server.DisposeAsync();

    private async Task<JsonNode> FrameAsync() => (await _server.GetAsync("/api/pull"))["frame"]!;

    [Fact]
    public async Task A_pull_with_the_stand_in_becomes_a_shot_with_its_trace()
    {
        using var cancel = new CancellationTokenSource();
        var standIn = new StandIn(_server.Instruments, seed: 7, speed: Speed, clockSpeed: Speed, letsGoAtTheCue: false).RunAsync(
            cancel.Token
        );
        await using var hub = new HubConnectionBuilder().WithUrl(new Uri(_server.Address, "/live")).Build();
        var frames = new List<JsonNode>();
        hub.On<JsonNode>("frame", f =>
        {
            lock (frames)
                frames.Add(f);
        });
        await hub.StartAsync();
        await LiveServer.UntilAsync(
            async () => (await FrameAsync())["devices"]!.AsArray().Count == 4,
            "four instruments are connected"
        );
        await _server.ReadyAsync();
        await LiveServer.UntilAsync(
            async () => (double?)(await FrameAsync())["reading"]?["cupGrams"] > 12,
            "12 g are in the cup"
        );
        await _server.PostAsync("/api/pull/mark", new { moment = "blonding" });
        var stopped = (double)(await _server.PostAsync("/api/pull/stop"))!["reading"]!["cupGrams"]!;
        await LiveServer.UntilAsync(
            () =>
            {
                lock (frames)
                    return Task.FromResult(
                        frames.LastOrDefault(f => f["pressure"]!.AsArray().Count > 0)?["pressure"]!.AsArray()[^1]![1] is { } bar
                            && (double)bar < 0.3
                    );
            },
            "the hand has let go"
        );
        // what comes while the shot is being stored is shown, but no longer part of it
        List<JsonNode> heard;
        lock (frames)
            heard = [.. frames];
        var shotId = (int)(await _server.PostAsync("/api/pull/save"))!["shotId"]!;
        var shot = await _server.GetAsync($"/api/shots/{shotId}");
        await cancel.CancelAsync();
        await standIn;

        var measures = shot["shot"]!["measures"]!;
        // what was in the cup, which is reckoned ahead on a computer that stood still, and what hung at the spout
        Assert.InRange((double)measures["cupGrams"]!, stopped - 3, stopped + 4);
        Assert.InRange((double)measures["peakBar"]!, 5, 10);
        Assert.True((double)measures["secondsFromDrops"]! < (double)measures["secondsFromLever"]!);
        Assert.NotNull(measures["r10"]);
        Assert.NotNull((double?)shot["moments"]!["blonding"]);
        Assert.Equal("Pulled", (string)shot["shot"]!["source"]!);
        Assert.Equal(shotId, (int)(await _server.GetAsync("/api/shots?size=1"))["shots"]![0]!["id"]!);

        // what it told of scale, spout and coffee is kept with it, and is gone with it; a trace with a hole, as a computer that
        // stands still leaves it, tells nothing, nor does a puck that seems to have a channel
        var learned = await _server.GetAsync("/api/pull/learned");
        if (shot["channelSign"] is not null || shot["corrections"]!.AsArray().Any(c => (string)c!["kind"]! == "Gap"))
            Assert.Empty(learned["scales"]!.AsArray());
        else
        {
            var scale = Assert.Single(learned["scales"]!.AsArray())!;
            Assert.Equal("Stand-in scale", (string)scale["of"]!);
            Assert.True((double)scale["low"]! < (double)scale["seconds"]! && (double)scale["seconds"]! < (double)scale["high"]!);
            Assert.Equal(1, (int)Assert.Single(learned["spouts"]!.AsArray())!["pulls"]!);
        }

        Assert.Contains(heard, f => (string)f["stage"]! == "Running");
        var sequences = heard.Select(f => (long)f["sequence"]!).ToList();
        Assert.Equal(sequences.Order(), sequences);
        // what the screens heard is what was kept: no sample lost on the way
        static int Shown(IEnumerable<JsonNode> frames) => frames.Sum(f => f["pressure"]!.AsArray().Count);
        int all;
        lock (frames)
            all = Shown(frames);
        var kept = (int)shot["origins"]!.AsArray().Single(o => (string)o!["channel"]! == "Pressure")!["samples"]!;
        // storing takes its time, in which samples still come: some are part of the shot, the last are only shown
        Assert.InRange(kept, Shown(heard) - 3, all + 3);

        await _server.SendAsync(HttpMethod.Delete, $"/api/shots/{shotId}");
        Assert.Empty((await _server.GetAsync("/api/pull/learned"))["scales"]!.AsArray());
    }
}
