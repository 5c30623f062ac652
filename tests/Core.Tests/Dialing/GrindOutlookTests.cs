using RuddySpring.Core.Dialing;

namespace RuddySpring.Core.Tests.Dialing;

public sealed class GrindOutlookTests
{
    /// <summary>A bag whose resistance falls by 1.1 % a day, on a grinder whose clicks are worth 7.5 %; smaller is
    /// finer.</summary>
    private static List<GrindShot> Shots(int count, int basket = 0, double basketFactor = 1) =>
        [
            .. Enumerable
                .Range(0, count)
                .Select(i => new GrindShot(
                    1,
                    1,
                    20 + (i % 3),
                    8 + i,
                    15,
                    9 * Math.Exp((-0.075 * (i % 3)) - (0.011 * i)) * (i % 2 == 1 ? basketFactor : 1),
                    i % 2 == 1 ? basket : 0
                )),
        ];

    [Fact] // common practice: as a bag ages the grind has to go finer, a little every week
    public void A_week_asks_for_about_a_click_finer()
    {
        var shots = Shots(8);
        var outlook = GrindOutlook.Of(GrindAdvice.Learn(new(1, true), shots), shots[^1], 16, ages: true);
        Assert.True(outlook.Now > outlook.InThreeDays && outlook.InThreeDays > outlook.InAWeek);
        Assert.Equal(7 * 0.011 / 0.075, outlook.Now - outlook.InAWeek, 0.35);
    }

    [Fact]
    public void In_the_freezer_nothing_moves_and_larger_numbers_go_up_where_they_are_finer()
    {
        var shots = Shots(8);
        var frozen = GrindOutlook.Of(GrindAdvice.Learn(new(1, true), shots), shots[^1], 16, ages: false);
        Assert.Equal(frozen.Now, frozen.InAWeek);
        var upside = shots.Select(s => s with { Setting = 40 - s.Setting }).ToList();
        var outlook = GrindOutlook.Of(GrindAdvice.Learn(new(1, false), upside), upside[^1], 16, ages: true);
        Assert.True(outlook.InAWeek > outlook.Now);
    }

    [Fact]
    public void A_basket_learns_its_own_factor()
    {
        var shots = Shots(14, basket: 5, basketFactor: 0.85);
        var advice = GrindAdvice.Learn(new(1, true), shots);
        var (factor, count) = advice.BasketFactor(5)!.Value;
        Assert.InRange(factor, 0.80, 0.93);
        Assert.Equal(7, count);
        Assert.Null(advice.BasketFactor(6));
        // the straight one flows faster, so it is ground finer for the same shot
        Assert.True(advice.SettingAt(1, 1, 12, 15, 9, basket: 5) < advice.SettingAt(1, 1, 12, 15, 9));
        // and one that was never used widens what is believed
        Assert.True(advice.Predict(1, 1, 20, 12, 15, 6).Scale > advice.Predict(1, 1, 20, 12, 15, 5).Scale);
    }

    [Fact] // a household of two settings whose resistances say nothing, or the wrong way round, was once told -46
    public void An_outlook_never_leaves_the_grinders_scale()
    {
        var random = new SeededRandom(3);
        for (var household = 0; household < 2000; household++)
        {
            var shots = Enumerable
                .Range(0, 2 + random.Below(5))
                .Select(i => new GrindShot(1, 1, 3 + random.Below(2), 8 + i, 15, 9 * Math.Exp(random.Normal(0.4))))
                .ToList();
            var outlook = GrindOutlook.Of(GrindAdvice.Learn(new(1, true), shots), shots[^1], 30, ages: true);
            foreach (var setting in new[] { outlook.Now, outlook.InThreeDays, outlook.InAWeek })
                Assert.InRange(setting, 0, 9);
        }
    }
}
