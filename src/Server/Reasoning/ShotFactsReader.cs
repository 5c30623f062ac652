using Microsoft.EntityFrameworkCore;
using RuddySpring.Core.Beans;
using RuddySpring.Core.Dialing;
using RuddySpring.Core.Heat;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Reasoning;
using RuddySpring.Core.Sessions;
using RuddySpring.Core.Shots;
using RuddySpring.Core.Traces;
using RuddySpring.Server.Care;
using RuddySpring.Server.Hosting;
using RuddySpring.Server.Household;
using RuddySpring.Server.Ledger;
using RuddySpring.Server.Prepare;
using RuddySpring.Server.Sessions;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Reasoning;

/// <summary>Gathers what is known of a shot and of those before it, as the core reasons about it. Everything it asks for is
/// bounded: the shots behind it cost the same whether there are a hundred or a hundred thousand.</summary>
public static class ShotFactsReader
{
    private const int MostDaysBack = 120;
    private const double InARowMinutes = 12;
    private const int MostInARow = 6;
    private const double ReadingSeconds = 600;
    private const double MostDoubtK = 6;
    private const double UsualWaterC = 93;

    /// <summary>Of a shot in the ledger, as the household's school sees it.</summary>
    /// <param name="db">The store.</param>
    /// <param name="id">Which.</param>
    /// <param name="cancel">The request's.</param>
    /// <param name="own">False for the shot as it is, in nobody's eyes.</param>
    /// <exception cref="NotThereException">There is none with that number.</exception>
    public static async Task<ShotFacts> OfAsync(RuddyContext db, int id, CancellationToken cancel, bool own = true)
    {
        var shot = await Whole(db).SingleOrDefaultAsync(s => s.Id == id && s.DeletedAt == null, cancel)
            ?? throw new NotThereException($"There is no shot {id}.");
        var since = shot.PulledAt.AddDays(-MostDaysBack);
        var earlier = await Whole(db)
            .Where(s =>
                s.DeletedAt == null
                && s.PulledAt < shot.PulledAt
                && s.PulledAt > since
                && s.MachineId == shot.MachineId
                && s.PlanName == shot.PlanName
                && s.BasketId == shot.BasketId
            )
            .OrderByDescending(s => s.PulledAt)
            .Take(SignReader.MostEarlier)
            .ToListAsync(cancel);
        var like = earlier
            .Where(s => s.BagId == shot.BagId)
            .Concat(earlier)
            .Select(s => s.Trace.Learned?.Puck)
            .FirstOrDefault(p => p is not null);
        var household = await db.Households.AsNoTracking().SingleAsync(cancel);
        var rest = household.Rest;
        var known = shot.GrinderId is { } grinder ? await ShotBelief.KnownAsync(grinder, db, cancel, shot.PulledAt) : [];
        var facts = Facts(shot, rest, like, known);
        facts = facts with
        {
            Earlier = [.. earlier.Select(s => Facts(s, rest, like, []))],
            Care = await CareReader.OfAsync(db, shot.Machine!, LocalTime(shot.PulledAt), cancel),
            OtherCoffeeBefore = await OtherCoffeeBeforeAsync(shot, db, cancel),
            Record = await RecordAsync(db, cancel),
        };
        facts = await WithSessionAsync(facts, shot, shot.Machine!.Spec, db, cancel);
        facts = facts with
        {
            Ticked = Said(shot.Before, facts.Ticked),
            Admitted = Enum.GetValues<DoneBefore>().Where(w => shot.Before?.Of(w) == false).ToHashSet(),
        };
        return own ? (await SchoolOf.BrewerAsync(db, shot.BrewerId, cancel)).See(facts) : facts;
    }

    /// <summary>A time in UTC by the clock of the household.</summary>
    private static DateTimeOffset LocalTime(DateTime utc) =>
        new DateTimeOffset(DateTime.SpecifyKind(utc, DateTimeKind.Utc)).ToLocalTime();

    /// <summary>What somebody said afterwards goes before what was ticked on the way.</summary>
    private static TickedBefore Said(TickedBefore? said, TickedBefore ticked) =>
        new(
            said?.Preheated ?? ticked.Preheated,
            said?.Bled ?? ticked.Bled,
            said?.Purged ?? ticked.Purged,
            said?.ScreenIn ?? ticked.ScreenIn
        );

