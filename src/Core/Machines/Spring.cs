namespace RuddySpring.Core.Machines;

/// <summary>A lever's spring, seen as pressure against water moved.</summary>
public static class Spring
{
    /// <summary>
    /// Pressure in bar of a free-running spring after it has moved a volume in ml of its stroke: a straight line,
    /// p(V) = p_top - k V / A^2 (Hooke's law over a piston).
    /// </summary>
    /// <returns>null where the machine has no spring; 0 past the end of the stroke.</returns>
    public static double? PressureBar(Machine machine, double movedMl)
    {
        if (machine.SpringTopBar is not { } top || machine.SpringEndBar is not { } end)
            return null;
        if (movedMl >= machine.ChamberMl)
            return 0.0;
        return top + ((end - top) * Math.Max(0.0, movedMl) / machine.ChamberMl);
    }

    /// <summary>Work in J of one free stroke: the area under its line on the indicator card; null without a spring.</summary>
    public static double? WorkJ(Machine machine) =>
        machine.SpringTopBar is { } top && machine.SpringEndBar is { } end
            ? (top + end) / 2.0 * machine.ChamberMl * Units.JoulesPerBarMl
            : null;
}
