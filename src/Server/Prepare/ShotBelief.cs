using Microsoft.EntityFrameworkCore;
using RuddySpring.Core.Dialing;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Traces;
using RuddySpring.Server.Bench;
using RuddySpring.Server.Plans;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Prepare;

/// <summary>What is believed of the shot on the sheet: its puck, from everything that was pulled with its grinder.</summary>
/// <param name="UnitPuck">The puck at a resistance of 1 bar s/ml.</param>
/// <param name="LogR10">What is believed of ln R10.</param>
/// <param name="BagId">0 where none is noted.</param>
/// <param name="BasketId">0 for the machine's own.</param>
public sealed record ShotBelief(
    Machine Machine, PullPlan Plan, PuckParameters UnitPuck, Core.Fitting.Prediction LogR10, GrindAdvice Advice, IReadOnlyList<GrindShot> Known,
    Grinder? Grinder, GrinderSteps Steps, double AgeDays, int BagId, int BasketId)
{
    private const int MostShots = 300;
    private const double UsualAge = 8;

    /// <summary>The puck at the middle of what is believed.</summary>
    public PuckParameters Puck => UnitPuck with { ResistanceBarSPerMl = Resistance(LogR10.Mean, UnitPuck) };

    /// <summary>What a coach at the elbow may expect.</summary>
    public Core.Coaching.ExpectedPuck Expected => new(Puck.ResistanceBarSPerMl, Math.Clamp(LogR10.Scale, 0.1, 0.6));

    /// <summary>Resistance R_b in bar s/ml of a puck whose ln R10 is known.</summary>
    public static double Resistance(double logR10, PuckParameters puck) =>
        Math.Clamp(Math.Exp(logR10) / GrindResistance.Of(puck) * puck.ResistanceBarSPerMl, 0.2, 200);

    /// <summary>Whether a small hole gives the back-pressure, so that the grind hardly sets it.</summary>
    public bool Restricted => UnitPuck.RestrictorBarS2PerMl2 > 0;

    private static double Restrictor(Machine machine, Basket? basket) => basket?.RestrictorBarS2PerMl2 ?? machine.RestrictorBarS2PerMl2;

    /// <summary>Of a sheet without problems.</summary>
    public static async Task<ShotBelief> OfAsync(SheetAnswer answer, RuddyContext db, TimeProvider time, CancellationToken cancel)
    {
        var sheet = answer.Sheet;
        var machine = (await db.Machines.AsNoTracking().SingleAsync(m => m.Id == sheet.MachineId, cancel)).Spec;
        var bag = await db.Bags.AsNoTracking().SingleOrDefaultAsync(b => b.Id == sheet.BagId, cancel);
        var grinder = await db.Grinders.AsNoTracking().SingleOrDefaultAsync(g => g.Id == sheet.GrinderId, cancel);
        var basket = await db.Baskets.AsNoTracking().SingleOrDefaultAsync(b => b.Id == sheet.BasketId, cancel);
        var puck = new PuckParameters
        {
            DoseGrams = sheet.DoseGrams,
            ResistanceBarSPerMl = 1,
            WaterC = Math.Clamp(answer.WaterC, 20, 100),
            Retention = machine.RetentionPerGram,
            RestrictorBarS2PerMl2 = Restrictor(machine, basket?.Spec),
        };
        var known = grinder is null ? [] : await KnownAsync(grinder.Id, db, cancel);
        var steps = new GrinderSteps(grinder?.Step ?? 1, grinder?.FinerIsLower ?? true);
        var advice = GrindAdvice.Learn(steps, known);
        var age = bag is null ? UsualAge : BenchEndpoints.DaysFromRoast(bag, time);
        var setting = sheet.GrindSetting ?? (known.Count > 0 ? known[^1].Setting : 0);
        var (bagId, basketId) = (bag?.Id ?? 0, basket?.Id ?? 0);
        return new(
            machine, PlanLibrary.For(machine, await PlanLibrary.AllAsync(db, cancel), sheet.PlanKey), puck,
            advice.Predict(bagId, sheet.MachineId, setting, age, sheet.DoseGrams, basketId), advice, known, grinder, steps, age, bagId, basketId);
    }

    /// <summary>Shots of a grinder that have a setting and a resistance, oldest first.</summary>
    internal static async Task<List<GrindShot>> KnownAsync(int grinderId, RuddyContext db, CancellationToken cancel)
    {
        var shots = await db.Shots.AsNoTracking()
            .Where(s => s.DeletedAt == null && s.GrinderId == grinderId && s.GrindSetting != null)
            .OrderByDescending(s => s.PulledAt).Take(MostShots)
            .Select(s => new { s.BagId, s.MachineId, s.GrindSetting, s.PulledAt, s.DoseGrams, s.Measures, s.Bag, s.BasketId, s.Machine, s.Basket })
            .ToListAsync(cancel);
        shots.Reverse();
        // behind a small hole the pressure is the hole's, so such a shot says nothing of the grind
        return [.. shots.Where(s => s.Measures.R10 is > 0 && Restrictor(s.Machine!.Spec, s.Basket?.Spec) == 0).Select(s => new GrindShot(
            s.BagId ?? 0, s.MachineId, s.GrindSetting!.Value,
            s.Bag is { } bag ? bag.Dates.RestDays(DateOnly.FromDateTime(s.PulledAt.ToLocalTime())) : 8, s.DoseGrams, s.Measures.R10!.Value, s.BasketId ?? 0))];
    }
}
