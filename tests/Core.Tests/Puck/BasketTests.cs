using CsCheck;
using RuddySpring.Core.Beans;
using RuddySpring.Core.Dialing;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Puck;

namespace RuddySpring.Core.Tests.Puck;

public sealed class BasketTests
{
    private static readonly Basket Deep = new()
    {
        DiameterMm = 51,
        DepthMm = 20,
        NominalDoseGrams = 16,
    };

    [Fact] // common practice: the dry puck stands 2 to 3 mm under the rim; geometry of a cylinder
    public void Headspace_is_what_is_left_of_the_depth()
    {
        var fit = PuckFit.Of(Deep, 16, "medium", PuckCover.Nothing);
        var mm = 16 / 0.48 * 1000 / (Math.PI * 51 * 51 / 4);
        Assert.Equal(mm, fit.PuckMm, 9);
        Assert.Equal(20 - mm, fit.HeadspaceMm, 9);
        Assert.Equal(20 - mm - 1.0, PuckFit.Of(Deep, 16, "medium", PuckCover.Screen).HeadspaceMm, 9);
    }

    [Fact] // common practice: light roasts take less room than dark ones, so more fits
    public void A_light_roast_stands_lower_than_a_dark_one()
    {
        var light = PuckFit.Of(Deep, 16, "light", PuckCover.Nothing);
        var dark = PuckFit.Of(Deep, 16, "dark", PuckCover.Nothing);
        Assert.True(light.PuckMm < dark.PuckMm);
        Assert.True(light.ToGrams > dark.ToGrams);
    }

    [Fact]
    public void Too_much_does_not_close_and_too_little_leaves_no_print()
    {
        var much = PuckFit.Of(Deep, 22, "medium", PuckCover.Nothing);
        Assert.Equal(Headspace.TooMuch, much.Headspace);
        Assert.Contains("will not close", much.Sentence, StringComparison.Ordinal);
        Assert.Equal(Headspace.TooLittle, PuckFit.Of(Deep, 10, "medium", PuckCover.Nothing).Headspace);
        var right = PuckFit.Of(
            Deep,
            (
                PuckFit.Of(Deep, 16, "medium", PuckCover.Nothing).FromGrams
                + PuckFit.Of(Deep, 16, "medium", PuckCover.Nothing).ToGrams
            ) / 2,
            "medium",
            PuckCover.Nothing
        );
        Assert.Equal(Headspace.Right, right.Headspace);
        Assert.Contains("faint print", right.Sentence, StringComparison.Ordinal);
    }

    [Fact]
    public void More_coffee_never_leaves_more_room() =>
        Gen.Select(Gen.Double[5, 29], Gen.Double[0.1, 1], Gen.Double[40, 60], Gen.Double[10, 40])
            .Sample(
                (dose, more, diameter, depth) =>
                {
                    var basket = new Basket
                    {
                        DiameterMm = diameter,
                        DepthMm = depth,
                        NominalDoseGrams = 15,
                    };
                    return PuckFit.Of(basket, dose + more, "medium", PuckCover.Paper).HeadspaceMm
                        < PuckFit.Of(basket, dose, "medium", PuckCover.Paper).HeadspaceMm;
                }
            );

    [Fact]
    public void A_tapered_wall_makes_a_higher_puck_and_every_usual_dose_fits_its_own_machine()
    {
        Assert.True(
            PuckFit.Of(Deep with { Shape = BasketShape.Tapered }, 16, "medium", PuckCover.Nothing).PuckMm
                > PuckFit.Of(Deep, 16, "medium", PuckCover.Nothing).PuckMm
        );
        foreach (var start in FamilyWords.StartingPoints.Where(s => s.Defaults.Family != MachineFamily.TwinArmBasket))
            Assert.Equal(
                Headspace.Right,
                PuckFit.Of(Basket.Of(start.Defaults), start.DoseGrams, "medium", PuckCover.Nothing).Headspace
            );
    }

    [Fact] // common practice: the deep basket holds about 150 ml in all, 16 to 25 g of coffee in it
    public void Coffee_screen_and_water_share_a_deep_basket()
    {
        var deep = new Basket
        {
            DiameterMm = 49,
            DepthMm = 80,
            NominalDoseGrams = 18,
        };
        var room = PuckFit.WaterRoomGrams(deep, 18, "medium", PuckCover.Screen, 0.965);
        Assert.InRange(room, 95, 115);
        Assert.True(PuckFit.WaterRoomGrams(deep, 25, "medium", PuckCover.Screen, 0.965) < room - 10);
    }

    [Fact]
    public void A_basket_out_of_range_names_its_field()
    {
        Assert.Equal("depthMm", Assert.Throws<FieldRangeException>(() => (Deep with { DepthMm = 2 }).Checked()).Range.Field);
        Assert.Equal("tampKgf", Assert.Throws<FieldRangeException>(() => new Preparation(TampKgf: 80).Checked()).Range.Field);
    }

    [Theory] // common practice: 1:2 is the middle, dark 1:2 or less, light up to 1:3
    [InlineData("dark", 1.0, 2.0)]
    [InlineData("medium", 1.2, 2.5)]
    [InlineData("light", 1.5, 3.0)]
    public void Ratios_go_by_the_roast(string roast, double least, double most)
    {
        var ratios = RatioAdvice.Of(roast);
        Assert.Equal(least, ratios[0].Ratio);
        Assert.Equal(most, ratios[^1].Ratio);
        Assert.True(ratios.Zip(ratios.Skip(1)).All(p => p.First.Ratio < p.Second.Ratio));
    }

    [Fact] // common practice: a spout saves the shirt while a coffee is not dialled in
    public void A_new_coffee_is_pulled_through_a_spout()
    {
        Assert.Contains("spout saves the shirt", Preparation.HolderWord(0, true), StringComparison.Ordinal);
        Assert.Contains("even cone", Preparation.HolderWord(12, true), StringComparison.Ordinal);
    }

    [Fact]
    public void Two_changes_at_once_are_warned_of_and_a_ratio_that_is_kept_is_none()
    {
        var was = new ShotSetup("Pack lever", "Ridge", "Mill", 20, 15, 30, "Flat and firm", null, new());
        Assert.Empty(WhatChanged.Between(was, was).Things);
        Assert.Equal("grind", Assert.Single(WhatChanged.Between(was, was with { GrindSetting = 19 }).Things).What);
        var scaled = WhatChanged.Between(was, was with { DoseGrams = 16, YieldGrams = 32 });
        Assert.Equal("dose", Assert.Single(scaled.Things).What);
        Assert.Null(scaled.Warning);
        var two = WhatChanged.Between(was, was with { GrindSetting = 19, Preparation = new(Stirred: true) });
        Assert.Equal(2, two.Things.Count);
        Assert.Contains("2 things change at once", two.Warning, StringComparison.Ordinal);
    }
}
