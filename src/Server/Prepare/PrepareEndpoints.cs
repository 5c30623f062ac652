using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using RuddySpring.Core;
using RuddySpring.Core.Beans;
using RuddySpring.Core.Dialing;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Shots;
using RuddySpring.Server.Hosting;
using RuddySpring.Server.Ledger;
using RuddySpring.Server.Plans;
using RuddySpring.Server.Sessions;
using RuddySpring.Server.Warm;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Prepare;

public static class PrepareEndpoints
{
    private const double MostTyped = 1e6;
    public static readonly FieldRange GrindSetting = new("grindSetting", "Grind setting", -1000, 10000, "");

    public static void MapPrepare(this IEndpointRouteBuilder api)
    {
        api.MapGet("/prepare", async (RuddyContext db, SessionDesk sessions, CancellationToken cancel) =>
            await CurrentAsync(db, sessions, cancel)
        );

        // the sheet is kept as typed, so that nothing is lost when a number is out of range
        api.MapPut(
            "/prepare",
            async (Sheet sheet, int version, RuddyContext db, SessionDesk sessions, CancellationToken cancel) =>
                await KeepAsync(sheet, version, db, sessions, cancel)
        );
        api.MapPost(
            "/prepare/same-as/{shotId:int}",
            async (int shotId, RuddyContext db, SessionDesk sessions, CancellationToken cancel) =>
                await KeepAsync(await SameAsAsync(shotId, db, cancel), null, db, sessions, cancel)
        );
    }

    /// <summary>Changes the sheet as it stands.</summary>
    public static async Task<SheetAnswer> ChangeAsync(
        Func<Sheet, Sheet> changed,
        RuddyContext db,
        SessionDesk sessions,
        CancellationToken cancel
    ) => await KeepAsync(changed((await SheetAsync(db, cancel)).Sheet), null, db, sessions, cancel);

    /// <summary>Makes the sheet that of a shot, changed.</summary>
    public static async Task<SheetAnswer> SameAsButAsync(
        int shotId,
        Func<Sheet, Sheet> changed,
        RuddyContext db,
        SessionDesk sessions,
        CancellationToken cancel
    ) => await KeepAsync(changed(await SameAsAsync(shotId, db, cancel)), null, db, sessions, cancel);

    /// <summary>Keeps a sheet; null for its version replaces whatever there is.</summary>
    private static async Task<SheetAnswer> KeepAsync(
        Sheet sheet,
        int? version,
        RuddyContext db,
        SessionDesk sessions,
        CancellationToken cancel
    )
    {
        var answer = await AnswerAsync(Limited(sheet), 0, db, sessions, cancel);
        var json = JsonSerializer.Serialize(answer.Sheet, RuddyContext.Json);
        var kept = await db.Sheets.SingleOrDefaultAsync(cancel);
        if (version is { } meant && (kept?.Version ?? 0) != meant)
            throw new ChangedMeanwhileException("The sheet");
        if (kept is null)
            db.Sheets.Add(kept = new() { Json = json, Version = 1 });
        else if (kept.Json != json)
            kept.Json = json;
        await db.SaveChangesAsync(cancel);
        return answer with { Version = kept.Version };
    }

    /// <summary>The sheet with its texts and lists of a sane length; its numbers may be out of range while they are typed, and
    /// the answer says so.</summary>
    private static Sheet Limited(Sheet sheet)
    {
        if (sheet.Locked is { Count: > 8 })
            throw new DoesNotFitException("locked", "At most 8 things can be locked.");
        foreach (
            var (field, number) in new[]
            {
                ("doseGrams", sheet.DoseGrams),
                ("yieldGrams", sheet.YieldGrams),
                ("grindSetting", sheet.GrindSetting ?? 0),
            }
        )
        {
            if (!double.IsFinite(number) || Math.Abs(number) > MostTyped)
                throw new DoesNotFitException(field, $"{field} must be a number between {-MostTyped:0} and {MostTyped:0}.");
        }

        return sheet with
        {
            PlanKey = Texts.Optional(sheet.PlanKey, "planKey", "Plan"),
        };
    }

    /// <summary>A sheet that is the same as a shot was, to change one thing of.</summary>
    private static async Task<Sheet> SameAsAsync(int shotId, RuddyContext db, CancellationToken cancel)
    {
        var shot = await db
            .Shots.AsNoTracking()
            .Include(s => s.Trace)
            .SingleOrDefaultAsync(s => s.Id == shotId && s.DeletedAt == null, cancel)
            ?? throw new NotThereException($"There is no shot {shotId}.");
        return new(
            shot.BrewerId,
            shot.MachineId,
            shot.BagId,
            shot.GrinderId,
            shot.GrindSetting,
            shot.DoseGrams,
            shot.YieldGrams,
            shot.Trace.Plan.Key,
            shot.BasketId,
            shot.Preparation,
            null,
            shotId
        );
    }

