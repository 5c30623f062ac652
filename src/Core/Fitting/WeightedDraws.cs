using MathNet.Numerics;
using MathNet.Numerics.LinearAlgebra;

namespace RuddySpring.Core.Fitting;

/// <summary>
/// Draws of what a fit leaves open, each with its weight: adaptive multiple importance sampling (Cornuet, Marin, Mira and Robert
/// 2012). The first draws come from Student t about the fitted values, one as wide as the fit's covariance and one with the data
/// counted for a quarter; each further round draws about what all rounds before it found, and every draw is weighed against all
/// of them together. Where the covariance alone would mislead, at the edge of a range that tells nothing, the draws do not.
/// </summary>
/// <param name="Parameters">The draws.</param>
/// <param name="Weights">Their weights, which add up to 1.</param>
public sealed record WeightedDraws(IReadOnlyList<double[]> Parameters, IReadOnlyList<double> Weights)
{
    private const int Freedom = 5;
    private const int Rounds = 5;
    private const double DataShare = 0.25;
    private const double Wider = 1.5;

    private sealed record Proposal(Vector<double> Centre, Matrix<double> Root, int Count);

    /// <summary>Draws about a fit.</summary>
    /// <param name="residuals">Standardised residuals, those of the priors among them.</param>
    /// <param name="fit">The fit to them.</param>
    /// <param name="priorSpread">One standard deviation of each parameter's prior.</param>
    /// <param name="count">How many draws, 20 or more.</param>
    /// <param name="random">Where they come from; the same seed gives the same draws.</param>
    public static WeightedDraws Of(
        Func<double[], double[]> residuals,
        NonlinearFit fit,
        IReadOnlyList<double> priorSpread,
        int count,
        SeededRandom random
    )
    {
        var mode = Vector<double>.Build.DenseOfArray(fit.Parameters);
        var narrow = Matrix<double>.Build.DenseOfArray(fit.Covariance);
        var prior = Matrix<double>.Build.DenseOfDiagonalArray([.. priorSpread.Select(s => 1.0 / (s * s))]);
        var wide = (((narrow.PseudoInverse() - prior) * DataShare) + prior).PseudoInverse();
        var each = count / Rounds;
        var proposals = new List<Proposal> { new(mode, Root(narrow), each / 2), new(mode, Root(wide), each / 2) };
        var draws = new List<double[]>();
        var targets = new List<double>();
        foreach (var proposal in proposals)
            Draw(proposal, residuals, random, draws, targets);
        var weighed = Weigh(draws, targets, proposals);
        for (var round = 1; round < Rounds; round++)
        {
            var mean = weighed.Mean();
            // a few heavy draws alone would give too small a cloud: the wide one is mixed in by what they are not worth
            var trust = Math.Min(1.0, weighed.EffectiveCount / (4.0 * mode.Count));
            var next = new Proposal(mean, Root((weighed.Covariance(mean) * Wider * trust) + (wide * (1.0 - trust))), each);
            proposals.Add(next);
            Draw(next, residuals, random, draws, targets);
            weighed = Weigh(draws, targets, proposals);
        }

        return weighed;
    }

    /// <summary>How many draws of equal weight these are worth.</summary>
    public double EffectiveCount => 1.0 / Weights.Sum(w => w * w);

    /// <summary>Value under which a share of the weight lies, 0 to 1, of anything that a draw gives.</summary>
    public double Quantile(Func<double[], double> of, double share)
    {
        var sorted = Parameters.Select((p, i) => (Value: of(p), Weight: Weights[i])).OrderBy(v => v.Value).ToArray();
        var sum = 0.0;
        for (var i = 0; i < sorted.Length; i++)
        {
            var before = sum;
            sum += sorted[i].Weight;
            if (sum < share)
                continue;
            if (i == 0)
                return sorted[0].Value;
            // straight between two draws
            return sorted[i - 1].Value
                + ((sorted[i].Value - sorted[i - 1].Value) * Math.Clamp((share - before) / sorted[i].Weight, 0, 1));
        }

        return sorted[^1].Value;
    }

    private static void Draw(
        Proposal from,
        Func<double[], double[]> residuals,
        SeededRandom random,
        List<double[]> draws,
        List<double> targets
    )
    {
        for (var i = 0; i < from.Count; i++)
        {
            var z = Vector<double>.Build.Dense(from.Centre.Count, _ => random.Normal());
            var square = 0.0;
            for (var k = 0; k < Freedom; k++)
                square += Math.Pow(random.Normal(), 2);
            var draw = (from.Centre + (from.Root * z / Math.Sqrt(square / Freedom))).ToArray();
            draws.Add(draw);
            targets.Add(-0.5 * residuals(draw).Sum(r => r * r));
        }
    }

    private static WeightedDraws Weigh(List<double[]> draws, List<double> targets, List<Proposal> proposals)
    {
        var logs = draws
            .Select(
                (d, i) =>
                {
                    var draw = Vector<double>.Build.DenseOfArray(d);
                    var densities = proposals.Select(p => Math.Log(p.Count) + LogStudent(p.Root, draw - p.Centre)).ToArray();
                    var most = densities.Max();
                    return targets[i] - most - Math.Log(densities.Sum(l => Math.Exp(l - most)));
                }
            )
            .ToArray();
        var top = logs.Max();
        var weights = logs.Select(l => Math.Exp(l - top)).ToArray();
        var sum = weights.Sum();
        return new([.. draws], [.. weights.Select(w => w / sum)]);
    }

    private Vector<double> Mean()
    {
        var mean = Vector<double>.Build.Dense(Parameters[0].Length);
        for (var i = 0; i < Parameters.Count; i++)
            mean += Weights[i] * Vector<double>.Build.DenseOfArray(Parameters[i]);
        return mean;
    }

    private Matrix<double> Covariance(Vector<double> mean)
    {
        var covariance = Matrix<double>.Build.Dense(mean.Count, mean.Count);
        for (var i = 0; i < Parameters.Count; i++)
        {
            var from = Vector<double>.Build.DenseOfArray(Parameters[i]) - mean;
            covariance += Weights[i] * from.OuterProduct(from);
        }

        return covariance;
    }

    private static Matrix<double> Root(Matrix<double> covariance)
    {
        var symmetric = (covariance + covariance.Transpose()) / 2.0;
        return (symmetric + (Matrix<double>.Build.DenseIdentity(symmetric.RowCount) * 1e-12)).Cholesky().Factor;
    }

    /// <summary>Logarithm of the density, up to what all draws share.</summary>
    private static double LogStudent(Matrix<double> root, Vector<double> from)
    {
        var n = from.Count;
        var z = root.Solve(from);
        var logDeterminant = Enumerable.Range(0, n).Sum(i => Math.Log(root[i, i]));
        return SpecialFunctions.GammaLn((Freedom + n) / 2.0)
            - SpecialFunctions.GammaLn(Freedom / 2.0)
            - logDeterminant
            - ((Freedom + n) / 2.0 * Math.Log(1.0 + (z.DotProduct(z) / Freedom)));
    }
}
