using CsCheck;
using RuddySpring.Core.Puck;

namespace RuddySpring.Core.Tests.Puck;

/// <summary>The solubles of one lane: conserved, dissolved at first order, never beyond what water takes up.</summary>
public sealed class ExtractionTests
{
    private static Extraction Lane(double waterC = 93, double dose = 3.6) => new(1, dose, dose * 1.05, 0.30, waterC);

    /// <summary>Solids in the cup after water at a flow in ml/s for some seconds.</summary>
    private static double Cup(Extraction lane, double flow, double seconds, double step = 0.05)
    {
        for (var t = 0.0; t < seconds - 1e-9; t += step)
            Step(lane, flow * step, step);
        return lane.CupSolidsGrams[0];
    }

    private static double Step(Extraction lane, double inflow, double seconds)
    {
        double[] solids = [0];
        lane.Step([inflow], seconds, solids);
        return solids[0];
    }

    [Fact]
    public void What_leaves_and_what_stays_is_what_was_there() =>
        Gen.Select(Gen.Double[0.02, 1.5], Gen.Double[5, 90], Gen.Double[60, 99])
            .Sample(
                (flow, seconds, waterC) =>
                {
                    var lane = Lane(waterC);
                    Cup(lane, flow, seconds);
                    return Math.Abs(lane.CupSolidsGrams[0] + lane.RemainingGrams - (3.6 * 0.30)) < 1e-9
                        && lane.RemainingGrams >= 0;
                }
            );

    [Fact]
    public void Nothing_leaves_before_the_water_is_through()
    {
        var lane = Lane();
        Assert.Equal(0, Cup(lane, 0.5, 7)); // 3.5 of the 3.78 ml that it holds
        Assert.True(Cup(lane, 0.5, 2) > 0);
    }

    [Fact] // Arrhenius: hotter water dissolves faster
    public void Hotter_water_draws_more() =>
        Gen.Select(Gen.Double[60, 93], Gen.Double[1, 6], Gen.Double[0.2, 0.6])
            .Sample((waterC, hotter, flow) => Cup(Lane(waterC + hotter), flow, 30) > Cup(Lane(waterC), flow, 30));

    // Arrhenius with about 25 kJ/mol over R = 8.314 J/(mol K), while hardly anything is dissolved: exp(-3007 (1/356.15 -
    // 1/366.15)) = 0.794
    [Fact]
    public void Ten_kelvin_cooler_dissolves_a_fifth_slower() =>
        Assert.Equal(0.794, Cup(Lane(83), 120, 0.15, 0.01) / Cup(Lane(93), 120, 0.15, 0.01), 0.02);

    [Fact] // common practice: the stream is strongest in the first third of the cup and pale at its end
    public void The_stream_grows_weaker_once_it_runs()
    {
        var lane = Lane();
        Cup(lane, 0.4, 9.5); // just through
        var last = double.PositiveInfinity;
        for (var third = 0; third < 6; third++)
        {
            var before = lane.CupSolidsGrams[0];
            Cup(lane, 0.4, 4);
            var drawn = lane.CupSolidsGrams[0] - before;
            Assert.True(drawn < last, $"{third}: {drawn} after {last}");
            last = drawn;
        }
    }

    [Fact] // a saturated liquor takes up no more: a standing lane ends at the limit, not at everything
    public void Standing_water_is_saturated()
    {
        var lane = new Extraction(1, 3.6, 3.78, 0.9, 93); // far more soluble than the water in it can hold
        Cup(lane, 0.378, 10); // fill it
        for (var i = 0; i < 200_000; i++)
            Step(lane, 0, 0.05);
        var one = Step(lane, 0.02, 0.05); // 0.02 ml of what stands there
        Assert.Equal(0.32, one / 0.02, 0.02); // g a ml
    }

    [Fact] // 18 to 22 % of the dose in a cup of twice its weight (usual bounds, from memory)
    public void A_usual_cup_draws_a_usual_share()
    {
        var lane = Lane();
        var solids = Cup(lane, 3.6 * 3.05 / 27, 27); // what the puck keeps and twice the dose, in 27 s
        Assert.InRange(solids / 3.6, 0.16, 0.23);
    }

    [Fact]
    public void A_copy_goes_its_own_way()
    {
        var lane = Lane();
        Cup(lane, 0.4, 12);
        var copy = lane.Copy();
        Assert.Equal(lane.RemainingGrams, copy.RemainingGrams);
        Cup(copy, 0.4, 10);
        Assert.True(copy.RemainingGrams < lane.RemainingGrams);
    }

    [Fact] // the step is an approximation of order one: half of it changes the cup by little
    public void The_length_of_the_step_hardly_matters()
    {
        var (coarse, fine) = (Cup(Lane(), 0.4, 30, 0.05), Cup(Lane(), 0.4, 30, 0.0125));
        Assert.Equal(fine, coarse, 0.01 * fine);
    }

    [Theory] // as many as there may be, and one more than fits side by side
    [InlineData(1)]
    [InlineData(4)]
    [InlineData(5)]
    [InlineData(9)]
    public void Lanes_side_by_side_give_what_each_gives_alone(int count)
    {
        var together = new Extraction(count, 3.6, 3.78, 0.30, 93);
        var alone = Enumerable.Range(0, count).Select(_ => Lane()).ToList();
        var inflow = new double[count];
        var solids = new double[count];
        for (var i = 0; i < 600; i++)
        {
            for (var lane = 0; lane < count; lane++)
                inflow[lane] = i % 50 < 5 ? 0 : 0.02 * (1 + lane); // some fill long before the others, and at times all stand
            together.Step(inflow, 0.05, solids);
            for (var lane = 0; lane < count; lane++)
                Assert.Equal(Step(alone[lane], inflow[lane], 0.05), solids[lane], 1e-12);
        }

        for (var lane = 0; lane < count; lane++)
            Assert.Equal(alone[lane].CupSolidsGrams[0], together.CupSolidsGrams[lane], 1e-12);
        Assert.Equal(alone.Sum(l => l.RemainingGrams), together.RemainingGrams, 1e-9);
    }
}
