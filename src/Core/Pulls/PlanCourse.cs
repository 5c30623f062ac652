using RuddySpring.Core.Machines;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Traces;

namespace RuddySpring.Core.Pulls;

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

    /// <summary>
    /// The plan as it runs on an ordinary puck that any arm could press: a picture of the plan before the pull, no forecast of it.
    /// </summary>
    /// <param name="plan">The plan.</param>
    /// <param name="machine">The machine; its force and chamber do not limit the picture.</param>
    /// <param name="doseGrams">Dose in g, 5 to 30.</param>
    /// <param name="yieldGrams">Yield in g, 5 to 120.</param>
    /// <returns>Ten points a second up to the yield, and the seconds the whole takes.</returns>
    /// <exception cref="FieldRangeException">Dose or yield is out of range.</exception>
    public static (IReadOnlyList<PlanPoint> Points, double Seconds) Usual(PullPlan plan, Machine machine, double doseGrams, double yieldGrams)
    {
        var puck = new PuckParameters { DoseGrams = doseGrams, ResistanceBarSPerMl = UsualResistancePerGram * doseGrams };
        var free = machine with
        {
            WillingForceKgf = MachineRanges.WillingForce.Max,
            ChamberMl = MachineRanges.Chamber.Max,
        };
        var shot = ShotSimulator.Run(puck, plan, free, yieldGrams);
        var points = Along(plan, yieldGrams, shot.Samples.Select(s => (s.Seconds, s.CupGrams)), shot.FirstDropsSeconds, shot.Seconds);
        return (points, shot.Seconds);
    }

    /// <summary>What the plan wanted at each step of a pull as it went, up to its stop or its yield; empty without a scale.</summary>
    public static IReadOnlyList<PlanPoint> Of(PullPlan plan, double yieldGrams, CleanTrace clean, Moments moments) => clean.HasWeight
        ? Along(plan, yieldGrams, clean.Seconds.Zip(clean.WeightGrams, (s, g) => (s, g - clean.WeightGrams[0])), moments.FirstDrops, moments.Stop)
        : [];

    private static List<PlanPoint> Along(
        PullPlan plan, double yieldGrams, IEnumerable<(double Seconds, double CupGrams)> cup, double? firstDrops, double? stop)
    {
        var follower = new PlanFollower(plan, yieldGrams);
        var points = new List<PlanPoint>();
        foreach (var (seconds, grams) in cup)
        {
            if (seconds > stop) break;
            var bar = follower.TargetBar(seconds, grams, seconds >= firstDrops);
            if (follower.Phase is null) break;
            points.Add(new(seconds, bar, follower.PhaseIndex));
        }

        return points;
    }
}
