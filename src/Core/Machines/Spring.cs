namespace RuddySpring.Core.Machines;

/// <summary>A lever's spring, seen as pressure against water moved, and from its wire.</summary>
public static class Spring
{
    /// <summary>
    /// Pressure in bar of a free-running spring after it has moved a volume in ml of its stroke: a straight line,
    /// p(V) = p_top - k V / A^2 (Hooke's law over a piston).
    /// </summary>
    /// <returns>null where the machine has no spring; 0 past the end of the stroke.</returns>
    public static double? PressureBar(Machine machine, double movedMl)
    {
        if (machine.SpringTopBar is not { } top || machine.SpringEndBar is not { } end) return null;
        if (movedMl >= machine.ChamberMl) return 0.0;
        return top + ((end - top) * Math.Max(0.0, movedMl) / machine.ChamberMl);
    }

    /// <summary>Work in J of one free stroke: the area under its line on the indicator card; null without a spring.</summary>
    public static double? WorkJ(Machine machine) => machine.SpringTopBar is { } top && machine.SpringEndBar is { } end
        ? (top + end) / 2.0 * machine.ChamberMl * Units.JoulesPerBarMl
        : null;

    /// <summary>
    /// Rate in N/m of a helical compression spring, k = G d^4 / (8 D^3 n) (any machine-design handbook).
    /// </summary>
    /// <param name="shearModulusGpa">Shear modulus in GPa, about 79 for spring steel.</param>
    /// <param name="wireMm">Wire diameter d in mm.</param>
    /// <param name="coilMm">Mean coil diameter D in mm.</param>
    /// <param name="activeTurns">Active turns n.</param>
    public static double RateNewtonsPerMetre(double shearModulusGpa, double wireMm, double coilMm, double activeTurns) =>
        shearModulusGpa * 1e9 * Math.Pow(wireMm / 1000.0, 4) / (8.0 * Math.Pow(coilMm / 1000.0, 3) * activeTurns);
}
