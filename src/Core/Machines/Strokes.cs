namespace RuddySpring.Core.Machines;

/// <summary>What one stroke of the piston is on each family.</summary>
public static class Strokes
{
    /// <summary>Travel of a hand pump's small piston, mm (common practice).</summary>
    public const double PumpTravelMm = 12;

    /// <summary>Water in ml of one stroke: of the pump, of one step of a stepped lever, of the whole piston elsewhere.</summary>
    public static double VolumeMl(Machine machine) =>
        machine.Family switch
        {
            MachineFamily.HandPump => Lever.PistonAreaM2(machine.PistonDiameterMm) * 1e6 * PumpTravelMm / 1000.0,
            MachineFamily.SteppedLever => machine.WaterMl / machine.StrokesAShot,
            _ => machine.WaterMl,
        };

    /// <summary>A steady rhythm, s a stroke: a pump about one a second, a stepped lever one in four (common practice); null
    /// elsewhere.</summary>
    public static double? RhythmSeconds(Machine machine) =>
        machine.Family switch
        {
            MachineFamily.HandPump => 1.0,
            MachineFamily.SteppedLever => 4.0,
            _ => null,
        };
}
