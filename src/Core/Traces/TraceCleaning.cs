namespace RuddySpring.Core.Traces;

/// <summary>
/// A trace on an even grid, with spikes gone, the scale's lag taken out and the flow worked out. All arrays have one length.
/// </summary>
/// <param name="StepSeconds">Spacing of the grid, s.</param>
/// <param name="Seconds">Times since the pull began.</param>
/// <param name="PressureBar">Gauge pressure; NaN throughout where there was no gauge.</param>
/// <param name="WeightGrams">Smoothed weight; NaN throughout where there was no scale.</param>
/// <param name="FlowGramsPerS">Derivative of the weight.</param>
/// <param name="SpikesRemoved">How many samples were replaced.</param>
public sealed record CleanTrace(
    double StepSeconds, double[] Seconds, double[] PressureBar, double[] WeightGrams, double[] FlowGramsPerS, int SpikesRemoved)
{
    /// <summary>Whether there is a pressure.</summary>
    public bool HasPressure => PressureBar.Length > 0 && !double.IsNaN(PressureBar[0]);

    /// <summary>Whether there is a weight.</summary>
    public bool HasWeight => WeightGrams.Length > 0 && !double.IsNaN(WeightGrams[0]);
}

/// <summary>Cleans recorded traces: order and duplicates, Hampel, even grid, lag, Savitzky-Golay.</summary>
public static class TraceCleaning
{
    /// <summary>Grid of a clean trace, s.</summary>
    public const double GridSeconds = 0.1;

    /// <summary>How late a kitchen scale's reading typically is, s (common practice, 0.3 to 0.6).</summary>
    public const double ScaleLagSeconds = 0.4;

    private const int FlowHalfWidth = 7;
    private const int PressureHalfWidth = 3;

    /// <summary>Cleans a trace.</summary>
    /// <param name="trace">As recorded.</param>
    /// <param name="scaleLagSeconds">Lag to take out of the weight, s.</param>
    public static CleanTrace Clean(Trace trace, double scaleLagSeconds = ScaleLagSeconds)
    {
        var count = Math.Max(1, (int)Math.Floor(trace.EndSeconds / GridSeconds) + 1);
        var seconds = Enumerable.Range(0, count).Select(i => i * GridSeconds).ToArray();
        var spikes = 0;

        double[] OnGrid(Channel channel, double lag, double floor)
        {
            if (trace.Of(channel) is not { Origin: not Origin.Assumed } raw) return [.. Enumerable.Repeat(double.NaN, count)];
            var ordered = Ordered(raw);
            var (values, replaced) = Hampel.Filter(ordered.Values, 4, 4.0, floor);
            spikes += replaced;
            var clean = ordered with { Values = values };
            return [.. seconds.Select(s => clean.At(s + lag))];
        }

        var pressure = OnGrid(Channel.Pressure, 0.0, 0.25);
        if (!double.IsNaN(pressure[0])) pressure = SavitzkyGolay.Filter(pressure, PressureHalfWidth, 2, 0, GridSeconds);
        var weight = OnGrid(Channel.Weight, trace.Of(Channel.Weight)?.Origin == Origin.Measured ? scaleLagSeconds : 0.0, 1.0);
        var flow = weight;
        if (!double.IsNaN(weight[0]))
        {
            flow = SavitzkyGolay.Filter(weight, FlowHalfWidth, 2, 1, GridSeconds);
            weight = SavitzkyGolay.Filter(weight, FlowHalfWidth, 2, 0, GridSeconds);
        }

        return new(GridSeconds, seconds, pressure, weight, flow, spikes);
    }

    /// <summary>A series with times rising: sorted, of samples at one time the last kept, values that are no numbers dropped.</summary>
    public static Series Ordered(Series series)
    {
        var sorted = Enumerable.Range(0, series.Count)
            .Where(i => double.IsFinite(series.Seconds[i]) && double.IsFinite(series.Values[i]))
            .OrderBy(i => series.Seconds[i]).ThenBy(i => i).ToList();
        var seconds = new List<double>(sorted.Count);
        var values = new List<double>(sorted.Count);
        foreach (var i in sorted)
        {
            if (seconds.Count > 0 && series.Seconds[i] <= seconds[^1])
            {
                values[^1] = series.Values[i];
                continue;
            }

            seconds.Add(series.Seconds[i]);
            values.Add(series.Values[i]);
        }

        return series with { Seconds = seconds, Values = values };
    }
}
