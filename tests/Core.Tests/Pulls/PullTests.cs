using RuddySpring.Core.Coaching;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Shots;
using RuddySpring.Core.Tests.Puck;
using RuddySpring.Core.Traces;

namespace RuddySpring.Core.Tests.Pulls;

public sealed class PullTests
{
    private static readonly Machine Portable = FamilyDefaults.Of(MachineFamily.PortableLever).Machine;
    private static readonly PuckParameters Puck = new()
    {
        DoseGrams = 15,
        ResistanceBarSPerMl = 6.5,
        WaterC = 89,
    };

    [Fact]
    public void The_plan_waits_for_drops_and_then_ramps_holds_and_eases()
    {
        var follower = new PlanFollower(ShippedPlans.EarlyPeak, 32);
        Assert.Equal(2.5, follower.TargetBar(3, 0, false));
        Assert.Equal("pre-infuse", follower.Phase!.Name);
        Assert.Equal(2.5, follower.TargetBar(8, 0.4, true), 1e-9);
        Assert.Equal(5.25, follower.TargetBar(10.5, 1.5, true), 1e-9); // half way up in 2.5 of 5 s
        Assert.Equal(8.0, follower.TargetBar(13.1, 4, true), 1e-9);
        Assert.Equal(8.0, follower.TargetBar(16, 8.0, true), 1e-9);
        Assert.Equal(6.5, follower.TargetBar(20, 13.6, true), 1e-9); // half way from 8 g to 19.2 g: half way from 8 to 5 bar
        Assert.Equal("ease", follower.Phase!.Name);
        Assert.Equal(0.0, follower.TargetBar(40, 32, true));
        Assert.Null(follower.Phase);
    }

    [Fact]
    public void Drops_that_never_come_do_not_hold_the_plan_for_ever()
    {
        var follower = new PlanFollower(ShippedPlans.EarlyPeak, 32);
        follower.TargetBar(1, 0, false);
        follower.TargetBar(25.5, 0, false);
        Assert.Equal("ramp", follower.Phase!.Name);
    }

    [Fact]
    public void Every_shipped_plan_is_sound_and_says_why_and_who_disagrees()
    {
        foreach (var plan in ShippedPlans.All)
        {
            Assert.Same(plan, plan.Checked());
            Assert.True(plan.Why.Length > 60);
            Assert.InRange(plan.PeakBar, 5, 9.5);
        }
    }

    [Fact]
    public void A_plan_that_runs_backwards_is_refused() =>
        Assert.Equal(
            "phases",
            Assert
                .Throws<DoesNotFitException>(() =>
                    (
                        ShippedPlans.EarlyPeak with
                        {
                            Phases = [ShippedPlans.EarlyPeak.Phases[3], ShippedPlans.EarlyPeak.Phases[2]],
                        }
                    ).Checked()
                )
                .Field
        );

    [Fact] // the arm gives no more than it is willing to
    public void A_weak_arm_limits_the_peak()
    {
        var weak = Portable with { WillingForceKgf = 10 };
        var shot = PuckShots.Run(Puck, ShippedPlans.EarlyPeak, weak, 30);
        Assert.True(shot.Samples.Max(s => s.PressureBar) <= Lever.PressureBar(weak, 10) + 1e-9);
    }

    [Fact]
    public void A_chamber_that_runs_out_ends_the_shot_short()
    {
        var shot = PuckShots.Run(Puck, ShippedPlans.EarlyPeak, Portable with { ChamberMl = 40 }, 32);
        Assert.False(shot.ReachedYield);
        Assert.True(shot.CupGrams < 25);
    }

    [Fact] // a spring gives its line once; cocked again, which takes its time, it gives it again
    public void A_spring_that_has_run_out_gives_nothing_until_it_is_cocked_again()
    {
        var spring = FamilyDefaults.Of(MachineFamily.BoilerSpring).Machine;
        Assert.Equal(9.5, PressureLimit.MostBar(spring, 0), 1e-9);
        Assert.True(PressureLimit.MostBar(spring, spring.ChamberMl - 1) < 5.2);
        Assert.Equal(0, PressureLimit.MostBar(spring, spring.ChamberMl));
        var plan = new PullPlan("long", "Long", "", 0.5, [new("spring", 9.5, PhaseEnding.YieldShare, 1, 0.1, 90, "Let it work")]);
        var shot = PuckShots.Run(Puck with { ResistanceBarSPerMl = 3 }, plan, spring, 40);
        var spent = shot.Samples.First(s => s.MovedMl >= spring.ChamberMl - 0.2);
        Assert.All(shot.Samples.Where(s => s.Seconds > spent.Seconds + 0.3 && s.Seconds < spent.Seconds + 1.8), s =>
            Assert.True(s.MostBar <= 1.2)
        );
        Assert.Contains(shot.Samples, s => s.Seconds > spent.Seconds + 2 && s.MostBar > 9);
    }

