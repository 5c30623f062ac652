using System.Text.Json;
using RuddySpring.Core.Traces;
using RuddySpring.Server.Hosting;
using RuddySpring.Server.Instruments;
using RuddySpring.Store;

namespace RuddySpring.Server.Pull;

/// <summary>
/// The pulls under way, at most one a machine. An instrument tells of one pull: of the one that was made ready while it was free, until it
/// is given to another.
/// </summary>
public sealed class PullDesk
{
    /// <summary>Most pulls at once.</summary>
    public const int MostPulls = 4;

    private readonly Lock _lock = new();
    private readonly InstrumentDesk _instruments;
    private readonly PullJournal _journal;
    private readonly TimeProvider _time;
    private readonly ILogger<PullDesk> _log;
    private readonly List<RunningPull> _pulls = [];
    private readonly Dictionary<string, string> _toldOf = [];
    private KeptPull? _kept;

    public PullDesk(InstrumentDesk instruments, PullJournal journal, TimeProvider time, ILogger<PullDesk> log)
    {
        _instruments = instruments;
        _journal = journal;
        _time = time;
        _log = log;
        instruments.Sampled += Take;
        instruments.Changed += (device, sentence, isLoss) =>
        {
            lock (_lock) OfDevice(device)?.InstrumentChanged(sentence, isLoss);
        };
    }

    /// <summary>Whether any pull is under way.</summary>
    public bool IsIdle
    {
        get
        {
            lock (_lock) return _pulls.Count == 0;
        }
    }

    /// <summary>Ids of the pulls under way.</summary>
    public IReadOnlyList<string> CurrentIds
    {
        get
        {
            lock (_lock) return [.. _pulls.Select(p => p.Start.Id)];
        }
    }

    /// <summary>What was set for a pull, by its id or the newest one; null where there is none.</summary>
    public PullStart? StartOf(string? id)
    {
        lock (_lock) return Find(id)?.Start;
    }

    /// <summary>Makes a pull ready. One on the same machine that has not begun is replaced.</summary>
    /// <exception cref="NotNowException">A pull is under way on that machine.</exception>
    public PullStart Ready(PullStart start, object announcement)
    {
        lock (_lock)
        {
            if (_pulls.Find(p => p.Start.Sheet.MachineId == start.Sheet.MachineId) is { } before)
            {
                if (before.Stage != PullStage.Ready) throw new NotNowException("A pull is under way on this machine. Stop it or throw it away first.");
                Drop(before);
            }

            if (_pulls.Count >= MostPulls) throw new NotNowException($"{MostPulls} pulls are under way already. Stop one or throw it away first.");
            _pulls.Add(new(start, _instruments.Now, _journal, _log));
            foreach (var device in _instruments.Names.Where(d => !_toldOf.ContainsKey(d))) _toldOf[device] = start.Id;
            Say(JsonSerializer.Serialize(announcement, RuddyContext.Json), start.Id);
            return start;
        }
    }

    /// <summary>Starts the clock by hand.</summary>
    public LiveFrame Begin(string? id) => Then(id, (pull, now) => pull.Begin(now));

    /// <summary>Marks a moment now.</summary>
    public LiveFrame Mark(string? id, string moment) => Then(id, (pull, now) => pull.Mark(moment, now));

    /// <summary>Stops a pull; the last drops are weighed for a moment before it can be kept.</summary>
    public LiveFrame Stop(string? id) => Then(id, Stop);

    /// <summary>A hand has followed the needle of a gauge that only eyes can read, bar.</summary>
    public void Follow(string? id, double bar)
    {
        lock (_lock)
        {
            if (Find(id) is not { } pull) return;
            var now = _instruments.Now;
            pull.Take([new(Channel.Pressure, now, bar, Origin.Followed)], now);
        }

        Followed?.Invoke();
    }

    /// <summary>Raised when a followed needle has moved.</summary>
    public event Action? Followed;

    /// <summary>Throws a pull away.</summary>
    public void Discard(string? id)
    {
        lock (_lock) Drop(Current(id));
    }

    /// <summary>Gives an instrument to a pull.</summary>
    /// <exception cref="NotThereException">There is no such instrument.</exception>
    public LiveFrame Give(string? id, string device)
    {
        lock (_lock)
        {
            var pull = Current(id);
            if (!_instruments.Names.Contains(device)) throw new NotThereException($"No instrument called {device} is connected.");
            _toldOf[device] = pull.Start.Id;
        }

        return WholeFrame(id);
    }

