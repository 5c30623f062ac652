using Microsoft.EntityFrameworkCore;
using RuddySpring.Core;
using RuddySpring.Core.Beans;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Pulls;
using RuddySpring.Server.Hosting;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Bench;

/// <summary>Everything that stands on the bench or in the cupboard.</summary>
public sealed record BenchView(
    IReadOnlyList<BrewerView> Brewers, IReadOnlyList<MachineView> Machines, IReadOnlyList<GrinderView> Grinders,
    IReadOnlyList<BagView> Bags, IReadOnlyList<PullPlan> Plans, IReadOnlyList<FamilyView> Families);

public sealed record BrewerView(int Id, string Name);

/// <summary>A machine with the plans that suit it.</summary>
public sealed record MachineView(int Id, string Name, Machine Spec, string PressureBy, IReadOnlyList<string> PlanKeys);

public sealed record GrinderView(int Id, string Name, string ScaleUnit, double Step, bool FinerIsLower);

public sealed record BagView(
    int Id, string Name, string Roaster, DateOnly RoastedOn, string RoastLevel, bool Finished, int DaysFromRoast, RestState Rest,
    string Meaning);

/// <summary>A family to start a new machine from.</summary>
public sealed record FamilyView(MachineFamily Family, Machine Defaults, double DoseGrams, double YieldGrams);

public sealed record NewBrewer(string Name);

public sealed record MachineChange(string Name, Machine Spec);

public sealed record GrinderChange(string Name, string ScaleUnit, double Step, bool FinerIsLower);

public sealed record BagChange(string Name, string Roaster, DateOnly RoastedOn, string RoastLevel, bool Finished);

public static class BenchEndpoints
{
    private static readonly FieldRange GrinderStep = new("step", "Smallest step", 0.01, 100, "");

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
        api.MapPost("/bench/bags", async (BagChange change, RuddyContext db, TimeProvider time) =>
            await Add(db, time, Apply(new Bag(), change, time)));
        api.MapPut("/bench/bags/{id:int}", async (int id, BagChange change, RuddyContext db, TimeProvider time) =>
        {
            Apply(await Found(db.Bags, id, "bag"), change, time);
            return await SaveAsync(db, time);
        });
    }

    /// <summary>The plans that a machine can pull, the one to start with first.</summary>
    public static IReadOnlyList<string> PlanKeys(Machine machine) => machine.PressureBy == PressureBy.Spring
        ? [ShippedPlans.FreeSpring.Key]
        : [.. ShippedPlans.All.Where(p => p != ShippedPlans.FreeSpring).Select(p => p.Key)];

    /// <summary>Whole days from roast to today at the bench.</summary>
    public static int DaysFromRoast(Bag bag, TimeProvider time) =>
        Math.Max(0, DateOnly.FromDateTime(time.GetLocalNow().DateTime).DayNumber - bag.RoastedOn.DayNumber);

    private static async Task<BenchView> View(RuddyContext db, TimeProvider time) => new(
        [.. (await db.Brewers.AsNoTracking().ToListAsync()).Select(b => new BrewerView(b.Id, b.Name))],
        [.. (await db.Machines.AsNoTracking().ToListAsync()).Select(m => new MachineView(
            m.Id, m.Name, m.Spec, m.Spec.PressureBy.ToString(), PlanKeys(m.Spec)))],
        [.. (await db.Grinders.AsNoTracking().ToListAsync()).Select(g => new GrinderView(g.Id, g.Name, g.ScaleUnit, g.Step, g.FinerIsLower))],
        [.. (await db.Bags.AsNoTracking().ToListAsync()).OrderBy(b => b.Finished).ThenByDescending(b => b.RoastedOn).Select(b => View(b, time))],
        ShippedPlans.All,
        [.. Enum.GetValues<MachineFamily>().Select(f =>
        {
            var (machine, dose, yield) = FamilyDefaults.Of(f);
            return new FamilyView(f, machine, dose, yield);
        })]);

    private static BagView View(Bag bag, TimeProvider time)
    {
        var days = DaysFromRoast(bag, time);
        return new(
            bag.Id, bag.Name, bag.Roaster, bag.RoastedOn, bag.RoastLevel, bag.Finished, days, BeanAge.State(days), BeanAge.Meaning(days));
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
        return row;
    }

    private static Bag Apply(Bag row, BagChange change, TimeProvider time)
    {
        row.Name = Texts.Required(change.Name, "name", "Coffee");
        row.Roaster = Texts.Optional(change.Roaster, "roaster", "Roaster");
        row.RoastLevel = Texts.Required(change.RoastLevel, "roastLevel", "Roast", 20);
        var today = DateOnly.FromDateTime(time.GetLocalNow().DateTime);
        if (change.RoastedOn > today || change.RoastedOn < today.AddYears(-3))
            throw new DoesNotFitException("roastedOn", $"Roast date is {change.RoastedOn:yyyy-MM-dd}; it must lie between {today.AddYears(-3):yyyy-MM-dd} and today.");
        row.RoastedOn = change.RoastedOn;
        row.Finished = change.Finished;
        return row;
    }

    private static async Task<T> Found<T>(DbSet<T> set, int id, string what)
        where T : class => await set.FindAsync(id) ?? throw new NotThereException($"There is no {what} with number {id}.");

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
