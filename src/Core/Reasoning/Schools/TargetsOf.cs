using System.Globalization;

namespace RuddySpring.Core.Reasoning.Schools;

/// <summary>Targets that more than one school has.</summary>
internal static class TargetsOf
{
    private const double CupShare = 0.07;

    /// <summary>The time to the yield, in the band that the shot's plan has.</summary>
    public static SchoolTarget Time(ShotFacts shot)
    {
        var band = shot.Sheet.Plan.LandingSeconds;
        var was = shot.Reading?.Measures.SecondsFromLever;
        return new(
            "Time to the yield",
            FormattableString.Invariant($"{band.Low:0} to {band.High:0} s"),
            was is { } s ? FormattableString.Invariant($"{s:0} s") : null,
            was is { } t ? band.Holds(t) : null
        );
    }

    /// <summary>The cup against the yield.</summary>
    public static SchoolTarget Cup(ShotFacts shot)
    {
        var (wanted, was) = (shot.Sheet.YieldGrams, shot.Reading?.Measures.CupGrams);
        return new(
            "Cup",
            string.Create(CultureInfo.InvariantCulture, $"{wanted:0} g, 1 : {wanted / shot.Sheet.Bed.DoseGrams:0.0}"),
            was is { } g ? FormattableString.Invariant($"{g:0.0} g") : null,
            was is { } grams ? Math.Abs(grams - wanted) <= CupShare * wanted : null
        );
    }

    /// <summary>The peak of the pressure, at most so many bar.</summary>
    public static SchoolTarget PeakAtMost(ShotFacts shot, double bar)
    {
        var was = shot.Reading?.Measures.PeakBar;
        return new(
            "Peak pressure",
            FormattableString.Invariant($"at most {Quantity.Bar(bar):0.0}"),
            was is { } b ? FormattableString.Invariant($"{Quantity.Bar(b):0.0}") : null,
            was is { } peak ? peak <= bar : null
        );
    }
}
