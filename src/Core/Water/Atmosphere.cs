namespace RuddySpring.Core.Water;

/// <summary>The standard atmosphere, ISO 2533:1975, troposphere (geopotential height up to 11 km).</summary>
public static class Atmosphere
{
    /// <summary>Altitudes this application serves: from the lowest shores to the highest huts.</summary>
    public static readonly FieldRange Altitude = new("altitudeMetres", "Altitude", -430, 6000, "m");

    /// <summary>Sea-level pressure in bar, by definition of the standard atmosphere.</summary>
    public const double SeaLevelBar = 1.01325;

    private const double LapseKPerM = 0.0065;
    private const double SeaLevelK = 288.15;
    private const double Exponent = 9.80665 / (LapseKPerM * 287.05287);

    /// <summary>Absolute pressure in bar at a height in metres above sea level.</summary>
    /// <exception cref="FieldRangeException">Outside <see cref="Altitude"/>.</exception>
    public static double PressureBar(double altitudeMetres)
    {
        Altitude.Check(altitudeMetres);
        return SeaLevelBar * Math.Pow(1.0 - (LapseKPerM * altitudeMetres / SeaLevelK), Exponent);
    }

    /// <summary>Height in metres at which the standard atmosphere has an absolute pressure in bar.</summary>
    /// <exception cref="FieldRangeException">The height is outside <see cref="Altitude"/>.</exception>
    public static double AltitudeMetres(double pressureBar) =>
        Altitude.Check(SeaLevelK / LapseKPerM * (1.0 - Math.Pow(pressureBar / SeaLevelBar, 1.0 / Exponent)));
}
