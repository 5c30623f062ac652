namespace RuddySpring.Core.Reasoning.Causes;

/// <summary>Nine bar on a puck that has given way draws it unevenly: harsh and dry, says one school.</summary>
public sealed class PressedToTheEnd : Cause
{
    public override string Key => "pressed-to-the-end";

    public override string Name => "It was pressed hard to the end";

    public override WorkingOrder Order => WorkingOrder.Pull;

    public override Sign? Proof => Sign.End;

    public override double Odds(ShotFacts shot) =>
        shot.Sheet.Machine.PressureBy == Machines.PressureBy.Arm && !shot.Restricted ? 0.04 : 0;

    public override IReadOnlyList<CauseCase> Cases(ShotFacts shot) =>
        One(
            new(Sign.Time, -0.15, 0.1),
            new(Sign.End, 4.0, 1.5),
            new(Sign.Peak, 1.2, 0.9),
            new(Sign.Dry, 1.0, 0.6),
            new(Sign.Bitter, 0.5, 0.6),
            new(Sign.LateFlow, 0.0, 0.15)
        );

    public override NextChange Change(ShotFacts shot, double size) =>
        new(
            "Ease as the puck gives way: to about {5 bar} at half way and lower at the end.",
            "Leave the grind and the yield as they are.",
            "Less dry, with the last quarter on the plan."
        );
}
