namespace RuddySpring.Core.Traces;

/// <summary>
/// A gauge that waits for a pull: what it shows at rest, and when it leaves it. Times are s, rising; pressures bar as the gauge
/// shows them.
/// </summary>
/// <param name="boilerOnPuck">Whether a raised lever lets a boiler's pressure to the gauge (<see cref="GaugeRest"/>).</param>
public sealed class RestingGauge(bool boilerOnPuck)
{
    /// <summary>A pressure this far above the rest is a pull, bar.</summary>
    public const double LeavesBar = 0.3;

    private const double WindowSeconds = 3.0;
    private const double SteadySeconds = 1.0;
    private const double SteadyBar = 0.25;
    private readonly Queue<(double Seconds, double Bar)> _recent = [];
    private readonly double _most = boilerOnPuck ? GaugeRest.MostBesideBoilerBar : GaugeRest.MostBar;

    /// <summary>What is to be taken off, bar; 0 where the gauge rests near zero or has not been seen at rest.</summary>
    public double RestBar { get; private set; }

    /// <summary>Takes a reading; true when the pressure has left its rest.</summary>
    public bool Leaves(double seconds, double bar)
    {
        _recent.Enqueue((seconds, bar));
        while (_recent.Peek().Seconds < seconds - WindowSeconds)
            _recent.Dequeue();
        // before it has been seen for a while, what it showed first may be its rest
        var from = RestBar != 0.0 || Math.Abs(_recent.Peek().Bar) > _most ? RestBar : Math.Max(0.0, _recent.Peek().Bar);
        if (bar - from > LeavesBar)
            return true;
        var levels = _recent.Select(r => r.Bar).ToList();
        if (seconds - _recent.Peek().Seconds < SteadySeconds || levels.Max() - levels.Min() > SteadyBar)
            return false;
        var rest = Hampel.Median(levels);
        RestBar = Math.Abs(rest) is >= GaugeRest.LeastBar and var size && size <= _most ? rest : 0.0;
        return false;
    }
}
