using System.Diagnostics;
using RuddySpring.Core;

namespace RuddySpring.Instruments;

/// <summary>The stand-in instruments on one bench, run in real time or faster.</summary>
/// <param name="server">Where to send to.</param>
/// <param name="seed">Of all chance.</param>
/// <param name="speed">How many times as fast as life the bench runs.</param>
/// <param name="gaugeSamplesASecond">Of the bench's time.</param>
/// <param name="groupProbe">Whether there is a probe on the group.</param>
/// <param name="clockSpeed">How many times as fast as life the devices' clocks run: as fast as the server's.</param>
/// <param name="letsGoAtTheCue">Whether the hand lets go when the coach says so; otherwise it presses on until the pull is
/// stopped.</param>
public sealed class StandIn(
    Uri server,
    ulong seed,
    double speed = 1.0,
    int gaugeSamplesASecond = 20,
    bool groupProbe = true,
    double clockSpeed = 1.0,
    bool letsGoAtTheCue = true
)
{
    // asleep they send a third of what they send in a pull
    private const int AsleepEvery = 3;
    private readonly Lock _bench = new();
    private readonly Stopwatch _clock = new();

    /// <summary>Runs until cancelled.</summary>
    public async Task RunAsync(CancellationToken cancel)
    {
        var bench = new StandInBench(seed) { Speed = speed, LetsGoAtTheCue = letsGoAtTheCue };
        var random = new SeededRandom(seed ^ 0x5EED);
        StandInInstrument[] instruments =
        [
            new StandInGauge(random, gaugeSamplesASecond),
            new StandInScale(random),
            new StandInThermometer(random),
        ];
        if (groupProbe)
            instruments = [.. instruments, new StandInGroupProbe(random)];
        var connections = instruments.Select(i => new LineConnection(server, i)).ToArray();
        connections[0].Ready += pull => Hear(() => bench.Ready(pull));
        connections[^1].Heated += heat => Hear(() => bench.Heat(heat));
        connections[0].Cued += () => Hear(bench.Cued);
        connections[0].Ended += () => Hear(bench.Ended);
        var listening = connections.Select(c => c.RunAsync(cancel)).ToArray();
        await PlayAsync(bench, instruments, connections, cancel);
        await Task.WhenAll(listening).ContinueWith(_ => { }, TaskScheduler.Default);
        foreach (var connection in connections)
            await connection.DisposeAsync();

        void Hear(Action then)
        {
            lock (_bench)
                bench.Hear(Due, then);
        }
    }

    /// <summary>Where the bench should be by now, s of its own time.</summary>
    private double Due => _clock.Elapsed.TotalSeconds * speed;

    private async Task PlayAsync(
        StandInBench bench,
        StandInInstrument[] instruments,
        LineConnection[] connections,
        CancellationToken cancel
    )
    {
        var steps = 0L;
        _clock.Restart();
        while (!cancel.IsCancellationRequested)
        {
            var due = (long)(Due / StandInBench.StepSeconds);
            while (steps < due && !cancel.IsCancellationRequested)
            {
                steps++;
                lock (_bench)
                    bench.Step();
                var seldom = bench.Asleep ? AsleepEvery : 1;
                for (var i = 0; i < instruments.Length; i++)
                {
                    if (steps % (instruments[i].EverySteps * seldom) != 0)
                        continue;
                    double value;
                    lock (_bench)
                        value = instruments[i].Read(bench);
                    await connections[i]
                        .SampleAsync(bench.Seconds * clockSpeed / speed, value, cancel)
                        .ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
                }
            }

            await Task.Delay(5, cancel).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
        }
    }
}
