using RuddySpring.Core.Water;

namespace RuddySpring.Core.Tests.Water;

/// <summary>Published tables of the water formulations. Values from memory of the releases; they agree with the equations to the
/// digits given.</summary>
public sealed class WaterTests
{
    [Theory] // IAPWS-IF97, table 36 [from memory]
    [InlineData(1.0, 372.755919)]
    [InlineData(10.0, 453.035632)]
    [InlineData(100.0, 584.149488)]
    public void Saturation_temperature_matches_table_36(double bar, double kelvin) =>
        Assert.Equal(kelvin, Saturation.TemperatureC(bar) + Units.KelvinAtZeroC, 5e-6);

    [Theory] // IAPWS-IF97, table 35 [from memory]
    [InlineData(300.0, 0.0353658941)]
    [InlineData(500.0, 26.3889776)]
    [InlineData(600.0, 123.443146)]
    public void Saturation_pressure_matches_table_35(double kelvin, double bar) =>
        Assert.Equal(bar, Saturation.PressureBar(kelvin - Units.KelvinAtZeroC), bar * 2e-9);

    [Fact]
    public void Saturation_forward_and_back_agree()
    {
        for (var t = 1.0; t < 370; t += 3.7)
            Assert.Equal(t, Saturation.TemperatureC(Saturation.PressureBar(t)), 1e-6);
    }

    [Fact] // IAPWS-IF97, table 5 [from memory]: 300 K, 3 MPa
    public void Liquid_water_matches_table_5()
    {
        Assert.Equal(0.00100215168, LiquidWater.SpecificVolume(300 - 273.15, 30), 1e-11);
        Assert.Equal(4.17301218, LiquidWater.HeatCapacity(300 - 273.15, 30), 1e-8);
    }

    [Theory] // IAPWS R12-08, table 4 [from memory]
    [InlineData(298.15, 998, 889.735100)]
    [InlineData(373.15, 1000, 307.883622)]
    public void Viscosity_matches_table_4(double kelvin, double density, double microPascalSeconds) =>
        Assert.Equal(microPascalSeconds, Viscosity.MicroPascalSeconds(kelvin, density), 1e-5);

    [Theory] // ISO 2533, table of the standard atmosphere [from memory]
    [InlineData(1000, 89874.6)]
    [InlineData(2000, 79495.2)]
    [InlineData(3000, 70108.5)]
    public void Atmosphere_matches_ISO_2533(double metres, double pascal) =>
        Assert.Equal(pascal, Atmosphere.PressureBar(metres) * 1e5, 0.6);

    [Fact] // common practice: kettles at 2000 m boil near 93 degC
    public void Water_boils_lower_up_high()
    {
        Assert.Equal(93.3, Saturation.BoilingPointC(2000), 0.05);
        Assert.Equal(99.97, Saturation.BoilingPointC(0), 0.02);
    }

    [Theory] // common practice: what a boiler's gauge means at sea level
    [InlineData(1.1, 122.0)]
    [InlineData(0.9, 118.8)]
    public void Boiler_gauge_gives_temperature(double gauge, double degC) =>
        Assert.Equal(degC, Saturation.BoilerTemperatureC(gauge, 0), 0.1);

    [Fact] // steam tables: 60 ml at 95 degC weigh 57.7 g
    public void Hot_millilitres_are_not_grams() => Assert.Equal(57.7, 60 * LiquidWater.DensityGramsPerMl(95), 0.05);

    [Fact]
    public void Viscosity_is_taken_relative_to_93C()
    {
        Assert.Equal(1.0, Viscosity.RelativeTo93C(93), 1e-12);
        Assert.True(Viscosity.RelativeTo93C(80) > 1.1);
    }

    [Fact]
    public void Out_of_range_names_the_field_and_the_range()
    {
        var error = Assert.Throws<FieldRangeException>(() => Atmosphere.PressureBar(12000));
        Assert.Equal("altitudeMetres", error.Range.Field);
        Assert.Contains("between -430 and 6000 m", error.Sentence, StringComparison.Ordinal);
        Assert.Throws<FieldRangeException>(() => Saturation.PressureBar(-5));
        Assert.Throws<FieldRangeException>(() => Saturation.TemperatureC(500));
        Assert.Throws<FieldRangeException>(() => LiquidWater.DensityGramsPerMl(double.NaN));
    }
}
