using RuddySpring.Core.Heat;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Water;

namespace RuddySpring.Core.Tests.Heat;

public sealed class KettlePreheatTests
{
    private static readonly Machine Portable = FamilyDefaults.Of(MachineFamily.PortableLever).Machine;

    private static double Water(PreheatMethod method, double bloom = 0, double kettle = 100) =>
        KettlePreheat.WaterAtPuck(Portable, KettlePreheat.Usual(Portable, method), kettle, 20, bloom).Value;

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

    [Fact] // left alone for a minute, water and metal meet at the energy balance less what the room takes
    public void The_run_tends_to_the_energy_balance()
    {
        var grams = KettlePreheat.FillGrams(Portable, 100);
        var run = HeatRun.Play(Portable, 20, 0, [new(HeatEventKind.FillAndHold, 0, 300, grams, 0, 97)], 60, records: false);
        var mixed = KettlePreheat.MixC(grams, 97, Portable.MetalHeatCapacity, 20);
        Assert.InRange(run.GroupC, mixed - 5, mixed + 0.5);
    }

    [Fact] // common practice: metal in the kettle or its steam is warmer than metal once filled, and that than none
    public void Methods_rank_as_people_find_them()
    {
        Assert.True(Water(PreheatMethod.Submersion) > Water(PreheatMethod.SteamBath));
        Assert.True(Water(PreheatMethod.SteamBath) > Water(PreheatMethod.FillAndHold));
        Assert.True(Water(PreheatMethod.FillAndHold) > Water(PreheatMethod.None) + 8);
        Assert.True(Water(PreheatMethod.BlankPresses) > Water(PreheatMethod.FillAndHold));
        Assert.InRange(Water(PreheatMethod.SteamBath), 87, 96);
    }

    [Fact]
    public void A_bloom_cools_and_more_fills_warm()
    {
        Assert.True(Water(PreheatMethod.SteamBath, 30) < Water(PreheatMethod.SteamBath) - 1);
        Assert.True(Water(PreheatMethod.SteamBath, 90) < Water(PreheatMethod.SteamBath, 30) - 2);
        double Filled(int times) =>
            KettlePreheat.WaterAtPuck(Portable, new(PreheatMethod.FillAndHold, 60 * times, times), 100, 20).Value;
        Assert.True(Filled(2) > Filled(1) + 2);
        Assert.True(Filled(3) > Filled(2));
    }

    [Fact] // a heated group reaches its step in 5 to 10 min, and its top step makes a drop sizzle (common practice)
    public void The_electric_step_holds()
    {
        var heated = FamilyDefaults.Of(MachineFamily.HeatedGroup).Machine;
        var way = KettlePreheat.Usual(heated, PreheatMethod.ElectricStep);
        Assert.InRange(way.Seconds / 60, 5, 11);
        var run = HeatRun.Play(heated, 20, 0, KettlePreheat.Events(heated, way with { StepC = 90 }, 0, 95), 3600);
        Assert.All(run.Points.Where(p => p.Seconds > 900), p => Assert.InRange(p.GroupC, 88.5, 91.5));
        Assert.True(way.StepC > 100);
    }

    [Fact]
    public void A_longer_bath_never_cools_and_the_uncertainty_is_never_nothing()
    {
        foreach (var method in KettlePreheat.Methods(Portable).Where(m => m is not PreheatMethod.None))
        {
            var last = 0.0;
            // water left standing in the chamber cools again after a minute and a half; a bath does not
            for (var s = 20; s <= (method is PreheatMethod.FillAndHold or PreheatMethod.BlankPresses ? 90 : 300); s += 20)
            {
                var estimate = KettlePreheat.WaterAtPuck(Portable, new(method, s), 95, 18);
                Assert.True(estimate.Value >= last - 0.3, $"{method} {s}: {estimate.Value} after {last}");
                Assert.InRange(estimate.PlusMinus, 0.5, 10);
                Assert.NotEmpty(estimate.NarrowedBy);
                last = Math.Max(last, estimate.Value);
            }
        }
    }

    [Fact]
    public void Every_family_has_ways_and_each_has_words()
    {
        foreach (var family in Enum.GetValues<MachineFamily>().Where(f => !FamilyDefaults.Of(f).Machine.HasBoiler))
        {
            var machine = FamilyDefaults.Of(family).Machine;
            Assert.Contains(PreheatMethod.None, KettlePreheat.Methods(machine));
            foreach (var method in KettlePreheat.Methods(machine))
            {
                var (title, how, caution) = Core.Sessions.PreheatWords.Of(KettlePreheat.Usual(machine, method));
                Assert.All(new[] { title, how, caution }, Assert.NotEmpty);
            }
        }
    }

    [Fact]
    public void Wrong_input_is_named()
    {
        Assert.Equal("kettleC", Assert.Throws<FieldRangeException>(() => Water(PreheatMethod.SteamBath, 0, 130)).Range.Field);
        Assert.Equal(
            "heldSeconds",
            Assert
                .Throws<FieldRangeException>(() => KettlePreheat.MetalC(Portable, new(PreheatMethod.SteamBath, -1), 95, 20))
                .Range.Field
        );
        Assert.Equal("bloomSeconds", Assert.Throws<FieldRangeException>(() => Water(PreheatMethod.SteamBath, 900)).Range.Field);
        Assert.Equal(
            "times",
            Assert
                .Throws<FieldRangeException>(() => KettlePreheat.MetalC(Portable, new(PreheatMethod.FillAndHold, 60, 40), 95, 20))
                .Range.Field
        );
    }
}
