using System.Text.Json;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Traces;
using RuddySpring.Server.Hosting;
using RuddySpring.Server.Instruments;
using RuddySpring.Server.Prepare;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Pull;

/// <summary>How far a pull has come.</summary>
public enum PullStage
{
    /// <summary>No pull.</summary>
    Idle,

    /// <summary>Ready; the clock starts when pressure or weight moves.</summary>
    Ready,

    /// <summary>Being pulled.</summary>
    Running,

    /// <summary>Stopped; the last drops are being weighed.</summary>
    Settling,
}

/// <summary>What is sent to the screens, up to 25 times a second: the state now and every sample since the last frame.</summary>
/// <param name="Stage">How far.</param>
/// <param name="PullId">Which pull, or null.</param>
/// <param name="Sequence">Counts frames, so that a screen sees when it missed one.</param>
/// <param name="Reading">The state now.</param>
/// <param name="Pressure">New samples as pairs of s since the lever moved and bar.</param>
/// <param name="Weight">The same in g.</param>
/// <param name="Flow">The live flow at the end of each frame, g/s.</param>
/// <param name="Devices">The devices; null when nothing about them changed.</param>
/// <param name="Notices">What went wrong during this pull.</param>
/// <param name="SentAt">Server time in ms since 1970, for measuring delay.</param>
public sealed record LiveFrame(
    PullStage Stage, string? PullId, long Sequence, LiveReading? Reading, IReadOnlyList<double[]> Pressure, IReadOnlyList<double[]> Weight,
    IReadOnlyList<double[]> Flow, IReadOnlyList<DeviceView>? Devices, IReadOnlyList<string> Notices, double SentAt);

/// <summary>
/// The pull under way, one at a time: takes samples from the instruments, follows the plan, keeps the journal, and in the end makes a shot.
/// </summary>
public sealed class PullDesk
{
    private const double JournalEverySeconds = 0.5;

    private readonly Lock _lock = new();
    private readonly InstrumentDesk _instruments;
    private readonly PullJournal _journal;
    private readonly TimeProvider _time;
    private readonly ILogger<PullDesk> _log;
    private readonly List<TimedSample> _unwritten = [];
    private readonly List<string> _notices = [];
    private readonly List<double[]> _allPressure = [];
    private readonly List<double[]> _allWeight = [];
    private readonly List<double[]> _allFlow = [];
    private PullStart? _start;
    private PullTracker? _tracker;
    private double _armedAt;
    private double _lastJournal;
    private double? _stoppedAt;
    private int _sentPressure;
    private int _sentWeight;
    private int _sentFlow;
    private long _sequence;

    public PullDesk(InstrumentDesk instruments, PullJournal journal, TimeProvider time, ILogger<PullDesk> log)
    {
        _instruments = instruments;
        _journal = journal;
        _time = time;
        _log = log;
        instruments.Sampled += Take;
        instruments.Changed += (sentence, isLoss) =>
        {
            lock (_lock)
            {
                if (_tracker is not null && _stoppedAt is null && (isLoss || _tracker.Started)) AddNotice(sentence);
            }
        };
    }

    /// <summary>How far the pull has come.</summary>
    public PullStage Stage
    {
        get
        {
            lock (_lock) return StageNow;
        }
    }

    private PullStage StageNow => _tracker is null ? PullStage.Idle
        : _stoppedAt is not null ? PullStage.Settling
        : _tracker.Started ? PullStage.Running : PullStage.Ready;

    /// <summary>Id of the pull under way, or null.</summary>
    public string? CurrentId
    {
        get
        {
            lock (_lock) return _start?.Id;
        }
    }

    /// <summary>Makes a pull ready. A pull that is ready and has not begun is replaced.</summary>
    /// <exception cref="NotNowException">A pull is being pulled.</exception>
    public PullStart Ready(Sheet sheet, PullPlan plan, BenchMachine machine, double waterC, object announcement)
    {
        lock (_lock)
        {
            if (_tracker is { Started: true }) throw new NotNowException("A pull is under way. Stop it or throw it away first.");
            if (_start is not null) Drop();
            _start = new(Guid.NewGuid().ToString("N"), _time.GetUtcNow().UtcDateTime, sheet, plan, machine.Spec, waterC);
            _tracker = new PullTracker(plan, machine.Spec, sheet.YieldGrams);
            _armedAt = _instruments.Now;
            _lastJournal = _armedAt;
            _journal.Begin(_start);
            _instruments.Say(JsonSerializer.Serialize(announcement, RuddyContext.Json));
            return _start;
        }
    }

    /// <summary>Starts the clock by hand.</summary>
    public void Begin()
    {
        lock (_lock)
        {
            var tracker = Current();
            if (tracker.Started) return;
            var now = _instruments.Now - _armedAt;
            tracker.StartNow(now);
            _journal.AppendBegin(_start!.Id, now);
        }
    }

    /// <summary>Marks a moment now.</summary>
    public void Mark(string moment)
    {
        lock (_lock)
        {
            var now = _instruments.Now - _armedAt;
            Current().Mark(moment, now);
            _journal.AppendMark(_start!.Id, moment, now);
        }
    }

