namespace RuddySpring.Core.Reasoning.Causes;

/// <summary>Without a screen the water lands in one place and digs into the puck.</summary>
public sealed class ScreenForgotten : Cause
{
    public override string Key => "screen-forgotten";

    public override string Name => "The screen was forgotten";

    public override WorkingOrder Order => WorkingOrder.Forgotten;

    public override Sign? Proof => Sign.Resistance;

    public override string? Known(ShotFacts shot) => Unticked(shot, DoneBefore.ScreenIn, "the screen");

    public override IReadOnlyList<Shows> Seen =>
        [new(Reasoning.Seen.Soup, 0.45), new(Reasoning.Seen.Hole, 0.25), new(Reasoning.Seen.Spurt, 0.25)];

    public override double Odds(ShotFacts shot) => shot.ScreenBelongs ? Forgotten(shot, DoneBefore.ScreenIn, 0.04) : 0;

    public override IReadOnlyList<CauseCase> Cases(ShotFacts shot) =>
        One(
            new(Sign.Time, -0.15, 0.12),
            new(Sign.Resistance, -0.22, 0.12),
            new(Sign.Drops, -0.05, 0.15),
            new(Sign.Fall, 0.1, 0.2),
            new(Sign.Sour, 0.5, 0.6),
            new(Sign.Dry, 0.4, 0.6),
            new(Sign.Bitter, 0.3, 0.6)
        );

    public override NextChange Change(ShotFacts shot, double size) =>
        new(
            "Put the screen on the puck, and tick it.",
            "Leave the grind alone.",
            "Resistance that matches the setting, and a puck that comes out dry."
        );
}
