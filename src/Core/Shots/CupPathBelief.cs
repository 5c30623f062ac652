namespace RuddySpring.Core.Shots;

/// <summary>What is believed of a delay: its logarithm is normal.</summary>
/// <param name="Seconds">Middle, s, above 0.</param>
/// <param name="SdLog">Standard deviation of the logarithm, above 0.</param>
public readonly record struct DelayBelief(double Seconds, double SdLog)
{
    private const double EightInTen = 1.2816;

    /// <summary>Lower end of the eight in ten, s.</summary>
    public double Low => Seconds * Math.Exp(-EightInTen * SdLog);

    /// <summary>Upper end, s.</summary>
    public double High => Seconds * Math.Exp(EightInTen * SdLog);
}

/// <summary>
/// What is believed of spout and scale before a pull (<see cref="CupPath"/>). Nobody states them, so they are learned from pulls
/// (<see cref="PuckReadBack"/>): of the scale over all its pulls, of the spout over all pulls with its holder. A pull tells their
/// sum better than either, so the two go together.
/// </summary>
/// <param name="Spout">Delay at basket and spout.</param>
/// <param name="Scale">Lag of the scale.</param>
/// <param name="Correlation">Of the two logarithms, between -1 and 1.</param>
public sealed record CupPathBelief(DelayBelief Spout, DelayBelief Scale, double Correlation = 0)
{
    /// <summary>Before any pull: scales lag by 0.2 to 0.8 s, spouts by 0.2 to 1.2 s (common practice). Mean and spread of a
    /// delay for which each of these values is as likely.</summary>
    public static readonly CupPathBelief Unknown = new(new(0.65, 0.40), new(0.47, 0.34));

    /// <summary>The middle of it.</summary>
    public CupPath Middle => new(Spout.Seconds, Scale.Seconds);
}
