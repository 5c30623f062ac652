using Microsoft.Extensions.Logging.Abstractions;
using RuddySpring.Server.Hosting;

namespace RuddySpring.Server.Tests.Hosting;

/// <summary>What goes on beside the requests, and the screens that hear of it.</summary>
public sealed class LoopTests
{
    private sealed class Stumbling(Troubles troubles) : GuardedLoop("Stumbling", troubles, NullLogger.Instance)
    {
        public int Turns { get; private set; }

        public bool Stumbles { get; set; } = true;

        protected override async Task TurnAsync(CancellationToken stop)
        {
            Turns++;
            await Task.Delay(5, stop);
            if (Stumbles)
                throw new ArgumentOutOfRangeException(nameof(stop), "an odd reading");
        }
    }

    [Fact]
    public async Task A_turn_that_fails_is_told_once_and_the_loop_goes_on()
    {
        var troubles = new Troubles();
        using var loop = new Stumbling(troubles);
        await loop.StartAsync(CancellationToken.None);
        await LiveServer.UntilAsync(() => Task.FromResult(loop.Turns >= 2), "it has stumbled twice");
        Assert.Equal("Stumbling failed and goes on; the server's log says why.", Assert.Single(troubles.Sentences));
        loop.Stumbles = false;
        await LiveServer.UntilAsync(() => Task.FromResult(troubles.Sentences.Count == 0), "it is over");
        Assert.False(loop.ExecuteTask!.IsFaulted);
        await loop.StopAsync(CancellationToken.None);
    }

    [Fact]
    public async Task A_screen_that_stops_reading_holds_up_no_other_and_gets_the_newest_when_it_reads_again()
    {
        var screens = new Screens();
        List<int> read = [],
            late = [];
        var reading = new TaskCompletionSource();
        screens.Add(
            "stuck",
            async (_, frame, _) =>
            {
                await reading.Task;
                lock (late)
                    late.Add((int)frame);
            },
            CancellationToken.None
        );
        screens.Add(
            "other",
            (_, frame, _) =>
            {
                lock (read)
                    read.Add((int)frame);
                return Task.CompletedTask;
            },
            CancellationToken.None
        );
        for (var i = 0; i < 5000; i++)
        {
            screens.Tell("frame", i);
            if (i % 20 == 0)
                await Task.Yield();
            var now = i;
            if (i % 50 == 0)
                await LiveServer.UntilAsync(() => Task.FromResult(Locked(read, r => r.Count > now)), "the other screen has it");
        }

        await LiveServer.UntilAsync(() => Task.FromResult(Locked(read, r => r.Count == 5000)), "the other screen has all of it");
        Assert.Empty(late);
        reading.SetResult();
        await LiveServer.UntilAsync(
            () => Task.FromResult(Locked(late, l => l.Count > 0 && l[^1] == 4999)),
            "the slow one has the newest"
        );
        Assert.True(late.Count < 200, $"{late.Count} frames waited");
        screens.Remove("stuck");
        screens.Remove("other");
        Assert.Equal(0, screens.Count);
    }

    private static bool Locked(List<int> list, Func<List<int>, bool> holds)
    {
        lock (list)
            return holds(list);
    }
}
