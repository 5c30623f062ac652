using System.Globalization;

namespace RuddySpring.Core.Dialing;

/// <summary>A change that lands a shot, in words.</summary>
public static class LandingWords
{
    /// <summary>One sentence for each part.</summary>
    /// <param name="change">The change.</param>
    /// <param name="shot">The shot as it is.</param>
    /// <param name="scaleUnit">What the grinder's scale counts in.</param>
    public static string Of(LandingChange change, ShotToLand shot, string scaleUnit) =>
        string.Join(
            " ",
            change.Parts.Select(p =>
                p.Of switch
                {
                    ChangeOf.Dose => FormattableString.Invariant($"Dose {p.Value:0.0} g instead of {shot.DoseGrams:0.0} g."),
                    ChangeOf.Yield => FormattableString.Invariant(
                        $"{p.Value:0.0} g in the cup instead of {shot.YieldGrams:0.0} g."
                    ),
                    ChangeOf.Grind => FormattableString.Invariant(
                        $"Grind at {p.Value:0.##} instead of {shot.Setting:0.##} {scaleUnit}."
                    ),
                    ChangeOf.Water => FormattableString.Invariant(
                        $"Water at {Quantity.Celsius(p.Value):0.0} instead of {Quantity.Celsius(shot.Shot.Water.StartC()):0.0}."
                    ),
                    ChangeOf.Plan => $"Pull it by the plan {p.Plan!.Name}.",
                    ChangeOf.Time => "Leave everything and take the time as it comes.",
                    _ => string.Create(
                        CultureInfo.InvariantCulture,
                        $"Press {Math.Abs(p.Value - 1) * 100:0} % {(p.Value > 1 ? "harder" : "softer")} all the way: peak "
                            + $"{Quantity.Bar(shot.Shot.Plan.PeakBar * p.Value):0.0}."
                    ),
                }
            )
        );
}
