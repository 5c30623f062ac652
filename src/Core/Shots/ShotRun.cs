using RuddySpring.Core.Puck;
using RuddySpring.Core.Pulls;

namespace RuddySpring.Core.Shots;

/// <summary>
/// The one run of a shot: puck, spout, cup and scale, step by step under any drive. Simulation, forecast, coach, practice and
/// stand-in all pull their shots with it. Deterministic: the same conditions and the same drive give the same shot to the last
/// digit.
/// </summary>
public sealed class ShotRun
{
    /// <summary>Usual step of the equations, s.</summary>
    public const double UsualStepSeconds = 0.05;

    /// <summary>Weight in g that counts as first drops.</summary>
    public const double FirstDropsGrams = 0.2;

    /// <summary>Strength of the stream below which it looks pale, share of its weight (common practice: the last third of a 1:2
    /// cup).</summary>
    public const double PaleBelow = 0.04;

    private const double PaleFromGrams = 8;
    private const double WaterFollowsK = 0.2;
    private const double LookAheadStepSeconds = 0.1;

    private readonly WaterCourse _water;
    private CupPath _path;
    private double _stepSeconds,
        _falls,
        _shows;

    /// <summary>A shot that has not begun.</summary>
    /// <param name="conditions">What it is.</param>
    /// <param name="laneFactors">Permeability of each lane over the mean; null for the quantiles of the bed's spread.</param>
    /// <exception cref="FieldRangeException">A number is out of range.</exception>
    public ShotRun(ShotConditions conditions, IReadOnlyList<double>? laneFactors = null)
        : this(conditions.Puck, conditions.Water, conditions.Path, laneFactors) { }

    /// <summary>A shot of a puck whose own numbers are known.</summary>
    public ShotRun(PuckParameters puck, WaterCourse water, CupPath path, IReadOnlyList<double>? laneFactors = null) =>
        (Puck, _water, _path) = (new PuckModel(puck, laneFactors), water, path);

    private ShotRun(ShotRun other)
    {
        Puck = other.Puck.Copy();
        (_water, _path, Stream) = (other._water, other._path, other.Stream);
        (Seconds, PressureBar, InflowMlPerS, LeavesGramsPerS, FallingGramsPerS) = (
            other.Seconds,
            other.PressureBar,
            other.InflowMlPerS,
            other.LeavesGramsPerS,
            other.FallingGramsPerS
        );
        (GramsPerMl, FirstDropsSeconds, Pale) = (other.GramsPerMl, other.FirstDropsSeconds, other.Pale);
    }

    /// <summary>The puck.</summary>
    public PuckModel Puck { get; }

    /// <summary>What hangs at the spout, is in the cup and is shown; a filter that learns better puts it right.</summary>
    public CupStream Stream { get; set; }

    /// <summary>How the coffee gets to the scale.</summary>
    public CupPath Path
    {
        get => _path;
        set => (_path, _stepSeconds) = (value, 0);
    }

    /// <summary>Since the lever moved, s.</summary>
    public double Seconds { get; private set; }

    /// <summary>On the puck in the last step, bar.</summary>
    public double PressureBar { get; private set; }

    /// <summary>Into the puck, ml/s.</summary>
    public double InflowMlPerS { get; private set; }

    /// <summary>Out of the puck, g/s, solids and all.</summary>
    public double LeavesGramsPerS { get; private set; }

    /// <summary>Into the cup, g/s.</summary>
    public double FallingGramsPerS { get; private set; }

    /// <summary>Grams of coffee for a ml that leaves the puck: water and the solids in it.</summary>
    public double GramsPerMl { get; private set; } = 1.0;

    /// <summary>When the first drops fell, s; null before.</summary>
    public double? FirstDropsSeconds { get; private set; }

    /// <summary>Whether the stream has turned pale.</summary>
    public bool Pale { get; private set; }

    /// <summary>What somebody sees of it.</summary>
    public PullState Seen => new(Seconds, Stream.CupGrams, FirstDropsSeconds is not null, FallingGramsPerS, Puck.InflowMl, Pale);

    /// <summary>The same shot as it stands, to be taken another way.</summary>
    public ShotRun Copy() => new(this);

    /// <summary>What would leave the puck, g/s, after some seconds of a pressure in bar from now on.</summary>
    public double FlowAfter(double seconds, double bar)
    {
        var ahead = Copy();
        var steps = (int)Math.Ceiling(seconds / LookAheadStepSeconds);
        for (var i = 0; i < steps; i++)
            ahead.Press(bar, seconds / steps);
        return ahead.LeavesGramsPerS;
    }

    /// <summary>One step under a drive.</summary>
    public void Step(IDrive drive, double seconds) => Press(drive.Next(Seen, InflowMlPerS, seconds), seconds);

    /// <summary>One step in s under a pressure in bar.</summary>
    /// <returns>What left the puck, g.</returns>
    public double Press(double bar, double seconds)
    {
        if (seconds != _stepSeconds)
            (_stepSeconds, _falls, _shows) = (seconds, _path.ShareThatFalls(seconds), _path.ShareThatShows(seconds));
        if (_water.Changes() && _water.At(Seconds) is var waterC && Math.Abs(waterC - Puck.WaterC) > WaterFollowsK)
            Puck.WaterC = waterC;
        var step = Puck.Step(bar, seconds);
        var before = Stream.CupGrams;
        Stream = Stream.After(step.CupGrams, _falls, _shows);
        Seconds += seconds;
        PressureBar = bar;
        InflowMlPerS = step.InflowMl / seconds;
        LeavesGramsPerS = step.CupGrams / seconds;
        FallingGramsPerS = (Stream.CupGrams - before) / seconds;
        if (step.OutflowMl > 1e-9)
            GramsPerMl = step.CupGrams / step.OutflowMl;
        Pale |= step.CupGrams > 0 && Stream.CupGrams > PaleFromGrams && step.SolidsGrams < PaleBelow * step.CupGrams;
        if (FirstDropsSeconds is null && Stream.CupGrams >= FirstDropsGrams)
            FirstDropsSeconds = Seconds;
        return step.CupGrams;
    }
}
