using Microsoft.EntityFrameworkCore;
using RuddySpring.Core;
using RuddySpring.Core.Traces;
using RuddySpring.Server.Hosting;
using RuddySpring.Store;

namespace RuddySpring.Server.Ledger;

public static class LedgerEndpoints
{
    private const int MostCompared = 20;
    private static readonly FieldRange PageSize = new("size", "Page size", 1, 200, "shots");
    private const int LongestSearch = 200;
    private static readonly FieldRange PageNumber = new("page", "Page", 0, 1_000_000, "");
    private static readonly FieldRange MomentSeconds = new("moment", "Moment", 0, 600, "s");

    public static void MapLedger(this IEndpointRouteBuilder api)
    {
        api.MapGet("/shots", PageAsync);
        api.MapGet("/shots/{id:int}", (int id, RuddyContext db, CancellationToken cancel) =>
            ShotViews.WholeAsync(db, id, cancel)
        );
        api.MapGet("/shots/compare", CompareAsync);
        api.MapPut("/shots/{id:int}/moments", MoveMomentsAsync);
        api.MapDelete("/shots/{id:int}", (int id, RuddyContext db, TimeProvider time, CancellationToken cancel) =>
            BinAsync(db, id, time.GetUtcNow().UtcDateTime, cancel)
        );
        api.MapPost("/shots/{id:int}/restore", (int id, RuddyContext db, CancellationToken cancel) =>
            BinAsync(db, id, null, cancel)
        );
    }

    private static async Task<LedgerPage> PageAsync(
        RuddyContext db,
        CancellationToken cancel,
        int page = 0,
        int size = 50,
        string? search = null,
        int? machineId = null,
        int? bagId = null,
        int? brewerId = null,
        int? minLiking = null,
        bool bin = false
    )
    {
        PageSize.Check(size);
        PageNumber.Check(page);
        Texts.Lines(search, "search", "The search", LongestSearch);
        var shots = ShotSearch.In(db, search).AsNoTracking();
        shots = bin ? shots.Where(s => s.DeletedAt != null) : shots.Where(s => s.DeletedAt == null);
        if (machineId is { } machine)
            shots = shots.Where(s => s.MachineId == machine);
        if (bagId is { } bag)
            shots = shots.Where(s => s.BagId == bag);
        if (brewerId is { } brewer)
            shots = shots.Where(s => s.BrewerId == brewer);
        if (minLiking is { } liking)
            shots = shots.Where(s => s.Liking >= liking);
        var total = await shots.CountAsync(cancel);
        var rows = await ShotViews
            .WithNames(shots.OrderByDescending(s => s.PulledAt).ThenByDescending(s => s.Id))
            .Skip(page * size)
            .Take(size)
            .ToListAsync(cancel);
        return new(total, page, size, [.. rows.Select(ShotViews.Line)]);
    }

    private static async Task<Comparison> CompareAsync(RuddyContext db, string ids, CancellationToken cancel)
    {
        var numbers = ids.Split(',', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
            .Select(t =>
                int.TryParse(t, out var n)
                    ? n
                    : throw new DoesNotFitException(
                        "ids",
                        $"{RequestSentences.Short(t)} is not a shot's number; a number is whole and 1 or more."
                    )
            )
            .Distinct()
            .ToList();
        if (numbers.Count is < 2 or > MostCompared)
            throw new DoesNotFitException(
                "ids",
                $"Between 2 and {MostCompared} shots can be compared; {numbers.Count} were named."
            );
        return ShotComparison.Of(await ShotViews.WholeAsync(db, numbers, cancel));
    }

    private static async Task<ShotView> MoveMomentsAsync(
        int id,
        Moments marked,
        int version,
        RuddyContext db,
        CancellationToken cancel
    )
    {
        var shot = await db
            .Shots.Include(s => s.Trace)
            .Include(s => s.Machine)
            .Include(s => s.Basket)
            .SingleOrDefaultAsync(s => s.Id == id && s.DeletedAt == null, cancel)
            ?? throw new NotThereException($"There is no shot {id}.");
        ChangedMeanwhileException.ThrowIfOlder(shot, version, "The shot");
        foreach (
            var moment in new[]
            {
                marked.FirstPressure,
                marked.FirstDrops,
                marked.Ramp,
                marked.Peak,
                marked.Ease,
                marked.Blonding,
                marked.Stop,
                marked.Start,
            }
        )
        {
            if (moment is { } seconds)
                MomentSeconds.Check(seconds);
        }

        if (marked.Stop <= marked.FirstDrops)
            throw new DoesNotFitException("stop", "Stop must come after first drops.");
        var (trace, context) = (ShotViews.TraceOf(shot), ShotRecording.Context(shot));
        var lever = MeasureShot.Read(trace, shot.Trace.Marked, context).Moments.Start ?? 0.0;
        // people tell moments by the clock that they see, which begins with the lever
        ShotRecording.Measure(shot, trace, marked.Since(-lever), context);
        await db.SaveChangesAsync(cancel);
        return await ShotViews.WholeAsync(db, id, cancel);
    }

    private static async Task<Microsoft.AspNetCore.Http.HttpResults.NoContent> BinAsync(
        RuddyContext db,
        int id,
        DateTime? deletedAt,
        CancellationToken cancel
    )
    {
        var shot = await db.Shots.SingleOrDefaultAsync(s => s.Id == id, cancel)
            ?? throw new NotThereException($"There is no shot {id}.");
        shot.DeletedAt = deletedAt;
        await db.SaveChangesAsync(cancel);
        return TypedResults.NoContent();
    }
}
