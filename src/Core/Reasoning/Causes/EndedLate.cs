namespace RuddySpring.Core.Reasoning.Causes;

/// <summary>The last part of a cup is thin and bitter.</summary>
public sealed class EndedLate : Cause
{
    public override string Key => "ended-late";

    public override string Name => "It was stopped late";

    public override WorkingOrder Order => WorkingOrder.Pull;

    public override Sign? Proof => Sign.Cup;

    public override double Odds(ShotFacts shot) => 0.05;

    public override IReadOnlyList<CauseCase> Cases(ShotFacts shot) =>
        One(
            new(Sign.Time, 0.1, 0.06),
            new(Sign.Cup, 0.22, 0.08),
            new(Sign.Bitter, 0.3, 0.5),
            new(Sign.Sour, -0.2, 0.5),
            new(Sign.Body, -0.4, 0.5)
        );

    public override NextChange Change(ShotFacts shot, double size) =>
        new(
            "Stop on the cue: what hangs at the spout still falls.",
            "Leave the grind alone.",
            "The cup at the yield that was set."
        );
}
