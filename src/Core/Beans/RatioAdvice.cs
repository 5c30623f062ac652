namespace RuddySpring.Core.Beans;

/// <summary>A ratio of dose to yield that a school pulls a roast at.</summary>
/// <param name="School">What it is called.</param>
/// <param name="Ratio">Yield over dose.</param>
/// <param name="Why">Why, in a few words.</param>
public sealed record RatioChoice(string School, double Ratio, string Why);

/// <summary>Ratios by roast and school (common practice): 1:2 is the middle, dark 1:2 or less, light up to 1:3, 1:1 for a short
/// strong cup.</summary>
public static class RatioAdvice
{
    /// <summary>Short, usual and long for a roast named light, medium or dark in the owner's words.</summary>
    public static IReadOnlyList<RatioChoice> Of(string roastLevel)
    {
        var roast = roastLevel.ToLowerInvariant();
        var (shortest, usual, longest) =
            roast.Contains("dark", StringComparison.Ordinal) ? (1.0, 1.8, 2.0)
            : roast.Contains("light", StringComparison.Ordinal) ? (1.5, 2.5, 3.0)
            : (1.2, 2.0, 2.5);
        return
        [
            new("short", shortest, "a short strong cup"),
            new("usual", usual, $"the middle for a {(roast.Length == 0 ? "medium" : roast)} roast"),
            new("long", longest, "more drawn out, thinner"),
        ];
    }
}
