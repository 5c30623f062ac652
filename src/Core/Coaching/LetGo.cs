using RuddySpring.Core.Traces;

namespace RuddySpring.Core.Coaching;

/// <summary>
/// How long a hand goes on pressing after the cue to stop: to hear it, to know, to move, and for the pressure to die. Told as the
/// time for which the pressure at the cue would have had to stand to press as much, s; so what still leaves the puck is about the
/// flow at the cue times it.
/// </summary>
public static class LetGo
{
    /// <summary>Of a hand that nobody has watched: about 0.35 s to react (common practice) and a quarter of a second for the
    /// pressure to die.</summary>
    public const double UsualSeconds = 0.6;

    private const double LongestSeconds = 4;
    private const double LeastSeconds = 0.1;
    private const double LeastBar = 1;
    private const double DiedShare = 0.1;
    private const int RememberedPulls = 8;

    /// <summary>Of one pull; null where the hand did not follow the cue, or nothing pressed then.</summary>
    /// <param name="pressure">Gauge, bar, its rest taken off; times rising, s.</param>
    /// <param name="cuedSeconds">When the cue came, on the same clock.</param>
    public static double? Seconds(Series pressure, double cuedSeconds)
    {
        var at = pressure.At(cuedSeconds);
        if (at < LeastBar || pressure.Seconds[^1] < cuedSeconds + LeastSeconds)
            return null;
        const double step = 0.05;
        var pressed = 0.0;
        for (var t = cuedSeconds; t < cuedSeconds + LongestSeconds; t += step)
        {
            var bar = pressure.At(t + (step / 2));
            if (bar < DiedShare * at)
                return pressed / at;
            pressed += bar * step;
        }

        return null;
    }

    /// <summary>What to expect of a hand whose pulls have told so much, the newest last.</summary>
    public static double Expected(IReadOnlyList<double> seconds) =>
        seconds.TakeLast(RememberedPulls).Prepend(UsualSeconds).Average();
}
