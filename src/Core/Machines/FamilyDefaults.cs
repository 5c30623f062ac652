namespace RuddySpring.Core.Machines;

/// <summary>
/// Rounded starting numbers of each family (common practice; lever ratios derived from arm forces of 15 to 20 kgf at 6 to 9 bar).
/// They are no single machine's numbers; every one is meant to be replaced by the owner's.
/// </summary>
public static class FamilyDefaults
{
    // 9 bar with both arms is strenuous, 8 is done (common practice)
    private const double BothArmsKgf = 24;

    /// <summary>The default machine of a family, with the dose and yield people start from.</summary>
    public static (Machine Machine, double DoseGrams, double YieldGrams) Of(MachineFamily family) =>
        family switch
        {
            MachineFamily.BoilerDirect => (
                New(family, 49, 10, 35, 50, 4, 760) with
                {
                    BoilerGaugeBar = 1.0,
                    StrokesAShot = 2,
                },
                14,
                28
            ),
            MachineFamily.BoilerSpring => (
                New(family, 50, 9, 38, 53, 4, 3200) with
                {
                    BoilerGaugeBar = 1.1,
                    SpringTopBar = 9.5,
                    SpringEndBar = 5.0,
                    StrokesAShot = 2,
                    WillingForceKgf = 25,
                },
                16,
                32
            ),
            MachineFamily.PortableLever => (New(family, 45, 8, 60, 51, 5, 250), 15, 32),
            MachineFamily.HeatedGroup => (New(family, 54, 12, 85, 58, 12, 600), 18, 38),
            MachineFamily.TwinArmBasket => (New(family, 49, 7, 100, 49, 1, 120) with { WillingForceKgf = BothArmsKgf }, 18, 38),
            MachineFamily.TwinArmChamber => (New(family, 50, 7, 75, 50, 5, 220) with { WillingForceKgf = BothArmsKgf }, 16, 33),
            MachineFamily.SteppedLever => (New(family, 48, 6, 75, 51, 5, 200) with { StrokesAShot = 6 }, 18, 36),
            MachineFamily.HandPump => (New(family, 10, 1, 80, 51, 4, 90) with { StrokesAShot = 60 }, 19, 38),
            _ => throw new ArgumentOutOfRangeException(nameof(family), family, "Unknown machine family."),
        };

    private static Machine New(
        MachineFamily family,
        double pistonMm,
        double ratio,
        double chamberMl,
        double basketMm,
        double deadGrams,
        double metal
    ) =>
        new()
        {
            Family = family,
            PistonDiameterMm = pistonMm,
            LeverRatio = ratio,
            ChamberMl = chamberMl,
            BasketDiameterMm = basketMm,
            DeadWaterGrams = deadGrams,
            MetalHeatCapacity = metal,
            Reads = [Reads.Scale],
        };
}
