using System.Globalization;
using RuddySpring.Core.Heat;
using RuddySpring.Core.Machines;

namespace RuddySpring.Core.Milk;

/// <summary>What steaming takes, and what it costs the machine.</summary>
/// <param name="HeatKilojoules">Heat that the milk takes, kJ.</param>
/// <param name="SteamGrams">Steam that condenses in it, g: as much water more is in the jug.</param>
/// <param name="Seconds">How long the valve stands open, s; null where the pressure does not last.</param>
/// <param name="VolumeMl">Milk before, ml.</param>
/// <param name="StretchedMl">With its foam, ml.</param>
/// <param name="GaugeBeforeBar">Boiler before, bar.</param>
/// <param name="GaugeAfterBar">Boiler after, bar.</param>
/// <param name="RecoverSeconds">Until the boiler stands where it was, s.</param>
/// <param name="WaterLeftGrams">Left in the boiler above what must stay, g.</param>
/// <param name="Sentence">The same for the next shots, in words.</param>
public sealed record SteamingPlan(
    double HeatKilojoules,
    double SteamGrams,
    double? Seconds,
    double VolumeMl,
    double StretchedMl,
    double GaugeBeforeBar,
    double GaugeAfterBar,
    double RecoverSeconds,
    double WaterLeftGrams,
    string Sentence
);

/// <summary>Milk steamed on a boiler lever, played through the heat model second by second: the flow through the valve falls with
/// the pressure, and the element makes up for some of it.</summary>
public static class Steaming
{
    private const double WarmSeconds = 1800;
    private const double BledAtSeconds = 900;
    private const double BledSeconds = 20;
    private const double Longest = 180;
    private const double LeastBar = 0.15;
    private const double LongestWait = 1800;

    /// <summary>Works it out on a machine that is ready; null where it has no boiler.</summary>
    /// <param name="machine">The machine.</param>
    /// <param name="order">The milk.</param>
    /// <param name="ambientC">Room, degC.</param>
    /// <param name="altitudeMetres">Height above the sea, m.</param>
    public static SteamingPlan? Of(Machine machine, MilkOrder order, double ambientC, double altitudeMetres)
    {
        if (!machine.HasBoiler)
            return null;
        var constants = HeatConstants.Of(machine);
        var run = new HeatRun(machine, ambientC, altitudeMetres, records: false);
        run.Add(new(HeatEventKind.On, 0));
        run.Add(new(HeatEventKind.Bleed, BledAtSeconds, BledSeconds));
        run.AdvanceTo(WarmSeconds);
        // people begin as the element has just gone off
        for (var until = run.Seconds + LongestWait; run.Heating && run.Seconds < until; )
            run.AdvanceTo(run.Seconds + 1);
        var (before, start) = (run.GaugeBar!.Value, run.Seconds);
        var needs = order.SteamGrams(run.BoilerC!.Value);
        var given = 0.0;
        while (given < needs && run.Seconds - start < Longest && run.GaugeBar > LeastBar)
        {
            var grams = Math.Min(needs - given, constants.SteamGramsPerS * Math.Min(1, run.GaugeBar.Value));
            run.Add(new(HeatEventKind.Steam, run.Seconds, 1, grams));
            run.AdvanceTo(run.Seconds + 1);
            given += grams;
        }

        var lasts = given >= needs - 1e-6;
        var (seconds, after, over) = (run.Seconds - start, run.GaugeBar!.Value, run.Seconds);
        while (run.GaugeBar < before - 0.02 && run.Seconds - over < LongestWait)
            run.AdvanceTo(run.Seconds + 1);
        var recover = run.Seconds - over;
        var left = Math.Max(0, run.WaterGrams - constants.MinimumGrams);
        return new(
            order.HeatJ / 1000,
            needs,
            lasts ? seconds : null,
            order.VolumeMl,
            order.StretchedMl,
            before,
            after,
            recover,
            left,
            Said(lasts, seconds, after, recover, given, needs)
        );
    }

    private static string Said(bool lasts, double seconds, double after, double recover, double given, double needs)
    {
        var back = Math.Ceiling(recover);
        return lasts
            ? string.Create(
                CultureInfo.InvariantCulture,
                $"The boiler falls to {Quantity.Bar(after):0.00} and is back after {back:0} s: pull after that, "
                    + $"or the shot is cooler."
            )
            : FormattableString.Invariant(
                $"The pressure does not last: after {seconds:0} s it has given {given:0} of {needs:0} g "
            )
                + FormattableString.Invariant(
                    $"of steam. Steam less milk at once, or let the boiler recover for {back:0} s and go on."
                );
    }
}
