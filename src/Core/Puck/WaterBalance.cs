namespace RuddySpring.Core.Puck;

/// <summary>
/// What a puck keeps, in grams. The grains hold water (a g per g of dry coffee) and give solids to the cup; on a scale the spent
/// puck less the dose shows only the difference, a_w = a - solids / dose. Common practice: a_w is about 1.05 g/g, 0.9 to 1.3
/// seen.
/// </summary>
public static class WaterBalance
{
    /// <summary>Solids that a usual cup takes from a gram of coffee, g/g: an extraction of 20 % (common practice, 18 to 22
    /// %).</summary>
    public const double UsualSolidsPerGram = 0.20;

    /// <summary>What a spent puck usually weighs more than its dose, g per g of dose.</summary>
    public const double UsualWeighedPerGram = 1.05;

    /// <summary>Water usually held, g per g of dry coffee.</summary>
    public const double UsualHeldPerGram = UsualWeighedPerGram + UsualSolidsPerGram;

    /// <summary>
    /// Solids that a cup of a ratio takes from a gram of coffee, g/g: a curve through 13 to 16 % at 1:1, 20 % at 1:2 and 21 to 22
    /// % at 1:3 (common practice, from memory).
    /// </summary>
    public static double SolidsPerGram(double ratio) => MostSolidsPerGram * (1 - Math.Exp(-RatioPace * Math.Max(0, ratio)));

    private const double MostSolidsPerGram = 0.236;
    private const double RatioPace = 0.97;

    /// <summary>Water held, g/g, of a puck that was weighed: spent puck less dose, over dose.</summary>
    public static double HeldPerGram(double weighedPerGram, double solidsPerGram = UsualSolidsPerGram) =>
        weighedPerGram + solidsPerGram;

    /// <summary>What the scale would show, spent puck less dose over dose, of a puck that holds so much water, g/g.</summary>
    public static double WeighedPerGram(double heldPerGram, double solidsPerGram = UsualSolidsPerGram) =>
        heldPerGram - solidsPerGram;
}
