using RuddySpring.Core.Traces;
using RuddySpring.Core.Trends;

namespace RuddySpring.Core.Tests.Trends;

/// <summary>Trends, correlations and control charts against worked examples and reference values.</summary>
public sealed class TrendTests
{
    private static (double, double)[] Pairs(double[] row, int from)
    {
        var n = (int)row[from];
        return [.. Enumerable.Range(0, n).Select(i => (row[from + 1 + i], row[from + 1 + n + i]))];
    }

    [Fact] // SciPy, see reference/trends.py: with and without ties
    public void Rank_correlation_agrees_with_reference_values()
    {
        var rows = ReferenceFile.Rows("rank_correlation.csv").ToList();
        Assert.Equal(24, rows.Count);
        foreach (var row in rows)
        {
            var c = RankCorrelation.Of(Pairs(row, 2))!;
            Assert.Equal(row[0], c.Rho, 12);
            Assert.Equal(row[1], c.Luck, 1e-6 + (1e-6 * row[1]));
            Assert.True(c.Low < c.Rho && c.Rho < c.High && c.Low > -1 && c.High < 1);
        }
    }

    [Fact] // ten people's IQ and hours of television, rho = -29/165: an often-used worked example [from memory]
    public void Rank_correlation_of_the_usual_worked_example()
    {
        (double, double)[] pairs =
        [
            (106, 7),
            (100, 27),
            (86, 2),
            (101, 50),
            (99, 28),
            (103, 29),
            (97, 20),
            (113, 12),
            (112, 6),
            (110, 17),
        ];
        var c = RankCorrelation.Of(pairs)!;
        Assert.Equal(-29 / 165.0, c.Rho, 12);
        Assert.Equal(0.627188, c.Luck, 5);
    }

    [Fact]
    public void The_interval_of_a_correlation_holds_what_it_should()
    {
        // two normal quantities: Spearman's rho is 6/pi asin(r/2) (Pearson 1907)
        var random = new SeededRandom(5);
        const double r = 0.6;
        var truth = 6 / Math.PI * Math.Asin(r / 2);
        var (held, of) = (0, 600);
        for (var k = 0; k < of; k++)
        {
            var pairs = Enumerable
                .Range(0, 40)
                .Select(_ =>
                {
                    var x = random.Normal(1);
                    return (x, (r * x) + (Math.Sqrt(1 - (r * r)) * random.Normal(1)));
                })
                .ToList();
            var c = RankCorrelation.Of(pairs)!;
            held += c.Low <= truth && truth <= c.High ? 1 : 0;
        }

        Assert.InRange(held / (double)of, 0.92, 0.98);
    }

    [Fact]
    public void Too_little_or_nothing_that_changes_is_no_correlation_and_no_line()
    {
        Assert.Null(RankCorrelation.Of([(1, 2), (2, 3), (3, 4)]));
        Assert.Null(RankCorrelation.Of([.. Enumerable.Range(0, 20).Select(i => ((double)i, 3.0))]));
        Assert.Null(TrendLine.Of([(1, 2), (2, 3), (3, 4)]));
        Assert.Null(TrendLine.Of([.. Enumerable.Range(0, 20).Select(i => (18.0, (double)i))]));
        Assert.Equal(1, RankCorrelation.Of([.. Enumerable.Range(0, 9).Select(i => ((double)i, i * 2.0))])!.Rho);
    }

    [Fact] // SciPy, see reference/trends.py
    public void A_trend_line_and_its_interval_agree_with_reference_values()
    {
        var rows = ReferenceFile.Rows("trend_line.csv").ToList();
        Assert.Equal(24, rows.Count);
        foreach (var row in rows)
        {
            var line = TrendLine.Of(Pairs(row, 4))!;
            Assert.Equal(row[0], line.Slope, 9);
            Assert.Equal(row[1], line.SlopePlusMinus, 7);
            var last = line.Line[^1];
            Assert.Equal(row[2], last.Y, 9);
            Assert.Equal(row[3], last.High - last.Y, 7);
            Assert.Equal(row[3], last.Y - last.Low, 7);
        }
    }

