namespace RuddySpring.Core.Reasoning.Schools;

/// <summary>The yield in the plan's time; the grind is set by it.</summary>
public sealed class TimeAndRatio : School
{
    public override string Key => "time-and-ratio";

    public override string Name => "Time and ratio";

    public override string Holds =>
        "The yield in the time that the plan is meant for. Heat, preparation and arm stay the same, and the grind sets the time.";

    public override int Place => 0;

    public override IReadOnlyList<SchoolTarget> Targets(ShotFacts shot) => [TargetsOf.Time(shot), TargetsOf.Cup(shot)];
}
