using MathNet.Numerics.Statistics;
using RuddySpring.Core.Traces;

namespace RuddySpring.Core.Tests.Traces;

/// <summary>The instruments of the stand-in err as they say they do.</summary>
public sealed class InstrumentModelTests
{
    [Theory]
    [InlineData(0.03)]
    [InlineData(0.05)]
    public void A_gauge_has_its_noise_and_reads_to_a_hundredth(double noise)
    {
        var gauge = new GaugeModel(new SeededRandom(3), noise);
        var readings = Enumerable.Range(0, 4000).Select(_ => gauge.Read(6)).ToArray();
        // the standard deviation of n readings is known to about 1/sqrt(2 n): 1 % here
        Assert.Equal(noise, readings.StandardDeviation(), 0.05 * noise);
        Assert.Equal(6, readings.Mean(), 0.08);
        Assert.All(readings, r => Assert.Equal(Math.Round(r, 2), r));
    }

    [Fact] // a first-order lag: 1 - 1/e after one time constant
    public void A_scale_is_late_by_its_time_constant_and_reads_to_a_tenth()
    {
        var scale = new ScaleModel(new SeededRandom(3), 0.4);
        var shown = 0.0;
        for (var i = 0; i < 40; i++)
            shown = scale.Read(50, 0, 0.01);
        Assert.Equal(50 * (1 - (1 / Math.E)), shown, 0.06);
        for (var i = 0; i < 400; i++)
            shown = scale.Read(50, 0, 0.01);
        Assert.Equal(50, shown, 1e-9);
    }

    [Fact]
    public void Drops_shake_a_scale_and_standing_coffee_does_not()
    {
        double Sd(double flow)
        {
            var scale = new ScaleModel(new SeededRandom(9));
            scale.Read(30, 0, 60);
            return Enumerable.Range(0, 2000).Select(_ => scale.Read(30, flow, 0.1)).StandardDeviation();
        }

        Assert.Equal(0, Sd(0));
        Assert.InRange(Sd(1.5), 0.05, 0.09);
    }

    [Fact]
    public void A_probe_comes_to_the_truth_from_where_it_began()
    {
        var probe = new ThermometerModel(new SeededRandom(4), 20, lagSeconds: 4);
        var first = probe.Read(92, 0.5);
        Assert.InRange(first, 25, 33); // 20 + 72 (1 - exp(-1/8)) = 28.5
        var last = 0.0;
        for (var i = 0; i < 100; i++)
            last = probe.Read(92, 0.5);
        Assert.Equal(92, last, 0.5);
    }

    [Fact]
    public void The_same_seed_errs_in_the_same_way()
    {
        double[] Of(ulong seed)
        {
            var gauge = new GaugeModel(new SeededRandom(seed));
            return [.. Enumerable.Range(0, 50).Select(i => gauge.Read(i * 0.1))];
        }

        Assert.Equal(Of(12), Of(12));
        Assert.NotEqual(Of(12), Of(13));
    }
}
