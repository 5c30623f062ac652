using Microsoft.EntityFrameworkCore;
using RuddySpring.Core;
using RuddySpring.Core.Heat;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Sessions;
using RuddySpring.Core.Water;
using RuddySpring.Server.Hosting;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Machines;

/// <summary>Each machine: its section, what it can do, its numbers, and measuring it with kitchen things.</summary>
public static class MachineEndpoints
{
    private const double HotC = 92;
    private const int SessionsForFit = 20;
    private static readonly FieldRange Minutes = new("minutes", "Minutes", 0, 300, "min");
    private static readonly double[] ForcePressures = [3, 6, 9];
    private static readonly double[] AirMl = [0, 1, 2, 5, 10];

    public static void MapMachines(this IEndpointRouteBuilder api)
    {
        var machines = api.MapGroup("/machines");
        machines.MapGet("/starts", () => FamilyWords.StartingPoints.Select(s => new StartView(s, Cutaway.Of(s.Defaults, s.DoseGrams))).ToList());
        machines.MapGet("/{id:int}", async (int id, RuddyContext db) => await DetailAsync(id, db));
        machines.MapPost("/{id:int}/measure", async (int id, MeasureRequest request, RuddyContext db, TimeProvider time) =>
        {
            var row = await FoundAsync(id, db);
            var household = await db.Households.AsNoTracking().SingleAsync();
            var measured = Measure(row.Spec, request, household, DateOnly.FromDateTime(time.GetLocalNow().DateTime));
            if (request.Keep)
            {
                row.Spec = measured.Changed.Checked();
                await db.SaveChangesAsync();
            }

            return new MeasureView(measured.Changes, measured.Points, measured.XLabel, measured.YLabel, measured.Sentence, request.Keep);
        });
        machines.MapGet("/{id:int}/heat-fit", async (int id, RuddyContext db) => await FitAsync(id, keep: false, db));
        machines.MapPost("/{id:int}/heat-fit", async (int id, RuddyContext db) => await FitAsync(id, keep: true, db));
        machines.MapPost("/{id:int}/heat-reset", async (int id, RuddyContext db) =>
        {
            var row = await FoundAsync(id, db);
            row.Spec = row.Spec with { Heat = null, MetalHeatCapacity = FamilyDefaults.Of(row.Spec.Family).Machine.MetalHeatCapacity };
            await db.SaveChangesAsync();
            return await DetailAsync(id, db);
        });
        machines.MapPut("/{id:int}/heat", async (int id, HeatConstants heat, RuddyContext db) =>
        {
            var row = await FoundAsync(id, db);
            row.Spec = row.Spec with { Heat = heat.Checked() };
            await db.SaveChangesAsync();
            return await DetailAsync(id, db);
        });
    }

    private static async Task<BenchMachine> FoundAsync(int id, RuddyContext db) =>
        await db.Machines.SingleOrDefaultAsync(m => m.Id == id) ?? throw new NotThereException($"There is no machine with number {id}.");

    private static async Task<MachineDetail> DetailAsync(int id, RuddyContext db)
    {
        var row = await FoundAsync(id, db);
        var spec = row.Spec;
        var (_, dose, yield) = FamilyDefaults.Of(spec.Family);
        var readings = (await LogsAsync(row, db)).Sum(l => l.Readings.Count);
        return new(
            row.Id, row.Name, spec.RestrictorBarS2PerMl2 > 0 ? $"{FamilyWords.Name(spec.Family)}, flow-restricting basket" : FamilyWords.Name(spec.Family), spec,
            Cutaway.Of(spec, dose), Can(spec, dose, yield), MachineNumbers.Of(spec), HeatConstants.Of(spec), spec.Heat is null, readings, Ways(spec));
    }

    private static CanDo Can(Machine spec, double dose, double yield)
    {
        var arm = spec.PressureBy == PressureBy.Arm || spec.Family == MachineFamily.SteppedLever;
        var water = CupVolumes.WaterGrams(spec, dose, yield);
        var stroke = (spec.Family == MachineFamily.HandPump ? Lever.PistonAreaM2(spec.PistonDiameterMm) * 1e6 * Cutaway.Of(spec, dose).StrokeMm / 1000.0
            : spec.Family == MachineFamily.SteppedLever ? spec.ChamberMl / spec.StrokesAShot : spec.ChamberMl) * LiquidWater.DensityGramsPerMl(HotC);
        return new(
            arm ? [.. ForcePressures.Select(bar => new ForceLine(bar, [.. Enumerable.Range(0, 21).Select(i => new ForcePoint(i / 20.0, Lever.HandForceKgf(spec, bar, i / 20.0)))]))] : [],
            spec.PressureBy == PressureBy.Arm ? Lever.PressureBar(spec, spec.WillingForceKgf) : null,
            spec.SpringTopBar is { } top ? Lever.HandForceKgf(spec, top) : null,
            spec.SpringTopBar is null ? [] : [.. Enumerable.Range(0, 21).Select(i => i / 20.0 * spec.ChamberMl * 0.9999).Select(v => new SpringPoint(v, Spring.PressureBar(spec, v)!.Value))],
            Spring.WorkJ(spec), dose, yield, CupVolumes.LargestYieldGrams(spec, dose, HotC), water, (int)Math.Ceiling(water / stroke),
            [.. AirMl.Select(air => new SoftPoint(
                air, Compliance.MlPerBar(air, 2, Atmosphere.SeaLevelBar), Compliance.MlPerBar(air, 9, Atmosphere.SeaLevelBar), Compliance.LostMl(air, 9, Atmosphere.SeaLevelBar)))]);
    }

