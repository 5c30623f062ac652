using MathNet.Numerics;

namespace RuddySpring.Core.Traces;

/// <summary>
/// What a gauge shows when nothing presses. It is believed only where the trace shows the gauge at rest: before the lever moves,
/// or after it was let go, steady for most of a second. A steady pressure at one end alone may be a pre-infusion or a boiler's.
/// </summary>
public static class GaugeRest
{
    /// <summary>A rest further from zero than this is a pressure, bar.</summary>
    public const double MostBar = 1.1;

    /// <summary>Where the group stands at the boiler's pressure when the lever is up, only this much is a rest, bar.</summary>
    public const double MostBesideBoilerBar = 0.7;

    /// <summary>A rest smaller than this is left alone, bar.</summary>
    public const double LeastBar = 0.12;

    private const double SteadySeconds = 1.0;
    private const double TrendBar = 0.15; // from one end of those seconds to the other
    private const double SteadyBar = 0.2;
    private const double OneEndBar = 0.7;
    private const double AgreesBar = 0.3;

    /// <summary>The rest in bar; 0 where none was seen.</summary>
    /// <param name="pressure">Times rising, s; bar, spikes gone.</param>
    /// <param name="boilerOnPuck">Whether a raised lever lets the boiler's pressure to the gauge.</param>
    public static double Of(Series pressure, bool boilerOnPuck = false)
    {
        if (pressure.Count < 3)
            return 0.0;
        var most = boilerOnPuck ? MostBesideBoilerBar : MostBar;
        bool MayBe(double? level) => level is { } bar && Math.Abs(bar) <= most;
        var before = Steady(pressure, fromEnd: false);
        var after = Steady(pressure, fromEnd: true);
        var begins = pressure.Values[0];
        double? rest = (MayBe(before), MayBe(after)) switch
        {
            (true, true) when Math.Abs(before!.Value - after!.Value) <= AgreesBar => before,
            (true, true) => Math.Abs(before!.Value) < Math.Abs(after!.Value) ? before : after,
            // let go to where it began
            (false, true) when Math.Abs(after!.Value - begins) <= AgreesBar || Math.Abs(after.Value) <= OneEndBar => after,
            (true, false) when Math.Abs(before!.Value) <= OneEndBar => before,
            _ => null,
        };
        return rest is { } found && Math.Abs(found) >= LeastBar ? found : 0.0;
    }

    /// <summary>The level at one end for as long as it is steady; null where that is too short.</summary>
    private static double? Steady(Series pressure, bool fromEnd)
    {
        var n = pressure.Count;
        int At(int i) => fromEnd ? n - 1 - i : i;
        double Since(int i) => Math.Abs(pressure.Seconds[At(i)] - pressure.Seconds[At(0)]);
        var few = Enumerable.Range(0, n).TakeWhile(i => Since(i) <= SteadySeconds).ToList();
        if (few.Count == n || few.Count < 2)
            return null;
        var level = Hampel.Median([.. few.Select(i => pressure.Values[At(i)])]);
        if (few.Any(i => Math.Abs(pressure.Values[At(i)] - level) > SteadyBar))
            return null;
        // still draining is not at rest: by its line, as medians of a few noisy readings differ by chance
        var (_, perSecond) = Fit.Line([.. few.Select(Since)], [.. few.Select(i => pressure.Values[At(i)])]);
        if (Math.Abs(perSecond) * Since(few[^1]) > TrendBar)
            return null;
        // a gauge that drains slowly rests only at the very end
        if (fromEnd)
            return level;
        var steady = Enumerable.Range(0, n).TakeWhile(i => Math.Abs(pressure.Values[At(i)] - level) <= SteadyBar).ToList();
        // the last of them may belong to the rise
        return Hampel.Median([.. steady.Take(Math.Max(few.Count, steady.Count * 9 / 10)).Select(i => pressure.Values[At(i)])]);
    }
}
