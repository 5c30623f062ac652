using RuddySpring.Core.Machines;
using RuddySpring.Core.Water;

namespace RuddySpring.Core.Heat;

/// <summary>A reading beside what a machine's run, which it was not allowed to correct, says of the same moment.</summary>
/// <param name="Seconds">When, s since the session's start.</param>
/// <param name="Observed">What was read.</param>
/// <param name="Computed">What the run says.</param>
/// <param name="Residual">Their difference over the reading's own deviation.</param>
/// <param name="IsGroup">Whether it is a temperature of the group.</param>
internal readonly record struct ReadingAgainstRun(double Seconds, double Observed, double Computed, double Residual, bool IsGroup)
{
    private const double GaugeSigmaBar = 0.05;
    private const double LampShareSigma = 0.15;
    private const double LampSigmaSeconds = 4;

    /// <summary>Every reading of a session, always as many and in the same order; the lamp counts by the lengths of its
    /// spells.</summary>
    /// <param name="machine">The machine as it is thought to be.</param>
    /// <param name="log">The session.</param>
    /// <param name="stripOffsetK">By how many K readings of the group are too high.</param>
    public static List<ReadingAgainstRun> All(Machine machine, HeatLog log, double stripOffsetK)
    {
        var run = new HeatRun(machine, log.AmbientC, log.AltitudeMetres, records: false);
        foreach (var e in log.Events)
            run.Add(e);
        var boiling = Saturation.BoilingPointC(log.AltitudeMetres);
        var all = new List<ReadingAgainstRun>();
        var lamp = new List<(double Seconds, bool On)>();
        foreach (var r in log.Readings.OrderBy(r => r.AtSeconds))
        {
            run.AdvanceTo(r.AtSeconds);
            switch (r.Kind)
            {
                case HeatReadingKind.Strip or HeatReadingKind.Probe:
                    var shown = run.GroupC + stripOffsetK;
                    all.Add(new(r.AtSeconds, r.Value, shown, (r.Value - shown) / r.SigmaK, true));
                    break;
                case HeatReadingKind.BoilerGauge when run.GaugeBar is { } gauge:
                    var expected = Expected(machine, run, gauge, r.Value);
                    all.Add(new(r.AtSeconds, r.Value, expected, (r.Value - expected) / GaugeSigmaBar, false));
                    break;
                case HeatReadingKind.Sizzles:
                    all.Add(new(r.AtSeconds, boiling, run.GroupC, Math.Max(0, boiling - run.GroupC), false));
                    break;
                case HeatReadingKind.DoesNotSizzle:
                    all.Add(new(r.AtSeconds, boiling, run.GroupC, Math.Max(0, run.GroupC - boiling), false));
                    break;
                default:
                    if (r.ElementOn(machine.Lamp) is { } on)
                        lamp.Add((r.AtSeconds, on));
                    break;
            }
        }

        for (var i = 1; i < lamp.Count; i++)
        {
            if (lamp[i].On == lamp[i - 1].On)
                continue;
            var observed = lamp[i].Seconds - lamp[i - 1].Seconds;
            var computed = SpellAround(run, lamp[i - 1].Seconds, lamp[i - 1].On) ?? observed;
            all.Add(
                new(
                    lamp[i].Seconds,
                    observed,
                    computed,
                    (observed - computed) / ((LampShareSigma * observed) + LampSigmaSeconds),
                    false
                )
            );
        }

        return all;
    }

    /// <summary>
    /// What a boiler's gauge should show, bar. Once the pressurestat has begun to switch, a reading tells no more than that it
    /// lies between its two ends: where in the saw-tooth it was taken is not known so well.
    /// </summary>
    private static double Expected(Machine machine, HeatRun run, double gaugeBar, double readBar)
    {
        var set = machine.BoilerGaugeBar ?? 1.0;
        var low = set - HeatConstants.Of(machine).HysteresisBar;
        if (gaugeBar < low || !run.Powered)
            return gaugeBar;
        var switched = run.ElementChanges.Any(c => !c.On);
        return Math.Clamp(readBar, low, Math.Max(low, switched ? set : gaugeBar));
    }

    /// <summary>Length in s of the computed spell of the element, on or off, whose start lies nearest; null when there is
    /// none.</summary>
    private static double? SpellAround(HeatRun run, double seconds, bool on)
    {
        double? best = null;
        var nearest = double.MaxValue;
        for (var i = 0; i + 1 < run.ElementChanges.Count; i++)
        {
            var change = run.ElementChanges[i];
            if (change.On != on || Math.Abs(change.Seconds - seconds) >= nearest)
                continue;
            nearest = Math.Abs(change.Seconds - seconds);
            best = run.ElementChanges[i + 1].Seconds - change.Seconds;
        }

        return best;
    }
}
