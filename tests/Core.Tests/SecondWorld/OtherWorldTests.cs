using RuddySpring.Core.Machines;
using RuddySpring.Core.Pulls;

namespace RuddySpring.Core.Tests.SecondWorld;

/// <summary>The second world is a world of coffee: what people see of real pucks, it shows too (common practice).</summary>
public sealed class OtherWorldTests(ITestOutputHelper output)
{
    private static (double? Drops, double Seconds, OtherPuck Puck) Flat(
        ulong seed,
        double dose,
        double resistance,
        double bar,
        double yield,
        OtherCoffee? coffee = null
    )
    {
        var random = new SeededRandom(seed);
        var puck = new OtherPuck(random, coffee ?? OtherCoffee.Draw(random), dose, resistance, 93);
        double? drops = null;
        var t = 0.0;
        for (; t < 150 && puck.LeftGrams < yield; t += 0.01)
        {
            puck.Step(Math.Min(bar, bar * t / 3), 0.01);
            if (puck.LeftGrams > 0.2)
                drops ??= t;
        }

        return (drops, t, puck);
    }

    // common practice: 18 g to 36 g in 25 to 30 s at nine bar, drops after 4 to 8 s, 18 to 22 % extracted, 8 to 12 % strong
    [Fact]
    public void A_usual_puck_runs_as_usual()
    {
        double seconds = 0,
            drops = 0,
            extracted = 0,
            strong = 0;
        const int n = 40;
        for (ulong seed = 1; seed <= n; seed++)
        {
            var (first, time, puck) = Flat(seed, 18, 4.2, 9, 36);
            (seconds, drops) = (seconds + (time / n), drops + (first!.Value / n));
            (extracted, strong) = (extracted + (puck.SolidsGrams / 18 / n), strong + (puck.SolidsGrams / puck.LeftGrams / n));
        }

        output.WriteLine(
            FormattableString.Invariant($"{seconds:0.0} s, drops at {drops:0.0} s, {extracted:P1} extracted, {strong:P1} strong")
        );
        Assert.InRange(seconds, 22, 32);
        Assert.InRange(drops, 3, 8);
        Assert.InRange(extracted, 0.17, 0.23);
        Assert.InRange(strong, 0.08, 0.12);
    }

    [Fact] // finer, more dose or less pressure never runs faster
    public void It_orders_pucks_as_people_know_it()
    {
        for (ulong seed = 1; seed <= 20; seed++)
        {
            Assert.True(Flat(seed, 18, 5, 9, 36).Seconds < Flat(seed, 18, 6, 9, 36).Seconds);
            Assert.True(Flat(seed, 18, 5, 9, 36).Seconds < Flat(seed, 18, 5, 6, 36).Seconds);
        }
    }

    [Fact]
    public void Water_in_is_what_left_and_what_stayed()
    {
        var (_, _, puck) = Flat(3, 18, 4.2, 9, 36);
        var stays = puck.InflowMl - ((puck.LeftGrams - puck.SolidsGrams) / 0.965);
        Assert.InRange(stays / 18, 0.95, 1.3); // g/g, common practice
    }

    [Fact]
    public void An_arm_comes_to_what_it_aims_at()
    {
        var arm = new OtherArm(
            new SeededRandom(5),
            ShippedPlans.FlatAndFirm,
            FamilyDefaults.Of(MachineFamily.PortableLever).Machine,
            30
        );
        var bars = new List<double>();
        for (var t = 0.0; t < 20; t += 0.01)
        {
            arm.Step(t, 0.01, 0, 0, 0);
            if (t > 15)
                bars.Add(arm.PressureBar);
        }

        Assert.InRange(bars.Average(), 1, 11);
        Assert.True(bars.Max() - bars.Min() is > 0.1 and < 1.5);
    }
}
