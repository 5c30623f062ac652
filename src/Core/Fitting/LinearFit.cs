using MathNet.Numerics.Distributions;
using MathNet.Numerics.LinearAlgebra;

namespace RuddySpring.Core.Fitting;

/// <summary>One reading beside what the fit says, for the residual plot.</summary>
public sealed record FitPoint(double X, double Observed, double Fitted);

/// <summary>
/// Ordinary least squares, y = X b + e, with Student-t intervals (any statistics text; checked against a certified data set).
/// </summary>
/// <param name="Coefficients">b, as many as columns.</param>
/// <param name="StandardErrors">Of each coefficient.</param>
/// <param name="Fitted">X b, as many as rows.</param>
/// <param name="ResidualDeviation">Standard deviation of the residuals; 0 when there are no rows to spare.</param>
/// <param name="DegreesOfFreedom">Rows less columns.</param>
public sealed record LinearFit(
    IReadOnlyList<double> Coefficients,
    IReadOnlyList<double> StandardErrors,
    IReadOnlyList<double> Fitted,
    double ResidualDeviation,
    int DegreesOfFreedom
)
{
    /// <summary>Fits rows of columns to values; the rows must span the columns.</summary>
    /// <param name="rows">Rows, each as long as the others.</param>
    /// <param name="values">One value a row.</param>
    /// <param name="leastDeviation">What each value may be off however well they agree, as it was read off a scale.</param>
    /// <exception cref="DoesNotFitException">There are fewer rows than columns, or the columns cannot be told apart.</exception>
    public static LinearFit Of(IReadOnlyList<double[]> rows, IReadOnlyList<double> values, double leastDeviation = 0)
    {
        var columns = rows.Count == 0 ? 1 : rows[0].Length;
        if (rows.Count < columns)
            throw new DoesNotFitException("rows", $"At least {columns} readings are needed; there are {rows.Count}.");
        var x = Matrix<double>.Build.DenseOfRowArrays(rows);
        var y = Vector<double>.Build.DenseOfEnumerable(values);
        var qr = x.QR();
        for (var i = 0; i < columns; i++)
        {
            if (Math.Abs(qr.R[i, i]) < 1e-10 * Math.Max(1e-300, qr.R.InfinityNorm()))
                throw new DoesNotFitException(
                    "rows",
                    "The readings are too alike to tell the numbers apart; take some further from each other."
                );
        }

        var b = qr.Solve(y);
        var fitted = x * b;
        var free = rows.Count - columns;
        var deviation = free > 0 ? Math.Max(leastDeviation, Math.Sqrt((y - fitted).DotProduct(y - fitted) / free)) : 0;
        var inverse = qr.R.SubMatrix(0, columns, 0, columns).Inverse();
        var covariance = inverse * inverse.Transpose() * deviation * deviation;
        return new([.. b], [.. covariance.Diagonal().Select(v => Math.Sqrt(Math.Max(0, v)))], [.. fitted], deviation, free);
    }

    /// <summary>Half width of the 95 % interval of a coefficient; null when there is no reading to spare.</summary>
    public double? PlusMinus(int coefficient) =>
        DegreesOfFreedom > 0 ? StudentT.InvCDF(0, 1, DegreesOfFreedom, 0.975) * StandardErrors[coefficient] : null;
}
