namespace RuddySpring.Core.Trends;

/// <summary>A quantity that goes with liking, or may.</summary>
/// <param name="Key">Of the quantity.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Correlation">With liking, by ranks.</param>
/// <param name="IsTold">Whether it is more than luck would give among so many that were looked at.</param>
/// <param name="MovedWith">Names of what moved together with it: which of them it is cannot be told.</param>
public sealed record LikedWith(
    string Key,
    string Name,
    RankCorrelation Correlation,
    bool IsTold,
    IReadOnlyList<string> MovedWith
);

/// <summary>
/// What goes with somebody's liking: Spearman's correlation of each quantity with the marks, with the false discoveries among
/// them held to one in ten (Benjamini and Hochberg 1995, J. R. Statist. Soc. B 57), and a word where two quantities moved
/// together. It is what went together, not what caused it.
/// </summary>
/// <param name="With">Strongest first.</param>
/// <param name="Tasted">Shots with a mark.</param>
/// <param name="Warning">Why this is to be read with care; null where nothing speaks against it.</param>
public sealed record Liked(IReadOnlyList<LikedWith> With, int Tasted, string? Warning)
{
    private const double FalseDiscoveries = 0.1;
    private const double Together = 0.7;
    private const int Thin = 20;

    /// <summary>Of the shots of one person.</summary>
    public static Liked Of(IReadOnlyList<TrendShot> shots)
    {
        var tasted = shots.Where(s => s.Taste.Liking is not null).ToList();
        var found = TrendQuantity
            .All.Where(q => !q.Tasted)
            .Select(q => (Quantity: q, Correlation: RankCorrelation.Of(Pairs(tasted, q.Of, s => s.Taste.Liking))))
            .Where(f => f.Correlation is not null)
            .Select(f => (f.Quantity, Correlation: f.Correlation!))
            .OrderBy(f => f.Correlation.Luck)
            .ToList();
        var told = Told([.. found.Select(f => f.Correlation.Luck)], FalseDiscoveries);
        var with = found
            .Select(
                (f, i) =>
                    new LikedWith(
                        f.Quantity.Key,
                        f.Quantity.Name,
                        f.Correlation,
                        i < told,
                        i < told ? MovedWith(tasted, f.Quantity, [.. found.Select(o => o.Quantity)]) : []
                    )
            )
            .OrderByDescending(l => Math.Abs(l.Correlation.Rho))
            .ToList();
        return new(with, tasted.Count, Doubt(tasted.Count));
    }

    /// <summary>What to think of so few shots; null where there are enough.</summary>
    private static string? Doubt(int tasted) =>
        tasted switch
        {
            0 => "No shot has been tasted yet.",
            1 => FormattableString.Invariant($"Only 1 tasted shot: with fewer than {Thin} most of this is luck."),
            < Thin => FormattableString.Invariant($"Only {tasted} tasted shots: with fewer than {Thin} most of this is luck."),
            _ => null,
        };

    /// <summary>How many of some findings are told, with the false ones among them held to a rate: the largest rank whose
    /// probability of luck is under its share of the rate, and all before it.</summary>
    /// <param name="luck">Probabilities, smallest first.</param>
    /// <param name="rate">0 to 1.</param>
    public static int Told(IReadOnlyList<double> luck, double rate)
    {
        for (var i = luck.Count; i > 0; i--)
        {
            if (luck[i - 1] <= rate * i / luck.Count)
                return i;
        }

        return 0;
    }

    private static List<string> MovedWith(
        IReadOnlyList<TrendShot> shots,
        TrendQuantity quantity,
        IReadOnlyList<TrendQuantity> others
    ) =>
        [
            .. others
                .Where(o =>
                    o != quantity && RankCorrelation.Of(Pairs(shots, quantity.Of, o.Of)) is { } c && Math.Abs(c.Rho) > Together
                )
                .Select(o => o.Name),
        ];

    private static List<(double X, double Y)> Pairs(
        IEnumerable<TrendShot> shots,
        Func<TrendShot, double?> x,
        Func<TrendShot, double?> y
    ) => [.. shots.Where(s => x(s) is not null && y(s) is not null).Select(s => (x(s)!.Value, y(s)!.Value))];
}
