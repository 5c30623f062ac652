using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using RuddySpring.Core.Heat;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Water;
using RuddySpring.Server.Prepare;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Warm;

/// <summary>A warm-up under way.</summary>
/// <param name="MachineId">Which machine.</param>
/// <param name="Method">How a kettle machine is preheated; None on a boiler.</param>
/// <param name="StartedAt">When, UTC.</param>
/// <param name="DoneAt">When the brewer said it was done, UTC; null while it goes on.</param>
public sealed record WarmState(int MachineId, PreheatMethod Method, DateTime StartedAt, DateTime? DoneAt);

/// <summary>One way to warm a machine, and what it gives.</summary>
public sealed record WarmChoice(
    PreheatMethod Method, string Name, string How, string Caution, double Seconds, double WaterC, double PlusMinusC, double LossC);

/// <summary>A point of the warm-up curve.</summary>
public sealed record WarmPoint(double Minutes, double GroupC);

/// <summary>What Warm shows.</summary>
/// <param name="BoilingPointC">Of an open kettle at this altitude.</param>
/// <param name="BoilerC">Of the boiler at its set pressure, or null.</param>
/// <param name="Curve">Group against minutes from switch-on, boiler machines only.</param>
/// <param name="ReadyAfterSeconds">How long the chosen warm-up takes; null where the group never reaches its band.</param>
/// <param name="ElapsedSeconds">Since it was started; null if it was not.</param>
/// <param name="GroupC">Group now as computed; null for kettle machines.</param>
/// <param name="WaterC">Water at the puck if the shot were pulled now.</param>
public sealed record WarmView(
    int MachineId, string MachineName, bool HasBoiler, double AltitudeMetres, double BoilingPointC, double? BoilerC, double? BoilerGaugeBar,
    IReadOnlyList<WarmChoice> Choices, IReadOnlyList<WarmPoint> Curve, WarmState? State, double? ElapsedSeconds, double? ReadyAfterSeconds,
    double? GroupC, double BandLowC, double BandHighC, double WaterC, double WaterPlusMinusC, string NarrowedBy,
    IReadOnlyList<string> Steps, IReadOnlyList<string> Cautions);

public sealed record WarmStart(PreheatMethod Method);

public static class WarmEndpoints
{
    // the outside of a dipper's group at lever-up; common practice
    private const double BandLowC = 70.0;
    private const double BandHighC = 85.0;
    private const PreheatMethod UsualMethod = PreheatMethod.SteamBath;
    private static readonly TimeSpan KettleMetalStaysWarm = TimeSpan.FromHours(1);
    private static readonly TimeSpan LongestBoilerSession = TimeSpan.FromHours(10);
    private static readonly PreheatMethod[] Methods = Enum.GetValues<PreheatMethod>();

    public static void MapWarm(this IEndpointRouteBuilder api)
    {
        api.MapGet("/warm", async (RuddyContext db, TimeProvider time) => await ViewAsync(db, time));
        api.MapPost("/warm/start", async (WarmStart start, RuddyContext db, TimeProvider time) =>
        {
            var sheet = (await PrepareEndpoints.CurrentAsync(db, time)).Sheet;
            return await KeepAsync(db, time, new(sheet.MachineId, start.Method, time.GetUtcNow().UtcDateTime, null));
        });
        api.MapPost("/warm/done", async (RuddyContext db, TimeProvider time) =>
        {
            var state = Kept(await db.Households.AsNoTracking().SingleAsync())
                ?? throw new Hosting.NotNowException("No warm-up has been started.");
            return await KeepAsync(db, time, state with { DoneAt = state.DoneAt ?? time.GetUtcNow().UtcDateTime });
        });
        api.MapPost("/warm/reset", async (RuddyContext db, TimeProvider time) => await KeepAsync(db, time, null));
    }

    /// <summary>Water at the puck if the shot were pulled now, from the warm-up under way or, without one, from the usual way.</summary>
    public static Estimate WaterAtPuck(BenchMachine row, Store.Entities.Household household, TimeProvider time)
    {
        var machine = row.Spec;
        var state = Current(household, row, time);
        var altitude = household.AltitudeMetres;
        if (machine.HasBoiler)
        {
            var minutes = state is null ? 25.0 : (time.GetUtcNow().UtcDateTime - state.StartedAt).TotalMinutes;
            return GroupWarmUp.WaterAtPuck(machine, GroupWarmUp.GroupC(machine, Math.Clamp(minutes, 0, 600), altitude, household.AmbientC), altitude);
        }

        var method = state?.Method ?? UsualMethod;
        var held = state is null
            ? KettlePreheat.RecommendedSeconds(method)
            : Math.Clamp(((state.DoneAt ?? time.GetUtcNow().UtcDateTime) - state.StartedAt).TotalSeconds, 0, 3600);
        return KettlePreheat.WaterAtPuck(machine, method, held, Saturation.BoilingPointC(altitude), household.AmbientC);
    }

