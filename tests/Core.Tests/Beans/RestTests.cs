using CsCheck;
using RuddySpring.Core.Beans;

namespace RuddySpring.Core.Tests.Beans;

public sealed class RestTests
{
    private static readonly DateOnly Roast = new(2030, 5, 1);

    [Theory] // common practice: rest 4 days at least, best from 7, stop at 3 weeks, no crema past 6
    [InlineData(0, RestState.TooFresh)]
    [InlineData(3, RestState.TooFresh)]
    [InlineData(4, RestState.Resting)]
    [InlineData(7, RestState.Ready)]
    [InlineData(21, RestState.Ready)]
    [InlineData(22, RestState.Fading)]
    [InlineData(42, RestState.Fading)]
    [InlineData(43, RestState.Stale)]
    public void A_bag_goes_through_its_window(int days, RestState expected)
    {
        Assert.Equal(expected, RestWindow.Of(RestSchool.SevenToTen).State(days));
        Assert.StartsWith($"{days} day", RestWindow.Of(RestSchool.SevenToTen).Meaning(days), StringComparison.Ordinal);
    }

    [Fact] // common practice: a few prefer them as fresh as possible, others wait four or five days
    public void Schools_disagree()
    {
        Assert.Equal(RestState.Ready, RestWindow.Of(RestSchool.Fresh).State(0));
        Assert.Equal(RestState.Ready, RestWindow.Of(RestSchool.FourToFive).State(5));
        Assert.Equal(RestState.Resting, RestWindow.Of(RestSchool.SevenToTen).State(5));
        foreach (var school in Enum.GetValues<RestSchool>())
            RestWindow.Of(school).Checked();
    }

    [Fact]
    public void Freezing_stops_the_clock()
    {
        var frozen = new BagDates(Roast, Roast.AddDays(8), null);
        Assert.Equal(5, frozen.RestDays(Roast.AddDays(5)));
        Assert.Equal(8, frozen.RestDays(Roast.AddDays(8)));
        Assert.Equal(8, frozen.RestDays(Roast.AddDays(40)));
        Assert.True(frozen.Frozen(Roast.AddDays(9)));
        var thawed = frozen with { ThawedOn = Roast.AddDays(30) };
        Assert.Equal(8, thawed.RestDays(Roast.AddDays(30)));
        Assert.Equal(11, thawed.RestDays(Roast.AddDays(33)));
        Assert.False(thawed.Frozen(Roast.AddDays(33)));
    }

    [Fact]
    public void Rest_never_runs_backwards_and_never_outruns_the_calendar() =>
        Gen.Select(Gen.Int[0, 60], Gen.Int[0, 60], Gen.Int[0, 120])
            .Sample(
                (frozen, more, on) =>
                {
                    var dates = new BagDates(Roast, Roast.AddDays(frozen), Roast.AddDays(frozen + more));
                    var days = dates.RestDays(Roast.AddDays(on));
                    return days >= 0 && days <= on && dates.RestDays(Roast.AddDays(on + 1)) >= days;
                }
            );

    [Fact]
    public void Dates_that_cannot_be_are_named()
    {
        var today = Roast.AddDays(20);
        string Field(BagDates dates) => Assert.Throws<DoesNotFitException>(() => dates.Checked(today)).Field;
        Assert.Equal("roastedOn", Field(new(Roast.AddDays(21), null, null)));
        Assert.Equal("frozenOn", Field(new(Roast, Roast.AddDays(-1), null)));
        Assert.Equal("thawedOn", Field(new(Roast, null, Roast.AddDays(3))));
        Assert.Equal("thawedOn", Field(new(Roast, Roast.AddDays(5), Roast.AddDays(3))));
        Assert.Equal("bestTo", Assert.Throws<DoesNotFitException>(() => new RestWindow(4, 7, 7, 42).Checked()).Field);
        Assert.Equal("usableFrom", Assert.Throws<FieldRangeException>(() => new RestWindow(-1, 7, 9, 42).Checked()).Range.Field);
    }
}
