using RuddySpring.Core.Heat;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Shots;

namespace RuddySpring.Core.Sessions;

/// <summary>How many shots a boiler machine gives one after the other from where it stands.</summary>
public static class ShotsInARow
{
    private const int Most = 9;
    private const double EverySeconds = 150;
    private const double ShotSeconds = 40;
    private const double MoreLikelyThanNot = 0.5;

    /// <summary>
    /// Shots pulled every 2.5 min before the group is more likely out of its band at lever-up than in it, or the water too low, 0
    /// to 9; 0 on a kettle machine, whose metal is warmed again for each.
    /// </summary>
    public static int Left(Machine machine, SessionWants wants, HeatRun now)
    {
        if (!machine.HasBoiler)
            return 0;
        var heat = HeatConstants.Of(machine);
        var band = GroupBand.Of(heat);
        var ahead = now.Clone();
        var water = CupVolumes.WaterGrams(machine, wants.DoseGrams, wants.YieldGrams);
        for (var shots = 0; shots < Most; shots++)
        {
            if (band.Chance(ahead.GroupC, ahead.PlusMinusK) < MoreLikelyThanNot || ahead.WaterGrams - water < heat.MinimumGrams)
                return shots;
            ahead.Add(new(HeatEventKind.Shot, ahead.Seconds, ShotSeconds, water, wants.DoseGrams));
            ahead.AdvanceTo(ahead.Seconds + EverySeconds);
        }

        return Most;
    }
}
