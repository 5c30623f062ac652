namespace RuddySpring.Server.Instruments;

/// <summary>
/// Brings a device's clock to the server's: the shortest delay seen lately tells the two apart, later lines can only be later.
/// Two windows of half a minute follow a clock that drifts.
/// </summary>
public sealed class ClockBridge
{
    private const double WindowSeconds = 30.0;
    private double _before = double.PositiveInfinity;
    private double _now = double.PositiveInfinity;
    private double _windowBegan = double.NegativeInfinity;

    /// <summary>Notes that a line of a device time in s arrived at a server time in s.</summary>
    public void Note(double deviceSeconds, double serverSeconds)
    {
        if (serverSeconds - _windowBegan > WindowSeconds)
        {
            _before = _now;
            _now = double.PositiveInfinity;
            _windowBegan = serverSeconds;
        }

        _now = Math.Min(_now, serverSeconds - deviceSeconds);
    }

    /// <summary>Server time in s of a device time in s; something must have been noted.</summary>
    public double ToServer(double deviceSeconds) => deviceSeconds + Math.Min(_before, _now);

    /// <summary>Forgets everything: the device's clock started again.</summary>
    public void Forget() =>
        (_before, _now, _windowBegan) = (double.PositiveInfinity, double.PositiveInfinity, double.NegativeInfinity);
}
