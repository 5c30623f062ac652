using CsCheck;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Shots;

namespace RuddySpring.Core.Tests.Pulls;

public sealed class PlanTests
{
    private static Machine Of(MachineFamily family) => FamilyDefaults.Of(family).Machine;

    private static PuckParameters Puck(double dose) => new() { DoseGrams = dose, ResistanceBarSPerMl = 0.4 * dose };

    private static PullPhase Press(double bar, PhaseEnding ending, double at, double atMost = 60) =>
        new("press", bar, ending, at, 1, atMost, "Press");

    private static PullPlan Plan(params PullPhase[] phases) => new("own", "Own", "", 0.6, phases);

    [Fact]
    public void Every_family_has_plans_that_suit_it_and_land_in_their_own_time()
    {
        foreach (var start in FamilyWords.StartingPoints)
        {
            var plans = ShippedPlans.All.Where(p => p.Suits(start.Defaults)).ToList();
            Assert.True(plans.Count >= 2, start.Name);
            foreach (var plan in plans)
            {
                var found = Dialing.WantedAt(plan, start.Defaults, start.DoseGrams, start.YieldGrams);
                Assert.True(found is not null, $"{start.Name}, {plan.Name}: no grind lands it");
            }
        }
    }

    // common practice: one seats and wets, one reaches 1 to 2 bar, one ends pre-infusion, the last is slowed: five or six pulls
    [Fact]
    public void A_stepped_lever_is_given_its_steps_and_a_pump_its_rests()
    {
        Assert.True(ShippedPlans.Steps.Suits(Of(MachineFamily.SteppedLever)));
        Assert.False(ShippedPlans.Steps.Suits(Of(MachineFamily.PortableLever)));
        var (pump, dose, yield) = FamilyDefaults.Of(MachineFamily.HandPump);
        var shot = PuckShots.Run(Puck(dose) with { ResistanceBarSPerMl = 5 }, ShippedPlans.PumpAndRest, pump, yield);
        Assert.True(shot.ReachedYield);
        Assert.InRange(shot.Seconds, 40, 65); // common practice: 38 g in around 50 s
    }

    [Fact] // common practice: pre-infuse about 10 s, two half pulls, then full pulls, about 45 s in all
    public void A_spring_runs_half_pulls_then_full_pulls()
    {
        var (spring, dose, yield) = FamilyDefaults.Of(MachineFamily.BoilerSpring);
        var preview = PlanPreview.Of(PuckShots.Of(Puck(dose), ShippedPlans.HalfThenFull, spring, yield));
        Assert.True(preview.ReachedYield);
        Assert.InRange(preview.Seconds, 35, 70);
        Assert.Equal([0, 1, 2, 3, 4, 5], preview.Points.Select(p => p.Phase).Distinct());
        // lifted, the puck stands at boiler pressure at most; cocked again, the spring starts from its top
        Assert.All(preview.Points.Where(p => p.Phase is 2 or 4).TakeLast(5), p => Assert.True(p.PressureBar < 1.5));
        var tops = preview.Points.Where(p => p.Phase == 5).Max(p => p.MostBar);
        Assert.Equal(spring.SpringTopBar!.Value, tops, 0.3);
    }

    [Fact] // common practice: the flow is held level at about 1.3 to 1.6 g/s by easing the pressure
    public void Holding_a_flow_eases_the_pressure_as_the_puck_gives_way() =>
        Gen.Double[3.5, 8]
            .Sample(
                r =>
                {
                    var machine = Of(MachineFamily.HeatedGroup) with { WillingForceKgf = 60 };
                    var shot = PuckShots.Run(
                        new() { DoseGrams = 16, ResistanceBarSPerMl = r },
                        ShippedPlans.HoldTheFlow,
                        machine,
                        34
                    );
                    var late = shot.Samples.Where(s => s.CupGrams > 18).ToList();
                    return late.Count > 10
                        && late.All(s => s.PressureBar > 8.9 || Math.Abs(s.FlowGramsPerS - 1.5) < 0.2)
                        && late[^1].PressureBar <= late[0].PressureBar + 0.05;
                },
                iter: 40
            );

    [Fact]
    public void Grams_strokes_and_the_pale_stream_end_a_phase()
    {
        var follower = new PlanFollower(
            Plan(
                Press(3, PhaseEnding.Grams, 5),
                Press(6, PhaseEnding.Strokes, 0.5),
                Press(4, PhaseEnding.Blonding, 0),
                Press(2, PhaseEnding.YieldShare, 1)
            ),
            30,
            20
        );
        follower.TargetBar(new(1, 4.9, true, 1, 10));
        Assert.Equal(0, follower.PhaseIndex);
        follower.TargetBar(new(2, 5.0, true, 1, 12));
        Assert.Equal(1, follower.PhaseIndex);
        follower.TargetBar(new(3, 8, true, 1, 21.9));
        Assert.Equal(1, follower.PhaseIndex);
        follower.TargetBar(new(4, 9, true, 1, 22.1)); // half of 20 ml since 12
        Assert.Equal(2, follower.PhaseIndex);
        follower.TargetBar(new(20, 20, true, 1, 40));
        Assert.Equal(2, follower.PhaseIndex);
        follower.TargetBar(new(21, 21, true, 1, 41, Blonding: true));
        Assert.Equal(3, follower.PhaseIndex);
    }