    private static PullTracker Tracker() =>
        new(
            ShippedPlans.EarlyPeak,
            Portable,
            32,
            new LiveCoach(ShotConditions.Of(Portable, ShippedPlans.EarlyPeak, 15, 32, 90).WithResistance(3.2), 0.2)
        );

    [Fact]
    public void The_tracker_tares_the_cup_and_starts_on_pressure()
    {
        var tracker = Tracker();
        for (var t = 0.0; t < 3; t += 0.1)
        {
            tracker.Take(Channel.Pressure, t, 0.02);
            tracker.Take(Channel.Weight, t, 63.4 * (1 - Math.Exp(-t / 0.4))); // the cup being set down on a slow scale
        }

        Assert.False(tracker.Started);
        Assert.StartsWith("Begin when you are ready", tracker.Read(3).Sentence, StringComparison.Ordinal);
        tracker.Take(Channel.Pressure, 3.0, 1.2);
        tracker.Take(Channel.Weight, 3.05, 63.4);
        var reading = tracker.Read(3.5);
        Assert.True(tracker.Started);
        Assert.Equal(0.5, reading.Seconds, 1e-9);
        Assert.InRange(reading.CupGrams!.Value, 0, 0.2);
        Assert.Equal("Hold {2.5 bar} until first drops.", reading.Sentence);
        Assert.Equal(Lever.HandForceKgf(Portable, 1.2), reading.HandForceKgf!.Value, 1e-9);
    }

    [Theory] // a home-made gauge seldom rests at zero
    [InlineData(0.6)]
    [InlineData(-0.4)]
    public void A_gauge_that_does_not_rest_at_zero_starts_nothing_and_is_taken_off(double rest)
    {
        var tracker = Tracker();
        var random = new SeededRandom(4);
        for (var t = 0.0; t < 30; t += 0.05)
            tracker.Take(Channel.Pressure, t, rest + random.Normal(0.04));
        Assert.False(tracker.Started);
        for (var t = 30.0; t < 32; t += 0.05)
            tracker.Take(Channel.Pressure, t, rest + ((t - 30) * 2));
        Assert.True(tracker.Started);
        Assert.Equal(rest, tracker.GaugeRestBar, 0.03);
        Assert.Equal(3.9, tracker.Read(32).PressureBar!.Value, 0.05);
        var trace = tracker.ToTrace();
        Assert.InRange(trace.EndSeconds, 1.7, 1.9); // begun 0.3 bar above the rest
        Assert.All(trace.Of(Channel.Pressure)!.Values, v => Assert.InRange(v, 0.2, 3.95));
    }

    [Fact]
    public void Pressed_as_soon_as_it_is_ready_a_pull_begins_at_once_and_nothing_is_taken_off()
    {
        var tracker = Tracker();
        for (var t = 0.0; t < 3; t += 0.05)
            tracker.Take(Channel.Pressure, t, Math.Min(2.5, t * 2));
        Assert.True(tracker.Started);
        Assert.Equal(0, tracker.GaugeRestBar);
        Assert.InRange(tracker.Read(3).Seconds, 2.7, 3.0);
        Assert.Equal(2.5, tracker.Read(3).PressureBar!.Value, 0.01);
    }

    [Fact]
    public void A_scale_alone_starts_the_clock_with_the_first_grams()
    {
        var tracker = Tracker();
        for (var t = 0.0; t < 5; t += 0.1)
            tracker.Take(Channel.Weight, t, 50);
        Assert.False(tracker.Started);
        for (var t = 5.0; t < 7; t += 0.1)
            tracker.Take(Channel.Weight, t, 50 + (t - 5));
        Assert.True(tracker.Started);
        Assert.Null(tracker.Read(7).PressureBar);
    }

