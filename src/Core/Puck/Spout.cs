namespace RuddySpring.Core.Puck;

/// <summary>
/// Coffee that has left the puck and hangs at basket and spout before it falls: what flows in comes out with a first-order delay
/// (common practice: the stream goes on for a second after the pressure is gone).
/// </summary>
/// <param name="grams">What hangs there to begin with, g.</param>
public sealed class Spout(double grams = 0)
{
    /// <summary>Time constant of the delay, s.</summary>
    public const double DelaySeconds = 0.45;

    /// <summary>What hangs there now, g.</summary>
    public double Grams { get; private set; } = grams;

    /// <summary>Share of what hangs there, 0 to 1, that falls within some seconds.</summary>
    public static double ShareThatFalls(double seconds) => 1 - Math.Exp(-seconds / DelaySeconds);

    /// <summary>Takes coffee in g that has left the puck, and gives what falls into the cup, g.</summary>
    /// <param name="leavesPuckGrams">What came within the step.</param>
    /// <param name="share"><see cref="ShareThatFalls"/> of the step.</param>
    public double Pass(double leavesPuckGrams, double share)
    {
        var falls = (Grams + leavesPuckGrams) * share;
        Grams += leavesPuckGrams - falls;
        return falls;
    }
}
