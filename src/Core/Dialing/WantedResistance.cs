using RuddySpring.Core.Machines;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Traces;

namespace RuddySpring.Core.Dialing;

/// <summary>
/// The resistance, as R10 in bar s/ml, at which a plan on a machine gives a yield in a wanted time: the band of resistances that lands
/// between two times, from a handful of simulated shots. Null where even the strongest puck runs too fast, or the machine gives up first.
/// </summary>
/// <param name="Low">R10 at the shortest time.</param>
/// <param name="Best">R10 at the middle.</param>
/// <param name="High">R10 at the longest time.</param>
public sealed record WantedResistance(double Low, double Best, double High)
{
    private const int Points = 9;
    private const double Weakest = 1.5;
    private const double Strongest = 40;
    private const double LongestSeconds = 200;

    /// <summary>Finds the band.</summary>
    /// <param name="puck">The puck but for its resistance.</param>
    /// <param name="plan">The plan.</param>
    /// <param name="machine">The machine.</param>
    /// <param name="yieldGrams">Yield in g.</param>
    /// <param name="lowSeconds">Shortest time to it, s.</param>
    /// <param name="bestSeconds">Wanted time, s.</param>
    /// <param name="highSeconds">Longest time, s.</param>
    public static WantedResistance? Of(
        PuckParameters puck, PullPlan plan, Machine machine, double yieldGrams, double lowSeconds, double bestSeconds, double highSeconds)
    {
        var logs = new double[Points];
        var seconds = new double[Points];
        var count = 0;
        for (var i = 0; i < Points; i++)
        {
            var resistance = Weakest * Math.Pow(Strongest / Weakest, i / (Points - 1.0));
            var shot = ShotSimulator.Run(puck with { ResistanceBarSPerMl = resistance }, plan, machine, yieldGrams, LongestSeconds);
            if (!shot.ReachedYield) break;
            logs[count] = Math.Log(GrindResistance.Of(puck with { ResistanceBarSPerMl = resistance }));
            seconds[count++] = Math.Log(shot.Seconds);
            if (shot.Seconds > highSeconds) break;
        }

        double? At(double wanted)
        {
            var t = Math.Log(wanted);
            for (var i = 1; i < count; i++)
            {
                if (seconds[i] < t) continue;
                if (seconds[i - 1] > t) return null;
                return Math.Exp(logs[i - 1] + ((logs[i] - logs[i - 1]) * (t - seconds[i - 1]) / Math.Max(1e-9, seconds[i] - seconds[i - 1])));
            }

            return null;
        }

        return At(bestSeconds) is { } best ? new(At(lowSeconds) ?? best * 0.8, best, At(highSeconds) ?? best * 1.25) : null;
    }
}
