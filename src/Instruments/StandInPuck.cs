using RuddySpring.Core;
using RuddySpring.Core.Puck;

namespace RuddySpring.Instruments;

/// <summary>
/// The puck in the stand-in's machine. It starts from the core's, and then is a puck the core's readers do not know: uneven lanes,
/// a dose that is off, constants that differ, a resistance that wanders, and coffee that hangs at the spout before it falls.
/// </summary>
public sealed class StandInPuck
{
    private const double DriftShare = 0.06;
    private const double DriftSeconds = 8.0;

    private readonly SeededRandom _random;
    private readonly PuckModel _model;
    private readonly Spout _spout;
    private double _drift;

    /// <summary>A puck of the recipe's dose in g and resistance in bar s/ml, with water in degC.</summary>
    public StandInPuck(SeededRandom random, double doseGrams, double resistance, double waterC, double restrictor = 0.0)
    {
        _random = random;
        var parameters = new PuckParameters
        {
            DoseGrams = Math.Clamp(doseGrams + random.Normal(0.15), 5.0, 30.0),
            ResistanceBarSPerMl = resistance * Math.Exp(random.Normal(0.05)),
            WaterC = Math.Clamp(waterC + random.Normal(1.2), 20.0, 99.0),
            CompactionPerBar = 0.08 * Math.Exp(random.Normal(0.15)),
            SwellSeconds = Math.Clamp(6.0 + random.Normal(0.8), 4.0, 10.0),
            ErodedTo = Math.Clamp(0.55 + random.Normal(0.04), 0.4, 0.7),
            Retention = Math.Clamp(1.05 + random.Normal(0.04), 0.9, 1.3),
            RestrictorBarS2PerMl2 = restrictor,
        };
        var lanes = Enumerable.Range(0, 7).Select(_ => Math.Exp(random.Normal(0.18))).ToArray();
        var mean = lanes.Average();
        _model = new PuckModel(parameters, [.. lanes.Select(l => l / mean)]);
        _spout = new Spout();
        TrueWaterC = parameters.WaterC;
    }

    /// <summary>Another puck as it stands now; from here on each wanders its own way, by the draws of the one random source.</summary>
    /// <param name="other">The other puck.</param>
    public StandInPuck(StandInPuck other)
    {
        _random = other._random;
        _model = other._model.Copy();
        _spout = new Spout(other._spout.Grams);
        _drift = other._drift;
        (TrueWaterC, CupGrams, FallingGramsPerS) = (other.TrueWaterC, other.CupGrams, other.FallingGramsPerS);
    }

    /// <summary>What the water at the puck really is, degC.</summary>
    public double TrueWaterC { get; }

    /// <summary>Weight that has fallen into the cup, g.</summary>
    public double CupGrams { get; private set; }

    /// <summary>What falls now, g/s.</summary>
    public double FallingGramsPerS { get; private set; }

    /// <summary>What would leave the puck now at a pressure in bar, ml/s, if all were known.</summary>
    public double TrueOutflowMlPerS(double pressureBar) => _model.OutflowMlPerS(pressureBar * Math.Exp(-_drift));

    /// <summary>What hangs at the spout and has not fallen yet, g.</summary>
    public double AtSpoutGrams => _spout.Grams;

    /// <summary>A channel opens in one lane.</summary>
    public void OpenChannel(double times) => _model.OpenChannel(0, times);

    /// <summary>Water taken in, ml.</summary>
    public double InflowMl => _model.InflowMl;

    /// <summary>Advances by a step in s under a pressure in bar.</summary>
    public void Step(double pressureBar, double seconds)
    {
        _drift += (-_drift * seconds / DriftSeconds) + _random.Normal(DriftShare * Math.Sqrt(2.0 * seconds / DriftSeconds));
        var step = _model.Step(pressureBar * Math.Exp(-_drift), seconds);
        var falls = _spout.Pass(step.CupGrams, Spout.ShareThatFalls(seconds));
        CupGrams += falls;
        FallingGramsPerS = falls / seconds;
    }
}
