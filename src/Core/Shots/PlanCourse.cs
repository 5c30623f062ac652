using RuddySpring.Core.Machines;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Traces;

namespace RuddySpring.Core.Shots;

/// <summary>The plan's pressure at one instant and the index of the phase that is due then.</summary>
/// <param name="Seconds">Since the lever moved.</param>
/// <param name="Bar">What the plan wants, gauge.</param>
/// <param name="Phase">Index of the phase.</param>
public sealed record PlanPoint(double Seconds, double Bar, int Phase);

/// <summary>A plan, which waits for drops and grams, laid out against seconds.</summary>
public static class PlanCourse
{
    // resistance of a 15 g puck that brings 1:2 in about half a minute of flow under the shipped plans
    private const double UsualResistancePerGram = 6.0 / 15.0;
    private const double UsualWaterC = 93;
    private const int ManyStrokes = 20;

    /// <summary>
    /// The plan as it runs on an ordinary puck that any arm could press: a picture of the plan before the pull, no forecast of
    /// it.
    /// </summary>
    /// <param name="plan">The plan.</param>
    /// <param name="machine">The machine; its force and chamber do not limit the picture.</param>
    /// <param name="doseGrams">Dose in g, 5 to 30.</param>
    /// <param name="yieldGrams">Yield in g, 5 to 120.</param>
    /// <returns>Ten points a second up to the yield, and the seconds the whole takes.</returns>
    /// <exception cref="FieldRangeException">Dose or yield is out of range.</exception>
    public static (IReadOnlyList<PlanPoint> Points, double Seconds) Usual(
        PullPlan plan,
        Machine machine,
        double doseGrams,
        double yieldGrams
    )
    {
        // room for any yield, with the strokes as large as they are
        var roomy = MachineRanges.Chamber.Max / machine.ChamberMl;
        var free = (
            machine.HasBoiler
                ? machine with
                {
                    StrokesAShot = ManyStrokes,
                }
                : machine with
                {
                    ChamberMl = MachineRanges.Chamber.Max,
                    StrokesAShot = (int)Math.Ceiling(machine.StrokesAShot * roomy),
                }
        ) with
        {
            WillingForceKgf = MachineRanges.WillingForce.Max,
            TrappedAirMl = 0,
        };
        var shot = SimulatedShot.Pull(
            ShotConditions.Of(free, plan, doseGrams, yieldGrams, UsualWaterC).WithResistance(UsualResistance(plan, doseGrams))
        );
        return (Along(plan, machine, shot, yieldGrams), shot.Seconds);
    }

    /// <summary>Resistance in bar s/ml of an ordinary puck; where a flow is held, one that swollen and fresh needs the most
    /// pressure for it.</summary>
    private static double UsualResistance(PullPlan plan, double doseGrams)
    {
        if (plan.Phases.FirstOrDefault(p => p.Move == PhaseMove.HoldFlow) is not { } held)
            return UsualResistancePerGram * doseGrams;
        var bar = held.ToBar;
        return Math.Clamp(
            bar / (held.FlowGramsPerS * FlowResistance.Compaction(PuckBehaviour.Usual, bar)),
            PuckParameters.Resistance.Min,
            PuckParameters.Resistance.Max
        );
    }

    /// <summary>
    /// What the plan wanted at each step of a pull as it went, up to its stop or its yield; empty without a scale. Strokes before
    /// first drops, of which a trace tells nothing, are taken at their longest.
    /// </summary>
    public static IReadOnlyList<PlanPoint> Of(PullPlan plan, double yieldGrams, CleanTrace clean, Moments moments) =>
        clean.HasWeight
            ? Along(
                plan,
                yieldGrams,
                null,
                Enumerable
                    .Range(0, clean.Seconds.Length)
                    .Select(i => new PullState(
                        clean.Seconds[i],
                        clean.WeightGrams[i] - clean.WeightGrams[0],
                        clean.Seconds[i] >= moments.FirstDrops,
                        Math.Max(0, clean.FlowGramsPerS[i]),
                        0,
                        clean.Seconds[i] >= moments.Blonding
                    )),
                moments.Stop
            )
            : [];

    /// <summary>What the plan wanted at each sample of a simulated shot, up to its yield.</summary>
    public static IReadOnlyList<PlanPoint> Along(PullPlan plan, Machine machine, SimulatedShot shot, double yieldGrams) =>
        Along(
            plan,
            yieldGrams,
            Strokes.VolumeMl(machine),
            shot.Samples.Select(s => new PullState(
                s.Seconds,
                s.CupGrams,
                s.Seconds >= shot.FirstDropsSeconds,
                s.FlowGramsPerS,
                s.MovedMl
            )),
            shot.Seconds
        );

    private static List<PlanPoint> Along(
        PullPlan plan,
        double yieldGrams,
        double? strokeMl,
        IEnumerable<PullState> pull,
        double? stop
    )
    {
        var follower = new PlanFollower(plan, yieldGrams, strokeMl);
        var points = new List<PlanPoint>();
        foreach (var state in pull)
        {
            if (state.Seconds > stop)
                break;
            var bar = follower.TargetBar(state);
            if (follower.Phase is null)
                break;
            points.Add(new(state.Seconds, bar, follower.PhaseIndex));
        }

        return points;
    }
}
