namespace RuddySpring.Core.Traces;

/// <summary>What was put right in a trace, or left out of it.</summary>
public enum CorrectionKind
{
    /// <summary>Time before the lever moved that is not counted, s.</summary>
    IdleBefore,

    /// <summary>What the gauge showed at rest, bar; taken off.</summary>
    GaugeRest,

    /// <summary>When the cup was taken off the scale, s since the lever moved; what the scale shows after is left out.</summary>
    CupLifted,

    /// <summary>What fell into the cup after the pressure was let go, g; in the cup, but not in times and flows.</summary>
    DrippedAfter,

    /// <summary>How long gauge or scale told nothing during the pull, s; a straight line bridges it and is not measured
    /// from.</summary>
    Gap,
}

/// <summary>One thing that was put right, with its size in the unit of its kind.</summary>
public sealed record TraceCorrection(CorrectionKind Kind, double Amount);
