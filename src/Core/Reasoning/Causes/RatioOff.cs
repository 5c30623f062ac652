using RuddySpring.Core.Beans;

namespace RuddySpring.Core.Reasoning.Causes;

/// <summary>Dark roasts are drawn at 1:2 or less, light ones up to 1:3.</summary>
public sealed class RatioOff : Cause
{
    public override string Key => "ratio-off";

    public override string Name => "The ratio is far from what is usual for this roast";

    public override WorkingOrder Order => WorkingOrder.Ratio;

    public override Sign? Proof => null;

    private const double Tolerance = 0.35; // people draw a roast a little shorter or longer than their school says

    public override string? Known(ShotFacts shot) =>
        Beyond(shot) > 0
            ? FormattableString.Invariant(
                $"1 : {Ratio(shot):0.0} from a {shot.Roast} roast; about 1 : {Usual(shot):0.0} is usual"
            )
            : null;

    private static double Ratio(ShotFacts shot) => shot.Sheet.YieldGrams / shot.Sheet.Bed.DoseGrams;

    private static double Usual(ShotFacts shot) => RatioAdvice.Of(shot.Roast)[shot.School.Ratio].Ratio;

    private static bool Short(ShotFacts shot) => Ratio(shot) < Usual(shot);

    /// <summary>How far the ratio is outside of what schools draw this roast at; 0 inside.</summary>
    private static double Beyond(ShotFacts shot)
    {
        var schools = RatioAdvice.Of(shot.Roast);
        return Math.Max(
            0,
            Math.Max(
                schools[0].Ratio - 0.02 - Ratio(shot) + (shot.Roast == "dark" ? 0 : 0.1),
                Ratio(shot) - schools[2].Ratio - Tolerance
            )
        );
    }

    public override double Odds(ShotFacts shot) =>
        shot.Restricted ? 0
        : Beyond(shot) > 0 ? Math.Min(2.5, 0.3 + (4 * Beyond(shot)))
        : 0.002;

    public override IReadOnlyList<CauseCase> Cases(ShotFacts shot) =>
        One(
            new(Sign.Sour, Short(shot) ? 0.8 : -0.4, 0.6),
            new(Sign.Bitter, Short(shot) ? -0.4 : 0.6, 0.6),
            new(Sign.Body, Short(shot) ? 0.5 : -0.7, 0.6),
            new(Sign.Sweet, -0.8, 0.6),
            new(Sign.Time, Short(shot) ? -0.3 : 0.15, 0.15),
            new(Sign.Setting, Short(shot) ? -0.35 : 0.15, 0.2)
        );

    public override NextChange Change(ShotFacts shot, double size) =>
        new(
            FormattableString.Invariant(
                $"Draw it at about 1 : {Usual(shot):0.0}, {Usual(shot) * shot.Sheet.Bed.DoseGrams:0} g of this dose."
            ),
            "Leave the grind alone until the cup has its size.",
            Short(shot) ? "Less sour, less thick." : "More body, less bitter."
        );
}
