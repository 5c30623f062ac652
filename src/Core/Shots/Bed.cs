using RuddySpring.Core.Puck;

namespace RuddySpring.Core.Shots;

/// <summary>
/// The coffee as it lies in the basket. Its resistance is the grind's resistivity times the length of the bed over its area
/// (Darcy), and the length goes as dose over area: R_b = resistivity * dose / area^2. Another dose or basket of the same grind is
/// this record <c>with</c> it.
/// </summary>
public sealed record Bed
{
    /// <summary>Dose of the bed that a resistivity is told for, g.</summary>
    public const double ReferenceDoseGrams = 15;

    /// <summary>Diameter of the straight basket that a resistivity is told for, mm.</summary>
    public const double ReferenceDiameterMm = 51;

    private const double TaperedArea = 0.93; // of the rim's, in the mean over the depth

    /// <summary>
    /// What the grind resists, in bar s/ml: the resistance R_b that <see cref="ReferenceDoseGrams"/> of it would have in a
    /// straight basket of <see cref="ReferenceDiameterMm"/>, wet, swollen and fresh, at 93 degC.
    /// </summary>
    public required double Resistivity { get; init; }

    /// <summary>Dry coffee, g, 5 to 30.</summary>
    public required double DoseGrams { get; init; }

    /// <summary>The basket.</summary>
    public required Basket Basket { get; init; }

    /// <summary>How it was prepared; null where nobody noted it.</summary>
    public Preparation? Preparation { get; init; }

    /// <summary>Spread of the lanes where it is known by itself; null for what the preparation makes of it.</summary>
    public double? OwnLaneSpread { get; init; }

    /// <summary>Spread of the lanes' permeability: standard deviation of its logarithm.</summary>
    public double LaneSpread => OwnLaneSpread ?? Preparation?.LaneSpread() ?? Preparation.UsualLaneSpread;

    /// <summary>Resistance R_b in bar s/ml of this bed at 93 degC.</summary>
    public double ResistanceBarSPerMl => Resistivity * PerResistivity(DoseGrams, Basket);

    /// <summary>Of a bed whose resistance R_b in bar s/ml is known.</summary>
    public static Bed OfResistance(double resistanceBarSPerMl, double doseGrams, Basket basket) =>
        new()
        {
            Resistivity = resistanceBarSPerMl / PerResistivity(doseGrams, basket),
            DoseGrams = doseGrams,
            Basket = basket,
        };

    /// <summary>Resistance of a bed over the resistivity of its grind.</summary>
    public static double PerResistivity(double doseGrams, Basket basket)
    {
        var area = Math.Pow(basket.DiameterMm / ReferenceDiameterMm, 2) * (basket.Shape == BasketShape.Tapered ? TaperedArea : 1);
        return doseGrams / ReferenceDoseGrams / (area * area);
    }
}
