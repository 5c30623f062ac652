using MathNet.Numerics;
using RuddySpring.Core.Water;

namespace RuddySpring.Core.Traces;

/// <summary>What a trace says in numbers. Null where the trace cannot tell. What drips after the stop is in the cup, and in no
/// time or flow.</summary>
/// <param name="SecondsFromLever">From the lever's first move to stop.</param>
/// <param name="SecondsFromPressure">From first pressure to stop.</param>
/// <param name="SecondsFromDrops">From first drops to stop.</param>
/// <param name="SecondsToDrops">From the lever's first move to first drops.</param>
/// <param name="CupGrams">In the cup at the end.</param>
/// <param name="Ratio">Cup over dose.</param>
/// <param name="PeakBar">Highest pressure.</param>
/// <param name="MeanBar">Mean pressure from first pressure to stop.</param>
/// <param name="MeanFlowGramsPerS">What fell from first drops to stop, over those seconds.</param>
/// <param name="FlowSlope">How the flow changes, g/s2, by a least-squares line from first drops to stop.</param>
/// <param name="BarSeconds">Integral of pressure from first pressure to stop.</param>
/// <param name="WorkJoules">Work on the water that left the puck, J: pressure times volume, 1 bar ml = 0.1 J.</param>
/// <param name="R10">Resistance of the grind, bar s/ml (<see cref="GrindResistance"/>); null behind a small hole, whose
/// resistance it would be.</param>
/// <param name="DrippedGrams">What fell after the stop, g.</param>
/// <param name="R10MeanBar">Mean pressure while R10 was read, bar.</param>
/// <param name="R10WetSeconds">From first pressure to first drops, as R10 was read, s.</param>
/// <param name="GaugeRestBar">What the gauge showed at rest and was taken off, bar; null without a gauge.</param>
/// <param name="ScaleDriftGramsPerMinute">How the scale wandered while nothing fell yet, g/min; null where the wait was too
/// short to tell.</param>
public sealed record Measures(
    double? SecondsFromLever,
    double? SecondsFromPressure,
    double? SecondsFromDrops,
    double? SecondsToDrops,
    double? CupGrams,
    double? Ratio,
    double? PeakBar,
    double? MeanBar,
    double? MeanFlowGramsPerS,
    double? FlowSlope,
    double? BarSeconds,
    double? WorkJoules,
    double? R10,
    double? DrippedGrams = null,
    double? R10MeanBar = null,
    double? R10WetSeconds = null,
    double? GaugeRestBar = null,
    double? ScaleDriftGramsPerMinute = null
)
{
    /// <summary>The measures of a record whose clock began with something else than the lever: what was before its beginning
    /// is not in it, and no time counts from there.</summary>
    public Measures Known(ClockStart clock) =>
        clock switch
        {
            ClockStart.FirstPressure => this with { SecondsFromLever = null, SecondsToDrops = null },
            ClockStart.FirstDrops => this with
            {
                SecondsFromLever = null,
                SecondsFromPressure = null,
                SecondsToDrops = null,
                R10WetSeconds = null,
                ScaleDriftGramsPerMinute = null,
            },
            _ => this,
        };
}

/// <summary>What is known of a shot besides its trace, as far as reading the trace needs it.</summary>
/// <param name="DoseGrams">Dose, g.</param>
/// <param name="WaterC">Water at the puck, degC; 93 where nobody knows.</param>
/// <param name="BoilerOnPuck">Whether a raised lever lets a boiler's pressure to the puck and the gauge.</param>
/// <param name="WaitsFirst">Whether the pull begins with a wait without pressure, as a bloom does.</param>
/// <param name="Restricted">Whether a small hole gives the back-pressure, so that the trace tells the hole and not the
/// grind.</param>
public sealed record ShotContext(
    double DoseGrams,
    double WaterC = 93.0,
    bool BoilerOnPuck = false,
    bool WaitsFirst = false,
    bool Restricted = false
);

