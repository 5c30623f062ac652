using Microsoft.EntityFrameworkCore;
using RuddySpring.Server.Tasting;
using RuddySpring.Store;

namespace RuddySpring.Server.Ledger;

/// <summary>Reads lines of the ledger: of each shot only the columns that its line shows, and of what it refers to only the
/// names. Whole shots would take three times as long to read.</summary>
public static class LedgerLines
{
    private delegate IAsyncEnumerable<ShotLine> Query(RuddyContext db, List<int> ids);

    // looking so long an expression up again takes longer than finding a page's shots
    private static readonly MadeOnce<Query> Made = new(Make);

    /// <summary>The lines of shots, in the order of their numbers as given; one that is there no more is left out.</summary>
    public static async Task<List<ShotLine>> ReadAsync(RuddyContext db, IReadOnlyList<int> ids, CancellationToken cancel)
    {
        var lines = new Dictionary<int, ShotLine>(ids.Count);
        await foreach (var line in Made.For(db)(db, [.. ids]).WithCancellation(cancel))
            lines.Add(line.Id, line);
        return [.. ids.Where(lines.ContainsKey).Select(id => lines[id])];
    }

    private static Query Make() =>
        new(
            EF.CompileAsyncQuery(
                (RuddyContext db, List<int> ids) =>
                    db
                        .Shots.AsNoTracking()
                        .Where(s => ids.Contains(s.Id))
                        .Select(s => new ShotLine(
                            s.Id,
                            s.Version,
                            s.PulledAt,
                            s.Source,
                            s.Brewer!.Name ?? "",
                            s.Machine!.Name ?? "",
                            s.Bag!.Name ?? "",
                            s.Bag.Roaster ?? "",
                            s.Grinder!.Name ?? "",
                            s.Grinder.ScaleUnit ?? "",
                            s.GrindSetting,
                            s.DoseGrams,
                            s.YieldGrams,
                            s.WaterC,
                            s.PlanName,
                            s.Measures,
                            TastingEndpoints.View(s.Taste, s.Liking, s.Tapped, s.Strength, s.Before),
                            s.SmallPressure,
                            s.SmallWeight
                        ))
            )
        );
}
