using MathNet.Numerics.Distributions;

namespace RuddySpring.Core.Trends;

/// <summary>
/// Spearman's rank correlation, ties by their mean rank. The interval is Fisher's transform with the variance
/// (1 + rho^2 / 2) / (n - 3) of Bonett and Wright 2000 (Psychometrika 65); the probability that it is luck by Student's t, as is usual for more than
/// ten pairs.
/// </summary>
/// <param name="Rho">-1 to 1.</param>
/// <param name="Low">Lower end of its 95 % interval.</param>
/// <param name="High">Upper end.</param>
/// <param name="Luck">Probability of one as strong, or stronger, where nothing goes with anything.</param>
/// <param name="Count">Pairs.</param>
public sealed record RankCorrelation(double Rho, double Low, double High, double Luck, int Count)
{
    /// <summary>Fewest pairs that say anything.</summary>
    public const int Fewest = 6;
    private const double Normal975 = 1.959963985;
    private const double Strongest = 0.999999;

    /// <summary>Of pairs; null where there are fewer than <see cref="Fewest"/>, or one of the two never changes.</summary>
    public static RankCorrelation? Of(IReadOnlyList<(double X, double Y)> pairs)
    {
        if (pairs.Count < Fewest)
            return null;
        var (x, y) = (Ranks([.. pairs.Select(p => p.X)]), Ranks([.. pairs.Select(p => p.Y)]));
        var (mx, my) = (x.Average(), y.Average());
        double xx = 0,
            yy = 0,
            xy = 0;
        for (var i = 0; i < x.Length; i++)
        {
            xx += (x[i] - mx) * (x[i] - mx);
            yy += (y[i] - my) * (y[i] - my);
            xy += (x[i] - mx) * (y[i] - my);
        }

        if (xx <= 0 || yy <= 0)
            return null;
        var rho = Math.Clamp(xy / Math.Sqrt(xx * yy), -1, 1);
        var held = Math.Clamp(rho, -Strongest, Strongest);
        var half = Normal975 * Math.Sqrt((1 + (held * held / 2)) / (pairs.Count - 3));
        var t = Math.Abs(held) * Math.Sqrt((pairs.Count - 2) / (1 - (held * held)));
        return new(
            rho,
            Math.Tanh(Math.Atanh(held) - half),
            Math.Tanh(Math.Atanh(held) + half),
            2 * StudentT.CDF(0, 1, pairs.Count - 2, -t),
            pairs.Count
        );
    }

    /// <summary>Ranks from 1, those that are alike with their mean rank.</summary>
    public static double[] Ranks(IReadOnlyList<double> values)
    {
        var order = Enumerable.Range(0, values.Count).OrderBy(i => values[i]).ToArray();
        var ranks = new double[values.Count];
        for (var from = 0; from < order.Length; )
        {
            var to = from;
            while (to + 1 < order.Length && values[order[to + 1]].Equals(values[order[from]]))
                to++;
            for (var k = from; k <= to; k++)
                ranks[order[k]] = ((from + to) / 2.0) + 1;
            from = to + 1;
        }

        return ranks;
    }
}
