using RuddySpring.Core.Reasoning.Schools;

namespace RuddySpring.Core.Reasoning.Causes;

/// <summary>The stream ran faster or slower than it is to be held at: a cause for those who lead by the flow only.</summary>
public sealed class FlowNotHeld : Cause
{
    private const double Often = 0.25;
    private const double OutOfReach = 0.03; // what no arm could have held is not the arm's

    public override string Key => "flow-not-held";

    public override string Name => "The stream was not held";

    public override WorkingOrder Order => WorkingOrder.Pull;

    public override Sign? Proof => Sign.Flow;

    public override double Odds(ShotFacts shot) =>
        shot.School is not FlowLed || shot.Restricted ? 0
        : FlowLed.ArmHolds(shot) == false ? OutOfReach
        : Often;

    public override IReadOnlyList<CauseCase> Cases(ShotFacts shot)
    {
        CauseCase Way(int way) =>
            new(
                0.5,
                0.35 * way,
                [new(Sign.Flow, 0.35 * way, 0.2), new(Sign.Sour, 0.4 * way, 0.5), new(Sign.Bitter, -0.4 * way, 0.5)]
            );
        return [Way(1), Way(-1)];
    }

    public override NextChange Change(ShotFacts shot, double size) =>
        size > 0
            ? new(
                "Ease sooner, and go on easing: hold the stream at 1.3 to 1.6 g/s.",
                "Leave the grind alone while the arm can still hold the stream.",
                "A level stream, and less sour."
            )
            : new(
                "Press a little more while the stream is under 1.3 g/s, as far as one arm goes.",
                "Leave the grind alone while the arm can still hold the stream.",
                "A level stream, and less bitter."
            );
}
