using Microsoft.AspNetCore.SignalR;
using RuddySpring.Core.Traces;
using RuddySpring.Server.Instruments;

namespace RuddySpring.Server.Pull;

/// <summary>Screens connect here and hear <c>frame</c>; one that follows a needle by hand says <c>Follow</c>.</summary>
public sealed class LiveHub(PullDesk desk, Practice.PracticeDesk practice, SteadyClock clock) : Hub
{
    private const double MostBar = 16;

    /// <summary>The pressure in bar, 0 to 16, that a hand has followed a gauge's needle to; what is no such number is left out.</summary>
    public void Follow(string? pullId, double bar)
    {
        if (bar is >= 0 and <= MostBar) desk.Follow(pullId, bar);
    }

    /// <summary>Hears the frames of a lesson from now on.</summary>
    public Task JoinPractice(string id) => Groups.AddToGroupAsync(Context.ConnectionId, id);

    /// <summary>What the hand on the virtual lever does, 0 to 1.</summary>
    public void Practise(string id, double effort)
    {
        if (double.IsFinite(effort)) practice.Find(id)?.Effort(effort, clock.Now);
    }
}

/// <summary>Sends frames to all screens: as soon as samples have come, but at most 50 a second; a few a second while nothing moves.</summary>
public sealed class LiveBroadcast(IHubContext<LiveHub> hub, PullDesk desk, InstrumentDesk instruments) : BackgroundService
{
    private static readonly TimeSpan Shortest = TimeSpan.FromMilliseconds(20);
    private static readonly TimeSpan Longest = TimeSpan.FromMilliseconds(250);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        using var sampled = new SemaphoreSlim(0, 1);
        void Wake(string device, IReadOnlyList<TimedSample> samples)
        {
            // temperature alone is no reason to hurry
            if (samples.Any(s => s.Channel is not (Channel.Temperature or Channel.Group))) Hurry();
        }

        void Hurry()
        {
            if (sampled.CurrentCount > 0) return;
            try
            {
                sampled.Release();
            }
            catch (SemaphoreFullException)
            {
                // another connection's thread was first
            }
        }

        instruments.Sampled += Wake;
        desk.Followed += Hurry;
        var lastDevices = 0.0;
        try
        {
            while (!stoppingToken.IsCancellationRequested)
            {
                if (desk.IsIdle) await Task.Delay(Longest, stoppingToken);
                else await sampled.WaitAsync(Longest, stoppingToken);
                var withDevices = instruments.Now - lastDevices > 0.45;
                if (withDevices) lastDevices = instruments.Now;
                foreach (var frame in desk.NextFrames(withDevices)) await hub.Clients.All.SendAsync("frame", frame, stoppingToken);
                await Task.Delay(Shortest, stoppingToken);
            }
        }
        catch (OperationCanceledException)
        {
            // the application stops
        }
        finally
        {
            instruments.Sampled -= Wake;
            desk.Followed -= Hurry;
        }
    }
}
