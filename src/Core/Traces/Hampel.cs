namespace RuddySpring.Core.Traces;

/// <summary>
/// Spikes out: a sample further from its window's median than a number of scaled median deviations is replaced by that median
/// (Hampel, Journal of the American Statistical Association 69, 1974; 1.4826 makes the deviation that of a normal distribution).
/// </summary>
public static class Hampel
{
    /// <summary>Filters values; returns as many and the count that was replaced.</summary>
    /// <param name="values">Values in order.</param>
    /// <param name="halfWidth">Samples on each side, at least 1.</param>
    /// <param name="threshold">How many deviations, usually 3.</param>
    /// <param name="floor">Smallest deviation that counts, in the values' unit: an instrument's step is no spike.</param>
    public static (double[] Values, int Replaced) Filter(
        IReadOnlyList<double> values,
        int halfWidth,
        double threshold,
        double floor
    )
    {
        var from = values as double[] ?? [.. values];
        var result = new double[from.Length];
        var replaced = 0;
        var buffer = new double[(2 * halfWidth) + 1];
        for (var i = 0; i < from.Length; i++)
        {
            var around = from.AsSpan(Math.Max(0, i - halfWidth)..Math.Min(from.Length, i + halfWidth + 1));
            var window = buffer.AsSpan(0, around.Length);
            around.CopyTo(window);
            var median = MedianOf(window);
            var away = Math.Abs(from[i] - median);
            result[i] = from[i];
            // within the floor it is no spike, whatever its window's deviation
            if (!(away > threshold * floor))
                continue;
            for (var k = 0; k < around.Length; k++)
                window[k] = Math.Abs(around[k] - median);
            if (!(away > threshold * Math.Max(1.4826 * MedianOf(window), floor)))
                continue;
            result[i] = median;
            replaced++;
        }

        return (result, replaced);
    }

    /// <summary>Median of values; the mean of the middle two for an even count. NaN for none.</summary>
    public static double Median(IReadOnlyCollection<double> values)
    {
        return values.Count == 0 ? double.NaN : MedianOf([.. values]);
    }

    /// <summary>Median of a span, which it sorts.</summary>
    private static double MedianOf(Span<double> values)
    {
        values.Sort();
        var middle = values.Length / 2;
        return values.Length % 2 == 1 ? values[middle] : (values[middle - 1] + values[middle]) / 2.0;
    }
}
