using RuddySpring.Core.Puck;
using RuddySpring.Core.Shots;

namespace RuddySpring.Core.Dialing;

/// <summary>What may be changed to land the time.</summary>
public enum ChangeOf
{
    /// <summary>Dose, g.</summary>
    Dose,

    /// <summary>Yield, g, and with it the water.</summary>
    Yield,

    /// <summary>Every pressure of the plan, by one factor.</summary>
    Pressure,

    /// <summary>The grinder's setting.</summary>
    Grind,
}

/// <summary>One thing changed.</summary>
/// <param name="Of">What changes.</param>
/// <param name="Value">To what: g, the factor on every pressure, or the grinder's setting.</param>
/// <param name="Effort">How much of what people would still do that is, 0 to 1: 2 g of dose, a third of the yield or of the pressure, eight steps of the grinder.</param>
public sealed record SoleChange(ChangeOf Of, double Value, double Effort);

/// <summary>A change that lands the time: one thing, or two together where no one thing does.</summary>
public sealed record LandingChange(IReadOnlyList<SoleChange> Parts)
{
    /// <summary>How much of a change it is in all.</summary>
    public double Effort => Parts.Sum(p => p.Effort);
}

/// <summary>A shot as far as it can be changed.</summary>
/// <param name="Shot">The shot as it is.</param>
/// <param name="ResistivityAt">What a setting of the grinder resists (<see cref="GrindResistivity"/>), bar s/ml.</param>
/// <param name="Setting">The grinder's setting; null where it is not known and cannot be solved for.</param>
/// <param name="Steps">The grinder's scale.</param>
public sealed record ShotToLand(ShotConditions Shot, Func<double, double> ResistivityAt, double? Setting, GrinderSteps Steps)
{
    /// <summary>Dose, g.</summary>
    public double DoseGrams => Shot.Bed.DoseGrams;

    /// <summary>Yield, g.</summary>
    public double YieldGrams => Shot.YieldGrams;
}

/// <summary>
/// Fix anything, solve the rest: with the grind, the dose, the water or the plan locked, the smallest change of the others that lands the
/// yield in the wanted time, by search over simulated shots. People do each of these: a step of the grinder, a gram more or less of coffee,
/// a shorter or longer cup, a firmer or softer arm. Where no single one lands it, two are moved together.
/// </summary>
public static class SolveTheRest
{
    private const double MostDoseGrams = 2.0;
    private const double MostYieldShare = 0.35;
    private const double MostPressureShare = 0.35;
    private const double MostSteps = 8;
    private const int MostTrials = 8;
    private const double CloseEnoughSeconds = 0.3;

    // a shot so much longer than wanted need not be played to its end
    private const double Hopeless = 1.5;

    /// <summary>Every change that lands the time to the yield at a number of seconds, smallest first; empty where none does.</summary>
    /// <param name="shot">The shot as it is.</param>
    /// <param name="wantedSeconds">Where it is to land, s.</param>
    /// <param name="locked">What must stay.</param>
    public static IReadOnlyList<LandingChange> Of(ShotToLand shot, double wantedSeconds, IReadOnlyCollection<ChangeOf> locked)
    {
        var free = Enum.GetValues<ChangeOf>().Except(locked).Where(c => c != ChangeOf.Grind || shot.Setting is not null).ToList();
        // t runs from -1, as fast as people would make it, to 1, as slow
        double Seconds(IReadOnlyCollection<ChangeOf> moved, double t) =>
            Time(shot, moved.ToDictionary(c => c, c => ValueAt(shot, c, t)), wantedSeconds * Hopeless);
        LandingChange? Land(params ChangeOf[] moved) => Solve(t => Seconds(moved, t), wantedSeconds) is { } t
            ? new([.. moved.Select(c => new SoleChange(c, ValueAt(shot, c, t), Math.Abs(t)))]) : null;

        // each is a search of its own over simulated shots, so they go side by side
        var found = free.AsParallel().AsOrdered().Select(c => Land(c)).OfType<LandingChange>().ToList();
        if (found.Count == 0)
        {
            var pairs = from a in free from b in free where a < b select (a, b);
            found = [.. pairs.AsParallel().AsOrdered().Select(p => Land(p.a, p.b)).OfType<LandingChange>()];
        }

        return [.. found.OrderBy(c => c.Effort)];
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
                return Math.Min(shot.YieldGrams * (1 + (t * MostYieldShare)), Math.Max(shot.YieldGrams, largest));
            case ChangeOf.Pressure:
                return 1 - (t * MostPressureShare);
            default:
                return (shot.Setting ?? 0) + (t * MostSteps * shot.Steps.Step * (shot.Steps.FinerIsLower ? -1 : 1));
        }
    }

    private static double Time(ShotToLand shot, Dictionary<ChangeOf, double> moved, double longestSeconds)
    {
        var changed = shot.Shot with
        {
            Bed = shot.Shot.Bed with { DoseGrams = moved.GetValueOrDefault(ChangeOf.Dose, shot.DoseGrams) },
            YieldGrams = moved.GetValueOrDefault(ChangeOf.Yield, shot.YieldGrams),
            Plan = moved.TryGetValue(ChangeOf.Pressure, out var press) ? shot.Shot.Plan.Scaled(press) : shot.Shot.Plan,
        };
        if (moved.TryGetValue(ChangeOf.Grind, out var setting)) changed = GrindResistivity.With(changed, shot.ResistivityAt(setting));
        var run = SimulatedShot.Pull(changed, longestSeconds);
        return run.ReachedYield ? run.Seconds : double.PositiveInfinity;
    }

    /// <summary>
    /// False position for a time that rises with t, until it lands within a few tenths of a second; null where the wanted time lies outside.
    /// </summary>
    private static double? Solve(Func<double, double> seconds, double wanted)
    {
        double faster = -1, slower = 1;
        double fast = seconds(faster), slow = seconds(slower);
        if (fast > wanted || slow < wanted) return null;
        var t = 0.0;
        for (var i = 0; i < MostTrials; i++)
        {
            // a shot that never ends has no time to draw a line to: then halve
            var share = double.IsFinite(slow) ? Math.Clamp((wanted - fast) / Math.Max(1e-9, slow - fast), 0.05, 0.95) : 0.5;
            t = faster + (share * (slower - faster));
            var at = seconds(t);
            if (Math.Abs(at - wanted) < CloseEnoughSeconds) return t;
            if (at > wanted) (slower, slow) = (t, at);
            else (faster, fast) = (t, at);
        }

        return t;
    }
}
