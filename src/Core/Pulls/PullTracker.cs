using RuddySpring.Core.Machines;
using RuddySpring.Core.Traces;

namespace RuddySpring.Core.Pulls;

/// <summary>What the screen shows at one instant of a pull. Null where no instrument tells.</summary>
/// <param name="Seconds">Since the lever moved; 0 before.</param>
/// <param name="PressureBar">Gauge pressure.</param>
/// <param name="CupGrams">In the cup, lag taken out.</param>
/// <param name="FlowGramsPerS">Flow.</param>
/// <param name="TemperatureC">Latest temperature.</param>
/// <param name="HandForceKgf">What the hand gives at this pressure on this machine; null on a spring.</param>
/// <param name="TargetBar">What the plan wants now.</param>
/// <param name="PhaseIndex">Which phase is due.</param>
/// <param name="Phase">Its name.</param>
/// <param name="Sentence">What to do now and what ends it.</param>
public sealed record LiveReading(
    double Seconds, double? PressureBar, double? CupGrams, double? FlowGramsPerS, double? TemperatureC, double? HandForceKgf,
    double TargetBar, int PhaseIndex, string Phase, string Sentence);

/// <summary>
/// Follows a pull as its samples come: when it starts, which phase is due, what to do. Keeps every sample for the trace.
/// Not safe for several threads at once.
/// </summary>
public sealed class PullTracker(PullPlan plan, Machine machine, double yieldGrams)
{
    private const double StartBar = 0.3;
    private const double StartGrams = 0.5;
    private const double DropsGrams = 0.4;
    private const double FastestCoffeeGramsPerS = 6.0;
    private const double SettleSeconds = 2.0;
    private const double HotGramsPerMl = 0.965;

    private readonly PlanFollower _follower = new(plan, yieldGrams, Strokes.VolumeMl(machine));
    private readonly LiveFlow _flow = new();
    private readonly Dictionary<Channel, (List<double> Seconds, List<double> Values)> _samples = [];
    private double _zeroGrams;
    private bool _tared;
    private double? _lastPressure;
    private (double Seconds, double Grams)? _lastWeight;
    private double _settledAt = double.NegativeInfinity;
    private double? _lastTemperature;
    private double? _startedAt;
    private double _clock;
    private bool _dropsMarked;
    private Moments _marked = Moments.None;

    /// <summary>Whether the lever has moved.</summary>
    public bool Started => _startedAt is not null;

    /// <summary>Moments that the brewer marked by hand, s since the lever moved.</summary>
    public Moments Marked => _marked;

    /// <summary>Takes a sample: time in s on the pull's own clock, value in the channel's unit.</summary>
    public void Take(Channel channel, double seconds, double value)
    {
        _clock = Math.Max(_clock, seconds);
        switch (channel)
        {
            case Channel.Pressure:
                _lastPressure = value;
                if (_startedAt is null && value > StartBar) _startedAt = seconds;
                break;
            case Channel.Weight:
                value = Tare(seconds, value);
                break;
            case Channel.Temperature:
                _lastTemperature = value;
                break;
        }

        if (!_samples.TryGetValue(channel, out var kept)) _samples[channel] = kept = ([], []);
        kept.Seconds.Add(seconds);
        kept.Values.Add(value);
    }

    /// <summary>
    /// Takes what stands on the scale before the pull, the cup, as zero. A weight that moves faster than coffee falls is a cup being set
    /// down, also in the first moments after the lever moved, while the scale still catches up.
    /// </summary>
    private double Tare(double seconds, double grams)
    {
        var rate = _lastWeight is { } last && seconds > last.Seconds ? (grams - last.Grams) / (seconds - last.Seconds) : 0.0;
        _lastWeight = (seconds, grams);
        var settling = Math.Abs(rate) > FastestCoffeeGramsPerS;
        if (settling) _settledAt = seconds + SettleSeconds;
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
        if (_startedAt is null && grams - _zeroGrams > StartGrams) _startedAt = seconds;
        return grams - _zeroGrams;
    }

