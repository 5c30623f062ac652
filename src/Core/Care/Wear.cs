using System.Globalization;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Traces;

namespace RuddySpring.Core.Care;

/// <summary>What wears, seen in numbers.</summary>
public enum WearKind
{
    /// <summary>The spring gives less pressure than at first.</summary>
    SpringSags,

    /// <summary>The small hole lets less through.</summary>
    RestrictorClogs,

    /// <summary>The seal lets pressure go.</summary>
    SealLeaks,

    /// <summary>The boiler stands lower than it was set.</summary>
    BoilerStandsLow,

    /// <summary>The machine holds back more of the water, and lets it go after the stop.</summary>
    RetainsMore,

    /// <summary>The gauge does not rest at zero.</summary>
    GaugeOffZero,

    /// <summary>The scale wanders.</summary>
    ScaleDrifts,
}

/// <summary>A finding.</summary>
/// <param name="Kind">What.</param>
/// <param name="Title">In a few words.</param>
/// <param name="Sentence">With its numbers and what they rest on.</param>
/// <param name="Task">Key of the task that mends it; null where none does.</param>
public sealed record WearFinding(WearKind Kind, string Title, string Sentence, string? Task);

/// <summary>A shot as wear is seen in it.</summary>
/// <param name="Plan">Name of its plan: the same arm is compared with the same.</param>
/// <param name="PeakBar">Highest pressure, bar; null where nobody measured it.</param>
/// <param name="MeanBar">Mean pressure, bar.</param>
/// <param name="MeanFlowGramsPerS">Mean flow, g/s.</param>
/// <param name="DrippedGrams">What fell after the stop, g.</param>
/// <param name="GaugeRestBar">What the gauge showed at rest, bar.</param>
/// <param name="ScaleDriftGramsPerMinute">How the scale wandered before the first drops, g/min.</param>
public sealed record WearShot(
    string Plan,
    double? PeakBar,
    double? MeanBar,
    double? MeanFlowGramsPerS,
    double? DrippedGrams = null,
    double? GaugeRestBar = null,
    double? ScaleDriftGramsPerMinute = null
)
{
    /// <summary>A shot with its measures.</summary>
    public static WearShot Of(string plan, Measures measures) =>
        new(
            plan,
            measures.PeakBar,
            measures.MeanBar,
            measures.MeanFlowGramsPerS,
            measures.DrippedGrams,
            measures.GaugeRestBar,
            measures.ScaleDriftGramsPerMinute
        );
}

/// <summary>Wear of a machine, from its shots and readings.</summary>
public static class Wear
{
    private const double SagLog = -0.105; // a tenth less
    private const double ClogLog = 0.25; // a quarter more pressure for the same flow, squared flow taken out
    private const double LeastSpread = 0.02; // a gauge is no better
    private const double LeakPerSecond = 0.03;
    private const double LowBar = 0.15;
    private const int LowReadings = 3;
    private const int FewestOfAPlan = 8;
    private const double RetainedGrams = 2; // a seal or valve that lets go late; a spout drips one to two by itself
    private const double DripSpread = 0.3; // g; a scale that stands beside a machine is no better
    private const int InstrumentShots = 12;
    private const int FewestOfAnInstrument = 8;
    private const double OffZeroBar = 0.3; // a twentieth of a usual pressure
    private const double DriftPerMinute = 1.2; // g; more than half a gram in a shot

    /// <summary>What is found, the surest first.</summary>
    /// <param name="machine">The machine.</param>
    /// <param name="shots">Its shots in the order of time, since its spring or basket was last new.</param>
    /// <param name="sinceSeal">Its shots since the piston's seal was last cleaned or replaced.</param>
    /// <param name="lately">Its last shots, whatever was mended since: gauge and scale are nobody's seal.</param>
    /// <param name="boilerBar">The boiler's gauge at the end of each session's warm-up, in the order of time, bar.</param>
    public static IReadOnlyList<WearFinding> Of(
        Machine machine,
        IReadOnlyList<WearShot> shots,
        IReadOnlyList<WearShot> sinceSeal,
        IReadOnlyList<WearShot> lately,
        IReadOnlyList<double> boilerBar
    ) =>
        [
            .. new[]
            {
                SpringOf(machine, shots),
                RestrictorOf(machine, shots),
                SealOf(machine),
                BoilerOf(machine, boilerBar),
                RetentionOf(sinceSeal),
                GaugeOf(lately),
                ScaleOf(lately),
            }.OfType<WearFinding>(),
        ];

