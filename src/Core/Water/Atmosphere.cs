namespace RuddySpring.Core.Water;

/// <summary>The standard atmosphere, ISO 2533:1975, troposphere (geopotential height up to 11 km).</summary>
public static class Atmosphere
{
    /// <summary>Altitudes this application serves: from the lowest shores to the highest huts.</summary>
    public static readonly FieldRange Altitude = new("altitudeMetres", "Altitude", -430, 6000, "m");

    /// <summary>Sea-level pressure in bar, by definition of the standard atmosphere.</summary>
    public const double SeaLevelBar = 1.01325;

    /// <summary>Absolute pressure in bar at a height in metres above sea level.</summary>
    /// <exception cref="FieldRangeException">Outside <see cref="Altitude"/>.</exception>
    public static double PressureBar(double altitudeMetres)
    {
        Altitude.Check(altitudeMetres);
        return SeaLevelBar * Math.Pow(1.0 - (0.0065 * altitudeMetres / 288.15), 9.80665 / (0.0065 * 287.05287));
    }
}
