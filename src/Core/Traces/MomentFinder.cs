using MathNet.Numerics;

namespace RuddySpring.Core.Traces;

/// <summary>Finds the moments in a clean trace: those it shows, and no others.</summary>
public static class MomentFinder
{
    private const double PressedBar = 0.5;
    private const double MovingBar = 0.15;
    private const double IdleSeconds = 1.0;
    private const double TopBar = 0.15;
    private const double TopShare = 0.97;
    private const double EasedShare = 0.92;
    private const double EasedFartherShare = 0.80;
    private const double EasedBeforeStopSeconds = 1.0;
    private const double PreInfusionShare = 0.65;
    private const double PreInfusionSeconds = 1.5;
    private const double LeastRampBar = 1.5;
    private const double BoilerBar = 1.8;
    private const double BoilerSlackBar = 0.3;
    private const int EndSamples = 10;
    private const double DropsGrams = 0.3;
    private const double FlowingGramsPerS = 0.12;

    /// <summary>The moments that a clean trace shows.</summary>
    /// <param name="clean">The trace.</param>
    /// <param name="waitsFirst">Whether the pull begins without pressure, as a bloom does: then waiting is no idling, and its
    /// clock runs from the record's beginning.</param>
    /// <param name="boilerOnPuck">Whether a raised lever lets a boiler's pressure to the puck: then letting go ends there and not
    /// at nothing.</param>
    public static Moments Find(CleanTrace clean, bool waitsFirst = false, bool boilerOnPuck = false)
    {
        double? start = 0.0;
        double? firstPressure = null,
            ramp = null,
            peak = null,
            ease = null,
            stop = null;
        if (clean.HasPressure && Array.FindIndex(clean.PressureBar, v => v > PressedBar) is >= 0 and var first)
        {
            var p = clean.PressureBar;
            firstPressure = clean.Seconds[first];
            if (!waitsFirst)
                start = Start(clean, first);
            var letGo = LetGo(clean, boilerOnPuck);
            stop = letGo is { } index ? clean.Seconds[index] : clean.Seconds[Array.FindLastIndex(p, v => v > PressedBar)];
            if (clean.CupLiftedAt is { } lifted && lifted < stop)
                stop = lifted;
            var last = Math.Max(first, Array.FindLastIndex(clean.Seconds, s => s <= stop));
            var top = p[first..(last + 1)].Max();
            var reached = Array.FindIndex(p, first, v => v >= Math.Min(top * TopShare, top - TopBar));
            peak = clean.Seconds[reached];
            ramp = Ramp(clean, first, reached, top);
            ease = Ease(clean, reached, last, top);
        }
        else if (clean.HasWeight)
        {
            stop = clean.CupLiftedAt ?? FlowEnds(clean);
        }

        return new(firstPressure, clean.HasWeight ? FirstDrops(clean) : null, ramp, peak, ease, null, stop, start);
    }

    /// <summary>Where the pressure leaves zero on its way to <paramref name="first"/>; the record's beginning where it does so at
    /// once.</summary>
    private static double Start(CleanTrace clean, int first)
    {
        var still = Array.FindLastIndex(clean.PressureBar, first, v => v <= MovingBar);
        return still >= 0 && clean.Seconds[still] > IdleSeconds ? clean.Seconds[still] : 0.0;
    }

    /// <summary>
    /// The last fall of the pressure, down to nothing: an arm or a valve that lets go takes a large share of it each second,
    /// easing a small one. Null where the record ends before.
    /// </summary>
    private static int? LetGo(CleanTrace clean, bool boilerOnPuck)
    {
        const int half = 2;
        const double sharePerS = 0.42;
        var p = clean.PressureBar;
        var top = p.Max();
        var gone = Math.Max(PressedBar, 0.12 * top);
        var ends = Hampel.Median([.. p.TakeLast(EndSamples)]);
        if (boilerOnPuck && ends < BoilerBar && top > ends + LeastRampBar)
            gone = Math.Max(gone, ends + BoilerSlackBar);
        var last = Array.FindLastIndex(p, v => v > gone);
        if (last < 0 || last >= p.Length - 1 - half)
            return null;
        var i = last;
        while (i > half && p[i - half] - p[i + half] > sharePerS * Math.Max(gone, p[i]) * 2 * half * clean.StepSeconds)
            i--;
        // smoothing rounds the edge off: the hand holds as long as nearly all of it is there
        var held = p[Math.Max(0, i - half)];
        return Array.FindLastIndex(p, last, v => v >= 0.93 * held) is >= 0 and var edge && edge >= i ? edge : i;
    }

