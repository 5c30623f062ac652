using RuddySpring.Core.Machines;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Traces;
using RuddySpring.Store.Entities;

namespace RuddySpring.Store;

/// <summary>Puts a trace into a shot: packed, measured, with its small copy for the ledger.</summary>
public static class ShotRecording
{
    /// <summary>Points of the small trace.</summary>
    public const int SmallPoints = 60;

    /// <summary>What a trace is read with.</summary>
    public static ShotContext Context(double doseGrams, double? waterC, Machine? machine, PullPlan? plan, Basket? basket) =>
        new(
            doseGrams,
            waterC ?? 93.0,
            machine?.HasBoiler ?? false,
            plan?.WaitsFirst ?? false,
            (basket?.RestrictorBarS2PerMl2 ?? machine?.RestrictorBarS2PerMl2 ?? 0) > 0
        );

    /// <summary>What the trace of a kept shot is read with; its machine, its basket and its trace must have been
    /// loaded.</summary>
    public static ShotContext Context(Shot shot) =>
        Context(shot.DoseGrams, shot.WaterC, shot.Machine?.Spec, shot.Trace.Plan, shot.Basket?.Spec);

    /// <summary>Sets plan, trace, moments, measures, the group's temperature where an instrument told it, and the small trace of
    /// a shot.</summary>
    public static ShotReading SetTrace(
        Shot shot,
        PullPlan plan,
        Machine? machine,
        Basket? basket,
        Trace trace,
        Moments marked,
        ClockStart clock = ClockStart.Lever
    )
    {
        shot.PlanName = plan.Name;
        if (trace.Of(Channel.Group) is { } group)
            shot.GroupC ??= Math.Round(group.Values[0], 1);
        shot.Trace = new ShotTrace
        {
            Plan = plan,
            Packed = TraceCodec.Encode(trace),
            Clock = clock,
        };
        return Measure(shot, trace, marked, Context(shot.DoseGrams, shot.WaterC, machine, plan, basket));
    }

    /// <summary>Works moments and measures out again with the moments that a person marked, on the record's clock.</summary>
    public static ShotReading Measure(Shot shot, Trace trace, Moments marked, ShotContext context)
    {
        var reading = MeasureShot.Read(trace, marked, context);
        var (clean, _) = reading.SinceLever;
        shot.Trace.Marked = marked;
        shot.Trace.Moments = reading.Moments;
        // a shot without a trace keeps what its source said of it
        if (trace.Series.Any(s => s.Count > 0))
            shot.Measures = reading.Measures.Known(shot.Trace.Clock);
        shot.SmallPressure = Small(clean, clean.HasPressure ? clean.PressureBar : [], 20.0);
        shot.SmallWeight = Small(clean, clean.HasWeight ? clean.WeightGrams : [], 2.0);
        return reading;
    }

    private static byte[] Small(CleanTrace clean, double[] values, double quanta)
    {
        if (values.Length < 2)
            return [];
        var small = new byte[SmallPoints];
        for (var i = 0; i < SmallPoints; i++)
        {
            var at = (int)Math.Round((double)i / (SmallPoints - 1) * (clean.Seconds.Length - 1));
            small[i] = (byte)Math.Clamp(Math.Round(values[at] * quanta), 0, 255);
        }

        return small;
    }
}
