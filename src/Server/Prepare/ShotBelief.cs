using Microsoft.EntityFrameworkCore;
using RuddySpring.Core.Coaching;
using RuddySpring.Core.Dialing;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Reasoning;
using RuddySpring.Core.Shots;
using RuddySpring.Server.Bench;
using RuddySpring.Server.Household;
using RuddySpring.Server.Plans;
using RuddySpring.Server.Pull;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Prepare;

/// <summary>What is believed of the shot on the sheet: its grind, from everything that was pulled with its grinder.</summary>
/// <param name="Sheet">The shot of a usual coffee, of a grind whose resistivity is 1 bar s/ml.</param>
/// <param name="Unit">The same of this coffee, as earlier pulls of it behaved.</param>
/// <param name="LogResistivity">What is believed of the logarithm of the grind's resistivity
/// (<see cref="GrindResistivity"/>).</param>
/// <param name="BagId">0 where none is noted.</param>
/// <param name="BasketId">0 for the machine's own.</param>
/// <param name="Taught">What earlier pulls taught, newest first.</param>
/// <param name="School">The household's, which has its own time to aim at.</param>
public sealed record ShotBelief(
    ShotConditions Sheet,
    ShotConditions Unit,
    Core.Fitting.Prediction LogResistivity,
    GrindAdvice Advice,
    IReadOnlyList<GrindShot> Known,
    Grinder? Grinder,
    GrinderSteps Steps,
    double AgeDays,
    int BagId,
    int BasketId,
    IReadOnlyList<TaughtBy> Taught,
    School School
)
{
    private const int MostShots = 120;
    internal const double UsualAge = 8;

    /// <summary>The times to the yield that count as landing here.</summary>
    public TimeBand Lands => School.Aim(Unit.Plan, Unit.YieldGrams);

    /// <summary>The shot at the middle of what is believed.</summary>
    public ShotConditions Middle => GrindResistivity.With(Unit, LogResistivity.Median);

    /// <summary>What a coach at the elbow may expect, as R10 has it: what pulls taught he knows besides.</summary>
    public ExpectedPuck Expected =>
        new(
            GrindResistivity.With(Sheet, LogResistivity.Median).Bed.ResistanceBarSPerMl,
            Math.Clamp(LogResistivity.Scale, 0.1, 0.6)
        );

    /// <summary>The grinder as advice speaks of it; null without one.</summary>
    public NamedGrinder? Named => Grinder is { } g ? new(g.Name, g.ScaleUnit, g.Step, g.PurgeGrams) : null;

    /// <summary>Whether a small hole gives the back-pressure, so that the grind hardly sets it.</summary>
    public bool Restricted => Unit.Bed.Basket.RestrictorBarS2PerMl2 > 0;

    private static double Restrictor(Machine machine, Basket? basket) =>
        basket?.RestrictorBarS2PerMl2 ?? machine.RestrictorBarS2PerMl2;

    /// <summary>Of a sheet without problems.</summary>
    public static async Task<ShotBelief> OfAsync(SheetAnswer answer, RuddyContext db, TimeProvider time, CancellationToken cancel)
    {
        var sheet = answer.Sheet;
        var machine = (await db.Machines.AsNoTracking().SingleAsync(m => m.Id == sheet.MachineId, cancel)).Spec;
        var bag = await db.Bags.AsNoTracking().SingleOrDefaultAsync(b => b.Id == sheet.BagId, cancel);
        var grinder = await db.Grinders.AsNoTracking().SingleOrDefaultAsync(g => g.Id == sheet.GrinderId, cancel);
        var basket = await db.Baskets.AsNoTracking().SingleOrDefaultAsync(b => b.Id == sheet.BasketId, cancel);
        var known = grinder is null ? [] : await KnownAsync(grinder.Id, db, cancel);
        var steps = new GrinderSteps(grinder?.Step ?? 1, grinder?.FinerIsLower ?? true);
        var advice = await ShotMemory.OfAsync(
            db,
            (grinder?.Id, steps),
            // asked for again: what was read before may be older than the number that this is kept under
            async () => GrindAdvice.Learn(steps, grinder is null ? [] : await KnownAsync(grinder.Id, db, cancel)),
            cancel
        );
        var age = bag is null ? UsualAge : BenchReader.DaysFromRoast(bag, time);
        var setting = sheet.GrindSetting ?? (known.Count > 0 ? known[^1].Setting : 0);
        var (bagId, basketId) = (bag?.Id ?? 0, basket?.Id ?? 0);
        var unit = ShotConditions.Of(
            machine,
            PlanLibrary.For(machine, await PlanLibrary.AllAsync(db, cancel), sheet.PlanKey),
            sheet.DoseGrams,
            sheet.YieldGrams,
            Math.Clamp(answer.WaterC, 20, 100),
            basket: basket?.Spec,
            preparation: sheet.Preparation
        ) with
        {
            Water = answer.WaterCourse.Within(20, 100),
        };
        var taught = await PullLearning.TaughtAsync(db, cancel);
        var learned = PullLearning.Puck(taught, sheet, null, unit);
        return new(
            unit,
            learned?.Like(unit) ?? unit,
            advice.Predict(bagId, sheet.MachineId, setting, age, sheet.DoseGrams, basketId),
            advice,
            known,
            grinder,
            steps,
            age,
            bagId,
            basketId,
            taught,
            await SchoolOf.BrewerAsync(db, sheet.BrewerId, cancel)
        );
    }

    /// <summary>Shots of a grinder that have a setting and a resistance, oldest first.</summary>
    /// <param name="grinderId">Which.</param>
    /// <param name="db">The store.</param>
    /// <param name="cancel">The request's.</param>
    /// <param name="before">Only those pulled before, UTC; null for all.</param>
    public static Task<IReadOnlyList<GrindShot>> KnownAsync(
        int grinderId,
        RuddyContext db,
        CancellationToken cancel,
        DateTime? before = null
    ) => ShotMemory.OfAsync(db, (grinderId, before), () => ReadAsync(grinderId, db, before ?? DateTime.MaxValue, cancel), cancel);

    private static async Task<IReadOnlyList<GrindShot>> ReadAsync(
        int grinderId,
        RuddyContext db,
        DateTime until,
        CancellationToken cancel
    )
    {
        var shots = await db
            .Shots.AsNoTracking()
            .Where(s => s.DeletedAt == null && s.GrinderId == grinderId && s.GrindSetting != null && s.PulledAt < until)
            .OrderByDescending(s => s.PulledAt)
            .Take(MostShots)
            .Select(s => new
            {
                s.BagId,
                s.MachineId,
                s.GrindSetting,
                s.PulledAt,
                s.DoseGrams,
                s.Measures,
                s.BasketId,
            })
            .ToListAsync(cancel);
        shots.Reverse();
        // each once, and not with each of its shots: there are many shots of few things
        var bagIds = shots.Select(s => s.BagId).Distinct().ToList();
        var bags = await db.Bags.AsNoTracking().Where(b => bagIds.Contains(b.Id)).ToDictionaryAsync(b => b.Id, cancel);
        var machines = await db.Machines.AsNoTracking().ToDictionaryAsync(m => m.Id, m => m.Spec, cancel);
        var baskets = await db.Baskets.AsNoTracking().ToDictionaryAsync(b => b.Id, b => b.Spec, cancel);
        Basket? BasketOf(int? id) => id is { } known ? baskets[known] : null;
        // behind a small hole the pressure is the hole's, so such a shot says nothing of the grind
        return
        [
            .. shots
                .Where(s => s.Measures.R10 is > 0 && Restrictor(machines[s.MachineId], BasketOf(s.BasketId)) == 0)
                .Select(s => new GrindShot(
                    s.BagId ?? 0,
                    s.MachineId,
                    s.GrindSetting!.Value,
                    s.BagId is { } bag ? bags[bag].Dates.RestDays(DateOnly.FromDateTime(s.PulledAt.ToLocalTime())) : UsualAge,
                    s.DoseGrams,
                    GrindResistivity.Of(
                        s.Measures.R10!.Value,
                        s.DoseGrams,
                        BasketOf(s.BasketId) ?? Basket.Of(machines[s.MachineId])
                    ),
                    s.BasketId ?? 0,
                    s.Measures.R10MeanBar,
                    s.Measures.R10WetSeconds
                )),
        ];
    }
}
