namespace RuddySpring.Core.Pulls;

/// <summary>What the arm does in a phase.</summary>
public enum ArmMove
{
    /// <summary>The pressure rises.</summary>
    Press,

    /// <summary>It stays.</summary>
    Hold,

    /// <summary>It falls slowly, or the flow is held.</summary>
    Ease,

    /// <summary>The lever goes up and the group fills.</summary>
    Lift,

    /// <summary>Nothing is pressed.</summary>
    Wait,
}

/// <summary>A phase as the arm's work.</summary>
/// <param name="Move">What the arm does.</param>
/// <param name="Sentence">That, and how the hand knows that it is over.</param>
public sealed record ArmStep(ArmMove Move, string Sentence);

/// <summary>A plan as what the arm does: press, hold, ease, lift or wait, each with how the hand knows that it is over.</summary>
public static class ArmSteps
{
    private const double StaysBar = 0.3;
    private const double WholeShare = 0.995;

    /// <summary>A step for each phase.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="yieldGrams">Yield, g, for what ends at a share of it.</param>
    public static IReadOnlyList<ArmStep> Of(PullPlan plan, double yieldGrams)
    {
        var before = 0.0;
        var steps = new List<ArmStep>(plan.Phases.Count);
        foreach (var phase in plan.Phases)
        {
            var move = MoveOf(phase, before, steps.Count == 0);
            steps.Add(new(move, $"{What(phase, move)}{End(phase, move, yieldGrams)}."));
            if (phase.Move is PhaseMove.Press or PhaseMove.HoldFlow)
                before = phase.ToBar;
        }

        return steps;
    }

    private static ArmMove MoveOf(PullPhase phase, double beforeBar, bool first) =>
        phase.Move switch
        {
            PhaseMove.Lift => ArmMove.Lift,
            PhaseMove.Rest => ArmMove.Wait,
            PhaseMove.HoldFlow => ArmMove.Ease,
            // what is pressed to at once and waited at is held
            _ when Math.Abs(phase.ToBar - beforeBar) <= StaysBar || (first && phase.Ending != PhaseEnding.Seconds) =>
                ArmMove.Hold,
            _ => phase.ToBar > beforeBar ? ArmMove.Press : ArmMove.Ease,
        };

    private static string What(PullPhase phase, ArmMove move) =>
        move switch
        {
            ArmMove.Press => $"Press to {Quantity.Bar(phase.ToBar):0.0}",
            ArmMove.Hold => $"Hold {Quantity.Bar(phase.ToBar):0.0}",
            ArmMove.Lift => "Lift and let the group fill",
            ArmMove.Wait => "Wait without pressure",
            _ => phase.Move == PhaseMove.HoldFlow
                ? $"Ease so that the flow stays at {phase.FlowGramsPerS:0.#} g/s"
                : $"Ease to {Quantity.Bar(phase.ToBar):0.0}",
        };

    private static string End(PullPhase phase, ArmMove move, double yieldGrams) =>
        phase.Ending switch
        {
            PhaseEnding.FirstDrops => " until first drops",
            PhaseEnding.Blonding => " until the stream turns pale",
            PhaseEnding.Strokes => phase.EndsAt == 0.5 ? " for half a stroke" : $" for {phase.EndsAt:0.#} strokes",
            PhaseEnding.Grams => $" until {phase.EndsAt:0.#} g",
            PhaseEnding.YieldShare => phase.EndsAt >= WholeShare
                ? " to the end of the cup"
                : $" until {phase.EndsAt * yieldGrams:0.#} g",
            _ => move is ArmMove.Press or ArmMove.Ease ? $" within {phase.EndsAt:0.#} s" : $" for {phase.EndsAt:0.#} s",
        };
}
