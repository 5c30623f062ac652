using RuddySpring.Core.Care;

namespace RuddySpring.Core.Reasoning.Causes;

/// <summary>What goes past the seal is gone from the stroke, and the pressure stays under the plan.</summary>
public sealed class SealLeaking : Cause
{
    public override string Key => "seal-leaking";

    public override string Name => "The piston seal lets water past";

    public override WorkingOrder Order => WorkingOrder.Wear;

    public override Sign? Proof => Sign.Cup;

    public override IReadOnlyList<Shows> Seen => [new(Reasoning.Seen.WaterPastPiston, 0.6)];

    public override string? Caution => "Cool down and let the pressure go before taking anything apart.";

    public override double Odds(ShotFacts shot) =>
        shot.Sheet.Machine.PressureBy == Machines.PressureBy.Arm
            ? 0.03 * shot.Care.Likelier(CareList.Seal, WearKind.SealLeaks)
            : 0;

    public override string? Known(ShotFacts shot) =>
        shot.Care.Wear.Contains(WearKind.SealLeaks) ? "against a blind basket the pressure fell"
        : shot.Care.Overdue.Contains(CareList.Seal) ? "cleaning and greasing the seal is overdue"
        : null;

    public override IReadOnlyList<CauseCase> Cases(ShotFacts shot) =>
        [
            new(0.6, 1, [new(Sign.Peak, -0.7, 0.35), new(Sign.End, -0.4, 0.3), new(Sign.Cup, -0.12, 0.1)]),
            new(0.4, 1, [new(Sign.Peak, -0.7, 0.35), new(Sign.End, -0.4, 0.3)]),
        ];

    public override NextChange Change(ShotFacts shot, double size) =>
        new(
            "Clean and grease the seal; if water still comes past the piston, replace it by the manual.",
            "Leave the grind alone.",
            "The pressure of the plan with the usual arm, and the whole cup from one filling."
        );
}
