namespace RuddySpring.Core.Traces;

/// <summary>The moments of a pull, s since the lever moved; null where the trace does not show one.</summary>
/// <param name="FirstPressure">Pressure first above 0.5 bar.</param>
/// <param name="FirstDrops">First drops in the cup.</param>
/// <param name="Ramp">Pressure begins to rise from pre-infusion.</param>
/// <param name="Peak">Highest pressure.</param>
/// <param name="Ease">Pressure falls below 92 % of the peak for good.</param>
/// <param name="Blonding">Seen by the brewer; no instrument shows it.</param>
/// <param name="Stop">The pull ends.</param>
public sealed record Moments(
    double? FirstPressure, double? FirstDrops, double? Ramp, double? Peak, double? Ease, double? Blonding, double? Stop)
{
    /// <summary>No moment at all.</summary>
    public static readonly Moments None = new(null, null, null, null, null, null, null);

    /// <summary>These moments with those of <paramref name="marked"/>, which a person set, in their place.</summary>
    public Moments With(Moments marked) => new(
        marked.FirstPressure ?? FirstPressure, marked.FirstDrops ?? FirstDrops, marked.Ramp ?? Ramp, marked.Peak ?? Peak,
        marked.Ease ?? Ease, marked.Blonding ?? Blonding, marked.Stop ?? Stop);
}

/// <summary>Finds the moments in a clean trace.</summary>
public static class MomentFinder
{
    private const double PressedBar = 0.5;
    private const double DropsGrams = 0.3;
    private const double FlowingGramsPerS = 0.12;

    /// <summary>The moments that a clean trace shows.</summary>
    public static Moments Find(CleanTrace clean)
    {
        double? firstPressure = null, ramp = null, peak = null, ease = null, drops = null, stop = null;
        var n = clean.Seconds.Length;
        var lastPressed = -1;
        if (clean.HasPressure)
        {
            var p = clean.PressureBar;
            var first = Array.FindIndex(p, v => v > PressedBar);
            if (first >= 0)
            {
                firstPressure = clean.Seconds[first];
                var top = Array.IndexOf(p, p.Max());
                peak = clean.Seconds[top];
                var low = LowBefore(p, first, top);
                var rampFrom = low + (0.12 * (p[top] - low));
                for (var i = top; i >= first; i--)
                {
                    if (p[i] <= rampFrom)
                    {
                        ramp = clean.Seconds[i];
                        break;
                    }
                }

                var lastHigh = Array.FindLastIndex(p, v => v >= 0.92 * p[top]);
                if (lastHigh >= 0 && lastHigh < n - 1) ease = clean.Seconds[lastHigh + 1];
                lastPressed = Array.FindLastIndex(p, v => v > PressedBar);
            }
        }

        if (clean.HasWeight) drops = FirstDrops(clean);
        var lastFlow = clean.HasWeight ? Array.FindLastIndex(clean.FlowGramsPerS, q => q > FlowingGramsPerS) : -1;
        if (lastPressed >= 0) stop = clean.Seconds[lastPressed];
        else if (lastFlow >= 0) stop = clean.Seconds[lastFlow];
        return new(firstPressure, drops, ramp, peak, ease, null, stop);
    }

    /// <summary>The level of pre-infusion: the median pressure from the first press to one second before the peak.</summary>
    private static double LowBefore(double[] p, int first, int top)
    {
        var end = Math.Max(first + 1, top - 10);
        var before = p[first..Math.Min(end, p.Length)].Order().ToArray();
        return before[before.Length / 4];
    }

    /// <summary>
    /// The weight passes 0.3 g for good and the flow is on: the time is brought back along the flow to where the weight left zero.
    /// </summary>
    private static double? FirstDrops(CleanTrace clean)
    {
        var w = clean.WeightGrams;
        var rest = Hampel.Median(w.Take(5).ToArray());
        var from = Array.FindLastIndex(w, v => v - rest < DropsGrams);
        if (from < 0 || from >= w.Length - 1) return null;
        var index = from + 1;
        var flow = Math.Max(FlowingGramsPerS, clean.FlowGramsPerS[index]);
        return Math.Max(0.0, clean.Seconds[index] - ((w[index] - rest) / flow));
    }
}
