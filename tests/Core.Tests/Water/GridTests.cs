using RuddySpring.Core.Milk;
using RuddySpring.Core.Water;

namespace RuddySpring.Core.Tests.Water;

/// <summary>The whole range in use against an independent property library, see tests/reference/water.py.</summary>
public sealed class GridTests
{
    [Fact] // IAPWS-95 and IF97 agree to a few hundredths of a percent on the saturation line (IAPWS advisory note)
    public void Saturation_density_heat_capacity_and_viscosity_agree_with_the_scientific_formulation()
    {
        var rows = ReferenceFile.Rows("water.csv").ToList();
        Assert.Equal(36, rows.Count);
        foreach (var row in rows)
        {
            var c = row[0];
            Assert.Equal(row[1], Saturation.PressureBar(c), row[1] * 3e-4);
            Assert.Equal(c, Saturation.TemperatureC(row[1]), 0.01);
            Assert.Equal(row[2] / 1000, 0.001 / LiquidWater.SpecificVolume(c, row[1]), row[2] / 1000 * 5e-5);
            Assert.Equal(row[3], LiquidWater.HeatCapacity(c, row[1]), row[3] * 1e-3);
            Assert.Equal(row[4], Viscosity.MicroPascalSeconds(c + Units.KelvinAtZeroC, row[2]), row[4] * 2e-4);
        }
    }

    [Theory] // steam tables (IAPWS-IF97, from memory): latent heat 2256.5 J/g at 100 degC, 2202.1 at 120, 2229.6 at 110
    [InlineData(100, 2256.5)]
    [InlineData(110, 2229.6)]
    [InlineData(120, 2202.1)]
    public void Latent_heat(double saturationC, double expected) => Assert.Equal(expected, Steam.LatentJPerG(saturationC), 4.0);

    [Fact] // 150 g of milk from 4 to 60 degC: about 33 kJ, about 14 g of steam
    public void Milk_takes_its_steam()
    {
        Assert.Equal(33_000, new MilkOrder(150).HeatJ, 300.0);
        Assert.Equal(13.6, new MilkOrder(150).SteamGrams(120), 0.6);
    }

    [Theory] // the boiling point read off a thermometer gives the height back (ISO 2533 and IF97): 93.3 degC at 2000 m
    [InlineData(100.0, 0, 12)]
    [InlineData(93.3, 2000, 25)]
    [InlineData(96.7, 1000, 25)]
    public void A_measured_boiling_point_gives_the_altitude(double boilingC, double metres, double tolerance) =>
        Assert.Equal(metres, Atmosphere.AltitudeMetres(Saturation.PressureBar(boilingC)), tolerance);

    [Fact]
    public void Altitude_and_pressure_are_inverse()
    {
        for (var h = -400.0; h <= 5900; h += 100)
            Assert.Equal(h, Atmosphere.AltitudeMetres(Atmosphere.PressureBar(h)), 1e-6);
        Assert.Throws<FieldRangeException>(() => Atmosphere.AltitudeMetres(0.2));
    }
}
