using Microsoft.EntityFrameworkCore;
using RuddySpring.Core;
using RuddySpring.Core.Beans;
using RuddySpring.Core.Machines;
using RuddySpring.Server.Hosting;
using RuddySpring.Server.Household;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Bench;

/// <summary>Puts things on the bench, changes them and puts them away.</summary>
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
            await BenchReader.OfAsync(db, time, cancel)
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
        var dates = new BagDates(change.RoastedOn, change.FrozenOn, change.ThawedOn).Checked(BenchReader.Today(time));
        if (change.OpenedOn < change.RoastedOn || change.OpenedOn > BenchReader.Today(time))
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
        await set.FindAsync([id], cancel) ?? throw new NotThereException($"{what} with number {id} does not exist.");

    private static async Task<IOnTheBench> Found(BenchKind kind, int id, RuddyContext db, CancellationToken cancel) =>
        kind switch
        {
            BenchKind.Machines => await Found(db.Machines, id, "The machine", cancel),
            BenchKind.Grinders => await Found(db.Grinders, id, "The grinder", cancel),
            BenchKind.Baskets => await Found(db.Baskets, id, "The basket", cancel),
            _ => await Found(db.Bags, id, "The bag", cancel),
        };

    private static async Task<BenchView> SaveAsync(RuddyContext db, TimeProvider time, CancellationToken cancel)
    {
        await db.SaveChangesAsync(cancel);
        return await BenchReader.OfAsync(db, time, cancel);
    }
}
