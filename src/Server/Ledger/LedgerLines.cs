using System.Linq.Expressions;
using Microsoft.EntityFrameworkCore;
using RuddySpring.Server.Tasting;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Ledger;

/// <summary>Reads lines of the ledger: of each shot only the columns that its line shows, and of what it refers to only the
/// names. Whole shots would take three times as long to read.</summary>
public static class LedgerLines
{
    // kept, because putting together so long an expression anew for every question takes time
    private static readonly Expression<Func<Shot, ShotLine>> Line = s =>
        new(
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
        );

    /// <summary>The lines of shots, in their order.</summary>
    public static Task<List<ShotLine>> ReadAsync(IQueryable<Shot> shots, CancellationToken cancel) =>
        shots.Select(Line).ToListAsync(cancel);
}
