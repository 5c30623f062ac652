using Microsoft.EntityFrameworkCore;
using RuddySpring.Core.Dialing;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Shots;
using RuddySpring.Server.Prepare;
using RuddySpring.Store;

namespace RuddySpring.Server.Bench;

/// <summary>What age will ask of a bag's grind.</summary>
/// <param name="BagId">Whose.</param>
/// <param name="GrinderId">On which grinder, the one it was ground on last.</param>
/// <param name="Now">Setting that keeps the resistance of its last shot today.</param>
/// <param name="InThreeDays">In three days.</param>
/// <param name="InAWeek">In a week.</param>
/// <param name="Sentence">In words.</param>
public sealed record BagAgeing(int BagId, int GrinderId, double Now, double InThreeDays, double InAWeek, string Sentence);

/// <summary>What a basket has turned out to be worth.</summary>
/// <param name="Factor">On the resistance, against the machine's own basket.</param>
/// <param name="Shots">Shots that it rests on.</param>
public sealed record BasketLearned(int BasketId, int GrinderId, double Factor, int Shots);

/// <summary>What has been learned about what lies on the shelf.</summary>
public sealed record ShelfLearned(IReadOnlyList<BagAgeing> Bags, IReadOnlyList<BasketLearned> Baskets);

public static class Ageing
{
    public static void MapShelf(this IEndpointRouteBuilder api) => api.MapGet("/bench/learned", OfShelfAsync);

    private static async Task<ShelfLearned> OfShelfAsync(RuddyContext db, TimeProvider time, CancellationToken cancel)
    {
        var bags = new List<BagAgeing>();
        var baskets = new List<BasketLearned>();
        var shapes = await db.Baskets.AsNoTracking().ToDictionaryAsync(b => b.Id, b => b.Spec, cancel);
        var own = await db.Machines.AsNoTracking().ToDictionaryAsync(m => m.Id, m => Basket.Of(m.Spec), cancel);
        var open = await db.Bags.AsNoTracking().Where(b => !b.Finished && b.DeletedAt == null).ToListAsync(cancel);
        foreach (var grinder in await db.Grinders.AsNoTracking().Where(g => g.DeletedAt == null).ToListAsync(cancel))
        {
            var known = await ShotBelief.KnownAsync(grinder.Id, db, cancel);
            if (known.Count == 0)
                continue;
            var advice = GrindAdvice.Learn(new(grinder.Step, grinder.FinerIsLower), known);
            foreach (var bag in open)
            {
                if (known.LastOrDefault(s => s.Bag == bag.Id) is not { } last)
                    continue;
                var age = BenchReader.DaysFromRoast(bag, time);
                var frozen = bag.Dates.Frozen(DateOnly.FromDateTime(time.GetLocalNow().DateTime));
                var outlook = GrindOutlook.Of(advice, last, age, ages: !frozen);
                bags.Add(
                    new(
                        bag.Id,
                        grinder.Id,
                        outlook.Now,
                        outlook.InThreeDays,
                        outlook.InAWeek,
                        GrindWords.Ageing(
                            outlook,
                            last.Setting,
                            frozen,
                            new(grinder.Name, grinder.ScaleUnit, grinder.Step, grinder.PurgeGrams),
                            grinder.FinerIsLower
                        )
                    )
                );
            }

            baskets.AddRange(
                known
                    .Select(s => s.Basket)
                    .Where(b => b != 0)
                    .Distinct()
                    .Select(b => (Id: b, Learned: advice.BasketFactor(b), By: known.Last(s => s.Basket == b).Machine))
                    .Where(b => b.Learned is not null)
                    .Select(b => new BasketLearned(
                        b.Id,
                        grinder.Id,
                        GrindResistivity.BasketFactor(b.Learned!.Value.Factor, shapes[b.Id], own[b.By]),
                        b.Learned.Value.Shots
                    ))
            );
        }

        // the grinder it was ground on last speaks for a bag
        return new([.. bags.GroupBy(b => b.BagId).Select(g => g.Last())], baskets);
    }
}
