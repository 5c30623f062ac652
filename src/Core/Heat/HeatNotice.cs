using System.Globalization;

namespace RuddySpring.Core.Heat;

/// <summary>What events asked of a machine that it could not give, or what must not be.</summary>
public enum HeatNoticeKind
{
    /// <summary>More water or steam was taken than the boiler held.</summary>
    BoilerRunsDry,

    /// <summary>The element was on with less water than must cover it.</summary>
    ElementUncovered,

    /// <summary>More was filled in than there was room for.</summary>
    RefillDoesNotFit,

    /// <summary>Water came to the puck hotter than it boils here and gave off steam.</summary>
    WaterFlashes,
}

/// <summary>Something that does not add up, or must not be, in a machine's session.</summary>
/// <param name="AtSeconds">When, s since the session's start.</param>
/// <param name="Kind">What.</param>
/// <param name="Amount">Grams that were missing or too many; kelvin above boiling for water that flashes.</param>
public sealed record HeatNotice(double AtSeconds, HeatNoticeKind Kind, double Amount)
{
    /// <summary>What goes on with a gap shorter than this, s, is one thing.</summary>
    internal const double SameWithinSeconds = 120;

    /// <summary>Until when it went on, s since the session's start.</summary>
    internal double UntilSeconds { get; init; } = AtSeconds;

    /// <summary>In a sentence, with what to do.</summary>
    public string Sentence()
    {
        var minute = string.Create(CultureInfo.InvariantCulture, $"{Math.Floor(AtSeconds / 60):0} min");
        var grams = string.Create(CultureInfo.InvariantCulture, $"{Math.Max(1, Amount):0} g");
        return Kind switch
        {
            HeatNoticeKind.BoilerRunsDry =>
                $"At {minute}, {grams} more water was drawn than the boiler held. Switch off, let it cool and check the "
                    + "level; if it was refilled, tick that step off.",
            HeatNoticeKind.ElementUncovered =>
                $"At {minute}, the boiler was {grams} short of the water that must cover the element. Switch off and check "
                    + "the level; the machine's manual comes first.",
            HeatNoticeKind.RefillDoesNotFit =>
                $"At {minute}, {grams} more was filled in than the boiler has room for. Check the weight of the refill, or "
                    + "the boiler's volume on the machine's page.",
            _ => $"At {minute}, the water reached the puck {Quantity.Kelvin(Amount):0.0} above its boiling point here, so "
                + "part of it turned to steam. Let the group cool before the next pull.",
        };
    }
}
