using CsCheck;
using RuddySpring.Core.Shots;

namespace RuddySpring.Core.Tests.Shots;

/// <summary>Coffee on its way from the puck into the cup and onto the display: first-order delays, checked against their closed
/// form.</summary>
public sealed class CupPathTests
{
    private static readonly CupPath Path = new(0.6, 0.3);

    private static CupStream After(CupStream stream, double grams, double seconds, CupPath? path = null) =>
        stream.After(grams, (path ?? Path).ShareThatFalls(seconds), (path ?? Path).ShareThatShows(seconds));

    [Fact] // a first-order lag: after one time constant 1 - 1/e has gone through (any text on linear systems)
    public void After_one_delay_what_is_left_is_one_e_th()
    {
        var stream = After(new(2, 0, 0), 0, Path.SpoutDelaySeconds);
        Assert.Equal(2.0 * (1 - (1 / Math.E)), stream.CupGrams, 1e-12);
        Assert.Equal(2.0 / Math.E, stream.AtSpoutGrams, 1e-12);
        Assert.Equal(1 - (1 / Math.E), After(new(0, 1, 0), 0, Path.ScaleLagSeconds).ShownGrams, 1e-12);
    }

    [Fact]
    public void However_the_time_is_cut_the_same_falls_of_what_hangs_there() =>
        Gen.Select(Gen.Double[0.1, 5], Gen.Int[1, 200])
            .Sample(
                (grams, steps) =>
                {
                    var once = After(new(grams, 0, 0), 0, 1.0);
                    var cut = new CupStream(grams, 0, 0);
                    for (var i = 0; i < steps; i++)
                        cut = After(cut, 0, 1.0 / steps);
                    return Math.Abs(once.CupGrams - cut.CupGrams) < 1e-9;
                }
            );

    [Fact]
    public void Nothing_is_lost_on_the_way() =>
        Gen.Double[0, 3]
            .List[1, 60]
            .Sample(leaving =>
            {
                var stream = leaving.Aggregate(default(CupStream), (s, grams) => After(s, grams, 0.1));
                return Math.Abs(leaving.Sum() - stream.LeftPuckGrams) < 1e-9
                    && stream.AtSpoutGrams >= 0
                    && stream.ShownGrams <= stream.CupGrams + 1e-9;
            });

    [Fact] // a steady stream is behind by flow times delay at the spout (Little's law), and by flow times lag on the scale
    public void A_steady_stream_is_behind_by_the_delays()
    {
        var stream = default(CupStream);
        for (var i = 0; i < 20_000; i++)
            stream = After(stream, 1.6 * 0.001, 0.001);
        Assert.Equal(1.6 * Path.SpoutDelaySeconds, stream.AtSpoutGrams, 1e-3);
        Assert.Equal(1.6 * Path.ScaleLagSeconds, stream.CupGrams - stream.ShownGrams, 1e-3);
    }
}
