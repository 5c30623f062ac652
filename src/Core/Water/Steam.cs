namespace RuddySpring.Core.Water;

/// <summary>Steam as a boiler gives it and milk takes it.</summary>
public static class Steam
{
    /// <summary>Heat capacity of hot liquid water in J/(g K), mean of 20 to 120 degC (steam tables).</summary>
    public const double WaterJPerGK = 4.2;

    /// <summary>Heat capacity of whole milk in J/(g K) (food engineering handbooks give 3.9 to 3.95).</summary>
    public const double MilkJPerGK = 3.93;

    /// <summary>
    /// Latent heat in J/g at a saturation temperature in degC, 80 to 140: a straight line through 2256.5 at 100 degC and 2202 at
    /// 120 (steam tables), good to 0.2 %.
    /// </summary>
    public static double LatentJPerG(double saturationC) => 2256.5 - (2.72 * (saturationC - 100.0));

    /// <summary>Steam in g that gives a heat in J: every gram condenses and cools to the end temperature in degC.</summary>
    public static double GramsForHeat(double heatJ, double steamC, double toC) =>
        heatJ / (LatentJPerG(steamC) + (WaterJPerGK * (steamC - toC)));
}