/// <summary>A trace as it was read.</summary>
/// <param name="Clean">Cleaned, on the record's clock.</param>
/// <param name="Moments">On the record's clock.</param>
/// <param name="Measures">In numbers.</param>
/// <param name="Corrections">What was put right, in the order in which it happened.</param>
public sealed record ShotReading(CleanTrace Clean, Moments Moments, Measures Measures, IReadOnlyList<TraceCorrection> Corrections)
{
    /// <summary>Cleaned trace and moments on a clock that begins when the lever moves.</summary>
    public (CleanTrace Clean, Moments Moments) SinceLever =>
        (Clean.From(Moments.Start ?? 0.0), Moments.Since(Moments.Start ?? 0.0));
}

/// <summary>Works out <see cref="Measures"/> from a clean trace and its moments.</summary>
public static class MeasureShot
{
    private const double LeastDripGrams = 1.5;
    private const double LeastGapSeconds = 1.0;
    private const double UsualStrength = 0.10;
    private const double SecondsPerMinute = 60;

    // the scale is still while the machine is moved no more and nothing falls yet
    private const double SettlingSeconds = 1.0;
    private const double BeforeStreamSeconds = 2.0;
    private const double StreamGramsPerS = 0.2;
    private const double LeastStillSeconds = 3.0;

    /// <summary>Measures of a clean trace.</summary>
    public static Measures From(CleanTrace clean, Moments moments, ShotContext shot)
    {
        double? peak = null,
            mean = null,
            barSeconds = null,
            work = null,
            cup = null,
            flow = null,
            slope = null,
            dripped = null;
        if (clean.HasPressure)
        {
            var inside = Indices(clean, moments.FirstPressure ?? 0.0, moments.Stop ?? clean.Seconds[^1]);
            if (inside.Count > 0)
            {
                var seen = inside.Where(clean.SawPressure).DefaultIfEmpty(inside[0]).ToList();
                peak = seen.Max(i => clean.PressureBar[i]);
                mean = seen.Average(i => clean.PressureBar[i]);
                barSeconds = inside.Sum(i => Math.Max(0.0, clean.PressureBar[i])) * clean.StepSeconds;
                if (clean.HasWeight)
                {
                    work =
                        inside.Sum(i => Math.Max(0.0, clean.PressureBar[i]) * Math.Max(0.0, clean.FlowGramsPerS[i]))
                        * clean.StepSeconds
                        * WaterMlPerGram(shot.WaterC)
                        * Units.JoulesPerBarMl;
                }
            }
        }

        if (clean.HasWeight)
        {
            cup = Math.Max(0.0, FinalGrams(clean) - clean.WeightGrams[0]);
            if (moments is { FirstDrops: { } drops, Stop: { } stop } && stop > drops)
            {
                var atStop = Math.Clamp(clean.WeightGrams[At(clean, stop)] - clean.WeightGrams[0], 0.0, cup.Value);
                dripped = cup - atStop;
                flow = (atStop - Math.Max(0.0, clean.WeightGrams[At(clean, drops)] - clean.WeightGrams[0])) / (stop - drops);
                var inside = Indices(clean, drops, stop);
                if (inside.Count > 2)
                    slope = Fit.Line(
                        [.. inside.Select(i => clean.Seconds[i])],
                        [.. inside.Select(i => clean.FlowGramsPerS[i])]
                    ).Item2;
            }
        }

        var r10 = shot.Restricted ? null : GrindResistance.Read(clean, moments, shot.DoseGrams, shot.WaterC);
        return new(
            moments.Stop - moments.Start,
            moments.Stop - moments.FirstPressure,
            moments.Stop - moments.FirstDrops,
            moments.FirstDrops - moments.Start,
            cup,
            cup / shot.DoseGrams,
            peak,
            mean,
            flow,
            slope,
            barSeconds,
            work,
            r10?.R10,
            dripped,
            r10?.MeanBar,
            r10?.WetSeconds,
            clean.HasPressure ? clean.GaugeRestBar : null,
            ScaleDrift(clean, moments)
        );
    }

