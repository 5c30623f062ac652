namespace RuddySpring.Core.Tests;

public sealed class SeededRandomTests
{
    [Fact] // SplitMix64's published reference sequence for the seed 1234567 [from memory]
    public void Bits_are_those_of_the_published_generator()
    {
        var random = new SeededRandom(1234567);
        Assert.Equal(6457827717110365317UL, random.NextBits());
        Assert.Equal(3203168211198807973UL, random.NextBits());
        Assert.Equal(9817491932198370423UL, random.NextBits());
        Assert.Equal(4593380528125082431UL, random.NextBits());
        Assert.Equal(16408922859458223821UL, random.NextBits());
    }

    [Fact] // moments of the standard normal distribution: mean 0, variance 1, fourth moment 3
    public void Normal_deviates_have_the_moments_of_the_normal_distribution()
    {
        var random = new SeededRandom(99);
        double[] all = [.. Enumerable.Range(0, 200_000).Select(_ => random.Normal())];
        Assert.Equal(0, all.Average(), 0.01);
        Assert.Equal(1, all.Average(x => x * x), 0.02);
        Assert.Equal(3, all.Average(x => x * x * x * x), 0.1);
    }

    [Fact]
    public void Uniform_stays_inside_and_fills_its_range()
    {
        var random = new SeededRandom(5);
        double[] all = [.. Enumerable.Range(0, 50_000).Select(_ => random.Uniform(2, 6))];
        Assert.All(all, x => Assert.InRange(x, 2, 6));
        Assert.Equal(4, all.Average(), 0.03);
        Assert.InRange(Enumerable.Range(0, 1000).Select(_ => random.Below(3)).Distinct().Count(), 3, 3);
    }
}
