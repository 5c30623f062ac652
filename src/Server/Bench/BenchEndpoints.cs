using Microsoft.EntityFrameworkCore;
using RuddySpring.Core;
using RuddySpring.Core.Beans;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Pulls;
using RuddySpring.Server.Hosting;
using RuddySpring.Server.Plans;
using RuddySpring.Server.Prepare;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Bench;

/// <summary>Everything that stands on the bench or in the cupboard.</summary>
public sealed record BenchView(
    IReadOnlyList<BrewerView> Brewers, IReadOnlyList<MachineView> Machines, IReadOnlyList<GrinderView> Grinders,
    IReadOnlyList<BagView> Bags, IReadOnlyList<PullPlan> Plans, IReadOnlyList<FamilyView> Families, RestWindow Rest, IReadOnlyList<NamedRest> RestSchools,
    IReadOnlyList<BasketView> Baskets, IReadOnlyList<PutAwayView> PutAway);

/// <summary>What can be put away.</summary>
public enum BenchKind
{
    Machines,
    Grinders,
    Baskets,
    Bags,
}

/// <summary>Something that was put away and can be taken back.</summary>
public sealed record PutAwayView(BenchKind Kind, int Id, string Name);

public sealed record BasketView(int Id, string Name, Basket Spec);

public sealed record BasketChange(string Name, Basket Spec);

public sealed record BrewerView(int Id, string Name);

/// <summary>A machine with the plans that suit it, and the sheet to start from on it: last time's.</summary>
public sealed record MachineView(int Id, string Name, Machine Spec, string PressureBy, IReadOnlyList<string> PlanKeys, Sheet Start);

public sealed record GrinderView(
    int Id, string Name, string ScaleUnit, double Step, bool FinerIsLower, double? ZeroPoint, double RetentionGrams, double PurgeGrams);

public sealed record BagView(
    int Id, string Name, string Roaster, DateOnly RoastedOn, string RoastLevel, bool Finished, string Process, DateOnly? OpenedOn, DateOnly? FrozenOn,
    DateOnly? ThawedOn, double? GramsLeft, int DaysFromRoast, RestState Rest, bool Frozen, string Meaning);

/// <summary>A family to start a new machine from.</summary>
public sealed record FamilyView(MachineFamily Family, Machine Defaults, double DoseGrams, double YieldGrams);

public sealed record NewBrewer(string Name);

public sealed record MachineChange(string Name, Machine Spec);

public sealed record GrinderChange(
    string Name, string ScaleUnit, double Step, bool FinerIsLower, double? ZeroPoint = null, double RetentionGrams = 0, double PurgeGrams = 0);

public sealed record BagChange(
    string Name, string Roaster, DateOnly RoastedOn, string RoastLevel, bool Finished, string Process = "", DateOnly? OpenedOn = null,
    DateOnly? FrozenOn = null, DateOnly? ThawedOn = null, double? GramsLeft = null);

public static class BenchEndpoints
{
    private static readonly FieldRange GrinderStep = new("step", "Smallest step", 0.01, 100, "");
    private static readonly FieldRange Zero = new("zeroPoint", "Zero point", -1000, 1000, "");
    private static readonly FieldRange Retention = new("retentionGrams", "Held back", 0, 30, "g");
    private static readonly FieldRange Purge = new("purgeGrams", "Purge", 0, 50, "g");
    private static readonly FieldRange Left = new("gramsLeft", "Grams left", 0, 5000, "g");

