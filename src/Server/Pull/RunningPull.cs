using RuddySpring.Core.Pulls;
using RuddySpring.Core.Traces;
using RuddySpring.Server.Hosting;
using RuddySpring.Server.Instruments;

namespace RuddySpring.Server.Pull;

/// <summary>
/// One pull under way: takes samples, follows the plan, keeps the journal. Times are s on the steady clock. Used under the desk's lock.
/// </summary>
public sealed class RunningPull
{
    private const double JournalEverySeconds = 0.5;
    private const double FrozenSeconds = 3.0;

    private readonly PullTracker _tracker;
    private readonly PullJournal _journal;
    private readonly ILogger _log;
    private readonly List<TimedSample> _unwritten = [];
    private readonly List<string> _notices = [];
    private readonly PullLines _lines = new();
    private readonly double _armedAt;
    private double _lastJournal;
    private double _lastLook;
    private double? _stoppedAt;

    /// <summary>Makes a pull ready.</summary>
    public RunningPull(PullStart start, double now, PullJournal journal, ILogger log)
    {
        Start = start;
        _tracker = start.Tracker();
        _armedAt = _lastJournal = _lastLook = now;
        _journal = journal;
        _log = log;
        journal.Begin(start);
    }

    /// <summary>What was set.</summary>
    public PullStart Start { get; }

    /// <summary>Counts the frames that were sent.</summary>
    public long Sequence { get; set; }

    /// <summary>How far it is.</summary>
    public PullStage Stage => _stoppedAt is not null ? PullStage.Settling : _tracker.Started ? PullStage.Running : PullStage.Ready;

    /// <summary>What went wrong.</summary>
    public IReadOnlyList<string> Notices => _notices;

    /// <summary>When it was stopped, s on the steady clock.</summary>
    public double? StoppedAt => _stoppedAt;

    /// <summary>Starts the clock by hand.</summary>
    public void Begin(double now)
    {
        if (_tracker.Started) return;
        _tracker.StartNow(now - _armedAt);
        _journal.AppendBegin(Start.Id, now - _armedAt);
    }

    /// <summary>Marks a moment now.</summary>
    public void Mark(string moment, double now)
    {
        _tracker.Mark(moment, now - _armedAt);
        _journal.AppendMark(Start.Id, moment, now - _armedAt);
    }

    /// <summary>Stops it; false where it had been stopped before.</summary>
    /// <exception cref="NotNowException">It has not begun.</exception>
    public bool Stop(double now)
    {
        if (!_tracker.Started) throw new NotNowException("The pull has not begun.");
        if (_stoppedAt is not null) return false;
        _stoppedAt = now;
        _journal.AppendMark(Start.Id, "stop", now - _armedAt);
        return true;
    }

    /// <summary>Whether the flow has ended and nobody pressed stop.</summary>
    public bool EndedByItself(double now) => _stoppedAt is null && _tracker.IsOver(now - _armedAt);

    /// <summary>The finished pull.</summary>
    /// <exception cref="NotNowException">It has not been stopped.</exception>
    public (Trace Trace, Moments Marked, string Notices) Finish()
    {
        if (_stoppedAt is not { } stopped) throw new NotNowException("Stop the pull first.");
        var since = _tracker.Read(stopped - _armedAt).Seconds;
        return (_tracker.ToTrace().UntilCupIsLifted(since), _tracker.Marked with { Stop = since }, string.Join(" ", _notices));
    }

    /// <summary>Takes samples.</summary>
    public void Take(IReadOnlyList<TimedSample> samples, double now)
    {
        foreach (var sample in samples)
        {
            var at = sample.ServerSeconds - _armedAt;
            if (at < -0.05) continue;
            _tracker.Take(sample.Channel, at, sample.Value, sample.Origin);
            _unwritten.Add(sample with { ServerSeconds = at });
            if (_tracker.Started) _lines.Add(sample.Channel, _tracker.Latest(sample.Channel));
        }

        WriteJournal(now);
    }

    /// <summary>Adds a sentence to what went wrong, once.</summary>
    public void Notice(string sentence)
    {
        if (!_notices.Contains(sentence)) _notices.Add(sentence);
    }

    /// <summary>A sentence about an instrument: told where it is a loss, or where the pull is under way.</summary>
    public void InstrumentChanged(string sentence, bool isLoss)
    {
        if (_stoppedAt is null && (isLoss || _tracker.Started)) Notice(sentence);
    }

    /// <summary>The frame with all that is new, or with everything.</summary>
    public LiveFrame Frame(double now, bool whole, IReadOnlyList<DeviceView>? devices, IReadOnlyList<PullInHand>? pulls, KeptPull? kept, double sentAt)
    {
        if (!whole) LookAtTheClock(now);
        var reading = _tracker.Read((_stoppedAt ?? now) - _armedAt);
        if (_stoppedAt is null && !whole) _lines.Note(reading);
        return _lines.Frame(Stage, Start.Id, whole ? Sequence : ++Sequence, reading, whole, sentAt) with
        {
            Devices = devices,
            Pulls = pulls,
            Notices = [.. _notices],
            Kept = kept,
        };
    }

    /// <summary>Writes what has come since the last time, every half second.</summary>
    public void WriteJournal(double now)
    {
        if (now - _lastJournal < JournalEverySeconds) return;
        _lastJournal = now;
        try
        {
            _journal.Append(Start.Id, _unwritten);
            _unwritten.Clear();
        }
        catch (IOException error)
        {
            // the pull goes on in memory; the samples stay in the list and are tried again
            _log.LogWarning(error, "The journal cannot be written");
            Notice("The disk cannot be written just now: the pull is kept in memory only.");
        }
    }

    /// <summary>A computer that slept in the middle of a pull is told of, once.</summary>
    private void LookAtTheClock(double now)
    {
        var gap = now - _lastLook;
        _lastLook = now;
        if (Stage == PullStage.Running && gap > FrozenSeconds)
            Notice(FormattableString.Invariant($"The computer stood still for {gap:0} s during this pull; that part of the trace is missing."));
    }
}
