using RuddySpring.Core.Traces;
using RuddySpring.Core.Trends;

namespace RuddySpring.Server.Ledger;

/// <summary>Says what differs between shots, and only that. A difference smaller than what people can set or read counts as
/// none.</summary>
public static class ShotComparison
{
    private sealed record Aspect(string Label, string Unit, int Digits, double Tolerance, Func<ShotView, object?> Value);

    private const string GrindSetting = "Grind setting";

    private static readonly Aspect[] Aspects =
    [
        new("Machine", "", 0, 0, s => s.Shot.Machine),
        new("Brewer", "", 0, 0, s => s.Shot.Brewer),
        new("Coffee", "", 0, 0, s => s.Shot.Bag),
        new("Grinder", "", 0, 0, s => s.Shot.Grinder),
        new(GrindSetting, "", 2, NoDifference.Setting, s => s.Shot.GrindSetting),
        new("Basket", "", 0, 0, s => s.Basket),
        new("Preparation", "", 0, 0, s => s.Preparation),
        new("Pull plan", "", 0, 0, s => s.Shot.Plan),
        new("Dose", "g", 1, NoDifference.WeighedGrams, s => s.Shot.DoseGrams),
        new("Yield aimed at", "g", 1, NoDifference.WeighedGrams, s => s.Shot.YieldGrams),
        new("Water at the puck", "degC", 1, NoDifference.Kelvin, s => s.Shot.WaterC),
        new("Group at lever-up", "degC", 1, NoDifference.Kelvin, s => s.GroupC),
        new("Seen", "", 0, 0, s => s.Seen),
        Measured("Cup", "g", 1, NoDifference.CupGrams, m => m.CupGrams),
        Measured("Ratio, 1 to", "", 2, NoDifference.Ratio, m => m.Ratio),
        Measured("To first drops", "s", 1, NoDifference.DropsSeconds, m => m.SecondsToDrops),
        Measured("Time from lever", "s", 1, NoDifference.Seconds, m => m.SecondsFromLever),
        Measured("Time from first pressure", "s", 1, NoDifference.Seconds, m => m.SecondsFromPressure),
        Measured("Time from first drops", "s", 1, NoDifference.Seconds, m => m.SecondsFromDrops),
        Measured("Peak pressure", "bar", 1, NoDifference.PeakBar, m => m.PeakBar),
        Measured("Mean pressure", "bar", 1, NoDifference.MeanBar, m => m.MeanBar),
        Measured("Mean flow", "g/s", 2, NoDifference.FlowGramsPerS, m => m.MeanFlowGramsPerS),
        Measured("Work", "J", 1, NoDifference.WorkJoules, m => m.WorkJoules),
        Measured("R10", "bar s/ml", 1, NoDifference.ResistanceBarSPerMl, m => m.R10),
        new("Sour", "of 4", 0, NoDifference.Mark, s => s.Shot.Taste.Sour),
        new("Bitter", "of 4", 0, NoDifference.Mark, s => s.Shot.Taste.Bitter),
        new("Dry", "of 4", 0, NoDifference.Mark, s => s.Shot.Taste.Dry),
        new("Sweet", "of 4", 0, NoDifference.Mark, s => s.Shot.Taste.Sweet),
        new("Body", "of 4", 0, NoDifference.Mark, s => s.Shot.Taste.Body),
        new("Liking", "of 5", 0, NoDifference.Mark, s => s.Shot.Taste.Liking),
        new("Words", "", 0, 0, s => s.Shot.Taste.Words),
    ];

    /// <summary>Compares two or more shots.</summary>
    public static Comparison Of(IReadOnlyList<ShotView> shots, int? bestOfBag)
    {
        var differences = new List<ComparedThing>();
        var same = new List<ComparedThing>();
        foreach (var aspect in Aspects)
        {
            var values = shots.Select(aspect.Value).ToList();
            var compared = values.Select(v => new ComparedValue(Number(v), Number(v) is null ? v?.ToString() : null)).ToList();
            if (compared.FirstOrDefault(v => v.Number is not null || !string.IsNullOrEmpty(v.Text)) is not { } any)
                continue;
            if (Differs(values, aspect.Tolerance))
                differences.Add(
                    new(
                        aspect.Label,
                        aspect.Unit,
                        aspect.Digits,
                        compared,
                        // numbers of two grinders have no mean
                        aspect.Label == GrindSetting
                        && shots.DistinctBy(s => s.Shot.Grinder).Count() > 1
                            ? null
                            : MeanAndSpread.Of([.. compared.Select(v => v.Number).OfType<double>()])
                    )
                );
            else
                same.Add(new(aspect.Label, aspect.Unit, aspect.Digits, [any]));
        }

        return new(shots, differences, same, bestOfBag);
    }

    private static Aspect Measured(string label, string unit, int digits, double tolerance, Func<Measures, double?> value) =>
        new(label, unit, digits, tolerance, s => value(s.Shot.Measures));

    private static bool Differs(List<object?> values, double tolerance)
    {
        var numbers = values.Select(Number).ToList();
        if (numbers.All(n => n is not null))
            return numbers.Max() - numbers.Min() > tolerance;
        return values.Select(v => v?.ToString() ?? "").Distinct().Count() > 1;
    }

    private static double? Number(object? value) =>
        value switch
        {
            double d => d,
            int i => i,
            _ => null,
        };
}