    [Fact]
    public void Without_instruments_the_clock_and_the_marks_still_make_a_record()
    {
        var tracker = Tracker();
        Assert.Throws<DoesNotFitException>(() => tracker.Mark("drops", 1));
        tracker.StartNow(2);
        tracker.Mark("drops", 9);
        tracker.Mark("blonding", 35);
        Assert.Equal("ramp", tracker.Read(9.1).Phase);
        Assert.Equal(7, tracker.Marked.FirstDrops);
        Assert.Equal(33, tracker.Marked.Blonding);
        Assert.Throws<DoesNotFitException>(() => tracker.Mark("applause", 36));
        Assert.Empty(tracker.ToTrace().Series);
    }

    [Fact]
    public void A_whole_noisy_pull_is_followed_to_its_yield()
    {
        var shot = PuckShots.Run(Puck, ShippedPlans.EarlyPeak, Portable with { WillingForceKgf = 25 }, 32);
        var trace = ReferenceShots.Noisy(shot, 21);
        var tracker = Tracker();
        var phases = new List<string>();
        for (var i = 0; i < trace.Series[0].Count; i++)
        {
            tracker.Take(Channel.Pressure, trace.Series[0].Seconds[i], trace.Series[0].Values[i]);
            tracker.Take(Channel.Weight, trace.Series[1].Seconds[i], trace.Series[1].Values[i]);
            var phase = tracker.Read(trace.Series[0].Seconds[i]).Phase;
            if (phases.Count == 0 || phases[^1] != phase)
                phases.Add(phase);
        }

        Assert.Equal(["pre-infuse", "ramp", "peak", "ease"], phases.Take(4));
        Assert.Equal(shot.CupGrams, tracker.Read(shot.Seconds).CupGrams!.Value, 0.8);
        var kept = tracker.ToTrace();
        Assert.Equal(2, kept.Series.Count);
        Assert.Equal(0, kept.Of(Channel.Pressure)!.Seconds[0], 0.2);
    }

    [Fact] // a steady stream: the filter settles on the flow and on the weight without the scale's lag
    public void Live_flow_settles_on_a_steady_stream()
    {
        var random = new SeededRandom(4);
        var scale = new ScaleModel(random);
        var live = new LiveFlow();
        var truth = 0.0;
        for (var t = 0.1; t < 15; t += 0.1)
        {
            truth += 0.14;
            live.Take(t, scale.Read(truth, 1.4, 0.1));
        }

        Assert.Equal(1.4, live.FlowGramsPerS, 0.12);
        Assert.Equal(truth, live.WeightGrams, 0.3);
        var before = live.WeightGrams;
        live.Take(3, 500); // a reading from the past changes nothing
        Assert.Equal(before, live.WeightGrams);
    }

    // common practice: a flow is held at 1.3 to 1.6 g/s, so a figure that trembles by more than a tenth is of no use to the hand
    [Fact]
    public void Live_flow_stands_still_enough_to_hold_and_follows_an_ease_within_two_seconds()
    {
        List<double> off = [],
            followed = [];
        for (ulong seed = 1; seed <= 20; seed++)
        {
            var scale = new ScaleModel(new SeededRandom(seed));
            var live = new LiveFlow();
            double truth = 0.0,
                flow = 1.5;
            for (var t = 0.1; t < 20; t += 0.1)
            {
                if (t > 15)
                    flow = Math.Max(0.9, flow - 0.03); // eased over two seconds
                truth += flow * 0.1;
                live.Take(t, scale.Read(truth, flow, 0.1));
                if (t is > 5 and < 15)
                    off.Add(live.FlowGramsPerS - flow);
                if (t is > 19)
                    followed.Add(live.FlowGramsPerS - flow);
            }
        }

        Assert.True(
            off.Average(o => Math.Abs(o) < 0.1 ? 1.0 : 0.0) > 0.95,
            $"{off.Average(o => Math.Abs(o) < 0.1 ? 1.0 : 0.0):P0}"
        );
        Assert.True(off.Max(Math.Abs) < 0.2, $"{off.Max(Math.Abs):0.00}");
        Assert.True(followed.Average() < 0.05, $"{followed.Average():0.00}");
    }
}
