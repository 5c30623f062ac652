using MathNet.Numerics.Statistics;

namespace RuddySpring.Core.Trends;

/// <summary>Mean and sample standard deviation of a few numbers.</summary>
/// <param name="Mean">Arithmetic mean, in the numbers' unit.</param>
/// <param name="Spread">Sample standard deviation (divisor n - 1), in the numbers' unit.</param>
/// <param name="Count">Of how many.</param>
public sealed record MeanAndSpread(double Mean, double Spread, int Count)
{
    /// <summary>Fewest numbers of which a spread says something.</summary>
    public const int Fewest = 3;

    /// <summary>Of some numbers; null for fewer than <see cref="Fewest"/>.</summary>
    public static MeanAndSpread? Of(IReadOnlyList<double> numbers)
    {
        if (numbers.Count < Fewest)
            return null;
        var (mean, spread) = numbers.MeanStandardDeviation();
        return new(mean, spread, numbers.Count);
    }
}
