using RuddySpring.Core.Machines;

namespace RuddySpring.Core.Heat;

/// <summary>
/// What is not known about the group's temperature: small at a cold start, growing to the machine's own spread at the pace at
/// which the group itself goes, less after a reading (scalar Kalman filter).
/// </summary>
internal sealed class GroupDoubt(Machine machine, HeatConstants constants)
{
    private const double ColdSpreadK = 1.0;

    private double _variance = ColdSpreadK * ColdSpreadK;

    /// <summary>One standard deviation, K.</summary>
    public double PlusMinusK => Math.Sqrt(_variance);

    /// <summary>The same doubt, to go on with separately.</summary>
    public GroupDoubt Clone() => new(machine, constants) { _variance = _variance };

    /// <summary>Time goes by, s.</summary>
    public void Relax(double seconds)
    {
        var pace =
            (constants.GroupAmbientWPerK + (machine.HasBoiler ? constants.EffectiveBoilerGroupWPerK : 0))
            / machine.MetalHeatCapacity;
        var spread = constants.SpreadK * constants.SpreadK;
        _variance = spread + ((_variance - spread) * Math.Exp(-2.0 * pace * seconds));
    }

    /// <summary>By how many K a reading with its deviation in K moves the estimate.</summary>
    public double Read(double readingC, double groupC, double sigmaK)
    {
        var gain = _variance / (_variance + (sigmaK * sigmaK));
        _variance *= 1.0 - gain;
        return gain * (readingC - groupC);
    }
}
