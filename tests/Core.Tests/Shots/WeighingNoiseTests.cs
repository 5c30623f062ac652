using RuddySpring.Core.Shots;

namespace RuddySpring.Core.Tests.Shots;

/// <summary>How errors of weighings hang together.</summary>
public sealed class WeighingNoiseTests
{
    private const double StepGrams = 2;
    private const int Weighings = 15;

    private static List<(double Seconds, double Grams)> RisingCup() =>
        [.. Enumerable.Range(1, Weighings).Select(i => (i * 1.0, i * StepGrams))];

    [Fact]
    public void Without_a_walk_every_weighing_counts_alike()
    {
        var precision = new WeighingNoise(0.25).Precision(RisingCup());
        for (var i = 0; i < Weighings; i++)
        {
            for (var j = 0; j < Weighings; j++)
                Assert.Equal(i == j ? 16.0 : 0.0, precision[i, j], 12);
        }
    }

    [Fact] // walks drawn step by step: n normal errors, squared and weighed by their precision, are n in the mean (chi-squared)
    public void Drawn_walks_are_as_unlikely_as_they_should_be()
    {
        const int Draws = 20_000;
        const double Own = 0.3;
        const double Walk = 0.2;
        var cup = RisingCup();
        var precision = new WeighingNoise(Own, Walk).Precision(cup);
        var random = new SeededRandom(5);
        double sum = 0,
            endSquared = 0;
        for (var draw = 0; draw < Draws; draw++)
        {
            var walked = 0.0;
            var errors = new double[Weighings];
            for (var i = 0; i < Weighings; i++)
            {
                walked += random.Normal(Walk * Math.Sqrt(StepGrams));
                errors[i] = walked + random.Normal(Own);
            }

            var vector = MathNet.Numerics.LinearAlgebra.Vector<double>.Build.Dense(errors);
            sum += vector * (precision * vector);
            endSquared += errors[^1] * errors[^1];
        }

        Assert.Equal(Weighings, sum / Draws, 4 * Math.Sqrt(2.0 * Weighings / Draws)); // four standard errors
        Assert.Equal((Own * Own) + (Walk * Walk * Weighings * StepGrams), endSquared / Draws, 0.06);
    }

    [Fact] // the walk stops with the stream: two weighings of a full cup share its error, so the second adds only what is its own
    public void What_no_longer_runs_adds_no_error()
    {
        const double Own = 0.3;
        const double Walk = 0.2;
        var covariance = new WeighingNoise(Own, Walk).Precision([(20, 30), (21, 30)]).Inverse();
        var shared = Walk * Walk * 30;
        Assert.Equal(shared, covariance[0, 1], 9);
        Assert.Equal(shared + (Own * Own), covariance[0, 0], 9);
        Assert.Equal(shared + (Own * Own), covariance[1, 1], 9);
    }

    [Fact] // a scale that shakes may show less than before: the walk does not go backwards
    public void A_weight_that_falls_keeps_the_walk_it_had()
    {
        var covariance = new WeighingNoise(0.3, 0.2).Precision([(20, 30), (21, 29.8), (22, 30.1)]).Inverse();
        Assert.Equal(0.2 * 0.2 * 30, covariance[0, 1], 9);
        Assert.Equal(0.2 * 0.2 * 30, covariance[1, 2], 9);
        Assert.Equal((0.2 * 0.2 * 30.1) + (0.3 * 0.3), covariance[2, 2], 9);
    }
}
