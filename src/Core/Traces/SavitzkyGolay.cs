namespace RuddySpring.Core.Traces;

/// <summary>
/// Least-squares polynomial smoothing and its derivative on equally spaced samples (Savitzky and Golay, Analytical Chemistry 36,
/// 1964).
/// </summary>
public static class SavitzkyGolay
{
    /// <summary>
    /// Weights over a window of 2m+1 samples for the value (order 0) or a derivative at its centre, per step to the order.
    /// </summary>
    /// <param name="halfWidth">m, 1 to 200.</param>
    /// <param name="degree">Degree of the polynomial, at most 2m.</param>
    /// <param name="derivative">0 for smoothing, 1 for the first derivative.</param>
    /// <returns>2m+1 weights.</returns>
    public static double[] Weights(int halfWidth, int degree, int derivative) => Weights(halfWidth, degree, derivative, 0);

    /// <summary>The same, at an offset of samples from the centre: used at the ends of a record.</summary>
    public static double[] Weights(int halfWidth, int degree, int derivative, int offset)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(halfWidth, 1);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(degree, 2 * halfWidth);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(derivative, degree);
        var size = (2 * halfWidth) + 1;
        var terms = degree + 1;

        // normal equations (V'V) c = basis at the offset; the matrix is tiny and well scaled on -1..1
        var normal = new double[terms, terms + 1];
        for (var i = -halfWidth; i <= halfWidth; i++)
        {
            var x = (double)i / halfWidth;
            for (var r = 0; r < terms; r++)
            {
                for (var c = 0; c < terms; c++)
                    normal[r, c] += Math.Pow(x, r + c);
            }
        }

        var at = (double)offset / halfWidth;
        for (var r = derivative; r < terms; r++)
        {
            var factor = 1.0;
            for (var k = 0; k < derivative; k++)
                factor *= r - k;
            normal[r, terms] = factor * Math.Pow(at, r - derivative) / Math.Pow(halfWidth, derivative);
        }

        var solution = Solve(normal, terms);
        var weights = new double[size];
        for (var i = -halfWidth; i <= halfWidth; i++)
        {
            var x = (double)i / halfWidth;
            for (var r = 0; r < terms; r++)
                weights[i + halfWidth] += solution[r] * Math.Pow(x, r);
        }

        return weights;
    }

    /// <summary>Filters equally spaced values; the ends use the same polynomial off its centre. Returns as many values.</summary>
    /// <param name="values">Values, any length; shorter than the window are returned smoothed over what there is.</param>
    /// <param name="stepSeconds">Spacing in s.</param>
    public static double[] Filter(IReadOnlyList<double> values, int halfWidth, int degree, int derivative, double stepSeconds)
    {
        var half = Math.Min(halfWidth, (values.Count - 1) / 2);
        if (half < 1)
            return derivative == 0 ? [.. values] : new double[values.Count];
        var order = Math.Min(degree, 2 * half);
        var centre = Weights(half, order, derivative);
        var scale = Math.Pow(stepSeconds, derivative);
        var result = new double[values.Count];
        for (var i = 0; i < values.Count; i++)
        {
            var middle = Math.Clamp(i, half, values.Count - 1 - half);
            var weights = middle == i ? centre : Weights(half, order, derivative, i - middle);
            var sum = 0.0;
            for (var k = -half; k <= half; k++)
                sum += weights[k + half] * values[middle + k];
            result[i] = sum / scale;
        }

        return result;
    }

    private static double[] Solve(double[,] m, int n)
    {
        for (var column = 0; column < n; column++)
        {
            var pivot = column;
            for (var r = column + 1; r < n; r++)
            {
                if (Math.Abs(m[r, column]) > Math.Abs(m[pivot, column]))
                    pivot = r;
            }

            for (var c = 0; c <= n; c++)
                (m[column, c], m[pivot, c]) = (m[pivot, c], m[column, c]);
            for (var r = 0; r < n; r++)
            {
                if (r == column)
                    continue;
                var f = m[r, column] / m[column, column];
                for (var c = column; c <= n; c++)
                    m[r, c] -= f * m[column, c];
            }
        }

        return [.. Enumerable.Range(0, n).Select(i => m[i, n] / m[i, i])];
    }
}
