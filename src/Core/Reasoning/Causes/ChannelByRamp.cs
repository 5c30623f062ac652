namespace RuddySpring.Core.Reasoning.Causes;

/// <summary>Pressure on a puck that is not wet through breaks a way into it.</summary>
public sealed class ChannelByRamp : Cause
{
    public override string Key => "channel-ramp";

    public override string Name => "A channel, from pressure that came too fast";

    public override WorkingOrder Order => WorkingOrder.Pull;

    public override Sign? Proof => Sign.Fall;

    public override IReadOnlyList<Shows> Seen =>
        [
            new(Reasoning.Seen.Spurt, 0.5),
            new(Reasoning.Seen.PaleStreak, 0.45),
            new(Reasoning.Seen.Hole, 0.45),
            new(Reasoning.Seen.BaldSpot, 0.3),
            new(Reasoning.Seen.Crack, 0.15),
        ];

    public override double Odds(ShotFacts shot) => shot.Sheet.Machine.PressureBy == Machines.PressureBy.Arm ? 0.04 : 0;

    public override IReadOnlyList<CauseCase> Cases(ShotFacts shot) =>
        One(
            new(Sign.Time, -0.6, 0.3),
            new(Sign.PreInfusion, -0.7, 0.35),
            new(Sign.Ramp, -0.9, 0.4),
            new(Sign.Fall, 0.5, 0.3),
            new(Sign.LateFlow, 0.3, 0.25),
            new(Sign.Resistance, -0.05, 0.25),
            new(Sign.Drops, -0.4, 0.35),
            new(Sign.Peak, 0.6, 0.8),
            new(Sign.Strength, -0.4, 0.25),
            new(Sign.Sour, 1.0, 0.7),
            new(Sign.Bitter, 0.3, 0.7),
            new(Sign.Dry, 0.7, 0.6)
        );

    public override NextChange Change(ShotFacts shot, double size) =>
        new(
            "Wait for first drops at low pressure, then ramp over about 5 s.",
            "Leave the grind alone: a channel says nothing about it.",
            "No sudden fall of the resistance, and no spurts."
        );
}
