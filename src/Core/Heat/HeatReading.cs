using RuddySpring.Core.Machines;
using RuddySpring.Core.Traces;
using RuddySpring.Core.Water;

namespace RuddySpring.Core.Heat;

/// <summary>What was read.</summary>
public enum HeatReadingKind
{
    /// <summary>A stick-on strip on the group, degC, in steps.</summary>
    Strip,

    /// <summary>A thermometer on the group, degC.</summary>
    Probe,

    /// <summary>The boiler's gauge, bar.</summary>
    BoilerGauge,

    /// <summary>The lamp went on; no value.</summary>
    LampOn,

    /// <summary>The lamp went out; no value.</summary>
    LampOff,

    /// <summary>A drop on the group sizzles: it is at least as hot as water boils here; no value.</summary>
    Sizzles,

    /// <summary>A drop does not sizzle: it is cooler than that; no value.</summary>
    DoesNotSizzle,
}

/// <summary>One reading of a machine's heat.</summary>
/// <param name="Kind">What was read.</param>
/// <param name="AtSeconds">When, s since the session's start, 0 or more.</param>
/// <param name="Value">degC or bar; 0 where there is none.</param>
public sealed record HeatReading(HeatReadingKind Kind, double AtSeconds, double Value = 0)
{
    /// <summary>Steps of a stick-on strip, K (common practice).</summary>
    public const double StripStepK = 2.0;

    /// <summary>What else may be off about a reading on the outside of a group, K.</summary>
    public const double SeatingK = 1.0;

    /// <summary>A strip tells only the step: its deviation adds step / sqrt(12) to the seating's, as for any value read in
    /// steps.</summary>
    public double SigmaK =>
        Kind == HeatReadingKind.Strip ? Math.Sqrt((SeatingK * SeatingK) + (StripStepK * StripStepK / 12.0)) : SeatingK;

    /// <summary>The reading with its value checked against what can be read.</summary>
    /// <exception cref="FieldRangeException">The value is out of range.</exception>
    /// <exception cref="DoesNotFitException">It lies before the start.</exception>
    public HeatReading Checked()
    {
        if (AtSeconds < 0)
            throw new DoesNotFitException(
                "at",
                "The reading lies before the machine was switched on; it must be at or after it."
            );
        if (Kind is HeatReadingKind.Strip or HeatReadingKind.Probe)
            ChannelRanges.Group.Check(Value);
        if (Kind == HeatReadingKind.BoilerGauge)
            HeatRanges.GaugeReading.Check(Value);
        return this;
    }

    /// <summary>Whether a lamp event means that the element has just gone on; null for what is no lamp event or when nobody
    /// knows.</summary>
    public bool? ElementOn(LampMeans lamp) =>
        (Kind, lamp) switch
        {
            (HeatReadingKind.LampOn, LampMeans.Heating) or (HeatReadingKind.LampOff, LampMeans.Ready) => true,
            (HeatReadingKind.LampOff, LampMeans.Heating) or (HeatReadingKind.LampOn, LampMeans.Ready) => false,
            _ => null,
        };

    /// <summary>Corrects a run, standing at this reading's time, by it.</summary>
    public void Correct(HeatRun run, LampMeans lamp, double altitudeMetres)
    {
        switch (Kind)
        {
            case HeatReadingKind.Strip or HeatReadingKind.Probe:
                run.CorrectGroup(Value, SigmaK);
                break;
            case HeatReadingKind.BoilerGauge:
                run.CorrectBoilerByGauge(Value);
                break;
            case HeatReadingKind.Sizzles:
                run.CorrectGroupOneSided(Saturation.BoilingPointC(altitudeMetres), atLeast: true, SeatingK);
                break;
            case HeatReadingKind.DoesNotSizzle:
                run.CorrectGroupOneSided(Saturation.BoilingPointC(altitudeMetres), atLeast: false, SeatingK);
                break;
            default:
                if (ElementOn(lamp) is { } on)
                    run.CorrectBoilerByElement(on);
                break;
        }
    }
}

/// <summary>What happened and was read in one session of a machine.</summary>
/// <param name="Events">What happened.</param>
/// <param name="Readings">What was read.</param>
/// <param name="AmbientC">Room, degC.</param>
/// <param name="AltitudeMetres">Height above the sea, m.</param>
public sealed record HeatLog(
    IReadOnlyList<HeatEvent> Events,
    IReadOnlyList<HeatReading> Readings,
    double AmbientC,
    double AltitudeMetres
)
{
    /// <summary>The session as computed and corrected by its readings, up to a time in s.</summary>
    public HeatRun Play(Machine machine, double untilSeconds, bool records = true)
    {
        var run = new HeatRun(machine, AmbientC, AltitudeMetres, records);
        foreach (var e in Events)
            run.Add(e);
        foreach (var reading in Readings.Where(r => r.AtSeconds <= untilSeconds).OrderBy(r => r.AtSeconds))
        {
            run.AdvanceTo(reading.AtSeconds);
            reading.Correct(run, machine.Lamp, AltitudeMetres);
        }

        run.AdvanceTo(untilSeconds);
        return run;
    }
}
