using Microsoft.AspNetCore.SignalR;
using RuddySpring.Core.Traces;
using RuddySpring.Server.Hosting;
using RuddySpring.Server.Instruments;

namespace RuddySpring.Server.Pull;

/// <summary>Screens connect here and hear <c>frame</c>; one that follows a needle by hand says <c>Follow</c>.</summary>
public sealed class LiveHub(
    PullDesk desk,
    Practice.PracticeDesk practice,
    SteadyClock clock,
    Screens screens,
    IHubContext<LiveHub> hub
) : Hub
{
    private const double MostBar = 16;

    public override Task OnConnectedAsync()
    {
        var id = Context.ConnectionId;
        screens.Add(
            id,
            (message, payload, gone) => hub.Clients.Client(id).SendAsync(message, payload, gone),
            Context.ConnectionAborted
        );
        return base.OnConnectedAsync();
    }

    public override Task OnDisconnectedAsync(Exception? exception)
    {
        screens.Remove(Context.ConnectionId);
        return base.OnDisconnectedAsync(exception);
    }

    /// <summary>The pressure in bar, 0 to 16, that a hand has followed a gauge's needle to; what is no such number is left
    /// out.</summary>
    public void Follow(string? pullId, double bar)
    {
        if (bar is >= 0 and <= MostBar)
            desk.Follow(pullId, bar);
    }

    /// <summary>Hears the frames of a lesson from now on.</summary>
    public void JoinPractice(string id) => screens.Join(Context.ConnectionId, id);

    /// <summary>What the hand on the virtual lever does, 0 to 1.</summary>
    public void Practise(string id, double effort)
    {
        if (double.IsFinite(effort))
            practice.Find(id)?.Effort(effort, clock.Now);
    }
}

/// <summary>Sends frames to all screens: as soon as samples have come, but at most 50 a second; a few a second while nothing
/// moves.</summary>
public sealed class LiveBroadcast : GuardedLoop
{
    private const double DevicesEverySeconds = 0.45;
    private static readonly TimeSpan Shortest = TimeSpan.FromMilliseconds(20);
    private static readonly TimeSpan Longest = TimeSpan.FromMilliseconds(250);
    private readonly SemaphoreSlim _sampled = new(0, 1);
    private readonly Screens _screens;
    private readonly PullDesk _desk;
    private readonly InstrumentDesk _instruments;
    private double _lastDevices;

    public LiveBroadcast(
        Screens screens,
        PullDesk desk,
        InstrumentDesk instruments,
        Troubles troubles,
        ILogger<LiveBroadcast> log
    )
        : base("Sending the pull to the screens", troubles, log)
    {
        (_screens, _desk, _instruments) = (screens, desk, instruments);
        // temperature alone is no reason to hurry
        instruments.Sampled += (_, samples) =>
        {
            if (samples.Any(s => s.Channel is not (Channel.Temperature or Channel.Group)))
                Hurry();
        };
        desk.Followed += Hurry;
    }

    protected override async Task TurnAsync(CancellationToken stop)
    {
        if (_desk.IsIdle)
            await Task.Delay(Longest, stop);
        else
            await _sampled.WaitAsync(Longest, stop);
        var withDevices = _instruments.Now - _lastDevices > DevicesEverySeconds;
        if (withDevices)
            _lastDevices = _instruments.Now;
        foreach (var frame in _desk.NextFrames(withDevices))
            _screens.Tell("frame", frame);
        await Task.Delay(Shortest, stop);
    }

    private void Hurry()
    {
        if (_sampled.CurrentCount > 0)
            return;
        try
        {
            _sampled.Release();
        }
        catch (SemaphoreFullException)
        {
            // another connection's thread was first
        }
    }
}

/// <summary>Writes what has come of the pulls under way to their journals, often enough that half a second is the most to
/// lose.</summary>
public sealed class JournalLoop(PullDesk desk, Troubles troubles, ILogger<JournalLoop> log)
    : GuardedLoop("Keeping the journal of the pull", troubles, log)
{
    private static readonly TimeSpan Every = TimeSpan.FromMilliseconds(250);

    protected override async Task TurnAsync(CancellationToken stop)
    {
        await Task.Delay(Every, stop);
        desk.WriteJournals();
    }
}
