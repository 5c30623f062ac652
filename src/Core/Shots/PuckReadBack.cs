using RuddySpring.Core.Traces;

namespace RuddySpring.Core.Shots;

/// <summary>
/// A puck read back from the trace of a whole pull: what it was, how sure that is, and what the trace cannot tell. The next puck
/// of the same coffee is expected to be like it.
/// </summary>
/// <param name="After">What is believed of it now.</param>
/// <param name="Misfit">Standard deviation of what is left between scale and fit, g.</param>
/// <param name="CannotTell">In words.</param>
public sealed record PuckReadBack(PuckBelief After, double Misfit, IReadOnlyList<string> CannotTell)
{
    private const double EverySeconds = 0.3;

    /// <summary>For the resistance of the whole cup every weighing counts alike: with a flow whose errors add up, a puck of other
    /// physics reads 6 % too tight.</summary>
    public static readonly WeighingNoise ForItsResistance = new(0.35);

    /// <summary>For what the next pull is expected to be like the rise and the tail count most: spout, scale and the way the
    /// flow comes in.</summary>
    public static readonly WeighingNoise ForTheNextPull = new(0.3, 0.2);

    private const double LeastGrams = 8;
    private const double TailSeconds = 4;
    private const int Rounds = 6;

    /// <summary>Reads a pull back; null where gauge or scale did not tell it, or the cup is nearly empty.</summary>
    /// <param name="before">What was believed of the shot before.</param>
    /// <param name="trace">What was recorded.</param>
    /// <param name="reading">The same, cleaned and with its moments.</param>
    /// <param name="noise">How far weighings may be off: <see cref="ForItsResistance"/> or <see cref="ForTheNextPull"/>.</param>
    public static PuckReadBack? Of(PuckBelief before, Trace trace, ShotReading reading, WeighingNoise noise)
    {
        if (
            trace.Of(Channel.Pressure) is not { Origin: not Origin.Assumed }
            || trace.Of(Channel.Weight) is not { Origin: not Origin.Assumed } scale
        )
            return null;
        var (clean, moments) = reading.SinceLever;
        if (moments.Stop is not { } stop || clean.WeightGrams[^1] < LeastGrams)
            return null;
        var start = reading.Moments.Start ?? 0;
        var until = Math.Min(stop + TailSeconds, clean.Seconds[^1]);
        var (weight, _) = CupOnScale.Of(TraceCleaning.Ordered(scale));
        var weights = new List<(double Seconds, double Grams)>();
        for (var i = 0; i < weight.Count; i++)
        {
            var at = weight.Seconds[i] - start;
            if (at >= 0 && at <= until && (weights.Count == 0 || at - weights[^1].Seconds >= EverySeconds))
                weights.Add((at, weight.Values[i]));
        }

        if (weights.Count < 10)
            return null;
        var pressures = clean.Seconds.Select((s, i) => (s, clean.PressureBar[i])).ToList();
        var fit = TraceFit.Of(before, pressures, weights, until, noise, Rounds);
        return new(
            reading.Measures.R10 is { } r10 ? fit.Belief.Beside(r10) : fit.Belief,
            fit.Misfit,
            fit.Belief.CannotTell(before)
        );
    }
}
