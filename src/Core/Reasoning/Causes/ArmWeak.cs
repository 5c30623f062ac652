using System.Globalization;

namespace RuddySpring.Core.Reasoning.Causes;

/// <summary>A plan that the arm cannot follow is another plan.</summary>
public sealed class ArmWeak : Cause
{
    public override string Key => "arm-weak";

    public override string Name => "The arm did not reach the pressure of the plan";

    public override WorkingOrder Order => WorkingOrder.Pull;

    public override Sign? Proof => Sign.Peak;

    public override string? Caution => "Never force a lever: forks and frames bend, and the machine can tip.";

    public override double Odds(ShotFacts shot) => shot.Sheet.Machine.PressureBy == Machines.PressureBy.Arm ? 0.04 : 0;

    public override IReadOnlyList<CauseCase> Cases(ShotFacts shot) =>
        One(new(Sign.Time, 0.1, 0.1), new(Sign.Peak, -2.8, 1.0), new(Sign.End, -0.4, 0.6), new(Sign.Ramp, 0.2, 0.5));

    public override NextChange Change(ShotFacts shot, double size) =>
        new(
            string.Create(
                CultureInfo.InvariantCulture,
                $"Take a plan that peaks lower, or hold the machine down and stand over the lever: the plan asks for "
                    + $"{Quantity.Bar(shot.Sheet.Plan.PeakBar):0.#}."
            ),
            "Leave the grind until the plan is one that you can pull.",
            "The peak of the plan, without force."
        );
}
