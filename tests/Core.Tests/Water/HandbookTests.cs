using RuddySpring.Core.Water;

namespace RuddySpring.Core.Tests.Water;

/// <summary>Handbook tables of liquid water at one atmosphere (CRC Handbook of Chemistry and Physics), values from
/// memory.</summary>
public sealed class HandbookTests
{
    [Theory]
    [InlineData(20, 0.99821)]
    [InlineData(40, 0.99222)]
    [InlineData(60, 0.98320)]
    [InlineData(80, 0.97179)]
    [InlineData(90, 0.96531)]
    public void Density(double degC, double gramsPerMl) => Assert.Equal(gramsPerMl, LiquidWater.DensityGramsPerMl(degC), 2e-5);

    [Theory]
    [InlineData(20, 1001.6)]
    [InlineData(40, 652.7)]
    [InlineData(60, 466.0)]
    [InlineData(80, 354.0)]
    public void DynamicViscosity(double degC, double microPascalSeconds) =>
        Assert.Equal(
            microPascalSeconds,
            Viscosity.MicroPascalSeconds(degC + Units.KelvinAtZeroC, 1000 * LiquidWater.DensityGramsPerMl(degC)),
            microPascalSeconds * 0.003
        );

    [Theory]
    [InlineData(25, 4.181)]
    [InlineData(60, 4.185)]
    [InlineData(90, 4.205)]
    public void HeatCapacity(double degC, double joulesPerGramKelvin) =>
        Assert.Equal(joulesPerGramKelvin, LiquidWater.HeatCapacity(degC, Atmosphere.SeaLevelBar), 0.004);

    [Theory] // saturation pressure in kPa
    [InlineData(50, 12.352)]
    [InlineData(80, 47.414)]
    [InlineData(120, 198.67)]
    public void VapourPressure(double degC, double kiloPascal) =>
        Assert.Equal(kiloPascal, Saturation.PressureBar(degC) * 100, kiloPascal * 5e-4);
}
