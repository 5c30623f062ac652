using System.Globalization;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Shots;

namespace RuddySpring.Core.Dialing;

/// <summary>
/// Fix anything, solve the rest: with the grind, the dose, the water, the plan or the time locked, the smallest change of the
/// others that lands the yield in the wanted time, by search over simulated shots. People do each of these: a step of the
/// grinder, a gram more or less of coffee, a shorter or longer cup, a firmer or softer arm, hotter or cooler water, another plan,
/// or they take the time as it comes. Where no single one lands it, two are moved together. Whatever is returned was played with
/// its values as people set them, and landed.
/// </summary>
public static class SolveTheRest
{
    private const double MostDoseGrams = 2.0;
    private const double MostYieldShare = 0.35;
    private const double MostPressureShare = 0.35;
    private const double MostSteps = 8;
    private const double MostWaterK = 6.0;
    private const double CoolestC = 75.0;
    private const int MostTrials = 8;
    private const double CloseEnoughSeconds = 0.3;
    private const double LongestSeconds = 150;

    // another plan is another way to work, and a time taken as it comes gives up what was wanted
    private const double OtherPlanEffort = 0.6;
    private const double LeastTimeEffort = 1.0;

    // a shot so much longer than wanted need not be played to its end
    private const double Hopeless = 1.5;

    private static readonly ChangeOf[] s_byDegrees =
    [
        ChangeOf.Dose,
        ChangeOf.Yield,
        ChangeOf.Pressure,
        ChangeOf.Grind,
        ChangeOf.Water,
    ];

    /// <summary>Every change that lands the yield in a time, smallest first, or a sentence where none does or none is
    /// needed.</summary>
    /// <param name="shot">The shot as it is.</param>
    /// <param name="wanted">Where it is to land, s.</param>
    /// <param name="locked">What must stay.</param>
    public static LandingAnswer Of(ShotToLand shot, TimeBand wanted, IReadOnlyCollection<ChangeOf> locked)
    {
        if (TooMuchWater(shot, locked) is { } tooMuch)
            return new([], tooMuch);
        var now = SimulatedShot.Pull(shot.Shot, LongestSeconds);
        if (now.ReachedYield && wanted.Holds(now.Seconds))
            return new([], "It lands as it stands; nothing has to change.");
        var slow = !now.ReachedYield || now.Seconds > wanted.High;
        var free = s_byDegrees.Except(locked).Where(c => c != ChangeOf.Grind || shot.Setting is not null).ToList();
        // each is a search of its own over simulated shots, so they go side by side
        var found = free.AsParallel().AsOrdered().Select(c => Land(shot, wanted, slow, [c])).OfType<LandingChange>().ToList();
        if (!locked.Contains(ChangeOf.Plan))
            found.AddRange(shot.OtherPlans.AsParallel().AsOrdered().Select(p => OtherPlan(shot, p)).OfType<LandingChange>());
        if (found.Count == 0)
        {
            var pairs = from a in free from b in free where a < b select new[] { a, b };
            found = [.. pairs.AsParallel().AsOrdered().Select(p => Land(shot, wanted, slow, p)).OfType<LandingChange>()];
        }

        if (!locked.Contains(ChangeOf.Time) && now.ReachedYield)
        {
            var effort = LeastTimeEffort + Math.Abs(Math.Log(now.Seconds / wanted.Best));
            found.Add(new([new(ChangeOf.Time, Math.Round(now.Seconds), effort)], now.Seconds));
        }

        return found.Count > 0 ? new([.. found.OrderBy(c => c.Effort)], null) : new([], Why(now, free.Count == 0, wanted));
    }

    private static string Why(SimulatedShot now, bool allLocked, TimeBand wanted)
    {
        var how = now.ReachedYield
            ? FormattableString.Invariant($"It takes about {now.Seconds:0} s, not {wanted.Low:0} to {wanted.High:0} s")
            : FormattableString.Invariant($"The cup stays at about {now.CupGrams:0} g");
        return allLocked
            ? $"{how}, and everything is locked. Unlock something."
            : $"{how}, and no unlocked setting changes that. Unlock another, or choose another yield or plan.";
    }

    private static string? TooMuchWater(ShotToLand shot, IReadOnlyCollection<ChangeOf> locked)
    {
        var largest = CupVolumes.LargestYieldGrams(shot.Shot.Machine, shot.DoseGrams, shot.Shot.Water.StartC());
        return shot.YieldGrams > largest + 0.5 && locked.Contains(ChangeOf.Yield)
            ? string.Create(
                CultureInfo.InvariantCulture,
                $"This machine gives at most {largest:0} g from {shot.DoseGrams:0.0} g of coffee. Unlock the yield, or lower it."
            )
            : null;
    }

    /// <summary>The same shot by another plan, where that lands in the time that this plan is meant to take.</summary>
    private static LandingChange? OtherPlan(ShotToLand shot, PullPlan plan)
    {
        var pulled = SimulatedShot.Pull(shot.Shot with { Plan = plan }, plan.LandingSeconds.High * Hopeless);
        return pulled.ReachedYield && plan.LandingSeconds.Holds(pulled.Seconds)
            ? new([new(ChangeOf.Plan, 0, OtherPlanEffort, plan)], pulled.Seconds)
            : null;
    }