    /// <summary>
    /// The spring: the logarithm of each shot's peak against the first of the same plan. The arm holds a spring back here and
    /// there, so single shots lie low; a lasting tenth does not come of that.
    /// </summary>
    public static Shifted? Sag(IReadOnlyList<WearShot> shots) => DriftWatch.Of(Peaks(shots), SagLog, LeastSpread);

    /// <summary>Indices of the shots at which it became sure of a sag, whether that stood or not.</summary>
    public static IReadOnlyList<int> SagAlarms(IReadOnlyList<WearShot> shots) =>
        DriftWatch.Alarms(Peaks(shots), SagLog, LeastSpread);

    private static List<double> Peaks(IReadOnlyList<WearShot> shots) =>
        AgainstThePlansFirst(shots, s => s.PeakBar is > 1 ? Math.Log(s.PeakBar.Value) : null);

    /// <summary>The hole: pressure over flow squared, which an orifice keeps (p = k Q2).</summary>
    public static Shifted? Clog(IReadOnlyList<WearShot> shots) =>
        DriftWatch.Of(
            AgainstThePlansFirst(shots, s =>
                s is { MeanBar: > 0.5, MeanFlowGramsPerS: > 0.1 }
                    ? Math.Log(s.MeanBar.Value / (s.MeanFlowGramsPerS.Value * s.MeanFlowGramsPerS.Value))
                    : null
            ),
            ClogLog,
            LeastSpread
        );

    /// <summary>What the machine holds back and lets go after the stop, against the first shots of the same plan, g.</summary>
    public static Shifted? Retained(IReadOnlyList<WearShot> shots) =>
        DriftWatch.Of(AgainstThePlansFirst(shots, s => s.DrippedGrams), RetainedGrams, DripSpread);

    /// <summary>Indices of the shots at which it became sure that more is held back, whether that stood or not.</summary>
    public static IReadOnlyList<int> RetainedAlarms(IReadOnlyList<WearShot> shots) =>
        DriftWatch.Alarms(AgainstThePlansFirst(shots, s => s.DrippedGrams), RetainedGrams, DripSpread);

