using RuddySpring.Core.Reasoning;

namespace RuddySpring.Core.Tests.Reasoning;

public sealed class BlindLadderTests
{
    private static LadderScore Score(params int[] places) =>
        LadderScore.Of(
            new(LadderOf.Temperature, [.. places.Select((_, i) => 85.0 + i)], [.. Enumerable.Range(0, places.Length)]),
            places
        );

    // upper tail of Kendall's S = 2 * right - pairs (Kendall, Rank Correlation Methods, table of S; from memory)
    [Theory]
    [InlineData(new[] { 0, 1, 2, 3 }, 0.042)]
    [InlineData(new[] { 0, 1, 3, 2 }, 0.167)]
    [InlineData(new[] { 0, 1, 2, 3, 4 }, 0.0083)]
    [InlineData(new[] { 1, 0, 2, 3, 4 }, 0.042)]
    [InlineData(new[] { 1, 0, 2, 4, 3 }, 0.117)]
    [InlineData(new[] { 0, 1, 2 }, 0.167)]
    public void Luck_is_as_in_the_table(int[] places, double luck) => Assert.Equal(luck, Score(places).Luck, 3);

    [Fact]
    public void The_wrong_way_round_is_no_proof()
    {
        Assert.Equal(1, Score(4, 3, 2, 1, 0).Luck, 9);
        Assert.Contains("no better than luck", Score(4, 3, 2, 1, 0).Sentence, StringComparison.Ordinal);
        Assert.Contains("hardly luck", Score(0, 1, 2, 3, 4).Sentence, StringComparison.Ordinal);
    }

    [Fact]
    public void Every_cup_has_its_own_place()
    {
        Assert.Throws<DoesNotFitException>(() => Score(0, 0, 1));
        Assert.Throws<DoesNotFitException>(() => LadderScore.Of(BlindLadder.Plan(LadderOf.Ratio, 1.5, 3, 4, new(1)), [0, 1]));
    }

    [Fact] // each of the 24 orders of four cups comes about equally often
    public void The_order_is_drawn_by_lot()
    {
        var random = new SeededRandom(5);
        const int draws = 4800;
        var seen = Enumerable
            .Range(0, draws)
            .Select(_ => string.Join(',', BlindLadder.Plan(LadderOf.Grind, 10, 16, 4, random).Order))
            .GroupBy(o => o)
            .Select(g => g.Count())
            .ToList();
        Assert.Equal(24, seen.Count);
        // chi squared with 23 degrees of freedom: 49.7 is exceeded once in a thousand (tables)
        Assert.InRange(seen.Sum(c => Math.Pow(c - (draws / 24.0), 2) / (draws / 24.0)), 0, 49.7);
    }

    [Fact]
    public void Rungs_rise_evenly_and_odd_ladders_are_refused()
    {
        Assert.Equal([85, 89, 93, 97], BlindLadder.Plan(LadderOf.Temperature, 97, 85, 4, new(1)).Rungs);
        Assert.Throws<FieldRangeException>(() => BlindLadder.Plan(LadderOf.Temperature, 20, 90, 4, new(1)));
        Assert.Throws<FieldRangeException>(() => BlindLadder.Plan(LadderOf.Ratio, 1, double.NaN, 4, new(1)));
        Assert.Throws<FieldRangeException>(() => BlindLadder.Plan(LadderOf.Ratio, 1, 3, 2, new(1)));
        Assert.Throws<DoesNotFitException>(() => BlindLadder.Plan(LadderOf.Ratio, 2, 2, 4, new(1)));
    }
}
