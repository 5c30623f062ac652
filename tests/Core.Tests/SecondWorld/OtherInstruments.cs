namespace RuddySpring.Core.Tests.SecondWorld;

/// <summary>Coffee on its way from the puck into the cup: it runs along two surfaces, one after the other.</summary>
/// <param name="delaySeconds">Both together, s.</param>
public sealed class OtherSpout(double delaySeconds)
{
    private double _first;
    private double _second;

    /// <summary>What hangs there, g.</summary>
    public double Grams => _first + _second;

    /// <summary>The same as it is now.</summary>
    public OtherSpout Copy() => (OtherSpout)MemberwiseClone();

    /// <summary>Takes what has left the puck in a step, g; gives what falls, g.</summary>
    public double Pass(double grams, double seconds)
    {
        var share = 1 - Math.Exp(-2 * seconds / delaySeconds);
        var on = (_first + grams) * share;
        _first += grams - on;
        var falls = (_second + on) * share;
        _second += on - falls;
        return falls;
    }
}

/// <summary>A scale that shows the mean of what stood on it for a while, in tenths of a gram, shaken by drops.</summary>
/// <param name="random">Its noise.</param>
/// <param name="lagSeconds">How late the mean is: half of the while.</param>
public sealed class OtherScale(SeededRandom random, double lagSeconds)
{
    private readonly Queue<(double At, double Grams)> _seen = [];
    private double _sum;

    /// <summary>Sees what truly stands on it, at every step; times rising.</summary>
    public void See(double seconds, double grams)
    {
        _seen.Enqueue((seconds, grams));
        _sum += grams;
        while (_seen.Peek().At < seconds - (2 * lagSeconds))
            _sum -= _seen.Dequeue().Grams;
    }

    /// <summary>What it shows, g.</summary>
    public double Read(bool drops) => Math.Round((_sum / _seen.Count) + (drops ? random.Normal(0.05) : 0), 1);
}

/// <summary>A damped gauge that reads in steps of 0.05 bar and whose zero is off and moves.</summary>
public sealed class OtherGauge(SeededRandom random)
{
    private const double DampedSeconds = 0.12;
    private double _shown;
    private double _zero = random.Normal(0.06);

    /// <summary>Reads a true pressure in bar after a step in s.</summary>
    public double Read(double bar, double seconds)
    {
        _zero += random.Normal(0.005 * Math.Sqrt(seconds));
        _shown += (bar - _shown) * (1 - Math.Exp(-seconds / DampedSeconds));
        return Math.Round((_shown + _zero + random.Normal(0.04)) * 20) / 20;
    }
}
