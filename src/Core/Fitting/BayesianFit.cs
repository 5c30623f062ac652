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
    ) => new Design(prior, noiseDeviation, noiseWeight, rows, [.. rows.Select(_ => 1.0)]).Fit(values);

    /// <summary>
    /// What all fits of the same rows share, whatever the values are: the precision and its inverse are worked out once.
    /// </summary>
    public sealed class Design
    {
        private readonly IReadOnlyList<double[]> _rows;
        private readonly IReadOnlyList<double> _weights;
        private readonly Matrix<double> _precision;
        private readonly Matrix<double> _covariance;
        private readonly double[] _priorRight;
        private readonly double _priorSum;
        private readonly double _halfLogDeterminant;
        private readonly double _shape;
        private readonly double _priorRate;

        /// <param name="prior">One belief a column.</param>
        /// <param name="noiseDeviation">Noise that is expected, one standard deviation, above 0.</param>
        /// <param name="noiseWeight">How many readings that expectation counts for; 0 for not at all.</param>
        /// <param name="rows">Rows, each with a number a column; may be none.</param>
        /// <param name="weights">How much each row counts, above 0: the inverse of its variance over the noise's.</param>
        public Design(
            IReadOnlyList<Belief> prior,
            double noiseDeviation,
            double noiseWeight,
            IReadOnlyList<double[]> rows,
            IReadOnlyList<double> weights
        )
        {
            (_rows, _weights) = (rows, weights);
            var n = prior.Count;
            // beliefs are about the coefficients themselves; the conjugate form wants them in units of the noise
            var precision = new double[n, n];
            _priorRight = new double[n];
            for (var i = 0; i < n; i++)
            {
                precision[i, i] = double.IsInfinity(prior[i].Deviation) ? 0 : Math.Pow(noiseDeviation / prior[i].Deviation, 2);
                _priorRight[i] = precision[i, i] * prior[i].Mean;
                _priorSum += _priorRight[i] * prior[i].Mean;
            }

            for (var r = 0; r < rows.Count; r++)
            for (var i = 0; i < n; i++)
            for (var j = 0; j < n; j++)
                precision[i, j] += weights[r] * rows[r][i] * rows[r][j];

            _precision = Matrix<double>.Build.DenseOfArray(precision);
            var factor = _precision.Cholesky();
            _covariance = factor.Solve(Matrix<double>.Build.DenseIdentity(n));
            _halfLogDeterminant = 0.5 * factor.DeterminantLn;
            _shape = Math.Max(1e-6, (noiseWeight + rows.Count - prior.Count(p => double.IsInfinity(p.Deviation))) / 2.0);
            _priorRate = noiseWeight * noiseDeviation * noiseDeviation / 2.0;
        }

        /// <summary>Fits the rows to values, one a row.</summary>
        public BayesianFit Fit(IReadOnlyList<double> values)
        {
            var right = (double[])_priorRight.Clone();
            var sum = _priorSum;
            for (var r = 0; r < _rows.Count; r++)
            {
                var weighted = _weights[r] * values[r];
                for (var i = 0; i < right.Length; i++)
                    right[i] += _rows[r][i] * weighted;
                sum += values[r] * weighted;
            }

            var posterior = _covariance * Vector<double>.Build.Dense(right);
            var rate = _priorRate + Math.Max(0, (sum - posterior.DotProduct(_precision * posterior)) / 2.0);
            var evidence = -_halfLogDeterminant - (_shape * Math.Log(Math.Max(1e-300, rate)));
            return new(posterior, _covariance, _shape, rate, evidence);
        }
    }

    /// <summary>One standard deviation of a coefficient.</summary>
    public double Deviation(int coefficient) => Math.Sqrt(_rate / _shape * _covariance[coefficient, coefficient]);

    /// <summary>The mean of what a row predicts.</summary>
    public double Mean(double[] row)
    {
        var mean = 0.0;
        for (var i = 0; i < row.Length; i++)
            mean += row[i] * _mean[i];
        return mean;
    }

    /// <summary>What a row predicts, its own noise included.</summary>
    public Prediction Predict(double[] row)
    {
        var x = Vector<double>.Build.DenseOfArray(row);
        return new(x.DotProduct(_mean), Math.Sqrt(_rate / _shape * (1.0 + x.DotProduct(_covariance * x))), 2.0 * _shape);
    }
}
