using System.Text.Json;
using RuddySpring.Core.Traces;
using RuddySpring.Server.Hosting;
using RuddySpring.Server.Instruments;
using RuddySpring.Store;

namespace RuddySpring.Server.Pull;

/// <summary>
/// The pulls under way, at most one a machine. An instrument tells of one pull: of the one that was made ready while it was free,
/// until it is given to another; one that comes later is heard where nothing else tells the same.
/// </summary>
public sealed class PullDesk
{
    /// <summary>Most pulls at once.</summary>
    public const int MostPulls = 4;

    private readonly Lock _lock = new();
    private readonly InstrumentDesk _instruments;
    private readonly PullJournal _journal;
    private readonly TimeProvider _time;
    private readonly Troubles _troubles;
    private readonly ILogger<PullDesk> _log;
    private readonly List<RunningPull> _pulls = [];
    private readonly PullInstruments _told = new();
    private KeptPull? _kept;

    public PullDesk(InstrumentDesk instruments, PullJournal journal, TimeProvider time, Troubles troubles, ILogger<PullDesk> log)
    {
        _instruments = instruments;
        _journal = journal;
        _time = time;
        _troubles = troubles;
        _log = log;
        instruments.Sampled += Take;
        instruments.Changed += (device, sentence, isLoss) =>
        {
            lock (_lock)
            {
                foreach (var pull in _pulls.Where(p => _told.Tells(device, p.Start.Id)))
                    pull.InstrumentChanged(sentence, isLoss);
            }
        };
    }

    /// <summary>Whether any pull is under way.</summary>
    public bool IsIdle
    {
        get
        {
            lock (_lock)
                return _pulls.Count == 0;
        }
    }

    /// <summary>Ids of the pulls under way.</summary>
    public IReadOnlyList<string> CurrentIds
    {
        get
        {
            lock (_lock)
                return [.. _pulls.Select(p => p.Start.Id)];
        }
    }

    /// <summary>What was set for a pull, by its id or the newest one; null where there is none.</summary>
    public PullStart? StartOf(string? id)
    {
        lock (_lock)
            return Find(id)?.Start;
    }

    /// <summary>Makes a pull ready. One on the same machine that has not begun is replaced.</summary>
    /// <exception cref="NotNowException">A pull is under way on that machine.</exception>
    public PullStart Ready(PullStart start, object announcement)
    {
        lock (_lock)
        {
            if (_pulls.Find(p => p.Start.Sheet.MachineId == start.Sheet.MachineId) is { } before)
            {
                if (before.Stage != PullStage.Ready)
                    throw new NotNowException("A pull is under way on this machine. Stop it or delete it first.");
                Drop(before);
            }

            if (_pulls.Count >= MostPulls)
                throw new NotNowException($"{MostPulls} pulls are under way already. Stop one or delete it first.");
            _pulls.Add(new(start, _instruments.Now));
            _journal.Open(start.Id);
            foreach (var device in _instruments.View().OrderBy(d => d.Silent))
                _told.Offer(start.Id, device.Name, device.Channels);
            Say(JsonSerializer.Serialize(announcement, RuddyContext.Json), start.Id);
            return start;
        }
    }

    /// <summary>Name of the scale that is connected and sends; null where none does.</summary>
    public string? ScaleName =>
        _instruments.View().OrderBy(d => d.Silent).FirstOrDefault(d => d.Channels.Contains(Channel.Weight))?.Name;

    /// <summary>Starts the clock by hand.</summary>
    public LiveFrame Begin(string? id) => Then(id, (pull, now) => pull.Begin(now));

    /// <summary>Marks a moment now.</summary>
    public LiveFrame Mark(string? id, string moment) => Then(id, (pull, now) => pull.Mark(moment, now));

    /// <summary>Stops a pull; the last drops are weighed for a moment before it can be kept.</summary>
    public LiveFrame Stop(string? id) => Then(id, Stop);

