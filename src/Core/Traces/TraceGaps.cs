namespace RuddySpring.Core.Traces;

/// <summary>Where an instrument told nothing for a while: a straight line bridges it for drawing, and counts as nothing
/// seen.</summary>
public static class TraceGaps
{
    private const double LeastGapSeconds = 1.0;
    private const double UsualSteps = 5.0;

    /// <summary>Whether a series tells of each time in s: samples on both sides no further apart than a gap.</summary>
    /// <param name="series">Times rising.</param>
    /// <param name="seconds">Times, rising.</param>
    public static bool[] Seen(Series series, double[] seconds)
    {
        var longest = LongestStep(series);
        var seen = new bool[seconds.Length];
        var next = 0;
        for (var i = 0; i < seconds.Length; i++)
        {
            while (next < series.Count && series.Seconds[next] < seconds[i])
                next++;
            var before = next > 0 ? series.Seconds[next - 1] : double.NegativeInfinity;
            var after = next < series.Count ? series.Seconds[next] : double.PositiveInfinity;
            seen[i] =
                double.IsInfinity(before) || double.IsInfinity(after)
                    ? Math.Min(seconds[i] - before, after - seconds[i]) <= longest
                    : after - before <= longest;
        }

        return seen;
    }

    /// <summary>Seconds between two times that were not seen.</summary>
    public static double Unseen(CleanTrace clean, double from, double to)
    {
        var count = 0;
        for (var i = 0; i < clean.Seconds.Length; i++)
        {
            if (
                clean.Seconds[i] >= from
                && clean.Seconds[i] <= to
                && !((clean.SawPressure(i) || !clean.HasPressure) && (clean.SawWeight(i) || !clean.HasWeight))
            )
                count++;
        }

        return count * clean.StepSeconds;
    }

    /// <summary>A step longer than this is a gap, s: five of the series' own, and never under a second.</summary>
    private static double LongestStep(Series series)
    {
        if (series.Count < 3)
            return LeastGapSeconds;
        var steps = new double[series.Count - 1];
        for (var i = 0; i < steps.Length; i++)
            steps[i] = series.Seconds[i + 1] - series.Seconds[i];
        Array.Sort(steps);
        return Math.Max(LeastGapSeconds, UsualSteps * steps[steps.Length / 2]);
    }
}
