using RuddySpring.Core.Machines;
using RuddySpring.Core.Water;

namespace RuddySpring.Core.Heat;

/// <summary>What bleeding a stable boiler to a lower pressure gives.</summary>
/// <param name="WantedWaterC">Water wanted at the puck, degC.</param>
/// <param name="BoilerC">Boiler that gives it, the group as it has settled, degC.</param>
/// <param name="GaugeBar">Gauge to bleed to, bar.</param>
/// <param name="BleedSeconds">Seconds the steam valve is open.</param>
/// <param name="HoldSeconds">How long it stays within a kelvin with the element off.</param>
/// <param name="Shots">How many shots that is, pulled one after the other.</param>
/// <param name="BackSeconds">How long the boiler takes back to its set pressure once switched on.</param>
public sealed record BleedPlan(
    double WantedWaterC,
    double BoilerC,
    double GaugeBar,
    double BleedSeconds,
    double HoldSeconds,
    int Shots,
    double BackSeconds
);

/// <summary>
/// Temperature by pressure (common practice on stable boilers): switch off, bleed steam to a lower gauge, pull one or two shots,
/// switch on again. Gauge and temperature go together along the saturation line at this altitude; the rest is played through the
/// heat model.
/// </summary>
public static class TemperatureByPressure
{
    /// <summary>Water wanted at the puck, degC.</summary>
    public static readonly FieldRange Wanted = new("wantedC", "Wanted temperature", 75, 105, "degC");

    private const double ShotEverySeconds = 150;
    private const double WithinK = 1.0;
    private const double ShotSeconds = 30;

    // how fast the water goes through the group differs from pull to pull
    private const double FlowSpreadK = 2.0;

    /// <summary>
    /// Works it out for a boiler that has settled at its set pressure; null where the wanted water is hotter than the machine
    /// gives as it is set, or so cool that its gauge would show nothing.
    /// </summary>
    public static BleedPlan? For(Machine machine, double wantedWaterC, double altitudeMetres, double ambientC)
    {
        Wanted.Check(wantedWaterC);
        // hotter than it boils here no water stays on its way to the puck
        if (wantedWaterC > Saturation.BoilingPointC(altitudeMetres))
            return null;
        var run = Settled(machine, altitudeMetres, ambientC);
        var pass = PassShare(machine);
        var boilerC = run.GroupC + ((wantedWaterC - run.GroupC) / pass);
        if (boilerC > run.BoilerC!.Value + 0.5 || boilerC <= Saturation.BoilingPointC(altitudeMetres) + 0.2)
            return null;
        var gauge = Saturation.PressureBar(boilerC) - Atmosphere.PressureBar(altitudeMetres);

        run.Add(new(HeatEventKind.Off, run.Seconds));
        var began = run.Seconds;
        while (run.BoilerC > boilerC && run.Seconds < began + 600)
        {
            run.Add(new(HeatEventKind.Bleed, run.Seconds, 1));
            run.AdvanceTo(run.Seconds + 1);
        }

        var bleed = run.Seconds - began;
        var start = run.Seconds;
        var shots = 0;
        while (run.BoilerC > boilerC - WithinK && run.Seconds < start + 3600)
        {
            if (run.Seconds - start >= shots * ShotEverySeconds)
            {
                run.Add(new(HeatEventKind.Shot, run.Seconds, ShotSeconds, ShotWaterGrams(machine)));
                shots++;
            }

            run.AdvanceTo(run.Seconds + 5);
        }

        var held = run.Seconds - start;
        run.Add(new(HeatEventKind.On, run.Seconds));
        var on = run.Seconds;
        run.AdvanceTo(on + 1);
        while (run.BoilerC < run.SetC - 0.2 && run.Seconds < on + 1800)
            run.AdvanceTo(run.Seconds + 5);
        return new(wantedWaterC, boilerC, gauge, bleed, held, shots, run.Seconds - on);
    }

    /// <summary>Water at the puck in degC that bleeding can give: from a gauge that shows nothing to the set pressure, the group
    /// settled.</summary>
    public static (double LowestC, double HighestC) Reach(Machine machine, double altitudeMetres, double ambientC)
    {
        var run = Settled(machine, altitudeMetres, ambientC);
        var pass = PassShare(machine);
        var boiling = Saturation.BoilingPointC(altitudeMetres);
        double Water(double boilerC) => Math.Min(boiling, run.GroupC + ((boilerC - run.GroupC) * pass));
        return (Water(boiling + 0.2), Water(run.BoilerC!.Value));
    }

    /// <summary>Water at the puck of a usual shot pulled now on a boiler machine.</summary>
    public static WaterAtPuck WaterAtPuck(Machine machine, HeatRun now)
    {
        var run = now.Clone();
        run.Add(new(HeatEventKind.Shot, run.Seconds, ShotSeconds, ShotWaterGrams(machine)));
        run.AdvanceTo(run.Seconds + ShotSeconds);
        return WaterAtPuck(machine, run.Shots[^1]);
    }

    /// <summary>The same of a shot that was played.</summary>
    public static WaterAtPuck WaterAtPuck(Machine machine, ShotHeat shot)
    {
        var fromGroup = (1.0 - PassShare(machine)) * shot.PlusMinusK;
        return new(
            shot.WaterC,
            Math.Sqrt((fromGroup * fromGroup) + (FlowSpreadK * FlowSpreadK)),
            "a reading of the group with a strip or probe",
            shot.Course
        );
    }

    /// <summary>A machine that has stood at its set pressure for an hour, bled.</summary>
    private static HeatRun Settled(Machine machine, double altitudeMetres, double ambientC)
    {
        if (!machine.HasBoiler)
            throw new DoesNotFitException("machine", "This machine has no boiler.");
        return HeatRun.Play(
            machine,
            ambientC,
            altitudeMetres,
            [new(HeatEventKind.On, 0), new(HeatEventKind.Bleed, 900, 15)],
            5400,
            records: false
        );
    }

    /// <summary>exp(-NTU) at the flow of a usual shot.</summary>
    private static double PassShare(Machine machine) =>
        Math.Exp(-HeatConstants.Of(machine).PassWPerK / (ShotWaterGrams(machine) / ShotSeconds * Steam.WaterJPerGK));

    private static double ShotWaterGrams(Machine machine)
    {
        var (_, dose, yield) = FamilyDefaults.Of(machine.Family);
        return Shots.CupVolumes.WaterGrams(machine, dose, yield);
    }
}
