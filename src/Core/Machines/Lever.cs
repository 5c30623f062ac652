namespace RuddySpring.Core.Machines;

/// <summary>
/// Force and pressure through a lever and piston: p = (F r eta - F_friction) / A, A = pi D^2 / 4 (statics of a lever and Pascal's
/// law).
/// </summary>
public static class Lever
{
    private static readonly FieldRange PressureRange = new("pressureBar", "Pressure", 0, 15, "bar");

    /// <summary>Area in m2 of a piston whose diameter is in mm.</summary>
    public static double PistonAreaM2(double pistonDiameterMm) => Math.PI * Math.Pow(pistonDiameterMm / 1000.0, 2) / 4.0;

    /// <summary>Force in N on a piston at a gauge pressure in bar.</summary>
    public static double PistonForceNewtons(double pressureBar, double pistonDiameterMm) =>
        PressureRange.Check(pressureBar) * 1e5 * PistonAreaM2(pistonDiameterMm);

    /// <summary>Ratio of handle to piston travel at a share of the stroke, 0 to 1: straight between the table's points, flat
    /// outside them.</summary>
    public static double RatioAt(Machine machine, double strokeShare)
    {
        var table = machine.LeverRatioTable;
        if (table.Count == 0)
            return machine.LeverRatio;
        var after = 0;
        while (after < table.Count && table[after].StrokeShare < strokeShare)
            after++;
        if (after == 0)
            return table[0].Ratio;
        if (after == table.Count)
            return table[^1].Ratio;
        var (a, b) = (table[after - 1], table[after]);
        return a.Ratio + ((b.Ratio - a.Ratio) * (strokeShare - a.StrokeShare) / (b.StrokeShare - a.StrokeShare));
    }

    /// <summary>Force in kgf that the hand must give for a pressure in bar (0 to 15), at a share of the stroke or
    /// half-way.</summary>
    public static double HandForceKgf(Machine machine, double pressureBar, double strokeShare = 0.5) =>
        (PistonForceNewtons(pressureBar, machine.PistonDiameterMm) + machine.FrictionNewtons)
        / (RatioAt(machine, strokeShare) * machine.Efficiency * Units.NewtonsPerKgf);

    /// <summary>Pressure in bar that a hand force in kgf gives at a share of the stroke or half-way; 0 where friction eats all of
    /// it.</summary>
    public static double PressureBar(Machine machine, double handForceKgf, double strokeShare = 0.5)
    {
        var newtons =
            (handForceKgf * Units.NewtonsPerKgf * RatioAt(machine, strokeShare) * machine.Efficiency) - machine.FrictionNewtons;
        return Math.Max(0.0, newtons / PistonAreaM2(machine.PistonDiameterMm) / 1e5);
    }

    /// <summary>Piston travel in mm for a volume in ml.</summary>
    public static double TravelMm(double volumeMl, double pistonDiameterMm) =>
        volumeMl / (PistonAreaM2(pistonDiameterMm) * 1e6) * 1000.0;
}