    /// <summary>Stops the pull; the last drops are weighed for a moment before it can be saved.</summary>
    public void Stop()
    {
        lock (_lock)
        {
            if (!Current().Started) throw new NotNowException("The pull has not begun.");
            if (_stoppedAt is not null) return;
            _stoppedAt = _instruments.Now;
            _journal.AppendMark(_start!.Id, "stop", _stoppedAt.Value - _armedAt);
            _instruments.Say("""{"pull":"ended"}""");
        }
    }

    /// <summary>Throws the pull away.</summary>
    public void Discard()
    {
        lock (_lock)
        {
            Current();
            Drop();
        }
    }

    /// <summary>The finished pull; afterwards the desk is free.</summary>
    /// <exception cref="NotNowException">It has not been stopped.</exception>
    public (PullStart Start, Trace Trace, Moments Marked, string Notices) Finish()
    {
        lock (_lock)
        {
            var tracker = Current();
            if (_stoppedAt is not { } stopped) throw new NotNowException("Stop the pull first.");
            var start = _start!;
            var trace = tracker.ToTrace();
            var since = tracker.Read(stopped - _armedAt).Seconds;
            return (start, trace, tracker.Marked with { Stop = since }, string.Join(" ", _notices));
        }
    }

    /// <summary>Frees the desk after the pull was saved.</summary>
    public void Clear(string id)
    {
        lock (_lock)
        {
            if (_start?.Id == id) Drop();
        }
    }

    /// <summary>The frame since the last one; called by one broadcaster.</summary>
    public LiveFrame NextFrame(bool withDevices)
    {
        var devices = withDevices ? _instruments.View() : null;
        lock (_lock)
        {
            var now = _instruments.Now;
            WriteJournal(now);
            var reading = _tracker?.Read((_stoppedAt ?? now) - _armedAt);
            if (reading is { Seconds: > 0, FlowGramsPerS: { } flow } && _stoppedAt is null
                && (_allFlow.Count == 0 || reading.Seconds - _allFlow[^1][0] >= 0.1))
                _allFlow.Add([Math.Round(reading.Seconds, 3), Math.Round(flow, 3)]);
            var frame = new LiveFrame(
                StageNow, _start?.Id, ++_sequence, reading, Slice(_allPressure, ref _sentPressure), Slice(_allWeight, ref _sentWeight),
                Slice(_allFlow, ref _sentFlow), devices, [.. _notices], UnixMs());
            return frame;
        }
    }

    /// <summary>Everything so far, for a screen that has just been opened.</summary>
    public LiveFrame WholeFrame()
    {
        var devices = _instruments.View();
        lock (_lock)
        {
            return new(
                StageNow, _start?.Id, _sequence, _tracker?.Read((_stoppedAt ?? _instruments.Now) - _armedAt), [.. _allPressure], [.. _allWeight],
                [.. _allFlow], devices, [.. _notices], UnixMs());
        }
    }

    /// <summary>The sheet of the pull under way.</summary>
    public PullStart? CurrentStart
    {
        get
        {
            lock (_lock) return _start;
        }
    }

    private double UnixMs() => (_time.GetUtcNow() - DateTimeOffset.UnixEpoch).TotalMilliseconds;

    private void Take(IReadOnlyList<TimedSample> samples)
    {
        lock (_lock)
        {
            if (_tracker is null) return;
            foreach (var sample in samples)
            {
                var at = sample.ServerSeconds - _armedAt;
                if (at < -0.05) continue;
                _tracker.Take(sample.Channel, at, sample.Value);
                _unwritten.Add(new(sample.Channel, at, sample.Value));
                if (!_tracker.Started) continue;
                var shown = _tracker.Latest(sample.Channel);
                if (sample.Channel == Channel.Pressure) _allPressure.Add(shown);
                else if (sample.Channel == Channel.Weight) _allWeight.Add(shown);
            }

            WriteJournal(_instruments.Now);
        }
    }

    private void WriteJournal(double now)
    {
        if (_start is null || now - _lastJournal < JournalEverySeconds) return;
        _lastJournal = now;
        try
        {
            _journal.Append(_start.Id, _unwritten);
            _unwritten.Clear();
        }
        catch (IOException error)
        {
            // the pull goes on in memory; the samples stay in the list and are tried again
            _log.LogWarning(error, "The journal cannot be written");
            AddNotice("The disk cannot be written just now: the pull is kept in memory only.");
        }
    }

    private PullTracker Current() => _tracker ?? throw new NotNowException("There is no pull under way.");

    private void AddNotice(string sentence)
    {
        if (!_notices.Contains(sentence)) _notices.Add(sentence);
    }

    private void Drop()
    {
        if (_start is { } start) _journal.Close(start.Id);
        if (_stoppedAt is null && _start is not null) _instruments.Say("""{"pull":"ended"}""");
        _start = null;
        _tracker = null;
        _stoppedAt = null;
        _unwritten.Clear();
        _notices.Clear();
        _allPressure.Clear();
        _allWeight.Clear();
        _allFlow.Clear();
        _sentPressure = _sentWeight = _sentFlow = 0;
    }

    private static List<double[]> Slice(List<double[]> all, ref int sent)
    {
        var slice = all.GetRange(sent, all.Count - sent);
        sent = all.Count;
        return slice;
    }
}
