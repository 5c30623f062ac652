using RuddySpring.Core.Traces;
using RuddySpring.Store.Entities;

namespace RuddySpring.Store;

/// <summary>Puts a trace into a shot: packed, measured, with its small copy for the ledger.</summary>
public static class ShotRecording
{
    /// <summary>Points of the small trace.</summary>
    public const int SmallPoints = 60;

    /// <summary>Sets trace, moments, measures and the small trace of a shot.</summary>
    public static void SetTrace(Shot shot, Trace trace)
    {
        shot.Trace = new ShotTrace { ShotId = shot.Id, Packed = TraceCodec.Encode(trace) };
        Measure(shot, trace);
    }

    /// <summary>Works moments and measures out anew, e.g. after a moment was moved.</summary>
    public static void Measure(Shot shot, Trace trace)
    {
        var (clean, moments, measures) = MeasureShot.Read(trace, shot.Marked, shot.DoseGrams, shot.WaterC ?? 93.0);
        shot.Moments = moments;
        shot.Measures = measures;
        shot.SmallPressure = Small(clean, clean.HasPressure ? clean.PressureBar : [], 20.0);
        shot.SmallWeight = Small(clean, clean.HasWeight ? clean.WeightGrams : [], 2.0);
    }

    /// <summary>Sets the words that a search looks through; the shot's neighbours must be loaded.</summary>
    public static void SetSearchText(Shot shot) => shot.SearchText = string.Join(
        ' ', shot.Bag?.Name, shot.Bag?.Roaster, shot.Machine?.Name, shot.Brewer?.Name, shot.Grinder?.Name, shot.Plan.Name, shot.Taste.Words)
        .ToLowerInvariant();

    private static byte[] Small(CleanTrace clean, double[] values, double quanta)
    {
        if (values.Length < 2) return [];
        var small = new byte[SmallPoints];
        for (var i = 0; i < SmallPoints; i++)
        {
            var at = (int)Math.Round((double)i / (SmallPoints - 1) * (clean.Seconds.Length - 1));
            small[i] = (byte)Math.Clamp(Math.Round(values[at] * quanta), 0, 255);
        }

        return small;
    }
}
