using RuddySpring.Core.Reasoning;
using RuddySpring.Core.Traces;

namespace RuddySpring.Core.Trends;

/// <summary>What trends are drawn from: one shot's numbers; null where nobody knows.</summary>
/// <param name="Id">Its number in the ledger.</param>
/// <param name="PulledAt">When, UTC.</param>
/// <param name="AgeDays">Days from roast.</param>
/// <param name="GrindSetting">On the grinder's own scale.</param>
/// <param name="DoseGrams">Dose, g.</param>
/// <param name="YieldGrams">Aimed at, g.</param>
/// <param name="WaterC">Water at the puck, degC.</param>
/// <param name="GroupC">Outside of the group at lever-up, degC.</param>
/// <param name="Strength">By refractometer, 0 to 1.</param>
/// <param name="Measures">What the trace says.</param>
/// <param name="Taste">How it tasted.</param>
public sealed record TrendShot(
    int Id,
    DateTime PulledAt,
    double? AgeDays,
    double? GrindSetting,
    double DoseGrams,
    double YieldGrams,
    double? WaterC,
    double? GroupC,
    double? Strength,
    Measures Measures,
    TasteMarks Taste
);

/// <summary>A quantity that can be set against another.</summary>
/// <param name="Key">Stable key.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Unit">Unit of the wire; empty for none.</param>
/// <param name="Digits">Decimals that say something.</param>
/// <param name="Tasted">Whether the tongue says it: it does not go with liking by itself.</param>
/// <param name="Of">Of a shot.</param>
public sealed record TrendQuantity(string Key, string Name, string Unit, int Digits, bool Tasted, Func<TrendShot, double?> Of)
{
    /// <summary>All of them.</summary>
    public static IReadOnlyList<TrendQuantity> All { get; } =
    [
        new("age", "Age from roast", "days", 0, false, s => s.AgeDays),
        new("grind", "Grind setting", "", 2, false, s => s.GrindSetting),
        new("dose", "Dose", "g", 1, false, s => s.DoseGrams),
        new("ratio", "Ratio, 1 to", "", 2, false, s => s.Measures.Ratio),
        new("cup", "Cup", "g", 1, false, s => s.Measures.CupGrams),
        new("time", "Time from lever", "s", 0, false, s => s.Measures.SecondsFromLever),
        new("drops", "Time to first drops", "s", 0, false, s => s.Measures.SecondsToDrops),
        new("peak", "Peak pressure", "bar", 1, false, s => s.Measures.PeakBar),
        new("mean", "Mean pressure", "bar", 1, false, s => s.Measures.MeanBar),
        new("flow", "Mean flow", "g/s", 2, false, s => s.Measures.MeanFlowGramsPerS),
        new("work", "Work", "J", 1, false, s => s.Measures.WorkJoules),
        new("r10", "R10", "bar s/ml", 1, false, s => s.Measures.R10),
        new("water", "Water at the puck", "degC", 0, false, s => s.WaterC),
        new("group", "Group at lever-up", "degC", 0, false, s => s.GroupC),
        new("strength", "Strength", "%", 1, false, s => s.Strength * 100),
        new("extraction", "Extraction", "%", 1, false, Extraction),
        new("sour", "Sour", "", 0, true, s => s.Taste.Sour),
        new("bitter", "Bitter", "", 0, true, s => s.Taste.Bitter),
        new("dry", "Dry", "", 0, true, s => s.Taste.Dry),
        new("sweet", "Sweet", "", 0, true, s => s.Taste.Sweet),
        new("body", "Body", "", 0, true, s => s.Taste.Body),
        new("liking", "Liking", "", 0, true, s => s.Taste.Liking),
    ];

    /// <summary>The one with a key.</summary>
    /// <param name="key">The key.</param>
    /// <param name="field">The field that names it, for the error.</param>
    /// <exception cref="DoesNotFitException">There is none.</exception>
    public static TrendQuantity Named(string key, string field) =>
        All.FirstOrDefault(q => q.Key == key)
        ?? throw new DoesNotFitException(field, $"{field} must be one of {string.Join(", ", All.Select(q => q.Key))}.");

    private static double? Extraction(TrendShot shot) =>
        shot is { Strength: { } strength, Measures.CupGrams: { } cup }
            ? 100 * MeasuredExtraction.Of(strength, cup, shot.DoseGrams).Share
            : null;
}