    public static void MapBench(this IEndpointRouteBuilder api)
    {
        api.MapGet("/bench", async (RuddyContext db, TimeProvider time) => await View(db, time));
        api.MapPost("/bench/brewers", async (NewBrewer change, RuddyContext db, TimeProvider time) =>
            await Add(db, time, new Brewer { Name = Texts.Required(change.Name, "name", "Name") }));
        api.MapPost("/bench/machines", async (MachineChange change, RuddyContext db, TimeProvider time) =>
            await Add(db, time, Apply(new BenchMachine(), change)));
        api.MapPut("/bench/machines/{id:int}", async (int id, MachineChange change, RuddyContext db, TimeProvider time) =>
        {
            Apply(await Found(db.Machines, id, "machine"), change);
            return await SaveAsync(db, time);
        });
        api.MapPost("/bench/grinders", async (GrinderChange change, RuddyContext db, TimeProvider time) =>
            await Add(db, time, Apply(new Grinder(), change)));
        api.MapPut("/bench/grinders/{id:int}", async (int id, GrinderChange change, RuddyContext db, TimeProvider time) =>
        {
            Apply(await Found(db.Grinders, id, "grinder"), change);
            return await SaveAsync(db, time);
        });
        api.MapPost("/bench/baskets", async (BasketChange change, RuddyContext db, TimeProvider time) =>
            await Add(db, time, Apply(new BenchBasket(), change)));
        api.MapPut("/bench/baskets/{id:int}", async (int id, BasketChange change, RuddyContext db, TimeProvider time) =>
        {
            Apply(await Found(db.Baskets, id, "basket"), change);
            return await SaveAsync(db, time);
        });
        // put away, not thrown away: its shots keep it, and it can be taken back
        foreach (var kind in Enum.GetValues<BenchKind>())
        {
            var path = $"/bench/{kind.ToString().ToLowerInvariant()}/{{id:int}}";
            api.MapDelete(path, async (int id, RuddyContext db, TimeProvider time) =>
            {
                (await Found(kind, id, db)).DeletedAt = time.GetUtcNow().UtcDateTime;
                return await SaveAsync(db, time);
            });
            api.MapPost($"{path}/restore", async (int id, RuddyContext db, TimeProvider time) =>
            {
                (await Found(kind, id, db)).DeletedAt = null;
                return await SaveAsync(db, time);
            });
        }

        api.MapPut("/bench/rest", async (RestWindow rest, RuddyContext db, TimeProvider time) =>
        {
            (await db.Households.SingleAsync()).Rest = rest.Checked();
            return await SaveAsync(db, time);
        });
        api.MapPost("/bench/bags", async (BagChange change, RuddyContext db, TimeProvider time) =>
            await Add(db, time, Apply(new Bag(), change, time)));
        api.MapPut("/bench/bags/{id:int}", async (int id, BagChange change, RuddyContext db, TimeProvider time) =>
        {
            Apply(await Found(db.Bags, id, "bag"), change, time);
            return await SaveAsync(db, time);
        });
    }

    /// <summary>Whole days of rest to today at the bench; days in the freezer do not count.</summary>
    public static int DaysFromRoast(Bag bag, TimeProvider time) => bag.Dates.RestDays(Today(time));

    private static DateOnly Today(TimeProvider time) => DateOnly.FromDateTime(time.GetLocalNow().DateTime);

    private static async Task<BenchView> View(RuddyContext db, TimeProvider time)
    {
        var rest = (await db.Households.AsNoTracking().SingleAsync()).Rest;
        var plans = await PlanLibrary.AllAsync(db);
        var machines = new List<MachineView>();
        foreach (var m in await db.Machines.AsNoTracking().Where(m => m.DeletedAt == null).ToListAsync())
            machines.Add(new(m.Id, m.Name, m.Spec, m.Spec.PressureBy.ToString(), PlanLibrary.KeysFor(m.Spec, plans), await PrepareEndpoints.StartAsync(db, m)));
        return new(
        [.. (await db.Brewers.AsNoTracking().ToListAsync()).Select(b => new BrewerView(b.Id, b.Name))],
        machines,
        [.. (await db.Grinders.AsNoTracking().Where(g => g.DeletedAt == null).ToListAsync()).Select(g => new GrinderView(
            g.Id, g.Name, g.ScaleUnit, g.Step, g.FinerIsLower, g.ZeroPoint, g.RetentionGrams, g.PurgeGrams))],
        [.. (await db.Bags.AsNoTracking().Where(b => b.DeletedAt == null).ToListAsync()).OrderBy(b => b.Finished).ThenByDescending(b => b.RoastedOn).Select(b => View(b, rest, time))],
        plans,
        [.. Enum.GetValues<MachineFamily>().Select(f =>
        {
            var (machine, dose, yield) = FamilyDefaults.Of(f);
            return new FamilyView(f, machine, dose, yield);
        })], rest, RestWindow.Schools,
        [.. (await db.Baskets.AsNoTracking().Where(b => b.DeletedAt == null).OrderBy(b => b.Id).ToListAsync()).Select(b => new BasketView(b.Id, b.Name, b.Spec))],
        await PutAwayAsync(db));
    }

