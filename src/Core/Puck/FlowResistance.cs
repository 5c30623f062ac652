using RuddySpring.Core.Water;

namespace RuddySpring.Core.Puck;

/// <summary>
/// How a wet puck resists: Q = p / R (Darcy), R = R_b * viscosity * swell(t) * soften(t) * erode(V) * (1 + beta p).
/// One place for the law, used by the simulation and by everything that reads a trace back.
/// </summary>
public static class FlowResistance
{
    /// <summary>The factor on R_b from time since wetting (s) and water passed per dose (ml/g), without pressure and
    /// viscosity.</summary>
    public static double StateFactor(PuckBehaviour puck, double wetSeconds, double passedMlPerGram) =>
        Swell(puck, wetSeconds) * Erode(puck, passedMlPerGram);

    /// <summary>Factor from the pressure in bar.</summary>
    public static double Compaction(PuckBehaviour puck, double pressureBar) => 1.0 + (puck.CompactionPerBar * pressureBar);

    /// <summary>Swelling and softening, from the time in s since the puck was wet.</summary>
    public static double Swell(PuckBehaviour puck, double wetSeconds) =>
        Swell(puck, Math.Exp(-wetSeconds / puck.SwellSeconds), Math.Exp(-wetSeconds / puck.SoftenSeconds));

    /// <summary>The same from what is left of the two exponentials, 1 when just wet, which a simulation multiplies up step by
    /// step.</summary>
    public static double Swell(PuckBehaviour puck, double swellLeft, double softenLeft) =>
        (1.0 - ((1.0 - puck.SwellFrom) * swellLeft)) * (1.0 - (puck.SoftensBy * (1.0 - softenLeft)));

    /// <summary>Erosion, from the water passed per dose in ml/g.</summary>
    public static double Erode(PuckBehaviour puck, double passedMlPerGram) =>
        puck.ErodedTo + ((1.0 - puck.ErodedTo) * Math.Exp(-passedMlPerGram / puck.ErosionRatio));

    /// <summary>How far the flow has come in, 0 to 1, from the time in s since it began: it is no step at first drops.</summary>
    public static double Onset(PuckBehaviour puck, double flowingSeconds) =>
        flowingSeconds > 8 * puck.OnsetSeconds ? 1.0 : 1.0 - Math.Exp(-flowingSeconds / puck.OnsetSeconds);

    /// <summary>Factor from the water's temperature in degC: viscosity relative to 93 degC.</summary>
    public static double Thermal(double waterC) => Viscosity.RelativeTo93C(waterC);
}
