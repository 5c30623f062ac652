using Microsoft.EntityFrameworkCore;
using RuddySpring.Core;
using RuddySpring.Core.Reasoning;
using RuddySpring.Core.Traces;
using RuddySpring.Server.Hosting;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Ledger;

public static class LedgerEndpoints
{
    private const int MostCompared = 20;
    private const int Liked = 4; // of 5
    private const int MostCounted = 1000;
    private static readonly FieldRange PageSize = new("size", "Page size", 1, 200, "shots");
    private static readonly FieldRange PageNumber = new("page", "Page", 0, 1_000_000, "");
    private static readonly FieldRange MomentSeconds = new("moment", "Moment", 0, 600, "s");

    public static void MapLedger(this IEndpointRouteBuilder api)
    {
        api.MapGet("/shots", PageAsync);
        api.MapGet("/shots/count", CountAsync);
        api.MapGet("/ledger/choices", ChoicesAsync);
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

    /// <summary>What there is to filter by besides what stands on the bench.</summary>
    private static async Task<LedgerChoices> ChoicesAsync(RuddyContext db, CancellationToken cancel)
    {
        var causes = await db
            .Shots.Where(s => s.Cause != null && s.DeletedAt == null)
            .Select(s => s.Cause!)
            .Distinct()
            .ToListAsync(cancel);
        return new(
            await db.Bags.Where(b => b.Roaster != "").Select(b => b.Roaster).Distinct().OrderBy(r => r).ToListAsync(cancel),
            await db.Shots.Where(s => s.DeletedAt == null).Select(s => s.PlanName).Distinct().OrderBy(p => p).ToListAsync(cancel),
            [.. CauseList.All.Where(c => causes.Contains(c.Key)).Select(c => new NamedCause(c.Key, c.Name))]
        );
    }

    /// <summary>A page; counting all that fits may take longer than reading it, and can be asked apart.</summary>
    private static Task<JsonAtOnce<LedgerPage>> PageAsync(
        RuddyContext db,
        [AsParameters] LedgerFilter filter,
        CancellationToken cancel,
        int page = 0,
        int size = 50,
        LedgerOrder order = LedgerOrder.Date,
        bool ascending = false,
        bool count = true
    )
    {
        PageSize.Check(size);
        PageNumber.Check(page);
        return OnOneConnectionAsync(
            db,
            async () =>
            {
                // which shots is found within an index alone, and only then are they read
                var ids = WholeLedger.IsMeant(filter, order, ascending)
                    ? await WholeLedger.IdsAsync(db, page * size, size + 1, cancel)
                    : await Ordered(await filter.InAsync(db, cancel), order, ascending)
                        .Skip(page * size)
                        .Take(size + 1)
                        .Select(s => s.Id)
                        .ToListAsync(cancel);
                var rows = await LedgerLines.ReadAsync(db, [.. ids.Take(size)], cancel);
                // a first page that holds all has counted them; where it leaves out what has no number, there may be more
                var total =
                    order == LedgerOrder.Date && page == 0 && ids.Count <= size ? new LedgerTotal(ids.Count, false)
                    : count ? Total(await filter.CountAsync(db, MostCounted + 1, cancel))
                    : null;
                return new JsonAtOnce<LedgerPage>(new(total?.Total, total?.IsMore ?? false, ids.Count > size, page, size, rows));
            },
            cancel
        );
    }

    /// <summary>How many fit; beyond some it is said that there are more.</summary>
    private static Task<LedgerTotal> CountAsync(RuddyContext db, [AsParameters] LedgerFilter filter, CancellationToken cancel) =>
        OnOneConnectionAsync(db, async () => Total(await filter.CountAsync(db, MostCounted + 1, cancel)), cancel);

    private static LedgerTotal Total(int counted) => new(Math.Min(counted, MostCounted), counted > MostCounted);

    /// <summary>
    /// Opens the connection once for all that is asked: every opening prepares it again. It keeps as much of the file in memory
    /// as one index of 100 000 shots takes. A filter goes through all of it, and would read it again from a smaller cache.
    /// </summary>
    private static async Task<T> OnOneConnectionAsync<T>(RuddyContext db, Func<Task<T>> ask, CancellationToken cancel)
    {
        await db.Database.OpenConnectionAsync(cancel);
        try
        {
            await using (var set = db.Database.GetDbConnection().CreateCommand())
            {
                set.CommandText = "PRAGMA cache_size = -8000"; // kB
                await set.ExecuteNonQueryAsync(cancel);
            }

            return await ask();
        }
        finally
        {
            await db.Database.CloseConnectionAsync();
        }
    }

    /// <summary>In an order; a shot without the number that is ordered by is left out.</summary>
    private static IQueryable<Shot> Ordered(IQueryable<Shot> shots, LedgerOrder order, bool ascending)
    {
        IQueryable<Shot> By<T>(IQueryable<Shot> some, System.Linq.Expressions.Expression<Func<Shot, T>> by) =>
            ascending ? some.OrderBy(by).ThenBy(s => s.Id) : some.OrderByDescending(by).ThenByDescending(s => s.Id);
        return order switch
        {
            LedgerOrder.Grind => By(shots.Where(s => s.GrindSetting != null), s => s.GrindSetting),
            LedgerOrder.Dose => By(shots, s => s.DoseGrams),
            LedgerOrder.Cup => By(shots.Where(s => s.CupGramsToOrderBy != null), s => s.CupGramsToOrderBy),
            LedgerOrder.Time => By(shots.Where(s => s.SecondsToOrderBy != null), s => s.SecondsToOrderBy),
            LedgerOrder.R10 => By(shots.Where(s => s.R10ToOrderBy != null), s => s.R10ToOrderBy),
            LedgerOrder.Liking => By(shots.Where(s => s.Liking != null), s => s.Liking),
            _ => By(shots, s => s.PulledAt),
        };
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
                $"Between 2 and {MostCompared} shots can be compared; {numbers.Count} {(numbers.Count == 1 ? "was" : "were")} named."
            );
        return ShotComparison.Of(await ShotViews.WholeAsync(db, numbers, cancel), await BestOfBagAsync(db, numbers, cancel));
    }

    private static async Task<int?> BestOfBagAsync(RuddyContext db, List<int> compared, CancellationToken cancel)
    {
        var first = compared[0];
        var bag = await db.Shots.Where(s => s.Id == first).Select(s => s.BagId).SingleOrDefaultAsync(cancel);
        return bag is null
            ? null
            : await db
                .Shots.Where(s => s.DeletedAt == null && s.BagId == bag && s.Liking >= Liked && !compared.Contains(s.Id))
                .OrderByDescending(s => s.Liking)
                .ThenByDescending(s => s.PulledAt)
                .Select(s => (int?)s.Id)
                .FirstOrDefaultAsync(cancel);
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

        var (trace, context) = (ShotViews.TraceOf(shot), ShotRecording.Context(shot));
        var lever = MeasureShot.Read(trace, shot.Trace.Marked, context).Moments.Start ?? 0.0;
        // people tell moments by the clock that they see, which begins with the lever
        ShotRecording.Measure(shot, trace, marked.Since(-lever), context).SinceLever.Moments.Check(marked);
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
