using CsCheck;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Shots;

namespace RuddySpring.Core.Tests.Shots;

/// <summary>Checked against weighings that people report; ranges are theirs and quoted to whole grams (common
/// practice).</summary>
public sealed class CupVolumesTests
{
    private static Machine Of(MachineFamily family) => FamilyDefaults.Of(family).Machine;

    [Fact] // common practice: 18 g dose and 60 g of water give 36 to 40 g
    public void Deep_basket_gives_36_to_40_g() =>
        Assert.InRange(CupVolumes.CupGrams(Of(MachineFamily.TwinArmBasket), 18, 60), 35.5, 40.5);

    [Theory] // common practice: 18.5 g and 55 to 57 g give 35 to 38 g
    [InlineData(55)]
    [InlineData(57)]
    public void Less_water_gives_35_to_38_g(double water) =>
        Assert.InRange(CupVolumes.CupGrams(Of(MachineFamily.TwinArmBasket), 18.5, water), 34.5, 38.5);

    [Fact] // common practice: 15 g from a chamber filled to its 60 ml line gives about 37 g
    public void Portable_to_its_line_gives_about_37_g() =>
        Assert.Equal(37, CupVolumes.LargestYieldGrams(Of(MachineFamily.PortableLever), 15, 95), 0.7);

    [Theory] // common practice: 18 to 20 g in a 90 ml chamber, 50 to 58 g at most
    [InlineData(18)]
    [InlineData(20)]
    public void Heated_group_gives_50_to_58_g_at_most(double dose) =>
        Assert.InRange(CupVolumes.LargestYieldGrams(Of(MachineFamily.HeatedGroup) with { ChamberMl = 90 }, dose, 93), 50, 58);

    [Fact] // common practice: one stroke of a small dipper gives 28 to 40 g of cup in all from one to two strokes
    public void Dipper_counts_its_strokes()
    {
        var dipper = Of(MachineFamily.BoilerDirect);
        Assert.Equal(
            2 * CupVolumes.MostWaterGrams(dipper with { StrokesAShot = 1 }, 93),
            CupVolumes.MostWaterGrams(dipper, 93),
            1e-9
        );
        Assert.InRange(CupVolumes.LargestYieldGrams(dipper, 14, 93), 28, 50);
    }

    [Fact]
    public void Water_and_cup_are_inverse() =>
        Gen.Select(Gen.Double[5, 30], Gen.Double[5, 120], Gen.Double[0.9, 1.3])
            .Sample(
                (dose, yield, retention) =>
                {
                    var machine = Of(MachineFamily.PortableLever);
                    var water = CupVolumes.WaterGrams(machine, dose, yield, retention);
                    return Math.Abs(CupVolumes.CupGrams(machine, dose, water, retention) - yield) < 1e-9;
                }
            );

    [Fact]
    public void More_water_never_gives_a_smaller_cup() =>
        Gen.Select(Gen.Double[5, 30], Gen.Double[0, 150], Gen.Double[0, 50])
            .Sample(
                (dose, water, more) =>
                    CupVolumes.CupGrams(Of(MachineFamily.HandPump), dose, water + more)
                    >= CupVolumes.CupGrams(Of(MachineFamily.HandPump), dose, water)
            );

    [Fact]
    public void A_dose_that_nobody_doses_is_named_with_its_range()
    {
        var error = Assert.Throws<FieldRangeException>(() => CupVolumes.WaterGrams(Of(MachineFamily.PortableLever), 60, 30));
        Assert.Equal("Dose is 60 g; it must lie between 5 and 30 g.", error.Sentence);
    }
}