    /// <summary>The same with the trace as it came.</summary>
    public static async Task<(ShotFacts Facts, Trace Trace)> WithTraceAsync(RuddyContext db, int id, CancellationToken cancel)
    {
        var facts = await OfAsync(db, id, cancel);
        var packed = await db.Traces.AsNoTracking().Where(t => t.ShotId == id).Select(t => t.Packed).SingleAsync(cancel);
        return (facts, TraceCodec.Decode(packed));
    }

    /// <summary>A shot as one side of a difference, with the number of its grinder.</summary>
    public static async Task<(ShotSide Side, int? GrinderId)> SideAsync(
        RuddyContext db,
        int id,
        ShotFacts facts,
        CancellationToken cancel
    )
    {
        var shot = await db.Shots.AsNoTracking().SingleAsync(s => s.Id == id, cancel);
        var told = FromTheGrind.Resistivity(facts) ?? facts.Expected?.Median;
        var arm = facts.Reading is { } reading ? ArmRecord.Of(reading.SinceLever.Clean, reading.SinceLever.Moments) : null;
        var m = shot.Measures;
        return (
            new()
            {
                Shot = told is { } rho ? GrindResistivity.With(facts.Sheet, rho) : facts.Sheet,
                Arm = arm,
                CupGrams = m.CupGrams is > 1 ? m.CupGrams.Value : facts.Sheet.YieldGrams,
                GrindSetting = shot.GrindSetting,
                AgeDays = facts.AgeDays,
                Coffee = $"{shot.BagId} on {shot.GrinderId}",
                Machine = $"{shot.MachineId}",
                Measured =
                [
                    m.SecondsFromLever,
                    m.MeanFlowGramsPerS,
                    shot.Strength * 100,
                    shot.Strength is { } strength && m.CupGrams is { } cup
                        ? 100 * MeasuredExtraction.Of(strength, cup, shot.DoseGrams).Share
                        : null,
                    m.R10,
                ],
            },
            shot.GrinderId
        );
    }

    private static IQueryable<Shot> Whole(RuddyContext db) =>
        db
            .Shots.AsNoTracking()
            .Include(s => s.Machine)
            .Include(s => s.Bag)
            .Include(s => s.Grinder)
            .Include(s => s.Basket)
            .Include(s => s.Trace);

    /// <summary>How advice has fared here, newest first.</summary>
    public static async Task<IReadOnlyList<AdviceOutcome>> RecordAsync(RuddyContext db, CancellationToken cancel)
    {
        const int most = 200;
        var judged = await db
            .Advices.AsNoTracking()
            .Where(a => a.Worked != null)
            .OrderByDescending(a => a.Id)
            .Take(most)
            .ToListAsync(cancel);
        return [.. judged.Select(a => new AdviceOutcome(a.Taken.Cause, a.Worked!.Value))];
    }

    private static ShotFacts Facts(Shot shot, RestWindow rest, PuckMemory? like, IReadOnlyList<GrindShot> known)
    {
        var machine = shot.Machine!.Spec;
        var basket = shot.Basket?.Spec ?? Basket.Of(machine);
        var sheet = ShotConditions.Of(
            machine,
            shot.Trace.Plan,
            PuckParameters.Dose.Nearest(shot.DoseGrams),
            CupVolumes.Yield.Nearest(shot.YieldGrams),
            PuckParameters.WaterTemperature.Nearest(shot.WaterC ?? UsualWaterC),
            basket: basket,
            preparation: shot.Preparation
        );
        var (age, grind, expected) = Grind(shot, known);
        return new()
        {
            Sheet = like?.Like(sheet) ?? sheet,
            Reading = Reading(shot),
            Grind = grind,
            Expected = expected,
            Coffee = $"{shot.BagId}",
            Roast = shot.Bag?.RoastLevel ?? "",
            AgeDays = age,
            Rest = rest,
            WaterC = shot.WaterC,
            GroupC = shot.GroupC,
            Band = machine.HasBoiler ? GroupBand.Of(HeatConstants.Of(machine)) : null,
            ScreenBelongs = shot.Preparation is { Cover: not PuckCover.Nothing },
            Taste = new(shot.Taste.Sour, shot.Taste.Bitter, shot.Taste.Dry, shot.Taste.Sweet, shot.Taste.Body, shot.Liking),
            Seen = shot.Tapped?.ToHashSet(),
            Strength = shot.Strength,
        };
    }

