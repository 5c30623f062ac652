namespace RuddySpring.Core.Traces;

/// <summary>What a channel of a trace holds.</summary>
public enum Channel
{
    /// <summary>Gauge pressure on the puck, bar.</summary>
    Pressure,

    /// <summary>Weight in the cup, g.</summary>
    Weight,

    /// <summary>Temperature of the group or the water, degC.</summary>
    Temperature,

    /// <summary>Flow as another program recorded it, ml/s.</summary>
    Flow,

    /// <summary>Outside of the group, degC.</summary>
    Group,

    /// <summary>Force of the hand on the handle, kgf.</summary>
    Force,
}

/// <summary>How a channel came to be.</summary>
public enum Origin
{
    /// <summary>An instrument sent it.</summary>
    Measured,

    /// <summary>A hand followed a gauge's needle on the screen.</summary>
    Followed,

    /// <summary>It came in a file from elsewhere.</summary>
    Imported,

    /// <summary>Nobody saw it: the hand is taken to have followed the plan. It is not used in calculations.</summary>
    Assumed,
}

/// <summary>Samples of one quantity; times in s since the pull began, rising; values in the channel's unit. Both of one
/// length.</summary>
public sealed record Series(Channel Channel, Origin Origin, IReadOnlyList<double> Seconds, IReadOnlyList<double> Values)
{
    /// <summary>How many samples.</summary>
    public int Count => Seconds.Count;

    /// <summary>Value at a time in s by straight lines between samples; the end values outside. NaN for an empty
    /// series.</summary>
    public double At(double seconds)
    {
        if (Count == 0)
            return double.NaN;
        if (seconds <= Seconds[0])
            return Values[0];
        if (seconds >= Seconds[^1])
            return Values[^1];
        int low = 0,
            high = Count - 1;
        while (high - low > 1)
        {
            var middle = (low + high) / 2;
            if (Seconds[middle] <= seconds)
                low = middle;
            else
                high = middle;
        }

        var span = Seconds[high] - Seconds[low];
        return span <= 0.0 ? Values[high] : Values[low] + ((Values[high] - Values[low]) * (seconds - Seconds[low]) / span);
    }
}

/// <summary>A recorded pull: one series a channel, each with its own times.</summary>
public sealed record Trace(IReadOnlyList<Series> Series)
{
    /// <summary>A trace without samples.</summary>
    public static readonly Trace Empty = new([]);

    /// <summary>The series of a channel, or null.</summary>
    public Series? Of(Channel channel) => Series.FirstOrDefault(s => s.Channel == channel && s.Count > 0);

    /// <summary>Last time in s of any series; 0 when empty.</summary>
    public double EndSeconds => Series.Where(s => s.Count > 0).Select(s => s.Seconds[^1]).DefaultIfEmpty(0.0).Max();
}
