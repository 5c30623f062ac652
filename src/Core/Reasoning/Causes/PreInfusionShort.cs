namespace RuddySpring.Core.Reasoning.Causes;

/// <summary>Pressed before the puck is wet through, it is drawn unevenly.</summary>
public sealed class PreInfusionShort : Cause
{
    public override string Key => "preinfusion-short";

    public override string Name => "The pre-infusion was cut short";

    public override WorkingOrder Order => WorkingOrder.Pull;

    public override Sign? Proof => Sign.PreInfusion;

    public override double Odds(ShotFacts shot) =>
        shot.Sheet.Machine.PressureBy == Machines.PressureBy.Arm && !shot.Restricted ? 0.04 : 0;

    public override IReadOnlyList<CauseCase> Cases(ShotFacts shot) =>
        One(
            new(Sign.Time, -0.35, 0.2),
            new(Sign.PreInfusion, -0.7, 0.35),
            new(Sign.Resistance, 0.12, 0.15),
            new(Sign.Drops, -0.3, 0.3),
            new(Sign.LateFlow, 0.1, 0.12),
            new(Sign.Strength, -0.15, 0.15),
            new(Sign.Sour, 0.2, 0.5)
        );

    public override NextChange Change(ShotFacts shot, double size) =>
        new(
            "Hold the low pressure until first drops show, then ramp.",
            "Leave the grind alone.",
            "The ramp begins after first drops, and the cup is rounder."
        );
}
