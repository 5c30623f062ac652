namespace RuddySpring.Core;

/// <summary>
/// A small seeded generator, so that the same seed gives the same shot everywhere.
/// SplitMix64 (Steele, Lea and Flood, OOPSLA 2014); normal deviates by Box and Muller (1958).
/// </summary>
public sealed class SeededRandom(ulong seed)
{
    private ulong _state = seed;
    private double? _spare;

    /// <summary>Next raw 64 bits.</summary>
    public ulong NextBits()
    {
        var z = _state += 0x9E3779B97F4A7C15UL;
        z = (z ^ (z >> 30)) * 0xBF58476D1CE4E5B9UL;
        z = (z ^ (z >> 27)) * 0x94D049BB133111EBUL;
        return z ^ (z >> 31);
    }

    /// <summary>Uniform in [0, 1).</summary>
    public double Uniform() => (NextBits() >> 11) * (1.0 / (1UL << 53));

    /// <summary>Uniform in [low, high).</summary>
    public double Uniform(double low, double high) => low + ((high - low) * Uniform());

    /// <summary>A whole number in [0, count).</summary>
    public int Below(int count) => (int)(Uniform() * count);

    /// <summary>Normal with mean 0 and the given standard deviation.</summary>
    public double Normal(double deviation = 1.0)
    {
        if (_spare is { } spare)
        {
            _spare = null;
            return spare * deviation;
        }

        var radius = Math.Sqrt(-2.0 * Math.Log(1.0 - Uniform()));
        var angle = 2.0 * Math.PI * Uniform();
        _spare = radius * Math.Sin(angle);
        return radius * Math.Cos(angle) * deviation;
    }
}
