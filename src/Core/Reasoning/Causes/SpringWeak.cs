using RuddySpring.Core.Care;

namespace RuddySpring.Core.Reasoning.Causes;

/// <summary>A spring that has sagged presses less all the way down its stroke.</summary>
public sealed class SpringWeak : Cause
{
    public override string Key => "spring-weak";

    public override string Name => "The spring presses less than it did";

    public override WorkingOrder Order => WorkingOrder.Wear;

    public override Sign? Proof => Sign.Peak;

    public override string? Caution =>
        "A spring under load breaks bones: taking it out is for a licensed technician or the maker's instructions.";

    public override double Odds(ShotFacts shot) =>
        shot.Sheet.Machine.PressureBy == Machines.PressureBy.Spring
            ? 0.01 * shot.Care.Likelier(CareList.SpringService, WearKind.SpringSags)
            : 0;

    public override string? Known(ShotFacts shot) =>
        shot.Care.Wear.Contains(WearKind.SpringSags)
            ? "the pressure of the last shots is lower than that of the first ones"
            : null;

    public override IReadOnlyList<CauseCase> Cases(ShotFacts shot) => One(new(Sign.Peak, -0.9, 0.4), new(Sign.End, -0.5, 0.3));

    public override NextChange Change(ShotFacts shot, double size) =>
        new(
            "Weigh the force that cocks the lever and compare it with what it was; if it is a tenth less, have "
                + "the spring replaced.",
            "Leave the grind alone until you know.",
            "The pressure at the top of the stroke as it was when the spring was new."
        );
}
