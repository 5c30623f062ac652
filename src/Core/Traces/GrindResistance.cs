using RuddySpring.Core.Puck;
using RuddySpring.Core.Water;

namespace RuddySpring.Core.Traces;

/// <summary>R10 of a trace, with what the arm did while it was read: its correction for pressure and for time is a model's and
/// may be off.</summary>
/// <param name="R10">The resistance, bar s/ml.</param>
/// <param name="MeanBar">Mean pressure over the window, bar.</param>
/// <param name="WetSeconds">From first pressure to first drops, s.</param>
public sealed record R10Reading(double R10, double MeanBar, double WetSeconds);

/// <summary>
/// R10: the puck's resistance over the first 10 g in the cup, brought to 6 bar, 93 degC and a swollen, fresh puck. The grind's
/// own number, free of what the arm did. From Darcy's law, V = integral of p / (R_b f) dt with f the known course of the
/// resistance (<see cref="FlowResistance"/>), so R_b is a ratio of two integrals and needs no derivative of a noisy weight.
/// </summary>
public static class GrindResistance
{
    // of basket and spout, where nothing says better (common practice)
    private const double SpoutDelaySeconds = 0.45;

    private const double MostUnseenShare = 0.2;

    /// <summary>Window in g.</summary>
    public const double WindowGrams = 10.0;

    /// <summary>Pressure in bar that it is brought to.</summary>
    public const double ReferenceBar = 6.0;

    /// <summary>
    /// Solids in the first 10 g over their weight, 0.08 to 0.225: the longer the water stood in the puck, the stronger. A line
    /// fitted to the extraction model over the shipped plans, doses of 14 to 18 g and resistances of 3 to 10 bar s/ml; the weight
    /// of the solids must not be taken for water that flowed.
    /// </summary>
    public static double EarlyStrength(double wetSeconds) => Math.Clamp(0.114 + (0.0030 * wetSeconds), 0.08, 0.225);

    /// <summary>R10 and the arm that it was read under; null where pressure, weight or 10 g are missing.</summary>
    /// <param name="clean">The trace.</param>
    /// <param name="moments">Its moments; first drops and first pressure are used.</param>
    /// <param name="doseGrams">Dose in g.</param>
    /// <param name="waterC">Water at the puck in degC; 93 where nobody knows.</param>
    public static R10Reading? Read(CleanTrace clean, Moments moments, double doseGrams, double waterC = 93.0)
    {
        if (!clean.HasPressure || !clean.HasWeight || moments.FirstDrops is not { } drops)
            return null;
        var puck = PuckBehaviour.Usual;
        var thermal = FlowResistance.Thermal(waterC);
        var density = LiquidWater.DensityGramsPerMl(waterC);
        var wetFrom = Math.Min(moments.FirstPressure ?? drops, drops);
        // what stands in the cup left the puck a little before
        var late = (int)Math.Round(SpoutDelaySeconds / clean.StepSeconds);
        var seen = Array.FindIndex(clean.Seconds, s => s >= drops);
        if (seen < 0)
            return null;
        var rest = clean.WeightGrams[0];
        var startGrams = Math.Max(rest, clean.WeightGrams[seen]);
        var from = Math.Max(0, seen - late);
        drops = clean.Seconds[from];
        double drive = 0.0,
            pressed = 0.0;
        var unseen = 0;
        for (var i = from; i + late < clean.Seconds.Length; i++)
        {
            var grams = clean.WeightGrams[i + late] - startGrams;
            var pressure = Math.Max(0.0, clean.PressureBar[i]);
            var wet = clean.Seconds[i] - wetFrom;
            var toMl = (1.0 - EarlyStrength(wet)) / density;
            var factor =
                FlowResistance.StateFactor(puck, wet, Math.Max(0.0, grams) * toMl / doseGrams)
                * FlowResistance.Compaction(puck, pressure)
                * thermal;
            drive += pressure * FlowResistance.Onset(puck, clean.Seconds[i] - drops) / factor * clean.StepSeconds;
            pressed += pressure;
            if (!clean.SawPressure(i) || !clean.SawWeight(i + late))
                unseen++;
            if (grams < WindowGrams)
                continue;
            // a straight line across a gap is no reading
            if (unseen > MostUnseenShare * (i - from + 1))
                return null;
            return new(
                drive / (grams * toMl) * FlowResistance.Compaction(puck, ReferenceBar),
                pressed / (i - from + 1),
                clean.Seconds[seen] - wetFrom
            );
        }

        return null;
    }

    /// <summary>The same number for a known puck: what R10 should read.</summary>
    public static double Of(PuckParameters puck) =>
        puck.ResistanceBarSPerMl * FlowResistance.Compaction(puck.Behaviour, ReferenceBar);
}
