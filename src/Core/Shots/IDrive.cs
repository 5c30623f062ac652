using RuddySpring.Core.Pulls;

namespace RuddySpring.Core.Shots;

/// <summary>
/// What presses the water through a puck: a plan in a hand, a recorded pressure, a lever that is held, a pump. The drive owns the
/// stroke: water that has left the piston is gone until it is refilled.
/// </summary>
public interface IDrive
{
    /// <summary>The pressure in bar after a step.</summary>
    /// <param name="seen">What is seen of the shot as the step begins.</param>
    /// <param name="puckMlPerS">What the puck takes now.</param>
    /// <param name="stepSeconds">Length of the step.</param>
    double Next(in PullState seen, double puckMlPerS, double stepSeconds);
}

/// <summary>A pressure that was recorded, held from each sample to the next.</summary>
/// <param name="samples">Seconds since the lever moved, rising, and bar.</param>
public sealed class RecordedDrive(IReadOnlyList<(double Seconds, double Bar)> samples) : IDrive
{
    private int _next;
    private double _bar;

    /// <inheritdoc/>
    public double Next(in PullState seen, double puckMlPerS, double stepSeconds)
    {
        while (_next < samples.Count && samples[_next].Seconds <= seen.Seconds + 1e-9)
            _bar = Math.Max(0, samples[_next++].Bar);
        return _bar;
    }
}
