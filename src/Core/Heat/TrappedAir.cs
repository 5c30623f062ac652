using MathNet.Numerics.RootFinding;
using RuddySpring.Core.Water;

namespace RuddySpring.Core.Heat;

/// <summary>
/// Boiler pressure with and without trapped air. The gauge shows p_sat(T) + p_air - p_atm: air sealed in cold at atmospheric
/// pressure follows the ideal gas law in a headspace that shrinks as the water expands (density from IAPWS-IF97). An unbled
/// boiler therefore shows pressure long before its water is hot: the false pressure of common practice.
/// </summary>
/// <param name="VolumeMl">Inner volume of the boiler in ml.</param>
/// <param name="WaterGrams">Water in it, g.</param>
/// <param name="AirShare">Air in it, as a share of what its headspace holds when it is closed: 0 (bled) to 3.</param>
/// <param name="SealedAtC">Temperature of air and water when the filler was closed, degC.</param>
/// <param name="AtmosphereBar">Pressure outside, bar absolute.</param>
public readonly record struct TrappedAir(
    double VolumeMl,
    double WaterGrams,
    double AirShare,
    double SealedAtC,
    double AtmosphereBar
)
{
    /// <summary>No boiler is filled beyond this, ml.</summary>
    public const double SmallestHeadspaceMl = 5.0;

    private const double AccuracyK = 1e-7;
    private const double NearK = 0.05;
    private const int MostTrials = 60;

    /// <summary>Headspace in ml when the water is at a temperature in degC (0 to 180).</summary>
    public double HeadspaceMl(double waterC) => Headspace(VolumeMl, WaterGrams, waterC);

    /// <summary>Share of the boiler that water fills at a temperature in degC, 0 to 1.</summary>
    public double FilledShare(double waterC) => Math.Min(1.0, WaterGrams / LiquidWater.DensityGramsPerMl(waterC) / VolumeMl);

    /// <summary>Partial pressure of the air in bar at a temperature in degC.</summary>
    public double AirBar(double waterC) =>
        AirShare <= 0.0 ? 0.0 : SealedPressureBarMl() * (waterC + Units.KelvinAtZeroC) / HeadspaceMl(waterC);

    /// <summary>What the gauge shows in bar at a temperature in degC; never below 0, as gauges stop at a pin.</summary>
    public double GaugeBar(double waterC) => Math.Max(0.0, Saturation.PressureBar(waterC) + AirBar(waterC) - AtmosphereBar);

    /// <summary>Temperature in degC of the water behind a gauge reading in bar, 0 to 4.</summary>
    /// <param name="gaugeBar">The reading.</param>
    /// <param name="nearC">Where it was a moment ago, degC, which makes it quicker to find; NaN for not known.</param>
    public double WaterC(double gaugeBar, double nearC = double.NaN)
    {
        if (AirShare <= 0.0)
            return Saturation.TemperatureC(gaugeBar + AtmosphereBar);
        var (sealedBar, atmosphere) = (SealedPressureBarMl(), AtmosphereBar);
        var (grams, volume) = (WaterGrams, VolumeMl);
        double Above(double c) =>
            Saturation.PressureBar(c)
            + (sealedBar * (c + Units.KelvinAtZeroC) / Headspace(volume, grams, c))
            - atmosphere
            - gaugeBar;
        // with air in it the water is never hotter than steam alone would need
        var high = Math.Max(SealedAtC, Saturation.TemperatureC(gaugeBar + AtmosphereBar));
        // a bracket, since a secant may leave the range where steam has a pressure
        var (below, above) = (Math.Max(SealedAtC, nearC - NearK), Math.Min(high, nearC + NearK));
        if (below < above && Above(below) < 0 && Above(above) > 0)
            return Brent.FindRoot(Above, below, above, AccuracyK, MostTrials);
        if (Above(SealedAtC) >= 0)
            return SealedAtC;
        return Above(high) <= 0 ? high : Brent.FindRoot(Above, SealedAtC, high, AccuracyK, MostTrials);
    }

    private static double Headspace(double volumeMl, double waterGrams, double waterC) =>
        Math.Max(SmallestHeadspaceMl, volumeMl - (waterGrams / LiquidWater.DensityGramsPerMl(waterC)));

    /// <summary>Amount of air as p V / T, bar ml / K.</summary>
    private double SealedPressureBarMl() =>
        AirShare
        * Math.Max(0.0, AtmosphereBar - Saturation.PressureBar(SealedAtC))
        * HeadspaceMl(SealedAtC)
        / (SealedAtC + Units.KelvinAtZeroC);
}
