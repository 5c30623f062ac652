using RuddySpring.Core;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Pulls;

namespace RuddySpring.Instruments;

/// <summary>An arm that follows a plan: late, unsteady, and no stronger than its machine allows.</summary>
public sealed class StandInHand(SeededRandom random, PullPlan plan, Machine machine, double yieldGrams)
{
    private const double LagSeconds = 0.35;
    private const double WobbleBar = 0.18;
    private const double WobbleSeconds = 1.2;

    private readonly PlanFollower _follower = new(plan, yieldGrams, Strokes.VolumeMl(machine));
    private double _wobble;
    private bool _letGo;
    private readonly StrokeDrive? _strokes = machine.PressureBy == PressureBy.Strokes ? new(machine) : null;
    private double _strokeFromMl;
    private double _lastMl;

    /// <summary>Pressure in bar now.</summary>
    public double PressureBar { get; private set; }

    /// <summary>Lets the lever go.</summary>
    public void LetGo() => _letGo = true;

    /// <summary>Advances by a step in s.</summary>
    /// <param name="seconds">Since the lever moved.</param>
    /// <param name="stepSeconds">Length of the step.</param>
    /// <param name="cupGrams">What the eye sees in the cup.</param>
    /// <param name="movedMl">Water moved so far.</param>
    /// <param name="flowGramsPerS">What the eye takes the stream for.</param>
    public void Step(double seconds, double stepSeconds, double cupGrams, double movedMl, double flowGramsPerS = 0)
    {
        var target = _letGo ? 0.0 : _follower.TargetBar(new(seconds, cupGrams, cupGrams > 0.3, flowGramsPerS, movedMl));
        if (_follower.Phase is null && !_letGo) target = plan.Phases[^1].ToBar; // goes on until told to stop
        _wobble += (-_wobble * stepSeconds / WobbleSeconds) + random.Normal(WobbleBar * Math.Sqrt(2.0 * stepSeconds / WobbleSeconds));
        var wanted = target <= 0.05 ? 0.0 : Math.Max(0.0, target + (_wobble * Math.Min(1.0, target / 3.0)));
        var lifted = _follower.Phase?.Move == PhaseMove.Lift;
        if (lifted) _strokeFromMl = movedMl;
        var most = lifted ? machine.BoilerGaugeBar ?? target : ShotSimulator.MostPressureBar(machine, movedMl - _strokeFromMl);
        var lag = _letGo ? LagSeconds * 0.7 : LagSeconds;
        var reached = Math.Min(wanted, most);
        PressureBar = _strokes is not null
            ? _strokes.Next(reached, PressureBar, (movedMl - _lastMl) / stepSeconds, stepSeconds)
            : PressureBar + ((reached - PressureBar) * (1.0 - Math.Exp(-stepSeconds / lag)));
        _lastMl = movedMl;
    }
}