    private static ShotReading? Reading(Shot shot)
    {
        var trace = ShotViews.TraceOf(shot);
        // what was assumed from the plan tells nothing of the shot
        return trace.Series.Any(s => s.Origin != Origin.Assumed && s.Count > 1)
            ? MeasureShot.Read(trace, shot.Trace.Marked, ShotRecording.Context(shot))
            : null;
    }

    private static (double? Age, GrindNote? Grind, Core.Fitting.Prediction? Expected) Grind(
        Shot shot,
        IReadOnlyList<GrindShot> known
    )
    {
        double? age = shot.Bag is { } bag ? bag.Dates.RestDays(DateOnly.FromDateTime(shot.PulledAt.ToLocalTime())) : null;
        if (shot.GrindSetting is not { } setting || shot.Grinder is not { } grinder)
            return (age, null, null);
        var steps = new GrinderSteps(grinder.Step, grinder.FinerIsLower);
        if (known.Count == 0)
            return (age, new(setting, grinder.ScaleUnit, steps, 0), null);
        var advice = GrindAdvice.Learn(steps, known);
        return (
            age,
            new(setting, grinder.ScaleUnit, steps, advice.PerUnit),
            advice.Predict(
                shot.BagId ?? 0,
                shot.MachineId,
                setting,
                age ?? ShotBelief.UsualAge,
                shot.DoseGrams,
                shot.BasketId ?? 0
            )
        );
    }

    private static async Task<bool> OtherCoffeeBeforeAsync(Shot shot, RuddyContext db, CancellationToken cancel)
    {
        if (shot.GrinderId is null || shot.BagId is null)
            return false;
        var before = await db
            .Shots.AsNoTracking()
            .Where(s => s.DeletedAt == null && s.PulledAt < shot.PulledAt && s.GrinderId == shot.GrinderId)
            .OrderByDescending(s => s.PulledAt)
            .Select(s => s.BagId)
            .FirstOrDefaultAsync(cancel);
        return before is { } other && other != shot.BagId;
    }

    /// <summary>What the session that it was pulled in tells of heat and ticks.</summary>
    private static async Task<ShotFacts> WithSessionAsync(
        ShotFacts facts,
        Shot shot,
        Machine machine,
        RuddyContext db,
        CancellationToken cancel
    )
    {
        var recent = await db
            .Shots.AsNoTracking()
            .Where(s => s.DeletedAt == null && s.PulledAt < shot.PulledAt && s.MachineId == shot.MachineId)
            .OrderByDescending(s => s.PulledAt)
            .Select(s => s.PulledAt)
            .Take(MostInARow)
            .ToListAsync(cancel);
        var (inARow, last) = (0, shot.PulledAt);
        foreach (var at in recent.TakeWhile(at => (last - at).TotalMinutes <= InARowMinutes))
            (inARow, last) = (inARow + 1, at);
        facts = facts with { InARow = inARow };
        if (await SessionOfAsync(shot, db, cancel) is not { } session)
            return facts;
        var seconds = (shot.PulledAt - session.OriginAt!.Value).TotalSeconds;
        bool Did(StepKind kind) => session.Log.Done.Any(d => d.Kind == kind && !d.Skipped && d.StartSeconds <= seconds);
        var heat = SessionDesk.HeatAt(session, seconds);
        return facts with
        {
            Ticked = new(machine.HasBoiler ? null : Did(StepKind.Preheat), machine.HasBoiler ? Did(StepKind.Bleed) : null),
            GroupC = facts.GroupC ?? (machine.HasBoiler && heat.PlusMinusK < MostDoubtK ? Math.Round(heat.GroupC, 1) : null),
            BoilerBar = session
                .Log.Readings.Where(r =>
                    r.Kind == HeatReadingKind.BoilerGauge && r.AtSeconds <= seconds && r.AtSeconds > seconds - ReadingSeconds
                )
                .Select(r => (double?)r.Value)
                .LastOrDefault(),
        };
    }

    /// <summary>The session that a shot was pulled in; null for none.</summary>
    internal static Task<Session?> SessionOfAsync(Shot shot, RuddyContext db, CancellationToken cancel)
    {
        var day = shot.PulledAt.AddDays(-1);
        return db
            .Sessions.AsNoTracking()
            .Include(s => s.Machine)
            .Where(s => s.MachineId == shot.MachineId && s.CreatedAt > day && s.OriginAt != null && s.OriginAt <= shot.PulledAt)
            .Where(s => s.EndedAt == null || s.EndedAt >= shot.PulledAt)
            .OrderByDescending(s => s.CreatedAt)
            .FirstOrDefaultAsync(cancel);
    }
}
