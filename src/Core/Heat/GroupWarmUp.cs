using RuddySpring.Core.Machines;
using RuddySpring.Core.Water;

namespace RuddySpring.Core.Heat;

/// <summary>
/// Group of a boiler lever warming from cold: the boiler rises on a straight line to its set pressure, then holds; the group is one
/// lump between boiler and room, C dT/dt = G_b (T_b - T) + G_a (T_a - T), solved exactly for both pieces.
/// Starting numbers for the small dipper (common practice): 760 J/K, 0.9 and 0.6 W/K, boiler up after 8 min, which gives 72 degC after
/// 20 min, 76 after 25 and 81 in the end. A larger group takes the same law with conductances in proportion to its metal.
/// </summary>
public static class GroupWarmUp
{
    private const double ReferenceHeatCapacity = 760.0;
    private const double BoilerWPerK = 0.9;
    private const double AmbientWPerK = 0.6;
    private const double TransferUnits = 1.0;
    private const double DirectBoilerMinutes = 8.0;
    private const double SpringBoilerMinutes = 12.0;
    private static readonly FieldRange Minutes = new("minutes", "Time since switch-on", 0, 600, "min");

    /// <summary>Group temperature in degC some minutes after switch-on (0 to 600), the boiler free of air.</summary>
    /// <exception cref="FieldRangeException">Minutes are out of range.</exception>
    /// <exception cref="DoesNotFitException">The machine has no boiler.</exception>
    public static double GroupC(Machine machine, double minutes, double altitudeMetres, double ambientC)
    {
        Minutes.Check(minutes);
        if (machine.BoilerGaugeBar is not { } gauge)
            throw new DoesNotFitException("machine", "This machine has no boiler, so its group does not warm by itself.");
        var boilerC = Saturation.BoilerTemperatureC(gauge, altitudeMetres);
        var (inflow, outflow) = Conductances(machine);
        var heat = machine.MetalHeatCapacity;
        var lambda = (inflow + outflow) / heat;
        var rise = RiseMinutes(machine) * 60.0;
        var seconds = minutes * 60.0;
        var ramped = Math.Min(seconds, rise);
        // on the ramp T_b = T_a + s t; the deviation from the room has the exact solution below
        var slope = (boilerC - ambientC) / rise;
        var share = inflow / (inflow + outflow);
        var deviation = share * slope * (ramped - ((1.0 - Math.Exp(-lambda * ramped)) / lambda));
        if (seconds > rise)
        {
            var final = share * (boilerC - ambientC);
            deviation = final + ((deviation - final) * Math.Exp(-lambda * (seconds - rise)));
        }

        return ambientC + deviation;
    }

    /// <summary>Minutes from switch-on until the group reaches a temperature in degC; null if it never does.</summary>
    public static double? MinutesUntil(Machine machine, double groupC, double altitudeMetres, double ambientC)
    {
        if (GroupC(machine, 600, altitudeMetres, ambientC) < groupC) return null;
        double low = 0.0, high = 600.0;
        while (high - low > 0.05)
        {
            var middle = (low + high) / 2.0;
            if (GroupC(machine, middle, altitudeMetres, ambientC) < groupC) low = middle;
            else high = middle;
        }

        return high;
    }

    /// <summary>
    /// Water at the puck in degC: boiler water loses heat to the group on its way, T = T_g + (T_b - T_g) exp(-NTU), effectiveness-NTU of
    /// any heat-transfer text. NTU about 1 to begin with, which gives 88 to 92 degC at the puck from a group of 70 to 78 (common practice).
    /// </summary>
    public static Estimate WaterAtPuck(Machine machine, double groupC, double altitudeMetres)
    {
        var boilerC = Saturation.BoilerTemperatureC(machine.BoilerGaugeBar ?? 0.0, altitudeMetres);
        var value = groupC + ((boilerC - groupC) * Math.Exp(-TransferUnits));
        return new(value, 4.0, "a reading of the group with a strip or probe");
    }

    private static double RiseMinutes(Machine machine) =>
        machine.Family == MachineFamily.BoilerSpring ? SpringBoilerMinutes : DirectBoilerMinutes;

    private static (double Boiler, double Ambient) Conductances(Machine machine)
    {
        // the larger spring group hangs on a wide flange: it follows the boiler more closely
        var scale = machine.MetalHeatCapacity / ReferenceHeatCapacity;
        return machine.Family == MachineFamily.BoilerSpring
            ? (BoilerWPerK * scale * 1.5, AmbientWPerK * scale * 0.6)
            : (BoilerWPerK * scale, AmbientWPerK * scale);
    }
}
