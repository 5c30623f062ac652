using RuddySpring.Core.Water;

namespace RuddySpring.Core.Heat;

/// <summary>
/// Boiler pressure with and without trapped air. The gauge shows p_sat(T) + p_air - p_atm: air sealed in cold at atmospheric pressure
/// follows the ideal gas law in a headspace that shrinks as the water expands (density from IAPWS-IF97). An unbled boiler therefore shows
/// pressure long before its water is hot: the false pressure of common practice.
/// </summary>
/// <param name="VolumeMl">Inner volume of the boiler in ml.</param>
/// <param name="WaterGrams">Water in it, g.</param>
/// <param name="AirShare">Air in it, as a share of what its headspace holds when it is closed: 0 (bled) to 1.2.</param>
/// <param name="SealedAtC">Temperature of air and water when the filler was closed, degC.</param>
/// <param name="AtmosphereBar">Pressure outside, bar absolute.</param>
public readonly record struct TrappedAir(double VolumeMl, double WaterGrams, double AirShare, double SealedAtC, double AtmosphereBar)
{
    /// <summary>No boiler is filled beyond this, ml.</summary>
    public const double SmallestHeadspaceMl = 5.0;

    private const double HighestC = 180.0;

    /// <summary>Headspace in ml when the water is at a temperature in degC (0 to 180).</summary>
    public double HeadspaceMl(double waterC) =>
        Math.Max(SmallestHeadspaceMl, VolumeMl - (WaterGrams / LiquidWater.DensityGramsPerMl(waterC)));

    /// <summary>Share of the boiler that water fills at a temperature in degC, 0 to 1.</summary>
    public double FilledShare(double waterC) => Math.Min(1.0, WaterGrams / LiquidWater.DensityGramsPerMl(waterC) / VolumeMl);

    /// <summary>Partial pressure of the air in bar at a temperature in degC.</summary>
    public double AirBar(double waterC)
    {
        if (AirShare <= 0.0) return 0.0;
        var dry = Math.Max(0.0, AtmosphereBar - Saturation.PressureBar(SealedAtC));
        return AirShare * dry * HeadspaceMl(SealedAtC) / HeadspaceMl(waterC)
            * (waterC + Units.KelvinAtZeroC) / (SealedAtC + Units.KelvinAtZeroC);
    }

    /// <summary>What the gauge shows in bar at a temperature in degC; never below 0, as gauges stop at a pin.</summary>
    public double GaugeBar(double waterC) => Math.Max(0.0, Saturation.PressureBar(waterC) + AirBar(waterC) - AtmosphereBar);

    /// <summary>Temperature in degC of the water behind a gauge reading in bar, 0 to 4.</summary>
    public double WaterC(double gaugeBar)
    {
        if (AirShare <= 0.0) return Saturation.TemperatureC(gaugeBar + AtmosphereBar);
        var low = SealedAtC;
        var high = HighestC;
        // halving: the curve is smooth and rising
        for (var i = 0; i < 60 && high - low > 1e-7; i++)
        {
            var middle = (low + high) / 2.0;
            if (Saturation.PressureBar(middle) + AirBar(middle) - AtmosphereBar < gaugeBar) low = middle;
            else high = middle;
        }

        return (low + high) / 2.0;
    }
}
