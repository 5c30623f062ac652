using MathNet.Numerics.Distributions;
using RuddySpring.Core.Fitting;

namespace RuddySpring.Core.Trends;

/// <summary>A place on a trend line.</summary>
/// <param name="X">Where.</param>
/// <param name="Y">The line.</param>
/// <param name="Low">Lower end of the 95 % interval of the line itself.</param>
/// <param name="High">Upper end.</param>
public sealed record TrendPlace(double X, double Y, double Low, double High);

/// <summary>One quantity against another: a straight line by least squares with the 95 % interval of its slope and of the line
/// (Student's t; any statistics text).</summary>
/// <param name="Slope">Of y for one of x.</param>
/// <param name="SlopePlusMinus">Half width of its 95 % interval.</param>
/// <param name="Line">From the least x to the most.</param>
/// <param name="Count">Pairs.</param>
public sealed record TrendLine(double Slope, double SlopePlusMinus, IReadOnlyList<TrendPlace> Line, int Count)
{
    /// <summary>Fewest pairs that a line is drawn through.</summary>
    public const int Fewest = 5;
    private const int Places = 21;

    /// <summary>Whether the slope's sign is known.</summary>
    public bool IsTold => Math.Abs(Slope) > SlopePlusMinus;

    /// <summary>Through pairs; null where there are fewer than <see cref="Fewest"/> or x never changes.</summary>
    public static TrendLine? Of(IReadOnlyList<(double X, double Y)> pairs)
    {
        if (pairs.Count < Fewest)
            return null;
        var (least, most, mean) = (pairs.Min(p => p.X), pairs.Max(p => p.X), pairs.Average(p => p.X));
        var spread = pairs.Sum(p => (p.X - mean) * (p.X - mean));
        if (most - least <= 1e-9 * Math.Max(1, Math.Abs(mean)) || !double.IsFinite(spread))
            return null;
        // about the mean, so that far from zero nothing is lost
        var fit = LinearFit.Of([.. pairs.Select(p => new[] { 1, p.X - mean })], [.. pairs.Select(p => p.Y)]);
        var t = StudentT.InvCDF(0, 1, fit.DegreesOfFreedom, 0.975);
        return new(
            fit.Coefficients[1],
            fit.PlusMinus(1) ?? double.PositiveInfinity,
            [
                .. Enumerable
                    .Range(0, Places)
                    .Select(i =>
                    {
                        var x = least + ((most - least) * i / (Places - 1));
                        var y = fit.Coefficients[0] + (fit.Coefficients[1] * (x - mean));
                        var half =
                            t * fit.ResidualDeviation * Math.Sqrt((1.0 / pairs.Count) + ((x - mean) * (x - mean) / spread));
                        return new TrendPlace(x, y, y - half, y + half);
                    }),
            ],
            pairs.Count
        );
    }
}
