using RuddySpring.Core.Machines;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Shots;

namespace RuddySpring.Core.Tests;

/// <summary>Shots of pucks whose own numbers are given.</summary>
public static class PuckShots
{
    /// <summary>A puck in a machine's own basket.</summary>
    public static ShotConditions Of(PuckParameters puck, PullPlan plan, Machine machine, double yieldGrams) =>
        new()
        {
            Bed = Bed.OfResistance(
                puck.ResistanceBarSPerMl,
                puck.DoseGrams,
                Basket.Of(machine) with
                {
                    RestrictorBarS2PerMl2 = puck.RestrictorBarS2PerMl2,
                }
            ) with
            {
                OwnLaneSpread = puck.LaneSpread,
            },
            Behaviour = puck.Behaviour,
            Water = WaterCourse.Steady(puck.WaterC),
            Machine = machine,
            Plan = plan,
            YieldGrams = yieldGrams,
        };

    /// <summary>The same, pulled.</summary>
    public static SimulatedShot Run(
        PuckParameters puck,
        PullPlan plan,
        Machine machine,
        double yieldGrams,
        double longestSeconds = 150
    ) => SimulatedShot.Pull(Of(puck, plan, machine, yieldGrams), longestSeconds);
}
