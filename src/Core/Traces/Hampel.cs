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
        var result = new double[values.Count];
        var replaced = 0;
        var buffer = new double[(2 * halfWidth) + 1];
        for (var i = 0; i < values.Count; i++)
        {
            var low = Math.Max(0, i - halfWidth);
            var high = Math.Min(values.Count - 1, i + halfWidth);
            var window = buffer.AsSpan(0, high - low + 1);
            for (var k = low; k <= high; k++)
                window[k - low] = values[k];
            var median = MedianOf(window);
            for (var k = low; k <= high; k++)
                window[k - low] = Math.Abs(values[k] - median);
            var deviation = 1.4826 * MedianOf(window);
            if (Math.Abs(values[i] - median) > threshold * Math.Max(deviation, floor))
            {
                result[i] = median;
                replaced++;
            }
            else
            {
                result[i] = values[i];
            }
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
