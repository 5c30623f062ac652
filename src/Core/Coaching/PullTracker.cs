using RuddySpring.Core.Machines;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Traces;

namespace RuddySpring.Core.Coaching;

/// <summary>What the screen shows at one instant of a pull. Null where no instrument tells.</summary>
/// <param name="Seconds">Since the lever moved; 0 before.</param>
/// <param name="PressureBar">Gauge pressure.</param>
/// <param name="CupGrams">In the cup, lag taken out.</param>
/// <param name="FlowGramsPerS">Flow.</param>
/// <param name="TemperatureC">Latest temperature.</param>
/// <param name="HandForceKgf">What the hand gives: measured, or at this pressure on this machine; null on a spring where nothing
/// measures it.</param>
/// <param name="TargetBar">What the plan wants now.</param>
/// <param name="PhaseIndex">Which phase is due.</param>
/// <param name="Phase">Its name.</param>
/// <param name="Sentence">What to do now and what ends it.</param>
/// <param name="PressureIs">How the pressure is known; assumed where nothing tells.</param>
/// <param name="DropsSeen">Whether first drops have been seen.</param>
/// <param name="Coach">What a coach would say; null before the lever has moved.</param>
public sealed record LiveReading(
    double Seconds,
    double? PressureBar,
    double? CupGrams,
    double? FlowGramsPerS,
    double? TemperatureC,
    double? HandForceKgf,
    double TargetBar,
    int PhaseIndex,
    string Phase,
    string Sentence,
    Origin PressureIs,
    bool DropsSeen,
    CoachReading? Coach
);

/// <summary>
/// Follows a pull as its samples come: when it starts, which phase is due, what to do, when it has ended. Keeps every sample for
/// the trace. Not safe for several threads at once.
/// </summary>
/// <param name="plan">The plan.</param>
/// <param name="machine">The machine.</param>
/// <param name="yieldGrams">Yield, g.</param>
/// <param name="coach">The coach at the elbow.</param>
public sealed class PullTracker(PullPlan plan, Machine machine, double yieldGrams, LiveCoach coach)
{
    private const double StartGrams = 0.5;
    private const double FastestCoffeeGramsPerS = 6.0;
    private const double SettleSeconds = 2.0;
    private const double OverAfterSeconds = 2.0;
    private const double OverBar = 0.4;
    private const double OverGramsPerS = 0.15;
    private const double AssumedEverySeconds = 0.2;
    private const int MostBeforeTheStart = 1000;
    private static readonly string[] MomentNames = ["drops", "ease", "blonding", "stop"];

    private readonly LiveFlow _flow = new();
    private readonly RestingGauge _gauge = new(machine.HasBoiler);
    private readonly Dictionary<Channel, (List<double> Seconds, List<double> Values)> _samples = [];
    private readonly (List<double> Seconds, List<double> Values) _assumed = ([], []);
    private double _zeroGrams;
    private bool _tared;
    private double? _lastPressure;
    private Origin? _pressureIs;
    private bool _pressed;
    private double? _quietSince;
    private (double Seconds, double Grams)? _lastWeight;
    private double _settledAt = double.NegativeInfinity;
    private double? _lastTemperature;
    private double? _lastForce;
    private double? _startedAt;
    private double _clock;
    private Moments _marked = Moments.None;

    /// <summary>Whether the lever has moved.</summary>
    public bool Started => _startedAt is not null;

    /// <summary>What the gauge showed at rest before the pull, bar; it is taken off. 0 for nothing.</summary>
    public double GaugeRestBar => _gauge.RestBar;

    /// <summary>When the coach first said to stop, s since the lever moved; null before.</summary>
    public double? CuedAt { get; private set; }

    /// <summary>Moments that the brewer marked by hand, s since the lever moved.</summary>
    public Moments Marked => _marked;

    /// <summary>Whether the hand has let go and the flow has ended, for long enough to be sure; where no instrument tells,
    /// never.</summary>
    public bool IsOver(double seconds) => _quietSince is { } since && seconds - since > OverAfterSeconds;