    /// <summary>A finished pull.</summary>
    /// <exception cref="NotNowException">It has not been stopped.</exception>
    public (PullStart Start, Trace Trace, Moments Marked, string Notices) Finish(string? id)
    {
        lock (_lock)
        {
            var pull = Current(id);
            var (trace, marked, notices) = pull.Finish();
            return (pull.Start, trace, marked, notices);
        }
    }

    /// <summary>The shot that a pull was kept as just now, for a second screen that asks too; null otherwise.</summary>
    public int? KeptAs(string? id)
    {
        lock (_lock) return _kept is { } kept && (id is null ? _pulls.Count == 0 : kept.PullId == id) ? kept.ShotId : null;
    }

    /// <summary>Frees the machine after the pull was kept as a shot.</summary>
    public void Clear(string id, int shotId)
    {
        lock (_lock)
        {
            _kept = new(id, shotId);
            if (_pulls.Find(p => p.Start.Id == id) is { } pull) Drop(pull);
        }
    }

    /// <summary>The frames since the last ones, one a pull; one that says so where there is none. Called by one broadcaster.</summary>
    public IReadOnlyList<LiveFrame> NextFrames(bool withDevices)
    {
        var devices = withDevices ? _instruments.View() : null;
        lock (_lock)
        {
            var now = _instruments.Now;
            foreach (var pull in _pulls)
            {
                pull.WriteJournal(now);
                if (pull.EndedByItself(now)) Stop(pull, now);
            }

            var inHand = withDevices ? InHand() : null;
            return _pulls.Count == 0
                ? [Idle(devices, inHand)]
                : [.. _pulls.Select(p => p.Frame(now, false, devices, inHand, _kept, UnixMs()))];
        }
    }

    /// <summary>Everything so far of a pull, for a screen that has just been opened.</summary>
    public LiveFrame WholeFrame(string? id)
    {
        var devices = _instruments.View();
        lock (_lock) return Find(id)?.Frame(_instruments.Now, true, devices, InHand(), _kept, UnixMs()) ?? Idle(devices, InHand());
    }

    private LiveFrame Then(string? id, Action<RunningPull, double> act)
    {
        lock (_lock) act(Current(id), _instruments.Now);
        return WholeFrame(id);
    }

    private void Stop(RunningPull pull, double now)
    {
        if (pull.Stop(now)) Say("""{"pull":"ended"}""", pull.Start.Id);
    }

    private LiveFrame Idle(IReadOnlyList<DeviceView>? devices, IReadOnlyList<PullInHand>? pulls) =>
        new(PullStage.Idle, null, 0, null, [], [], [], [], devices, pulls, [], _kept, UnixMs());

    private IReadOnlyList<PullInHand> InHand() =>
        [.. _pulls.Select(p => new PullInHand(
            p.Start.Id, p.Start.Sheet.MachineId, p.Start.MachineName, p.Stage, [.. _instruments.Names.Where(d => OfDevice(d) == p)]))];

    private double UnixMs() => (_time.GetUtcNow() - DateTimeOffset.UnixEpoch).TotalMilliseconds;

    private void Take(string device, IReadOnlyList<TimedSample> samples)
    {
        lock (_lock) OfDevice(device)?.Take(samples, _instruments.Now);
    }

    /// <summary>The pull that an instrument tells of: the one it was given to, or the only one.</summary>
    private RunningPull? OfDevice(string device) =>
        _toldOf.TryGetValue(device, out var id) && _pulls.Find(p => p.Start.Id == id) is { } pull ? pull : _pulls.Count == 1 ? _pulls[0] : null;

    private RunningPull? Find(string? id) => id is null ? _pulls.LastOrDefault() : _pulls.Find(p => p.Start.Id == id);

    private RunningPull Current(string? id) => Find(id) ?? throw new NotNowException("There is no pull under way.");

    private void Say(string line, string id) => _instruments.Say(line, device => OfDevice(device)?.Start.Id == id);

    private void Drop(RunningPull pull)
    {
        _journal.Close(pull.Start.Id);
        if (pull.StoppedAt is null) Say("""{"pull":"ended"}""", pull.Start.Id);
        _pulls.Remove(pull);
        foreach (var device in _toldOf.Where(t => t.Value == pull.Start.Id).Select(t => t.Key).ToList()) _toldOf.Remove(device);
    }
}
