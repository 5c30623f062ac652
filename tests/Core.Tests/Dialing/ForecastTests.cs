using RuddySpring.Core.Dialing;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Traces;
using RuddySpring.Instruments;

namespace RuddySpring.Core.Tests.Dialing;

/// <summary>The forecast against the stand-in, whose puck, hand and water the core does not know.</summary>
public sealed class ForecastTests
{
    private static readonly (Machine Machine, double DoseGrams, double YieldGrams) Portable = FamilyDefaults.Of(MachineFamily.PortableLever);
    private static readonly PullPlan Plan = ShippedPlans.EarlyPeak;

    /// <summary>One whole pull on the stand-in's bench: what its instruments recorded, and when the true yield was reached.</summary>
    private static (double? R10, double? Seconds) Pull(StandInBench bench, SeededRandom random, double setting, int age)
    {
        bench.Ready(new(Portable.Machine, Plan, Portable.DoseGrams, Portable.YieldGrams, setting, 1, age, 90));
        var gauge = new StandInGauge(random);
        var scale = new StandInScale(random);
        var (pressure, weight) = (new List<(double, double)>(), new List<(double, double)>());
        double? moved = null, reached = null;
        var start = bench.Seconds;
        double? empty = null;
        for (var step = 0; bench.Seconds < start + 120 && reached is null; step++)
        {
            bench.Step();
            var t = bench.Seconds - start;
            empty ??= bench.ScaleGrams;
            if (moved is null && bench.PressureBar > 0.3) moved = t;
            if (bench.ScaleGrams - empty >= Portable.YieldGrams) reached = t;
            if (step % gauge.EverySteps == 0) pressure.Add((t, gauge.Read(bench)));
            if (step % scale.EverySteps == 0) weight.Add((t, scale.Read(bench)));
        }

        bench.Ended();
        for (var i = 0; i < 1500; i++) bench.Step(); // the cup is taken away
        if (moved is not { } from) return (null, null);
        Series Rows(Channel channel, List<(double T, double V)> rows, double zero) =>
            new(channel, Origin.Measured, [.. rows.Where(r => r.T >= from).Select(r => r.T - from)], [.. rows.Where(r => r.T >= from).Select(r => r.V - zero)]);
        var tare = weight.First(w => w.Item1 >= from).Item2;
        var trace = new Trace([Rows(Channel.Pressure, pressure, 0), Rows(Channel.Weight, weight, tare)]);
        var (_, _, measures) = MeasureShot.Read(trace, Moments.None, Portable.DoseGrams, 90);
        return (measures.R10, reached - from);
    }

    [Fact]
    public void After_three_shots_of_a_bag_the_band_holds_nine_in_ten_and_is_narrow()
    {
        var random = new SeededRandom(77);
        int inside = 0, counted = 0;
        var widths = new List<double>();
        for (var household = 0; household < 40; household++)
        {
            var bench = new StandInBench((ulong)(100 + household));
            var shots = new List<GrindShot>();
            foreach (var setting in new[] { 21.0, 20, 19 })
            {
                var (r10, _) = Pull(bench, random, setting, 9);
                if (r10 is > 0) shots.Add(new(1, 1, setting, 9, Portable.DoseGrams, r10.Value));
            }

            if (shots.Count < 3) continue;
            var believed = GrindAdvice.Learn(new(1, true), shots).Predict(1, 1, 20, 10, Portable.DoseGrams);
            var puck = new PuckParameters { DoseGrams = Portable.DoseGrams, ResistanceBarSPerMl = 1, WaterC = 90 };
            var forecast = ShotForecast.Of(puck, Plan, Portable.Machine, Portable.YieldGrams, believed);
            if (Pull(bench, random, 20, 10).Seconds is not { } seconds) continue;
            counted++;
            if (seconds >= forecast.Fast.Seconds && seconds <= forecast.Slow.Seconds) inside++;
            widths.Add((forecast.Slow.Seconds - forecast.Fast.Seconds) / 2 / forecast.Middle.Seconds);
        }

        Assert.True(counted >= 30, $"{counted} counted");
        Assert.True(inside >= 0.9 * counted, $"{inside} of {counted} inside");
        Assert.True(widths.Average() <= 0.2, $"half width {widths.Average():0.00}");
    }
}
