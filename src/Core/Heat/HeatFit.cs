using System.Globalization;
using RuddySpring.Core.Fitting;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Water;

namespace RuddySpring.Core.Heat;

/// <summary>A heat constant that was fitted.</summary>
/// <param name="Field">Its field.</param>
/// <param name="Label">What it is called.</param>
/// <param name="Unit">Unit as printed.</param>
/// <param name="Before">What it was.</param>
/// <param name="Value">Best value.</param>
/// <param name="Low">Lower end of its 95 % interval.</param>
/// <param name="High">Upper end.</param>
public sealed record FittedConstant(string Field, string Label, string Unit, double Before, double Value, double Low, double High);

/// <summary>
/// A machine's heat constants fitted to its readings: nonlinear least squares on the logarithms of the constants, each reading over its
/// own deviation, with a prior about the values they start from, so that few readings move them little and the intervals stay honest.
/// A strip is read in steps and counts so; a sizzling drop is a bound and counts only when it is broken; the lamp counts by how long the
/// element stayed on and off.
/// </summary>
/// <param name="Constants">What came out.</param>
/// <param name="Points">Each group reading beside what the fit says, against minutes since switch-on, sessions one after the other.</param>
/// <param name="Readings">How many readings counted.</param>
/// <param name="RootMeanSquareK">Of the group readings' residuals, K.</param>
/// <param name="Changed">The machine with the constants in place.</param>
public sealed record HeatFit(
    IReadOnlyList<FittedConstant> Constants, IReadOnlyList<FitPoint> Points, int Readings, double RootMeanSquareK, Machine Changed)
{
    /// <summary>Fewest readings that are worth a fit.</summary>
    public const int FewestReadings = 4;

    private const double ConductancePrior = 0.5;
    private const double HeatPrior = 0.08;
    private const double PowerPrior = 0.15;
    private const double GaugeSigmaBar = 0.05;
    private const double LampShareSigma = 0.15;
    private const double LampSigmaSeconds = 4;
    private const double LeastSpreadK = 1.0;
    private const double UnfittedSpreadK = 4.0;
    private const double Two95 = 1.96;

    private sealed record Knob(string Field, string Label, string Unit, double Prior, Func<Machine, double> Get, Func<Machine, double, Machine> Set);

    /// <summary>Fits a machine to its sessions.</summary>
    /// <exception cref="DoesNotFitException">There are fewer than <see cref="FewestReadings"/> readings that count.</exception>
    public static HeatFit Of(Machine machine, IReadOnlyList<HeatLog> logs)
    {
        var counted = logs.Sum(l => l.Readings.Count);
        if (counted < FewestReadings)
            throw new DoesNotFitException("readings", $"At least {FewestReadings} readings are needed; there are {counted}. Every reading in Warm counts.");
        var start = machine with { Heat = HeatConstants.Of(machine) };
        var knobs = Knobs(start, logs);
        Machine Turned(double[] p)
        {
            var turned = start;
            for (var i = 0; i < knobs.Count; i++) turned = knobs[i].Set(turned, knobs[i].Get(start) * Math.Exp(Math.Clamp(p[i], -2, 2)));
            return turned;
        }

        double[] Residuals(double[] p)
        {
            var turned = Turned(p);
            var list = new List<double>(counted + p.Length);
            foreach (var log in logs) list.AddRange(Compare(turned, log).Select(c => c.Residual));
            for (var i = 0; i < p.Length; i++) list.Add(p[i] / knobs[i].Prior);
            return [.. list];
        }

        var fit = NonlinearFit.Of(Residuals, new double[knobs.Count]);
        var best = Turned(fit.Parameters);
        var constants = knobs.Select((k, i) =>
        {
            var value = k.Get(best);
            var factor = Math.Exp(Two95 * fit.StandardError(i));
            return new FittedConstant(k.Field, k.Label, k.Unit, k.Get(start), value, value / factor, value * factor);
        }).ToArray();

        var points = new List<FitPoint>();
        foreach (var log in logs) points.AddRange(Compare(best, log).Where(c => c.IsGroup).Select(c => new FitPoint(c.Seconds / 60.0, c.Observed, c.Fitted)));
        var rms = points.Count == 0 ? 0 : Math.Sqrt(points.Average(p => Math.Pow(p.Observed - p.Fitted, 2)));
        // what the fit leaves open: its residuals, and what few readings cannot know
        var spread = points.Count < FewestReadings ? UnfittedSpreadK : Math.Min(UnfittedSpreadK, Math.Sqrt((rms * rms) + (LeastSpreadK * LeastSpreadK)));
        var changed = best with { Heat = best.Heat! with { SpreadK = spread, FittedReadings = counted } };
        return new(constants, points, counted, rms, changed);
    }

    /// <summary>What came out, in one sentence.</summary>
    public string Sentence => string.Create(
        CultureInfo.InvariantCulture,
        $"{Readings} readings; the curve passes within {Quantity.Kelvin(RootMeanSquareK):0.0} of the group's. From now on it is good to about {Quantity.Kelvin(Changed.Heat!.SpreadK):0.0}.");

    private static List<Knob> Knobs(Machine machine, IReadOnlyList<HeatLog> logs)
    {
        var knobs = new List<Knob>
        {
            new("groupAmbientWPerK", "Group to room", "W/K", ConductancePrior, m => m.Heat!.GroupAmbientWPerK, (m, v) => m with { Heat = m.Heat! with { GroupAmbientWPerK = v } }),
            new("metalHeatCapacity", "Heat capacity of the group", "J/K", HeatPrior, m => m.MetalHeatCapacity, (m, v) => m with { MetalHeatCapacity = v }),
        };
        if (machine.HasBoiler)
        {
            knobs.Insert(1, new("boilerGroupWPerK", "Boiler to group", "W/K", ConductancePrior, m => m.Heat!.BoilerGroupWPerK, (m, v) => m with { Heat = m.Heat! with { BoilerGroupWPerK = v } }));
        }

        var aboutTheBoiler = logs.Any(l => l.Readings.Any(r => r.Kind == HeatReadingKind.BoilerGauge || r.ElementOn(machine.Lamp) is not null));
        if (machine.HasBoiler && aboutTheBoiler)
        {
            knobs.Add(new("boilerLossWPerK", "Boiler loss", "W/K", ConductancePrior, m => m.Heat!.BoilerLossWPerK, (m, v) => m with { Heat = m.Heat! with { BoilerLossWPerK = v } }));
            knobs.Add(new("heaterWatts", "Element", "W", PowerPrior, m => m.Heat!.HeaterWatts, (m, v) => m with { Heat = m.Heat! with { HeaterWatts = v } }));
        }

        return knobs;
    }

    private readonly record struct Comparison(double Seconds, double Observed, double Fitted, double Residual, bool IsGroup);

    /// <summary>Every reading of a session against the run that it was not allowed to correct; always as many, in the same order.</summary>
    private static List<Comparison> Compare(Machine machine, HeatLog log)
    {
        var run = new HeatRun(machine, log.AmbientC, log.AltitudeMetres, records: false);
        foreach (var e in log.Events) run.Add(e);
        var boiling = Saturation.BoilingPointC(log.AltitudeMetres);
        var comparisons = new List<Comparison>();
        var lamp = new List<(double Seconds, bool On)>();
        foreach (var r in log.Readings.OrderBy(r => r.AtSeconds))
        {
            run.AdvanceTo(r.AtSeconds);
            switch (r.Kind)
            {
                case HeatReadingKind.Strip or HeatReadingKind.Probe:
                    comparisons.Add(new(r.AtSeconds, r.Value, run.GroupC, (r.Value - run.GroupC) / r.SigmaK, true));
                    break;
                case HeatReadingKind.BoilerGauge when run.GaugeBar is { } gauge:
                    comparisons.Add(new(r.AtSeconds, r.Value, gauge, (r.Value - gauge) / GaugeSigmaBar, false));
                    break;
                case HeatReadingKind.Sizzles:
                    comparisons.Add(new(r.AtSeconds, boiling, run.GroupC, Math.Max(0, boiling - run.GroupC), false));
                    break;
                case HeatReadingKind.DoesNotSizzle:
                    comparisons.Add(new(r.AtSeconds, boiling, run.GroupC, Math.Max(0, run.GroupC - boiling), false));
                    break;
                default:
                    if (r.ElementOn(machine.Lamp) is { } on) lamp.Add((r.AtSeconds, on));
                    break;
            }
        }

        for (var i = 1; i < lamp.Count; i++)
        {
            if (lamp[i].On == lamp[i - 1].On) continue;
            var observed = lamp[i].Seconds - lamp[i - 1].Seconds;
            var fitted = SpellAround(run, lamp[i - 1].Seconds, lamp[i - 1].On) ?? observed;
            comparisons.Add(new(lamp[i].Seconds, observed, fitted, (observed - fitted) / ((LampShareSigma * observed) + LampSigmaSeconds), false));
        }

        return comparisons;
    }

    /// <summary>Length in s of the computed spell of the element, on or off, whose start lies nearest; null when there is none.</summary>
    private static double? SpellAround(HeatRun run, double seconds, bool on)
    {
        double? best = null;
        var nearest = double.MaxValue;
        for (var i = 0; i + 1 < run.ElementChanges.Count; i++)
        {
            var change = run.ElementChanges[i];
            if (change.On != on || Math.Abs(change.Seconds - seconds) >= nearest) continue;
            nearest = Math.Abs(change.Seconds - seconds);
            best = run.ElementChanges[i + 1].Seconds - change.Seconds;
        }

        return best;
    }
}
