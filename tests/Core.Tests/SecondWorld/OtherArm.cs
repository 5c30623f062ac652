using RuddySpring.Core.Machines;
using RuddySpring.Core.Pulls;

namespace RuddySpring.Core.Tests.SecondWorld;

/// <summary>An arm that follows a plan after a dead time, swings past what it aims at, drifts and trembles.</summary>
public sealed class OtherArm(SeededRandom random, PullPlan plan, Machine machine, double yieldGrams)
{
    private const double DeadSeconds = 0.25;
    private const double Stiffness = 4.0; // 1/s
    private const double Damping = 0.65;
    private const double DriftBar = 0.25;
    private const double DriftSeconds = 4.0;
    private const double TremorBar = 0.08;
    private const double LetItWorkBar = 2.0;
    private readonly PlanFollower _follower = new(plan, yieldGrams, Strokes.VolumeMl(machine));
    private readonly Queue<(double At, double Bar)> _wanted = [];
    private readonly double _tremorHz = 7 + (2 * random.Uniform());
    private readonly OtherSpring _spring = new(random, machine);
    private double _aims;
    private double _bar;
    private double _speed;
    private double _drift;
    private bool _letGo;

    /// <summary>Pressure in bar now.</summary>
    public double PressureBar { get; private set; }

    /// <summary>Lets go.</summary>
    public void LetGo() => _letGo = true;

    /// <summary>Advances by a step.</summary>
    public void Step(double seconds, double stepSeconds, double cupGrams, double movedMl, double flowGramsPerS)
    {
        var target = _letGo ? 0 : _follower.TargetBar(new(seconds, cupGrams, cupGrams > 0.3, flowGramsPerS, movedMl));
        if (_follower.Phase is null && !_letGo)
            target = plan.Phases[^1].ToBar;
        // a hand that keeps off lets the spring do what it does, whatever the plan says of bars
        var spring = _spring.PressureBar(movedMl);
        if (machine.PressureBy == PressureBy.Spring && target > LetItWorkBar)
            target = spring;
        _wanted.Enqueue((seconds, target));
        while (_wanted.Count > 0 && _wanted.Peek().At <= seconds - DeadSeconds)
            _aims = _wanted.Dequeue().Bar;
        _drift += (-_drift * stepSeconds / DriftSeconds) + random.Normal(DriftBar * Math.Sqrt(2 * stepSeconds / DriftSeconds));
        var pull = _aims <= 0.05 ? 0 : _aims + (_drift * Math.Min(1, _aims / 4));
        _speed += ((Stiffness * Stiffness * (pull - _bar)) - (2 * Damping * Stiffness * _speed)) * stepSeconds;
        _bar += _speed * stepSeconds;
        var tremor = pull > 0.5 ? TremorBar * Math.Sin(2 * Math.PI * _tremorHz * seconds) : 0;
        var most = machine.PressureBy switch
        {
            PressureBy.Arm => Lever.PressureBar(machine, machine.WillingForceKgf),
            PressureBy.Spring => spring,
            _ => 12,
        };
        PressureBar = Math.Clamp(_bar + tremor, 0, most);
    }
}
