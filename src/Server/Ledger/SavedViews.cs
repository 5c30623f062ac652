using Microsoft.EntityFrameworkCore;
using RuddySpring.Core;
using RuddySpring.Server.Hosting;
using RuddySpring.Store;

namespace RuddySpring.Server.Ledger;

/// <summary>A view of the ledger under a name.</summary>
/// <param name="Query">What is shown, as it stands in the ledger's address after the question mark.</param>
public sealed record LedgerViewName(int Id, string Name, string Query);

/// <summary>A view to keep.</summary>
public sealed record LedgerViewToKeep(string Name, string Query);

/// <summary>Views of the ledger that are kept.</summary>
public static class SavedViews
{
    private const int Most = 30;
    internal const int LongestName = 40;
    internal const int LongestQuery = 500;

    public static void MapSavedViews(this IEndpointRouteBuilder api)
    {
        api.MapGet("/ledger/views", (RuddyContext db, CancellationToken cancel) => AllAsync(db, cancel));
        api.MapPost("/ledger/views", async (LedgerViewToKeep view, RuddyContext db, CancellationToken cancel) =>
        {
            var name = Texts.Required(view.Name, "name", "Name", LongestName);
            var query = Texts.Required(view.Query, "query", "What is shown", LongestQuery);
            var kept = await db.Views.SingleOrDefaultAsync(v => v.Name == name, cancel);
            if (kept is null && await db.Views.CountAsync(cancel) >= Most)
                throw new DoesNotFitException("name", $"At most {Most} views are kept; delete one first.");
            if (kept is null)
                db.Views.Add(new() { Name = name, Query = query });
            else
                kept.Query = query;
            await db.SaveChangesAsync(cancel);
            return await AllAsync(db, cancel);
        });
        api.MapDelete("/ledger/views/{id:int}", async (int id, RuddyContext db, CancellationToken cancel) =>
        {
            if (await db.Views.Where(v => v.Id == id).ExecuteDeleteAsync(cancel) == 0)
                throw new NotThereException($"There is no view {id}.");
            return await AllAsync(db, cancel);
        });
    }

    private static async Task<List<LedgerViewName>> AllAsync(RuddyContext db, CancellationToken cancel) =>
        await db
            .Views.AsNoTracking()
            .OrderBy(v => v.Name)
            .Select(v => new LedgerViewName(v.Id, v.Name, v.Query))
            .ToListAsync(cancel);
}
