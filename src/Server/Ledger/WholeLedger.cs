using Microsoft.EntityFrameworkCore;
using RuddySpring.Store;

namespace RuddySpring.Server.Ledger;

/// <summary>The ledger as it opens: every shot that is not in the bin, the newest first. It is asked for most, so its query is
/// made once; composing it at each question takes longer than finding a page's shots.</summary>
internal static class WholeLedger
{
    private delegate IAsyncEnumerable<int> Query(RuddyContext db, int skip, int take);

    private static readonly MadeOnce<Query> Made = new(Make);
    private static readonly LedgerFilter Nothing = new();

    /// <summary>Whether a question is for the whole ledger.</summary>
    public static bool IsMeant(LedgerFilter filter, LedgerOrder order, bool ascending) =>
        order == LedgerOrder.Date && !ascending && filter == Nothing;

    /// <summary>The numbers of some of its shots.</summary>
    /// <param name="db">The store.</param>
    /// <param name="skip">How many newer ones are left out, 0 or more.</param>
    /// <param name="take">How many there are at most, 1 or more.</param>
    /// <param name="cancel">The request's.</param>
    public static async Task<List<int>> IdsAsync(RuddyContext db, int skip, int take, CancellationToken cancel)
    {
        var ids = new List<int>(take);
        await foreach (var id in Made.For(db)(db, skip, take).WithCancellation(cancel))
            ids.Add(id);
        return ids;
    }

    private static Query Make() =>
        new(
            EF.CompileAsyncQuery(
                (RuddyContext db, int skip, int take) =>
                    db
                        .Shots.AsNoTracking()
                        .Where(s => s.DeletedAt == null)
                        .OrderByDescending(s => s.PulledAt)
                        .ThenByDescending(s => s.Id)
                        .Skip(skip)
                        .Take(take)
                        .Select(s => s.Id)
            )
        );
}
