using RuddySpring.Core.Machines;
using RuddySpring.Core.Milk;

namespace RuddySpring.Core.Tests.Milk;

/// <summary>Milk by energy balance, and by what people see on small boilers.</summary>
public sealed class SteamingTests
{
    private static readonly Machine Dipper = FamilyDefaults.Of(MachineFamily.BoilerDirect).Machine;

    /// <summary>IAPWS-IF97, saturated steam and water at 120 degC: h\" = 2705.9 kJ/kg, h' = 503.8 kJ/kg, and water of 60 degC
    /// 251.2 kJ/kg (steam tables; [from memory]). What the steam gives is what the milk takes.</summary>
    [Theory]
    [InlineData(150, 4)]
    [InlineData(150, 20)]
    [InlineData(300, 4)]
    public void SteamGivesWhatMilkTakesBySteamTables(double grams, double fromC)
    {
        const double steamAt120 = 2705.9,
            waterAt60 = 251.2;
        var order = new MilkOrder(grams, FromC: fromC);
        var gives = order.SteamGrams(120) * (steamAt120 - waterAt60) / 1000;
        Assert.Equal(grams * 3.93 * (60 - fromC) / 1000, gives, 0.002 * gives);
    }

    /// <summary>150 g from 4 to 60 degC: about 33 kJ and about 14 g of steam.</summary>
    [Fact]
    public void AUsualJugTakesAboutFourteenGrams()
    {
        var plan = Steaming.Of(Dipper, new(150), 20, 0)!;
        Assert.Equal(33, plan.HeatKilojoules, 0.5);
        Assert.Equal(13.6, plan.SteamGrams, 0.6);
        Assert.Equal(150 / 1.03 * 4 / 3, plan.StretchedMl, 0.5);
    }

    /// <summary>Common practice: 150 ml on a small boiler lever, whose steam is weak, takes half a minute to a minute; a larger
    /// boiler does it sooner.</summary>
    [Fact]
    public void OnASmallBoilerItTakesHalfAMinuteToAMinute()
    {
        var small = Steaming.Of(Dipper, new(150 * 1.03), 20, 0)!;
        Assert.InRange(small.Seconds!.Value, 22, 60);
        var large = Steaming.Of(FamilyDefaults.Of(MachineFamily.BoilerSpring).Machine, new(150 * 1.03), 20, 0)!;
        Assert.InRange(large.Seconds!.Value, 8, small.Seconds.Value);
        Assert.True(large.GaugeAfterBar > small.GaugeAfterBar);
    }

    [Fact]
    public void MoreMilkColderMilkAndHotterMilkNeverTakeLess()
    {
        var before = Steaming.Of(Dipper, new(100), 20, 0)!;
        foreach (var more in new MilkOrder[] { new(140), new(100, FromC: 0), new(100, ToC: 70) })
        {
            var after = Steaming.Of(Dipper, more, 20, 0)!;
            Assert.True(after.SteamGrams > before.SteamGrams);
            Assert.True((after.Seconds ?? 1e9) >= before.Seconds);
            Assert.True(after.GaugeAfterBar <= before.GaugeAfterBar + 0.02); // its last second may be a short one
            Assert.True(after.WaterLeftGrams <= before.WaterLeftGrams + 0.5);
        }
    }

    [Fact]
    public void ABoilerThatCannotSaysSo()
    {
        var weak = Dipper with
        {
            Heat = HeatConstants.Of(Dipper) with
            {
                HeaterWatts = 250,
                BoilerMetalJPerK = 400,
                FillGrams = 300,
                BoilerVolumeMl = 500,
                MinimumGrams = 100,
            },
        };
        var plan = Steaming.Of(weak, new(400), 20, 0)!;
        Assert.Null(plan.Seconds);
        Assert.Contains("does not last", plan.Sentence, StringComparison.Ordinal);
        Assert.Null(Steaming.Of(FamilyDefaults.Of(MachineFamily.PortableLever).Machine, new(150), 20, 0));
    }

    [Theory]
    [InlineData(401, 4.0, null, "milkGrams")]
    [InlineData(100, -1.0, null, "fromC")]
    [InlineData(100, 4.0, 76.0, "toC")]
    [InlineData(100, double.NaN, null, "fromC")]
    public void AnOrderOutOfRangeNamesItsField(double grams, double fromC, double? toC, string field) =>
        Assert.Equal(
            field,
            Assert.Throws<FieldRangeException>(() => new MilkOrder(grams, FromC: fromC, ToC: toC).Checked()).Range.Field
        );

    [Fact]
    public void PlantMilksThatCurdleAreKeptCoolerAndEveryKindIsNamed()
    {
        foreach (var kind in Enum.GetValues<MilkKind>())
        {
            Assert.NotEmpty(MilkWords.Name(kind));
            Assert.InRange(new MilkOrder(100, kind).EndC, 50, 65);
            Assert.InRange(MilkOrder.HeatCapacityJPerGK(kind), 3.8, 4.2); // none is more than water
        }

        Assert.True(MilkOrder.UsualEndC(MilkKind.Soy) < MilkOrder.UsualEndC(MilkKind.Whole));
        Assert.Contains("third", string.Join(' ', MilkWords.Steps(new(100))), StringComparison.Ordinal);
        Assert.Contains("spoils", MilkWords.Caution, StringComparison.Ordinal);
    }
}
