namespace RuddySpring.Core.Traces;

/// <summary>
/// What a scale says of one cup: from when it stands there empty until it is taken away. A weight that moves faster than coffee
/// falls is a hand: a cup set down, a scale set to zero, a cup lifted and put back.
/// </summary>
/// <param name="Weight">The coffee in the cup, g, from zero; samples of a hand are left out.</param>
/// <param name="LiftedAt">When the cup was taken away for good, s; null where it stood to the end.</param>
public sealed record CupOnScale(Series Weight, double? LiftedAt)
{
    private const double FastestGramsPerS = 6.0;
    private const double ShakenGrams = 1.5;
    private const double LongestHandSeconds = 8.0;
    private const double EmptyGrams = 2.0;
    private const double LeansSeconds = 0.4;
    private const double LeansGrams = 0.7;

    /// <summary>Reads the series of a scale, times rising.</summary>
    public static CupOnScale Of(Series scale)
    {
        var n = scale.Count;
        if (n == 0)
            return new(scale, null);
        var kept = new List<int>(n);
        var most = double.NegativeInfinity;
        double? liftedAt = null;
        // coffee falls into the cup and stays there
        bool Follows(int to) =>
            kept.Count == 0
            || (
                scale.Values[to] >= most - ShakenGrams
                && scale.Values[to]
                    <= scale.Values[kept[^1]] + ShakenGrams + (FastestGramsPerS * (scale.Seconds[to] - scale.Seconds[kept[^1]]))
            );
        void Keep(int i)
        {
            kept.Add(i);
            most = Math.Max(most, scale.Values[i]);
        }

        for (var i = 0; i < n; i++)
        {
            if (Follows(i))
            {
                Keep(i);
                continue;
            }

            var back = Enumerable
                .Range(i, n - i)
                .TakeWhile(k => scale.Seconds[k] - scale.Seconds[kept[^1]] <= LongestHandSeconds)
                .FirstOrDefault(Follows, -1);
            if (back >= 0)
            {
                i = back - 1; // a hand in between
                continue;
            }

            if (most - scale.Values[kept[0]] < EmptyGrams)
            {
                // no coffee yet: the cup begins here
                kept.Clear();
                most = double.NegativeInfinity;
                Keep(i);
                continue;
            }

            liftedAt = scale.Seconds[kept[^1]];
            break;
        }

        if (liftedAt is { } lifted)
        {
            // the hand leans on the cup before it lifts it
            var stood = kept.FindLast(k => scale.Seconds[k] <= lifted - LeansSeconds);
            kept.RemoveAll(k => k > stood && scale.Values[k] > scale.Values[stood] + LeansGrams);
        }

        var empty = Hampel.Median([.. kept.Take(5).Select(k => scale.Values[k])]);
        return new(
            scale with
            {
                Seconds = [.. kept.Select(k => scale.Seconds[k])],
                Values = [.. kept.Select(k => scale.Values[k] - empty)],
            },
            liftedAt
        );
    }
}