    /// <summary>Takes a sample: time in s on the pull's own clock, value in the channel's unit; and how a pressure is
    /// known.</summary>
    public void Take(Channel channel, double seconds, double value, Origin origin = Origin.Measured)
    {
        if (channel == Channel.Pressure && origin == Origin.Followed && _pressureIs == Origin.Measured)
            return; // the gauge itself tells
        _clock = Math.Max(_clock, seconds);
        switch (channel)
        {
            case Channel.Pressure:
                var leaves =
                    _startedAt is null
                    && (origin == Origin.Measured ? _gauge.Leaves(seconds, value) : value > RestingGauge.LeavesBar);
                if (origin == Origin.Measured)
                    value -= _gauge.RestBar;
                _lastPressure = value;
                _pressureIs = origin;
                if (leaves)
                    Start(seconds);
                if (_startedAt is { } began)
                    coach.Pressure(seconds - began, value);
                break;
            case Channel.Weight:
                value = Tare(seconds, value);
                break;
            case Channel.Temperature:
                _lastTemperature = value;
                break;
            case Channel.Force:
                _lastForce = value;
                break;
        }

        if (!_samples.TryGetValue(channel, out var kept))
            _samples[channel] = kept = ([], []);
        // a pull may stand ready for hours: what was told long before it is no part of it
        if (_startedAt is null && kept.Seconds.Count >= MostBeforeTheStart)
        {
            kept.Seconds.RemoveRange(0, MostBeforeTheStart / 2);
            kept.Values.RemoveRange(0, MostBeforeTheStart / 2);
        }

        kept.Seconds.Add(seconds);
        kept.Values.Add(value);
        WatchForTheEnd(seconds);
    }

    private void Start(double seconds)
    {
        _startedAt = seconds;
        // what the gauge said a moment before is part of the pull
        if (_lastPressure is { } bar)
            coach.Pressure(0, bar);
    }

    private void WatchForTheEnd(double seconds)
    {
        if (_startedAt is null)
            return;
        _pressed |= _lastPressure > 1.5 || (_lastPressure is null && _flow.FlowGramsPerS > 0.4);
        var quiet =
            _pressed
            && coach.DropsSeen
            && (!_tared || _flow.FlowGramsPerS < OverGramsPerS)
            && (_lastPressure is not null || _tared)
            && (_lastPressure is null || _lastPressure < OverBar)
            && HasEnough;
        _quietSince = quiet ? _quietSince ?? seconds : null;
    }

    /// <summary>A rest in the plan is no end: the cup has to hold most of what was wanted.</summary>
    private bool HasEnough => !_tared || _flow.WeightGrams > yieldGrams * 0.6;

    /// <summary>
    /// Takes what stands on the scale before the pull, the cup, as zero. A weight that moves faster than coffee falls is a cup
    /// being set down, also in the first moments after the lever moved, while the scale still catches up.
    /// </summary>
    private double Tare(double seconds, double grams)
    {
        var rate = _lastWeight is { } last && seconds > last.Seconds ? (grams - last.Grams) / (seconds - last.Seconds) : 0.0;
        _lastWeight = (seconds, grams);
        var settling = Math.Abs(rate) > FastestCoffeeGramsPerS;
        if (settling)
            _settledAt = seconds + SettleSeconds;
        // a scale that comes in the middle of a pull finds a cup with what has fallen into it by then
        if (_startedAt is not null && !_tared)
        {
            _zeroGrams = grams - coach.Watch.CupGrams;
            _tared = true;
            _flow.Restart(seconds, coach.Watch.CupGrams);
        }

        // where there is a gauge it says when the pull begins, and until then whatever stands on the scale is the cup
        var waiting = _startedAt is null && (!_tared || _lastPressure is not null || seconds < _settledAt);
        if (waiting || (_startedAt is { } start && seconds - start < 1.5 && settling))
        {
            _zeroGrams = _tared && !settling ? _zeroGrams + (0.3 * (grams - _zeroGrams)) : grams;
            _tared = true;
            _flow.Restart(seconds, 0.0);
            return 0.0;
        }

        _flow.Take(seconds, grams - _zeroGrams);
        if (_startedAt is null && grams - _zeroGrams > StartGrams)
            Start(seconds);
        if (_startedAt is { } began)
            coach.Weight(seconds - began, grams - _zeroGrams);
        return grams - _zeroGrams;
    }

    /// <summary>The last sample of a channel as a pair: s since the lever moved, and value with the cup tared out.</summary>
    public double[] Latest(Channel channel)
    {
        var (seconds, values) = _samples[channel];
        return [Math.Round(seconds[^1] - (_startedAt ?? 0.0), 3), Math.Round(values[^1], 3)];
    }

    /// <summary>How many samples of a channel there are.</summary>
    public int Count(Channel channel) => _samples.TryGetValue(channel, out var kept) ? kept.Seconds.Count : 0;

