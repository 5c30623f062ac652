using System.Diagnostics;

namespace RuddySpring.Server.Instruments;

/// <summary>The clock of pulls: it never jumps and never runs backwards, whatever happens to the time of day.</summary>
/// <param name="speed">How many times as fast as life it runs.</param>
public sealed class SteadyClock(double speed = 1)
{
    private readonly Stopwatch _clock = Stopwatch.StartNew();

    /// <summary>How many times as fast as life it runs.</summary>
    public double Speed => speed;

    /// <summary>Time since the application started, s.</summary>
    public double Now => _clock.Elapsed.TotalSeconds * speed;
}
