using MathNet.Numerics.LinearAlgebra;
using RuddySpring.Core.Puck;

namespace RuddySpring.Core.Shots;

/// <summary>A <see cref="PuckBelief"/> as it is kept with a shot: what the next puck of that coffee is expected to be
/// like.</summary>
/// <param name="Behaviour">How the coffee behaves.</param>
/// <param name="Path">Spout and scale.</param>
/// <param name="Covariance">Of the logarithms of the unknowns, row by row, n times n.</param>
/// <param name="Pulls">How many pulls it rests on, 1 or more.</param>
public sealed record PuckMemory(PuckBehaviour Behaviour, CupPath Path, IReadOnlyList<double> Covariance, int Pulls)
{
    private static readonly FieldRange Over = new("overR10", "Resistance over R10", -3, 3, "");
    private static readonly FieldRange Counted = new("pulls", "Pulls", 0, 1_000_000, "");

    /// <summary>Of a belief.</summary>
    public static PuckMemory Of(PuckBelief belief) =>
        new(
            belief.Middle.Behaviour,
            belief.Middle.Path,
            [.. belief.Covariance.ToRowMajorArray().Select(v => Math.Round(v, 6))],
            belief.Pulls
        );

    /// <summary>What to expect of the next shot.</summary>
    /// <param name="sheet">The shot as the sheet has it.</param>
    /// <param name="resistanceSd">Standard deviation of the logarithm of its resistance.</param>
    public PuckBelief Expect(ShotConditions sheet, double resistanceSd) => Belief(sheet).Next(sheet, resistanceSd);

    /// <summary>A shot as the sheet has it, of a coffee that behaves like this one; its grind stays what R10 says.</summary>
    public ShotConditions Like(ShotConditions sheet) => Belief(sheet).Next(sheet, 1).Middle;

    /// <summary>What was learned of spout and scale.</summary>
    public CupPathBelief LearnedPath
    {
        get
        {
            int n = PuckUnknown.All.Count,
                spout = n - 2,
                scale = n - 1;
            double Sd(int i) => Math.Sqrt(Covariance[(i * n) + i]);
            return new(
                new(Path.SpoutDelaySeconds, Sd(spout)),
                new(Path.ScaleLagSeconds, Sd(scale)),
                Covariance[(spout * n) + scale] / (Sd(spout) * Sd(scale))
            );
        }
    }

    /// <summary>The same coffee behind another spout or another scale.</summary>
    public PuckMemory Behind(CupPathBelief path, ShotConditions sheet) => Of(Belief(sheet).WithPath(path));

    /// <summary>With every number checked, as it comes from a file.</summary>
    /// <exception cref="FieldRangeException">A number is out of range.</exception>
    /// <exception cref="DoesNotFitException">It is of another version.</exception>
    public PuckMemory Checked()
    {
        var n = PuckUnknown.All.Count;
        if (
            Behaviour is null
            || Path is null
            || Covariance is null
            || Covariance.Count != n * n
            || Covariance.Any(v => !double.IsFinite(v))
        )
            throw new DoesNotFitException("learned", "What was learned of the puck is of another version.");
        if (Enumerable.Range(0, n).Any(i => Covariance[(i * n) + i] <= 0))
            throw new DoesNotFitException("learned", "What was learned of the puck makes no sense.");
        if (!(Path.SpoutDelaySeconds > 0 && Path.ScaleLagSeconds > 0))
            throw new DoesNotFitException("learned", "A delay that was learned is not above zero.");
        Over.Check(Behaviour.OverR10);
        Counted.Check(Pulls);
        return this;
    }

    private PuckBelief Belief(ShotConditions sheet) =>
        new(
            sheet with
            {
                Behaviour = Behaviour,
                Path = Path,
            },
            Matrix<double>.Build.Dense(PuckUnknown.All.Count, PuckUnknown.All.Count, [.. Covariance]),
            Pulls
        ); // symmetric: rows are columns
}
