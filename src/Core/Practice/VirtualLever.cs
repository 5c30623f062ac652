using RuddySpring.Core.Machines;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Shots;

namespace RuddySpring.Core.Practice;

/// <summary>
/// A lever without metal: what a hand does on screen, a number from 0 to 1, becomes pressure as on the machine. An arm presses
/// harder the more it gives; a spring is held down at 1 and let go at 0; of a pump or a stepped lever it is where the handle
/// stands, and each way down moves water. At 0 a boiler lever stands up and the group fills.
/// </summary>
public sealed class VirtualLever(Machine machine) : IDrive
{
    private const double HardestOverWilling = 1.3;
    private const double ArmLagSeconds = 0.12;
    private const double LiftedBelow = 0.03;
    private const double HeldAbove = 0.95;
    private const double FastestStrokeSeconds = 0.25;
    private const double StrokeBegins = 0.3;
    private const double StrokeEnds = 0.7;

    private readonly double _strokeMl = Machines.Strokes.VolumeMl(machine);
    private double _handle;
    private double _strokeFromMl;
    private bool _down;

    /// <summary>Pressure in bar now.</summary>
    public double PressureBar { get; private set; }

    /// <summary>Whether the lever is up (on a spring: down) and the group fills.</summary>
    public bool Filling { get; private set; }

    /// <summary>Strokes made; of a boiler lever how often it was filled again.</summary>
    public int Strokes { get; private set; }

    /// <summary>Share of the stroke that is used, 0 to 1.</summary>
    public double Travel { get; private set; }

    /// <summary>What the hand does, 0 to 1.</summary>
    public double Effort { get; set; }

    /// <summary>Water that the machine has for this pull, ml.</summary>
    public double MostMl { get; init; } = double.PositiveInfinity;

    /// <inheritdoc/>
    public double Next(in PullState seen, double puckMlPerS, double stepSeconds) =>
        Step(Effort, seen.MovedMl, puckMlPerS, seen.MovedMl < MostMl, stepSeconds);

    /// <summary>Advances by a step in s.</summary>
    /// <param name="effort">What the hand does, 0 to 1.</param>
    /// <param name="movedMl">Water moved so far.</param>
    /// <param name="puckMlPerS">What the puck takes now.</param>
    /// <param name="waterLeft">False when the chamber is empty.</param>
    /// <param name="seconds">Length of the step.</param>
    public double Step(double effort, double movedMl, double puckMlPerS, bool waterLeft, double seconds)
    {
        effort = Math.Clamp(effort, 0, 1);
        if (machine.PressureBy == PressureBy.Strokes)
            return StepStrokes(effort, puckMlPerS, waterLeft, seconds);
        var fills = machine.HasBoiler && (machine.PressureBy == PressureBy.Spring ? effort > HeldAbove : effort < LiftedBelow);
        if (fills)
        {
            if (!Filling && movedMl - _strokeFromMl > 1)
                Strokes++;
            _strokeFromMl = movedMl;
        }

        Filling = fills;
        Travel = Math.Clamp((movedMl - _strokeFromMl) / _strokeMl, 0, 1);
        var spent = movedMl - _strokeFromMl >= _strokeMl;
        var wanted =
            !waterLeft || (spent && !fills) ? 0
            : fills ? machine.BoilerGaugeBar ?? 0
            : machine.PressureBy == PressureBy.Spring ? PressureLimit.MostBar(machine, movedMl - _strokeFromMl) * (1 - effort)
            : Lever.PressureBar(machine, effort * machine.WillingForceKgf * HardestOverWilling, Travel);
        PressureBar += (wanted - PressureBar) * (1 - Math.Exp(-seconds / ArmLagSeconds));
        return PressureBar;
    }

    /// <summary>Hand force in kgf that the effort stands for; null where the hand makes no pressure.</summary>
    public double? ForceKgf(double effort) =>
        machine.PressureBy == PressureBy.Arm ? effort * machine.WillingForceKgf * HardestOverWilling : null;

    /// <summary>dp/dt = (Q_piston - Q_puck) / C, as of any pump against the air in its chamber.</summary>
    private double StepStrokes(double effort, double puckMlPerS, bool waterLeft, double seconds)
    {
        var most = seconds / FastestStrokeSeconds;
        var way = Math.Clamp(effort - _handle, -most, most);
        _handle += way;
        Travel = _handle;
        if (_handle > StrokeEnds && !_down)
        {
            _down = true;
            Strokes++;
        }
        else if (_handle < StrokeBegins)
        {
            _down = false;
        }

        var push = waterLeft ? Math.Max(0, way) * _strokeMl / seconds : 0;
        var give = Compliance.OfChamber(machine, PressureBar);
        return PressureBar = Math.Clamp(PressureBar + ((push - puckMlPerS) / give * seconds), 0, PressureLimit.HighestBar);
    }
}
