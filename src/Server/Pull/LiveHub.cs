using Microsoft.AspNetCore.SignalR;
using RuddySpring.Core.Traces;
using RuddySpring.Server.Instruments;

namespace RuddySpring.Server.Pull;

/// <summary>Screens connect here and hear <c>frame</c>.</summary>
public sealed class LiveHub : Hub;

/// <summary>Sends frames to all screens: as soon as samples have come, but at most 50 a second; a few a second while nothing moves.</summary>
public sealed class LiveBroadcast(IHubContext<LiveHub> hub, PullDesk desk, InstrumentDesk instruments) : BackgroundService
{
    private static readonly TimeSpan Shortest = TimeSpan.FromMilliseconds(20);
    private static readonly TimeSpan Longest = TimeSpan.FromMilliseconds(250);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        using var sampled = new SemaphoreSlim(0, 1);
        void Wake(IReadOnlyList<TimedSample> samples)
        {
            // temperature alone is no reason to hurry
            if (samples.All(s => s.Channel is Channel.Temperature or Channel.Group) || sampled.CurrentCount > 0) return;
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
        var lastDevices = 0.0;
        try
        {
            while (!stoppingToken.IsCancellationRequested)
            {
                if (desk.Stage == PullStage.Idle) await Task.Delay(Longest, stoppingToken);
                else await sampled.WaitAsync(Longest, stoppingToken);
                var withDevices = instruments.Now - lastDevices > 0.45;
                if (withDevices) lastDevices = instruments.Now;
                await hub.Clients.All.SendAsync("frame", desk.NextFrame(withDevices), stoppingToken);
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
        }
    }
}
