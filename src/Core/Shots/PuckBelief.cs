using MathNet.Numerics.LinearAlgebra;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Traces;

namespace RuddySpring.Core.Shots;

/// <summary>
/// What is believed of a shot before or after it was pulled: a shot in the middle, and how far the logarithms of its
/// <see cref="PuckUnknown.All">unknowns</see> may be off, together. One belief for the forecast, the coach and the reader of a
/// trace.
/// </summary>
/// <param name="Middle">The most probable shot.</param>
/// <param name="Covariance">Of the logarithms of the unknowns about it, n by n, in their order.</param>
/// <param name="Pulls">How many pulls it rests on.</param>
public sealed record PuckBelief(ShotConditions Middle, Matrix<double> Covariance, int Pulls = 0)
{
    private const int MeanOver = 5;
    private const double TooAlike = 0.9;
    private const double NothingLearned = 0.8;

    // a puck is never quite like the one before: standard deviations of the logarithms from pull to pull
    private static readonly double[] PullToPull = [0.06, 0.10, 0.15, 0.05, 0.04, 0.05, 0.02];

    /// <summary>Before anything was pulled: each unknown by itself.</summary>
    /// <param name="middle">The shot to expect.</param>
    /// <param name="resistanceSd">Standard deviation of the logarithm of its resistance, 0.05 to 1.</param>
    /// <param name="path">What is believed of spout and scale.</param>
    public static PuckBelief Before(ShotConditions middle, double resistanceSd, CupPathBelief? path = null)
    {
        var cup = path ?? CupPathBelief.Unknown;
        var all = PuckUnknown.All;
        var covariance = Matrix<double>.Build.DenseDiagonal(all.Count, all.Count, i => all[i].SdLog * all[i].SdLog);
        covariance[0, 0] = Math.Pow(Math.Clamp(resistanceSd, 0.05, 1.0), 2);
        int spout = IndexOf(PuckUnknown.Spout),
            scale = IndexOf(PuckUnknown.Scale);
        (covariance[spout, spout], covariance[scale, scale]) = (
            cup.Spout.SdLog * cup.Spout.SdLog,
            cup.Scale.SdLog * cup.Scale.SdLog
        );
        covariance[spout, scale] = covariance[scale, spout] = cup.Correlation * cup.Spout.SdLog * cup.Scale.SdLog;
        return new(middle with { Path = cup.Middle }, covariance);
    }

    /// <summary>Standard deviation of the logarithm of an unknown.</summary>
    public double Sd(PuckUnknown of) => Math.Sqrt(Covariance[IndexOf(of), IndexOf(of)]);

    /// <summary>Correlation of two unknowns' logarithms, -1 to 1.</summary>
    public double Correlation(PuckUnknown a, PuckUnknown b) => Covariance[IndexOf(a), IndexOf(b)] / (Sd(a) * Sd(b));

    /// <summary>The shot at logarithms off the middle, each kept within the bounds of its unknown.</summary>
    public ShotConditions At(IReadOnlyList<double> logs)
    {
        var shot = Middle;
        for (var i = 0; i < logs.Count; i++)
        {
            var unknown = PuckUnknown.All[i];
            if (logs[i] != 0)
                shot = unknown.With(shot, Math.Clamp(unknown.Get(Middle) * Math.Exp(logs[i]), unknown.Low, unknown.High));
        }

        return shot;
    }

    /// <summary>With what R10 made of the same pull, bar s/ml: how far this coffee is from the usual one, in the mean over the
    /// last pulls.</summary>
    public PuckBelief Beside(double r10)
    {
        var usual = r10 / FlowResistance.Compaction(PuckBehaviour.Usual, GrindResistance.ReferenceBar);
        var before = Middle.Behaviour.OverR10;
        var over = Math.Log(Middle.Bed.ResistanceBarSPerMl / usual);
        var mean = before + ((over - before) / Math.Min(Pulls + 1, MeanOver));
        return this with { Middle = Middle with { Behaviour = Middle.Behaviour with { OverR10 = mean } }, Pulls = Pulls + 1 };
    }

    /// <summary>What the next puck of this coffee may be: as this one, and a pull's wander wider; its grind is known as well as
    /// is said.</summary>
    /// <param name="next">The next shot as the sheet has it; behaviour and path are this belief's.</param>
    /// <param name="resistanceSd">Standard deviation of the logarithm of its resistance.</param>
    public PuckBelief Next(ShotConditions next, double resistanceSd)
    {
        var covariance = Covariance.Clone();
        for (var i = 0; i < PullToPull.Length; i++)
            covariance[i, i] += PullToPull[i] * PullToPull[i];
        // another grind: what this one was says nothing beyond what the sheet says
        for (var i = 1; i < covariance.ColumnCount; i++)
            covariance[0, i] = covariance[i, 0] = 0;
        covariance[0, 0] = Math.Pow(Math.Clamp(resistanceSd, 0.05, 1.0), 2);
        var behaviour = Middle.Behaviour with { WaterHeldPerGram = next.Behaviour.WaterHeldPerGram };
        var over = Math.Exp(behaviour.OverR10 - next.Behaviour.OverR10);
        var resistance = Math.Clamp(
            next.Bed.ResistanceBarSPerMl * over,
            PuckParameters.Resistance.Min,
            PuckParameters.Resistance.Max
        );
        return this with
        {
            Middle = next.WithResistance(resistance) with { Behaviour = behaviour, Path = Middle.Path },
            Covariance = covariance,
        };
    }

    /// <summary>The same with other spout and scale: nothing is known of them.</summary>
    public PuckBelief WithPath(CupPathBelief path)
    {
        var fresh = Before(Middle, Sd(PuckUnknown.Resistance), path);
        var kept = IndexOf(PuckUnknown.Spout);
        for (var i = 0; i < kept; i++)
        {
            for (var j = 0; j < kept; j++)
                fresh.Covariance[i, j] = Covariance[i, j];
        }

        return fresh with
        {
            Pulls = Pulls,
        };
    }

    /// <summary>
    /// What the data cannot tell, in words: unknowns that hardly narrowed from an earlier belief, and pairs that go together so
    /// closely that one stands for the other.
    /// </summary>
    public IReadOnlyList<string> CannotTell(PuckBelief before)
    {
        var all = PuckUnknown.All;
        var said = all.Where(u => Sd(u) > NothingLearned * before.Sd(u))
            .Select(u => $"This trace says little about the {u.Name}.")
            .ToList();
        for (var i = 0; i < all.Count; i++)
        {
            for (var j = i + 1; j < all.Count; j++)
            {
                if (Math.Abs(Correlation(all[i], all[j])) > TooAlike)
                    said.Add($"This trace cannot tell the {all[i].Name} from the {all[j].Name}.");
            }
        }

        return said;
    }

    private static int IndexOf(PuckUnknown of)
    {
        for (var i = 0; i < PuckUnknown.All.Count; i++)
        {
            if (ReferenceEquals(PuckUnknown.All[i], of))
                return i;
        }

        throw new ArgumentException("No unknown of a puck.", nameof(of));
    }
}
