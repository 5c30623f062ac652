using System.Globalization;
using Microsoft.EntityFrameworkCore;
using RuddySpring.Core;
using RuddySpring.Core.Heat;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Milk;
using RuddySpring.Core.Sessions;
using RuddySpring.Core.Water;
using RuddySpring.Server.Prepare;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Warm;

/// <summary>One way to warm a kettle machine, and what it gives.</summary>
/// <param name="NowC">Water at the puck, pressed straight after pouring.</param>
/// <param name="BloomedC">The same after the bloom that was asked for.</param>
/// <param name="LossC">Below the kettle's boiling point, pressed at once, K.</param>
public sealed record WarmWay(
    PreheatMethod Method,
    string Name,
    string How,
    string Caution,
    double Seconds,
    double MetalC,
    double NowC,
    double BloomedC,
    double PlusMinusK,
    double LossC
);

/// <summary>All ways that suit a kettle machine.</summary>
public sealed record WaysView(double BoilingPointC, double BloomSeconds, int Times, IReadOnlyList<WarmWay> Ways);

/// <summary>What to bleed to for a wanted temperature; null plan where that cannot be had.</summary>
public sealed record BleedView(double LowestC, double HighestC, BleedPlan? Plan, string Sentence);

/// <summary>Milk, and what it takes.</summary>
/// <param name="Steaming">On this machine's steam; null where it has none and a frother does it.</param>
/// <param name="EndC">As it is drunk, degC.</param>
/// <param name="Steps">What is done with the wand.</param>
/// <param name="Wipe">What is done with it afterwards.</param>
/// <param name="About">What is different with this kind; null for nothing.</param>
public sealed record MilkView(
    SteamingPlan? Steaming,
    double EndC,
    IReadOnlyList<string> Steps,
    string Wipe,
    string Caution,
    string? About
);

/// <summary>What the heat of the sheet's machine makes possible.</summary>
public static class WarmEndpoints
{
    public static void MapWarm(this IEndpointRouteBuilder api)
    {
        api.MapGet(
            "/warm/ways",
            async (double? bloomSeconds, int? times, double? stepC, RuddyContext db, CancellationToken cancel) =>
            {
                var (row, household) = await PlaceAsync(db, cancel);
                if (row.Spec.HasBoiler)
                    throw new DoesNotFitException("machine", "This machine has a boiler; its group warms by itself.");
                return Ways(row.Spec, household, bloomSeconds ?? 30, times ?? 1, stepC);
            }
        );
        api.MapPost("/warm/milk", async (MilkOrder order, RuddyContext db, CancellationToken cancel) =>
        {
            order.Checked();
            var (row, household) = await PlaceAsync(db, cancel);
            return new MilkView(
                Steaming.Of(row.Spec, order, household.AmbientC, household.AltitudeMetres),
                order.EndC,
                MilkWords.Steps(order),
                MilkWords.Wipe,
                MilkWords.Caution,
                MilkWords.About(order.Kind)
            );
        });
        api.MapGet("/warm/boiler", async (RuddyContext db, CancellationToken cancel) =>
        {
            var (row, household) = await PlaceAsync(db, cancel);
            return BehindTheGauge.Of(row.Spec, household.AmbientC, household.AltitudeMetres);
        });
        api.MapGet("/warm/bleed", async (double wantedC, RuddyContext db, CancellationToken cancel) =>
        {
            var (row, household) = await PlaceAsync(db, cancel);
            return Bleed(row.Spec, household, wantedC);
        });
    }

    private static async Task<(BenchMachine Row, Store.Entities.Household Household)> PlaceAsync(
        RuddyContext db,
        CancellationToken cancel
    )
    {
        var (sheet, _) = await PrepareEndpoints.SheetAsync(db, cancel);
        return (
            await db.Machines.AsNoTracking().SingleAsync(m => m.Id == sheet.MachineId, cancel),
            await db.Households.AsNoTracking().SingleAsync(cancel)
        );
    }

    private static WaysView Ways(
        Machine machine,
        Store.Entities.Household household,
        double bloomSeconds,
        int times,
        double? stepC
    )
    {
        var boiling = Saturation.BoilingPointC(household.AltitudeMetres);
        return new(
            boiling,
            bloomSeconds,
            times,
            [
                .. KettlePreheat
                    .Methods(machine)
                    .Select(method =>
                    {
                        var way = KettlePreheat.Usual(machine, method, stepC, method == PreheatMethod.FillAndHold ? times : null);
                        var now = KettlePreheat.WaterAtPuck(machine, way, boiling, household.AmbientC);
                        var bloomed = KettlePreheat.WaterAtPuck(machine, way, boiling, household.AmbientC, bloomSeconds);
                        var (name, how, caution) = PreheatWords.Of(way);
                        return new WarmWay(
                            method,
                            name,
                            how,
                            caution,
                            way.Seconds,
                            KettlePreheat.MetalC(machine, way, boiling, household.AmbientC),
                            now.Value,
                            bloomed.Value,
                            now.PlusMinus,
                            boiling - now.Value
                        );
                    }),
            ]
        );
    }

    private static BleedView Bleed(Machine machine, Store.Entities.Household household, double wantedC)
    {
        var plan = TemperatureByPressure.For(machine, wantedC, household.AltitudeMetres, household.AmbientC);
        var (lowest, highest) = TemperatureByPressure.Reach(machine, household.AltitudeMetres, household.AmbientC);
        return new(
            lowest,
            highest,
            plan,
            plan is null
                ? string.Create(
                    CultureInfo.InvariantCulture,
                    $"{Quantity.Celsius(wantedC):0.0} cannot be had here: as it is set and settled the machine gives "
                        + $"{Quantity.Celsius(highest):0.0} at most, and {Quantity.Celsius(lowest):0.0} where its gauge shows "
                        + $"nothing any more."
                )
                : string.Create(
                    CultureInfo.InvariantCulture,
                    $"Switch off, open the steam valve for about {plan.BleedSeconds:0} s down to "
                        + $"{Quantity.Bar(plan.GaugeBar):0.00}, pull "
                        + $"{(plan.Shots == 1 ? "one shot" : $"up to {plan.Shots} shots")} within "
                        + $"{(plan.HoldSeconds < 90 ? $"{plan.HoldSeconds:0} s" : $"{plan.HoldSeconds / 60:0.0} min")}, "
                        + $"switch on: back at its set pressure {plan.BackSeconds / 60:0.0} min later."
                )
        );
    }
}
