using Microsoft.AspNetCore.SignalR;
using RuddySpring.Server.Instruments;
using RuddySpring.Server.Pull;

namespace RuddySpring.Server.Practice;

/// <summary>Plays the lessons on and sends their frames, 40 a second, each to those who joined it.</summary>
public sealed class PracticeBroadcast(IHubContext<LiveHub> hub, PracticeDesk desk, SteadyClock clock, TimeProvider time) : BackgroundService
{
    private static readonly TimeSpan Every = TimeSpan.FromMilliseconds(25);
    private static readonly TimeSpan Idle = TimeSpan.FromMilliseconds(100);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        while (!stoppingToken.IsCancellationRequested)
        {
            var sessions = desk.Sessions;
            await Task.Delay(sessions.Count == 0 ? Idle : Every, stoppingToken).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
            foreach (var session in sessions)
            {
                if (stoppingToken.IsCancellationRequested) return;
                var frame = session.Frame(clock.Now, (time.GetUtcNow() - DateTimeOffset.UnixEpoch).TotalMilliseconds);
                await hub.Clients.Group(session.Id).SendAsync("practice", frame, stoppingToken).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
            }
        }
    }
}
