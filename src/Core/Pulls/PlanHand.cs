using RuddySpring.Core.Machines;

namespace RuddySpring.Core.Pulls;

/// <summary>
/// A steady hand that follows a plan on a machine: a short lag behind what the plan wants, never beyond the force the brewer is willing to
/// use or what the spring still gives, at boiler pressure while a lever is lifted, stroke by stroke where strokes make the pressure.
/// </summary>
/// <param name="follower">Where the pull stands in its plan.</param>
/// <param name="machine">The machine.</param>
/// <param name="pressureBar">Where it starts, bar.</param>
/// <param name="strokeFromMl">Water in ml that had moved when the stroke under way began.</param>
public sealed class PlanHand(PlanFollower follower, Machine machine, double pressureBar = 0, double strokeFromMl = 0)
{
    /// <summary>How far the hand is behind the plan, s.</summary>
    public const double LagSeconds = 0.3;

    private readonly StrokeDrive? _strokes = machine.PressureBy == PressureBy.Strokes ? new StrokeDrive(machine) : null;
    private double _stepSeconds;
    private double _followShare;

    /// <summary>Pressure in bar now.</summary>
    public double PressureBar { get; private set; } = pressureBar;

    /// <summary>Water in ml that had moved when the stroke under way began.</summary>
    public double StrokeFromMl { get; private set; } = strokeFromMl;

    /// <summary>Most that the machine would give now, bar.</summary>
    public double MostBar { get; private set; } = ShotSimulator.MostPressureBar(machine, 0);

    /// <summary>The pressure after a step in s.</summary>
    /// <param name="now">What is seen of the pull.</param>
    /// <param name="puckMlPerS">What the puck takes now.</param>
    /// <param name="stepSeconds">Length of the step.</param>
    /// <param name="waterLeft">False when the chamber is empty.</param>
    /// <param name="factor">On what the plan wants of the hand.</param>
    public double Next(PullState now, double puckMlPerS, double stepSeconds, bool waterLeft = true, double factor = 1)
    {
        if (stepSeconds != _stepSeconds) (_stepSeconds, _followShare) = (stepSeconds, 1.0 - Math.Exp(-stepSeconds / LagSeconds));
        var target = factor * follower.TargetBar(now);
        var lifted = follower.Phase?.Move == PhaseMove.Lift;
        if (lifted) StrokeFromMl = now.MovedMl;
        MostBar = lifted ? machine.BoilerGaugeBar ?? PullPlan.PlanPressure.Max : ShotSimulator.MostPressureBar(machine, now.MovedMl - StrokeFromMl);
        var limited = waterLeft ? Math.Min(target, MostBar) : 0.0;
        return PressureBar = _strokes?.Next(limited, PressureBar, puckMlPerS, stepSeconds) ?? PressureBar + ((limited - PressureBar) * _followShare);
    }
}
