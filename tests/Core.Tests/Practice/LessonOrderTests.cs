using RuddySpring.Core.Machines;
using RuddySpring.Core.Practice;

namespace RuddySpring.Core.Tests.Practice;

/// <summary>Which lesson comes next, and what the hand does on which machine.</summary>
public sealed class LessonOrderTests
{
    [Fact]
    public void Who_begins_is_given_the_first_and_goes_on_once_it_is_played_well()
    {
        Assert.Equal("hold-3", Lessons.Next(_ => null).Key);
        Assert.Equal("hold-3", Lessons.Next(key => key == "hold-3" ? Lessons.WellPlayed - 1 : null).Key);
        Assert.Equal("first-drops", Lessons.Next(key => key == "hold-3" ? Lessons.WellPlayed : null).Key);
        // who plays ahead is still led back to what was left out
        Assert.Equal("first-drops", Lessons.Next(key => key == "first-drops" ? null : 100).Key);
        Assert.Equal(Lessons.All[^1].Key, Lessons.Next(_ => 100).Key);
    }

    [Fact]
    public void After_each_comes_the_one_behind_it_and_after_the_last_none()
    {
        for (var i = 0; i + 1 < Lessons.All.Count; i++)
            Assert.Same(Lessons.All[i + 1], Lessons.After(Lessons.All[i]));
        Assert.Null(Lessons.After(Lessons.All[^1]));
    }

    [Theory] // how each family makes pressure (common practice)
    [InlineData(MachineFamily.BoilerSpring, LeverControl.HoldBack)]
    [InlineData(MachineFamily.BoilerDirect, LeverControl.PressOrLift)]
    [InlineData(MachineFamily.PortableLever, LeverControl.Press)]
    [InlineData(MachineFamily.HeatedGroup, LeverControl.Press)]
    [InlineData(MachineFamily.TwinArmBasket, LeverControl.Press)]
    [InlineData(MachineFamily.TwinArmChamber, LeverControl.Press)]
    [InlineData(MachineFamily.SteppedLever, LeverControl.Pump)]
    [InlineData(MachineFamily.HandPump, LeverControl.Pump)]
    public void The_hand_does_what_the_machine_asks(MachineFamily family, LeverControl control) =>
        Assert.Equal(control, LeverControls.Of(FamilyDefaults.Of(family).Machine));

    [Fact]
    public void A_lesson_is_played_on_a_machine_that_suits_it()
    {
        var spring = FamilyDefaults.Of(MachineFamily.BoilerSpring).Machine;
        var twin = FamilyDefaults.Of(MachineFamily.TwinArmChamber).Machine;
        Assert.Same(spring, Lessons.Of("half-pulls").On(spring));
        Assert.Equal(MachineFamily.BoilerSpring, Lessons.Of("half-pulls").On(twin).Family);
        Assert.Same(twin, Lessons.Of("hold-3").On(twin));
        // a spring cannot hold 3 bar by the arm
        Assert.Equal(MachineFamily.PortableLever, Lessons.Of("hold-3").On(spring).Family);
        Assert.Equal(MachineFamily.HandPump, Lessons.Of("pump-rest").On(spring).Family);
    }
}
