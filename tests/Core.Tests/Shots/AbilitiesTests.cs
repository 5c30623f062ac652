using RuddySpring.Core.Machines;
using RuddySpring.Core.Shots;

namespace RuddySpring.Core.Tests.Shots;

public sealed class AbilitiesTests
{
    private static Machine Of(MachineFamily family) => FamilyDefaults.Of(family).Machine;

    [Theory] // common practice: what each family is said to give from its usual dose
    [InlineData(MachineFamily.BoilerDirect, 24, 60)]
    [InlineData(MachineFamily.PortableLever, 32, 42)]
    [InlineData(MachineFamily.HeatedGroup, 50, 60)]
    [InlineData(MachineFamily.TwinArmChamber, 30, 80)]
    public void The_largest_cup_is_what_people_get(MachineFamily family, double least, double most) =>
        Assert.InRange(Abilities.Of(Of(family), 0).LargestYieldGrams, least, most);

    [Fact] // common practice: five or six pulls of a stepped lever a shot, some dozens of strokes of a small pump
    public void Strokes_are_as_many_as_people_count()
    {
        var (stepped, dose, yield) = FamilyDefaults.Of(MachineFamily.SteppedLever);
        Assert.InRange(Abilities.Strokes(stepped, dose, yield), 4, 6);
        var (pump, pumpDose, pumpYield) = FamilyDefaults.Of(MachineFamily.HandPump);
        Assert.InRange(Abilities.Strokes(pump, pumpDose, pumpYield), 15, 80);
        var (portable, portableDose, portableYield) = FamilyDefaults.Of(MachineFamily.PortableLever);
        Assert.Equal(1, Abilities.Strokes(portable, portableDose, portableYield));
    }

    [Fact]
    public void Air_under_the_piston_takes_the_place_of_water_and_makes_the_lever_soft()
    {
        var dry = Of(MachineFamily.PortableLever);
        var airy = dry with { TrappedAirMl = 8 };
        var lost = Abilities.Of(dry, 0).LargestYieldGrams - Abilities.Of(airy, 0).LargestYieldGrams;
        // 8 ml of water at 92 degC, density 0.9640 g/ml (steam tables, saturated liquid), and the solids that it would have taken
        // along
        Assert.InRange(lost, 8 * 0.9640, 8 * 0.9640 * 1.06);

        var own = Assert.Single(Abilities.Of(airy, 0).Soft, s => s.Own);
        Assert.Equal(8, own.AirMl);
        // Boyle: 8 ml at 1.01325 bar absolute are 8 * 1.01325 / 10.01325 ml at 9 bar gauge
        Assert.Equal(8 - (8 * 1.01325 / 10.01325), own.LostMl, 6);
        Assert.True(Abilities.Of(airy, 2000).Soft.Single(s => s.Own).MlPerBarAtNine < own.MlPerBarAtNine);
    }

    [Fact] // exponential decay: half is gone after ln 2 / a
    public void A_leaking_seal_says_when_half_the_pressure_is_gone()
    {
        Assert.Null(Abilities.Of(Of(MachineFamily.PortableLever), 0).SealHalfSeconds);
        var leaking = Of(MachineFamily.PortableLever) with { SealLeakPerSecond = 0.01 };
        Assert.Equal(69.3147, Abilities.Of(leaking, 0).SealHalfSeconds!.Value, 3);
    }

    [Fact]
    public void More_air_than_the_chamber_holds_is_refused()
    {
        var error = Assert.Throws<DoesNotFitException>(() =>
            (Of(MachineFamily.BoilerDirect) with { ChamberMl = 20, TrappedAirMl = 25 }).Checked()
        );
        Assert.Equal("trappedAirMl", error.Field);
    }

    [Fact]
    public void Every_family_can_do_something()
    {
        foreach (var start in FamilyWords.StartingPoints)
        {
            var can = Abilities.Of(start.Defaults, 0);
            Assert.True(can.LargestYieldGrams > 20, start.Name);
            Assert.Equal(CupVolumes.WaterGrams(start.Defaults, can.DoseGrams, can.YieldGrams), can.WaterGrams, 9);
            Assert.Equal(start.Defaults.PressureBy == PressureBy.Arm, can.ReachBar is not null);
            Assert.Equal(start.Defaults.SpringTopBar is not null, can.SpringLine.Count > 0);
            Assert.True(can.LargestYieldGrams <= CupVolumes.MostWaterGrams(start.Defaults, 20), start.Name);
        }
    }
}