    [Fact]
    public void A_stroke_that_nobody_can_see_ends_by_its_longest_time()
    {
        var follower = new PlanFollower(Plan(Press(6, PhaseEnding.Strokes, 1, 8), Press(4, PhaseEnding.YieldShare, 1)), 30);
        follower.TargetBar(new(7.9, 2, true));
        Assert.Equal(0, follower.PhaseIndex);
        follower.TargetBar(new(8.1, 2, true));
        Assert.Equal(1, follower.PhaseIndex);
    }

    [Fact]
    public void Points_that_cross_are_refused_with_the_phase_and_the_range()
    {
        var grams = Assert.Throws<DoesNotFitException>(() =>
            Plan(Press(6, PhaseEnding.Grams, 12), Press(4, PhaseEnding.Grams, 8)).Checked()
        );
        Assert.Equal("phases", grams.Field);
        Assert.Contains("Phase 2, press,", grams.Message, StringComparison.Ordinal);
        Assert.Contains("above 12 g", grams.Message, StringComparison.Ordinal);
        Assert.Throws<DoesNotFitException>(() =>
            Plan(Press(6, PhaseEnding.YieldShare, 0.6), Press(4, PhaseEnding.YieldShare, 0.3)).Checked()
        );
        Assert.Throws<FieldRangeException>(() => Plan(Press(13, PhaseEnding.YieldShare, 1)).Checked());
        Assert.Throws<FieldRangeException>(() => Plan(Press(6, PhaseEnding.Seconds, -2)).Checked());
        Assert.Throws<DoesNotFitException>(() =>
            (Plan(Press(6, PhaseEnding.YieldShare, 1)) with { Lands = new(40, 30, 50) }).Checked()
        );
    }

    [Fact]
    public void A_plan_above_the_machine_says_what_to_change()
    {
        var portable = Of(MachineFamily.PortableLever) with { WillingForceKgf = 12 };
        var most = Lever.PressureBar(portable, 12);
        var problem = Assert.Single(PlanReach.Problems(Plan(Press(most + 1, PhaseEnding.YieldShare, 1)), portable, 15, 32));
        Assert.Equal(0, problem.Phase);
        Assert.Contains($"{Quantity.Bar(most):0.0}", problem.Sentence, StringComparison.Ordinal);
        Assert.Contains("Lower the point, or be willing to use", problem.Sentence, StringComparison.Ordinal);
        Assert.Empty(PlanReach.Problems(Plan(Press(most - 0.1, PhaseEnding.YieldShare, 1)), portable, 15, 32));
        // a spring gives less and less, and nothing can be added to it by hand
        var spring = Of(MachineFamily.BoilerSpring);
        var sprung = Plan(Press(9, PhaseEnding.YieldShare, 0.2), Press(9, PhaseEnding.YieldShare, 1));
        Assert.Contains(PlanReach.Problems(sprung, spring, 16, 32), p =>
            p.Sentence.Contains("hold a spring back", StringComparison.Ordinal)
        );
        // no boiler, nothing to refill from
        Assert.Contains(PlanReach.Problems(ShippedPlans.PumpAndPull, portable, 15, 32), p =>
            p.Sentence.Contains("no boiler", StringComparison.Ordinal)
        );
    }

    [Fact]
    public void The_reach_of_a_spring_falls_along_its_line_and_starts_anew_when_cocked()
    {
        var spring = Of(MachineFamily.BoilerSpring);
        var reach = PlanReach.Of(spring, 16, 32);
        Assert.Equal(41, reach.Count);
        Assert.All(reach, r => Assert.InRange(r.MostBar, spring.SpringEndBar!.Value - 0.01, spring.SpringTopBar!.Value + 0.01));
        var arm = PlanReach.Of(Of(MachineFamily.PortableLever), 15, 32);
        Assert.All(arm, r => Assert.Equal(arm[0].MostBar, r.MostBar, 9));
    }

    // dp/dt = (Q_piston - Q_puck) / C: a stroke against a closed puck raises the pressure by no more than its volume over the
    // compliance
    [Fact]
    public void A_pump_raises_the_pressure_stroke_by_stroke_and_lets_it_fall_between()
    {
        var (pump, dose, yield) = FamilyDefaults.Of(MachineFamily.HandPump);
        var shot = PuckShots.Run(Puck(dose), ShippedPlans.PumpAndRest, pump, yield);
        var falls = shot.Samples.Zip(shot.Samples.Skip(1)).Count(p => p.Second.PressureBar < p.First.PressureBar - 0.02);
        Assert.True(falls > 20, $"{falls} falls between strokes");
        Assert.True(shot.Samples.Max(s => s.PressureBar) <= 8.6);
        // what has gone in is made of whole strokes of its little piston at most
        var ml = Strokes.VolumeMl(pump);
        Assert.Equal(Math.PI * 25 * 12 / 1000, ml, 9);
    }

    private static class Dialing
    {
        public static Core.Dialing.WantedResistance? WantedAt(PullPlan plan, Machine machine, double dose, double yield)
        {
            var (low, best, high) = plan.LandingSeconds;
            return Core.Dialing.WantedResistance.Of(ShotConditions.Of(machine, plan, dose, yield, 93), low, best, high);
        }
    }
}
