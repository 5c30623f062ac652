namespace RuddySpring.Core.Traces;

/// <summary>A gauge as it reads: the truth with noise and a drift of its own zero.</summary>
/// <param name="random">Its noise.</param>
/// <param name="noiseBar">Standard deviation, bar.</param>
public sealed class GaugeModel(SeededRandom random, double noiseBar = 0.05)
{
    private readonly double _zero = random.Normal(0.02);

    /// <summary>Reading in bar, to 0.01.</summary>
    public double Read(double trueBar) => Math.Round(trueBar + _zero + random.Normal(noiseBar), 2);
}

/// <summary>A kitchen scale as it reads: late, in steps of 0.1 g, shaken by drops.</summary>
/// <param name="random">Its noise.</param>
/// <param name="lagSeconds">Time constant, s.</param>
public sealed class ScaleModel(SeededRandom random, double lagSeconds = 0.4)
{
    private double _shown;

    /// <summary>Reading in g to 0.1 after a time step in s.</summary>
    /// <param name="trueGrams">What stands on it.</param>
    /// <param name="flowGramsPerS">What falls on it; drops shake it.</param>
    public double Read(double trueGrams, double flowGramsPerS, double stepSeconds)
    {
        _shown += (trueGrams - _shown) * (1.0 - Math.Exp(-stepSeconds / lagSeconds));
        var shake = flowGramsPerS > 0.02 ? random.Normal(0.06) : 0.0;
        return Math.Round(_shown + shake, 1);
    }
}

/// <summary>A thermometer probe: late, with noise, to 0.1 K.</summary>
public sealed class ThermometerModel(SeededRandom random, double startC, double lagSeconds = 4.0)
{
    private double _shown = startC;

    /// <summary>Reading in degC after a time step in s.</summary>
    public double Read(double trueC, double stepSeconds)
    {
        _shown += (trueC - _shown) * (1.0 - Math.Exp(-stepSeconds / lagSeconds));
        return Math.Round(_shown + random.Normal(0.1), 1);
    }
}
