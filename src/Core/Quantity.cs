using System.Globalization;
using System.Text.RegularExpressions;

namespace RuddySpring.Core;

/// <summary>
/// A quantity inside a sentence. In an interpolated string it writes itself as a mark, <c>{5.3 bar}</c> or, where the unit is not
/// to be said, <c>{5.3 bar!}</c>: whoever shows the sentence says it in the reader's units, with as many decimals as the mark
/// has.
/// </summary>
/// <param name="Value">In the core's own unit.</param>
/// <param name="Unit">bar, bar s/ml, degC, K (a difference of temperatures) or kgf.</param>
/// <param name="Bare">Whether the number stands without its unit, as the first of two.</param>
public readonly partial record struct Quantity(double Value, string Unit, bool Bare = false) : IFormattable
{
    public static Quantity Bar(double bar) => new(bar, "bar");

    public static Quantity BarSPerMl(double resistance) => new(resistance, "bar s/ml");

    public static Quantity Celsius(double degC) => new(degC, "degC");

    public static Quantity Kelvin(double kelvin) => new(kelvin, "K");

    public static Quantity Kgf(double kgf) => new(kgf, "kgf");

    /// <summary>Whether values of a unit are marked: those that people read in units of their own.</summary>
    public static bool Marks(string unit) => unit is "bar" or "bar s/ml" or "degC" or "K" or "kgf";

    /// <summary>The mark, with the number in a format such as 0.0.</summary>
    public string ToString(string? format, IFormatProvider? formatProvider) =>
        $"{{{Value.ToString(format ?? "0.##", CultureInfo.InvariantCulture)} {Unit}{(Bare ? "!" : "")}}}";

    public override string ToString() => ToString(null, null);

    /// <summary>A sentence with its marks said in the core's own units, for logs and for programs.</summary>
    public static string Plain(string sentence) =>
        Mark()
            .Replace(sentence, m =>
                m.Groups["bare"].Success ? m.Groups["number"].Value : $"{m.Groups["number"].Value} {m.Groups["unit"].Value}"
            );

    [GeneratedRegex(@"\{(?<number>-?[\d.]+) (?<unit>bar s/ml|bar|degC|K|kgf)(?<bare>!)?\}")]
    private static partial Regex Mark();
}
