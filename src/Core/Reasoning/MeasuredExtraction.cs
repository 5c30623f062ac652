using System.Globalization;

namespace RuddySpring.Core.Reasoning;

/// <summary>
/// Extraction from a measured strength: strength times what stands in the cup over the dose. Tools that also count the solution
/// that stays in the puck say more; this counts the cup alone (common practice names both).
/// </summary>
/// <param name="Share">Of the dry coffee, 0 to 1.</param>
/// <param name="Sentence">With its balance, and what is odd about it.</param>
public sealed record MeasuredExtraction(double Share, string Sentence)
{
    private const double MostSoluble = 0.30; // of the dry coffee (common practice)
    private const double UsualLow = 0.18;
    private const double UsualHigh = 0.24;

    /// <summary>Strength of a cup, a share of its weight, that a refractometer may have told.</summary>
    public static readonly FieldRange Strength = new("strength", "Strength", 0.01, 0.30, "");

    /// <summary>The same in %, as people type it.</summary>
    public static readonly FieldRange StrengthPercent = new(
        "strengthPercent",
        "Measured strength",
        Strength.Min * 100,
        Strength.Max * 100,
        "%"
    );

    /// <summary>Of a cup whose strength was measured.</summary>
    /// <param name="strength">0 to 1.</param>
    /// <param name="cupGrams">In the cup, g.</param>
    /// <param name="doseGrams">Dry coffee, g, above 0.</param>
    public static MeasuredExtraction Of(double strength, double cupGrams, double doseGrams)
    {
        var share = strength * cupGrams / doseGrams;
        var balance = string.Create(
            CultureInfo.InvariantCulture,
            $"{strength * 100:0.0} % of {cupGrams:0.0} g is {share * 100:0.0} % of the {doseGrams:0.0} g of coffee; "
                + $"what stays in the puck is not counted."
        );
        var odd =
            share > MostSoluble ? " That is more than dissolves: the cup, the dose or the reading is wrong."
            : share > UsualHigh ? " That is high: a fine grind and a long gentle pull reach it."
            : share < UsualLow ? " That is low: 18 to 22 % is usual."
            : "";
        return new(share, balance + odd);
    }
}
