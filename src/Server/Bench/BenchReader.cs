using Microsoft.EntityFrameworkCore;
using RuddySpring.Core.Beans;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Pulls;
using RuddySpring.Server.Plans;
using RuddySpring.Server.Prepare;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Bench;

/// <summary>Reads the bench: people, machines, grinders, baskets and beans with what they mean today.</summary>
public static class BenchReader
{
    /// <summary>Whole days of rest to today at the bench; days in the freezer do not count.</summary>
    public static int DaysFromRoast(Bag bag, TimeProvider time) => bag.Dates.RestDays(Today(time));

    internal static DateOnly Today(TimeProvider time) => DateOnly.FromDateTime(time.GetLocalNow().DateTime);

    /// <summary>The whole bench.</summary>
    public static async Task<BenchView> OfAsync(RuddyContext db, TimeProvider time, CancellationToken cancel)
    {
        var household = await db.Households.AsNoTracking().SingleAsync(cancel);
        var rest = household.Rest;
        var plans = await PlanLibrary.AllAsync(db, cancel);
        var machines = new List<MachineView>();
        foreach (var m in await db.Machines.AsNoTracking().Where(m => m.DeletedAt == null).ToListAsync(cancel))
        {
            machines.Add(
                new(
                    m.Id,
                    m.Version,
                    m.Name,
                    m.Spec,
                    Machines.MachineEndpoints.Problem(m),
                    m.Spec.PressureBy.ToString(),
                    PlanLibrary.KeysFor(m.Spec, plans),
                    await PrepareEndpoints.StartAsync(db, m, cancel)
                )
            );
        }

        return new(
            [
                .. (await db.Brewers.AsNoTracking().ToListAsync(cancel)).Select(b => new BrewerView(
                    b.Id,
                    b.Version,
                    b.Name,
                    b.School,
                    b.PressureUnit,
                    b.TemperatureUnit,
                    b.ForceUnit
                )),
            ],
            machines,
            [
                .. (await db.Grinders.AsNoTracking().Where(g => g.DeletedAt == null).ToListAsync(cancel)).Select(
                    g => new GrinderView(
                        g.Id,
                        g.Version,
                        g.Name,
                        g.ScaleUnit,
                        g.Step,
                        g.FinerIsLower,
                        g.ZeroPoint,
                        g.RetentionGrams,
                        g.PurgeGrams
                    )
                ),
            ],
            [
                .. (await db.Bags.AsNoTracking().Where(b => b.DeletedAt == null).ToListAsync(cancel))
                    .OrderBy(b => b.Finished)
                    .ThenByDescending(b => b.RoastedOn)
                    .Select(b => View(b, rest, time)),
            ],
            plans,
            [
                .. Enum.GetValues<MachineFamily>()
                    .Select(f =>
                    {
                        var (machine, dose, yield) = FamilyDefaults.Of(f);
                        return new FamilyView(f, machine, dose, yield);
                    }),
            ],
            rest,
            RestWindow.Schools,
            [
                .. (
                    await db.Baskets.AsNoTracking().Where(b => b.DeletedAt == null).OrderBy(b => b.Id).ToListAsync(cancel)
                ).Select(b => new BasketView(b.Id, b.Version, b.Name, b.Spec)),
            ],
            await PutAwayAsync(db, cancel),
            household.Version,
            await db.Plans.Where(p => p.DeletedAt == null).Select(p => new PlanVersion(p.Id, p.Version)).ToListAsync(cancel),
            plans.ToDictionary(p => p.Key, PlanSketch.Of)
        );
    }

    private static BagView View(Bag bag, RestWindow rest, TimeProvider time)
    {
        var days = DaysFromRoast(bag, time);
        var frozen = bag.Dates.Frozen(Today(time));
        return new(
            bag.Id,
            bag.Version,
            bag.Name,
            bag.Roaster,
            bag.RoastedOn,
            bag.RoastLevel,
            bag.Finished,
            bag.Process,
            bag.OpenedOn,
            bag.FrozenOn,
            bag.ThawedOn,
            bag.GramsLeft,
            days,
            rest.State(days),
            frozen,
            frozen ? $"Frozen; its clock stands at {rest.Meaning(days)}" : rest.Meaning(days),
            bag.BrewerId
        );
    }

    private static async Task<IReadOnlyList<PutAwayView>> PutAwayAsync(RuddyContext db, CancellationToken cancel)
    {
        var away = new List<(DateTime At, PutAwayView View)>();
        async Task From<T>(BenchKind kind, IQueryable<T> rows)
            where T : class, IOnTheBench =>
            away.AddRange(
                (await rows.AsNoTracking().Where(r => r.DeletedAt != null).ToListAsync(cancel)).Select(r =>
                    (r.DeletedAt!.Value, new PutAwayView(kind, r.Id, r.Name))
                )
            );
        await From(BenchKind.Machines, db.Machines);
        await From(BenchKind.Grinders, db.Grinders);
        await From(BenchKind.Baskets, db.Baskets);
        await From(BenchKind.Bags, db.Bags);
        return [.. away.OrderByDescending(a => a.At).Select(a => a.View)];
    }
}
