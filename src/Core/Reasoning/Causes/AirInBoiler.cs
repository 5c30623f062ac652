namespace RuddySpring.Core.Reasoning.Causes;

/// <summary>Trapped air holds the gauge up while the water is far cooler than it says.</summary>
public sealed class AirInBoiler : Cause
{
    public override string Key => "air-in-boiler";

    public override string Name => "Air was left in the boiler";

    public override WorkingOrder Order => WorkingOrder.Forgotten;

    public override Sign? Proof => Sign.Resistance;

    public override string? Known(ShotFacts shot) => Unticked(shot, DoneBefore.Bled, "bleeding the boiler");

    public override string? Caution => "Steam burns: point the wand away and keep hands off it.";

    public override double Odds(ShotFacts shot) => shot.Sheet.Machine.HasBoiler ? Forgotten(shot, DoneBefore.Bled, 0.05) : 0;

    public override IReadOnlyList<CauseCase> Cases(ShotFacts shot) =>
        [
            .. new[] { -10.0, -17 }.Select(k => new CauseCase(
                0.5,
                k,
                [
                    new(Sign.Water, k, 4),
                    new(Sign.Resistance, Thicker(shot, k), 0.04),
                    new(Sign.Sour, -0.1 * k, 0.5),
                    new(Sign.Bitter, 0.1 * k, 0.5),
                    new(Sign.Sweet, 0.04 * k, 0.4),
                ]
            )),
        ];

    public override NextChange Change(ShotFacts shot, double size) =>
        new(
            "At first pressure open the steam valve for 10 to 15 s until the steam is steady, then let the boiler recover.",
            "Leave the grind alone: the gauge was right about the pressure and wrong about the heat.",
            "Less sour, at the same pressure on the gauge."
        );
}
