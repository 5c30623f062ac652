using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using RuddySpring.Core;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Traces;
using RuddySpring.Server.Hosting;
using RuddySpring.Server.Ledger;
using RuddySpring.Server.Prepare;
using RuddySpring.Server.Pull;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Exchange;

/// <summary>A file to look at, with the columns as the reader set them; null columns ask for a guess.</summary>
public sealed record ImportFile(string FileName, byte[] ContentBase64, IReadOnlyList<ImportColumn>? Columns);

/// <summary>What would be imported.</summary>
/// <param name="Separator">Name of the separator found.</param>
/// <param name="FirstRows">Up to 6 rows as text.</param>
/// <param name="Errors">Why it cannot be imported as it is; empty if it can.</param>
/// <param name="Notes">What was put right.</param>
/// <param name="Curves">The trace as it would be kept, for a look; null with errors.</param>
public sealed record ImportPreview(
    string Separator, bool DecimalComma, bool HasHeader, int Rows, IReadOnlyList<ImportColumn> Columns,
    IReadOnlyDictionary<string, IReadOnlyList<string>> Units, IReadOnlyList<IReadOnlyList<string>> FirstRows, IReadOnlyList<string> Errors,
    IReadOnlyList<string> Notes, Curves? Curves, Measures? Measures);

/// <summary>An import with what the file does not say.</summary>
public sealed record ImportRequest(
    ImportFile File, DateTime PulledAt, int MachineId, int? BrewerId, int? BagId, int? GrinderId, double? GrindSetting, double DoseGrams,
    double? WaterC);

public static class ExchangeEndpoints
{
    private const double PreviewDoseGrams = 16.0;
    private static readonly DateTime Earliest = new(1950, 1, 1, 0, 0, 0, DateTimeKind.Utc);
    private static readonly FieldRange WaterC = new("waterC", "Water at the puck", 20, 100, "degC");

    public static void MapExchange(this IEndpointRouteBuilder api)
    {
        api.MapGet("/shots/{id:int}/trace.csv", ExportAsync);
        api.MapPost("/exchange/preview", Preview);
        api.MapPost("/exchange/import", ImportAsync);
    }

    private static async Task<FileContentHttpResult> ExportAsync(int id, RuddyContext db, CancellationToken cancel)
    {
        var shot = await db.Shots.AsNoTracking().Include(s => s.Trace).SingleOrDefaultAsync(s => s.Id == id && s.DeletedAt == null, cancel)
            ?? throw new NotThereException($"There is no shot {id}.");
        var text = TraceCsvWriter.Write(ShotViews.TraceOf(shot));
        return TypedResults.File(System.Text.Encoding.UTF8.GetBytes(text), "text/csv; charset=utf-8", $"shot-{id}.csv");
    }

    private static ImportPreview Preview(ImportFile file)
    {
        var (table, columns, reading) = Read(file);
        Curves? curves = null;
        Measures? measures = null;
        if (reading.Trace is { } trace)
        {
            var (clean, _, read, _) = MeasureShot.Read(trace, Moments.None, PreviewDoseGrams);
            curves = new(
                clean.StepSeconds, clean.HasPressure ? clean.PressureBar : null, clean.HasWeight ? clean.WeightGrams : null,
                clean.HasWeight ? clean.FlowGramsPerS : null, null);
            measures = read;
        }

        return new(
            table.Dialect.Separator switch { ';' => "semicolon", '\t' => "tab", '|' => "bar", _ => "comma" }, table.Dialect.DecimalComma,
            table.Dialect.HasHeader, table.Rows.Count, columns,
            Enum.GetValues<ColumnRole>().ToDictionary(r => r.ToString(), TraceCsvReader.UnitsOf),
            [.. table.Rows.Take(6).Select(row => row.Take(CsvTable.MostColumns).Select(RequestSentences.Short).ToList())], reading.Errors, reading.Notes, curves, measures);
    }

    private static async Task<SavedShot> ImportAsync(ImportRequest request, RuddyContext db, TimeProvider time, CancellationToken cancel)
    {
        var (_, _, reading) = Read(request.File);
        if (reading.Trace is not { } trace) throw new DoesNotFitException("file", reading.Errors[0]);
        CupVolumes.Dose.Check(request.DoseGrams);
        if (request.GrindSetting is { } setting) PrepareEndpoints.GrindSetting.Check(setting);
        if (request.WaterC is { } water) WaterC.Check(water);
        var pulledAt = request.PulledAt.ToUniversalTime();
        if (pulledAt < Earliest || pulledAt > time.GetUtcNow().UtcDateTime.AddDays(1))
            throw new DoesNotFitException("pulledAt", $"The shot's date is {pulledAt:yyyy-MM-dd}; it must lie between {Earliest:yyyy-MM-dd} and today.");
        await NeedAsync(db.Machines, request.MachineId, "machineId", "machine", cancel);
        await NeedAsync(db.Brewers, request.BrewerId, "brewerId", "person", cancel);
        await NeedAsync(db.Bags, request.BagId, "bagId", "bag", cancel);
        await NeedAsync(db.Grinders, request.GrinderId, "grinderId", "grinder", cancel);
        var shot = new Shot
        {
            PulledAt = pulledAt,
            Source = ShotSource.Imported,
            MachineId = request.MachineId,
            BrewerId = request.BrewerId,
            BagId = request.BagId,
            GrinderId = request.GrinderId,
            GrindSetting = request.GrindSetting,
            DoseGrams = request.DoseGrams,
            WaterC = request.WaterC,
            Notices = $"Imported from {Texts.Optional(request.File.FileName, "fileName", "File name", 120)}. {string.Join(" ", reading.Notes)}".Trim(),
        };
        ShotRecording.SetTrace(shot, ShippedPlans.EarlyPeak with { Key = "unknown", Name = "not known", Why = "" }, null, trace, Moments.None);
        shot.YieldGrams = Math.Round(shot.Measures.CupGrams ?? 0.0, 1);
        db.Shots.Add(shot);
        await db.SaveChangesAsync(cancel);
        return new(shot.Id);
    }

    private static async Task NeedAsync<T>(DbSet<T> rows, int? id, string field, string what, CancellationToken cancel)
        where T : class
    {
        if (id is { } number && await rows.FindAsync([number], cancel) is null)
            throw new DoesNotFitException(field, $"There is no {what} with number {number}. Choose one that is on the bench.");
    }

    private static (CsvTable Table, IReadOnlyList<ImportColumn> Columns, TraceReading Reading) Read(ImportFile file)
    {
        var table = CsvTable.Read(CsvDialect.Decode(file.ContentBase64));
        var columns = file.Columns ?? ColumnGuess.Of(table);
        return (table, columns, TraceCsvReader.Read(table, columns));
    }
}
