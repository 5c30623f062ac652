namespace RuddySpring.Core.Reasoning.Causes;

/// <summary>A group that is not warm yet takes the heat from the water; the cup is sour.</summary>
public sealed class GroupCool : Cause
{
    public override string Key => "group-cool";

    public override string Name => "The group was too cool";

    public override WorkingOrder Order => WorkingOrder.Heat;

    public override Sign? Proof => Sign.Group;

    public override string? Caution => "A blank flush is boiling water and steam: keep hands and face off the stream.";

    public override double Odds(ShotFacts shot) =>
        !shot.Sheet.Machine.HasBoiler ? 0
        : shot.InARow == 0 ? 0.12
        : 0.04;

    public override IReadOnlyList<CauseCase> Cases(ShotFacts shot) =>
        One(
            new(Sign.Water, -6, 3),
            new(Sign.Group, -2.2, 0.5),
            new(Sign.Sour, 0.7, 0.5),
            new(Sign.Bitter, -0.7, 0.5),
            new(Sign.Resistance, Thicker(shot, -6), 0.04)
        );

    public override NextChange Change(ShotFacts shot, double size) =>
        new(
            "Warm the group into its band: wait, or give it a blank flush.",
            "Leave the grind and the plan as they are.",
            "Less sour, with the group in its band when the lever goes up."
        );
}