    /// <summary>Starts the clock by hand, where no instrument tells.</summary>
    public void StartNow(double seconds)
    {
        _clock = Math.Max(_clock, seconds);
        if (_startedAt is null)
            Start(seconds);
    }

    /// <summary>Whether a word names a moment of a pull.</summary>
    public static bool IsMoment(string word) => MomentNames.Contains(word);

    /// <summary>Marks a moment now: <c>drops</c>, <c>ease</c> or <c>blonding</c>.</summary>
    /// <exception cref="DoesNotFitException">Unknown moment, or the pull has not begun.</exception>
    public void Mark(string moment, double seconds)
    {
        if (_startedAt is not { } start)
            throw new DoesNotFitException("moment", "The pull has not begun, so there is no moment to mark.");
        var at = Math.Max(0.0, seconds - start);
        _marked = moment switch
        {
            "drops" => _marked with { FirstDrops = at },
            "ease" => _marked with { Ease = at },
            "blonding" => _marked with { Blonding = at },
            _ => throw new DoesNotFitException("moment", "A moment to mark is drops, ease or blonding."),
        };
        if (moment == "drops")
            coach.Drops(at);
        if (moment == "blonding")
            coach.Blonding();
    }

    /// <summary>The screen's state at a time in s on the pull's clock.</summary>
    public LiveReading Read(double seconds)
    {
        _clock = Math.Max(_clock, seconds);
        var since = _startedAt is { } start ? Math.Max(0.0, seconds - start) : 0.0;
        double? grams = _tared ? Math.Max(0.0, _flow.WeightGrams) : null;
        var said = Started ? coach.Read(since) : null;
        if (said?.Advice is { Kind: AdviceKind.Stop })
            CuedAt ??= since;
        var target = Started ? coach.TargetBar(since) : 0.0;
        var phase = Started ? coach.Phase : plan.Phases[0];
        if (
            Started
            && _pressureIs is null
            && (_assumed.Seconds.Count == 0 || since - _assumed.Seconds[^1] >= AssumedEverySeconds)
        )
        {
            _assumed.Seconds.Add(since);
            _assumed.Values.Add(Math.Round(coach.Watch.PressureBar, 2));
        }

        // a force that was measured is better than one worked out from the pressure
        double? force = _lastForce
            ?? (
                _lastPressure is { } p && machine.PressureBy == PressureBy.Arm
                    ? Lever.HandForceKgf(machine, Math.Clamp(p, 0.0, 15.0))
                    : null
            );
        var sentence =
            !Started ? $"Begin when you are ready: {Lower(phase!.CueInWords())} {phase.EndsOn(yieldGrams)}."
            : phase is null
                ? grams < yieldGrams - 1 ? "The plan is done: let go."
                    : $"Yield reached at {yieldGrams:0.#} g: {PullWords.LetGo(machine)}."
            : $"{phase.CueInWords()} {phase.EndsOn(yieldGrams)}.";
        return new(
            since,
            _lastPressure,
            grams,
            _tared ? _flow.FlowGramsPerS : null,
            _lastTemperature,
            force,
            target,
            Started ? coach.PhaseIndex : 0,
            phase?.Name ?? "stop",
            sentence,
            _pressureIs ?? Origin.Assumed,
            coach.DropsSeen,
            said
        );
    }

    /// <summary>The trace so far, times counted from the lever's first move; a pressure that nobody saw stands in it as
    /// assumed.</summary>
    public Trace ToTrace(Origin origin = Origin.Measured)
    {
        var start = _startedAt ?? 0.0;
        var seen = _samples
            .OrderBy(s => s.Key)
            .Select(s =>
            {
                var inside = Enumerable.Range(0, s.Value.Seconds.Count).Where(i => s.Value.Seconds[i] >= start).ToList();
                return new Series(
                    s.Key,
                    s.Key == Channel.Pressure && _pressureIs == Origin.Followed ? Origin.Followed : origin,
                    [.. inside.Select(i => s.Value.Seconds[i] - start)],
                    [.. inside.Select(i => s.Value.Values[i])]
                );
            })
            .Where(s => s.Count > 0)
            .ToList();
        if (_assumed.Seconds.Count > 1 && seen.All(s => s.Channel != Channel.Pressure))
            seen.Insert(0, new(Channel.Pressure, Origin.Assumed, [.. _assumed.Seconds], [.. _assumed.Values]));
        return new(seen);
    }

    private static string Lower(string text) => char.ToLowerInvariant(text[0]) + text[1..];
}
