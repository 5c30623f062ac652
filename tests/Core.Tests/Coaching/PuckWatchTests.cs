using RuddySpring.Core.Coaching;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Shots;

namespace RuddySpring.Core.Tests.Coaching;

/// <summary>A puck learned while water runs through it, and the rest of the pull foreseen on it: without noise, against what
/// really follows.</summary>
public sealed class PuckWatchTests
{
    private const double StepSeconds = 0.01;

    // as even as a puck prepared by hand is taken to be, so that only its grind is unknown
    private static ShotConditions Truth(double resistance) =>
        PuckShots.Of(
            new()
            {
                DoseGrams = 15,
                ResistanceBarSPerMl = resistance,
                WaterC = 90,
                LaneSpread = 0.18,
            },
            ShippedPlans.EarlyPeak,
            FamilyDefaults.Of(MachineFamily.PortableLever).Machine,
            32
        );

    /// <summary>A true puck under a pressure in bar, with a scale that is late and exact, and someone who watches both.</summary>
    private sealed class Bench(double resistance, double expected)
    {
        private readonly ShotRun _run = new(Truth(resistance));
        private long _steps;

        public PuckWatch Watch { get; } = new(PuckBelief.Before(Truth(expected), 0.3));

        public double Seconds => _steps * StepSeconds;

        public double CupGrams => _run.Stream.CupGrams;

        public double OutflowMlPerS(double bar) => _run.Puck.OutflowMlPerS(bar);

        public double InflowMl => _run.Puck.InflowMl;

        public void Press(double bar, double until, bool scale = true)
        {
            while (Seconds < until - 1e-9)
            {
                _steps++;
                _run.Press(bar, StepSeconds);
                Watch.Pressure(Seconds, bar);
                if (scale && _steps % 10 == 0)
                    Watch.Weight(Seconds, _run.Stream.ShownGrams);
            }
        }
    }

    [Theory]
    [InlineData(3, 3)]
    [InlineData(3, 4)]
    [InlineData(5, 3.8)]
    [InlineData(7, 5)]
    public void The_flow_of_a_puck_is_known_soon_however_wrong_it_was_expected(double truth, double expected)
    {
        var bench = new Bench(truth, expected);
        bench.Press(3, 15);
        bench.Press(6, 26);
        Assert.NotNull(bench.Watch.FirstDropsSeconds);
        // 5 % is half of what is asked of the coach under noise
        Assert.Equal(bench.OutflowMlPerS(6) * bench.Watch.GramsPerMl, bench.Watch.FlowAt(6), 0.05 * bench.Watch.FlowAt(6));
        Assert.Equal(bench.CupGrams, bench.Watch.CupGrams, 0.3);
        Assert.Equal(bench.InflowMl, bench.Watch.MovedMl, 0.05 * bench.InflowMl);
    }

    [Fact]
    public void A_gauge_that_speaks_only_when_it_moves_is_heard_to_its_last_word()
    {
        var run = new ShotRun(Truth(4));
        var watch = new PuckWatch(PuckBelief.Before(Truth(4), 0.3));
        for (var step = 1; step <= 2000; step++)
        {
            var t = step * StepSeconds;
            var bar = t < 0.1 ? 1 : 6;
            // two words within a fiftieth of a second, and then silence
            if (step is 8 or 10)
                watch.Pressure(t, bar);
            run.Press(bar, StepSeconds);
            if (step % 10 == 0)
                watch.Weight(t, run.Stream.ShownGrams);
        }

        Assert.NotNull(watch.FirstDropsSeconds);
        Assert.Equal(run.Puck.OutflowMlPerS(6) * watch.GramsPerMl, watch.FlowAt(6), 0.1 * watch.FlowAt(6));
        Assert.Equal(run.Puck.InflowMl, watch.MovedMl, 0.05 * run.Puck.InflowMl);
    }

    [Fact] // p = R Q + k Q^2: a coach who knows of the hole below says what holds the flow, one who does not is wrong
    public void The_hole_of_a_restricting_basket_counts()
    {
        var truth = Truth(1.2) with { YieldGrams = 40 };
        truth = truth with { Bed = truth.Bed with { Basket = truth.Bed.Basket with { RestrictorBarS2PerMl2 = 3 } } };
        double Off(ShotConditions expected)
        {
            var run = new ShotRun(truth);
            var coach = new LiveCoach(PuckBelief.Before(expected.WithResistance(1.2), 0.1));
            for (var step = 1; step <= 1400; step++)
            {
                run.Press(6, StepSeconds);
                if (step % 5 == 0)
                    coach.Pressure(run.Seconds, 6);
                if (step % 10 == 0)
                    coach.Weight(run.Seconds, run.Stream.ShownGrams);
            }

            return Math.Abs((run.FlowAfter(1, coach.HoldBar(0.8)!.Value) / 0.8) - 1);
        }

        Assert.True(Off(truth) < 0.06);
        Assert.True(Off(Truth(1.2)) > 0.12);
    }

    [Fact]
    public void Before_the_first_drops_only_the_pressure_is_known()
    {
        var bench = new Bench(5, 5);
        bench.Press(2, 3);
        Assert.Null(bench.Watch.FirstDropsSeconds);
        Assert.Equal(0, bench.Watch.CupGrams);
        Assert.Equal(2, bench.Watch.PressureBar);
        Assert.True(bench.Watch.MovedMl > 1);
    }

