using RuddySpring.Core;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Shots;

namespace RuddySpring.Instruments;

/// <summary>An arm that follows a plan: late, unsteady, and no stronger than its machine allows.</summary>
public sealed class StandInHand(SeededRandom random, PullPlan plan, Machine machine, double yieldGrams) : IDrive
{
    private const double LagSeconds = 0.35;
    private const double RefillSeconds = 2.2;
    private const double WobbleBar = 0.18;
    private const double WobbleSeconds = 1.2;

    private readonly PlanFollower _follower = new(plan, yieldGrams, Strokes.VolumeMl(machine));
    private double _wobble;
    private bool _letGo;
    private readonly StrokePressure? _strokes = machine.PressureBy == PressureBy.Strokes ? new(machine) : null;
    private readonly LeverStroke _stroke = new(machine, RefillSeconds);

    /// <summary>Pressure in bar now.</summary>
    public double PressureBar { get; private set; }

    /// <summary>Lets the lever go.</summary>
    public void LetGo() => _letGo = true;

    /// <inheritdoc/>
    public double Next(in PullState seen, double puckMlPerS, double stepSeconds)
    {
        // an eye takes a little more than a drop for first drops
        var target = _letGo ? 0.0 : _follower.TargetBar(seen with { DropsSeen = seen.CupGrams > 0.3 });
        if (_follower.Phase is null && !_letGo)
            target = plan.Phases[^1].ToBar; // goes on until told to stop
        _wobble +=
            (-_wobble * stepSeconds / WobbleSeconds) + random.Normal(WobbleBar * Math.Sqrt(2.0 * stepSeconds / WobbleSeconds));
        var wanted = target <= 0.05 ? 0.0 : Math.Max(0.0, target + (_wobble * Math.Min(1.0, target / 3.0)));
        var lifted = !_letGo && _stroke.Fills(seen.MovedMl, _follower.Phase?.Move == PhaseMove.Lift, stepSeconds);
        var most = lifted ? machine.BoilerGaugeBar ?? target : PressureLimit.MostBar(machine, seen.MovedMl - _stroke.FromMl);
        var lag = _letGo ? LagSeconds * 0.7 : LagSeconds;
        var reached = Math.Min(wanted, most);
        PressureBar = _strokes is not null
            ? _strokes.Next(reached, PressureBar, puckMlPerS, stepSeconds)
            : PressureBar + ((reached - PressureBar) * (1.0 - Math.Exp(-stepSeconds / lag)));
        return PressureBar;
    }
}
