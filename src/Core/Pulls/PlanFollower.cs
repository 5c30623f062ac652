namespace RuddySpring.Core.Pulls;

/// <summary>Where a pull stands in its plan: phase by phase, from seconds, grams and first drops as they come.</summary>
public sealed class PlanFollower(PullPlan plan, double yieldGrams)
{
    private double _phaseStart;
    private double _phaseStartGrams;
    private double _fromBar;

    /// <summary>Index of the phase that is due; equal to the number of phases once the yield is reached.</summary>
    public int PhaseIndex { get; private set; }

    /// <summary>The phase that is due, or null when the plan is done.</summary>
    public PullPhase? Phase => PhaseIndex < plan.Phases.Count ? plan.Phases[PhaseIndex] : null;

    /// <summary>
    /// Pressure in bar the plan wants now.
    /// </summary>
    /// <param name="seconds">Since the pull began; not running backwards.</param>
    /// <param name="cupGrams">In the cup now.</param>
    /// <param name="dropsSeen">Whether first drops have fallen.</param>
    public double TargetBar(double seconds, double cupGrams, bool dropsSeen)
    {
        while (Phase is { } phase && IsOver(phase, seconds, cupGrams, dropsSeen))
        {
            _fromBar = phase.ToBar;
            _phaseStart = seconds;
            _phaseStartGrams = cupGrams;
            PhaseIndex++;
        }

        return Phase is { } due
            ? _fromBar + ((due.ToBar - _fromBar) * Progress(due, seconds, cupGrams))
            : 0.0;
    }

    private bool IsOver(PullPhase phase, double seconds, double cupGrams, bool dropsSeen)
    {
        if (cupGrams >= yieldGrams) return true;
        var inPhase = seconds - _phaseStart;
        return phase.Ending switch
        {
            PhaseEnding.FirstDrops => dropsSeen || inPhase >= phase.AtMostSeconds,
            PhaseEnding.Seconds => inPhase >= phase.EndsAt,
            _ => cupGrams >= phase.EndsAt * yieldGrams,
        };
    }

    private double Progress(PullPhase phase, double seconds, double cupGrams) => phase.Ending switch
    {
        PhaseEnding.FirstDrops => Ratio(seconds - _phaseStart, phase.LeadSeconds),
        PhaseEnding.Seconds => Ratio(seconds - _phaseStart, phase.EndsAt),
        _ => Ratio(cupGrams - _phaseStartGrams, (phase.EndsAt * yieldGrams) - _phaseStartGrams),
    };

    private static double Ratio(double done, double whole) => whole <= 0.0 ? 1.0 : Math.Clamp(done / whole, 0.0, 1.0);
}
