namespace RuddySpring.Core;

/// <summary>
/// Exact conversion factors. Sources: kgf = 9.80665 N and psi = 6894.757 Pa (NIST SP 811, appendix B), inch-pound ounce
/// 28.349523125 g (same), degF by definition.
/// </summary>
public static class Units
{
    /// <summary>Newtons in one kilogram-force, exact.</summary>
    public const double NewtonsPerKgf = 9.80665;

    /// <summary>Bar in one pound-force per square inch.</summary>
    public const double BarPerPsi = 0.06894757293168361;

    /// <summary>Bar in one kilopascal, exact.</summary>
    public const double BarPerKpa = 0.01;

    /// <summary>Grams in one avoirdupois ounce, exact.</summary>
    public const double GramsPerOunce = 28.349523125;

    /// <summary>Joules in one bar millilitre, exact: work of 1 ml moved against 1 bar.</summary>
    public const double JoulesPerBarMl = 0.1;

    /// <summary>Kelvin at 0 degC.</summary>
    public const double KelvinAtZeroC = 273.15;

    /// <summary>Celsius from Fahrenheit.</summary>
    public static double CelsiusFromFahrenheit(double fahrenheit) => (fahrenheit - 32.0) / 1.8;
}
