using RuddySpring.Core;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Shots;

namespace RuddySpring.Instruments;

/// <summary>
/// The puck in the stand-in's machine. It starts from the core's, and then is a puck the core's readers do not know: uneven
/// lanes, a dose that is off, constants that differ, a resistance that wanders, and coffee that hangs at the spout before it
/// falls.
/// </summary>
public sealed class StandInPuck
{
    private const double DriftShare = 0.06;
    private const double DriftSeconds = 8.0;

    private readonly SeededRandom _random;
    private readonly ShotRun _run;
    private double _drift;

    /// <summary>A puck of a shot as the sheet has it, which is not quite what lies in the basket.</summary>
    /// <param name="random">What makes the difference.</param>
    /// <param name="sheet">The shot, with the resistance that its grind really makes.</param>
    public StandInPuck(SeededRandom random, ShotConditions sheet)
    {
        _random = random;
        var puck = sheet.Puck;
        puck = puck with
        {
            DoseGrams = Math.Clamp(puck.DoseGrams + random.Normal(0.15), 5.0, 30.0),
            ResistanceBarSPerMl = puck.ResistanceBarSPerMl * Math.Exp(random.Normal(0.05)),
            WaterC = Math.Clamp(puck.WaterC + random.Normal(1.2), 20.0, 99.0),
            Behaviour = new()
            {
                CompactionPerBar = 0.08 * Math.Exp(random.Normal(0.15)),
                SwellSeconds = Math.Clamp(6.0 + random.Normal(0.8), 4.0, 10.0),
                ErodedTo = Math.Clamp(0.55 + random.Normal(0.04), 0.4, 0.7),
                WaterHeldPerGram = WaterBalance.HeldPerGram(Math.Clamp(1.05 + random.Normal(0.04), 0.9, 1.3)),
            },
        };
        var lanes = Enumerable.Range(0, 7).Select(_ => Math.Exp(random.Normal(0.18))).ToArray();
        var mean = lanes.Average();
        _run = new(puck, WaterCourse.Steady(puck.WaterC), sheet.Path, [.. lanes.Select(l => l / mean)]);
        TrueWaterC = puck.WaterC;
    }

    /// <summary>Another puck as it stands now; from here on each wanders its own way.</summary>
    /// <param name="other">The other puck.</param>
    /// <param name="random">What it wanders by; null for the other's, which both then draw from.</param>
    public StandInPuck(StandInPuck other, SeededRandom? random = null) =>
        (_random, _run, _drift, TrueWaterC) = (random ?? other._random, other._run.Copy(), other._drift, other.TrueWaterC);

    /// <summary>What the water at the puck really is, degC.</summary>
    public double TrueWaterC { get; }

    /// <summary>Weight that has fallen into the cup, g.</summary>
    public double CupGrams => _run.Stream.CupGrams;

    /// <summary>What falls now, g/s.</summary>
    public double FallingGramsPerS => _run.FallingGramsPerS;

    /// <summary>What would leave the puck now at a pressure in bar, ml/s, if all were known.</summary>
    public double TrueOutflowMlPerS(double pressureBar) => _run.Puck.OutflowMlPerS(pressureBar * Math.Exp(-_drift));

    /// <summary>What hangs at the spout and has not fallen yet, g.</summary>
    public double AtSpoutGrams => _run.Stream.AtSpoutGrams;

    /// <summary>What somebody sees of it.</summary>
    public PullState Seen => _run.Seen;

    /// <summary>Water that it takes now, ml/s.</summary>
    public double InflowMlPerS => _run.InflowMlPerS;

    /// <summary>What leaves it now, g/s.</summary>
    public double LeavesGramsPerS => _run.LeavesGramsPerS;

    /// <summary>Grams of coffee for a ml that leaves it.</summary>
    public double GramsPerMl => _run.GramsPerMl;

    /// <summary>A channel opens in one lane.</summary>
    public void OpenChannel(double times) => _run.Puck.OpenChannel(0, times);

    /// <summary>Water taken in, ml.</summary>
    public double InflowMl => _run.Puck.InflowMl;

    /// <summary>Advances by a step in s under a pressure in bar.</summary>
    public void Step(double pressureBar, double seconds)
    {
        _drift += (-_drift * seconds / DriftSeconds) + _random.Normal(DriftShare * Math.Sqrt(2.0 * seconds / DriftSeconds));
        _run.Press(pressureBar * Math.Exp(-_drift), seconds);
    }
}
