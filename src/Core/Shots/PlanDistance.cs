using RuddySpring.Core.Pulls;
using RuddySpring.Core.Traces;

namespace RuddySpring.Core.Shots;

/// <summary>One phase of a recorded pull beside its plan.</summary>
/// <param name="Name">The phase.</param>
/// <param name="FromSeconds">When it began, s since the lever moved.</param>
/// <param name="ToSeconds">When it was over.</param>
/// <param name="OffBar">Mean of pressure less plan, bar: above 0 for pressed too hard.</param>
/// <param name="InsideShare">Share of its time inside the plan's band, 0 to 1, its first moment left out.</param>
public sealed record PhaseDistance(string Name, double FromSeconds, double ToSeconds, double OffBar, double InsideShare);

/// <summary>How far a recorded pull was from its plan, phase by phase, and how smooth the arm was.</summary>
/// <param name="Phases">The phases that were reached.</param>
/// <param name="Missed">How many were never reached.</param>
/// <param name="ShakeBar">The arm's shake while it should be held (<see cref="ArmShake"/>), bar; null where there is too little
/// to tell.</param>
public sealed record PlanDistance(IReadOnlyList<PhaseDistance> Phases, int Missed, double? ShakeBar)
{
    private const double SettleSeconds = 1.0;
    private const int HalfWindow = 5;

    /// <summary>Of a trace with pressure and weight; null without them, or without a plan.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="yieldGrams">Yield, g.</param>
    /// <param name="clean">The trace, since the lever moved.</param>
    /// <param name="moments">Its moments, likewise.</param>
    public static PlanDistance? Of(PullPlan plan, double yieldGrams, CleanTrace clean, Moments moments)
    {
        if (plan.Key == PullPlan.UnknownKey || !clean.HasPressure || moments.Stop is not { } stop)
            return null;
        var wanted = PlanCourse.Of(plan, yieldGrams, clean, moments);
        var count = Math.Min(wanted.Count, clean.Seconds.Length);
        if (count == 0)
            return null;
        var inside = Enumerable.Range(0, count).Where(i => clean.Seconds[i] <= stop && clean.SawPressure(i)).ToList();
        var phases = inside
            .Where(i => wanted[i].Phase < plan.Phases.Count)
            .GroupBy(i => wanted[i].Phase)
            .Select(g =>
            {
                var (from, to) = (clean.Seconds[g.First()], clean.Seconds[g.Last()]);
                var settled = g.Where(i => clean.Seconds[i] >= from + SettleSeconds).DefaultIfEmpty(g.Last()).ToList();
                return new PhaseDistance(
                    plan.Phases[g.Key].Name,
                    from,
                    to,
                    settled.Average(i => clean.PressureBar[i] - wanted[i].Bar),
                    settled.Average(i => Math.Abs(clean.PressureBar[i] - wanted[i].Bar) <= plan.BandBar ? 1.0 : 0.0)
                );
            })
            .ToList();
        var shake = ArmShake.Of(
            [.. inside.Select(i => clean.PressureBar[i])],
            [.. inside.Select(i => wanted[i].Bar)],
            HalfWindow
        );
        return new(phases, Math.Max(0, plan.Phases.Count - phases.Count), shake);
    }
}
