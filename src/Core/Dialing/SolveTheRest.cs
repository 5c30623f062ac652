using RuddySpring.Core.Machines;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Pulls;

namespace RuddySpring.Core.Dialing;

/// <summary>What is changed to land the time while everything else stays.</summary>
public enum ChangeOf
{
    /// <summary>Dose, g.</summary>
    Dose,

    /// <summary>Yield, g.</summary>
    Yield,

    /// <summary>Every pressure of the plan, by one factor.</summary>
    Pressure,
}

/// <summary>One change that lands the time.</summary>
/// <param name="Of">What changes.</param>
/// <param name="Value">To what: g, or the factor on every pressure.</param>
/// <param name="Share">How much of a change that is, as a share.</param>
public sealed record SoleChange(ChangeOf Of, double Value, double Share);

/// <summary>A shot as far as it can be changed: resistance of the puck at a dose in g, plan, machine, yield.</summary>
/// <param name="PuckAt">The puck at a dose in g, the grind as it is.</param>
/// <param name="Plan">The plan.</param>
/// <param name="Machine">The machine.</param>
/// <param name="DoseGrams">Dose, g.</param>
/// <param name="YieldGrams">Yield, g.</param>
public sealed record FixedGrind(Func<double, PuckParameters> PuckAt, PullPlan Plan, Machine Machine, double DoseGrams, double YieldGrams);

/// <summary>
/// Fix the grind, solve the rest: for a grind that cannot be touched (the other machine's setting is on the grinder), the smallest change
/// of one other thing that lands the yield in the wanted time, by search over simulated shots. People do each of these: a gram more or less
/// of coffee, a shorter or longer cup, a firmer or softer arm.
/// </summary>
public static class SolveTheRest
{
    private const double MostDoseGrams = 2.0;
    private const double MostYieldShare = 0.35;
    private const double MostPressureShare = 0.35;
    private const int Halvings = 7;

    /// <summary>Every single change that lands the time to the yield at a number of seconds, smallest first; what cannot is left out.</summary>
    public static IReadOnlyList<SoleChange> Of(FixedGrind shot, double wantedSeconds)
    {
        double Seconds(double dose, double yield, double press)
        {
            var plan = Math.Abs(press - 1) < 1e-9 ? shot.Plan
                : shot.Plan with { Phases = [.. shot.Plan.Phases.Select(p => p with { ToBar = Math.Min(PullPlan.PlanPressure.Max, p.ToBar * press) })] };
            var run = ShotSimulator.Run(shot.PuckAt(dose), plan, shot.Machine, yield);
            return run.ReachedYield ? run.Seconds : double.PositiveInfinity;
        }

        var found = new List<SoleChange>();
        void Try(ChangeOf of, double now, double low, double high, Func<double, double> seconds)
        {
            if (Solve(low, high, seconds, wantedSeconds) is { } value) found.Add(new(of, value, (value / now) - 1.0));
        }

        var dose = shot.DoseGrams;
        var yield = shot.YieldGrams;
        Try(ChangeOf.Dose, dose, Math.Max(CupVolumes.Dose.Min, dose - MostDoseGrams), Math.Min(CupVolumes.Dose.Max, dose + MostDoseGrams), d => Seconds(d, yield, 1));
        var most = Math.Min(yield * (1 + MostYieldShare), CupVolumes.LargestYieldGrams(shot.Machine, dose, shot.PuckAt(dose).WaterC));
        Try(ChangeOf.Yield, yield, yield * (1 - MostYieldShare), Math.Max(yield, most), y => Seconds(dose, y, 1));
        // more pressure is less time, so the search runs the other way
        Try(ChangeOf.Pressure, 1, 1 + MostPressureShare, 1 - MostPressureShare, p => Seconds(dose, yield, p));
        return [.. found.OrderBy(c => Math.Abs(c.Share))];
    }

    /// <summary>Halving for a time that rises from one end to the other; null where the wanted time lies outside.</summary>
    private static double? Solve(double faster, double slower, Func<double, double> seconds, double wanted)
    {
        if (seconds(faster) > wanted || seconds(slower) < wanted) return null;
        for (var i = 0; i < Halvings; i++)
        {
            var middle = (faster + slower) / 2.0;
            if (seconds(middle) > wanted) slower = middle;
            else faster = middle;
        }

        return (faster + slower) / 2.0;
    }
}
