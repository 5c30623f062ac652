namespace RuddySpring.Core.Reasoning.Causes;

/// <summary>Clumps, a slope or a gap at the wall let the water through in one place.</summary>
public sealed class ChannelInPuck : Cause
{
    public override string Key => "channel-puck";

    public override string Name => "A channel, from an uneven puck";

    public override WorkingOrder Order => WorkingOrder.Preparation;

    public override Sign? Proof => Sign.Fall;

    public override IReadOnlyList<Shows> Seen =>
        [
            new(Reasoning.Seen.Spurt, 0.5),
            new(Reasoning.Seen.PaleStreak, 0.45),
            new(Reasoning.Seen.Hole, 0.45),
            new(Reasoning.Seen.BaldSpot, 0.3),
            new(Reasoning.Seen.Crack, 0.15),
        ];

    public override double Odds(ShotFacts shot) => 0.06;

    public override IReadOnlyList<CauseCase> Cases(ShotFacts shot) =>
        [
            new(
                0.65,
                1,
                [
                    new(Sign.Time, -0.25, 0.15),
                    new(Sign.Fall, 0.5, 0.3),
                    new(Sign.LateFlow, 0.3, 0.25),
                    new(Sign.Resistance, -0.15, 0.2),
                    new(Sign.Sour, 0.9, 0.7),
                    new(Sign.Bitter, 0.4, 0.7),
                    new(Sign.Dry, 0.7, 0.6),
                    new(Sign.Sweet, -0.8, 0.6),
                    new(Sign.Strength, -0.3, 0.2),
                ]
            ),
            // a small one is seen rather than measured
            new(
                0.35,
                0.3,
                [
                    new(Sign.Fall, 0.15, 0.12),
                    new(Sign.LateFlow, 0.06, 0.06),
                    new(Sign.Sour, 0.3, 0.5),
                    new(Sign.Dry, 0.3, 0.4),
                    new(Sign.Strength, -0.04, 0.05),
                ]
            ),
        ];

    public override NextChange Change(ShotFacts shot, double size) =>
        new(
            "Stir out the clumps, level, tap, and tamp level; the same each time.",
            "Leave the grind alone: a channel says nothing about it.",
            "No sudden fall of the resistance, and no spurts."
        );
}
