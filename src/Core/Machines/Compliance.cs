using RuddySpring.Core.Water;

namespace RuddySpring.Core.Machines;

/// <summary>
/// How soft trapped air makes a lever: C = V_air p_0 / p_abs^2 (isothermal gas). A piston that displaces Q_in into a puck that
/// lets Q_out through raises the pressure at dp/dt = (Q_in - Q_out) / C.
/// </summary>
public static class Compliance
{
    private const double LeastAirMl = 2.0;
    private const double SealsMlPerBar = 0.05;

    /// <summary>Compliance in ml/bar at a gauge pressure in bar, for a volume of air in ml at the pressure outside in bar
    /// absolute.</summary>
    public static double MlPerBar(double airMl, double gaugeBar, double atmosphereBar) =>
        airMl * atmosphereBar / Math.Pow(gaugeBar + atmosphereBar, 2);

    /// <summary>
    /// Compliance in ml/bar of a pump's or a stepped lever's filled chamber at a gauge pressure in bar: some air always stands
    /// over the water, and seals and hoses give a little even where it is squeezed away.
    /// </summary>
    public static double OfChamber(Machine machine, double gaugeBar) =>
        Math.Max(SealsMlPerBar, MlPerBar(Math.Max(LeastAirMl, machine.TrappedAirMl), gaugeBar, Atmosphere.SeaLevelBar));

    /// <summary>Stroke in ml that is lost squeezing the air up to a gauge pressure in bar (Boyle).</summary>
    public static double LostMl(double airMl, double gaugeBar, double atmosphereBar) =>
        airMl * (1.0 - (atmosphereBar / (gaugeBar + atmosphereBar)));
}
