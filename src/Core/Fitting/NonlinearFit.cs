using MathNet.Numerics.LinearAlgebra;
using MathNet.Numerics.Optimization;

namespace RuddySpring.Core.Fitting;

/// <summary>Result of a nonlinear least-squares fit.</summary>
/// <param name="Parameters">Best values.</param>
/// <param name="Covariance">(J'J)^-1 of the standardised residuals: absolute when they are in units of their own
/// deviation.</param>
/// <param name="Residuals">Standardised residuals at the best values.</param>
/// <param name="Converged">Whether it came to rest within its iterations.</param>
public sealed record NonlinearFit(double[] Parameters, double[,] Covariance, double[] Residuals, bool Converged)
{
    private const double RelativeStep = 1e-4;
    private const double UsualStep = 1e-7;
    private const double UsualTolerance = 1e-15;
    private const int MostIterations = 60;

    /// <summary>Standard error of a parameter.</summary>
    public double StandardError(int parameter) => Math.Sqrt(Math.Max(0, Covariance[parameter, parameter]));

    /// <summary>Levenberg and Marquardt's method, from a general library, over residuals that the caller has divided by their
    /// deviation.</summary>
    /// <param name="residuals">Residuals at given parameters; always as many.</param>
    /// <param name="start">Where to begin.</param>
    /// <param name="leastStep">Least step of the differences that stand for the slopes; more where the residuals are worked out
    /// less exactly.</param>
    /// <param name="tolerance">Share by which the sum of squares, or the parameters, may still change when it stops.</param>
    public static NonlinearFit Of(
        Func<double[], double[]> residuals,
        double[] start,
        double leastStep = UsualStep,
        double tolerance = UsualTolerance
    )
    {
        var count = residuals(start).Length;
        var x = Vector<double>.Build.Dense(count, i => i);
        var zero = Vector<double>.Build.Dense(count);
        Vector<double> Model(Vector<double> p, Vector<double> _) => Vector<double>.Build.DenseOfArray(residuals([.. p]));
        Matrix<double> Slope(Vector<double> p, Vector<double> _) => Jacobian(residuals, [.. p], count, leastStep);
        var objective = ObjectiveFunction.NonlinearModel(Model, Slope, x, zero);
        var result = new LevenbergMarquardtMinimizer(
            gradientTolerance: tolerance,
            stepTolerance: tolerance,
            functionTolerance: tolerance,
            maximumIterations: MostIterations
        ).FindMinimum(objective, Vector<double>.Build.DenseOfArray(start));
        var best = result.MinimizingPoint.ToArray();
        var j = Jacobian(residuals, best, count, leastStep);
        var covariance = (j.TransposeThisAndMultiply(j)).PseudoInverse();
        return new(best, covariance.ToArray(), residuals(best), result.ReasonForExit is not ExitCondition.ExceedIterations);
    }

    private static Matrix<double> Jacobian(Func<double[], double[]> residuals, double[] p, int count, double leastStep)
    {
        var j = Matrix<double>.Build.Dense(count, p.Length);
        for (var k = 0; k < p.Length; k++)
        {
            var step = Math.Max(RelativeStep * Math.Abs(p[k]), leastStep);
            var (up, down) = ((double[])p.Clone(), (double[])p.Clone());
            up[k] += step;
            down[k] -= step;
            var (above, below) = (residuals(up), residuals(down));
            for (var i = 0; i < count; i++)
                j[i, k] = (above[i] - below[i]) / (2.0 * step);
        }

        return j;
    }
}
