using CsCheck;
using RuddySpring.Core.Puck;

namespace RuddySpring.Core.Tests.Puck;

/// <summary>Coffee on its way from the puck into the cup: a first-order delay, checked against its closed form.</summary>
public sealed class SpoutTests
{
    [Fact] // a first-order lag: after one time constant 1 - 1/e has gone through (any text on linear systems)
    public void After_one_delay_what_is_left_is_one_e_th()
    {
        var spout = new Spout(2.0);
        var cup = spout.Pass(0, Spout.ShareThatFalls(Spout.DelaySeconds));
        Assert.Equal(2.0 * (1 - (1 / Math.E)), cup, 1e-12);
        Assert.Equal(2.0 / Math.E, spout.Grams, 1e-12);
    }

    [Fact]
    public void However_the_time_is_cut_the_same_falls_of_what_hangs_there() =>
        Gen.Select(Gen.Double[0.1, 5], Gen.Int[1, 200]).Sample(
            (grams, steps) =>
            {
                var (whole, cut) = (new Spout(grams), new Spout(grams));
                var once = whole.Pass(0, Spout.ShareThatFalls(1.0));
                var summed = 0.0;
                for (var i = 0; i < steps; i++) summed += cut.Pass(0, Spout.ShareThatFalls(1.0 / steps));
                return Math.Abs(once - summed) < 1e-9;
            });

    [Fact]
    public void Nothing_is_lost_on_the_way() =>
        Gen.Double[0, 3].List[1, 60].Sample(leaving =>
        {
            var spout = new Spout();
            var cup = leaving.Sum(grams => spout.Pass(grams, Spout.ShareThatFalls(0.1)));
            return Math.Abs(leaving.Sum() - cup - spout.Grams) < 1e-9 && spout.Grams >= 0;
        });

    [Fact] // a steady stream hangs at the spout for the delay: Little's law, grams there = flow times delay
    public void A_steady_stream_hangs_there_for_the_delay()
    {
        var spout = new Spout();
        for (var i = 0; i < 20_000; i++) spout.Pass(1.6 * 0.001, Spout.ShareThatFalls(0.001));
        Assert.Equal(1.6 * Spout.DelaySeconds, spout.Grams, 1e-3);
    }
}
