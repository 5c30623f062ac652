using RuddySpring.Core.Machines;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Pulls;

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
    /// <param name="letGoSeconds">Time constant with which the pressure dies when the hand lets go, s.</param>
    /// <param name="factor">On what the plan wants of the hand.</param>
    /// <param name="longestSeconds">Where to give up, s.</param>
    public static RestOfPull Of(
        PuckWatch watch, PlanFollower follower, Machine machine, double yieldGrams, double strokeFromMl, double letGoSeconds, double factor = 1,
        double longestSeconds = 120)
    {
        var puck = watch.CopyOfPuck();
        var plan = follower.Copy();
        var phase = plan.PhaseIndex;
        var hand = new PlanHand(plan, machine, watch.PressureBar, strokeFromMl);
        var mostMl = CupVolumes.MostPuckMl(machine);
        var spout = new Spout(watch.AtSpoutGrams);
        double cup = watch.CupGrams, flow = 0, inflow = watch.InflowMlPerS;
        var share = Spout.ShareThatFalls(StepSeconds);
        double? next = null;
        for (var t = 0.0; t < longestSeconds; t += StepSeconds)
        {
            if (cup + spout.Grams + (flow * letGoSeconds) >= yieldGrams && t > 0) return new(t, yieldGrams, false, false, next);
            var water = puck.InflowMl < mostMl;
            if (!water && flow < 0.02) return new(null, cup + spout.Grams, true, false, next);
            if (plan.Phase is null) return new(null, cup + spout.Grams, false, true, next);
            var bar = hand.Next(
                new(watch.Seconds + t, cup, cup > ShotSimulator.FirstDropsGrams, flow, puck.InflowMl), inflow, StepSeconds, water, factor);
            if (next is null && plan.PhaseIndex > phase) next = t;
            var step = puck.Step(bar, StepSeconds);
            inflow = step.InflowMl / StepSeconds;
            flow = step.CupGrams / StepSeconds;
            cup += spout.Pass(step.CupGrams, share);
        }

        return new(null, cup + spout.Grams, false, false, next);
    }
}
