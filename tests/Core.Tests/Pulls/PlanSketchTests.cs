using RuddySpring.Core.Pulls;

namespace RuddySpring.Core.Tests.Pulls;

public sealed class PlanSketchTests
{
    [Fact]
    public void Every_shipped_plan_has_a_sketch_that_runs_forward_and_peaks_where_it_does()
    {
        foreach (var plan in ShippedPlans.All)
        {
            var points = PlanSketch.Of(plan);
            Assert.Equal(new(0, 0), points[0]);
            Assert.All(points.Zip(points.Skip(1)), p => Assert.True(p.Second.Seconds >= p.First.Seconds, plan.Key));
            Assert.Equal(plan.Phases.Max(p => p.Move == PhaseMove.HoldFlow ? p.ToBar / 2 : p.ToBar), points.Max(p => p.Bar));
            Assert.InRange(points[^1].Seconds, 15, 120);
        }
    }

    [Fact]
    public void A_phase_of_seconds_is_as_long_as_it_says_and_a_cup_as_long_as_usual()
    {
        PullPhase Phase(PhaseEnding ending, double at, double bar) => new("a", bar, ending, at, 0, 60, "Press");
        var points = PlanSketch.Of(
            ShippedPlans.EarlyPeak with
            {
                Phases =
                [
                    Phase(PhaseEnding.Seconds, 9, 3),
                    Phase(PhaseEnding.YieldShare, 0.5, 9),
                    Phase(PhaseEnding.YieldShare, 1, 5),
                ],
            }
        );
        Assert.Equal([new(0, 0), new(9, 3), new(22, 9), new(35, 5)], points);
    }

    [Fact] // easing is by the hand: a lift lets the pressure fall too, and a tenth of a bar is no easing
    public void Phases_that_are_eased_into_are_those_where_the_hand_gives_way()
    {
        PullPhase Phase(double bar, PhaseMove move = PhaseMove.Press) =>
            new("a", bar, PhaseEnding.Seconds, 5, 0, 60, "Press", move);
        var plan = ShippedPlans.EarlyPeak with { Phases = [Phase(9), Phase(8.9), Phase(6), Phase(1, PhaseMove.Lift), Phase(8)] };
        Assert.Equal([false, false, true, false, false], plan.Easing());
    }
}
