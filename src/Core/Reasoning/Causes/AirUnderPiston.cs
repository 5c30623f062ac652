namespace RuddySpring.Core.Reasoning.Causes;

/// <summary>Air is a spring: the pressure comes late and goes late.</summary>
public sealed class AirUnderPiston : Cause
{
    public override string Key => "air-under-piston";

    public override string Name => "Air was left under the piston";

    public override WorkingOrder Order => WorkingOrder.Preparation;

    public override Sign? Proof => Sign.LetDown;

    public override IReadOnlyList<Shows> Seen => [new(Reasoning.Seen.SoftLever, 0.6)];

    public override double Odds(ShotFacts shot) =>
        shot.Sheet.Machine is { HasBoiler: false, PressureBy: Machines.PressureBy.Arm } ? 0.04 : 0;

    public override IReadOnlyList<CauseCase> Cases(ShotFacts shot) =>
        One(
            new(Sign.Time, 0.05, 0.08),
            new(Sign.LetDown, 1.1, 0.4),
            new(Sign.Ramp, 0.5, 0.4),
            new(Sign.PreInfusion, 0.15, 0.2),
            new(Sign.Peak, -0.6, 0.6),
            new(Sign.Cup, 0.09, 0.06),
            new(Sign.Drops, 0.1, 0.15)
        );

    public override NextChange Change(ShotFacts shot, double size) =>
        new(
            "Fill to the brim, or draw the water up under a lowered piston, so that no air is left.",
            "Leave the grind and the plan as they are.",
            "A lever that answers at once, and a stream that stops when the hand does."
        );
}
