using RuddySpring.Server.Hosting;
using RuddySpring.Server.Instruments;

namespace RuddySpring.Server.Practice;

/// <summary>Plays the lessons on and sends their frames, 40 a second, each to those who joined it.</summary>
public sealed class PracticeBroadcast(
    Screens screens,
    PracticeDesk desk,
    SteadyClock clock,
    TimeProvider time,
    Troubles troubles,
    ILogger<PracticeBroadcast> log
) : GuardedLoop("Playing a lesson", troubles, log)
{
    private static readonly TimeSpan Every = TimeSpan.FromMilliseconds(25);
    private static readonly TimeSpan Idle = TimeSpan.FromMilliseconds(100);

    protected override async Task TurnAsync(CancellationToken stop)
    {
        var sessions = desk.Sessions;
        await Task.Delay(sessions.Count == 0 ? Idle : Every, stop);
        foreach (var session in sessions)
        {
            try
            {
                screens.Tell(
                    "practice",
                    session.Frame(clock.Now, (time.GetUtcNow() - DateTimeOffset.UnixEpoch).TotalMilliseconds),
                    session.Id
                );
            }
            catch (Exception)
            {
                desk.Remove(session.Id); // a lesson that cannot be played on ends; the others go on
                throw;
            }
        }
    }
}
