using MathNet.Numerics.Distributions;
using MathNet.Numerics.Statistics;

namespace RuddySpring.Core.Trends;

/// <summary>
/// Spearman's rank correlation, ties by their mean rank. The interval is Fisher's transform with the variance
/// (1 + rho^2 / 2) / (n - 3) of Bonett and Wright 2000 (Psychometrika 65); the probability that it is luck by Student's t, as is
/// usual for more than
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
        var rho = Correlation.Spearman(pairs.Select(p => p.X), pairs.Select(p => p.Y));
        if (!double.IsFinite(rho))
            return null; // one of the two never changes
        rho = Math.Clamp(rho, -1, 1);
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
}
