using Microsoft.EntityFrameworkCore;
using RuddySpring.Core;
using RuddySpring.Core.Beans;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Pulls;
using RuddySpring.Server.Hosting;
using RuddySpring.Server.Household;
using RuddySpring.Server.Plans;
using RuddySpring.Server.Prepare;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Bench;

/// <summary>Everything that stands on the bench or in the cupboard.</summary>
public sealed record BenchView(
    IReadOnlyList<BrewerView> Brewers,
    IReadOnlyList<MachineView> Machines,
    IReadOnlyList<GrinderView> Grinders,
    IReadOnlyList<BagView> Bags,
    IReadOnlyList<PullPlan> Plans,
    IReadOnlyList<FamilyView> Families,
    RestWindow Rest,
    IReadOnlyList<NamedRest> RestSchools,
    IReadOnlyList<BasketView> Baskets,
    IReadOnlyList<PutAwayView> PutAway,
    int HouseholdVersion,
    IReadOnlyList<PlanVersion> PlanVersions,
    IReadOnlyDictionary<string, IReadOnlyList<SketchPoint>> PlanSketches
);

/// <summary>The version of a plan of the household's own, to send with a change of it.</summary>
public sealed record PlanVersion(int Id, int Version);

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

public sealed record BasketView(int Id, int Version, string Name, Basket Spec);

public sealed record BasketChange(string Name, Basket Spec);

/// <summary>A person who brews; school and units are null for the household's.</summary>
public sealed record BrewerView(
    int Id,
    int Version,
    string Name,
    string? School,
    string? PressureUnit,
    string? TemperatureUnit,
    string? ForceUnit
);

/// <summary>A machine with the plans that suit it, and the sheet to start from on it: last time's.</summary>
/// <param name="Problem">What is wrong with its stored numbers; null where they are sound.</param>
public sealed record MachineView(
    int Id,
    int Version,
    string Name,
    Machine Spec,
    string? Problem,
    string PressureBy,
    IReadOnlyList<string> PlanKeys,
    Sheet Start
);

public sealed record GrinderView(
    int Id,
    int Version,
    string Name,
    string ScaleUnit,
    double Step,
    bool FinerIsLower,
    double? ZeroPoint,
    double RetentionGrams,
    double PurgeGrams
);

public sealed record BagView(
    int Id,
    int Version,
    string Name,
    string Roaster,
    DateOnly RoastedOn,
    string RoastLevel,
    bool Finished,
    string Process,
    DateOnly? OpenedOn,
    DateOnly? FrozenOn,
    DateOnly? ThawedOn,
    double? GramsLeft,
    int DaysFromRoast,
    RestState Rest,
    bool Frozen,
    string Meaning,
    int? BrewerId
);

/// <summary>A family to start a new machine from.</summary>
public sealed record FamilyView(MachineFamily Family, Machine Defaults, double DoseGrams, double YieldGrams);

/// <summary>A person who brews.</summary>
/// <param name="School">Key of the school that this person judges shots by; null for the household's.</param>
/// <param name="PressureUnit">bar, psi or kPa; null for the household's.</param>
/// <param name="TemperatureUnit">degC or degF; null for the household's.</param>
/// <param name="ForceUnit">kgf or N; null for the household's.</param>
public sealed record NewBrewer(
    string Name,
    string? School = null,
    string? PressureUnit = null,
    string? TemperatureUnit = null,
    string? ForceUnit = null
);

public sealed record MachineChange(string Name, Machine Spec);

public sealed record GrinderChange(
    string Name,
    string ScaleUnit,
    double Step,
    bool FinerIsLower,
    double? ZeroPoint = null,
    double RetentionGrams = 0,
    double PurgeGrams = 0
);

public sealed record BagChange(
    string Name,
    string Roaster,
    DateOnly RoastedOn,
    string RoastLevel,
    bool Finished,
    string Process = "",
    DateOnly? OpenedOn = null,
    DateOnly? FrozenOn = null,
    DateOnly? ThawedOn = null,
    double? GramsLeft = null,
    int? BrewerId = null
);

public static class BenchEndpoints
{
    private static readonly FieldRange GrinderStep = new("step", "Smallest step", 0.01, 100, "");
    private static readonly FieldRange Zero = new("zeroPoint", "Zero point", -1000, 1000, "");
    private static readonly FieldRange Retention = new("retentionGrams", "Held back", 0, 30, "g");
    private static readonly FieldRange Purge = new("purgeGrams", "Purge", 0, 50, "g");
    internal static readonly FieldRange Left = new("gramsLeft", "Grams left", 0, 5000, "g");

