namespace RuddySpring.Core.Machines;

/// <summary>The most pressure that a machine gives: the brewer's force through the lever as it stands, or the spring's
/// line.</summary>
public static class PressureLimit
{
    /// <summary>Beyond this nothing here goes, bar: a pump's small piston lets the hand make any of it.</summary>
    public const double HighestBar = 12;

    /// <summary>Most pressure in bar once the piston has moved a volume in ml of its stroke; 0 where the stroke has run
    /// out.</summary>
    /// <param name="machine">The machine.</param>
    /// <param name="strokeMl">Water moved since the lever was last up, 0 or more.</param>
    public static double MostBar(Machine machine, double strokeMl) =>
        machine.PressureBy switch
        {
            PressureBy.Spring => Spring.PressureBar(machine, strokeMl) ?? 0.0,
            PressureBy.Arm when strokeMl >= machine.ChamberMl => 0.0,
            PressureBy.Arm => Lever.PressureBar(machine, machine.WillingForceKgf, Math.Max(0, strokeMl) / machine.ChamberMl),
            _ => HighestBar,
        };
}
