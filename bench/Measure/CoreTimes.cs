using System.Diagnostics;
using RuddySpring.Core;
using RuddySpring.Core.Heat;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Sessions;
using RuddySpring.Core.Shots;
using RuddySpring.Core.Tests;
using RuddySpring.Core.Tests.Dialing;
using RuddySpring.Core.Tests.SecondWorld;
using RuddySpring.Core.Traces;
using Trace = RuddySpring.Core.Traces.Trace;

namespace RuddySpring.Measure;

/// <summary>What the core alone costs.</summary>
internal static class CoreTimes
{
    public static IEnumerable<Row> Measure(bool quick)
    {
        var machine = FamilyDefaults.Of(MachineFamily.HeatedGroup).Machine with { WillingForceKgf = 60, ChamberMl = 400 };
        // a shot of about 60 s
        var puck = new PuckParameters { DoseGrams = 18, ResistanceBarSPerMl = 7.9 };
        var shot = PuckShots.Run(puck, ShippedPlans.EarlyPeak, machine, 36);
        var times = new List<double>();
        for (var i = 0; i < (quick ? 300 : 1000); i++)
        {
            var from = Stopwatch.GetTimestamp();
            PuckShots.Run(puck, ShippedPlans.EarlyPeak, machine, 36);
            times.Add(Stopwatch.GetElapsedTime(from).TotalMilliseconds);
        }

        yield return Row.AtMost(
            $"simulate one {shot.Seconds:0} s shot (median)",
            Row.Percentile(times.Skip(100).ToList(), 0.5),
            "ms",
            2
        );

        var trace = Recorded(shot);
        var reads = new List<double>();
        for (var i = 0; i < 200; i++)
        {
            var from = Stopwatch.GetTimestamp();
            MeasureShot.Read(trace, Moments.None, 18);
            reads.Add(Stopwatch.GetElapsedTime(from).TotalMilliseconds);
        }

        yield return Row.AtMost(
            "moments and measures of a 60 s trace (median)",
            Row.Percentile(reads.Skip(50).ToList(), 0.5),
            "ms",
            150
        );
        yield return Row.AtLeast(
            "general solver's time for the same shot at equal error, over ours",
            GeneralSolver.Ratio(quick ? 100 : 300),
            "times",
            20
        );
        yield return Row.AtMost("one puck's R10 under every shipped plan, furthest from the truth", PlansApart() * 100, "%", 5);
        foreach (var row in Heat())
            yield return row;
        foreach (var world in World.Both)
        {
            var trials = Enumerable.Range(1, quick ? 6 : 12).Select(i => DialingTrial.Household(world, (ulong)i)).ToList();
            yield return Row.AtMost(
                $"grinds advised that miss, over those chosen by time, {world.Name} world",
                trials.Sum(t => t.GrindMissedByAdvice) / Math.Max(1.0, trials.Sum(t => t.GrindMissedByTime)),
                "",
                0.5
            );
            yield return Row.AtMost(
                $"cups by the advice that miss their time, over those by chasing it, {world.Name} world",
                trials.Sum(t => t.CupMissedByAdvice) / Math.Max(1.0, trials.Sum(t => t.CupMissedByTime)),
                "",
                0.67
            );
        }

        yield return Row.AtMost(
            "a stored trace, 3 channels",
            TraceCodec.Encode(trace).Length / (double)trace.Series[0].Count,
            "bytes/sample",
            8
        );
    }

    /// <summary>How far R10 of one puck strays over the plans, two doses, two temperatures and four resistances.</summary>
    private static double PlansApart()
    {
        var machine = FamilyDefaults.Of(MachineFamily.HeatedGroup).Machine with { WillingForceKgf = 60, ChamberMl = 400 };
        return (
            from plan in ShippedPlans.All
            from dose in new[] { 14.0, 18 }
            from waterC in new[] { 86.0, 93 }
            from resistance in new[] { 3.0, 5, 7, 10 }
            let puck = new PuckParameters
            {
                DoseGrams = dose,
                ResistanceBarSPerMl = resistance,
                WaterC = waterC,
            }
            let shot = PuckShots.Run(puck, plan, machine, dose * 2.1)
            let r10 = MeasureShot.Read(Exactly(shot), Moments.None, dose, waterC).Measures.R10
            select Math.Abs(((r10 ?? 0) / GrindResistance.Of(puck)) - 1)
        ).Max();
    }

    private static Trace Exactly(SimulatedShot shot)
    {
        double[] seconds = [.. shot.Samples.Select(s => s.Seconds)];
        return new([
            new(Channel.Pressure, Origin.Imported, seconds, [.. shot.Samples.Select(s => s.PressureBar)]),
            new(Channel.Weight, Origin.Imported, seconds, [.. shot.Samples.Select(s => s.CupGrams)]),
        ]);
    }

    private static IEnumerable<Row> Heat()
    {
        var (dipper, dose, yield) = FamilyDefaults.Of(MachineFamily.BoilerDirect);
        var wants = new SessionWants
        {
            Drinks = [new("", 0), new("", 150), new("", 0), new("", 150)],
            DoseGrams = dose,
            YieldGrams = yield,
        };
        var planner = new SessionPlanner(new(dipper, 20, 500));
        yield return Row.AtMost(
            "plan a session of 4 shots and 2 milks (median)",
            Median(() => planner.Plan(wants, null, SessionProgress.None)),
            "ms",
            100
        );
        HeatEvent[] warm = [new(HeatEventKind.On, 0), new(HeatEventKind.Bleed, 330, 14)];
        yield return Row.AtMost(
            "heat curve of 3 h (median)",
            Median(() => HeatRun.Play(dipper, 20, 500, warm, 3 * 3600)),
            "ms",
            5
        );
    }

    private static double Median(Action work)
    {
        var times = new List<double>();
        for (var i = 0; i < 160; i++)
        {
            var from = Stopwatch.GetTimestamp();
            work();
            times.Add(Stopwatch.GetElapsedTime(from).TotalMilliseconds);
        }

        return Row.Percentile(times.Skip(100).ToList(), 0.5); // once the compiler has warmed up
    }

    private static Trace Recorded(SimulatedShot shot)
    {
        var random = new SeededRandom(1);
        var gauge = new GaugeModel(random);
        var scale = new ScaleModel(random);
        var probe = new ThermometerModel(random, 88);
        double[] seconds = [.. shot.Samples.Select(s => s.Seconds)];
        return new([
            new(Channel.Pressure, Origin.Measured, seconds, [.. shot.Samples.Select(s => gauge.Read(s.PressureBar))]),
            new(
                Channel.Weight,
                Origin.Measured,
                seconds,
                [.. shot.Samples.Select(s => scale.Read(s.CupGrams, s.FlowGramsPerS, 0.1))]
            ),
            new(Channel.Temperature, Origin.Measured, seconds, [.. shot.Samples.Select(_ => probe.Read(90, 0.1))]),
        ]);
    }
}
