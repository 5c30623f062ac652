using System.Globalization;

namespace RuddySpring.Core.Trends;

/// <summary>A trend in a sentence or two.</summary>
public static class TrendWords
{
    private const int Thin = 12;

    /// <summary>What one quantity does with another, and how far it can be trusted.</summary>
    /// <param name="x">Against which.</param>
    /// <param name="y">Which.</param>
    /// <param name="line">Null where there is too little.</param>
    /// <param name="correlation">Null likewise.</param>
    /// <param name="count">Shots that have both.</param>
    /// <param name="coffees">How many coffees are among them.</param>
    public static string Of(
        TrendQuantity x,
        TrendQuantity y,
        TrendLine? line,
        RankCorrelation? correlation,
        int count,
        int coffees = 1
    )
    {
        if (count == 0)
            return $"No shot has both {Lower(x.Name)} and {Lower(y.Name)}.";
        if (line is null || correlation is null)
            return FormattableString.Invariant(
                $"{count} {(count == 1 ? "shot has" : "shots have")} both: too few, or too much alike, for a trend."
            );
        var thin = count < Thin ? " There are few of them, so take it as a hint." : "";
        if (coffees > 1)
            thin += FormattableString.Invariant($" {coffees} coffees are mixed in it; choose one to see it alone.");
        if (!line.IsTold)
            return FormattableString.Invariant($"In {count} shots {Lower(y.Name)} does not go with {Lower(x.Name)}.{thin}");
        var by = Math.Abs(line.Slope);
        return string.Create(
            CultureInfo.InvariantCulture,
            $"In {count} shots {Lower(y.Name)} {(line.Slope > 0 ? "rises" : "falls")} by {Amount(by, y.Unit)} for "
                + $"{Each(x.Unit)} of {Lower(x.Name)} (with 95 % certainty between "
                + $"{Amount(by - line.SlopePlusMinus, y.Unit)} and {Amount(by + line.SlopePlusMinus, y.Unit)}).{thin}"
        );
    }

    /// <summary>A difference with its unit, marked so that it is said in the reader's.</summary>
    private static string Amount(double value, string unit) =>
        unit switch
        {
            "bar" or "bar s/ml" => FormattableString.Invariant($"{new Quantity(value, unit):0.00}"),
            "degC" => FormattableString.Invariant($"{Quantity.Kelvin(value):0.0}"),
            "" => value.ToString("0.00", CultureInfo.InvariantCulture),
            _ => FormattableString.Invariant($"{value:0.00} {unit}"),
        };

    private static string Each(string unit) =>
        unit switch
        {
            "days" => "each day",
            "degC" => FormattableString.Invariant($"each {Quantity.Kelvin(1):0.#}"),
            "bar" or "bar s/ml" => FormattableString.Invariant($"each {new Quantity(1, unit):0.#}"),
            "" => "each 1",
            _ => $"each {unit}",
        };

    private static string Lower(string name) => name == "R10" ? name : char.ToLowerInvariant(name[0]) + name[1..];
}
