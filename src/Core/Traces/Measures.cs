namespace RuddySpring.Core.Traces;

/// <summary>What a trace says in numbers. Null where the trace cannot tell.</summary>
/// <param name="SecondsFromLever">From the lever's first move to stop.</param>
/// <param name="SecondsFromPressure">From first pressure to stop.</param>
/// <param name="SecondsFromDrops">From first drops to stop.</param>
/// <param name="SecondsToDrops">From the lever's first move to first drops.</param>
/// <param name="CupGrams">In the cup at the end.</param>
/// <param name="Ratio">Cup over dose.</param>
/// <param name="PeakBar">Highest pressure.</param>
/// <param name="MeanBar">Mean pressure from first pressure to stop.</param>
/// <param name="MeanFlowGramsPerS">Cup over the seconds from first drops.</param>
/// <param name="FlowSlope">How the flow changes, g/s2, by a least-squares line from first drops to stop.</param>
/// <param name="BarSeconds">Integral of pressure.</param>
/// <param name="WorkJoules">Work on the water that left the puck, J: 1 bar ml = 0.1 J.</param>
/// <param name="R10">Resistance of the grind, bar s/ml (<see cref="GrindResistance"/>).</param>
public sealed record Measures(
    double? SecondsFromLever, double? SecondsFromPressure, double? SecondsFromDrops, double? SecondsToDrops, double? CupGrams,
    double? Ratio, double? PeakBar, double? MeanBar, double? MeanFlowGramsPerS, double? FlowSlope, double? BarSeconds,
    double? WorkJoules, double? R10);

/// <summary>Works out <see cref="Measures"/> from a clean trace and its moments.</summary>
public static class MeasureShot
{
    /// <summary>Measures of a shot of a dose in g with water at the puck in degC.</summary>
    public static Measures From(CleanTrace clean, Moments moments, double doseGrams, double waterC = 93.0)
    {
        double? peak = null, mean = null, barSeconds = null, work = null, cup = null, flow = null, slope = null;
        if (clean.HasPressure)
        {
            peak = clean.PressureBar.Max();
            var from = moments.FirstPressure ?? 0.0;
            var to = moments.Stop ?? clean.Seconds[^1];
            var inside = Indices(clean, from, to);
            if (inside.Count > 0)
            {
                mean = inside.Average(i => clean.PressureBar[i]);
                barSeconds = inside.Sum(i => Math.Max(0.0, clean.PressureBar[i])) * clean.StepSeconds;
                if (clean.HasWeight)
                {
                    work = inside.Sum(i => Math.Max(0.0, clean.PressureBar[i]) * Math.Max(0.0, clean.FlowGramsPerS[i]))
                        * clean.StepSeconds * Units.JoulesPerBarMl;
                }
            }
        }

        if (clean.HasWeight)
        {
            cup = Math.Max(0.0, FinalGrams(clean) - clean.WeightGrams[0]);
            if (moments is { FirstDrops: { } drops, Stop: { } stop } && stop > drops)
            {
                flow = cup / (stop - drops);
                var inside = Indices(clean, drops, stop);
                if (inside.Count > 2) slope = Slope([.. inside.Select(i => clean.Seconds[i])], [.. inside.Select(i => clean.FlowGramsPerS[i])]);
            }
        }

        return new(
            moments.Stop, moments.Stop - moments.FirstPressure, moments.Stop - moments.FirstDrops, moments.FirstDrops, cup,
            cup / doseGrams, peak, mean, flow, slope, barSeconds, work,
            GrindResistance.R10(clean, moments, doseGrams, waterC));
    }

    /// <summary>Cleans, finds the moments, puts the marked ones in their place, and measures.</summary>
    public static (CleanTrace Clean, Moments Moments, Measures Measures) Read(
        Trace trace, Moments marked, double doseGrams, double waterC = 93.0)
    {
        var clean = TraceCleaning.Clean(trace);
        var moments = MomentFinder.Find(clean).With(marked);
        return (clean, moments, From(clean, moments, doseGrams, waterC));
    }

    /// <summary>What stands in the cup at the end: averaged while nothing falls any more, the last value where the record ends in full flow.</summary>
    private static double FinalGrams(CleanTrace clean) =>
        Math.Abs(clean.FlowGramsPerS[^1]) < 0.3 ? clean.WeightGrams.TakeLast(5).Average() : clean.WeightGrams[^1];

    private static List<int> Indices(CleanTrace clean, double from, double to) =>
        [.. Enumerable.Range(0, clean.Seconds.Length).Where(i => clean.Seconds[i] >= from && clean.Seconds[i] <= to)];

    private static double Slope(double[] x, double[] y)
    {
        double mx = x.Average(), my = y.Average(), sxy = 0.0, sxx = 0.0;
        for (var i = 0; i < x.Length; i++)
        {
            sxy += (x[i] - mx) * (y[i] - my);
            sxx += (x[i] - mx) * (x[i] - mx);
        }

        return sxx > 0.0 ? sxy / sxx : 0.0;
    }
}
