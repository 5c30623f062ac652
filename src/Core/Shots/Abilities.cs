using RuddySpring.Core.Machines;
using RuddySpring.Core.Water;

namespace RuddySpring.Core.Shots;

/// <summary>Hand force over the stroke at a pressure.</summary>
public sealed record ForceLine(double PressureBar, IReadOnlyList<ForcePoint> Points);

/// <summary>Hand force in kgf at a share of the stroke.</summary>
public sealed record ForcePoint(double StrokeShare, double HandKgf);

/// <summary>Spring pressure after some water has been moved.</summary>
public sealed record SpringPoint(double MovedMl, double PressureBar);

/// <summary>How soft some air under the piston makes the lever.</summary>
/// <param name="AirMl">Air, ml at the pressure of the room.</param>
/// <param name="MlPerBarAtTwo">Compliance at 2 bar, ml/bar.</param>
/// <param name="MlPerBarAtNine">The same at 9 bar.</param>
/// <param name="LostMl">Travel that squeezes it to 9 bar before any water moves, ml.</param>
/// <param name="LargestYieldGrams">Largest cup from the usual dose with so much air, g.</param>
/// <param name="Own">Whether it is what this machine is said to have.</param>
public sealed record SoftPoint(
    double AirMl,
    double MlPerBarAtTwo,
    double MlPerBarAtNine,
    double LostMl,
    double LargestYieldGrams,
    bool Own
);

/// <summary>What a machine can do, from its own numbers.</summary>
/// <param name="Force">Hand force over the stroke at 3, 6 and 9 bar; empty where the hand makes no pressure.</param>
/// <param name="ReachBar">Pressure that the brewer's force reaches half-way; null where the hand makes no pressure.</param>
/// <param name="CockKgf">Force to cock the spring; null without one.</param>
/// <param name="SpringLine">The spring on the indicator card; empty without one.</param>
/// <param name="SpringWorkJ">Work of one free stroke; null without a spring.</param>
/// <param name="DoseGrams">The family's usual dose.</param>
/// <param name="YieldGrams">The family's usual yield.</param>
/// <param name="LargestYieldGrams">Largest cup from the usual dose.</param>
/// <param name="WaterGrams">Water for the usual yield.</param>
/// <param name="StrokesForUsualYield">Strokes or pumps for the usual yield.</param>
/// <param name="Soft">What air under the piston does, this machine's own among it.</param>
/// <param name="SealHalfSeconds">Seconds in which a blind basket loses half its pressure; null where the seal was not measured or
/// is tight.</param>
public sealed record Abilities(
    IReadOnlyList<ForceLine> Force,
    double? ReachBar,
    double? CockKgf,
    IReadOnlyList<SpringPoint> SpringLine,
    double? SpringWorkJ,
    double DoseGrams,
    double YieldGrams,
    double LargestYieldGrams,
    double WaterGrams,
    int StrokesForUsualYield,
    IReadOnlyList<SoftPoint> Soft,
    double? SealHalfSeconds
)
{
    /// <summary>Water that the abilities are worked out for, degC.</summary>
    public const double HotC = 92;
    private const int Points = 20;
    private static readonly double[] ForcePressures = [3, 6, 9];
    private static readonly double[] AirMl = [0, 1, 2, 5, 10];

    /// <summary>Of a machine, at a height above the sea in m.</summary>
    public static Abilities Of(Machine machine, double altitudeMetres)
    {
        var (_, dose, yield) = FamilyDefaults.Of(machine.Family);
        var arm = machine.PressureBy == PressureBy.Arm || machine.Family == MachineFamily.SteppedLever;
        var outside = Atmosphere.PressureBar(altitudeMetres);
        return new(
            arm
                ?
                [
                    .. ForcePressures.Select(bar => new ForceLine(
                        bar,
                        [.. Shares().Select(s => new ForcePoint(s, Lever.HandForceKgf(machine, bar, s)))]
                    )),
                ]
                : [],
            machine.PressureBy == PressureBy.Arm ? Lever.PressureBar(machine, machine.WillingForceKgf) : null,
            machine.SpringTopBar is { } top ? Lever.HandForceKgf(machine, top) : null,
            machine.SpringTopBar is null
                ? []
                :
                [
                    .. Shares()
                        .Select(s => s * machine.ChamberMl * 0.9999)
                        .Select(v => new SpringPoint(v, Spring.PressureBar(machine, v)!.Value)),
                ],
            Spring.WorkJ(machine),
            dose,
            yield,
            CupVolumes.LargestYieldGrams(machine, dose, HotC),
            CupVolumes.WaterGrams(machine, dose, yield),
            Strokes(machine, dose, yield),
            [
                .. AirMl
                    .Append(machine.TrappedAirMl)
                    .Where(a => a < machine.ChamberMl)
                    .Distinct()
                    .Order()
                    .Select(air => new SoftPoint(
                        air,
                        Compliance.MlPerBar(air, 2, outside),
                        Compliance.MlPerBar(air, 9, outside),
                        Compliance.LostMl(air, 9, outside),
                        CupVolumes.LargestYieldGrams(machine with { TrappedAirMl = air }, dose, HotC),
                        Math.Abs(air - machine.TrappedAirMl) < 1e-9
                    )),
            ],
            machine.SealLeakPerSecond > 0 ? Math.Log(2) / machine.SealLeakPerSecond : null
        );
    }

    /// <summary>
    /// Strokes, pumps or steps of the lever for a yield in g from a dose in g; 1 for a chamber that is filled once.
    /// </summary>
    public static int Strokes(Machine machine, double doseGrams, double yieldGrams) =>
        (int)
            Math.Ceiling(
                CupVolumes.WaterGrams(machine, doseGrams, yieldGrams)
                    / (Core.Machines.Strokes.VolumeMl(machine) * LiquidWater.DensityGramsPerMl(HotC))
            );

    private static IEnumerable<double> Shares() => Enumerable.Range(0, Points + 1).Select(i => (double)i / Points);
}
