using RuddySpring.Core.Care;

namespace RuddySpring.Core.Reasoning.Causes;

/// <summary>Too low a boiler is too cool a boiler; just over 1 bar is normal.</summary>
public sealed class BoilerLow : Cause
{
    public override string Key => "boiler-low";

    public override string Name => "The boiler pressure was low";

    public override WorkingOrder Order => WorkingOrder.Heat;

    public override Sign? Proof => Sign.Boiler;

    public override string? Caution =>
        "If it never gets there, its pressurestat is a matter for a licensed technician: unplug it.";

    public override double Odds(ShotFacts shot) =>
        shot.Sheet.Machine.HasBoiler ? 0.04 * shot.Care.Likelier(CareList.Boiler, WearKind.BoilerStandsLow) : 0;

    public override string? Known(ShotFacts shot) =>
        shot.Care.Wear.Contains(WearKind.BoilerStandsLow) ? "the boiler stood low in the last sessions too" : null;

    public override IReadOnlyList<CauseCase> Cases(ShotFacts shot) =>
        One(
            new(Sign.Water, -8, 3),
            new(Sign.Boiler, -0.5, 0.12),
            new(Sign.Sour, 0.7, 0.5),
            new(Sign.Bitter, -0.7, 0.5),
            new(Sign.Resistance, Thicker(shot, -8), 0.04),
            new(Sign.Drops, 0.06, 0.1)
        );

    public override NextChange Change(ShotFacts shot, double size) =>
        new(
            "Pull when the boiler stands at its usual pressure, as the element has just gone off.",
            "Leave the grind alone.",
            "The boiler at its usual pressure at lever-up, and less sour."
        );
}
