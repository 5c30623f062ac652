using MathNet.Numerics.LinearAlgebra;

namespace RuddySpring.Core.Shots;

/// <summary>
/// How far a scale may be from what the right puck of this core's model would show. A weighing has an error of its own; what no
/// model of a puck knows is an error of the flow, which adds up in the cup while coffee runs and stops with it (a random walk in
/// the weight: Jazwinski 1970, Stochastic processes and filtering theory). So the rise after first drops and the tail after
/// letting go tell much, and the end of the cup little.
/// </summary>
/// <param name="Grams">Standard deviation of a weighing's own error, g, above 0.</param>
/// <param name="WalkGrams">Standard deviation of what has added up after 1 g in the cup, g; it grows with the root of the
/// weight.</param>
public readonly record struct WeighingNoise(double Grams, double WalkGrams = 0)
{
    /// <summary>Inverse of the covariance of weighings in the order of time, 1/g2, n by n.</summary>
    public Matrix<double> Precision(IReadOnlyList<(double Seconds, double Grams)> weights)
    {
        var own = Grams * Grams;
        var n = weights.Count;
        if (WalkGrams == 0)
            return Matrix<double>.Build.Diagonal(n, n, 1 / own);
        var walked = new double[n];
        var most = 0.0;
        for (var i = 0; i < n; i++)
            walked[i] = WalkGrams * WalkGrams * (most = Math.Max(most, weights[i].Grams));
        return Matrix<double>.Build.Dense(n, n, (i, j) => walked[Math.Min(i, j)] + (i == j ? own : 0)).Inverse();
    }
}
