using System.Text;
using RuddySpring.Core.Coaching;
using RuddySpring.Core.Traces;
using RuddySpring.Server.Hosting;
using RuddySpring.Server.Instruments;

namespace RuddySpring.Server.Pull;

/// <summary>A pull that was stopped.</summary>
/// <param name="Start">What was set.</param>
/// <param name="Trace">What was recorded.</param>
/// <param name="Marked">What was marked by hand.</param>
/// <param name="Notices">What went wrong.</param>
/// <param name="CuedAt">When the coach said to stop, s since the lever moved; null where he did not.</param>
public sealed record FinishedPull(PullStart Start, Trace Trace, Moments Marked, string Notices, double? CuedAt);

/// <summary>
/// One pull under way: takes samples, follows the plan, says what belongs into its journal. Times are s on the steady clock. Used
/// under the desk's lock.
/// </summary>
public sealed class RunningPull
{
    private const double LongestSeconds = 900;
    private const double LastDropsSeconds = 20;
    private const double KeptBeforeSeconds = 5;
    private const double LookEverySeconds = 0.1;

    // so long the cup can be reckoned ahead by its last flow
    private const double LateLookSeconds = 1.0;
    private const int MostNotices = 12;
    private const string MemoryOnly =
        "The disk cannot be written just now: the pull is kept in memory only. It goes on, and can be saved as soon as "
        + "there is room.";

    private const string GaugeRested = "The gauge did not rest at zero before the pull; what it showed at rest is taken off.";

    private readonly PullTracker _tracker;
    private readonly StringBuilder _unwritten = new();
    private readonly Queue<TimedSample> _before = [];
    private readonly List<string> _notices = [];
    private readonly PullLines _lines = new();
    private readonly double _armedAt;
    private readonly StoodStill _stoodStill;
    private double? _stoppedAt;
    private bool _journalling;
    private bool _saidToLetGo;
    private bool _letGoIsDue;
    private bool _waited;

    /// <summary>Makes a pull ready.</summary>
    public RunningPull(PullStart start, double now)
    {
        Start = start;
        _tracker = start.Tracker();
        _armedAt = now;
        _stoodStill = new(now);
    }

    /// <summary>What was set.</summary>
    public PullStart Start { get; }

    /// <summary>Counts the frames that were sent.</summary>
    public long Sequence { get; set; }

    /// <summary>How far it is.</summary>
    public PullStage Stage =>
        _stoppedAt is not null ? PullStage.Settling
        : _tracker.Started ? PullStage.Running
        : PullStage.Ready;

    /// <summary>What went wrong.</summary>
    public IReadOnlyList<string> Notices => _notices;

    /// <summary>When it was stopped, s on the steady clock.</summary>
    public double? StoppedAt => _stoppedAt;

    /// <summary>Starts the clock by hand.</summary>
    public void Begin(double now)
    {
        if (_tracker.Started)
            return;
        _tracker.StartNow(now - _armedAt);
        Journal(PullJournal.BeginLine(now - _armedAt));
    }

    /// <summary>Goes through a time in which nobody looked, as the screens would have: what the plan lets assume of it becomes
    /// part of the pull.</summary>
    public void CatchUp(double from, double to)
    {
        for (var at = from; at < to; at += LookEverySeconds)
            _tracker.Read(at - _armedAt);
    }

    /// <summary>Marks a moment now.</summary>
    public void Mark(string moment, double now)
    {
        _tracker.Mark(moment, now - _armedAt);
        Journal(PullJournal.MarkLine(moment, now - _armedAt));
    }

    /// <summary>Stops it; false where it had been stopped before.</summary>
    /// <exception cref="NotNowException">It has not begun.</exception>
    public bool Stop(double now)
    {
        if (!_tracker.Started)
            throw new NotNowException("The pull has not begun.");
        if (_stoppedAt is not null)
            return false;
        _stoppedAt = now;
        Journal(PullJournal.MarkLine("stop", now - _armedAt));
        return true;
    }

    /// <summary>Whether the flow has ended and nobody pressed stop.</summary>
    public bool EndedByItself(double now) =>
        _stoppedAt is null
        && (_tracker.IsOver(now - _armedAt) || (_tracker.Started && _tracker.Read(now - _armedAt).Seconds > LongestSeconds));

    /// <summary>The trace so far.</summary>
    public Trace TraceSoFar() => _tracker.ToTrace();

    /// <summary>The finished pull.</summary>
    /// <exception cref="NotNowException">It has not been stopped.</exception>
    public FinishedPull Finish()
    {
        if (_stoppedAt is not { } stopped)
            throw new NotNowException("Stop the pull first.");
        Missing(_stoodStill.AtTheEnd());
        var since = _tracker.Read(stopped - _armedAt).Seconds;
        var trace = _tracker.ToTrace();
        if (_tracker.GaugeRestBar != 0.0)
            Notice(GaugeRested);
        return new(
            Start,
            trace,
            _tracker.Marked with
            {
                Stop = MeasureShot.StopToMark(trace, since, Start.Context),
            },
            string.Join(" ", _notices),
            _tracker.CuedAt
        );
    }

