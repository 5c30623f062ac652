using RuddySpring.Core.Water;

namespace RuddySpring.Core.Milk;

/// <summary>What is steamed.</summary>
public enum MilkKind
{
    Whole,
    Skimmed,
    Oat,
    Soy,
    Almond,
}

/// <summary>How much air is worked in.</summary>
public enum MilkStretch
{
    /// <summary>None: hot milk.</summary>
    None,

    /// <summary>About a third more: silky, for a latte-like drink (common practice).</summary>
    Silky,

    /// <summary>About two thirds more: foamy (common practice).</summary>
    Foamy,
}

/// <summary>Milk for a drink.</summary>
/// <param name="Grams">How much, g, 0 to 400; 0 for none.</param>
/// <param name="Kind">Which.</param>
/// <param name="Stretch">How foamy.</param>
/// <param name="FromC">As it comes, degC, 0 to 40.</param>
/// <param name="ToC">As it is drunk, degC, 40 to 75; null for what is usual for its kind.</param>
public sealed record MilkOrder(
    double Grams,
    MilkKind Kind = MilkKind.Whole,
    MilkStretch Stretch = MilkStretch.Silky,
    double FromC = MilkOrder.FridgeC,
    double? ToC = null
)
{
    /// <summary>From the fridge, degC (common practice).</summary>
    public const double FridgeC = 4;

    public static readonly FieldRange Amount = new("milkGrams", "Milk", 0, 400, "g");
    public static readonly FieldRange From = new("fromC", "Milk at the start", 0, 40, "degC");
    public static readonly FieldRange To = new("toC", "Milk when ready", 40, 75, "degC");

    private const double DensityGramsPerMl = 1.03; // cow's milk at 20 degC; plant milks within a few hundredths

    /// <summary>As it is drunk, degC.</summary>
    public double EndC => ToC ?? UsualEndC(Kind);

    /// <summary>Heat that warms it, J.</summary>
    public double HeatJ => Grams * HeatCapacityJPerGK(Kind) * Math.Max(0, EndC - FromC);

    /// <summary>Volume before, ml.</summary>
    public double VolumeMl => Grams / DensityGramsPerMl;

    /// <summary>Volume with its foam, ml.</summary>
    public double StretchedMl => VolumeMl * (1 + StretchShare);

    /// <summary>By how much it is stretched, as a share of its volume (common practice).</summary>
    public double StretchShare =>
        Stretch switch
        {
            MilkStretch.Silky => 1 / 3.0,
            MilkStretch.Foamy => 2 / 3.0,
            _ => 0,
        };

    /// <summary>Steam in g of a temperature in degC that warms it: each gram condenses and cools to the milk's end
    /// temperature.</summary>
    public double SteamGrams(double steamC) => Steam.GramsForHeat(HeatJ, steamC, EndC);

    /// <summary>
    /// Heat capacity, J/(g K): whole milk 3.93, skimmed 3.97 (food engineering handbooks give 3.9 to 4.0); plant milks by their
    /// water, nine tenths and more of them [from memory].
    /// </summary>
    public static double HeatCapacityJPerGK(MilkKind kind) =>
        kind switch
        {
            MilkKind.Whole => Steam.MilkJPerGK,
            MilkKind.Skimmed => 3.97,
            MilkKind.Oat => 3.9,
            MilkKind.Soy => 3.95,
            _ => 4.05,
        };

    /// <summary>End temperature, degC: cow's milk 60; soy and almond curdle sooner (common practice).</summary>
    public static double UsualEndC(MilkKind kind) => kind is MilkKind.Soy or MilkKind.Almond ? 55 : 60;

    /// <summary>The order with every number checked.</summary>
    /// <exception cref="FieldRangeException">A number is out of range.</exception>
    public MilkOrder Checked()
    {
        Amount.Check(Grams);
        From.Check(FromC);
        if (ToC is { } to)
            To.Check(to);
        return this;
    }
}