    /// <summary>Measurements that make sense on a machine.</summary>
    private static List<string> Ways(Machine spec)
    {
        var ways = new List<string>();
        if (spec.PressureBy == PressureBy.Arm || spec.Family == MachineFamily.SteppedLever) ways.Add("handle");
        ways.AddRange(["stroke", "puck"]);
        if (spec.SpringTopBar is not null) ways.Add("spring");
        ways.AddRange(["seal", "temperatures"]);
        return ways;
    }

    private static Measurement Measure(Machine spec, MeasureRequest request, Store.Entities.Household household, DateOnly on) => request switch
    {
        { Handle: { } rows } => LeverWeighing.Fit(spec, rows, on),
        { Stroke: { } rows } => WaterWeighing.Stroke(spec, rows, on),
        { Puck: { } rows } => WaterWeighing.Puck(spec, rows, on),
        { Spring: { } rows } => PressureRuns.Spring(spec, rows, on),
        { Seal: { } rows } => PressureRuns.Seal(spec, rows, on),
        { Temperatures: { } rows } => HeatMeasurement.Of(spec, Log(spec, rows, household), on),
        _ => throw new DoesNotFitException("rows", "There are no readings in it."),
    };

    private static HeatLog Log(Machine spec, IReadOnlyList<TemperatureRow> rows, Store.Entities.Household household)
    {
        foreach (var row in rows) Minutes.Check(row.Minutes);
        var readings = rows.Select(r => new HeatReading(HeatReadingKind.Probe, r.Minutes * 60.0, r.GroupC).Checked());
        if (spec.HasBoiler) return new(UsualWarmUp(spec, household), [.. readings], household.AmbientC, household.AltitudeMetres);
        var way = KettlePreheat.Usual(spec, KettlePreheat.Methods(spec)[0]);
        var after = way.Method == PreheatMethod.ElectricStep ? 0 : way.Seconds;
        var events = KettlePreheat.Events(spec, way, 0, Saturation.BoilingPointC(household.AltitudeMetres));
        return new(events, [.. readings.Select(r => r with { AtSeconds = r.AtSeconds + after })], household.AmbientC, household.AltitudeMetres);
    }

    /// <summary>Switched on, and bled as soon as the element first goes off.</summary>
    private static List<HeatEvent> UsualWarmUp(Machine spec, Store.Entities.Household household)
    {
        var on = new HeatEvent(HeatEventKind.On, 0);
        var run = HeatRun.Play(spec, household.AmbientC, household.AltitudeMetres, [on], 2400, records: false);
        var off = run.ElementChanges.FirstOrDefault(c => !c.On).Seconds;
        return [on, new(HeatEventKind.Bleed, off > 0 ? off : 600, 14)];
    }

    private static async Task<HeatFitView> FitAsync(int id, bool keep, RuddyContext db)
    {
        var row = await FoundAsync(id, db);
        var logs = await LogsAsync(row, db);
        var fit = HeatFit.Of(row.Spec, logs);
        if (keep)
        {
            row.Spec = fit.Changed.Checked();
            await db.SaveChangesAsync();
        }

        return new(fit.Constants, fit.Points, fit.Readings, logs.Count, fit.Sentence, keep);
    }

    private static async Task<List<HeatLog>> LogsAsync(BenchMachine row, RuddyContext db)
    {
        var sessions = await db.Sessions.AsNoTracking().Where(s => s.MachineId == row.Id && s.OriginAt != null)
            .OrderByDescending(s => s.CreatedAt).Take(SessionsForFit).ToListAsync();
        return [.. sessions.Where(s => s.Log.Readings.Count > 0).Select(s => new HeatLog(
            [.. s.Log.Done.SelectMany(d => SessionStep.HeatEvents(row.Spec, s.Wants, Saturation.BoilingPointC(s.AltitudeMetres), d))],
            s.Log.Readings, s.AmbientC, s.AltitudeMetres))];
    }
}
