namespace RuddySpring.Core.Reasoning;

/// <summary>What a ladder goes by.</summary>
public enum LadderOf
{
    /// <summary>Water, degC.</summary>
    Temperature,

    /// <summary>Yield over dose.</summary>
    Ratio,

    /// <summary>Days from roast.</summary>
    Rest,

    /// <summary>The grinder's setting.</summary>
    Grind,
}

/// <summary>
/// One coffee in several cups that differ in one thing, in an order that the taster does not know. Whoever puts them in order by
/// taste better than luck would tastes the difference; whoever does not need not fuss over it.
/// </summary>
/// <param name="Of">What differs.</param>
/// <param name="Rungs">Its values, rising, evenly spaced.</param>
/// <param name="Order">Which rung each cup gets, in the order in which they are made.</param>
public sealed record BlindLadder(LadderOf Of, IReadOnlyList<double> Rungs, IReadOnlyList<int> Order)
{
    public static readonly FieldRange Cups = new("cups", "Number of cups", 3, 6, "");

    /// <summary>Range of what a ladder goes by.</summary>
    public static FieldRange Range(LadderOf of, string field) =>
        of switch
        {
            LadderOf.Temperature => new(field, "Temperature", 60, 100, "degC"),
            LadderOf.Ratio => new(field, "Ratio", 0.8, 4, ""),
            LadderOf.Rest => new(field, "Days from roast", 0, 120, "days"),
            _ => new(field, "Setting", -1000, 10000, ""),
        };

    /// <summary>Plans one.</summary>
    /// <param name="of">What differs.</param>
    /// <param name="from">Its first value.</param>
    /// <param name="to">Its last one.</param>
    /// <param name="cups">How many, 3 to 6: fewer prove nothing, more tire the tongue.</param>
    /// <param name="random">Shuffles.</param>
    /// <exception cref="FieldRangeException">A number is out of range.</exception>
    /// <exception cref="DoesNotFitException">Both ends are the same.</exception>
    public static BlindLadder Plan(LadderOf of, double from, double to, int cups, SeededRandom random)
    {
        Cups.Check(cups);
        var (low, high) = (Math.Min(Range(of, "from").Check(from), to), Math.Max(from, Range(of, "to").Check(to)));
        if (high - low < 1e-6)
            throw new DoesNotFitException("to", "Both ends of the ladder are the same; there is nothing to taste.");
        var order = Enumerable.Range(0, cups).ToArray();
        for (var i = cups - 1; i > 0; i--)
        {
            var j = random.Below(i + 1);
            (order[i], order[j]) = (order[j], order[i]);
        }

        return new(of, [.. Enumerable.Range(0, cups).Select(i => Math.Round(low + ((high - low) * i / (cups - 1)), 2))], order);
    }

    /// <summary>Name of a cup: A, B, C.</summary>
    public static string Letter(int cup) => ((char)('A' + cup)).ToString();

    /// <summary>What lies at its low end and at its high one, in words.</summary>
    public static (string Low, string High) Ends(LadderOf of) =>
        of switch
        {
            LadderOf.Temperature => ("coolest", "hottest"),
            LadderOf.Ratio => ("shortest", "longest"),
            LadderOf.Rest => ("freshest", "oldest"),
            _ => ("lowest setting", "highest setting"),
        };
}

/// <summary>How well cups were put in order.</summary>
/// <param name="Right">Pairs that stand in the right order.</param>
/// <param name="Pairs">Of how many.</param>
/// <param name="Luck">Chance that an order drawn by lot has as many right, 0 to 1: exact, over all orders.</param>
/// <param name="Sentence">In plain words.</param>
public sealed record LadderScore(int Right, int Pairs, double Luck, string Sentence)
{
    private const double HardlyLuck = 0.06;
    private const double MaybeLuck = 0.2;

    /// <summary>Scores an order.</summary>
    /// <param name="ladder">The ladder.</param>
    /// <param name="places">Where the taster put each cup, 0 for the low end; each place once.</param>
    /// <exception cref="DoesNotFitException">A place is taken twice, or a cup has none.</exception>
    public static LadderScore Of(BlindLadder ladder, IReadOnlyList<int> places)
    {
        var n = ladder.Order.Count;
        if (places.Count != n || !places.Order().SequenceEqual(Enumerable.Range(0, n)))
            throw new DoesNotFitException("places", "Give each cup its own place.");
        var right = Concordant(ladder.Order, places);
        var pairs = n * (n - 1) / 2;
        var orders = Orders([.. Enumerable.Range(0, n)]).Select(o => Concordant(ladder.Order, o)).ToList();
        var luck = orders.Count(r => r >= right) / (double)orders.Count;
        var verdict =
            luck <= HardlyLuck ? "That is hardly luck: the difference can be tasted."
            : luck <= MaybeLuck ? "That may be more than luck; another ladder would tell."
            : "That is no better than luck: nothing here says that the difference can be tasted.";
        return new(
            right,
            pairs,
            luck,
            FormattableString.Invariant(
                $"{right} of {pairs} pairs are in the right order. By chance that happens {luck * 100:0} times in 100. {verdict}"
            )
        );
    }

    private static int Concordant(IReadOnlyList<int> a, IReadOnlyList<int> b)
    {
        var count = 0;
        for (var i = 0; i < a.Count; i++)
        {
            for (var j = i + 1; j < a.Count; j++)
                count += (a[i] - a[j]) * (b[i] - b[j]) > 0 ? 1 : 0;
        }

        return count;
    }

    private static IEnumerable<int[]> Orders(int[] left) =>
        left.Length <= 1
            ? [left]
            : left.SelectMany((first, i) => Orders([.. left[..i], .. left[(i + 1)..]]).Select(r => (int[])[first, .. r]));
}
