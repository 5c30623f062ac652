using RuddySpring.Core.Pulls;

namespace RuddySpring.Core.Tests.Pulls;

public sealed class ArmStepsTests
{
    private static List<string> Said(params PullPhase[] phases) =>
        [.. ArmSteps.Of(new PullPlan("p", "P", "", 0.5, phases), 32).Select(s => $"{s.Move}: {Quantity.Plain(s.Sentence)}")];

    [Fact] // common practice: hold low until first drops, press to the peak, hold it, ease to the end
    public void A_plan_is_said_as_the_arms_work()
    {
        var said = Said(
            new("pre-infuse", 2.5, PhaseEnding.FirstDrops, 0, 1.5, 25, ""),
            new("ramp", 8, PhaseEnding.Seconds, 5, 0, 5, ""),
            new("peak", 8.1, PhaseEnding.YieldShare, 0.25, 0, 60, ""),
            new("ease", 4, PhaseEnding.YieldShare, 1, 0, 60, "")
        );
        Assert.Equal(
            [
                "Hold: Hold 2.5 bar until first drops.",
                "Press: Press to 8.0 bar within 5 s.",
                "Hold: Hold 8.1 bar until 8 g.",
                "Ease: Ease to 4.0 bar to the end of the cup.",
            ],
            said
        );
    }

    [Fact]
    public void What_is_no_pressing_is_said_too()
    {
        var said = Said(
            new("wet", 1, PhaseEnding.Seconds, 4, 0, 4, ""),
            new("bloom", 0, PhaseEnding.Seconds, 30, 0, 30, "", PhaseMove.Rest),
            new("refill", 0, PhaseEnding.Strokes, 0.5, 0, 9, "", PhaseMove.Lift),
            new("flow", 9, PhaseEnding.Blonding, 0, 0, 60, "", PhaseMove.HoldFlow, 1.5)
        );
        Assert.Equal(
            [
                "Press: Press to 1.0 bar within 4 s.",
                "Wait: Wait without pressure for 30 s.",
                "Lift: Lift and let the group fill for half a stroke.",
                "Ease: Ease so that the flow stays at 1.5 g/s until the stream turns pale.",
            ],
            said
        );
    }

    [Fact]
    public void Every_shipped_plan_has_a_step_for_each_phase()
    {
        foreach (var plan in ShippedPlans.All)
        {
            var steps = ArmSteps.Of(plan, 30);
            Assert.Equal(plan.Phases.Count, steps.Count);
            Assert.All(steps, s => Assert.EndsWith(".", s.Sentence, StringComparison.Ordinal));
        }
    }
}
