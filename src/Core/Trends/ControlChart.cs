namespace RuddySpring.Core.Trends;

/// <summary>Why a point of a control chart stands out.</summary>
public enum OutOfControl
{
    /// <summary>It does not.</summary>
    No,

    /// <summary>It lies beyond a limit.</summary>
    BeyondLimit,

    /// <summary>It ends a run of eight or more on one side of the mean.</summary>
    LongRun,
}

/// <summary>A point of a control chart.</summary>
/// <param name="Value">As it was measured.</param>
/// <param name="Why">Whether it stands out.</param>
public sealed record ControlPoint(double Value, OutOfControl Why);

/// <summary>
/// Individuals and moving ranges (Shewhart; ISO 7870-2): limits at the mean and 3 / d2(2) = 2.66 mean moving ranges, d2(2) =
/// 1.128. A run of eight on one side stands out too (ISO 7870-2, a shift of the mean).
/// </summary>
/// <param name="Mean">Of all values.</param>
/// <param name="MeanMovingRange">Mean of the differences from one to the next.</param>
/// <param name="Low">Lower limit.</param>
/// <param name="High">Upper limit.</param>
/// <param name="Points">In their order.</param>
public sealed record ControlChart(
    double Mean,
    double MeanMovingRange,
    double Low,
    double High,
    IReadOnlyList<ControlPoint> Points
)
{
    /// <summary>Fewest values that limits are worth anything for.</summary>
    public const int Fewest = 8;

    /// <summary>Mean of the range of two values of a normal distribution, in standard deviations.</summary>
    public const double D2 = 1.128;
    private const double Deviations = 3;
    private const int LongestRun = 7;

    /// <summary>Of values in the order of time; null where there are fewer than <see cref="Fewest"/>.</summary>
    public static ControlChart? Of(IReadOnlyList<double> values)
    {
        if (values.Count < Fewest)
            return null;
        var mean = values.Average();
        var range = values.Zip(values.Skip(1), (a, b) => Math.Abs(b - a)).Average();
        var half = Deviations / D2 * range;
        var (low, high) = (mean - half, mean + half);
        var points = new List<ControlPoint>(values.Count);
        var run = 0;
        foreach (var value in values)
        {
            var side = Math.Sign(value - mean);
            run =
                side == 0 ? 0
                : side == Math.Sign(run) ? run + side
                : side;
            points.Add(
                new(
                    value,
                    value < low || value > high ? OutOfControl.BeyondLimit
                        : Math.Abs(run) > LongestRun ? OutOfControl.LongRun
                        : OutOfControl.No
                )
            );
        }

        return new(mean, range, low, high, points);
    }
}
