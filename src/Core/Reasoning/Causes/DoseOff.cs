namespace RuddySpring.Core.Reasoning.Causes;

/// <summary>A gram more or less lengthens or shortens the bed.</summary>
public sealed class DoseOff : Cause
{
    public override string Key => "dose-off";

    public override string Name => "The dose was off";

    public override WorkingOrder Order => WorkingOrder.Preparation;

    public override Sign? Proof => Sign.Resistance;

    public override double Odds(ShotFacts shot) => shot.Restricted ? 0 : 0.04;

    public override IReadOnlyList<CauseCase> Cases(ShotFacts shot) =>
        [
            .. new[] { 1.0, -1.0 }.Select(g => new CauseCase(
                0.5,
                g,
                [
                    new(Sign.Resistance, Math.Log((shot.Sheet.Bed.DoseGrams + g) / shot.Sheet.Bed.DoseGrams), 0.03),
                    new(Sign.Time, 0.07 * g, 0.04),
                    new(Sign.Drops, 0.8 * Math.Log((shot.Sheet.Bed.DoseGrams + g) / shot.Sheet.Bed.DoseGrams), 0.05),
                ]
            )),
        ];

    public override NextChange Change(ShotFacts shot, double size) =>
        new("Weigh the dose to 0.1 g, in the basket.", "Leave the grind alone.", "Resistance that matches the setting.");
}
