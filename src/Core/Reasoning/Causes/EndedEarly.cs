namespace RuddySpring.Core.Reasoning.Causes;

/// <summary>A cup that was cut short is strong and sour.</summary>
public sealed class EndedEarly : Cause
{
    public override string Key => "ended-early";

    public override string Name => "It was stopped early";

    public override WorkingOrder Order => WorkingOrder.Pull;

    public override Sign? Proof => Sign.Cup;

    public override double Odds(ShotFacts shot) => 0.05;

    public override IReadOnlyList<CauseCase> Cases(ShotFacts shot) =>
        One(
            new(Sign.Time, -0.15, 0.06),
            new(Sign.Cup, -0.22, 0.08),
            new(Sign.Sour, 0.5, 0.5),
            new(Sign.Bitter, -0.3, 0.5),
            new(Sign.Body, 0.3, 0.5)
        );

    public override NextChange Change(ShotFacts shot, double size) =>
        new(
            "Go on to the yield: stop on the cue and not on the clock.",
            "Leave the grind alone.",
            "The cup at the yield that was set."
        );
}
