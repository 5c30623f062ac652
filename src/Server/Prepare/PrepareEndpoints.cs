using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using RuddySpring.Core;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Water;
using RuddySpring.Server.Bench;
using RuddySpring.Server.Hosting;
using RuddySpring.Server.Sessions;
using RuddySpring.Server.Warm;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Prepare;

public static class PrepareEndpoints
{
    public static readonly FieldRange GrindSetting = new("grindSetting", "Grind setting", -1000, 10000, "");

    public static void MapPrepare(this IEndpointRouteBuilder api)
    {
        api.MapGet("/prepare", async (RuddyContext db, SessionDesk sessions) => await CurrentAsync(db, sessions));

        // the sheet is kept as typed, so that nothing is lost when a number is out of range
        api.MapPut("/prepare", async (Sheet sheet, RuddyContext db, SessionDesk sessions) =>
        {
            var answer = await AnswerAsync(sheet, db, sessions);
            var household = await db.Households.SingleAsync();
            household.SheetJson = JsonSerializer.Serialize(answer.Sheet, RuddyContext.Json);
            await db.SaveChangesAsync();
            return answer;
        });
    }

    /// <summary>The sheet as it stands, or a first one from what is on the bench.</summary>
    /// <exception cref="NotThereException">There is no machine yet.</exception>
    public static async Task<SheetAnswer> CurrentAsync(RuddyContext db, SessionDesk sessions)
    {
        return await AnswerAsync(await SheetAsync(db), db, sessions);
    }

    /// <summary>The sheet alone, without its answers.</summary>
    /// <exception cref="NotThereException">There is no machine yet.</exception>
    public static async Task<Sheet> SheetAsync(RuddyContext db)
    {
        var household = await db.Households.AsNoTracking().SingleAsync();
        var kept = household.SheetJson is { } json ? JsonSerializer.Deserialize<Sheet>(json, RuddyContext.Json) : null;
        return kept is not null && await db.Machines.AnyAsync(m => m.Id == kept.MachineId) ? kept : await FirstSheetAsync(db);
    }

    private static async Task<Sheet> FirstSheetAsync(RuddyContext db)
    {
        var machine = await db.Machines.AsNoTracking().OrderBy(m => m.Id).FirstOrDefaultAsync()
            ?? throw new NotThereException("There is no machine on the bench yet. Add one under Machines.");
        var (_, dose, yield) = FamilyDefaults.Of(machine.Spec.Family);
        var bag = await db.Bags.AsNoTracking().Where(b => !b.Finished).OrderByDescending(b => b.RoastedOn).FirstOrDefaultAsync();
        var last = await LastShotAsync(db, machine.Id, bag?.Id);
        return new(
            last?.BrewerId ?? (await db.Brewers.OrderBy(b => b.Id).FirstOrDefaultAsync())?.Id,
            machine.Id,
            bag?.Id,
            last?.GrinderId ?? (await db.Grinders.OrderBy(g => g.Id).FirstOrDefaultAsync())?.Id,
            last?.GrindSetting, dose, yield, BenchEndpoints.PlanKeys(machine.Spec)[0]);
    }