    [Fact] // NIST/SEMATECH e-Handbook 6.3.2.2, flow rates of ten batches [from memory]
    public void Control_limits_are_those_of_the_handbook()
    {
        double[] flow = [49.6, 47.6, 49.9, 51.3, 47.8, 51.2, 52.6, 52.4, 53.6, 52.1];
        var chart = ControlChart.Of(flow)!;
        Assert.Equal(50.81, chart.Mean, 9);
        Assert.Equal(1.8778, chart.MeanMovingRange, 4);
        Assert.Equal(55.8041, chart.High, 3);
        Assert.Equal(45.8159, chart.Low, 3);
        Assert.All(chart.Points, p => Assert.Equal(OutOfControl.No, p.Why));
        // 2.66 mean moving ranges (ISO 7870-2, Shewhart)
        Assert.Equal(2.66, (chart.High - chart.Mean) / chart.MeanMovingRange, 2);
    }

    [Fact]
    public void A_point_beyond_a_limit_and_a_run_of_eight_stand_out()
    {
        double[] steady = [10, 11, 9, 10, 11, 9, 10, 11, 9, 10, 11, 9, 20];
        var chart = ControlChart.Of(steady)!;
        Assert.Equal(OutOfControl.BeyondLimit, chart.Points[^1].Why);
        Assert.Equal(OutOfControl.No, chart.Points[0].Why);
        double[] shifted = [1, -1, 1, -1, 1, -1, 1, -1, 3, 1, 3, 1, 3, 1, 3, 1];
        var moved = ControlChart.Of([.. shifted.Select((v, i) => i < 8 ? v - 2 : v)])!;
        Assert.Equal(OutOfControl.LongRun, moved.Points[^1].Why);
        Assert.Equal(OutOfControl.No, moved.Points[14].Why);
        Assert.Null(ControlChart.Of([1, 2, 3]));
    }

    // Benjamini and Hochberg 1995, the fifteen probabilities of their example: the first four are told at 0.05 [from memory]
    [Fact]
    public void False_discoveries_are_held_as_in_the_paper()
    {
        double[] luck =
        [
            0.0001,
            0.0004,
            0.0019,
            0.0095,
            0.0201,
            0.0278,
            0.0298,
            0.0344,
            0.0459,
            0.3240,
            0.4262,
            0.5719,
            0.6528,
            0.7590,
            1.000,
        ];
        Assert.Equal(4, Liked.Told(luck, 0.05));
        Assert.Equal(0, Liked.Told([0.2, 0.5], 0.05));
        Assert.Equal(0, Liked.Told([], 0.05));
    }

    private static readonly Measures s_none = new(null, null, null, null, null, null, null, null, null, null, null, null, null);

    /// <summary>A drinker who likes what is drawn longer, and whose grind was turned with the ratio where told so.</summary>
    private static List<TrendShot> Drinker(SeededRandom random, int shots, double likes, bool together) =>
        [
            .. Enumerable
                .Range(0, shots)
                .Select(i =>
                {
                    var ratio = 2 + random.Normal(0.3);
                    var liking = (int)Math.Clamp(Math.Round(3 + (likes * (ratio - 2)) + random.Normal(0.7)), 1, 5);
                    return new TrendShot(
                        i + 1,
                        new DateTime(2026, 11, 1, 8, 0, 0, DateTimeKind.Utc).AddHours(i),
                        5 + (i % 14),
                        together ? 20 - (4 * (ratio - 2)) + random.Normal(0.2) : 20 + random.Normal(1),
                        15,
                        30,
                        90 + random.Normal(1.5),
                        null,
                        null,
                        s_none with
                        {
                            Ratio = ratio,
                            SecondsFromLever = 35 + random.Normal(4),
                            PeakBar = 8 + random.Normal(0.4),
                        },
                        new(null, null, null, null, null, liking)
                    );
                }),
        ];

