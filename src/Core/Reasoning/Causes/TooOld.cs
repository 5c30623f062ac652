namespace RuddySpring.Core.Reasoning.Causes;

/// <summary>Past its weeks a bag is flat, without crema, and runs faster at the same grind.</summary>
public sealed class TooOld : Cause
{
    public override string Key => "too-old";

    public override string Name => "The beans are too old";

    public override WorkingOrder Order => WorkingOrder.Age;

    public override Sign? Proof => null;

    public override string? Known(ShotFacts shot) =>
        shot.AgeDays is { } days ? FormattableString.Invariant($"{days:0} days from roast") : null;

    public override double Odds(ShotFacts shot) =>
        shot.AgeDays switch
        {
            { } days when days > shot.Rest.CremaTo => 2.5,
            { } days when days > shot.Rest.BestTo + 10 => 0.8,
            { } days when days > shot.Rest.BestTo => 0.08,
            _ => 0,
        };

    public override IReadOnlyList<CauseCase> Cases(ShotFacts shot) =>
        One(
            new(Sign.Time, -0.2, 0.12),
            new(Sign.Body, -0.6, 0.5),
            new(Sign.Sweet, -0.9, 0.5),
            new(Sign.Sour, 0.3, 0.5),
            new(Sign.Setting, -0.2, 0.12),
            new(Sign.Strength, -0.12, 0.1),
            new(Sign.Resistance, 0.05, 0.15)
        );

    public override NextChange Change(ShotFacts shot, double size) =>
        new(
            "Open another bag; grind this one finer while it lasts.",
            "Leave the plan and the heat as they are: neither brings back what has been lost.",
            "More body and crema from fresher beans."
        );
}
