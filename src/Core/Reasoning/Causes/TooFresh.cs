namespace RuddySpring.Core.Reasoning.Causes;

/// <summary>Gas of fresh beans holds the water up and tastes sour and sharp.</summary>
public sealed class TooFresh : Cause
{
    public override string Key => "too-fresh";

    public override string Name => "The beans are too fresh";

    public override WorkingOrder Order => WorkingOrder.Age;

    public override Sign? Proof => null;

    public override string? Known(ShotFacts shot) =>
        shot.AgeDays is { } days ? FormattableString.Invariant($"{days:0} days from roast") : null;

    public override double Odds(ShotFacts shot) =>
        shot.AgeDays switch
        {
            { } days when days < shot.Rest.UsableFrom => 1.5,
            { } days when days < shot.Rest.BestFrom - 2 => 0.12,
            _ => 0,
        };

    public override IReadOnlyList<CauseCase> Cases(ShotFacts shot) =>
        One(new(Sign.Sour, 1.0, 0.6), new(Sign.Sweet, -0.3, 0.4), new(Sign.Drops, 0.1, 0.1), new(Sign.Resistance, 0.02, 0.1));

    public override NextChange Change(ShotFacts shot, double size) =>
        new(
            FormattableString.Invariant(
                $"Let the bag rest until day {shot.Rest.BestFrom}, or draw a longer pre-infusion meanwhile."
            ),
            "Leave the grind alone until then: gas slows the water.",
            "Less sharp from day to day."
        );
}
