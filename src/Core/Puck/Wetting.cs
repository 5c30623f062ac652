namespace RuddySpring.Core.Puck;

/// <summary>
/// The wetting front in the dry puck: Green and Ampt (1911), Q = (p + p_c) / (R_dry w), w the wetted share. With constant
/// pressure over a step it has the closed form w^2 = w0^2 + 2 (p + p_c) dt / (R_dry V), which is what this uses.
/// </summary>
public static class Wetting
{
    /// <summary>Wetted share (0 to 1) after a step; the rest of the step after full wetting is in
    /// <paramref name="leftSeconds"/>.</summary>
    /// <param name="wetted">Share wet at the start.</param>
    /// <param name="driveBar">Pressure plus suction, bar.</param>
    /// <param name="dryResistance">Resistance of the whole bed while dry, bar s/ml.</param>
    /// <param name="heldMl">Water the bed takes in all, ml.</param>
    /// <param name="seconds">Length of the step, s.</param>
    /// <param name="leftSeconds">Time left when the front has reached the bottom, s; 0 if it has not.</param>
    public static double Advance(
        double wetted,
        double driveBar,
        double dryResistance,
        double heldMl,
        double seconds,
        out double leftSeconds
    )
    {
        leftSeconds = 0.0;
        if (driveBar <= 0.0)
            return wetted;
        var rate = 2.0 * driveBar / (dryResistance * heldMl);
        var squared = (wetted * wetted) + (rate * seconds);
        if (squared < 1.0)
            return Math.Sqrt(squared);
        leftSeconds = (squared - 1.0) / rate;
        return 1.0;
    }

    /// <summary>Time in s for the front to cross the whole bed at constant pressure.</summary>
    public static double SecondsToWet(double driveBar, double dryResistance, double heldMl) =>
        dryResistance * heldMl / (2.0 * driveBar);
}