    private static BagView View(Bag bag, RestWindow rest, TimeProvider time)
    {
        var days = DaysFromRoast(bag, time);
        var frozen = bag.Dates.Frozen(Today(time));
        return new(
            bag.Id, bag.Name, bag.Roaster, bag.RoastedOn, bag.RoastLevel, bag.Finished, bag.Process, bag.OpenedOn, bag.FrozenOn, bag.ThawedOn, bag.GramsLeft,
            days, rest.State(days), frozen, frozen ? $"Frozen; its clock stands at {rest.Meaning(days)}" : rest.Meaning(days));
    }

    private static BenchMachine Apply(BenchMachine row, MachineChange change)
    {
        row.Name = Texts.Required(change.Name, "name", "Name");
        row.Spec = change.Spec.Checked();
        return row;
    }

    private static Grinder Apply(Grinder row, GrinderChange change)
    {
        row.Name = Texts.Required(change.Name, "name", "Name");
        row.ScaleUnit = Texts.Required(change.ScaleUnit, "scaleUnit", "Name of a step", 20);
        row.Step = GrinderStep.Check(change.Step);
        row.FinerIsLower = change.FinerIsLower;
        row.ZeroPoint = change.ZeroPoint is { } zero ? Zero.Check(zero) : null;
        row.RetentionGrams = Retention.Check(change.RetentionGrams);
        row.PurgeGrams = Purge.Check(change.PurgeGrams);
        return row;
    }

    private static BenchBasket Apply(BenchBasket row, BasketChange change)
    {
        row.Name = Texts.Required(change.Name, "name", "Name");
        row.Spec = change.Spec.Checked();
        return row;
    }

    private static Bag Apply(Bag row, BagChange change, TimeProvider time)
    {
        row.Name = Texts.Required(change.Name, "name", "Coffee");
        row.Roaster = Texts.Optional(change.Roaster, "roaster", "Roaster");
        row.RoastLevel = Texts.Required(change.RoastLevel, "roastLevel", "Roast", 20);
        var dates = new BagDates(change.RoastedOn, change.FrozenOn, change.ThawedOn).Checked(Today(time));
        if (change.OpenedOn < change.RoastedOn || change.OpenedOn > Today(time))
            throw new DoesNotFitException("openedOn", $"Opened on {change.OpenedOn:yyyy-MM-dd}; it must lie between the roast date and today.");
        row.RoastedOn = dates.RoastedOn;
        row.FrozenOn = dates.FrozenOn;
        row.ThawedOn = dates.ThawedOn;
        row.OpenedOn = change.OpenedOn;
        row.Process = Texts.Optional(change.Process, "process", "Process", 40);
        row.GramsLeft = change.GramsLeft is { } left ? Left.Check(left) : null;
        row.Finished = change.Finished;
        return row;
    }

    private static async Task<T> Found<T>(DbSet<T> set, int id, string what)
        where T : class => await set.FindAsync(id) ?? throw new NotThereException($"There is no {what} with number {id}.");

    private static async Task<IOnTheBench> Found(BenchKind kind, int id, RuddyContext db) => kind switch
    {
        BenchKind.Machines => await Found(db.Machines, id, "machine"),
        BenchKind.Grinders => await Found(db.Grinders, id, "grinder"),
        BenchKind.Baskets => await Found(db.Baskets, id, "basket"),
        _ => await Found(db.Bags, id, "bag"),
    };

    private static async Task<IReadOnlyList<PutAwayView>> PutAwayAsync(RuddyContext db)
    {
        var away = new List<(DateTime At, PutAwayView View)>();
        async Task From<T>(BenchKind kind, IQueryable<T> rows)
            where T : class, IOnTheBench =>
            away.AddRange((await rows.AsNoTracking().Where(r => r.DeletedAt != null).ToListAsync()).Select(r => (r.DeletedAt!.Value, new PutAwayView(kind, r.Id, r.Name))));
        await From(BenchKind.Machines, db.Machines);
        await From(BenchKind.Grinders, db.Grinders);
        await From(BenchKind.Baskets, db.Baskets);
        await From(BenchKind.Bags, db.Bags);
        return [.. away.OrderByDescending(a => a.At).Select(a => a.View)];
    }

    private static Task<BenchView> Add<T>(RuddyContext db, TimeProvider time, T row)
        where T : class
    {
        db.Add(row);
        return SaveAsync(db, time);
    }

    private static async Task<BenchView> SaveAsync(RuddyContext db, TimeProvider time)
    {
        await db.SaveChangesAsync();
        return await View(db, time);
    }
}
