using MathNet.Numerics.LinearAlgebra;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Shots;

namespace RuddySpring.Core.Reasoning;

/// <summary>Pucks as they may be by what is believed of one.</summary>
public static class PuckDraws
{
    /// <summary>What no fit knows of a puck, as a logarithm of its resistance: it wanders through a pull, and no model is quite
    /// right (set on pucks of other physics).</summary>
    public const double OwnWaysSd = 0.058;

    /// <summary>So many of them; the same seed gives the same.</summary>
    public static IReadOnlyList<ShotConditions> Of(PuckBelief belief, int count, SeededRandom random)
    {
        var symmetric = (belief.Covariance + belief.Covariance.Transpose()) / 2;
        var root = (symmetric + (Matrix<double>.Build.DenseIdentity(symmetric.RowCount) * 1e-12)).Cholesky().Factor;
        return
        [
            .. Enumerable
                .Range(0, count)
                .Select(_ =>
                {
                    var z = Vector<double>.Build.Dense(root.ColumnCount, _ => random.Normal());
                    var shot = belief.At((root * z).ToArray());
                    var resistance = shot.Bed.ResistanceBarSPerMl * Math.Exp(random.Normal(OwnWaysSd));
                    return shot.WithResistance(PuckParameters.Resistance.Nearest(resistance));
                }),
        ];
    }
}
