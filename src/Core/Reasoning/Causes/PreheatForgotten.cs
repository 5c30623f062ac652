namespace RuddySpring.Core.Reasoning.Causes;

/// <summary>Cold metal takes the heat from the water: the shot is sour, and thicker water runs slower.</summary>
public sealed class PreheatForgotten : Cause
{
    public override string Key => "preheat-forgotten";

    public override string Name => "The preheat was forgotten, or cut short";

    public override WorkingOrder Order => WorkingOrder.Forgotten;

    public override Sign? Proof => Sign.Resistance;

    public override string? Known(ShotFacts shot) => Unticked(shot, DoneBefore.Preheated, "the preheat");

    public override string? Caution => "Boiling water and hot metal: pour slowly and hold the insulated parts.";

    public override double Odds(ShotFacts shot) => shot.Sheet.Machine.HasBoiler ? 0 : Forgotten(shot, DoneBefore.Preheated, 0.06);

    public override IReadOnlyList<CauseCase> Cases(ShotFacts shot) =>
        [
            .. new[] { -9.0, -14, -19 }.Select(k => new CauseCase(
                1 / 3.0,
                k,
                [
                    new(Sign.Water, k, 4),
                    new(Sign.Time, 0.06, 0.08),
                    new(Sign.Resistance, Thicker(shot, k), 0.04),
                    new(Sign.Sour, -0.1 * k, 0.5),
                    new(Sign.Bitter, 0.1 * k, 0.5),
                    new(Sign.Sweet, 0.04 * k, 0.4),
                ]
            )),
        ];

    public override NextChange Change(ShotFacts shot, double size) =>
        new(
            "Preheat the way you usually do, and tick it.",
            "Leave the grind alone: cold water runs slower.",
            "Less sour, and resistance that matches the setting."
        );
}