    [Fact]
    public void Drops_that_are_marked_count_where_there_is_no_scale()
    {
        var bench = new Bench(4, 4);
        bench.Press(3, 12, scale: false);
        Assert.Null(bench.Watch.FirstDropsSeconds);
        bench.Watch.Drops(12);
        Assert.InRange(bench.Watch.FirstDropsSeconds!.Value, 4, 12);
        var before = bench.Watch.CupGrams;
        bench.Press(6, 20, scale: false);
        Assert.True(bench.Watch.CupGrams > before + 3);
    }

    [Fact] // what the hand leaves behind: the spout empties, and the pressure takes its moment to die
    public void The_drip_after_is_foreseen()
    {
        var bench = new Bench(4, 4);
        bench.Press(3, 12);
        bench.Press(7, 24);
        var foreseen = bench.Watch.CupGrams + bench.Watch.DripAfterGrams(LetGo.UsualSeconds);
        var bar = 7.0;
        while (bar > 0.01)
        {
            bar *= Math.Exp(-StepSeconds / LetGo.UsualSeconds);
            bench.Press(bar, bench.Seconds + StepSeconds);
        }

        bench.Press(0, bench.Seconds + 4);
        Assert.Equal(bench.CupGrams, foreseen, 0.25);
    }

    [Theory]
    [InlineData(3.0)]
    [InlineData(4.5)]
    public void The_rest_of_a_plan_ends_when_it_really_does(double resistance)
    {
        var machine = FamilyDefaults.Of(MachineFamily.PortableLever).Machine;
        var plan = new PullPlan(
            "level",
            "Level",
            "",
            0.5,
            [new("hold", 6, PhaseEnding.YieldShare, 1, 1e-6, 120, "Hold 6 bar")],
            new(20, 30, 40)
        );
        var follower = new PlanFollower(plan, 30, Strokes.VolumeMl(machine));
        var bench = new Bench(resistance, resistance * 1.15);
        for (var t = 0.0; t < 14; t += 0.1)
        {
            bench.Press(6, t + 0.1);
            follower.TargetBar(
                new(
                    bench.Seconds,
                    bench.CupGrams,
                    bench.Watch.FirstDropsSeconds is not null,
                    bench.Watch.FallingGramsPerS,
                    bench.Watch.MovedMl
                )
            );
        }

        var rest = RestOfPull.Of(bench.Watch, follower, machine, 30, 0, LetGo.UsualSeconds);
        Assert.False(rest.WaterEnds);
        Assert.False(rest.PlanEnds);
        var from = bench.Seconds;
        while (bench.CupGrams + bench.Watch.DripAfterGrams(LetGo.UsualSeconds) < 30)
            bench.Press(6, bench.Seconds + 0.05);
        Assert.Equal(bench.Seconds - from, rest.StopSeconds!.Value, 0.05 * (bench.Seconds - from) + 0.3);
        Assert.Equal(30, rest.CupGrams, 0.01);
    }

    [Fact]
    public void A_yield_beyond_the_water_is_said_so_and_a_plan_that_ends_before_it_too()
    {
        var machine = FamilyDefaults.Of(MachineFamily.PortableLever).Machine;
        var bench = new Bench(3.5, 3.5);
        bench.Press(6, 16);
        PlanFollower At(PullPlan plan)
        {
            var follower = new PlanFollower(plan, 90, Strokes.VolumeMl(machine));
            follower.TargetBar(new(bench.Seconds, bench.CupGrams, true, 1, bench.Watch.MovedMl));
            return follower;
        }

        var endless = new PullPlan(
            "level",
            "Level",
            "",
            0.5,
            [new("hold", 6, PhaseEnding.YieldShare, 1, 1e-6, 120, "Hold 6 bar")],
            new(20, 30, 40)
        );
        var dry = RestOfPull.Of(bench.Watch, At(endless), machine, 90, 0, LetGo.UsualSeconds);
        Assert.True(dry.WaterEnds);
        Assert.Null(dry.StopSeconds);
        // the water balance, what the chamber gives less dead water and what the puck keeps, with a cup's usual solids on top of
        // it
        var balance = CupVolumes.LargestYieldGrams(machine, 15, 90);
        Assert.Equal(balance, dry.CupGrams, 0.6);

        var brief = endless with { Phases = [new("hold", 6, PhaseEnding.Seconds, 20, 0, 20, "Hold 6 bar")] };
        var ended = RestOfPull.Of(bench.Watch, At(brief), machine, 90, 0, LetGo.UsualSeconds);
        Assert.True(ended.PlanEnds);
        Assert.True(ended.NextPhaseSeconds is > 3 and < 5);
    }

    [Fact]
    public void Looking_ahead_leaves_the_puck_as_it_is()
    {
        var machine = FamilyDefaults.Of(MachineFamily.PortableLever).Machine;
        var bench = new Bench(4, 4);
        bench.Press(5, 14);
        var (moved, cup, flow) = (bench.Watch.MovedMl, bench.Watch.CupGrams, bench.Watch.FlowAt(5));
        var follower = new PlanFollower(ShippedPlans.FlatAndFirm, 30, Strokes.VolumeMl(machine));
        var first = RestOfPull.Of(bench.Watch, follower, machine, 30, 0, LetGo.UsualSeconds);
        Assert.Equal(first, RestOfPull.Of(bench.Watch, follower, machine, 30, 0, LetGo.UsualSeconds));
        Assert.Equal((moved, cup, flow), (bench.Watch.MovedMl, bench.Watch.CupGrams, bench.Watch.FlowAt(5)));
    }
}
