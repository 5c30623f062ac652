using RuddySpring.Core.Heat;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Water;

namespace RuddySpring.Core.Tests.Heat;

public sealed class TrappedAirTests
{
    private static TrappedAir Boiler(double share, double fill = 0.85) =>
        new(1000, fill * 1000, share, 20, Atmosphere.SeaLevelBar);

    [Fact] // ideal gas by hand: no water expansion to speak of, 50 % full, 20 to 60 degC: p_air = p_dry 333.15/293.15 * shrink
    public void Air_follows_the_gas_law_in_a_shrinking_headspace()
    {
        var air = Boiler(1, 0.5);
        var dry = Atmosphere.SeaLevelBar - Saturation.PressureBar(20);
        var headspace = (1000 - (500 / LiquidWater.DensityGramsPerMl(20))) / (1000 - (500 / LiquidWater.DensityGramsPerMl(60)));
        Assert.Equal(dry * headspace * 333.15 / 293.15, air.AirBar(60), 1e-9);
        Assert.Equal(0, Boiler(0).AirBar(60));
    }

    [Theory] // an unbled boiler at 1.1 bar gauge is only at about 84 to 92 degC, by how full it is; bled it is at 122.0
    [InlineData(0.80)]
    [InlineData(0.84)]
    [InlineData(0.87)]
    public void False_pressure(double fill)
    {
        Assert.InRange(Boiler(1, fill).WaterC(1.1), 83.5, 92.5);
        Assert.Equal(122.0, Boiler(0, fill).WaterC(1.1), 0.05);
    }

    [Fact]
    public void Gauge_and_temperature_are_inverse_and_rise_together()
    {
        foreach (var share in new[] { 0.0, 0.2, 1.0 })
        {
            var air = Boiler(share);
            var last = -1.0;
            for (var bar = 0.05; bar < 1.6; bar += 0.05)
            {
                var c = air.WaterC(bar);
                Assert.Equal(bar, air.GaugeBar(c), 1e-5);
                Assert.True(c > last);
                last = c;
            }
        }
    }

    [Fact] // overfull and nearly empty boilers, from wherever the water was a moment ago
    public void The_water_behind_a_reading_does_not_depend_on_where_the_search_began()
    {
        foreach (var share in new[] { 0.05, 1.0, 3.0 })
        {
            foreach (var fill in new[] { 0.02, 0.5, 0.93, 0.96, 0.99, 1.02 })
            {
                var air = Boiler(share, fill);
                for (var bar = 0.05; bar < 3; bar += 0.15)
                {
                    var c = air.WaterC(bar);
                    for (var near = 20.5; near < 140; near += 3.1)
                        Assert.Equal(c, air.WaterC(bar, near), 1e-5);
                }
            }
        }
    }

    [Fact] // water expands by about 6 % from 20 to 120 degC, so the level climbs
    public void The_level_climbs_as_it_heats()
    {
        var air = Boiler(0);
        Assert.Equal(1.06, air.FilledShare(120) / air.FilledShare(20), 0.005);
        Assert.True(air.HeadspaceMl(120) < air.HeadspaceMl(20));
        Assert.True(Boiler(0, 0.99).HeadspaceMl(120) > 0); // overfull: never less than a trace
    }

    [Fact] // common practice on stable boilers: 0.9 or 0.8 bar for a cooler shot, back within a minute or so
    public void Bleeding_to_a_lower_pressure_gives_cooler_water_for_a_shot_or_two()
    {
        var spring = FamilyDefaults.Of(MachineFamily.BoilerSpring).Machine;
        var (low, high) = TemperatureByPressure.Reach(spring, 0, 20);
        Assert.True(high - low > 3);
        var plan = TemperatureByPressure.For(spring, high - 0.8, 0, 20)!;
        Assert.InRange(plan.GaugeBar, 0.7, 1.05);
        Assert.Equal(plan.GaugeBar, Saturation.PressureBar(plan.BoilerC) - Atmosphere.PressureBar(0), 1e-9);
        Assert.InRange(plan.Shots, 1, 4);
        Assert.InRange(plan.BackSeconds, 5, 150);
        var cooler = TemperatureByPressure.For(spring, high - 2, 0, 20)!;
        Assert.True(
            cooler.GaugeBar < plan.GaugeBar && cooler.BleedSeconds > plan.BleedSeconds && cooler.BackSeconds > plan.BackSeconds
        );
        Assert.Null(TemperatureByPressure.For(spring, high + 2, 0, 20));
        Assert.Null(TemperatureByPressure.For(spring, low - 2, 0, 20));
        Assert.Throws<FieldRangeException>(() => TemperatureByPressure.For(spring, 130, 0, 20));
        Assert.Throws<DoesNotFitException>(() =>
            TemperatureByPressure.For(FamilyDefaults.Of(MachineFamily.PortableLever).Machine, 92, 0, 20)
        );
    }
}