    public static void MapBench(this IEndpointRouteBuilder api)
    {
        api.MapGet("/bench", async (RuddyContext db, TimeProvider time, CancellationToken cancel) =>
            await View(db, time, cancel)
        );
        MapThing<Brewer, NewBrewer>(
            api,
            "brewers",
            "The person",
            r => new(r.Name, r.School, r.PressureUnit, r.TemperatureUnit, r.ForceUnit),
            (row, change, _) =>
            {
                DisplayUnits.Check(change.PressureUnit, change.TemperatureUnit, change.ForceUnit);
                row.Name = Texts.Required(change.Name, "name", "Name");
                row.School = HouseholdEndpoints.KnownSchool(change.School);
                row.PressureUnit = change.PressureUnit;
                row.TemperatureUnit = change.TemperatureUnit;
                row.ForceUnit = change.ForceUnit;
            }
        );
        MapThing<BenchMachine, MachineChange>(
            api,
            "machines",
            "The machine",
            r => new(r.Name, r.Spec),
            (row, change, _) =>
            {
                row.Name = Texts.Required(change.Name, "name", "Name");
                row.Spec = HeatPrior.Kept(change.Spec, row.Spec).Checked();
            }
        );
        MapThing<Grinder, GrinderChange>(
            api,
            "grinders",
            "The grinder",
            r => new(r.Name, r.ScaleUnit, r.Step, r.FinerIsLower, r.ZeroPoint, r.RetentionGrams, r.PurgeGrams),
            (row, change, _) => Apply(row, change)
        );
        MapThing<BenchBasket, BasketChange>(
            api,
            "baskets",
            "The basket",
            r => new(r.Name, r.Spec),
            (row, change, _) =>
            {
                row.Name = Texts.Required(change.Name, "name", "Name");
                row.Spec = change.Spec.Checked();
            }
        );
        MapThing<Bag, BagChange>(
            api,
            "bags",
            "The bag",
            r =>
                new(
                    r.Name,
                    r.Roaster,
                    r.RoastedOn,
                    r.RoastLevel,
                    r.Finished,
                    r.Process,
                    r.OpenedOn,
                    r.FrozenOn,
                    r.ThawedOn,
                    r.GramsLeft,
                    r.BrewerId
                ),
            Apply,
            async (change, db, cancel) =>
            {
                if (change.BrewerId is { } brewer && !await db.Brewers.AnyAsync(b => b.Id == brewer, cancel))
                    throw new DoesNotFitException("brewerId", $"There is no person with number {brewer}.");
            }
        );
        // put away, not thrown away: its shots keep it, and it can be taken back
        foreach (var kind in Enum.GetValues<BenchKind>())
        {
            var path = $"/bench/{kind.ToString().ToLowerInvariant()}/{{id:int}}";
            api.MapDelete(path, async (int id, RuddyContext db, TimeProvider time, CancellationToken cancel) =>
            {
                (await Found(kind, id, db, cancel)).DeletedAt = time.GetUtcNow().UtcDateTime;
                return await SaveAsync(db, time, cancel);
            });
            api.MapPost($"{path}/restore", async (int id, RuddyContext db, TimeProvider time, CancellationToken cancel) =>
            {
                (await Found(kind, id, db, cancel)).DeletedAt = null;
                return await SaveAsync(db, time, cancel);
            });
        }

        api.MapPut(
            "/bench/rest",
            async (RestWindow rest, int version, RuddyContext db, TimeProvider time, CancellationToken cancel) =>
            {
                var household = await db.Households.SingleAsync(cancel);
                ChangedMeanwhileException.ThrowIfOlder(household, version, "The household");
                household.Rest = rest.Checked();
                return await SaveAsync(db, time, cancel);
            }
        );
    }

