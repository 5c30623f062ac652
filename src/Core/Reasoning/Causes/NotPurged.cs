namespace RuddySpring.Core.Reasoning.Causes;

/// <summary>A grinder holds back 3 to 5 g; after another coffee they are in the next dose.</summary>
public sealed class NotPurged : Cause
{
    public override string Key => "not-purged";

    public override string Name => "Grounds of the other coffee were left in the grinder";

    public override WorkingOrder Order => WorkingOrder.Forgotten;

    public override Sign? Proof => Sign.Resistance;

    public override string? Known(ShotFacts shot) =>
        shot.Admitted.Contains(DoneBefore.Purged) ? Unticked(shot, DoneBefore.Purged, "purging the grinder")
        : shot.OtherCoffeeBefore ? "another coffee was ground just before"
        : null;

    public override double Odds(ShotFacts shot) =>
        shot switch
        {
            { Restricted: true } => 0,
            _ when shot.Admitted.Contains(DoneBefore.Purged) => Forgotten(shot, DoneBefore.Purged, 0),
            { OtherCoffeeBefore: true, Ticked.Purged: true } => 0.03,
            { OtherCoffeeBefore: true, Ticked.Purged: false } => Forgotten(shot, DoneBefore.Purged, 0),
            { OtherCoffeeBefore: true } => 0.15,
            _ => 0.002,
        };

    public override IReadOnlyList<CauseCase> Cases(ShotFacts shot) =>
        [
            new(0.5, 1, [new(Sign.Resistance, 0.23, 0.12), new(Sign.Time, 0.18, 0.1), new(Sign.Sour, 0.4, 0.5)]),
            new(0.5, -1, [new(Sign.Resistance, -0.23, 0.12), new(Sign.Time, -0.18, 0.1), new(Sign.Sour, 0.4, 0.5)]),
        ];

    public override NextChange Change(ShotFacts shot, double size) =>
        new(
            "Purge the grinder after another coffee, and set it back.",
            "Leave the setting at what this coffee had.",
            "Resistance that matches the setting."
        );
}
