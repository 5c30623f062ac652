using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using RuddySpring.Core;
using RuddySpring.Server.Hosting;
using RuddySpring.Server.Ledger;
using RuddySpring.Server.Pull;
using RuddySpring.Store;

namespace RuddySpring.Server.Exchange;

public static class ExchangeEndpoints
{
    public static void MapExchange(this IEndpointRouteBuilder api)
    {
        api.MapGet("/shots/{id:int}/trace.csv", ExportAsync);
        api.MapPost("/exchange/preview", PreviewAsync);
        api.MapPost("/exchange/import", ImportAsync);
    }

    private static async Task<FileContentHttpResult> ExportAsync(int id, RuddyContext db, CancellationToken cancel)
    {
        var shot = await db
            .Shots.AsNoTracking()
            .Include(s => s.Trace)
            .SingleOrDefaultAsync(s => s.Id == id && s.DeletedAt == null, cancel)
            ?? throw new NotThereException($"There is no shot {id}.");
        var text = TraceCsvWriter.Write(ShotViews.TraceOf(shot));
        return TypedResults.File(System.Text.Encoding.UTF8.GetBytes(text), "text/csv; charset=utf-8", $"shot-{id}.csv");
    }

    private static async Task<ImportPreview> PreviewAsync(ImportRequest request, TraceImport import, CancellationToken cancel)
    {
        var (table, columns, read) = Read(request.File);
        var preview = new ImportPreview(
            table.Dialect.Separator switch
            {
                ';' => "semicolon",
                '\t' => "tab",
                '|' => "bar",
                _ => "comma",
            },
            table.Dialect.DecimalComma,
            table.Dialect.HasHeader,
            table.Rows.Count,
            columns,
            Enum.GetValues<ColumnRole>().ToDictionary(r => r.ToString(), TraceCsvReader.UnitsOf),
            [.. table.Rows.Take(6).Select(row => row.Take(CsvTable.MostColumns).Select(RequestSentences.Short).ToList())],
            read.Errors,
            read.Notes,
            null,
            null,
            null,
            null,
            null,
            [],
            []
        );
        if (read.Trace is not { } trace)
            return preview;
        var (shot, reading) = await import.ShotAsync(request, trace, read.Notes, cancel);
        var (clean, moments) = reading.SinceLever;
        return preview with
        {
            Curves = ShotViews.CurvesOf(clean, moments, shot),
            Moments = moments,
            Measures = reading.Measures,
            YieldGrams = shot.YieldGrams,
            GroupC = shot.GroupC,
            Corrections = reading.Corrections,
            Questions = await import.QuestionsAsync(shot, cancel),
        };
    }

    private static async Task<SavedShot> ImportAsync(
        ImportRequest request,
        TraceImport import,
        RuddyContext db,
        CancellationToken cancel
    )
    {
        var (_, _, read) = Read(request.File);
        if (read.Trace is not { } trace)
            throw new DoesNotFitException("file", read.Errors[0]);
        var (shot, _) = await import.ShotAsync(request, trace, read.Notes, cancel);
        foreach (var question in await import.QuestionsAsync(shot, cancel))
        {
            if (request.Answered?.Contains(question.Kind) != true)
                throw new DoesNotFitException(
                    "answered",
                    $"{TraceImport.Sentence(question)} Name {question.Kind} in answered to keep it all the same."
                );
        }

        db.Shots.Add(shot);
        await db.SaveChangesAsync(cancel);
        return new(shot.Id);
    }

    private static (CsvTable Table, IReadOnlyList<ImportColumn> Columns, TraceReading Reading) Read(ImportFile file)
    {
        var table = CsvTable.Read(CsvDialect.Decode(file.ContentBase64));
        var columns = file.Columns ?? ColumnGuess.Of(table);
        return (table, columns, TraceCsvReader.Read(table, columns));
    }
}