    /// <summary>Works out everything that the sheet asks for.</summary>
    public static async Task<SheetAnswer> AnswerAsync(Sheet sheet, RuddyContext db, SessionDesk sessions)
    {
        var row = await db.Machines.AsNoTracking().SingleOrDefaultAsync(m => m.Id == sheet.MachineId)
            ?? throw new NotThereException($"There is no machine with number {sheet.MachineId}.");
        var machine = row.Spec;
        var keys = BenchEndpoints.PlanKeys(machine);
        if (!keys.Contains(sheet.PlanKey)) sheet = sheet with { PlanKey = keys[0] };
        var plan = ShippedPlans.Find(sheet.PlanKey)!;
        var water = await UsualWater.AtPuckAsync(row, db, sessions);

        var problems = new List<SheetProblem>();
        Try(problems, () => CupVolumes.Dose.Check(sheet.DoseGrams));
        Try(problems, () => CupVolumes.Yield.Check(sheet.YieldGrams));
        if (sheet.GrindSetting is { } setting) Try(problems, () => GrindSetting.Check(setting));
        var sound = problems.Count == 0;

        var density = LiquidWater.DensityGramsPerMl(water.Value);
        var most = CupVolumes.MostWaterGrams(machine, water.Value);
        double? need = sound ? CupVolumes.WaterGrams(machine, sheet.DoseGrams, sheet.YieldGrams) : null;
        double? largest = sound ? CupVolumes.LargestYieldGrams(machine, sheet.DoseGrams, water.Value) : null;
        var fits = need <= most;
        double? force = machine.PressureBy == PressureBy.Arm ? Lever.HandForceKgf(machine, plan.PeakBar) : null;
        var last = await LastShotAsync(db, sheet.MachineId, sheet.BagId);

        return new(
            sheet, sound ? sheet.YieldGrams / sheet.DoseGrams : null, need, need / density, water.Value, water.PlusMinus, most, largest,
            fits, FitSentence(machine, need, most, largest, fits), plan.PeakBar, force, ForceSentence(machine, plan, force),
            machine.WillingForceKgf, problems, Cautions(machine),
            last is null ? null : new(
                last.Id, last.PulledAt, last.GrindSetting, last.DoseGrams, last.Measures.CupGrams, last.Measures.SecondsFromPressure,
                last.Measures.R10, last.Liking));
    }

    private static Task<Shot?> LastShotAsync(RuddyContext db, int machineId, int? bagId) =>
        db.Shots.AsNoTracking().Where(s => s.DeletedAt == null && s.MachineId == machineId && s.BagId == bagId)
            .OrderByDescending(s => s.PulledAt).FirstOrDefaultAsync();

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

    private static string FitSentence(Machine machine, double? need, double most, double? largest, bool fits)
    {
        var holder = machine.HasBoiler
            ? machine.StrokesAShot == 1 ? "one stroke moves" : $"{machine.StrokesAShot} strokes move"
            : "the chamber takes";
        if (need is null) return $"At most {most:0} g: that is what {holder}.";
        return fits
            ? $"Fits: {holder} {most:0} g, so up to {largest:0} g in the cup from this dose."
            : $"Does not fit: {holder} {most:0} g and this needs {need:0} g. Ask for at most {Math.Floor(largest ?? 0):0} g in the cup, or take less coffee.";
    }

    private static string ForceSentence(Machine machine, PullPlan plan, double? force)
    {
        if (machine.PressureBy == PressureBy.Spring)
            return $"The spring gives up to {machine.SpringTopBar:0.0} bar by itself; the hand only guides the lever.";
        if (machine.PressureBy == PressureBy.Strokes) return $"Stroke by stroke up to {plan.PeakBar:0.#} bar.";
        return force <= machine.WillingForceKgf
            ? $"{force:0.0} kgf at the handle at {plan.PeakBar:0.#} bar, of the {machine.WillingForceKgf:0} kgf you are willing to use."
            : $"{force:0.0} kgf at {plan.PeakBar:0.#} bar is more than the {machine.WillingForceKgf:0} kgf you are willing to use: the peak will be {Lever.PressureBar(machine, machine.WillingForceKgf):0.0} bar.";
    }

    private static List<string> Cautions(Machine machine)
    {
        var cautions = new List<string>
        {
            "A holder that is not fully seated comes off under pressure. Check that it is locked in before you press.",
        };
        if (machine.PressureBy == PressureBy.Arm)
            cautions.Add("Never force a lever that one arm cannot move: forks and frames bend and break, and the machine can tip. Hold it down.");
        if (machine.PressureBy == PressureBy.Spring)
            cautions.Add("A cocked lever flies up if nothing resists it. Keep a hand on it and your face away until the pressure holds.");
        cautions.Add(machine.HasBoiler
            ? "Group and boiler stay hot long after switching off. Hold only the insulated parts; the machine's manual comes first."
            : "Pour boiling water slowly, hands off the stream. Metal stays hot; hold only the insulated parts.");
        return cautions;
    }
}
