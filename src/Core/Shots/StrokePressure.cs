using RuddySpring.Core.Machines;

namespace RuddySpring.Core.Shots;

/// <summary>
/// Pressure made stroke by stroke: dp/dt = (Q_piston - Q_puck) / C with C the compliance of the air in the chamber. The hand
/// pushes a stroke as hard as the wanted pressure asks and no faster than it can, then draws back, and meanwhile the puck lets
/// the pressure fall.
/// </summary>
/// <param name="machine">A pump or a stepped lever.</param>
public sealed class StrokePressure(Machine machine)
{
    private const double PumpStrokeSeconds = 0.35;
    private const double PumpBackSeconds = 0.2;
    private const double StepSeconds = 2.0;
    private const double StepBackSeconds = 0.6;
    private const double FollowSeconds = 0.3;

    private readonly double _strokeMl = Strokes.VolumeMl(machine);
    private readonly bool _pump = machine.Family == MachineFamily.HandPump;
    private double _leftMl = Strokes.VolumeMl(machine);
    private double _backSeconds;

    /// <summary>The pressure in bar after a step in s.</summary>
    /// <param name="targetBar">Wanted.</param>
    /// <param name="pressureBar">Now.</param>
    /// <param name="puckMlPerS">What the puck takes now.</param>
    /// <param name="seconds">Length of the step.</param>
    public double Next(double targetBar, double pressureBar, double puckMlPerS, double seconds)
    {
        var give = Compliance.OfChamber(machine, pressureBar);
        var push = 0.0;
        if (_backSeconds > 0)
        {
            _backSeconds -= seconds;
        }
        else if (targetBar > 0.05)
        {
            push = Math.Clamp(
                puckMlPerS + (give * (targetBar - pressureBar) / FollowSeconds),
                0.0,
                _strokeMl / (_pump ? PumpStrokeSeconds : StepSeconds)
            );
            _leftMl -= push * seconds;
            if (_leftMl <= 0)
            {
                _leftMl = _strokeMl;
                _backSeconds = _pump ? PumpBackSeconds : StepBackSeconds;
            }
        }

        return Math.Max(0.0, pressureBar + ((push - puckMlPerS) / give * seconds));
    }
}
