using RuddySpring.Core.Machines;
using RuddySpring.Core.Pulls;

namespace RuddySpring.Core.Tests.Pulls;

/// <summary>What is said before and after the pressure, family by family (common practice).</summary>
public sealed class PullWordsTests
{
    public static TheoryData<MachineFamily> Families => [.. Enum.GetValues<MachineFamily>()];

    private static Machine Of(MachineFamily family) => FamilyDefaults.Of(family).Machine;

    [Theory]
    [MemberData(nameof(Families))]
    public void A_caution_stands_before_the_pressure_and_before_the_puck_comes_out(MachineFamily family)
    {
        var before = PullWords.Before(Of(family), screen: false);
        Assert.Contains("fully seated", before.First(c => c.IsCaution).Text);
        Assert.Equal(before.Count, before.Select(c => c.Text).Distinct().Count());
        var last = PullWords.After(Of(family))[^1];
        Assert.True(last.IsCaution);
        Assert.StartsWith("Wait until the pressure is gone", last.Text);
        Assert.Contains("sprays hot grounds", last.Text);
    }

    [Fact]
    public void A_spring_is_held_until_it_stands_still()
    {
        Assert.Contains(PullWords.Before(Of(MachineFamily.BoilerSpring), false), c => c.IsCaution && c.Text.Contains("flies up"));
        Assert.Contains(PullWords.After(Of(MachineFamily.BoilerSpring)), c =>
            c.IsCaution && c.Text.Contains("hand on the lever")
        );
    }

    [Fact]
    public void Only_a_stepped_lever_has_a_piston_to_free()
    {
        var freed = Enum.GetValues<MachineFamily>().Where(f => PullWords.After(Of(f)).Any(c => c.Text.Contains("release move")));
        Assert.Equal([MachineFamily.SteppedLever], freed);
        Assert.Contains("release move", PullWords.LetGo(Of(MachineFamily.SteppedLever)));
    }

    [Theory]
    [InlineData(MachineFamily.PortableLever)]
    [InlineData(MachineFamily.HeatedGroup)]
    public void Water_is_drawn_under_a_kettle_lever_without_air(MachineFamily family) =>
        Assert.Contains(PullWords.Before(Of(family), false), c => c.Text.Contains("no air is left under it"));

    [Fact]
    public void A_basket_with_a_small_hole_is_let_down_gently()
    {
        var restricted = Of(MachineFamily.PortableLever) with { RestrictorBarS2PerMl2 = 2 };
        Assert.Contains(PullWords.After(restricted), c => c.Text.Contains("gently"));
        Assert.DoesNotContain(PullWords.After(Of(MachineFamily.PortableLever)), c => c.Text.Contains("gently"));
    }

    [Fact]
    public void The_screen_on_the_puck_is_asked_for_when_there_should_be_one()
    {
        Assert.Contains(PullWords.Before(Of(MachineFamily.PortableLever), screen: true), c =>
            c.Text.StartsWith("The screen or paper")
        );
        Assert.Contains(PullWords.Before(Of(MachineFamily.PortableLever), screen: false), c =>
            c.Text.StartsWith("Nothing lies on the puck")
        );
    }
}