    /// <summary>
    /// Where the pressure begins to rise from a pre-infusion: what is never undercut on the way to the peak dwells at one level
    /// for longer than a steady rise would. Null where it does not.
    /// </summary>
    private static double? Ramp(CleanTrace clean, int first, int reached, double top)
    {
        var p = clean.PressureBar;
        if (reached - first < 2 || top < LeastRampBar)
            return null;
        var least = new double[reached - first + 1];
        least[^1] = p[reached];
        for (var i = least.Length - 2; i >= 0; i--)
            least[i] = Math.Min(least[i + 1], p[first + i]);
        var width = Math.Max(0.3, 0.1 * top);
        int from = 0,
            longest = 0,
            end = -1;
        for (var i = 0; i < least.Length && least[i] <= PreInfusionShare * top; i++)
        {
            while (least[i] - least[from] > width)
                from++;
            if (i - from <= longest)
                continue;
            (longest, end) = (i - from, i);
        }

        var steadyRise = (least.Length - 1) * width / top;
        if (end < 0 || longest * clean.StepSeconds < PreInfusionSeconds || longest < 2.2 * steadyRise)
            return null;
        var level = Hampel.Median(p[(first + end - longest)..(first + end + 1)]);
        if (top - level < LeastRampBar)
            return null;
        return Crossing(clean, level, top, reached);
    }

    /// <summary>The time at which the line through two heights of the last rise to the peak leaves its foot.</summary>
    private static double? Crossing(CleanTrace clean, double foot, double top, int reached)
    {
        const double low = 0.15,
            high = 0.45;
        var p = clean.PressureBar;
        var at = Array.FindLastIndex(p, reached, v => v <= foot + (low * (top - foot)));
        if (at < 0)
            return null;
        var higher = Array.FindIndex(p, at, v => v >= foot + (high * (top - foot)));
        var back = higher > at ? (clean.Seconds[higher] - clean.Seconds[at]) * low / (high - low) : 0.0;
        return Math.Max(0.0, clean.Seconds[at] - back);
    }

    /// <summary>Where the pressure leaves its top for good, brought back along its fall; null where it holds until it is let
    /// go.</summary>
    private static double? Ease(CleanTrace clean, int reached, int last, double top)
    {
        var p = clean.PressureBar;
        var high = Array.FindLastIndex(p, last, v => v >= EasedShare * top);
        if (high < 0 || clean.Seconds[last] - clean.Seconds[high] < EasedBeforeStopSeconds)
            return null;
        var farther = Array.FindIndex(p, high, last - high + 1, v => v <= EasedFartherShare * top);
        if (farther < 0)
            farther = last;
        // the line of the fall, brought back to the level that was held before
        var (x, y) = (clean.Seconds[high..(farther + 1)], p[high..(farther + 1)]);
        if (x.Length < 3)
            return clean.Seconds[high];
        var (intercept, slope) = Fit.Line(x, y);
        if (slope >= 0.0)
            return clean.Seconds[high];
        var held = p[reached..(high + 1)].Where(v => v > (top + (EasedShare * top)) / 2).ToArray();
        var level = held.Length > 0 ? Hampel.Median(held) : top;
        return Math.Clamp((level - intercept) / slope, clean.Seconds[reached], clean.Seconds[high]);
    }

    /// <summary>Where no gauge tells, the pull ends when the stream falls to drops: under a third of what it was over the cup,
    /// for good.</summary>
    private static double? FlowEnds(CleanTrace clean)
    {
        var flowing = clean.FlowGramsPerS.Where(q => q > FlowingGramsPerS).ToArray();
        if (flowing.Length == 0)
            return null;
        var usual = flowing.Order().ElementAt(flowing.Length * 3 / 4);
        var last = Array.FindLastIndex(clean.FlowGramsPerS, q => q > Math.Max(FlowingGramsPerS, usual / 3));
        return last < 0 ? null : clean.Seconds[last];
    }

    /// <summary>
    /// The weight passes 0.3 g for good and the flow is on: the time is brought back along the flow to where the weight left
    /// zero.
    /// </summary>
    private static double? FirstDrops(CleanTrace clean)
    {
        var w = clean.WeightGrams;
        var rest = w[0];
        var from = Array.FindLastIndex(w, v => v - rest < DropsGrams);
        if (from < 0 || from >= w.Length - 1)
            return null;
        var index = from + 1;
        var flow = Math.Max(FlowingGramsPerS, clean.FlowGramsPerS[index]);
        return Math.Max(0.0, clean.Seconds[index] - ((w[index] - rest) / flow));
    }
}
