using RuddySpring.Core.Machines;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Shots;

namespace RuddySpring.Core.Coaching;

/// <summary>What the rest of a pull would bring.</summary>
/// <param name="StopSeconds">From now until the hand should let go; null when the yield is never reached.</param>
/// <param name="CupGrams">In the cup when all has dripped.</param>
/// <param name="WaterEnds">Whether it is the water that ends it.</param>
/// <param name="PlanEnds">Whether the plan ends before the yield, as an exercise does.</param>
/// <param name="NextPhaseSeconds">From now until the phase that is due ends; null when it does not.</param>
public sealed record RestOfPull(double? StopSeconds, double CupGrams, bool WaterEnds, bool PlanEnds, double? NextPhaseSeconds)
{
    private const double StepSeconds = 0.1;

    /// <summary>Pulls the rest on a copy of the puck as it is known now.</summary>
    /// <param name="watch">What is known.</param>
    /// <param name="follower">Where the pull stands in its plan.</param>
    /// <param name="machine">The machine.</param>
    /// <param name="yieldGrams">Where to stop, g, the drip after included.</param>
    /// <param name="strokeFromMl">Water moved when the stroke under way began, ml.</param>
    /// <param name="letGoSeconds">How long the hand goes on after the cue (<see cref="LetGo"/>), s.</param>
    /// <param name="factor">On what the plan wants of the hand.</param>
    /// <param name="longestSeconds">Where to give up, s.</param>
    public static RestOfPull Of(
        PuckWatch watch,
        PlanFollower follower,
        Machine machine,
        double yieldGrams,
        double strokeFromMl,
        double letGoSeconds,
        double factor = 1,
        double longestSeconds = 120
    )
    {
        var run = watch.Ahead();
        var plan = follower.Copy();
        var phase = plan.PhaseIndex;
        var hand = new PlanDrive(plan, machine, watch.PressureBar, strokeFromMl, factor);
        double? next = null;
        for (var t = 0.0; t < longestSeconds; t += StepSeconds)
        {
            if (run.Stream.LeftPuckGrams + (run.LeavesGramsPerS * letGoSeconds) >= yieldGrams && t > 0)
                return new(t, yieldGrams, false, false, next);
            if (!hand.HasWater(run.Puck.InflowMl) && run.LeavesGramsPerS < 0.02)
                return new(null, run.Stream.LeftPuckGrams, true, false, next);
            if (plan.Phase is null)
                return new(null, run.Stream.LeftPuckGrams, false, true, next);
            run.Step(hand, StepSeconds);
            if (next is null && plan.PhaseIndex > phase)
                next = t;
        }

        return new(null, run.Stream.LeftPuckGrams, false, false, next);
    }
}
