namespace RuddySpring.Core.Reasoning;

/// <summary>A number of a shot that is told against what was expected of it: 0 is as expected.</summary>
public enum Sign
{
    /// <summary>Logarithm of the resistance over what this setting, age and dose made one expect.</summary>
    Resistance,

    /// <summary>Logarithm of the time that this setting was to be expected to take under the plan, over the time that is wanted:
    /// known before the pull.</summary>
    Setting,

    /// <summary>Logarithm of the time over the wanted one, where nothing tells the resistance: arm and grind are both in
    /// it.</summary>
    Time,

    /// <summary>Logarithm of the time to first drops over that of this puck under this pressure.</summary>
    Drops,

    /// <summary>Logarithm of the flow in the last half of the cup over that of this puck under this pressure.</summary>
    LateFlow,

    /// <summary>The most that the resistance fell within three seconds beyond its own, as a logarithm.</summary>
    Fall,

    /// <summary>Cup less yield, over the yield.</summary>
    Cup,

    /// <summary>Pressure less plan at the plan's peak, bar.</summary>
    Peak,

    /// <summary>Pressure less plan in the last phase, bar.</summary>
    End,

    /// <summary>Logarithm of the time before the ramp over that of the plan.</summary>
    PreInfusion,

    /// <summary>Logarithm of the ramp's length over that of the plan.</summary>
    Ramp,

    /// <summary>Logarithm of the time that the pressure took to go once it was let go, over the usual.</summary>
    LetDown,

    /// <summary>Logarithm of the whole flow over that expected behind this small hole.</summary>
    HoleFlow,

    /// <summary>Group against the middle of its band, in half widths of the band.</summary>
    Group,

    /// <summary>Water at the puck, as it was measured or worked out from what was ticked, against the usual, K; only where it is
    /// off: an estimate that is as ever tells nothing.</summary>
    Water,

    /// <summary>Boiler's gauge against the machine's own pressure, bar.</summary>
    Boiler,

    /// <summary>Sour against the usual, marks.</summary>
    Sour,

    /// <summary>Bitter against the usual, marks.</summary>
    Bitter,

    /// <summary>Dry against the usual, marks.</summary>
    Dry,

    /// <summary>Sweet against the usual, marks.</summary>
    Sweet,

    /// <summary>Body against the usual, marks.</summary>
    Body,

    /// <summary>Logarithm of the measured strength over the expected.</summary>
    Strength,

    /// <summary>Logarithm of the flow over the middle of the cup over the one that is wanted, for those who lead by it.</summary>
    Flow,
}

/// <summary>A sign as it was read.</summary>
/// <param name="Sign">Which.</param>
/// <param name="Value">How far off what was expected.</param>
/// <param name="Sd">One standard deviation of it where nothing is wrong.</param>
/// <param name="Text">The numbers in a sentence.</param>
public sealed record SignReading(Sign Sign, double Value, double Sd, string Text);
