using RuddySpring.Core.Dialing;
using RuddySpring.Core.Pulls;

namespace RuddySpring.Core.Tests.Dialing;

public sealed class GrindWordsTests
{
    private static readonly NamedGrinder Mill = new("Hand mill", "clicks", 1, 2);
    private static readonly TimeBand Lands = new(31, 37, 44);
    private static readonly GrindSuggestion Plain = new(20, 19, 21, 0.62, 0.07, false, 20.05, 3);

    private static string Said(GrindSuggestion suggestion, double? before = null) =>
        string.Join(" ", GrindWords.Of(suggestion, Mill, Lands, before));

    [Fact]
    public void The_chance_stands_first_with_the_time_and_what_it_rests_on()
    {
        Assert.StartsWith("62 % chance to land between 31 and 44 s", Said(Plain), StringComparison.Ordinal);
        Assert.Contains("judging by 3 shots of this bag.", Said(Plain), StringComparison.Ordinal);
        Assert.Contains("judging by 1 shot of this bag.", Said(Plain with { Shots = 1 }), StringComparison.Ordinal);
        Assert.Contains("judging by the grinder's other coffees.", Said(Plain with { Shots = 0 }), StringComparison.Ordinal);
    }

    [Fact]
    public void What_holds_the_advice_back_is_said_and_only_then()
    {
        Assert.DoesNotContain("go this far", Said(Plain), StringComparison.Ordinal);
        Assert.Contains("go this far, pull, and look again", Said(Plain with { HeldBack = true }), StringComparison.Ordinal);
        Assert.Contains("too coarse in its steps", Said(Plain with { TooCoarse = true }), StringComparison.Ordinal);
        Assert.DoesNotContain("Ageing", Said(Plain), StringComparison.Ordinal);
        Assert.Contains("1.5 clicks finer in a week", Said(Plain with { InAWeek = 18.5 }), StringComparison.Ordinal);
    }

    [Fact]
    public void After_another_coffee_the_setting_is_put_back_and_the_grinder_purged()
    {
        Assert.Contains(
            "ground last, at 27: set Hand mill back to 20 and purge 2 g before",
            Said(Plain, 27),
            StringComparison.Ordinal
        );
        Assert.DoesNotContain("purge", Said(Plain), StringComparison.Ordinal);
    }

    [Fact]
    public void Ageing_says_today_three_days_and_a_week_and_frozen_beans_stay()
    {
        Assert.Contains("1.4 finer", GrindWords.Ageing(new(20, 19.4, 18.6), 20.5, false, Mill, true), StringComparison.Ordinal);
        Assert.Contains("1.4 finer", GrindWords.Ageing(new(20, 20.6, 21.4), 20.5, false, Mill, false), StringComparison.Ordinal);
        Assert.StartsWith("Frozen", GrindWords.Ageing(new(20, 20, 20), 20, true, Mill, true), StringComparison.Ordinal);
    }
}