    private static WearFinding? SpringOf(Machine machine, IReadOnlyList<WearShot> shots) =>
        machine.PressureBy == PressureBy.Spring && Sag(shots) is { } sag
            ? new(
                WearKind.SpringSags,
                "The spring sags",
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"Its pressure is {Percent(Math.Exp(sag.Shift) - 1)} % lower than in its first shots by the same plans (give "
                        + $"or take {Percent(Math.Exp(sag.Uncertainty) - 1)} %). "
                        + $"Weigh it at the lever to be sure: if that agrees, it needs a new spring."
                ),
                CareList.SpringService
            )
            : null;

    private static WearFinding? RestrictorOf(Machine machine, IReadOnlyList<WearShot> shots) =>
        machine.RestrictorBarS2PerMl2 > 0 && Clog(shots) is { } clog
            ? new(
                WearKind.RestrictorClogs,
                "The small hole clogs",
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"It takes {Percent(Math.Exp(clog.Shift) - 1)} % more pressure for the same flow than at first. "
                        + $"Soak the basket."
                ),
                CareList.Restrictor
            )
            : null;

    private static WearFinding? SealOf(Machine machine) =>
        machine.SealLeakPerSecond >= LeakPerSecond
            ? new(
                WearKind.SealLeaks,
                "The piston seal lets water past",
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"Against a blind basket it lost {100 * machine.SealLeakPerSecond:0.#} % of its pressure each "
                        + $"second. Clean and grease the seal and hold again; if it is no better, replace it."
                ),
                CareList.Seal
            )
            : null;

    private static WearFinding? BoilerOf(Machine machine, IReadOnlyList<double> boilerBar)
    {
        if (machine.BoilerGaugeBar is not { } set || boilerBar.Count < LowReadings)
            return null;
        var last = boilerBar.TakeLast(LowReadings).ToList();
        return last.Max() < set - LowBar
            ? new(
                WearKind.BoilerStandsLow,
                "The boiler stands low",
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"Its last {LowReadings} readings were {Quantity.Bar(last.Min()) with { Bare = true }:0.00} to "
                        + $"{Quantity.Bar(last.Max()):0.00}; it is entered "
                        + $"with {Quantity.Bar(set):0.00}. That makes shots "
                        + $"cooler. If the entry is right, the pressurestat is a matter for a licensed technician."
                ),
                CareList.Boiler
            )
            : null;
    }

    private static WearFinding? RetentionOf(IReadOnlyList<WearShot> shots) =>
        Retained(shots) is { } more
            ? new(
                WearKind.RetainsMore,
                "More drips after the stop",
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{more.Shift:0.0} g more than in its first shots by the same plans falls after the stop (give or take "
                        + $"{more.Uncertainty:0.0} g). Water is held back and let go late: clean the piston's seal and the "
                        + $"outlet, and stop earlier by that much until then."
                ),
                CareList.Seal
            )
            : null;

    private static WearFinding? GaugeOf(IReadOnlyList<WearShot> shots) =>
        Lately(shots, s => s.GaugeRestBar) is { } rest && Math.Abs(rest) >= OffZeroBar
            ? new(
                WearKind.GaugeOffZero,
                "The gauge does not rest at zero",
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"Without pressure it showed {Quantity.Bar(rest):0.0} in most of the last shots. That is taken off, but "
                        + $"a gauge whose zero has moved may have been knocked: compare it with another one."
                ),
                null
            )
            : null;

    private static WearFinding? ScaleOf(IReadOnlyList<WearShot> shots) =>
        Lately(shots, s => s.ScaleDriftGramsPerMinute) is { } drift && Math.Abs(drift) >= DriftPerMinute
            ? new(
                WearKind.ScaleDrifts,
                "The scale wanders",
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"Before the first drops it moved by {drift:+0.0;-0.0} g a minute in most of the last shots. Keep it "
                        + $"away from heat, steam and draughts, change its battery, and check it with a known weight."
                ),
                null
            )
            : null;

    /// <summary>Median of the last shots that tell of an instrument; null where too few do.</summary>
    private static double? Lately(IReadOnlyList<WearShot> shots, Func<WearShot, double?> of)
    {
        double[] last = [.. shots.Select(of).OfType<double>().TakeLast(InstrumentShots)];
        return last.Length >= FewestOfAnInstrument ? Hampel.Median(last) : null;
    }

    /// <summary>Each value less the median of the first of its plan; plans with too few of them tell nothing.</summary>
    private static List<double> AgainstThePlansFirst(IReadOnlyList<WearShot> shots, Func<WearShot, double?> of)
    {
        var usual = shots
            .GroupBy(s => s.Plan)
            .Select(g => (Plan: g.Key, First: g.Select(of).OfType<double>().Take(DriftWatch.FirstValues).Order().ToList()))
            .Where(p => p.First.Count >= FewestOfAPlan)
            .ToDictionary(p => p.Plan, p => p.First[p.First.Count / 2]);
        return
        [
            .. shots
                .Where(s => usual.ContainsKey(s.Plan))
                .Select(s => of(s) is { } value ? value - usual[s.Plan] : (double?)null)
                .OfType<double>(),
        ];
    }

    private static string Percent(double share) => Math.Abs(100 * share).ToString("0", CultureInfo.InvariantCulture);
}
