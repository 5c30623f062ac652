using RuddySpring.Core.Shots;

namespace RuddySpring.Core.Dialing;

/// <summary>
/// The grind's resistivity, in bar s/ml at 6 bar (<see cref="GrindResistivity"/>), at which a shot lands between two times: from
/// a handful of simulated shots. Null where even the strongest puck runs too fast, or the machine gives up first.
/// </summary>
/// <param name="Low">At the shortest time.</param>
/// <param name="Best">At the middle.</param>
/// <param name="High">At the longest time.</param>
public sealed record WantedResistance(double Low, double Best, double High)
{
    private const int Points = 9;
    private const double Weakest = 1.5;
    private const double Strongest = 40;
    private const double LongestSeconds = 200;

    /// <summary>Finds the band.</summary>
    /// <param name="shot">The shot; its grind is what is looked for.</param>
    /// <param name="lowSeconds">Shortest time to the yield, s.</param>
    /// <param name="bestSeconds">Wanted time, s.</param>
    /// <param name="highSeconds">Longest time, s.</param>
    public static WantedResistance? Of(ShotConditions shot, double lowSeconds, double bestSeconds, double highSeconds)
    {
        var logs = new double[Points];
        var seconds = new double[Points];
        var count = 0;
        for (var i = 0; i < Points; i++)
        {
            var tried = shot.WithResistance(Weakest * Math.Pow(Strongest / Weakest, i / (Points - 1.0)));
            var pulled = SimulatedShot.Pull(tried, LongestSeconds);
            if (!pulled.ReachedYield)
                break;
            logs[count] = Math.Log(GrindResistivity.Of(tried));
            seconds[count++] = Math.Log(pulled.Seconds);
            if (pulled.Seconds > highSeconds)
                break;
        }

        double? At(double wanted)
        {
            var t = Math.Log(wanted);
            for (var i = 1; i < count; i++)
            {
                if (seconds[i] < t)
                    continue;
                if (seconds[i - 1] > t)
                    return null;
                return Math.Exp(
                    logs[i - 1] + ((logs[i] - logs[i - 1]) * (t - seconds[i - 1]) / Math.Max(1e-9, seconds[i] - seconds[i - 1]))
                );
            }

            return null;
        }

        return At(bestSeconds) is { } best ? new(At(lowSeconds) ?? best * 0.8, best, At(highSeconds) ?? best * 1.25) : null;
    }
}
