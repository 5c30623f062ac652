namespace RuddySpring.Server.Pull;

/// <summary>
/// Whether the computer stood still in the middle of a pull and readings of that time are missing. A program that was only
/// busy looks late too, but the readings of that time are there, or come a moment later. Times are s on the steady clock.
/// </summary>
/// <param name="since">From when on it is looked at.</param>
public sealed class StoodStill(double since)
{
    private const double FrozenSeconds = 3.0;

    // readings that waited at the door are in by then
    private const double LateSeconds = 2.0;
    private const double EdgeSeconds = 0.5;
    private double _lastLook = since;
    private double _latest = double.NegativeInfinity;
    private (double From, double To)? _unseen;

    /// <summary>Whether any reading has come; a pull that nothing tells of misses none.</summary>
    public bool HasReadings => !double.IsNegativeInfinity(_latest);

    /// <summary>When it was looked at last, s.</summary>
    public double LastLook => _lastLook;

    /// <summary>A reading of some moment came.</summary>
    public void Taken(double at)
    {
        _latest = Math.Max(_latest, at);
        if (_unseen is { } gap && at > gap.From + EdgeSeconds && at < gap.To - EdgeSeconds)
            _unseen = null;
    }

    /// <summary>Looks again, as is done several times a second; how many seconds are missing once that is sure, and null
    /// otherwise.</summary>
    /// <param name="now">When.</param>
    /// <param name="isRunning">Whether there is anything to miss.</param>
    public double? Look(double now, bool isRunning)
    {
        if (isRunning && HasReadings && now - _lastLook > FrozenSeconds && _latest < _lastLook + EdgeSeconds)
            _unseen = (_lastLook, now);
        _lastLook = now;
        return _unseen is { } gap && now - gap.To >= LateSeconds ? AtTheEnd() : null;
    }

    /// <summary>How many seconds are missing when nothing more will come; null for none, and where they were told of.</summary>
    public double? AtTheEnd()
    {
        var missing = _unseen is { } gap ? gap.To - gap.From : (double?)null;
        _unseen = null;
        return missing;
    }
}
