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
    public static (double[] Values, int Replaced) Filter(IReadOnlyList<double> values, int halfWidth, double threshold, double floor)
    {
        var result = new double[values.Count];
        var replaced = 0;
        for (var i = 0; i < values.Count; i++)
        {
            var low = Math.Max(0, i - halfWidth);
            var high = Math.Min(values.Count - 1, i + halfWidth);
            var window = new List<double>(high - low + 1);
            for (var k = low; k <= high; k++) window.Add(values[k]);
            var median = Median(window);
            var deviation = 1.4826 * Median([.. window.Select(v => Math.Abs(v - median))]);
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
        if (values.Count == 0) return double.NaN;
        var sorted = values.Order().ToArray();
        var middle = sorted.Length / 2;
        return sorted.Length % 2 == 1 ? sorted[middle] : (sorted[middle - 1] + sorted[middle]) / 2.0;
    }
}
