using MathNet.Numerics.LinearAlgebra;
using RuddySpring.Core.Dialing;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Shots;

namespace RuddySpring.Core.Reasoning;

/// <summary>
/// A puck that was read back, pulled another way: another plan, water, dose, yield, basket or grind. Draws of what is believed of
/// it are played, so the band is as wide as the trace left it.
/// </summary>
public static class PullAgain
{
    private const int Draws = 24;
    private const double Edge = 0.1;

    // the next puck of the same coffee is never quite this one, nor is the arm: as logarithms
    private const double PuckToPuck = 0.05;

    /// <summary>Pulls it again.</summary>
    /// <param name="read">What is believed of the puck.</param>
    /// <param name="next">The shot to pull; its grind is taken from the puck.</param>
    /// <param name="grindLog">Logarithm of the resistivity of the next grind over this one's.</param>
    /// <param name="random">For the draws.</param>
    public static ShotForecast Of(PuckBelief read, ShotConditions next, double grindLog, SeededRandom random)
    {
        var root = Root(read.Covariance);
        SimulatedShot Pull(ShotConditions puck, double log)
        {
            var shot = next with
            {
                Bed = next.Bed with { Resistivity = puck.Bed.Resistivity * Math.Exp(log) },
                Behaviour = puck.Behaviour,
                Path = puck.Path,
            };
            return SimulatedShot.Pull(shot.WithResistance(PuckParameters.Resistance.Nearest(shot.Bed.ResistanceBarSPerMl)));
        }

        var pucks = Enumerable
            .Range(0, Draws)
            .Select(_ =>
            {
                var z = Vector<double>.Build.Dense(root.ColumnCount, _ => random.Normal());
                return (Puck: read.At((root * z).ToArray()), Log: grindLog + random.Normal(PuckToPuck));
            })
            .ToList();
        var pulled = pucks.AsParallel().AsOrdered().Select(p => Pull(p.Puck, p.Log)).OrderBy(s => s.Seconds).ToList();
        return new(
            pulled[(int)Math.Round(Edge * (Draws - 1))],
            Pull(read.Middle, grindLog),
            pulled[(int)Math.Round((1 - Edge) * (Draws - 1))]
        );
    }

    private static Matrix<double> Root(Matrix<double> covariance)
    {
        var symmetric = (covariance + covariance.Transpose()) / 2;
        return (symmetric + (Matrix<double>.Build.DenseIdentity(symmetric.RowCount) * 1e-12)).Cholesky().Factor;
    }
}
