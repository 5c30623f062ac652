using RuddySpring.Core.Care;

namespace RuddySpring.Core.Reasoning.Causes;

/// <summary>Fines and oil close the small hole, so the same pressure brings less through.</summary>
public sealed class RestrictorClogged : Cause
{
    public override string Key => "restrictor-clogged";

    public override string Name => "The small hole of the basket is clogged";

    public override WorkingOrder Order => WorkingOrder.Wear;

    public override Sign? Proof => Sign.HoleFlow;

    public override double Odds(ShotFacts shot) =>
        shot.Restricted ? 0.06 * shot.Care.Likelier(CareList.Restrictor, WearKind.RestrictorClogs) : 0;

    public override string? Known(ShotFacts shot) =>
        shot.Care.Wear.Contains(WearKind.RestrictorClogs) ? "the last shots show the hole closing"
        : shot.Care.Overdue.Contains(CareList.Restrictor) ? "soaking the basket is overdue"
        : null;

    public override IReadOnlyList<CauseCase> Cases(ShotFacts shot) =>
        One(new(Sign.HoleFlow, -0.45, 0.2), new(Sign.Bitter, 0.3, 0.5));

    public override NextChange Change(ShotFacts shot, double size) =>
        new(
            "Soak the basket for 20 min in vinegar, rinse it, and blow the hole free.",
            "Leave the grind alone: behind a small hole it hardly counts.",
            "The cup in its usual time at the usual pressure."
        );
}
