namespace RuddySpring.Core.Reasoning.Causes;

/// <summary>Every shot heats a small group; after three or four in a row it is too hot, and the cup turns bitter.</summary>
public sealed class GroupHot : Cause
{
    public override string Key => "group-hot";

    public override string Name => "The group was too hot";

    public override WorkingOrder Order => WorkingOrder.Heat;

    public override Sign? Proof => Sign.Group;

    public override string? Caution => "The group burns long after the last shot: hold the cloth, not the metal.";

    public override double Odds(ShotFacts shot) =>
        !shot.Sheet.Machine.HasBoiler ? 0
        : shot.InARow >= 3 ? 0.5
        : shot.InARow >= 2 ? 0.15
        : 0.04;

    public override IReadOnlyList<CauseCase> Cases(ShotFacts shot) =>
        One(
            new(Sign.Water, 5, 3),
            new(Sign.Group, 2.1, 0.5),
            new(Sign.Bitter, 0.8, 0.5),
            new(Sign.Sour, -0.6, 0.5),
            new(Sign.Resistance, Thicker(shot, 5), 0.04)
        );

    public override NextChange Change(ShotFacts shot, double size) =>
        new(
            "Let the group cool into its band: a cold wet cloth, or switch off and wait.",
            "Leave the grind and the plan as they are.",
            "Less bitter, with the group in its band when the lever goes up."
        );
}