    /// <summary>The sheet as it stands, or a first one from what is on the bench.</summary>
    /// <exception cref="NotThereException">There is no machine yet.</exception>
    public static async Task<SheetAnswer> CurrentAsync(RuddyContext db, SessionDesk sessions, CancellationToken cancel)
    {
        var (sheet, version) = await SheetAsync(db, cancel);
        return await AnswerAsync(sheet, version, db, sessions, cancel);
    }

    /// <summary>The sheet alone with its version, without its answers. One that cannot be read counts as none.</summary>
    /// <exception cref="NotThereException">There is no machine yet.</exception>
    public static async Task<(Sheet Sheet, int Version)> SheetAsync(RuddyContext db, CancellationToken cancel)
    {
        var kept = await db.Sheets.AsNoTracking().SingleOrDefaultAsync(cancel);
        var version = kept?.Version ?? 0;
        var sheet = kept is null ? null : Read(kept.Json);
        return sheet is not null && await db.Machines.AnyAsync(m => m.Id == sheet.MachineId && m.DeletedAt == null, cancel)
            ? (sheet, version)
            : (await FirstSheetAsync(db, cancel), version);
    }

    private static Sheet? Read(string json)
    {
        try
        {
            return JsonSerializer.Deserialize<Sheet>(json, RuddyContext.Json);
        }
        catch (JsonException)
        {
            return null;
        }
    }

    private static async Task<Sheet> FirstSheetAsync(RuddyContext db, CancellationToken cancel) =>
        await StartAsync(
            db,
            await db.Machines.AsNoTracking().Where(m => m.DeletedAt == null).OrderBy(m => m.Id).FirstOrDefaultAsync(cancel)
                ?? throw new NotThereException("There is no machine on the bench yet. Add one under Machines."),
            cancel
        );

    /// <summary>The sheet that a machine starts from: last time's, or its family's.</summary>
    public static async Task<Sheet> StartAsync(RuddyContext db, BenchMachine machine, CancellationToken cancel)
    {
        // last time's sheet is the start, as long as there is coffee of it left
        var last = await LastShotAsync(db, machine.Id, null, cancel);
        if (last is not null && await db.Bags.AnyAsync(b => b.Id == last.BagId && !b.Finished && b.DeletedAt == null, cancel))
            return await SameAsAsync(last.Id, db, cancel);
        var (_, dose, yield) = FamilyDefaults.Of(machine.Spec.Family);
        return new(
            last?.BrewerId ?? (await db.Brewers.OrderBy(b => b.Id).FirstOrDefaultAsync(cancel))?.Id,
            machine.Id,
            (
                await db
                    .Bags.AsNoTracking()
                    .Where(b => !b.Finished && b.DeletedAt == null)
                    .OrderByDescending(b => b.RoastedOn)
                    .FirstOrDefaultAsync(cancel)
            )?.Id,
            last?.GrinderId
                ?? (await db.Grinders.Where(g => g.DeletedAt == null).OrderBy(g => g.Id).FirstOrDefaultAsync(cancel))?.Id,
            null,
            dose,
            yield,
            PlanLibrary.KeysFor(machine.Spec, ShippedPlans.All)[0]
        );
    }

