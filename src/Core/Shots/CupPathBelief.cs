namespace RuddySpring.Core.Shots;

/// <summary>What is believed of a delay: its logarithm is normal.</summary>
/// <param name="Seconds">Middle, s.</param>
/// <param name="SdLog">Standard deviation of the logarithm.</param>
public readonly record struct DelayBelief(double Seconds, double SdLog)
{
    private const double EightInTen = 1.2816;

    /// <summary>Lower end of the eight in ten, s.</summary>
    public double Low => Seconds * Math.Exp(-EightInTen * SdLog);

    /// <summary>Upper end, s.</summary>
    public double High => Seconds * Math.Exp(EightInTen * SdLog);

    /// <summary>With another, independent measurement of the same delay.</summary>
    public DelayBelief With(DelayBelief other)
    {
        double a = 1 / (SdLog * SdLog), b = 1 / (other.SdLog * other.SdLog);
        return new(Math.Exp(((a * Math.Log(Seconds)) + (b * Math.Log(other.Seconds))) / (a + b)), 1 / Math.Sqrt(a + b));
    }
}

/// <summary>
/// What is believed of spout and scale before a pull (<see cref="CupPath"/>). Nobody states them, so they are learned: of the scale over all
/// its pulls, of the spout over all pulls with its holder.
/// </summary>
/// <param name="Spout">Delay at basket and spout.</param>
/// <param name="Scale">Lag of the scale.</param>
public sealed record CupPathBelief(DelayBelief Spout, DelayBelief Scale)
{
    /// <summary>Before any pull: eight in ten scales lag by 0.24 to 0.67 s, eight in ten spouts by 0.24 to 0.85 s (common practice).</summary>
    public static readonly CupPathBelief Unknown = new(new(0.45, 0.5), new(0.4, 0.4));

    /// <summary>The middle of it.</summary>
    public CupPath Middle => new(Spout.Seconds, Scale.Seconds);
}
