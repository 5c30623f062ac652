using RuddySpring.Core.Pulls;

namespace RuddySpring.Core.Shots;

/// <summary>One sample of what an arm did.</summary>
/// <param name="Seconds">Since the lever moved.</param>
/// <param name="Bar">Pressure.</param>
/// <param name="CupGrams">In the cup by then; NaN without a scale.</param>
public readonly record struct ArmSample(double Seconds, double Bar, double CupGrams);

/// <summary>What an arm did in one pull, so that the same arm can pull another puck.</summary>
/// <param name="Samples">Up to the stop, times rising.</param>
/// <param name="DropsSeconds">When first drops fell; null where nobody knows, so that the clock alone counts.</param>
public sealed record ArmRecord(IReadOnlyList<ArmSample> Samples, double? DropsSeconds)
{
    /// <summary>Of a trace since the lever moved; null without a gauge or a stop.</summary>
    public static ArmRecord? Of(Traces.CleanTrace clean, Traces.Moments moments)
    {
        const int every = 3;
        if (!clean.HasPressure || moments.Stop is not { } stop)
            return null;
        var samples = Enumerable
            .Range(0, clean.Seconds.Length)
            .Where(i => i % every == 0 && clean.Seconds[i] <= stop)
            .Select(i => new ArmSample(
                clean.Seconds[i],
                Math.Max(0, clean.PressureBar[i]),
                clean.HasWeight ? Math.Max(0, clean.WeightGrams[i] - clean.WeightGrams[0]) : double.NaN
            ))
            .ToList();
        return samples.Count < 10 ? null : new(samples, clean.HasWeight ? moments.FirstDrops : null);
    }
}

/// <summary>
/// An arm that was recorded, on another puck. A hand goes by what it sees: it waits for drops, ramps by the clock and eases with
/// the cup. So the record is followed by the clock up to first drops and for the ramp after them, and by the grams in the
/// cup from
/// then on; what comes later than it did is waited for at the pressure that was held.
/// </summary>
/// <param name="arm">What was recorded.</param>
public sealed class RecordedArm(ArmRecord arm) : IDrive
{
    private const double RampSeconds = 6;
    private const double HeldSeconds = 2;

    private readonly double _waitBar = arm
        .Samples.Where(s => s.Seconds <= arm.DropsSeconds && s.Seconds > arm.DropsSeconds - HeldSeconds)
        .Select(s => s.Bar)
        .DefaultIfEmpty(arm.Samples[0].Bar)
        .Average();
    private readonly double _lastBar = arm.Samples.TakeLast(10).Average(s => s.Bar);
    private double? _dropsAt;
    private int _at;

    /// <inheritdoc/>
    public double Next(in PullState seen, double puckMlPerS, double stepSeconds)
    {
        if (arm.DropsSeconds is not { } drops)
            return ByClock(seen.Seconds);
        if (!seen.DropsSeen)
            return seen.Seconds <= drops ? ByClock(seen.Seconds) : _waitBar;
        _dropsAt ??= seen.Seconds;
        var since = seen.Seconds - _dropsAt.Value;
        if (since < RampSeconds)
            return ByClock(drops + since);
        while (
            _at + 1 < arm.Samples.Count
            && (arm.Samples[_at].CupGrams < seen.CupGrams || arm.Samples[_at].Seconds < drops + RampSeconds)
        )
            _at++;
        return _at + 1 < arm.Samples.Count ? arm.Samples[_at].Bar : _lastBar;
    }

    private double ByClock(double seconds)
    {
        if (seconds >= arm.Samples[^1].Seconds)
            return _lastBar;
        int low = 0,
            high = arm.Samples.Count - 1;
        while (high - low > 1)
        {
            var middle = (low + high) / 2;
            if (arm.Samples[middle].Seconds <= seconds)
                low = middle;
            else
                high = middle;
        }

        var (a, b) = (arm.Samples[low], arm.Samples[high]);
        return a.Bar + ((b.Bar - a.Bar) * (seconds - a.Seconds) / Math.Max(1e-9, b.Seconds - a.Seconds));
    }
}
