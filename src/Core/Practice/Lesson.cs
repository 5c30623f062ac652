using RuddySpring.Core.Machines;
using RuddySpring.Core.Pulls;

namespace RuddySpring.Core.Practice;

/// <summary>What a lesson is scored on; each part from 0 to 100.</summary>
public enum ScoreOf
{
    /// <summary>Time spent in the plan's band, phase by phase.</summary>
    Phases,

    /// <summary>How little the pressure shakes while it is held.</summary>
    Steadiness,

    /// <summary>How evenly the pressure goes down where it should.</summary>
    Easing,

    /// <summary>How near the cup comes to its yield.</summary>
    Cup,

    /// <summary>How soon first drops were seen.</summary>
    Drops,

    /// <summary>How near the flow is kept to what is wanted.</summary>
    Flow,

    /// <summary>How near the pull comes to its time, whatever the grind.</summary>
    Time,

    /// <summary>How soon the hand eased when water found a way through.</summary>
    Channel,

    /// <summary>How even the strokes are.</summary>
    Rhythm,
}

/// <summary>One lesson on the virtual lever.</summary>
/// <param name="Key">Stable key.</param>
/// <param name="Name">Plain name.</param>
/// <param name="Teaches">What it teaches.</param>
/// <param name="Why">Why people do it (common practice).</param>
/// <param name="Plan">The plan to follow.</param>
/// <param name="DoseGrams">Dose, g.</param>
/// <param name="YieldGrams">Yield, g.</param>
/// <param name="GrindFactor">Resistance of the puck over that of a dialled-in one.</param>
/// <param name="ChannelAtGrams">Cup at which a channel opens, g; null for none.</param>
/// <param name="LongestSeconds">Where it ends by itself, s.</param>
/// <param name="Scored">What is scored, with weights.</param>
/// <param name="Family">The machine it needs; null for any that the arm presses.</param>
public sealed record Lesson(
    string Key,
    string Name,
    string Teaches,
    string Why,
    PullPlan Plan,
    double DoseGrams,
    double YieldGrams,
    double GrindFactor,
    double? ChannelAtGrams,
    double LongestSeconds,
    IReadOnlyDictionary<ScoreOf, double> Scored,
    MachineFamily? Family = null
)
{
    /// <summary>Resistance of a dialled-in puck of these lessons, bar s/ml: about 37 s for 1:2 with an early peak.</summary>
    public const double DialledIn = 5.0;

    /// <summary>The machine that the lesson is played on: the chosen one where it suits, the family's own otherwise.</summary>
    public Machine On(Machine chosen)
    {
        if (Family is { } family)
            return chosen.Family == family ? chosen : FamilyDefaults.Of(family).Machine;
        return chosen.PressureBy == PressureBy.Arm ? chosen : FamilyDefaults.Of(MachineFamily.PortableLever).Machine;
    }
}
