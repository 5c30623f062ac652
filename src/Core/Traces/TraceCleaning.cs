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
/// <param name="GaugeRestBar">What was taken off the pressure, bar; 0 for nothing.</param>
/// <param name="CupLiftedAt">When the cup was taken off the scale, s; the weight stays at its last from there. Null where it
/// stood to the end.</param>
/// <param name="PressureSeen">Whether an instrument told the pressure about then, or a straight line bridges a gap; null for
/// throughout.</param>
/// <param name="WeightSeen">The same of the weight.</param>
public sealed record CleanTrace(
    double StepSeconds,
    double[] Seconds,
    double[] PressureBar,
    double[] WeightGrams,
    double[] FlowGramsPerS,
    int SpikesRemoved,
    double GaugeRestBar = 0.0,
    double? CupLiftedAt = null,
    bool[]? PressureSeen = null,
    bool[]? WeightSeen = null
)
{
    /// <summary>Whether the pressure at a place in the grid was seen.</summary>
    public bool SawPressure(int i) => PressureSeen is null || PressureSeen[i];

    /// <summary>Whether the weight at a place in the grid was seen.</summary>
    public bool SawWeight(int i) => WeightSeen is null || WeightSeen[i];

    /// <summary>The trace from a time in s on, which becomes its zero.</summary>
    public CleanTrace From(double seconds)
    {
        var first = Math.Clamp((int)Math.Round(seconds / StepSeconds), 0, Seconds.Length - 1);
        return first == 0
            ? this
            : this with
            {
                Seconds = Seconds[..^first],
                PressureBar = PressureBar[first..],
                WeightGrams = WeightGrams[first..],
                FlowGramsPerS = FlowGramsPerS[first..],
                CupLiftedAt = CupLiftedAt - (first * StepSeconds),
                PressureSeen = PressureSeen?[first..],
                WeightSeen = WeightSeen?[first..],
            };
    }

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
    /// <param name="boilerOnPuck">Whether a raised lever lets a boiler's pressure to the gauge (<see cref="GaugeRest"/>).</param>
    public static CleanTrace Clean(Trace trace, double scaleLagSeconds = ScaleLagSeconds, bool boilerOnPuck = false)
    {
        var count = Math.Max(1, (int)Math.Floor(trace.EndSeconds / GridSeconds) + 1);
        var seconds = Enumerable.Range(0, count).Select(i => i * GridSeconds).ToArray();
        var spikes = 0;

        Series? WithoutSpikes(Channel channel, double floor)
        {
            if (trace.Of(channel) is not { Origin: not Origin.Assumed } raw)
                return null;
            var ordered = Ordered(raw);
            if (ordered.Count == 0)
                return null;
            var (values, replaced) = Hampel.Filter(ordered.Values, 4, 4.0, floor);
            spikes += replaced;
            return ordered with { Values = values };
        }

        double[] pressure = [.. Enumerable.Repeat(double.NaN, count)],
            weight = pressure,
            flow = pressure;
        bool[]? pressureSeen = null,
            weightSeen = null;
        var rest = 0.0;
        if (WithoutSpikes(Channel.Pressure, 0.25) is { } gauge)
        {
            rest = GaugeRest.Of(gauge, boilerOnPuck);
            pressureSeen = TraceGaps.Seen(gauge, seconds);
            double[] onGrid = [.. seconds.Select(s => gauge.At(s) - rest)];
            pressure = WithinWhatIsSmoothed(SavitzkyGolay.Filter(onGrid, PressureHalfWidth, 2, 0, GridSeconds), onGrid);
        }

        double? lifted = null;
        if (WithoutSpikes(Channel.Weight, 1.0) is { } scale)
        {
            var lag = scale.Origin == Origin.Measured ? scaleLagSeconds : 0.0;
            weightSeen = TraceGaps.Seen(scale, seconds);
            (scale, lifted) = CupOnScale.Of(scale);
            double[] onGrid = [.. seconds.Select(s => scale.At(s + lag))];
            flow = SavitzkyGolay.Filter(onGrid, FlowHalfWidth, 2, 1, GridSeconds);
            weight = SavitzkyGolay.Filter(onGrid, FlowHalfWidth, 2, 0, GridSeconds);
        }

        return new(GridSeconds, seconds, pressure, weight, flow, spikes, rest, lifted, pressureSeen, weightSeen);
    }

    /// <summary>A parabola overshoots where a hand lets go at once: no smoothed pressure lies outside of those that it was
    /// smoothed from.</summary>
    private static double[] WithinWhatIsSmoothed(double[] smooth, double[] from)
    {
        for (var i = 0; i < smooth.Length; i++)
        {
            var window = from.AsSpan(Math.Max(0, i - PressureHalfWidth)..Math.Min(from.Length, i + PressureHalfWidth + 1));
            double low = window[0],
                high = window[0];
            foreach (var value in window)
                (low, high) = (Math.Min(low, value), Math.Max(high, value));
            smooth[i] = Math.Clamp(smooth[i], low, high);
        }

        return smooth;
    }

    /// <summary>A series with times rising: sorted, of samples at one time the last kept, values that are no numbers
    /// dropped.</summary>
    public static Series Ordered(Series series)
    {
        if (IsOrdered(series))
            return series;
        var sorted = Enumerable
            .Range(0, series.Count)
            .Where(i => double.IsFinite(series.Seconds[i]) && double.IsFinite(series.Values[i]))
            .OrderBy(i => series.Seconds[i])
            .ThenBy(i => i)
            .ToList();
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

        return series with
        {
            Seconds = seconds,
            Values = values,
        };
    }

    private static bool IsOrdered(Series series)
    {
        var before = double.NegativeInfinity;
        for (var i = 0; i < series.Count; i++)
        {
            if (!(series.Seconds[i] > before) || !double.IsFinite(series.Seconds[i]) || !double.IsFinite(series.Values[i]))
                return false;
            before = series.Seconds[i];
        }

        return true;
    }
}