    /// <summary>Works out everything that the sheet asks for.</summary>
    public static async Task<SheetAnswer> AnswerAsync(
        Sheet sheet,
        int version,
        RuddyContext db,
        SessionDesk sessions,
        CancellationToken cancel
    )
    {
        var row = await db
            .Machines.AsNoTracking()
            .SingleOrDefaultAsync(m => m.Id == sheet.MachineId && m.DeletedAt == null, cancel)
            ?? throw new NotThereException($"There is no machine with number {sheet.MachineId}.");
        var machine = row.Spec;
        var plans = await PlanLibrary.AllAsync(db, cancel);
        var plan = PlanLibrary.For(machine, plans, sheet.PlanKey);
        var basketRow = await db
            .Baskets.AsNoTracking()
            .SingleOrDefaultAsync(b => b.Id == sheet.BasketId && b.DeletedAt == null, cancel);
        var bag = await db.Bags.AsNoTracking().SingleOrDefaultAsync(b => b.Id == sheet.BagId && b.DeletedAt == null, cancel);
        var grinder = await db
            .Grinders.AsNoTracking()
            .SingleOrDefaultAsync(g => g.Id == sheet.GrinderId && g.DeletedAt == null, cancel);
        // what was put away, or never was, is on no sheet
        var brewer = await db.Brewers.AnyAsync(b => b.Id == sheet.BrewerId, cancel);
        sheet = sheet with
        {
            PlanKey = plan.Key,
            BrewerId = brewer ? sheet.BrewerId : null,
            BasketId = basketRow?.Id,
            BagId = bag?.Id,
            GrinderId = grinder?.Id,
        };
        var preparation = sheet.Preparation ?? new();
        var water = await UsualWater.AtPuckAsync(row, db, sessions, cancel);

        var problems = new List<SheetProblem>();
        if (Odd.Reason(row.Spec) is { } odd)
            problems.Add(new("machineId", $"The numbers of {row.Name} cannot be read: {odd} Set them again under Machines."));
        Try(problems, () => PuckParameters.Dose.Check(sheet.DoseGrams));
        Try(problems, () => CupVolumes.Yield.Check(sheet.YieldGrams));
        if (sheet.GrindSetting is { } setting)
            Try(problems, () => GrindSetting.Check(setting));
        if (preparation.TampKgf is { } tamp)
            Try(problems, () => Preparation.Tamp.Check(tamp));
        var sound = problems.Count == 0;

        var fit = SheetFit.Of(
            machine,
            plan,
            basketRow?.Spec,
            sound,
            sheet.DoseGrams,
            sheet.YieldGrams,
            water.Value,
            bag?.RoastLevel ?? "",
            preparation.Cover
        );
        var last = await LastShotAsync(db, sheet.MachineId, sheet.BagId, cancel);

        return new(
            sheet,
            version,
            sound ? sheet.YieldGrams / sheet.DoseGrams : null,
            fit.NeedGrams,
            fit.NeedMl,
            water.Value,
            water.PlusMinus,
            water.Course,
            fit.MostGrams,
            fit.LargestYieldGrams,
            fit.Fits,
            fit.FitSentence,
            plan.PeakBar,
            fit.HandForceKgf,
            fit.ForceSentence,
            machine.WillingForceKgf,
            problems,
            last is null
                ? null
                : new(
                    last.Id,
                    last.PulledAt,
                    last.GrindSetting,
                    last.DoseGrams,
                    last.Measures.CupGrams,
                    last.Measures.SecondsFromPressure,
                    last.Measures.R10,
                    last.Liking
                ),
            fit.Puck,
            sound ? Abilities.Strokes(machine, sheet.DoseGrams, sheet.YieldGrams) : null,
            Ratios(bag, sheet, sound, fit.LargestYieldGrams),
            Preparation.HolderWord(
                bag is null
                    ? 0
                    : await db
                        .Shots.Where(s => s.BagId == bag.Id && s.DeletedAt == null)
                        .Take(Preparation.ShotsUntilKnown)
                        .CountAsync(cancel),
                preparation.Bottomless
            ),
            sound ? PlanReach.Problems(plan, machine, sheet.DoseGrams, sheet.YieldGrams) : [],
            await SinceAsync(sheet, row, bag, grinder, plan, basketRow, db, cancel)
        );
    }

    private static List<RatioView> Ratios(Bag? bag, Sheet sheet, bool sound, double? largest) =>
        !sound
            ? []
            :
            [
                .. RatioAdvice
                    .Of(bag?.RoastLevel ?? "")
                    .Select(r => (Choice: r, Yield: Math.Round(r.Ratio * sheet.DoseGrams)))
                    .Select(r => new RatioView(r.Choice.School, r.Choice.Ratio, r.Yield, r.Choice.Why, r.Yield <= largest)),
            ];

    /// <summary>What is no longer as it was in the shot that the sheet says it is the same as.</summary>
    private static async Task<SinceShot?> SinceAsync(
        Sheet sheet,
        BenchMachine machine,
        Bag? bag,
        Grinder? grinder,
        PullPlan plan,
        BenchBasket? basket,
        RuddyContext db,
        CancellationToken cancel
    )
    {
        if (sheet.SameAsShotId is not { } id)
            return null;
        var shot = await ShotViews
            .WithNames(db.Shots.AsNoTracking())
            .Include(s => s.Basket)
            .SingleOrDefaultAsync(s => s.Id == id && s.DeletedAt == null, cancel);
        if (shot is null)
            return null;
        var changed = WhatChanged.Between(
            new(
                shot.Machine!.Name,
                shot.Bag?.Name,
                shot.Grinder?.Name,
                shot.GrindSetting,
                shot.DoseGrams,
                shot.YieldGrams,
                shot.PlanName,
                shot.Basket?.Name,
                shot.Preparation ?? sheet.Preparation ?? new()
            ),
            new(
                machine.Name,
                bag?.Name,
                grinder?.Name,
                sheet.GrindSetting,
                sheet.DoseGrams,
                sheet.YieldGrams,
                plan.Name,
                basket?.Name,
                sheet.Preparation ?? new()
            )
        );
        return new(id, changed.Things, changed.Warning);
    }

    /// <summary>The last shot of a bag on a machine; where that bag was never pulled on it, the machine's last.</summary>
    private static async Task<Shot?> LastShotAsync(RuddyContext db, int machineId, int? bagId, CancellationToken cancel)
    {
        var shots = db
            .Shots.AsNoTracking()
            .Where(s => s.DeletedAt == null && s.MachineId == machineId)
            .OrderByDescending(s => s.PulledAt);
        var ofTheBag = bagId is null ? null : await shots.Where(s => s.BagId == bagId).FirstOrDefaultAsync(cancel);
        return ofTheBag ?? await shots.FirstOrDefaultAsync(cancel);
    }

    private static void Try(List<SheetProblem> problems, Func<double> check)
    {
        try
        {
            check();
        }
        catch (FieldRangeException error)
        {
            problems.Add(new(error.Range.Field, error.Sentence));
        }
    }
}
