using RuddySpring.Core.Trends;

namespace RuddySpring.Core.Tests.Trends;

public sealed class MeanAndSpreadTests
{
    [Fact]
    public void The_spread_is_the_sample_standard_deviation()
    {
        // NIST/SEMATECH e-Handbook of Statistical Methods, certified univariate data set NumAcc1 (from memory): mean 10000002,
        // standard deviation 1
        var set = MeanAndSpread.Of([10000001, 10000003, 10000002])!;
        Assert.Equal(10000002, set.Mean, 1e-9);
        Assert.Equal(1, set.Spread, 1e-9);
        Assert.Equal(3, set.Count);
    }

    [Fact]
    public void Two_numbers_have_no_spread_worth_saying() => Assert.Null(MeanAndSpread.Of([30, 32]));
}
