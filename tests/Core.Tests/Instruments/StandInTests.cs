using RuddySpring.Core.Machines;
using RuddySpring.Core.Pulls;
using RuddySpring.Instruments;

namespace RuddySpring.Core.Tests.Instruments;

/// <summary>The stand-in's world: reproducible, like a machine, and not the core's own puck.</summary>
public sealed class StandInTests
{
    private static readonly ReadyPull Pull = new(
        FamilyDefaults.Of(MachineFamily.PortableLever).Machine,
        ShippedPlans.EarlyPeak,
        15,
        32,
        20,
        1,
        11,
        89
    );

    private static List<(double Bar, double Grams)> Play(ulong seed, double seconds)
    {
        var bench = new StandInBench(seed);
        bench.Ready(Pull);
        var played = new List<(double, double)>();
        for (var i = 0; i < seconds / StandInBench.StepSeconds; i++)
        {
            bench.Step();
            if (i % 10 == 0)
                played.Add((bench.PressureBar, bench.ScaleGrams));
        }

        return played;
    }

    [Fact]
    public void One_seed_gives_one_pull() => Assert.Equal(Play(7, 30), Play(7, 30));

    [Fact]
    public void Another_seed_gives_another() => Assert.NotEqual(Play(7, 30), Play(8, 30));

    [Fact]
    public void The_hand_waits_pre_infuses_and_presses()
    {
        var played = Play(3, 40);
        Assert.All(played.Take(25), p => Assert.Equal(0, p.Bar, 1e-9));
        Assert.InRange(played.Max(p => p.Bar), 6.5, 9.5);
        Assert.InRange(played[^1].Grams - played[5].Grams, 8, 45);
    }

    [Fact]
    public void Let_go_the_pressure_falls_and_the_cup_is_taken_away()
    {
        var bench = new StandInBench(5);
        bench.Ready(Pull);
        for (var i = 0; i < 2500; i++)
            bench.Step();
        bench.Ended();
        for (var i = 0; i < 300; i++)
            bench.Step();
        Assert.True(bench.PressureBar < 0.1);
        Assert.True(bench.ScaleGrams > 60);
        for (var i = 0; i < 800; i++)
            bench.Step();
        Assert.Equal(0, bench.ScaleGrams);
    }

    [Theory]
    [InlineData(true)]
    [InlineData(false)]
    public void At_the_cue_the_hand_lets_go_as_late_as_a_person_unless_told_otherwise(bool atTheCue)
    {
        var bench = new StandInBench(5) { LetsGoAtTheCue = atTheCue };
        bench.Ready(Pull);
        for (var i = 0; i < 2500; i++)
            bench.Step();
        bench.Cued();
        for (var i = 0; i < 15; i++)
            bench.Step();
        Assert.True(bench.PressureBar > 1); // nobody is that quick
        for (var i = 0; i < 200; i++)
            bench.Step();
        Assert.Equal(atTheCue, bench.PressureBar < 0.1);
    }

    [Fact]
    public void What_is_heard_while_the_bench_lags_happens_when_the_bench_comes_to_it()
    {
        var bench = new StandInBench(5);
        bench.Ready(Pull);
        while (bench.Seconds < 25)
            bench.Step();
        bench.Hear(28, bench.Cued);
        while (bench.Seconds < 28)
            bench.Step();
        Assert.True(bench.PressureBar > 1);
        while (bench.Seconds < 30.5)
            bench.Step();
        Assert.True(bench.PressureBar < 0.1);
    }

    [Fact] // an empty chamber gives no pressure, whatever the hand wants
    public void The_chamber_runs_empty()
    {
        var played = Play(9, 200);
        Assert.True(played[^1].Bar < 0.1);
        Assert.InRange(played[^1].Grams - 63.4, 25, 45);
    }
}
