using RuddySpring.Core.Pulls;

namespace RuddySpring.Core.Shots;

/// <summary>One instant of a plan as it would run.</summary>
/// <param name="Seconds">Since the lever moved.</param>
/// <param name="TargetBar">What the plan wants.</param>
/// <param name="PressureBar">Result.</param>
/// <param name="CupGrams">In the cup.</param>
/// <param name="FlowGramsPerS">Out of the puck, solids and all.</param>
/// <param name="MostBar">Most the machine gives then.</param>
/// <param name="StrokeShare">How far down the piston is in its stroke, 0 (top) to 1.</param>
/// <param name="Phase">Index of the phase that is due.</param>
public sealed record PreviewPoint(
    double Seconds,
    double TargetBar,
    double PressureBar,
    double CupGrams,
    double FlowGramsPerS,
    double MostBar,
    double StrokeShare,
    int Phase
);

/// <summary>A plan on a machine and a puck, before it is pulled: how it would run, and what the machine does not give.</summary>
/// <param name="Points">Ten a second.</param>
/// <param name="Seconds">Until the yield, or until it was given up.</param>
/// <param name="FirstDropsSeconds">When the first drops fall; null where none do.</param>
/// <param name="ReachedYield">Whether the yield is reached.</param>
/// <param name="Arm">What the arm does in each phase.</param>
/// <param name="Problems">What the plan asks that the machine does not give.</param>
public sealed record PlanPreview(
    IReadOnlyList<PreviewPoint> Points,
    double Seconds,
    double? FirstDropsSeconds,
    bool ReachedYield,
    IReadOnlyList<PlanProblem> Problems,
    IReadOnlyList<ArmStep> Arm
)
{
    /// <summary>Of a shot as it is described.</summary>
    /// <exception cref="FieldRangeException">A number of the plan is out of range.</exception>
    /// <exception cref="DoesNotFitException">Its points cross.</exception>
    public static PlanPreview Of(ShotConditions conditions)
    {
        var (plan, machine) = (conditions.Plan, conditions.Machine);
        var shot = SimulatedShot.Pull(conditions);
        var course = PlanCourse.Along(plan, machine, shot, conditions.YieldGrams);
        var points = shot
            .Samples.Zip(course, (s, c) =>
                new PreviewPoint(
                    s.Seconds,
                    c.Bar,
                    s.PressureBar,
                    s.CupGrams,
                    s.FlowGramsPerS,
                    s.MostBar,
                    Math.Clamp(s.StrokeMl / machine.ChamberMl, 0, 1),
                    c.Phase
                )
            )
            .ToList();
        return new(
            points,
            shot.Seconds,
            shot.FirstDropsSeconds,
            shot.ReachedYield,
            PlanReach.Problems(plan, machine, conditions.Bed.DoseGrams, conditions.YieldGrams),
            ArmSteps.Of(plan, conditions.YieldGrams)
        );
    }
}
