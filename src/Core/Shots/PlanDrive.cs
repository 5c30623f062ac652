using RuddySpring.Core.Machines;
using RuddySpring.Core.Pulls;

namespace RuddySpring.Core.Shots;

/// <summary>
/// A steady hand that follows a plan on a machine: a short lag behind what the plan wants, never beyond the force the brewer is
/// willing to use as the lever stands or what the spring still gives, at boiler pressure while a lever is lifted, stroke by
/// stroke where strokes make the pressure. A boiler lever whose stroke has run out is refilled, which takes its time; a chamber
/// that is empty gives nothing more.
/// </summary>
/// <param name="follower">Where the pull stands in its plan.</param>
/// <param name="machine">The machine.</param>
/// <param name="pressureBar">Where it starts, bar.</param>
/// <param name="strokeFromMl">Water in ml that had moved when the stroke under way began.</param>
/// <param name="factor">On what the plan wants of the hand.</param>
public sealed class PlanDrive(
    PlanFollower follower,
    Machine machine,
    double pressureBar = 0,
    double strokeFromMl = 0,
    double factor = 1
) : IDrive
{
    /// <summary>How far the hand is behind the plan, s.</summary>
    public const double LagSeconds = 0.3;

    /// <summary>To lift a lever that has run out, or cock its spring, and let the group fill, s (common practice: two or
    /// three).</summary>
    public const double RefillSeconds = 2.0;

    private readonly StrokePressure? _strokes = machine.PressureBy == PressureBy.Strokes ? new StrokePressure(machine) : null;
    private readonly double _mostMl = CupVolumes.MostPuckMl(machine);
    private readonly LeverStroke _stroke = new(machine, RefillSeconds, strokeFromMl);
    private double _stepSeconds;
    private double _followShare;

    /// <summary>Pressure in bar now.</summary>
    public double PressureBar { get; private set; } = pressureBar;

    /// <summary>Water in ml that had moved when the stroke under way began.</summary>
    public double StrokeFromMl => _stroke.FromMl;

    /// <summary>Most that the machine would give now, bar.</summary>
    public double MostBar { get; private set; } = PressureLimit.MostBar(machine, 0);

    /// <summary>Whether there is water left when so many ml have moved.</summary>
    public bool HasWater(double movedMl) => movedMl < _mostMl;

    /// <inheritdoc/>
    public double Next(in PullState seen, double puckMlPerS, double stepSeconds)
    {
        if (stepSeconds != _stepSeconds)
            (_stepSeconds, _followShare) = (stepSeconds, 1.0 - Math.Exp(-stepSeconds / LagSeconds));
        var target = factor * follower.TargetBar(seen);
        var lifted = _stroke.Fills(seen.MovedMl, follower.Phase?.Move == PhaseMove.Lift, stepSeconds);
        MostBar = lifted
            ? machine.BoilerGaugeBar ?? PressureLimit.HighestBar
            : PressureLimit.MostBar(machine, seen.MovedMl - StrokeFromMl);
        if (!HasWater(seen.MovedMl))
            return PressureBar = 0; // the piston stands on the bottom
        var limited = Math.Min(target, MostBar);
        return PressureBar = _strokes?.Next(limited, PressureBar, puckMlPerS, stepSeconds)
            ?? PressureBar + ((limited - PressureBar) * _followShare);
    }
}