    private static async Task<WarmView> ViewAsync(RuddyContext db, TimeProvider time)
    {
        var sheet = (await PrepareEndpoints.CurrentAsync(db, time)).Sheet;
        var household = await db.Households.AsNoTracking().SingleAsync();
        var row = await db.Machines.AsNoTracking().SingleAsync(m => m.Id == sheet.MachineId);
        var machine = row.Spec;
        var altitude = household.AltitudeMetres;
        var boiling = Saturation.BoilingPointC(altitude);
        var state = Current(household, row, time);
        double? elapsed = state is null ? null : ((state.DoneAt ?? time.GetUtcNow().UtcDateTime) - state.StartedAt).TotalSeconds;
        var water = WaterAtPuck(row, household, time);
        double? group = machine.HasBoiler && elapsed is { } s
            ? GroupWarmUp.GroupC(machine, Math.Clamp(s / 60.0, 0, 600), altitude, household.AmbientC) : null;
        return new(
            row.Id, row.Name, machine.HasBoiler, altitude, boiling,
            machine.BoilerGaugeBar is { } gauge ? Saturation.BoilerTemperatureC(gauge, altitude) : null, machine.BoilerGaugeBar,
            machine.HasBoiler ? [] : [.. Methods.Select(m => Choice(machine, m, boiling, household.AmbientC))],
            machine.HasBoiler ? Curve(machine, altitude, household.AmbientC) : [],
            state, elapsed,
            machine.HasBoiler
                ? GroupWarmUp.MinutesUntil(machine, BandLowC + 2.0, altitude, household.AmbientC) * 60.0
                : KettlePreheat.RecommendedSeconds(state?.Method ?? UsualMethod),
            group, BandLowC, BandHighC, water.Value, water.PlusMinus, water.NarrowedBy, Steps(machine), Cautions(machine));
    }

    private static WarmChoice Choice(Machine machine, PreheatMethod method, double boilingC, double ambientC)
    {
        var seconds = KettlePreheat.RecommendedSeconds(method);
        var water = KettlePreheat.WaterAtPuck(machine, method, seconds, boilingC, ambientC);
        var (name, how, caution) = method switch
        {
            PreheatMethod.FillAndHold => (
                "Fill and hold", "Fill the chamber with boiling water, leave it, pour it out, then fill for the shot.",
                "Pour slowly, hands off the stream."),
            PreheatMethod.SteamBath => (
                "Steam bath", "Stand the cylinder over the boiling kettle's steam.",
                "Steam burns: keep fingers and face out of it and lift the cylinder with a cloth."),
            PreheatMethod.Submersion => (
                "Submersion", "Lay the cylinder in the kettle while it boils; take it out with tongs.",
                "Hot metal and boiling water: use tongs, switch the kettle off first."),
            _ => ("No preheat", "A school of its own: light presses and boiling water, and content with it.", "Pour slowly, hands off the stream."),
        };
        return new(method, name, how, caution, seconds, water.Value, water.PlusMinus, boilingC - water.Value);
    }

    private static List<WarmPoint> Curve(Machine machine, double altitude, double ambientC) =>
        [.. Enumerable.Range(0, 81).Select(i => new WarmPoint(i * 0.5, GroupWarmUp.GroupC(machine, i * 0.5, altitude, ambientC)))];

    private static List<string> Steps(Machine machine) => machine.HasBoiler
        ?
        [
            "Fill the boiler to 5 to 10 mm under the top of the sight glass.",
            "Switch on and start the clock here.",
            "At first pressure open the steam valve for 10 to 15 s until the steam is steady: trapped air shows pressure while the water is still cool.",
            "Lock the empty portafilter in and let one blank fill through; warm the cup.",
        ]
        :
        [
            "Boil the kettle; it boils at the temperature shown here.",
            "Warm the chamber by one of the ways shown, with piston and screen in it.",
            "Warm portafilter and cup with what you pour out.",
        ];

    private static List<string> Cautions(Machine machine) => machine.HasBoiler
        ?
        [
            "Never open the filler cap while there is pressure: cool down and release steam first.",
            "The water must never fall below the element. The machine's manual and a licensed technician come first.",
        ]
        : ["Boiling water and hot metal: keep children away and hold only the insulated parts."];

    /// <summary>The warm-up of this machine, as long as it still means something: the metal of a kettle machine is cold after an hour.</summary>
    private static WarmState? Current(Store.Entities.Household household, BenchMachine row, TimeProvider time)
    {
        if (Kept(household) is not { } kept || kept.MachineId != row.Id) return null;
        var age = time.GetUtcNow().UtcDateTime - (kept.DoneAt ?? kept.StartedAt);
        return age < (row.Spec.HasBoiler ? LongestBoilerSession : KettleMetalStaysWarm) ? kept : null;
    }

    private static WarmState? Kept(Store.Entities.Household household) =>
        household.WarmJson is { } json ? JsonSerializer.Deserialize<WarmState>(json, RuddyContext.Json) : null;

    private static async Task<WarmView> KeepAsync(RuddyContext db, TimeProvider time, WarmState? state)
    {
        var household = await db.Households.SingleAsync();
        household.WarmJson = state is null ? null : JsonSerializer.Serialize(state, RuddyContext.Json);
        await db.SaveChangesAsync();
        return await ViewAsync(db, time);
    }
}