    /// <summary>The last sample of a channel as a pair: s since the lever moved, and value with the cup tared out.</summary>
    public double[] Latest(Channel channel)
    {
        var (seconds, values) = _samples[channel];
        return [Math.Round(seconds[^1] - (_startedAt ?? 0.0), 3), Math.Round(values[^1], 3)];
    }

    /// <summary>Starts the clock by hand, where no instrument tells.</summary>
    public void StartNow(double seconds)
    {
        _clock = Math.Max(_clock, seconds);
        _startedAt ??= seconds;
    }

    /// <summary>Marks a moment now: <c>drops</c>, <c>ease</c> or <c>blonding</c>.</summary>
    /// <exception cref="DoesNotFitException">Unknown moment, or the pull has not begun.</exception>
    public void Mark(string moment, double seconds)
    {
        if (_startedAt is not { } start) throw new DoesNotFitException("moment", "The pull has not begun, so there is no moment to mark.");
        var at = Math.Max(0.0, seconds - start);
        _marked = moment switch
        {
            "drops" => _marked with { FirstDrops = at },
            "ease" => _marked with { Ease = at },
            "blonding" => _marked with { Blonding = at },
            _ => throw new DoesNotFitException("moment", "A moment to mark is drops, ease or blonding."),
        };
        if (moment == "drops") _dropsMarked = true;
    }

    /// <summary>The screen's state at a time in s on the pull's clock.</summary>
    public LiveReading Read(double seconds)
    {
        _clock = Math.Max(_clock, seconds);
        var since = _startedAt is { } start ? Math.Max(0.0, seconds - start) : 0.0;
        double? grams = _tared ? Math.Max(0.0, _flow.WeightGrams) : null;
        var drops = _dropsMarked || grams > DropsGrams;
        var target = Started ? _follower.TargetBar(State(since, grams ?? 0.0, drops)) : 0.0;
        var phase = Started ? _follower.Phase : plan.Phases[0];
        double? force = _lastPressure is { } p && machine.PressureBy == PressureBy.Arm
            ? Lever.HandForceKgf(machine, Math.Clamp(p, 0.0, 15.0)) : null;
        var sentence = !Started
            ? $"Begin when you are ready: {Lower(phase!.Cue)} {phase.EndsOn(yieldGrams)}."
            : phase is null
                ? $"Yield reached: lift the lever and take the cup away at {yieldGrams:0.#} g."
                : $"{phase.Cue} {phase.EndsOn(yieldGrams)}.";
        return new(
            since, _lastPressure, grams, _tared ? _flow.FlowGramsPerS : null, _lastTemperature, force, target,
            Started ? _follower.PhaseIndex : 0, phase?.Name ?? "stop", sentence);
    }

    /// <summary>What is seen now; of the water moved only what has come out, so that strokes before first drops end by their longest time.</summary>
    private PullState State(double since, double grams, bool drops) => new(
        since, grams, drops, Math.Max(0.0, _flow.FlowGramsPerS) / HotGramsPerMl, grams / HotGramsPerMl, _marked.Blonding is not null);

    /// <summary>The trace so far, times counted from the lever's first move, with the last half second before it.</summary>
    public Trace ToTrace(Origin origin = Origin.Measured)
    {
        var start = _startedAt ?? 0.0;
        return new([.. _samples.OrderBy(s => s.Key).Select(s =>
        {
            var inside = Enumerable.Range(0, s.Value.Seconds.Count).Where(i => s.Value.Seconds[i] >= start).ToList();
            return new Series(
                s.Key, origin, [.. inside.Select(i => s.Value.Seconds[i] - start)], [.. inside.Select(i => s.Value.Values[i])]);
        }).Where(s => s.Count > 0)]);
    }

    private static string Lower(string text) => char.ToLowerInvariant(text[0]) + text[1..];
}
