namespace RuddySpring.Core.Care;

/// <summary>A shift that a watch has seen.</summary>
/// <param name="At">Index of the value at which it was sure.</param>
/// <param name="Shift">By how much the values since it began differ from the first ones, in their own unit.</param>
/// <param name="Uncertainty">Half width of its 95 % interval.</param>
public sealed record Shifted(int At, double Shift, double Uncertainty);

/// <summary>
/// Watches a series for a lasting shift against its first values: a cumulative sum (Page 1954, "Continuous inspection schemes",
/// Biometrika 41) with half of the shift that matters as allowance. The spread is told by the differences from one value to the
/// next, so that a slow drift does not widen it; single values far off count no more than three spreads, or one and a half of
/// the shift where that is more.
/// </summary>
public static class DriftWatch
{
    /// <summary>Values that tell what is usual.</summary>
    public const int FirstValues = 20;

    private const double MostSpreads = 3;
    private const double MostShifts = 1.5;

    // spreads: more than the usual five, because what is usual has to be learned from a few values
    private const double Limit = 8;

    /// <summary>The newest shift that stands; null where there is none, or too few values.</summary>
    /// <param name="values">In the order of time.</param>
    /// <param name="matters">The shift to find, with its sign.</param>
    /// <param name="leastSpread">Spread below which nothing is believed to be known, above 0.</param>
    public static Shifted? Of(IReadOnlyList<double> values, double matters, double leastSpread)
    {
        if (values.Count <= FirstValues)
            return null;
        var (usual, spread) = Usual(values, leastSpread);
        if (Excursions(values, matters, usual, spread).LastOrDefault() is not { End: null, Sure: { } at, Began: var from })
            return null;
        var since = values.Skip(from).ToList();
        var half = 1.96 * spread * Math.Sqrt((1.0 / since.Count) + (1.0 / FirstValues));
        return new(at, since.Average() - usual, half);
    }

    /// <summary>Indices at which it became sure of a shift, whether that stood or not.</summary>
    public static IReadOnlyList<int> Alarms(IReadOnlyList<double> values, double matters, double leastSpread)
    {
        if (values.Count <= FirstValues)
            return [];
        var (usual, spread) = Usual(values, leastSpread);
        return [.. Excursions(values, matters, usual, spread).Select(e => e.Sure).OfType<int>()];
    }

    private sealed record Excursion(int Began, int? Sure, int? End);

    private static (double Usual, double Spread) Usual(IReadOnlyList<double> values, double leastSpread)
    {
        var first = values.Take(FirstValues).Order().ToList();
        // the median of the moving ranges: what a few odd values do to a mean would hide a shift for good
        var ranges = Enumerable.Range(1, values.Count - 1).Select(i => Math.Abs(values[i] - values[i - 1])).Order().ToList();
        return (
            (first[(FirstValues / 2) - 1] + first[FirstValues / 2]) / 2,
            Math.Max(leastSpread, ranges[ranges.Count / 2] / MedianOfRanges)
        );
    }

    private static IEnumerable<Excursion> Excursions(IReadOnlyList<double> values, double matters, double usual, double spread)
    {
        var allowance = Math.Abs(matters) / 2;
        var most = Math.Max(MostSpreads * spread, MostShifts * Math.Abs(matters));
        var sum = 0.0;
        Excursion? now = null;
        for (var i = FirstValues; i < values.Count; i++)
        {
            var off = Math.Clamp((values[i] - usual) * Math.Sign(matters), -most, most);
            sum = Math.Max(0, sum + off - allowance);
            if (sum == 0)
            {
                if (now is not null)
                    yield return now with
                    {
                        End = i,
                    };
                now = null;
                continue;
            }

            now ??= new(i, null, null);
            if (sum > Limit * spread && now.Sure is null)
                now = now with { Sure = i };
        }

        if (now is not null)
            yield return now;
    }

    // median of the absolute difference of two values of a normal distribution: 0.6745 times the square root of two
    private const double MedianOfRanges = 0.9539;
}
