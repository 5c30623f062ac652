using RuddySpring.Core.Machines;

namespace RuddySpring.Core.Heat;

/// <summary>What happens to a machine that is simply warmed, nothing pulled: the course that a log of temperatures is compared
/// with.</summary>
public static class UsualWarmUp
{
    private const double LongestSeconds = 2400;
    private const double BleedSeconds = 14;
    private const double BledAtLatestSeconds = 600;

    /// <summary>A boiler switched on at 0 s and bled as soon as its element first goes off.</summary>
    public static IReadOnlyList<HeatEvent> Boiler(Machine machine, double ambientC, double altitudeMetres)
    {
        var on = new HeatEvent(HeatEventKind.On, 0);
        var run = HeatRun.Play(machine, ambientC, altitudeMetres, [on], LongestSeconds, records: false);
        var off = run.ElementChanges.FirstOrDefault(c => !c.On).Seconds;
        return [on, new(HeatEventKind.Bleed, off > 0 ? off : BledAtLatestSeconds, BleedSeconds)];
    }

    /// <summary>
    /// A log of group temperatures against time: since switch-on for a boiler or a heated group, since the preheat ended for the
    /// others, which are warmed in the first way that suits them.
    /// </summary>
    /// <param name="machine">The machine.</param>
    /// <param name="readings">Seconds and degC.</param>
    /// <param name="ambientC">Room, degC.</param>
    /// <param name="altitudeMetres">Height above the sea, m.</param>
    public static HeatLog Log(Machine machine, IReadOnlyList<HeatReading> readings, double ambientC, double altitudeMetres)
    {
        if (machine.HasBoiler)
            return new(Boiler(machine, ambientC, altitudeMetres), readings, ambientC, altitudeMetres);
        var way = KettlePreheat.Usual(machine, KettlePreheat.Methods(machine)[0]);
        var after = way.Method == PreheatMethod.ElectricStep ? 0 : way.Seconds;
        var events = KettlePreheat.Events(machine, way, 0, Water.Saturation.BoilingPointC(altitudeMetres));
        return new(events, [.. readings.Select(r => r with { AtSeconds = r.AtSeconds + after })], ambientC, altitudeMetres);
    }
}