    /// <summary>Takes samples.</summary>
    public void Take(IReadOnlyList<TimedSample> samples, double now)
    {
        if (now - _stoppedAt > LastDropsSeconds)
            return;
        foreach (var sample in samples)
        {
            var at = sample.ServerSeconds - _armedAt;
            if (at < -0.05)
                continue;
            _stoodStill.Taken(sample.ServerSeconds);
            _tracker.Take(sample.Channel, at, sample.Value, sample.Origin);
            Journal(sample with { ServerSeconds = at });
            if (_tracker.Started)
                _lines.Add(sample.Channel, _tracker.Latest(sample.Channel));
        }
    }

    /// <summary>Adds a sentence to what went wrong, once, and no more than a dozen in all.</summary>
    public void Notice(string sentence)
    {
        if (_notices.Count < MostNotices && !_notices.Contains(sentence))
            _notices.Add(sentence);
    }

    /// <summary>A sentence about an instrument: told where it is a loss, or where the pull is under way.</summary>
    public void InstrumentChanged(string sentence, bool isLoss)
    {
        if (_stoppedAt is null && (isLoss || _tracker.Started))
            Notice(sentence);
    }

    /// <summary>
    /// Whether nobody looked for so long that readings still wait at the door. They come first: a cup that is reckoned ahead
    /// over that time would have the hand let go too early. The look after this one is never too late.
    /// </summary>
    public bool IsTooLate(double now)
    {
        _waited =
            !_waited && Stage == PullStage.Running && _stoodStill.HasReadings && now - _stoodStill.LastLook > LateLookSeconds;
        if (_waited)
            Missing(_stoodStill.Look(now, true));
        return _waited;
    }

    /// <summary>The frame with all that is new, or with everything.</summary>
    public LiveFrame Frame(
        double now,
        bool whole,
        IReadOnlyList<DeviceView>? devices,
        IReadOnlyList<PullInHand>? pulls,
        KeptPull? kept,
        double sentAt
    )
    {
        if (!whole)
        {
            // where nothing tells of the pull, what its plan lets assume has no hole in it
            if (Stage == PullStage.Running && !_stoodStill.HasReadings && now - _stoodStill.LastLook > 2 * LookEverySeconds)
                CatchUp(_stoodStill.LastLook, now);
            Missing(_stoodStill.Look(now, Stage == PullStage.Running));
        }

        var reading = _tracker.Read((_stoppedAt ?? now) - _armedAt);
        if (_stoppedAt is null && !whole)
            _lines.Note(reading);
        _letGoIsDue |= _stoppedAt is null && reading.Coach?.Advice?.Kind == AdviceKind.Stop;
        return _lines.Frame(Stage, Start.Id, whole ? Sequence : ++Sequence, reading, whole, sentAt) with
        {
            Devices = devices,
            Pulls = pulls,
            Notices = [.. _notices],
            Kept = kept,
        };
    }

    /// <summary>Whether the coach has just begun to say that it is time to let go; true once.</summary>
    public bool TellToLetGo()
    {
        if (!_letGoIsDue || _saidToLetGo)
            return false;
        return _saidToLetGo = true;
    }

    /// <summary>Takes what is to be written to the journal; null where there is nothing new.</summary>
    public string? TakeUnwritten()
    {
        if (_unwritten.Length == 0)
            return null;
        var text = _unwritten.ToString();
        _unwritten.Clear();
        return text;
    }

    /// <summary>Puts back what could not be written, before what has come meanwhile; whether that is new. The pull goes on in
    /// memory and says so.</summary>
    public bool PutBack(string text)
    {
        _unwritten.Insert(0, text);
        var isNew = !_notices.Contains(MemoryOnly);
        Notice(MemoryOnly);
        return isNew;
    }

    /// <summary>What was put back has been written after all.</summary>
    public void IsWritten() => _notices.Remove(MemoryOnly);

    /// <summary>Before the lever moves nothing is written but kept for a few seconds: a pull that never begins leaves no
    /// file.</summary>
    private void Journal(TimedSample sample)
    {
        if (_tracker.Started)
        {
            Journal(PullJournal.SampleLine(sample));
            return;
        }

        _before.Enqueue(sample);
        while (_before.Count > 0 && sample.ServerSeconds - _before.Peek().ServerSeconds > KeptBeforeSeconds)
            _before.Dequeue();
    }

    private void Journal(string line)
    {
        if (!_journalling)
        {
            _journalling = true;
            _unwritten.Append(PullJournal.StartLine(Start));
            foreach (var sample in _before)
                _unwritten.Append(PullJournal.SampleLine(sample));
            _before.Clear();
        }

        _unwritten.Append(line);
    }

    /// <summary>A computer that slept in the middle of a pull is told of, once.</summary>
    private void Missing(double? seconds)
    {
        if (seconds is { } gap)
            Notice(
                FormattableString.Invariant(
                    $"The computer stood still for {gap:0} s during this pull; that part of the trace is missing."
                )
            );
    }
}
