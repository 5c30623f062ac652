namespace RuddySpring.Core.Machines;

/// <summary>Sizes of a section through a machine, mm, from its own numbers; what the drawing on screen is made of.</summary>
/// <param name="PistonMm">Piston diameter.</param>
/// <param name="StrokeMm">Stroke of the piston for the chamber's or stroke's volume; 12 on a hand pump.</param>
/// <param name="BasketMm">Inner diameter of the basket.</param>
/// <param name="PuckMm">Height of the tamped puck.</param>
/// <param name="BasketDepthMm">Inner depth of the basket.</param>
/// <param name="ChamberMm">Height of the water chamber, where it is apart from the piston's stroke.</param>
/// <param name="ArmRatio">Long arm over short arm.</param>
/// <param name="BoilerFilledShare">Share of the boiler that is water when cold; 0 without one.</param>
/// <param name="SpringShare">How much of its top pressure the spring still gives at the end, 0 to 1; 0 without one.</param>
public sealed record Cutaway(
    double PistonMm,
    double StrokeMm,
    double BasketMm,
    double PuckMm,
    double BasketDepthMm,
    double ChamberMm,
    double ArmRatio,
    double BoilerFilledShare,
    double SpringShare
)
{
    // tamped ground coffee, g/ml; common practice
    private const double TampedGramsPerMl = 0.48;
    private const double RimMm = 2.5;

    /// <summary>The section of a machine with a dose in g.</summary>
    public static Cutaway Of(Machine machine, double doseGrams)
    {
        var basketArea = Lever.PistonAreaM2(machine.BasketDiameterMm) * 1e6;
        var puck = doseGrams / TampedGramsPerMl * 1000.0 / basketArea;
        var water = machine.ChamberMl * 1000.0 / basketArea;
        var deep = machine.Family == MachineFamily.TwinArmBasket;
        var apart = machine.Family is MachineFamily.HandPump or MachineFamily.SteppedLever;
        var heat = machine.HasBoiler ? HeatConstants.Of(machine) : null;
        return new(
            machine.PistonDiameterMm,
            machine.Family == MachineFamily.HandPump
                ? Strokes.PumpTravelMm
                : Lever.TravelMm(machine.ChamberMl, machine.PistonDiameterMm),
            machine.BasketDiameterMm,
            puck,
            puck + RimMm + (deep ? water : 0),
            apart || deep ? water : 0,
            Lever.RatioAt(machine, 0.5),
            heat is null ? 0 : heat.FillGrams / heat.BoilerVolumeMl,
            machine.SpringTopBar is { } top && machine.SpringEndBar is { } end ? end / top : 0
        );
    }
}