    /// <summary>What was done on a screen while the server was out of its reach: each at the time at which it was
    /// done.</summary>
    /// <param name="id">Of the pull.</param>
    /// <param name="deeds">The oldest first.</param>
    public LiveFrame Late(string? id, IReadOnlyList<LateDeed> deeds) => Then(id, (pull, now) =>
        {
            var last = double.MaxValue;
            foreach (var deed in deeds)
            {
                var at = now - (deed.SecondsAgo * _instruments.Speed);
                pull.CatchUp(last, at);
                last = at;
                // a pull that has not begun has nothing to mark or to stop; what else was done still counts
                if (pull.Stage == PullStage.Ready && deed.What is not ("begin" or "follow"))
                    continue;
                switch (deed.What)
                {
                    case "begin":
                        pull.Begin(at);
                        break;
                    case "stop":
                        Stop(pull, at);
                        break;
                    case "follow":
                        pull.Take([new(Channel.Pressure, at, deed.Bar!.Value, Origin.Followed)], at);
                        break;
                    default:
                        pull.Mark(deed.What, at);
                        break;
                }
            }
        });

    /// <summary>A hand has followed the needle of a gauge that only eyes can read, bar.</summary>
    public void Follow(string? id, double bar)
    {
        lock (_lock)
        {
            if (Find(id) is not { } pull)
                return;
            var now = _instruments.Now;
            pull.Take([new(Channel.Pressure, now, bar, Origin.Followed)], now);
        }

        Followed?.Invoke();
    }

    /// <summary>Raised when a followed needle has moved.</summary>
    public event Action? Followed;

    /// <summary>Ends a pull and drops it: one that never began, or that cannot be kept.</summary>
    public void Discard(string? id)
    {
        lock (_lock)
            Drop(Current(id));
    }

    /// <summary>How far a pull is.</summary>
    /// <exception cref="NotNowException">There is none.</exception>
    public PullStage StageOf(string? id)
    {
        lock (_lock)
            return Current(id).Stage;
    }

    /// <summary>A pull as far as it has come.</summary>
    /// <exception cref="NotNowException">There is none.</exception>
    public (string Id, Trace Trace) TraceOf(string? id)
    {
        lock (_lock)
        {
            var pull = Current(id);
            return (pull.Start.Id, pull.TraceSoFar());
        }
    }

    /// <summary>Writes what is new of every pull to its journal. The disk is waited for without holding up the pulls.</summary>
    public void WriteJournals()
    {
        List<(RunningPull Pull, string Text)> unwritten;
        lock (_lock)
            unwritten =
            [
                .. _pulls.Select(p => (p, p.TakeUnwritten())).Where(p => p.Item2 is not null).Select(p => (p.p, p.Item2!)),
            ];
        foreach (var (pull, text) in unwritten)
        {
            try
            {
                _journal.Append(pull.Start.Id, text);
                lock (_lock)
                    pull.IsWritten();
            }
            catch (Exception error) when (error is IOException or UnauthorizedAccessException)
            {
                bool isNew;
                lock (_lock)
                    isNew = pull.PutBack(text);
                if (isNew)
                    _log.LogWarning(error, "The journal cannot be written");
            }
        }
    }

    /// <summary>Gives an instrument to a pull.</summary>
    /// <exception cref="NotThereException">There is no such instrument.</exception>
    public LiveFrame Give(string? id, string device)
    {
        lock (_lock)
        {
            var pull = Current(id);
            var given = _instruments.View().FirstOrDefault(d => d.Name == device)
                ?? throw new NotThereException($"No instrument called {RequestSentences.Short(device)} is connected.");
            _told.Give(pull.Start.Id, given.Name, given.Channels);
        }

        return WholeFrame(id);
    }

    /// <summary>A finished pull.</summary>
    /// <exception cref="NotNowException">It has not been stopped.</exception>
    public FinishedPull Finish(string? id)
    {
        lock (_lock)
            return Current(id).Finish();
    }

    /// <summary>The shot that a pull was kept as just now, for a second screen that asks too; null otherwise.</summary>
    public int? KeptAs(string? id)
    {
        lock (_lock)
            return _kept is { } kept && (id is null ? _pulls.Count == 0 : kept.PullId == id) ? kept.ShotId : null;
    }

    /// <summary>Frees the machine after the pull was kept as a shot.</summary>
    public void Clear(string id, int shotId)
    {
        lock (_lock)
        {
            _kept = new(id, shotId);
            if (_pulls.Find(p => p.Start.Id == id) is { } pull)
                Drop(pull);
        }
    }

