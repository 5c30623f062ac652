using Microsoft.EntityFrameworkCore;
using RuddySpring.Store;

namespace RuddySpring.Server.Storage;

/// <summary>The bin: shots that were deleted and can still be brought back.</summary>
public static class Bin
{
    /// <summary>Deletes the shots in the bin for good, with their traces, photos and advice, all or none.</summary>
    /// <param name="db">The store.</param>
    /// <param name="before">Only those that were put there before this time, UTC; null for all.</param>
    /// <param name="cancel">The request's.</param>
    /// <returns>How many.</returns>
    public static async Task<int> EmptyAsync(RuddyContext db, DateTime? before, CancellationToken cancel)
    {
        await using var whole = await db.Database.BeginTransactionAsync(cancel);
        var gone = db.Shots.Where(s => s.DeletedAt != null && (before == null || s.DeletedAt < before));
        await db.Advices.Where(a => gone.Any(s => s.Id == a.ShotId)).ExecuteDeleteAsync(cancel);
        var shots = await gone.ExecuteDeleteAsync(cancel);
        await whole.CommitAsync(cancel);
        return shots;
    }
}
