using Microsoft.EntityFrameworkCore;
using RuddySpring.Core;
using RuddySpring.Core.Heat;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Sessions;
using RuddySpring.Server.Hosting;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Machines;

/// <summary>Each machine: its section, what it can do, its numbers, and measuring it with kitchen things.</summary>
public static class MachineEndpoints
{
    private const int SessionsForFit = 20;
    private static readonly FieldRange Minutes = new("minutes", "Minutes", 0, 300, "min");

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
        await db.Machines.SingleOrDefaultAsync(m => m.Id == id && m.DeletedAt == null) ?? throw new NotThereException($"There is no machine with number {id}.");

    private static async Task<MachineDetail> DetailAsync(int id, RuddyContext db)
    {
        var row = await FoundAsync(id, db);
        var spec = row.Spec;
        var altitude = await db.Households.AsNoTracking().Select(h => h.AltitudeMetres).SingleAsync();
        var readings = (await LogsAsync(row, db)).Sum(l => l.Readings.Count);
        return new(
            row.Id, row.Name, spec.RestrictorBarS2PerMl2 > 0 ? $"{FamilyWords.Name(spec.Family)}, flow-restricting basket" : FamilyWords.Name(spec.Family), spec,
            Cutaway.Of(spec, FamilyDefaults.Of(spec.Family).DoseGrams), Abilities.Of(spec, altitude), MachineNumbers.Of(spec), HeatConstants.Of(spec), spec.Heat is null, readings, Ways(spec));
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
        return UsualWarmUp.Log(spec, [.. readings], household.AmbientC, household.AltitudeMetres);
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
        return [.. sessions.Where(s => s.Log.Readings.Count > 0).Select(s =>
            new SessionProgress(0, s.Log.Done, s.Log.Readings, []).Heat(new(row.Spec, s.AmbientC, s.AltitudeMetres), s.Wants))];
    }
}