    /// <summary>The frames since the last ones, one a pull; one that says so where there is none. Called by one
    /// broadcaster.</summary>
    public IReadOnlyList<LiveFrame> NextFrames(bool withDevices)
    {
        var devices = withDevices ? _instruments.View() : null;
        lock (_lock)
        {
            var now = _instruments.Now;
            var inHand = withDevices ? InHand() : null;
            return _pulls.Count == 0
                ? [Idle(devices, inHand)]
                : [.. _pulls.Select(p => NextFrame(p, now, devices, inHand)).OfType<LiveFrame>()];
        }
    }

    /// <summary>What goes wrong with one pull is that pull's, and told on it; null where it has no frame this time.</summary>
    private LiveFrame? NextFrame(
        RunningPull pull,
        double now,
        IReadOnlyList<DeviceView>? devices,
        IReadOnlyList<PullInHand>? inHand
    )
    {
        try
        {
            if (pull.IsTooLate(now))
                return null;
            if (pull.EndedByItself(now))
                Stop(pull, now);
            var frame = pull.Frame(now, false, devices, inHand, _kept, UnixMs()) with
            {
                Troubles = devices is null ? null : _troubles.Sentences,
            };
            if (pull.TellToLetGo())
                Say("""{"pull":"let go"}""", pull.Start.Id);
            return frame;
        }
        catch (Exception error)
        {
            _log.LogError(error, "A pull cannot be followed");
            pull.Notice("The coach has a fault and is silent for now; every reading is kept.");
            return null;
        }
    }

    /// <summary>Everything so far of a pull, for a screen that has just been opened.</summary>
    public LiveFrame WholeFrame(string? id)
    {
        var devices = _instruments.View();
        lock (_lock)
            return Find(id)?.Frame(_instruments.Now, true, devices, InHand(), _kept, UnixMs()) ?? Idle(devices, InHand());
    }

    private LiveFrame Then(string? id, Action<RunningPull, double> act)
    {
        lock (_lock)
            act(Current(id), _instruments.Now);
        return WholeFrame(id);
    }

    private void Stop(RunningPull pull, double now)
    {
        if (pull.Stop(now))
            Say("""{"pull":"ended"}""", pull.Start.Id);
    }

    private LiveFrame Idle(IReadOnlyList<DeviceView>? devices, IReadOnlyList<PullInHand>? pulls) =>
        new(PullStage.Idle, null, 0, null, [], [], [], [], [], devices, pulls, [], _kept, UnixMs())
        {
            Troubles = devices is null ? null : _troubles.Sentences,
        };

    private IReadOnlyList<PullInHand> InHand() =>
        [
            .. _pulls.Select(p => new PullInHand(
                p.Start.Id,
                p.Start.Sheet.MachineId,
                p.Start.MachineName,
                p.Stage,
                [.. _instruments.Names.Where(d => _told.Tells(d, p.Start.Id))]
            )),
        ];

    private double UnixMs() => (_time.GetUtcNow() - DateTimeOffset.UnixEpoch).TotalMilliseconds;

    private void Take(string device, IReadOnlyList<TimedSample> samples)
    {
        lock (_lock)
        {
            if (_pulls.Count == 0)
                return;
            if (_pulls is [{ StoppedAt: null } only])
                _told.Offer(only.Start.Id, device, samples.Select(s => s.Channel).Distinct());
            foreach (var heard in samples.GroupBy(s => _told.Hearer(device, s.Channel)))
            {
                if (heard.Key is { } id && _pulls.Find(p => p.Start.Id == id) is { } pull)
                    pull.Take([.. heard], _instruments.Now);
            }
        }
    }

    private RunningPull? Find(string? id) => id is null ? _pulls.LastOrDefault() : _pulls.Find(p => p.Start.Id == id);

    private RunningPull Current(string? id) => Find(id) ?? throw new NotNowException("There is no pull under way.");

    private void Say(string line, string id) => _instruments.Say(line, device => _told.Tells(device, id));

    private void Drop(RunningPull pull)
    {
        CloseJournal(pull.Start.Id);
        if (pull.StoppedAt is null)
            Say("""{"pull":"ended"}""", pull.Start.Id);
        _pulls.Remove(pull);
        _told.Free(pull.Start.Id);
    }

    /// <summary>A journal that the disk does not let go of is found and closed at the next start: its pull is stored by
    /// then.</summary>
    private void CloseJournal(string id)
    {
        try
        {
            _journal.Close(id);
        }
        catch (Exception error) when (error is IOException or UnauthorizedAccessException)
        {
            _log.LogWarning(error, "The journal of {Id} cannot be removed", id);
        }
    }
}
