namespace RuddySpring.Core.Reasoning;

/// <summary>Things that changed together since the shot before: what differs in the cup cannot be put down to one of
/// them.</summary>
public static class MovedTogether
{
    private const double HeatK = 3;
    private const double GroupK = 4;
    private const double DoseGrams = 0.4;
    private const double YieldGrams = 2;
    private const double Days = 5;

    /// <summary>A sentence about them; null for one thing or none.</summary>
    public static string? Of(ShotFacts now, ShotFacts before)
    {
        // another coffee is of another age and asks for another grind: nobody takes those two for one pair
        if (now.Coffee != before.Coffee)
            return null;
        List<string> moved = [];
        void Add(string what, bool did)
        {
            if (did)
                moved.Add(what);
        }

        Add("heat", Math.Abs((now.WaterC - before.WaterC) ?? 0) > HeatK || Math.Abs((now.GroupC - before.GroupC) ?? 0) > GroupK);
        Add("age", Math.Abs((now.AgeDays - before.AgeDays) ?? 0) > Days);
        Add("dose", Math.Abs(now.Sheet.Bed.DoseGrams - before.Sheet.Bed.DoseGrams) > DoseGrams);
        Add("grind", now.Grind is { } a && before.Grind is { } b && a.Setting != b.Setting);
        Add("yield", Math.Abs(now.Sheet.YieldGrams - before.Sheet.YieldGrams) > YieldGrams);
        return moved.Count < 2
            ? null
            : $"{First(moved)} and {moved[^1]} changed together since the shot before, so these two cannot tell them apart. "
                + "Change one, and keep the rest.";
    }

    private static string First(List<string> moved)
    {
        var all = string.Join(", ", moved.SkipLast(1));
        return char.ToUpperInvariant(all[0]) + all[1..];
    }
}
