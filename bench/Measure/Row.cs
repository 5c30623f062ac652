using System.Text.Json;

namespace RuddySpring.Measure;

/// <summary>A figure beside its budget.</summary>
public sealed record Row(string Name, double Value, string Unit, double Budget, bool Ok)
{
    public static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web);

    /// <summary>A figure that must not exceed its budget.</summary>
    public static Row AtMost(string name, double value, string unit, double budget) =>
        new(name, Math.Round(value, 3), unit, budget, value <= budget);

    /// <summary>A figure that must reach its budget.</summary>
    public static Row AtLeast(string name, double value, string unit, double budget) =>
        new(name, Math.Round(value, 3), unit, budget, value >= budget);

    /// <summary>The value below which a share of the samples lies, 0 to 1.</summary>
    public static double Percentile(IReadOnlyCollection<double> samples, double share)
    {
        var sorted = samples.Order().ToArray();
        return sorted[Math.Clamp((int)Math.Ceiling(share * sorted.Length) - 1, 0, sorted.Length - 1)];
    }
}
