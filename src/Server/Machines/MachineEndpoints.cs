using Microsoft.EntityFrameworkCore;
using RuddySpring.Core;
using RuddySpring.Core.Heat;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Sessions;
using RuddySpring.Core.Shots;
using RuddySpring.Server.Hosting;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Machines;

/// <summary>Each machine: its section, what it can do, its numbers, and measuring it with kitchen things.</summary>
public static class MachineEndpoints
{
    private const int SessionsForFit = 20;
    private static readonly FieldRange Rows = new("rows", "Number of readings", 1, 100, "");
    private static readonly FieldRange Minutes = new("minutes", "Minutes", 0, 300, "min");

    public static void MapMachines(this IEndpointRouteBuilder api)
    {
        var machines = api.MapGroup("/machines");
        machines.MapGet("/starts", () =>
            FamilyWords.StartingPoints.Select(s => new StartView(s, Cutaway.Of(s.Defaults, s.DoseGrams))).ToList()
        );
        machines.MapGet("/{id:int}", async (int id, RuddyContext db, CancellationToken cancel) =>
            await DetailAsync(id, db, cancel)
        );
        machines.MapPost(
            "/{id:int}/measure",
            async (int id, MeasureRequest request, RuddyContext db, TimeProvider time, CancellationToken cancel) =>
            {
                var row = await FoundAsync(id, db, cancel);
                var household = await db.Households.AsNoTracking().SingleAsync(cancel);
                var measured = Measure(row.Spec, request, household, DateOnly.FromDateTime(time.GetLocalNow().DateTime));
                if (request.Keep)
                {
                    row.Spec = measured.Changed.Checked();
                    await db.SaveChangesAsync(cancel);
                }

                return new MeasureView(
                    measured.Changes,
                    measured.Points,
                    measured.XLabel,
                    measured.YLabel,
                    measured.Sentence,
                    request.Keep
                );
            }
        );
        machines.MapGet("/{id:int}/heat-fit", async (int id, RuddyContext db, CancellationToken cancel) =>
            await FitAsync(id, keep: false, db, cancel)
        );
        machines.MapPost("/{id:int}/heat-fit", async (int id, RuddyContext db, CancellationToken cancel) =>
            await FitAsync(id, keep: true, db, cancel)
        );
        machines.MapPost("/{id:int}/heat-reset", async (int id, RuddyContext db, CancellationToken cancel) =>
        {
            var row = await FoundAsync(id, db, cancel);
            row.Spec = row.Spec with
            {
                Heat = null,
                MetalHeatCapacity = FamilyDefaults.Of(row.Spec.Family).Machine.MetalHeatCapacity,
            };
            await db.SaveChangesAsync(cancel);
            return await DetailAsync(id, db, cancel);
        });
        machines.MapPut(
            "/{id:int}/heat",
            async (int id, HeatConstants heat, int version, RuddyContext db, CancellationToken cancel) =>
            {
                var row = await FoundAsync(id, db, cancel);
                ChangedMeanwhileException.ThrowIfOlder(row, version, "The machine");
                row.Spec = row.Spec with { Heat = (heat with { Prior = null, BeforeMeasuring = null }).Checked() };
                await db.SaveChangesAsync(cancel);
                return await DetailAsync(id, db, cancel);
            }
        );
    }

    private static async Task<BenchMachine> FoundAsync(int id, RuddyContext db, CancellationToken cancel) =>
        await db.Machines.SingleOrDefaultAsync(m => m.Id == id && m.DeletedAt == null, cancel)
        ?? throw new NotThereException($"There is no machine with number {id}.");

    private static async Task<MachineDetail> DetailAsync(int id, RuddyContext db, CancellationToken cancel)
    {
        var row = await FoundAsync(id, db, cancel);
        var spec = row.Spec;
        var altitude = await db.Households.AsNoTracking().Select(h => h.AltitudeMetres).SingleAsync(cancel);
        var readings = (await LogsAsync(row, db, cancel)).Sum(l => l.Readings.Count);
        return new(
            row.Id,
            row.Version,
            Problem(row),
            row.Name,
            spec.RestrictorBarS2PerMl2 > 0
                ? $"{FamilyWords.Name(spec.Family)}, flow-restricting basket"
                : FamilyWords.Name(spec.Family),
            spec,
            Cutaway.Of(spec, FamilyDefaults.Of(spec.Family).DoseGrams),
            Abilities.Of(spec, altitude),
            MachineNumbers.Of(spec),
            HeatConstants.Of(spec),
            spec.Heat is null,
            readings,
            Ways(spec)
        );
    }

    /// <summary>What is wrong with a machine's stored numbers and how to mend it; null where they are sound.</summary>
    public static string? Problem(BenchMachine row) =>
        Odd.Reason(row.Spec) is { } odd
            ? $"Its numbers cannot be read: {odd} What is shown are a portable lever's. Set them again and save them, or archive "
                + "the machine away; its shots stay as they are."
            : null;

    /// <summary>Measurements that make sense on a machine.</summary>
    private static List<string> Ways(Machine spec)
    {
        var ways = new List<string>();
        if (spec.PressureBy == PressureBy.Arm || spec.Family == MachineFamily.SteppedLever)
            ways.Add("handle");
        ways.AddRange(["stroke", "puck"]);
        if (spec.SpringTopBar is not null)
            ways.Add("spring");
        ways.AddRange(["seal", "temperatures"]);
        return ways;
    }

    private static Measurement Measure(Machine spec, MeasureRequest request, Store.Entities.Household household, DateOnly on)
    {
        foreach (
            var count in new[]
            {
                request.Handle?.Count,
                request.Stroke?.Count,
                request.Puck?.Count,
                request.Spring?.Count,
                request.Seal?.Count,
                request.Temperatures?.Count,
            }
        )
        {
            if (count is { } rows)
                Rows.Check(rows);
        }

        return Fit(spec, request, household, on);
    }

    private static Measurement Fit(Machine spec, MeasureRequest request, Store.Entities.Household household, DateOnly on) =>
        request switch
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
        foreach (var row in rows)
            Minutes.Check(row.Minutes);
        var readings = rows.Select(r => new HeatReading(HeatReadingKind.Probe, r.Minutes * 60.0, r.GroupC).Checked());
        return UsualWarmUp.Log(spec, [.. readings], household.AmbientC, household.AltitudeMetres);
    }

    private static async Task<HeatFitView> FitAsync(int id, bool keep, RuddyContext db, CancellationToken cancel)
    {
        var row = await FoundAsync(id, db, cancel);
        var logs = await LogsAsync(row, db, cancel);
        var fit = HeatFit.Of(row.Spec, logs);
        if (keep)
        {
            row.Spec = fit.Changed.Checked();
            await db.SaveChangesAsync(cancel);
        }

        return new(fit.Constants, fit.Points, fit.Readings, logs.Count, fit.Sentence, keep);
    }

    private static async Task<List<HeatLog>> LogsAsync(BenchMachine row, RuddyContext db, CancellationToken cancel)
    {
        var sessions = await db
            .Sessions.AsNoTracking()
            .Where(s => s.MachineId == row.Id && s.OriginAt != null)
            .OrderByDescending(s => s.CreatedAt)
            .Take(SessionsForFit)
            .ToListAsync(cancel);
        return
        [
            .. sessions
                .Where(s => s.Log.Readings.Count > 0 && Odd.Reason(s.Wants) is null)
                .Select(s =>
                    new SessionProgress(0, s.Log.Done, s.Log.Readings, []).Heat(
                        new(row.Spec, s.AmbientC, s.AltitudeMetres),
                        s.Wants
                    )
                ),
        ];
    }
}
