using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using RuddySpring.Core;
using RuddySpring.Core.Traces;
using RuddySpring.Server.Exchange.Logbooks;
using RuddySpring.Server.Hosting;
using RuddySpring.Server.Ledger;
using RuddySpring.Server.Pull;
using RuddySpring.Store;

namespace RuddySpring.Server.Exchange;

public static class ExchangeEndpoints
{
    private const string Kind = "trace";

    public static void MapExchange(this IEndpointRouteBuilder api)
    {
        api.MapGet("/shots/{id:int}/trace.csv", ExportAsync);
        api.MapPost("/exchange/preview", PreviewAsync);
        api.MapPost("/exchange/import", ImportAsync);
        api.MapGet(
            "/exchange/logbook.csv",
            async (
                [AsParameters] LedgerFilter filter,
                HttpResponse response,
                RuddyContext db,
                TimeProvider time,
                CancellationToken cancel
            ) =>
            {
                var shots = await filter.InAsync(db, cancel);
                response.ContentType = "text/csv; charset=utf-8";
                response.Headers.ContentDisposition = $"attachment; filename=\"logbook-{time.GetUtcNow():yyyy-MM-dd}.csv\"";
                await LogbookWriter.WriteAsync(shots, response.Body, cancel);
            }
        );
        api.MapPost("/exchange/logbook/preview", (LogbookFile file, LogbookImport import, CancellationToken cancel) =>
            import.PreviewAsync(file, cancel)
        );
        api.MapPost("/exchange/logbook/import", (LogbookFile file, LogbookImport import, CancellationToken cancel) =>
            import.StoreAsync(file, cancel)
        );
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

    private static async Task<ImportPreview> PreviewAsync(
        ImportRequest request,
        TraceImport import,
        RuddyContext db,
        CancellationToken cancel
    )
    {
        var file = await ReadAsync(request, db, cancel);
        var (table, read) = (file.Table, file.Reading);
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
            file.Columns,
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
            [],
            file.Clock,
            file.IsRemembered
        );
        if (read.Trace is not { } trace)
            return preview;
        var (shot, reading) = await import.ShotAsync(request, trace, read.Notes, file.Clock ?? ClockStart.Lever, cancel);
        var (clean, moments) = reading.SinceLever;
        return preview with
        {
            Curves = ShotViews.CurvesOf(clean, moments, shot),
            Moments = moments,
            Measures = shot.Measures,
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
        TimeProvider time,
        CancellationToken cancel
    )
    {
        var file = await ReadAsync(request, db, cancel);
        if (file.Reading.Trace is not { } trace)
            throw new DoesNotFitException("file", file.Reading.Errors[0]);
        if (file.Clock is not { } clock)
            throw new DoesNotFitException(
                "clock",
                $"Say what the file's clock begins with: {string.Join(", ", Enum.GetNames<ClockStart>())}."
            );
        var (shot, _) = await import.ShotAsync(request, trace, file.Reading.Notes, clock, cancel);
        foreach (var question in await import.QuestionsAsync(shot, cancel))
        {
            if (request.Answered?.Contains(question.Kind) != true)
                throw new DoesNotFitException(
                    "answered",
                    $"{TraceImport.Sentence(question)} Name {question.Kind} in answered to keep it all the same."
                );
        }

        db.Shots.Add(shot);
        await ImportMemory.NoteAsync(
            db,
            Kind,
            file.Table.Names,
            new TraceAnswers(file.Columns, clock),
            time.GetUtcNow().UtcDateTime,
            cancel
        );
        await db.SaveChangesAsync(cancel);
        return new(shot.Id);
    }

    private sealed record TraceFile(
        CsvTable Table,
        IReadOnlyList<ImportColumn> Columns,
        TraceReading Reading,
        ClockStart? Clock,
        bool IsRemembered
    );

    private static async Task<TraceFile> ReadAsync(ImportRequest request, RuddyContext db, CancellationToken cancel)
    {
        var table = CsvTable.Read(CsvDialect.Decode(request.File.ContentBase64));
        var remembered = await ImportMemory.FindAsync<TraceAnswers>(db, Kind, table.Names, cancel);
        var columns = request.File.Columns ?? remembered?.Columns ?? ColumnGuess.Of(table);
        return new(
            table,
            columns,
            TraceCsvReader.Read(table, columns),
            request.Clock ?? remembered?.Clock,
            remembered is not null
        );
    }
}
