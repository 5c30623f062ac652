namespace RuddySpring.Core.Coaching;

/// <summary>What a piece of advice is about, the most urgent first.</summary>
public enum AdviceKind
{
    /// <summary>Something can hurt: said before all else.</summary>
    Danger,

    /// <summary>The yield is reached, the drip after included.</summary>
    Stop,

    /// <summary>Water has found a way through.</summary>
    Channel,

    /// <summary>The water ends before the yield.</summary>
    WaterEnds,

    /// <summary>The grind is finer than the plan wants.</summary>
    TooFine,

    /// <summary>The grind is coarser than the plan wants.</summary>
    TooCoarse,
}

/// <summary>One thing to do that is not in the plan.</summary>
/// <param name="Kind">What it is about.</param>
/// <param name="Sentence">What to do, and why.</param>
/// <param name="HoldBar">Pressure to hold instead of the plan's, bar; null where the plan's stands.</param>
/// <param name="StopGrams">Cup to stop at instead of the yield, g, where the pressure alone does not land it; null where the
/// yield stands.</param>
public sealed record CoachAdvice(AdviceKind Kind, string Sentence, double? HoldBar = null, double? StopGrams = null);

/// <summary>What a coach at the elbow would say now.</summary>
/// <param name="WantedFlowGramsPerS">The flow that is wanted.</param>
/// <param name="HoldBar">Pressure that would hold it; null before the front is through, and where no pressure does.</param>
/// <param name="FlowOutOfReach">No pressure of this machine and hand gives that flow.</param>
/// <param name="HoldForceKgf">Hand force for that pressure; null where the hand makes none.</param>
/// <param name="SecondsLeft">Until the hand should let go, at the plan; null while nothing can be said.</param>
/// <param name="CupGrams">In the cup as far as it is known: weighed, or worked out from the water that went in.</param>
/// <param name="GramsLeft">Still wanted in the cup.</param>
/// <param name="NextCueSeconds">Until the phase that is due ends; null where it is unknown.</param>
/// <param name="StrokeShare">Share of the stroke under way that is used, 0 to 1.</param>
/// <param name="Stroke">Which stroke, from 1.</param>
/// <param name="MovedMl">Water that the piston has moved.</param>
/// <param name="StrokeMl">Of that, in the stroke under way, from where the lever was last up; on a pump or a stepped lever all of
/// it.</param>
/// <param name="Advice">What is not in the plan; null where all is well.</param>
public sealed record CoachReading(
    double WantedFlowGramsPerS,
    double? HoldBar,
    bool FlowOutOfReach,
    double? HoldForceKgf,
    double? SecondsLeft,
    double CupGrams,
    double GramsLeft,
    double? NextCueSeconds,
    double StrokeShare,
    int Stroke,
    double MovedMl,
    double StrokeMl,
    CoachAdvice? Advice
);
