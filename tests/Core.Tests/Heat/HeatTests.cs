using RuddySpring.Core.Heat;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Water;

namespace RuddySpring.Core.Tests.Heat;

public sealed class HeatTests
{
    private static readonly Machine Portable = FamilyDefaults.Of(MachineFamily.PortableLever).Machine;
    private static readonly Machine Dipper = FamilyDefaults.Of(MachineFamily.BoilerDirect).Machine;

    [Theory] // energy balance with cp of the steam tables, 60 ml at 97 degC into 250 J/K: about 59 degC from cold, 93.5 from 90
    [InlineData(20, 59, 1.3)]
    [InlineData(90, 93.5, 0.2)]
    public void Mixing_balances_energy(double metalC, double expected, double tolerance)
    {
        var grams = 60 * LiquidWater.DensityGramsPerMl(97);
        var mixed = KettlePreheat.MixC(grams, 97, 250, metalC);
        Assert.Equal(expected, mixed, tolerance);
        var water = grams * LiquidWater.HeatCapacity(97, Atmosphere.SeaLevelBar);
        Assert.Equal(water * (97 - mixed), 250 * (mixed - metalC), 1e-6);
    }

    [Fact] // common practice: metal in the kettle or its steam is warmer than metal once filled, and that than none
    public void Methods_rank_as_people_find_them()
    {
        double Water(PreheatMethod m) => KettlePreheat.WaterAtPuck(Portable, m, KettlePreheat.RecommendedSeconds(m), 100, 20).Value;
        Assert.True(Water(PreheatMethod.Submersion) > Water(PreheatMethod.SteamBath));
        Assert.True(Water(PreheatMethod.SteamBath) > Water(PreheatMethod.FillAndHold));
        Assert.True(Water(PreheatMethod.FillAndHold) > Water(PreheatMethod.None) + 10);
        Assert.InRange(Water(PreheatMethod.SteamBath), 88, 96);
    }

    [Fact]
    public void Longer_preheat_never_cools_and_the_uncertainty_is_never_nothing()
    {
        foreach (var method in Enum.GetValues<PreheatMethod>())
        {
            var last = 0.0;
            for (var s = 0; s <= 300; s += 20)
            {
                var estimate = KettlePreheat.WaterAtPuck(Portable, method, s, 95, 18);
                Assert.True(estimate.Value >= last - 1e-9);
                Assert.InRange(estimate.PlusMinus, 0.5, 10);
                Assert.NotEmpty(estimate.NarrowedBy);
                last = estimate.Value;
            }
        }
    }

    [Fact] // common practice on a small dipper at sea level, 20 degC room: 72 degC after 20 min, 76 after 25, settles near 81
    public void Dipper_group_warms_as_reported()
    {
        var dipper = Dipper with { BoilerGaugeBar = 1.1 };
        Assert.Equal(72, GroupWarmUp.GroupC(dipper, 20, 0, 20), 1.0);
        Assert.Equal(76, GroupWarmUp.GroupC(dipper, 25, 0, 20), 1.0);
        Assert.Equal(81, GroupWarmUp.GroupC(dipper, 120, 0, 20), 1.0);
    }

    [Fact] // the same equation in fine explicit steps
    public void Exact_solution_agrees_with_a_fine_integration()
    {
        var boiler = Saturation.BoilerTemperatureC(1.0, 500);
        double group = 18, t = 0;
        const double step = 0.01;
        while (t < 25 * 60)
        {
            var boilerNow = 18 + ((boiler - 18) * Math.Min(1, t / 480));
            group += step * ((0.9 * (boilerNow - group)) + (0.6 * (18 - group))) / 760;
            t += step;
        }

        Assert.Equal(group, GroupWarmUp.GroupC(Dipper, 25, 500, 18), 1e-3);
    }

    [Fact]
    public void Time_until_warm_is_the_inverse_of_warming()
    {
        var minutes = GroupWarmUp.MinutesUntil(Dipper, 70, 1640, 18)!.Value;
        Assert.Equal(70, GroupWarmUp.GroupC(Dipper, minutes, 1640, 18), 0.05);
        Assert.Null(GroupWarmUp.MinutesUntil(Dipper, 99, 1640, 18));
    }

    [Fact]
    public void Wrong_input_is_named()
    {
        Assert.Equal("kettleC", Assert.Throws<FieldRangeException>(() => KettlePreheat.MetalC(Portable, PreheatMethod.SteamBath, 60, 130, 20)).Range.Field);
        Assert.Equal("heldSeconds", Assert.Throws<FieldRangeException>(() => KettlePreheat.MetalC(Portable, PreheatMethod.SteamBath, -1, 95, 20)).Range.Field);
        Assert.Throws<DoesNotFitException>(() => GroupWarmUp.GroupC(Portable, 5, 0, 20));
        Assert.Throws<FieldRangeException>(() => GroupWarmUp.GroupC(Dipper, 5, 12000, 20));
    }
}