    private static LandingChange? Land(ShotToLand shot, TimeBand wanted, bool slow, IReadOnlyList<ChangeOf> moved)
    {
        // t runs from -1, as fast as people would make it, to 1, as slow
        var longest = wanted.High * Hopeless;
        double Seconds(double t) => Time(shot, [.. moved.Select(c => (c, ValueAt(shot, c, t)))], longest);
        // the middle of the band, or halfway from it to the end that is nearer to the shot as it is
        if ((Solve(Seconds, wanted.Best) ?? Solve(Seconds, (wanted.Best + (slow ? wanted.High : wanted.Low)) / 2)) is not { } t)
            return null;
        var values = moved.Select(c => (Of: c, Value: AsSet(shot, c, ValueAt(shot, c, t)))).ToArray();
        var seconds = Time(shot, values, longest);
        return wanted.Holds(seconds) ? new([.. values.Select(v => new SoleChange(v.Of, v.Value, Math.Abs(t)))], seconds) : null;
    }

    /// <summary>A value at a share of what people would still do: -1 makes the shot fastest, 0 is as it is, 1 slowest.</summary>
    private static double ValueAt(ShotToLand shot, ChangeOf of, double t)
    {
        switch (of)
        {
            case ChangeOf.Dose:
                return Math.Clamp(shot.DoseGrams + (t * MostDoseGrams), PuckParameters.Dose.Min, PuckParameters.Dose.Max);
            case ChangeOf.Yield:
                var largest = CupVolumes.LargestYieldGrams(shot.Shot.Machine, shot.DoseGrams, shot.Shot.Water.StartC());
                return Math.Clamp(
                    shot.YieldGrams * (1 + (t * MostYieldShare)),
                    CupVolumes.Yield.Min,
                    Math.Max(CupVolumes.Yield.Min, largest)
                );
            case ChangeOf.Pressure:
                return 1 - (t * MostPressureShare);
            case ChangeOf.Water:
                var now = shot.Shot.Water.StartC();
                return Math.Clamp(now - (t * MostWaterK), Math.Min(now, CoolestC), Math.Max(now, shot.BoilingC));
            default:
                return (shot.Setting ?? 0) + (t * MostSteps * shot.Steps.Step * (shot.Steps.FinerIsLower ? -1 : 1));
        }
    }

    /// <summary>A value as finely as people can set it.</summary>
    private static double AsSet(ShotToLand shot, ChangeOf of, double value) =>
        of switch
        {
            ChangeOf.Grind => Math.Round(value / shot.Steps.Step) * shot.Steps.Step,
            ChangeOf.Pressure => Math.Round(value, 2),
            ChangeOf.Water => Math.Min(Math.Round(value * 2) / 2, shot.BoilingC),
            _ => Math.Round(value, 1),
        };

    private static double Time(ShotToLand shot, (ChangeOf Of, double Value)[] moved, double longestSeconds)
    {
        var changed = moved.Aggregate(shot.Shot, (s, m) => With(shot, s, m.Of, m.Value));
        // more coffee in a narrow basket may resist more than any puck does
        var held = changed.WithResistance(PuckParameters.Resistance.Nearest(changed.Bed.ResistanceBarSPerMl));
        var run = SimulatedShot.Pull(held, longestSeconds);
        return run.ReachedYield ? run.Seconds : double.PositiveInfinity;
    }

    private static ShotConditions With(ShotToLand shot, ShotConditions so, ChangeOf of, double value) =>
        of switch
        {
            ChangeOf.Dose => so with { Bed = so.Bed with { DoseGrams = value } },
            ChangeOf.Yield => so with { YieldGrams = value },
            ChangeOf.Pressure => so with { Plan = so.Plan.Scaled(value) },
            ChangeOf.Water => so with
            {
                Water = so
                    .Water.Shifted(value - so.Water.StartC())
                    .Within(PuckParameters.WaterTemperature.Min, PuckParameters.WaterTemperature.Max),
            },
            _ => GrindResistivity.With(so, shot.ResistivityAt(value)),
        };

    /// <summary>
    /// False position for a time that rises with t, as near as a few tenths of a second; null where the wanted time lies outside.
    /// </summary>
    private static double? Solve(Func<double, double> seconds, double wanted)
    {
        double faster = -1,
            slower = 1;
        double fast = seconds(faster),
            slow = seconds(slower);
        if (fast > wanted || slow < wanted)
            return null;
        var t = 0.0;
        for (var i = 0; i < MostTrials; i++)
        {
            // a shot that never ends has no time to draw a line to: then halve
            var share = double.IsFinite(slow) ? Math.Clamp((wanted - fast) / Math.Max(1e-9, slow - fast), 0.05, 0.95) : 0.5;
            t = faster + (share * (slower - faster));
            var at = seconds(t);
            if (Math.Abs(at - wanted) < CloseEnoughSeconds)
                return t;
            if (at > wanted)
                (slower, slow) = (t, at);
            else
                (faster, fast) = (t, at);
        }

        return t;
    }
}
