namespace RuddySpring.Core.Puck;

/// <summary>How a puck was prepared. People disagree on all of it; what all agree on is doing it the same each time.</summary>
/// <param name="Misted">A fine mist of water on the beans, against static.</param>
/// <param name="Stirred">Clumps stirred out with needles.</param>
/// <param name="Tapped">Settled by tapping.</param>
/// <param name="TampKgf">Tamp in kgf, 0 to 40; null where nobody weighed it.</param>
/// <param name="Cover">What lies on the puck.</param>
/// <param name="Bottomless">A bottomless holder instead of a spout.</param>
public sealed record Preparation(
    bool Misted = false,
    bool Stirred = false,
    bool Tapped = false,
    double? TampKgf = null,
    PuckCover Cover = PuckCover.Nothing,
    bool Bottomless = false
)
{
    public static readonly FieldRange Tamp = new("tampKgf", "Tamp", 0, 40, "kgf");

    /// <summary>Shots of a coffee after which it is no longer new (common practice).</summary>
    public const int ShotsUntilKnown = 3;

    /// <summary>Spread of the lanes, as a standard deviation of the logarithm of their permeability, of a puck of which nothing
    /// is noted.</summary>
    public const double UsualLaneSpread = 0.12;

    // a first calibration (common practice: clumps are the worst of it, then a tamp that is never the same)
    private const double LeftAsItFell = 0.20;
    private const double StirringEvens = 0.06;
    private const double TappingEvens = 0.01;
    private const double SameTampEvens = 0.015;
    private const double CoverEvens = 0.015;
    private const double MistingEvens = 0.01;

    /// <summary>Spread of the lanes of a puck prepared like this, 0.09 to 0.2: what is left out makes it less even.</summary>
    public double LaneSpread() =>
        LeftAsItFell
        - (Stirred ? StirringEvens : 0)
        - (Tapped ? TappingEvens : 0)
        - (TampKgf is not null ? SameTampEvens : 0)
        - (Cover != PuckCover.Nothing ? CoverEvens : 0)
        - (Misted ? MistingEvens : 0);

    /// <summary>The preparation with its number checked.</summary>
    /// <exception cref="FieldRangeException">The tamp is out of range.</exception>
    public Preparation Checked()
    {
        if (TampKgf is { } tamp)
            Tamp.Check(tamp);
        return this;
    }

    /// <summary>In a few words, e.g. "stirred, tapped, 4 kgf, metal screen, bottomless".</summary>
    public string InWords() =>
        string.Join(
            ", ",
            new[]
            {
                Misted ? "misted" : "",
                Stirred ? "stirred" : "",
                Tapped ? "tapped" : "",
                TampKgf is { } tamp ? FormattableString.Invariant($"tamped with {Quantity.Kgf(tamp):0.#}") : "",
                Cover switch
                {
                    PuckCover.Screen => "metal screen",
                    PuckCover.Paper => "paper disc",
                    _ => "",
                },
                Bottomless ? "bottomless" : "",
            }.Where(w => w.Length > 0)
        );

    /// <summary>Which holder to use with a coffee after so many shots of it (common practice).</summary>
    public static string HolderWord(int shotsOfThisCoffee, bool bottomless) =>
        (shotsOfThisCoffee < ShotsUntilKnown, bottomless) switch
        {
            (true, true) =>
                "This coffee is new here and may spurt: a spout saves the shirt, and hides a bad pour. Change back once it "
                    + "is dialled in.",
            (true, false) =>
                "A spout saves the shirt while this coffee is new; it also hides a channel. Bottomless shows everything.",
            (false, true) =>
                "Watch for an even cone, spurts, bald spots and pale streaks; a stream that only leans is no channel.",
            _ => "It is dialled in: a bottomless holder would now show how even the puck is.",
        };
}
