using System.Diagnostics;
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
        var shot = ShotSimulator.Run(puck, ShippedPlans.EarlyPeak, machine, 36);
        var times = new List<double>();
        for (var i = 0; i < (quick ? 300 : 1000); i++)
        {
            var from = Stopwatch.GetTimestamp();
            ShotSimulator.Run(puck, ShippedPlans.EarlyPeak, machine, 36);
            times.Add(Stopwatch.GetElapsedTime(from).TotalMilliseconds);
        }

        yield return Row.AtMost($"simulate one {shot.Seconds:0} s shot (median)", Row.Percentile(times.Skip(100).ToList(), 0.5), "ms", 2);

        var trace = Recorded(shot);
        var reads = new List<double>();
        for (var i = 0; i < 200; i++)
        {
            var from = Stopwatch.GetTimestamp();
            MeasureShot.Read(trace, Moments.None, 18);
            reads.Add(Stopwatch.GetElapsedTime(from).TotalMilliseconds);
        }

        yield return Row.AtMost("moments and measures of a 60 s trace (median)", Row.Percentile(reads.Skip(50).ToList(), 0.5), "ms", 150);
        yield return Row.AtMost("a stored trace, 3 channels", TraceCodec.Encode(trace).Length / (double)trace.Series[0].Count, "bytes/sample", 8);
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
            new(Channel.Weight, Origin.Measured, seconds, [.. shot.Samples.Select(s => scale.Read(s.CupGrams, s.FlowMlPerS, 0.1))]),
            new(Channel.Temperature, Origin.Measured, seconds, [.. shot.Samples.Select(_ => probe.Read(90, 0.1))]),
        ]);
    }
}