    [Fact]
    public void What_is_liked_is_found_and_what_moved_with_it_is_named()
    {
        var liked = Liked.Of(Drinker(new(1), 80, 3, together: true));
        Assert.Null(liked.Warning);
        var ratio = liked.With.Single(w => w.Key == "ratio");
        Assert.True(ratio.IsTold && ratio.Correlation.Rho > 0.4);
        Assert.Equal(["Grind setting"], ratio.MovedWith);
        Assert.Contains(liked.With.Single(w => w.Key == "grind").MovedWith, m => m == "Ratio, 1 to");
        Assert.Contains(liked.With[0].Key, new[] { "ratio", "grind" });
        // apart, the grind is not accused
        var apart = Liked.Of(Drinker(new(1), 80, 3, together: false));
        Assert.Empty(apart.With.Single(w => w.Key == "ratio").MovedWith);
        Assert.False(apart.With.Single(w => w.Key == "grind").IsTold);
        // what never changed, or nobody knows, is not in it
        Assert.DoesNotContain(apart.With, w => w.Key is "dose" or "group" or "extraction");
    }

    [Fact] // where nothing goes with anything, hardly any household is told that something does
    public void A_drinker_who_likes_everything_alike_is_told_of_nothing()
    {
        var told = Enumerable.Range(0, 200).Count(k => Liked.Of(Drinker(new((ulong)k), 60, 0, false)).With.Any(w => w.IsTold));
        Assert.InRange(told / 200.0, 0, 0.15);
        string? Doubt(int shots) => Liked.Of(Drinker(new(3), shots, 3, false)).Warning;
        Assert.StartsWith("Only 8 tasted shots: ", Doubt(8), StringComparison.Ordinal);
        Assert.StartsWith("Only 1 tasted shot: ", Doubt(1), StringComparison.Ordinal);
        Assert.Equal("No shot has been tasted yet.", Doubt(0));
        Assert.Empty(Liked.Of([]).With);
    }

    [Fact]
    public void Every_quantity_has_a_name_of_its_own()
    {
        Assert.Equal(TrendQuantity.All.Count, TrendQuantity.All.Select(q => q.Key).Distinct().Count());
        var error = Assert.Throws<DoesNotFitException>(() => TrendQuantity.Named("colour", "x"));
        Assert.Contains("age, grind", error.Sentence, StringComparison.Ordinal);
        var shot = Drinker(new(1), 1, 0, false)[0] with
        {
            Strength = 0.118,
            Measures = s_none with { CupGrams = 38 },
            DoseGrams = 19,
        };
        // 19 g in, 38 g out at 11.8 %: 23.6 % (common practice)
        Assert.Equal(23.6, TrendQuantity.Named("extraction", "x").Of(shot)!.Value, 9);
    }

    [Fact]
    public void A_trend_is_said_with_its_size_its_interval_and_its_doubts()
    {
        var (x, y) = (TrendQuantity.Named("age", "x"), TrendQuantity.Named("r10", "y"));
        static string Of(TrendQuantity x, TrendQuantity y, List<(double, double)> pairs, int coffees = 1) =>
            TrendWords.Of(x, y, TrendLine.Of(pairs), RankCorrelation.Of(pairs), pairs.Count, coffees);
        List<(double, double)> falls = [.. Enumerable.Range(0, 20).Select(i => ((double)i, 9 - (0.2 * i) + (i % 2 * 0.1)))];
        Assert.StartsWith(
            "In 20 shots R10 falls by {0.20 bar s/ml} for each day of age from roast "
                + "(with 95 % certainty between {0.19 bar s/ml} and {0.20 bar s/ml}).",
            Of(x, y, falls),
            StringComparison.Ordinal
        );
        Assert.EndsWith("2 coffees are mixed in it; choose one to see it alone.", Of(x, y, falls, 2), StringComparison.Ordinal);
        List<(double, double)> nothing = [.. Enumerable.Range(0, 8).Select(i => ((double)i, i % 2 * 1.0))];
        Assert.Equal(
            "In 8 shots R10 does not go with age from roast. There are few of them, so take it as a hint.",
            Of(x, y, nothing)
        );
        Assert.Equal("1 shot has both: too few, or too much alike, for a trend.", Of(x, y, [(1, 1)]));
        Assert.Equal("No shot has both age from roast and R10.", Of(x, y, []));
    }
}