    /// <summary>One kind of thing: added whole, changed by what changes of it, with the version that was changed.</summary>
    private static void MapThing<TRow, TChange>(
        IEndpointRouteBuilder api,
        string path,
        string what,
        Func<TRow, TChange> asChange,
        Action<TRow, TChange, TimeProvider> apply,
        Func<TChange, RuddyContext, CancellationToken, Task>? check = null
    )
        where TRow : class, IVersioned, new()
        where TChange : class
    {
#pragma warning disable RDG011 // these few are made at the start
        api.MapPost($"/bench/{path}", async (TChange change, RuddyContext db, TimeProvider time, CancellationToken cancel) =>
        {
            var row = new TRow();
            if (check is not null)
                await check(change, db, cancel);
            apply(row, change, time);
            db.Add(row);
            return await SaveAsync(db, time, cancel);
        });
        api.MapPatch(
                $"/bench/{path}/{{id:int}}",
                async (
                    int id,
                    Patch<TChange> change,
                    int version,
                    RuddyContext db,
                    TimeProvider time,
                    CancellationToken cancel
                ) =>
                {
                    var row = await Found(db.Set<TRow>(), id, what, cancel);
                    ChangedMeanwhileException.ThrowIfOlder(row, version, what);
                    var whole = change.Onto(asChange(row));
                    if (check is not null)
                        await check(whole, db, cancel);
                    apply(row, whole, time);
                    return await SaveAsync(db, time, cancel);
                }
            )
            .Accepts<TChange>("application/json");
#pragma warning restore RDG011
    }

    /// <summary>Whole days of rest to today at the bench; days in the freezer do not count.</summary>
    public static int DaysFromRoast(Bag bag, TimeProvider time) => bag.Dates.RestDays(Today(time));

    private static DateOnly Today(TimeProvider time) => DateOnly.FromDateTime(time.GetLocalNow().DateTime);

    private static async Task<BenchView> View(RuddyContext db, TimeProvider time, CancellationToken cancel)
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

    internal static void Apply(Grinder row, GrinderChange change)
    {
        row.Name = Texts.Required(change.Name, "name", "Name");
        row.ScaleUnit = Texts.Required(change.ScaleUnit, "scaleUnit", "Name of a step", 20);
        row.Step = GrinderStep.Check(change.Step);
        row.FinerIsLower = change.FinerIsLower;
        row.ZeroPoint = change.ZeroPoint is { } zero ? Zero.Check(zero) : null;
        row.RetentionGrams = Retention.Check(change.RetentionGrams);
        row.PurgeGrams = Purge.Check(change.PurgeGrams);
    }

    private static void Apply(Bag row, BagChange change, TimeProvider time)
    {
        row.Name = Texts.Required(change.Name, "name", "Coffee");
        row.Roaster = Texts.Optional(change.Roaster, "roaster", "Roaster");
        row.RoastLevel = Texts.Required(change.RoastLevel, "roastLevel", "Roast", 20);
        var dates = new BagDates(change.RoastedOn, change.FrozenOn, change.ThawedOn).Checked(Today(time));
        if (change.OpenedOn < change.RoastedOn || change.OpenedOn > Today(time))
            throw new DoesNotFitException(
                "openedOn",
                $"Opened on {change.OpenedOn:yyyy-MM-dd}; it must lie between the roast date and today."
            );
        row.RoastedOn = dates.RoastedOn;
        row.FrozenOn = dates.FrozenOn;
        row.ThawedOn = dates.ThawedOn;
        row.OpenedOn = change.OpenedOn;
        row.Process = Texts.Optional(change.Process, "process", "Process", 40);
        row.GramsLeft = change.GramsLeft is { } left ? Left.Check(left) : null;
        row.Finished = change.Finished;
        row.BrewerId = change.BrewerId;
    }

    private static async Task<T> Found<T>(DbSet<T> set, int id, string what, CancellationToken cancel)
        where T : class =>
        await set.FindAsync([id], cancel) ?? throw new NotThereException($"{what} with number {id} is not there.");

    private static async Task<IOnTheBench> Found(BenchKind kind, int id, RuddyContext db, CancellationToken cancel) =>
        kind switch
        {
            BenchKind.Machines => await Found(db.Machines, id, "The machine", cancel),
            BenchKind.Grinders => await Found(db.Grinders, id, "The grinder", cancel),
            BenchKind.Baskets => await Found(db.Baskets, id, "The basket", cancel),
            _ => await Found(db.Bags, id, "The bag", cancel),
        };

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

    private static async Task<BenchView> SaveAsync(RuddyContext db, TimeProvider time, CancellationToken cancel)
    {
        await db.SaveChangesAsync(cancel);
        return await View(db, time, cancel);
    }
}
