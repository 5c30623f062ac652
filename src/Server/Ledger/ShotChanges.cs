using Microsoft.EntityFrameworkCore;
using RuddySpring.Core;
using RuddySpring.Server.Hosting;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Ledger;

/// <summary>What can be changed of many shots at once.</summary>
public enum ShotField
{
    Brewer,
    Beans,
    Grinder,
    Basket,

    /// <summary>Whether they lie in the bin: 1 for in it, null for out of it.</summary>
    Bin,
}

/// <summary>A change of many shots.</summary>
/// <param name="Shots">Their numbers.</param>
/// <param name="To">Number of what is put in its place; null for none.</param>
public sealed record ShotsChange(IReadOnlyList<int> Shots, ShotField Field, int? To = null);

/// <summary>A shot as it was before a change of many.</summary>
/// <param name="Version">That the change gave it; a shot that was changed since is not taken back.</param>
/// <param name="Was">Number of what stood there; null for none.</param>
public sealed record ShotBefore(int Id, int Version, int? Was);

/// <summary>A change of many shots that was made, with what takes it back.</summary>
public sealed record ShotsChanged(ShotField Field, IReadOnlyList<ShotBefore> Before);

/// <summary>How far a change of many was taken back.</summary>
/// <param name="Left">Shots that were changed since and stay as they are.</param>
public sealed record ShotsTakenBack(int Done, int Left);

/// <summary>Changes of many shots at once, and taking them back.</summary>
public static class ShotChanges
{
    private const int Most = 500;

    public static void MapShotChanges(this IEndpointRouteBuilder api)
    {
        api.MapPost("/shots/change", ChangeAsync);
        api.MapPost("/shots/change/undo", TakeBackAsync);
    }

    private static async Task<ShotsChanged> ChangeAsync(
        ShotsChange change,
        RuddyContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        var ids = change.Shots.Distinct().ToList();
        if (ids.Count is < 1 or > Most)
            throw new DoesNotFitException(
                "shots",
                $"Between 1 and {Most} shots can be changed at once; {ids.Count} {(ids.Count == 1 ? "was" : "were")} named."
            );
        await CheckAsync(change, db, cancel);
        var shots = await db.Shots.Where(s => ids.Contains(s.Id)).ToListAsync(cancel);
        if (ids.Except(shots.Select(s => s.Id)).Select(id => (int?)id).FirstOrDefault() is { } missing)
            throw new NotThereException($"There is no shot {missing}.");
        var now = time.GetUtcNow().UtcDateTime;
        var were = shots.ConvertAll(s => (Shot: s, Was: Of(s, change.Field)));
        foreach (var shot in shots)
            Set(shot, change.Field, change.To, now);
        await db.SaveChangesAsync(cancel);
        return new(change.Field, [.. were.Select(w => new ShotBefore(w.Shot.Id, w.Shot.Version, w.Was))]);
    }

    private static async Task<ShotsTakenBack> TakeBackAsync(
        ShotsChanged change,
        RuddyContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        var ids = change.Before.Select(b => b.Id).ToList();
        var shots = await db.Shots.Where(s => ids.Contains(s.Id)).ToDictionaryAsync(s => s.Id, cancel);
        var now = time.GetUtcNow().UtcDateTime;
        var back = 0;
        foreach (var before in change.Before.DistinctBy(b => b.Id))
        {
            if (!shots.TryGetValue(before.Id, out var shot) || shot.Version != before.Version)
                continue;
            await CheckAsync(new([before.Id], change.Field, before.Was), db, cancel);
            Set(shot, change.Field, before.Was, now);
            back++;
        }

        await db.SaveChangesAsync(cancel);
        return new(back, change.Before.Count - back);
    }

    private static async Task CheckAsync(ShotsChange change, RuddyContext db, CancellationToken cancel)
    {
        if (change.To is not { } to)
            return;
        var isThere = change.Field switch
        {
            ShotField.Brewer => await db.Brewers.AnyAsync(b => b.Id == to, cancel),
            ShotField.Beans => await db.Bags.AnyAsync(b => b.Id == to, cancel),
            ShotField.Grinder => await db.Grinders.AnyAsync(g => g.Id == to, cancel),
            ShotField.Basket => await db.Baskets.AnyAsync(b => b.Id == to, cancel),
            _ => to == 1,
        };
        if (!isThere)
            throw new DoesNotFitException("to", $"There is no {change.Field.ToString().ToLowerInvariant()} with number {to}.");
    }

    private static int? Of(Shot shot, ShotField field) =>
        field switch
        {
            ShotField.Brewer => shot.BrewerId,
            ShotField.Beans => shot.BagId,
            ShotField.Grinder => shot.GrinderId,
            ShotField.Basket => shot.BasketId,
            _ => shot.DeletedAt is null ? null : 1,
        };

    private static void Set(Shot shot, ShotField field, int? to, DateTime now)
    {
        switch (field)
        {
            case ShotField.Brewer:
                shot.BrewerId = to;
                break;
            case ShotField.Beans:
                shot.BagId = to;
                break;
            case ShotField.Grinder:
                shot.GrinderId = to;
                break;
            case ShotField.Basket:
                shot.BasketId = to;
                break;
            default:
                shot.DeletedAt = to is null ? null : shot.DeletedAt ?? now;
                break;
        }
    }
}
