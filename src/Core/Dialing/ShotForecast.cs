using RuddySpring.Core.Fitting;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Shots;

namespace RuddySpring.Core.Dialing;

/// <summary>
/// The shot to be expected from what is believed of the grind, with the two edges that eight shots in ten lie between: the same
/// plan pulled on pucks of low, middling and high resistance.
/// </summary>
/// <param name="Fast">At the low edge of the resistance.</param>
/// <param name="Middle">In the middle.</param>
/// <param name="Slow">At the high edge.</param>
public sealed record ShotForecast(SimulatedShot Fast, SimulatedShot Middle, SimulatedShot Slow)
{
    private const double FastEdge = 0.1;
    private const double SlowEdge = 0.9;

    // what the shot has of its own, as a share of the resistance: an arm, a puck and a heat that no model knows
    private const double ShotShare = 0.03;

    // where strokes make the pressure, their rhythm is the hand's and no plan's
    private const double StrokesShare = 0.14;

    /// <summary>Forecasts a shot.</summary>
    /// <param name="shot">The shot but for its grind.</param>
    /// <param name="logResistivity">What is believed of the logarithm of the grind's resistivity
    /// (<see cref="GrindResistivity"/>).</param>
    public static ShotForecast Of(ShotConditions shot, Prediction logResistivity)
    {
        var own = shot.Machine.PressureBy == PressureBy.Strokes ? StrokesShare : ShotShare;
        var wider = logResistivity with { Scale = Math.Sqrt((logResistivity.Scale * logResistivity.Scale) + (own * own)) };
        SimulatedShot At(double quantile) => SimulatedShot.Pull(GrindResistivity.With(shot, Math.Exp(wider.Quantile(quantile))));
        return new(At(FastEdge), At(0.5), At(SlowEdge));
    }

    /// <summary>Cup in g of a shot at a time in s; its last once it is over.</summary>
    public static double CupAt(SimulatedShot shot, double seconds)
    {
        if (seconds >= shot.Seconds)
            return shot.CupGrams;
        var at = (int)Math.Round(seconds * (shot.Samples.Count - 1) / Math.Max(0.1, shot.Seconds));
        return shot.Samples[Math.Clamp(at, 0, shot.Samples.Count - 1)].CupGrams;
    }
}
