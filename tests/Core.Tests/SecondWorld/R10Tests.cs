using RuddySpring.Core.Machines;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Shots;
using RuddySpring.Core.Traces;

namespace RuddySpring.Core.Tests.SecondWorld;

/// <summary>R10 of one puck under eight arms, in both worlds, beside plain p/Q over its best window.</summary>
public sealed class R10Tests(ITestOutputHelper output)
{
    private const double Dose = 15;
    private const double Yield = 32;
    private static readonly Machine Strong = FamilyDefaults.Of(MachineFamily.PortableLever).Machine with { WillingForceKgf = 40, ChamberMl = 120 };

    /// <summary>Eight arms: gentle and firm, patient and hasty.</summary>
    public static readonly PullPlan[] Arms =
    [
        ShippedPlans.EarlyPeak, ShippedPlans.FlatAndFirm, ShippedPlans.LongSoft, ShippedPlans.HoldTheFlow, ShippedPlans.BloomThenPress,
        ShippedPlans.FlatAndFirm.Scaled(0.7), ShippedPlans.FlatAndFirm.Scaled(1.2), ShippedPlans.EarlyPeak.Scaled(0.75),
    ];

    /// <summary>Plain mean of p/Q between two cups.</summary>
    private static double? Plain(CleanTrace clean, Moments moments, double from, double to)
    {
        if (moments.FirstDrops is not { } drops) return null;
        var inside = Enumerable.Range(0, clean.Seconds.Length).Where(i => clean.Seconds[i] > drops && clean.WeightGrams[i] >= from && clean.WeightGrams[i] <= to && clean.Seconds[i] <= (moments.Stop ?? 999)).ToList();
        if (inside.Count < 5) return null;
        var grams = inside.Sum(i => Math.Max(0, clean.FlowGramsPerS[i]));
        return grams > 0 ? inside.Sum(i => Math.Max(0, clean.PressureBar[i])) / grams : null;
    }

    private static ShotReading Read(IHousehold house, PullPlan plan, double grind, ulong seed) => MeasureShot.Read(
        World.Record(house.Pull(ShotConditions.Of(Strong, plan, Dose, Yield, 91), grind, seed), Yield).Trace, Moments.None, Dose, 91);

    [Fact]
    public void One_puck_under_eight_arms()
    {
        foreach (var world in World.Both)
        {
            List<double> r10 = [], early = [], middle = [], late = [];
            for (ulong seed = 1; seed <= 30; seed++)
            {
                var house = world.Household(seed);
                var read = Arms.Select(a => Read(house, a, 1, seed)).ToList();
                void Add(List<double> to, IEnumerable<double?> of)
                {
                    var values = of.Where(v => v is > 0).Select(v => v!.Value).Order().ToList();
                    if (values.Count < 6) return;
                    var median = (values[(values.Count - 1) / 2] + values[values.Count / 2]) / 2;
                    to.AddRange(values.Select(v => (v / median) - 1));
                }

                Add(r10, read.Select(r => r.Measures.R10));
                Add(early, read.Select(r => Plain(r.Clean, r.Moments, 1, 10)));
                Add(middle, read.Select(r => Plain(r.Clean, r.Moments, 10, 22)));
                Add(late, read.Select(r => Plain(r.Clean, r.Moments, 20, 30)));
            }

            string Of(List<double> v) => FormattableString.Invariant($"{v.Count} read, rms {Math.Sqrt(v.Average(x => x * x)):P1}, within 5 % {v.Count(x => Math.Abs(x) < 0.05) / (double)v.Count:P0}, within 10 % {v.Count(x => Math.Abs(x) < 0.1) / (double)v.Count:P0}, worst {v.Max(Math.Abs):P0}");
            output.WriteLine($"{world.Name}: R10 {Of(r10)}\n  p/Q 1 to 10 g {Of(early)}\n  p/Q 10 to 22 g {Of(middle)}\n  p/Q 20 to 30 g {Of(late)}");
            foreach (var (arm, i) in Arms.Select((x, i) => (x, i)))
            {
                var rows = Enumerable.Range(1, 30).Select(h =>
                {
                    var house = world.Household((ulong)h);
                    var all = Arms.Select(x => Read(house, x, 1, (ulong)h)).ToList();
                    var med = all.Select(r => r.Measures.R10 ?? 0).Order().ElementAt(4);
                    var me = all[i];
                    var ins = Enumerable.Range(0, me.Clean.Seconds.Length).Where(k => me.Clean.Seconds[k] > me.Moments.FirstDrops && me.Clean.WeightGrams[k] < 10).ToList();
                    return (Off: (me.Measures.R10 / med) - 1, P: ins.Average(k => me.Clean.PressureBar[k]), W: me.Moments.FirstDrops - me.Moments.FirstPressure);
                }).ToList();
                output.WriteLine(FormattableString.Invariant($"   {arm.Name}: off {rows.Average(r => r.Off):P1} mean p {rows.Average(r => r.P):0.0} wet {rows.Average(r => r.W):0.0}"));
            }
        }
    }
}
