using MathNet.Numerics.Distributions;
using MathNet.Numerics.LinearAlgebra;

namespace RuddySpring.Core.Fitting;

/// <summary>What is believed of a coefficient before any data.</summary>
/// <param name="Mean">Its mean.</param>
/// <param name="Deviation">Its standard deviation; infinite where nothing is known.</param>
public readonly record struct Belief(double Mean, double Deviation);

/// <summary>A prediction: a Student-t about a mean.</summary>
/// <param name="Mean">Best value.</param>
/// <param name="Scale">Scale of the t.</param>
/// <param name="DegreesOfFreedom">Its degrees of freedom.</param>
public readonly record struct Prediction(double Mean, double Scale, double DegreesOfFreedom)
{
    /// <summary>The middle of what it is the logarithm of.</summary>
    public double Median => Math.Exp(Mean);

    /// <summary>Chance that the value lies between two bounds, 0 to 1.</summary>
    public double Chance(double low, double high) =>
        StudentT.CDF(Mean, Scale, DegreesOfFreedom, high) - StudentT.CDF(Mean, Scale, DegreesOfFreedom, low);

    /// <summary>Value below which it lies with a chance between 0 and 1.</summary>
    public double Quantile(double chance) => StudentT.InvCDF(Mean, Scale, DegreesOfFreedom, chance);
}

/// <summary>
/// Bayesian linear regression in closed form: y = X b + e with a normal prior about b and an inverse-gamma prior about the noise
/// (the conjugate pair of any text on Bayesian statistics). With a flat prior it is ordinary least squares.
/// </summary>
public sealed class BayesianFit
{
    private readonly Vector<double> _mean;
    private readonly Matrix<double> _covariance;
    private readonly double _shape;
    private readonly double _rate;

    private BayesianFit(Vector<double> mean, Matrix<double> covariance, double shape, double rate, double logEvidence) =>
        (_mean, _covariance, _shape, _rate, LogEvidence) = (mean, covariance, shape, rate, logEvidence);

    /// <summary>
    /// Logarithm of the marginal likelihood of the values, but for what all fits of the same values and prior share: how well
    /// this model says them before it has seen them. Compare only fits whose columns have the same proper prior.
    /// </summary>
    public double LogEvidence { get; }

    /// <summary>Best value of each coefficient.</summary>
    public IReadOnlyList<double> Coefficients => [.. _mean];

    /// <summary>Noise as it is believed now, one standard deviation.</summary>
    public double NoiseDeviation => Math.Sqrt(_rate / _shape);

    /// <summary>Fits rows to values.</summary>
    /// <param name="prior">One belief a column.</param>
    /// <param name="noiseDeviation">Noise that is expected, one standard deviation, above 0.</param>
    /// <param name="noiseWeight">How many readings that expectation counts for; 0 for not at all.</param>
    /// <param name="rows">Rows, each with a number a column; may be none.</param>
    /// <param name="values">One value a row.</param>
    public static BayesianFit Of(
        IReadOnlyList<Belief> prior,
        double noiseDeviation,
        double noiseWeight,
        IReadOnlyList<double[]> rows,
        IReadOnlyList<double> values
    )
    {
        var n = prior.Count;
        var mean = Vector<double>.Build.Dense(n, i => prior[i].Mean);
        // beliefs are about the coefficients themselves; the conjugate form wants them in units of the noise
        var precision = Matrix<double>.Build.DenseDiagonal(n, n, i =>
            double.IsInfinity(prior[i].Deviation) ? 0 : Math.Pow(noiseDeviation / prior[i].Deviation, 2)
        );
        var right = precision * mean;
        var sum = mean.DotProduct(right);
        for (var r = 0; r < rows.Count; r++)
        {
            var row = Vector<double>.Build.DenseOfArray(rows[r]);
            precision += row.OuterProduct(row);
            right += row * values[r];
            sum += values[r] * values[r];
        }

        var factor = precision.Cholesky();
        var covariance = factor.Solve(Matrix<double>.Build.DenseIdentity(n));
        var posterior = covariance * right;
        var shape = Math.Max(1e-6, (noiseWeight + rows.Count - prior.Count(p => double.IsInfinity(p.Deviation))) / 2.0);
        var rate =
            (noiseWeight * noiseDeviation * noiseDeviation / 2.0)
            + Math.Max(0, (sum - posterior.DotProduct(precision * posterior)) / 2.0);
        var evidence = (-0.5 * factor.DeterminantLn) - (shape * Math.Log(Math.Max(1e-300, rate)));
        return new(posterior, covariance, shape, rate, evidence);
    }

    /// <summary>One standard deviation of a coefficient.</summary>
    public double Deviation(int coefficient) => Math.Sqrt(_rate / _shape * _covariance[coefficient, coefficient]);

    /// <summary>What a row predicts, its own noise included.</summary>
    public Prediction Predict(double[] row)
    {
        var x = Vector<double>.Build.DenseOfArray(row);
        return new(x.DotProduct(_mean), Math.Sqrt(_rate / _shape * (1.0 + x.DotProduct(_covariance * x))), 2.0 * _shape);
    }
}