    /// <summary>Slope of the weight from the lever's move until shortly before a stream falls, g/min. Not until the first drops:
    /// a scale that wanders far is taken for drops itself.</summary>
    private static double? ScaleDrift(CleanTrace clean, Moments moments)
    {
        var stream = Array.FindIndex(clean.FlowGramsPerS, q => q > StreamGramsPerS);
        if (!clean.HasWeight || moments.Start is not { } start || stream < 0)
            return null;
        var still = Indices(clean, start + SettlingSeconds, clean.Seconds[stream] - BeforeStreamSeconds)
            .Where(clean.SawWeight)
            .ToList();
        return still.Count * clean.StepSeconds < LeastStillSeconds
            ? null
            : Fit.Line([.. still.Select(i => clean.Seconds[i])], [.. still.Select(i => clean.WeightGrams[i])]).Item2
                * SecondsPerMinute;
    }

    /// <summary>Cleans, finds the moments, puts the marked ones in their place, and measures.</summary>
    public static ShotReading Read(Trace trace, Moments marked, ShotContext shot)
    {
        var clean = TraceCleaning.Clean(trace, boilerOnPuck: shot.BoilerOnPuck);
        var moments = MomentFinder.Find(clean, shot.WaitsFirst, shot.BoilerOnPuck).With(marked);
        var measures = From(clean, moments, shot);
        var corrections = new List<TraceCorrection>();
        if (clean.GaugeRestBar != 0.0)
            corrections.Add(new(CorrectionKind.GaugeRest, clean.GaugeRestBar));
        if (moments.Start is > 0.0 and var idle)
            corrections.Add(new(CorrectionKind.IdleBefore, idle));
        if (clean.CupLiftedAt is { } lifted)
            corrections.Add(new(CorrectionKind.CupLifted, lifted - (moments.Start ?? 0.0)));
        if (
            moments is { FirstPressure: { } began, Stop: { } ended }
            && TraceGaps.Unseen(clean, began, ended) is >= LeastGapSeconds and var gap
        )
            corrections.Add(new(CorrectionKind.Gap, gap));
        if (measures.DrippedGrams is >= LeastDripGrams and var dripped)
            corrections.Add(new(CorrectionKind.DrippedAfter, dripped));
        return new(clean, moments, measures, corrections);
    }

    /// <summary>The same of a shot of which only dose and water are known.</summary>
    public static ShotReading Read(Trace trace, Moments marked, double doseGrams, double waterC = 93.0) =>
        Read(trace, marked, new ShotContext(doseGrams, waterC));

    /// <summary>
    /// The stop of a pull that a person or the clock ended: what they said, unless the trace shows that it was let go before.
    /// </summary>
    /// <returns>Seconds to mark; null where the trace tells.</returns>
    public static double? StopToMark(Trace trace, double saidSeconds, ShotContext shot)
    {
        const double sameSeconds = 0.3;
        var shown = Read(trace, Moments.None, shot).Moments.Stop;
        return shown < saidSeconds - sameSeconds ? null : saidSeconds;
    }

    /// <summary>Water that moved for a gram in the cup, ml: a usual cup of 1:2 holds a tenth of solids (common practice, 8 to 12
    /// %).</summary>
    internal static double WaterMlPerGram(double waterC) => (1.0 - UsualStrength) / LiquidWater.DensityGramsPerMl(waterC);

    /// <summary>What stands in the cup at the end: averaged while nothing falls any more, the last value where the record ends in
    /// full flow.</summary>
    private static double FinalGrams(CleanTrace clean) =>
        Math.Abs(clean.FlowGramsPerS[^1]) < 0.3 ? clean.WeightGrams.TakeLast(5).Average() : clean.WeightGrams[^1];

    private static int At(CleanTrace clean, double seconds) =>
        Math.Clamp((int)Math.Round(seconds / clean.StepSeconds), 0, clean.Seconds.Length - 1);

    private static List<int> Indices(CleanTrace clean, double from, double to) =>
        [.. Enumerable.Range(0, clean.Seconds.Length).Where(i => clean.Seconds[i] >= from && clean.Seconds[i] <= to)];
}
