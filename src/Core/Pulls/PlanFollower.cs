namespace RuddySpring.Core.Pulls;

/// <summary>What is known of a pull at one instant.</summary>
/// <param name="Seconds">Since the pull began; not running backwards.</param>
/// <param name="CupGrams">In the cup.</param>
/// <param name="DropsSeen">Whether first drops have fallen.</param>
/// <param name="FlowGramsPerS">Into the cup.</param>
/// <param name="MovedMl">Water that the piston has moved; only its differences count.</param>
/// <param name="Blonding">Whether the stream has turned pale.</param>
/// <param name="DropsAt">When first drops fell, s, where they are seen later than they fall; null for when they were
/// seen.</param>
public readonly record struct PullState(
    double Seconds,
    double CupGrams,
    bool DropsSeen,
    double FlowGramsPerS = 0,
    double MovedMl = 0,
    bool Blonding = false,
    double? DropsAt = null
);

/// <summary>Where a pull stands in its plan: phase by phase, from what is seen as it goes.</summary>
/// <param name="plan">The plan.</param>
/// <param name="yieldGrams">Where it ends, g.</param>
/// <param name="strokeMl">Water of one stroke, ml; null where nobody knows, so that a stroke ends by its longest time.</param>
public sealed class PlanFollower(PullPlan plan, double yieldGrams, double? strokeMl = null)
{
    private const double LeastBar = 0.5;
    private const double FlowFollowSeconds = 1.5;
    private const double LeastFlow = 0.05;
    private double _phaseStart;
    private double _phaseStartGrams;
    private double _phaseStartMl;
    private double _fromBar;
    private double _last;
    private double _holdBar;

    /// <summary>Index of the phase that is due; equal to the number of phases once the yield is reached.</summary>
    public int PhaseIndex { get; private set; }

    /// <summary>The phase that is due, or null when the plan is done.</summary>
    public PullPhase? Phase => PhaseIndex < plan.Phases.Count ? plan.Phases[PhaseIndex] : null;

    /// <summary>Another follower that stands where this one does.</summary>
    public PlanFollower Copy() => (PlanFollower)MemberwiseClone();

    /// <summary>Pressure in bar the plan wants now, where only seconds, grams and drops are seen.</summary>
    public double TargetBar(double seconds, double cupGrams, bool dropsSeen) => TargetBar(new(seconds, cupGrams, dropsSeen));

    /// <summary>Pressure in bar the plan wants now.</summary>
    public double TargetBar(PullState now)
    {
        while (Phase is { } phase && IsOver(phase, now))
        {
            _fromBar = phase.Move == PhaseMove.HoldFlow ? _holdBar : phase.ToBar;
            _phaseStart =
                phase.Ending == PhaseEnding.FirstDrops && now.DropsAt is { } fell
                    ? Math.Clamp(fell, _phaseStart, now.Seconds)
                    : now.Seconds;
            _phaseStartGrams = now.CupGrams;
            _phaseStartMl = now.MovedMl;
            _holdBar = _fromBar;
            PhaseIndex++;
        }

        var step = Math.Max(0.0, now.Seconds - _last);
        _last = now.Seconds;
        return Phase switch
        {
            null => 0.0,
            { Move: PhaseMove.HoldFlow } due => Hold(due, now, step),
            var due => _fromBar + ((due.ToBar - _fromBar) * Progress(due, now)),
        };
    }

    /// <summary>Follows the flow that is wanted as a hand would: too fast, ease; too slow, press, up to the phase's
    /// most.</summary>
    private double Hold(PullPhase due, PullState now, double stepSeconds)
    {
        if (_holdBar < LeastBar)
            _holdBar = due.ToBar;
        if (now.FlowGramsPerS > LeastFlow)
        {
            var off = Math.Clamp(Math.Log(due.FlowGramsPerS / now.FlowGramsPerS), -1.0, 1.0);
            _holdBar *= Math.Exp(off * stepSeconds / FlowFollowSeconds);
        }

        return _holdBar = Math.Clamp(_holdBar, Math.Min(LeastBar, due.ToBar), due.ToBar);
    }

    private bool IsOver(PullPhase phase, PullState now)
    {
        if (now.CupGrams >= yieldGrams)
            return true;
        var inPhase = now.Seconds - _phaseStart;
        return phase.Ending switch
        {
            PhaseEnding.FirstDrops => now.DropsSeen || inPhase >= phase.AtMostSeconds,
            PhaseEnding.Blonding => now.Blonding || inPhase >= phase.AtMostSeconds,
            PhaseEnding.Strokes => inPhase >= phase.AtMostSeconds
                || (strokeMl is { } ml && now.MovedMl - _phaseStartMl >= (phase.EndsAt * ml) - 1e-6),
            PhaseEnding.Seconds => inPhase >= phase.EndsAt,
            PhaseEnding.Grams => now.CupGrams >= phase.EndsAt,
            _ => now.CupGrams >= phase.EndsAt * yieldGrams,
        };
    }

    private double Progress(PullPhase phase, PullState now)
    {
        var inPhase = now.Seconds - _phaseStart;
        return phase.Ending switch
        {
            PhaseEnding.Seconds when phase.Move is PhaseMove.Press => Ratio(inPhase, phase.EndsAt),
            // a phase by grams rises with the clock where it has a lead, so that it does not wait for a flow that waits for it
            PhaseEnding.YieldShare or PhaseEnding.Grams when phase.LeadSeconds <= 0 => Ratio(
                now.CupGrams - _phaseStartGrams,
                (phase.Ending == PhaseEnding.Grams ? phase.EndsAt : phase.EndsAt * yieldGrams) - _phaseStartGrams
            ),
            _ => Ratio(inPhase, phase.LeadSeconds),
        };
    }

    private static double Ratio(double done, double whole) => whole <= 0.0 ? 1.0 : Math.Clamp(done / whole, 0.0, 1.0);
}
