using System.Diagnostics;
using System.Globalization;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Reasoning;
using RuddySpring.Core.Shots;
using RuddySpring.Core.Traces;

namespace RuddySpring.Core.Tests.SecondWorld;

/// <summary>
/// A puck read back from its pull and pulled again, in both worlds. What is compared is what anybody could measure: the
/// resistance
/// that the very same puck shows over 10 g under a steady 6 bar.
/// </summary>
public sealed class ReadBackTests(ITestOutputHelper output)
{
    private static readonly int Pucks = World.Whole ? 300 : 70;
    private const double Dose = 15;
    private const double Yield = 32;
    private static readonly Machine Machine = FamilyDefaults.Of(MachineFamily.PortableLever).Machine with
    {
        WillingForceKgf = 30,
        ChamberMl = 90,
    };
    private static readonly PullPlan[] Plans =
    [
        ShippedPlans.EarlyPeak,
        ShippedPlans.FlatAndFirm,
        ShippedPlans.LongSoft,
        ShippedPlans.BloomThenPress,
        ShippedPlans.HoldTheFlow,
    ];

    private static ShotConditions Sheet(PullPlan plan) => ShotConditions.Of(Machine, plan, Dose, Yield, 91);

    private static double OfPuck(ShotConditions puck)
    {
        var run = new ShotRun(puck with { Path = new(0.02, 0.02) });
        return SteadyPressure.Resistance(
            (bar, step) =>
            {
                run.Press(bar, step);
                return run.Stream.CupGrams;
            }
        );
    }

    private sealed record Told(double Off, bool Inside, double HalfWidth, double Milliseconds, double AgainOff, bool AgainInside);

    private static Told? Judge(World world, int n)
    {
        var seed = (ulong)((2 * n) + 1);
        var house = world.Household(seed);
        var random = new SeededRandom(seed * 31);
        var (plan, other) = (Plans[n % Plans.Length], Plans[(n + 2) % Plans.Length]);
        var grind = Math.Exp(random.Normal(0.2));
        var sheet = Sheet(plan);
        var trace = World.Record(house.Pull(sheet, grind, seed), Yield).Trace;
        var reading = MeasureShot.Read(trace, Moments.None, new(Dose, 91, false, plan.WaitsFirst));
        var facts = new ShotFacts { Sheet = sheet, Reading = reading };
        var clock = Stopwatch.StartNew();
        if (ReadPuck.Back(facts, trace) is not { } read)
            return null;
        var took = clock.Elapsed.TotalMilliseconds;
        // the very same puck, asked under a steady pressure
        var imagined = house.Imagine(sheet, grind, 0.02, 0.02, new SeededRandom(seed));
        var truth = SteadyPressure.Resistance(
            (bar, step) =>
            {
                imagined.Step(bar, step);
                return imagined.ShownGrams;
            }
        );
        var drawn = PuckDraws.Of(read.After, 60, random).Select(OfPuck).Order().ToList();
        var said = OfPuck(read.After.Middle);
        // and the same puck again, by another plan
        var again = PullAgain.Of(read.After, sheet with { Plan = other }, 0, new SeededRandom(seed));
        var then = World.Record(house.Pull(sheet with { Plan = other }, grind, seed), Yield).CuedAt;
        return new(
            Math.Log(said / truth),
            truth >= drawn[3] && truth <= drawn[^4],
            Math.Log(drawn[^4] / drawn[3]) / 2,
            took,
            Math.Log(again.Middle.Seconds / then),
            then >= again.Fast.Seconds && then <= again.Slow.Seconds
        );
    }

    [Fact] // asked for: within 5 % (own) and 8 % (other) in the median, nine in ten hold 84 to 96 of 100
    public void Resistance_at_6_bar_comes_back_and_so_does_another_plan()
    {
        foreach (var world in World.Both)
        {
            var told = Enumerable.Range(0, Pucks).AsParallel().AsOrdered().Select(n => Judge(world, n)).OfType<Told>().ToList();
            var off = told.Select(t => Math.Abs(t.Off)).Order().ElementAt(told.Count / 2);
            var (inside, again) = (
                100.0 * told.Count(t => t.Inside) / told.Count,
                told.Select(t => Math.Abs(t.AgainOff)).Order().ElementAt(told.Count / 2)
            );
            output.WriteLine(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{world.Name}: {told.Count} read, resistance at 6 bar off by {off:P1} in the median (bias "
                        + $"{told.Average(t => t.Off):P1}), nine in ten hold {inside:0} of 100, half width "
                        + $"{told.Average(t => t.HalfWidth):P1}; another plan's time off by {again:P1}, eight in ten "
                        + $"hold {100.0 * told.Count(t => t.AgainInside) / told.Count:0}; "
                        + $"{told.Select(t => t.Milliseconds).Order().ElementAt(told.Count / 2):0} ms"
                )
            );
            Assert.True(off < (world == World.Own ? 0.05 : 0.08));
            Assert.InRange(Math.Round(inside), 84 - (World.Whole ? 0 : 6), 96 + (World.Whole ? 0 : 4));
        }
    }
}
