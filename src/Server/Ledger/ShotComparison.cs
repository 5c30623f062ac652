using System.Globalization;
using RuddySpring.Core.Traces;

namespace RuddySpring.Server.Ledger;

/// <summary>Says what differs between shots, and only that. A difference smaller than what people can set or read counts as none.</summary>
public static class ShotComparison
{
    private sealed record Aspect(string Label, string Unit, string Format, double Tolerance, Func<ShotView, object?> Value);

    private static readonly Aspect[] Aspects =
    [
        new("Machine", "", "", 0, s => s.Shot.Machine),
        new("Brewer", "", "", 0, s => s.Shot.Brewer),
        new("Coffee", "", "", 0, s => s.Shot.Bag),
        new("Grinder", "", "", 0, s => s.Shot.Grinder),
        new("Grind setting", "", "0.##", 0.001, s => s.Shot.GrindSetting),
        new("Basket", "", "", 0, s => s.Basket),
        new("Preparation", "", "", 0, s => s.Preparation),
        new("Pull plan", "", "", 0, s => s.Shot.Plan),
        new("Dose", "g", "0.0", 0.15, s => s.Shot.DoseGrams),
        new("Yield aimed at", "g", "0.0", 0.15, s => s.Shot.YieldGrams),
        new("Water at the puck", "degC", "0.0", 1.0, s => s.Shot.WaterC),
        Measured("Cup", "g", "0.0", 0.5, m => m.CupGrams),
        Measured("Ratio, 1 to", "", "0.00", 0.05, m => m.Ratio),
        Measured("To first drops", "s", "0.0", 0.5, m => m.SecondsToDrops),
        Measured("Time from lever", "s", "0.0", 1.0, m => m.SecondsFromLever),
        Measured("Time from first pressure", "s", "0.0", 1.0, m => m.SecondsFromPressure),
        Measured("Time from first drops", "s", "0.0", 1.0, m => m.SecondsFromDrops),
        Measured("Peak pressure", "bar", "0.0", 0.3, m => m.PeakBar),
        Measured("Mean pressure", "bar", "0.0", 0.2, m => m.MeanBar),
        Measured("Mean flow", "g/s", "0.00", 0.05, m => m.MeanFlowGramsPerS),
        Measured("Work", "J", "0.0", 1.0, m => m.WorkJoules),
        Measured("R10", "bar s/ml", "0.0", 0.5, m => m.R10),
        new("Sour", "of 4", "0", 0.5, s => s.Shot.Taste.Sour),
        new("Bitter", "of 4", "0", 0.5, s => s.Shot.Taste.Bitter),
        new("Dry", "of 4", "0", 0.5, s => s.Shot.Taste.Dry),
        new("Sweet", "of 4", "0", 0.5, s => s.Shot.Taste.Sweet),
        new("Body", "of 4", "0", 0.5, s => s.Shot.Taste.Body),
        new("Liking", "of 5", "0", 0.5, s => s.Shot.Taste.Liking),
        new("Words", "", "", 0, s => s.Shot.Taste.Words),
    ];

    /// <summary>Compares two or more shots.</summary>
    public static Comparison Of(IReadOnlyList<ShotView> shots)
    {
        var differences = new List<Difference>();
        var same = new List<string>();
        foreach (var aspect in Aspects)
        {
            var values = shots.Select(aspect.Value).ToList();
            var texts = values.Select(v => Text(v, aspect.Format)).ToList();
            if (texts.All(string.IsNullOrEmpty)) continue;
            if (Differs(values, aspect.Tolerance)) differences.Add(new(aspect.Label, aspect.Unit, texts));
            else same.Add($"{aspect.Label} {texts.First(t => !string.IsNullOrEmpty(t))} {aspect.Unit}".TrimEnd());
        }

        return new(shots, differences, same);
    }

    private static Aspect Measured(string label, string unit, string format, double tolerance, Func<Measures, double?> value) =>
        new(label, unit, format, tolerance, s => value(s.Shot.Measures));

    private static bool Differs(List<object?> values, double tolerance)
    {
        var numbers = values.Select(Number).ToList();
        if (numbers.All(n => n is not null)) return numbers.Max() - numbers.Min() > tolerance;
        return values.Select(v => v?.ToString() ?? "").Distinct().Count() > 1;
    }

    private static double? Number(object? value) => value switch { double d => d, int i => i, _ => null };

    private static string? Text(object? value, string format) =>
        Number(value) is { } number ? number.ToString(format, CultureInfo.InvariantCulture) : value?.ToString();
}
