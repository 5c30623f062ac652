using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using RuddySpring.Core;
using RuddySpring.Core.Dialing;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Reasoning;
using RuddySpring.Core.Shots;
using RuddySpring.Core.Traces;
using RuddySpring.Server.Hosting;
using RuddySpring.Server.Household;
using RuddySpring.Server.Plans;
using RuddySpring.Server.Prepare;
using RuddySpring.Server.Sessions;
using RuddySpring.Store;

namespace RuddySpring.Server.Reasoning;

/// <summary>How earlier advice fared, in numbers.</summary>
/// <param name="Worked">How often the next shot showed what it should.</param>
/// <param name="Judged">Of how many.</param>
public sealed record AdviceScore(int Worked, int Judged);

/// <summary>Why a shot was as it was.</summary>
/// <param name="Headline">The answer in a sentence.</param>
/// <param name="Diagnosis">With its numbers.</param>
/// <param name="Taken">Key of the cause whose advice was taken from this shot; null for none.</param>
/// <param name="Before">How the advice that was taken from the shot before came out; null where there was none.</param>
/// <param name="Score">How advice has fared in this household.</param>
public sealed record WhyView(
    string Headline,
    Diagnosis Diagnosis,
    string? Taken,
    AdviceVerdict? Before,
    string? Together,
    AdviceScore Score
);

/// <summary>Which advice is taken.</summary>
public sealed record AdviceChoice(string Cause);

/// <summary>How a puck is to be pulled again; null leaves what it was.</summary>
public sealed record AnotherWay(
    string? PlanKey = null,
    double? WaterC = null,
    double? DoseGrams = null,
    double? YieldGrams = null,
    double? GrindSetting = null
);

/// <summary>A school to choose.</summary>
/// <param name="Holds">What it holds, in a sentence or two.</param>
public sealed record SchoolView(string Key, string Name, string Holds);

/// <summary>What was to be expected of a shot's puck and heat, beside what the trace shows.</summary>
/// <param name="Resistance">Of the puck against grams, under the recorded pressure; empty where nothing was expected.</param>
/// <param name="Heat">Of group and water through the shot; null where nobody knows.</param>
public sealed record ExpectedView(IReadOnlyList<ExpectedPoint> Resistance, ShotHeatView? Heat);

/// <summary>A puck that can be read back, or why it cannot.</summary>
public sealed record PuckView(ReadPuck? Puck);

/// <summary>A puck pulled again.</summary>
/// <param name="Shot">What would come of it.</param>
/// <param name="Before">The shot as it was, by the same puck under its own plan: what of the difference is the model's.</param>
public sealed record AgainView(PredictedShot Shot, PredictedShot Before);

public static class ReasoningEndpoints
{
    private const ulong Seed = 1; // the same question has the same answer
    private const double PerDaySd = 0.004;
    private static readonly FieldRange Water = new("waterC", "Water at the puck", 40, 100, "degC");

    public static void MapReasoning(this IEndpointRouteBuilder api)
    {
        api.MapGet("/shots/{id:int}/why", WhyAsync);
        api.MapPost("/shots/{id:int}/advice", TakeAsync);
        api.MapGet("/shots/{id:int}/schools", SchoolsAsync);
        api.MapGet("/shots/{id:int}/expected", ExpectedAsync);
        api.MapGet("/schools", () => SchoolList.All.Select(s => new SchoolView(s.Key, s.Name, s.Holds)).ToList());
        api.MapGet("/shots/{id:int}/puck", PuckAsync);
        api.MapGet("/shots/{id:int}/difference/{other:int}", DifferenceAsync);
        api.MapPost("/shots/{id:int}/again", AgainAsync);
        api.MapPost("/shots/{id:int}/again/use", UseAsync);
    }

    private static async Task<WhyView> WhyAsync(int id, RuddyContext db, CancellationToken cancel)
    {
        var facts = await ShotFactsReader.OfAsync(db, id, cancel);
        var diagnosis = Diagnosis.Of(facts);
        await KeepCauseAsync(id, diagnosis, db, cancel);
        var taken = await db
            .Advices.AsNoTracking()
            .Where(a => a.ShotId == id)
            .OrderByDescending(a => a.Id)
            .FirstOrDefaultAsync(cancel);
        return new(
            DiagnosisWords.Headline(diagnosis),
            diagnosis,
            taken?.Taken.Cause,
            await AdviceJudge.BeforeAsync(db, id, cancel) is { } before ? AdviceVerdict.Of(before.Taken, facts, diagnosis) : null,
            diagnosis.Verdict != Verdict.NothingWrong && facts.Earlier.Count > 0
                ? MovedTogether.Of(facts, facts.Earlier[0])
                : null,
            new(facts.Record.Count(r => r.Worked), facts.Record.Count)
        );
    }

    /// <summary>What is named first is kept beside the shot, so that the ledger finds it; it is no change of the shot. An update
    /// waits for whoever writes, even where there is nothing to update, and reasons are not to wait: what is kept already is not
    /// kept again, and what cannot be kept now is kept when it is next asked for.</summary>
    private static async Task KeepCauseAsync(int id, Diagnosis diagnosis, RuddyContext db, CancellationToken cancel)
    {
        var first = diagnosis.Verdict == Verdict.NothingWrong ? null : diagnosis.Causes.Select(c => c.Key).FirstOrDefault();
        var other = db.Shots.Where(s => s.Id == id && s.Cause != first);
        if (!await other.AnyAsync(cancel))
            return;
        try
        {
            await other.ExecuteUpdateAsync(s => s.SetProperty(x => x.Cause, first), cancel);
        }
        catch (SqliteException error) when (DatabaseFault.Of(error) is DatabaseFault.Busy or DatabaseFault.DiskFull)
        {
            // the reasons are told all the same
        }
    }

    /// <summary>Takes the advice for a cause: the sheet becomes this shot's with the change in it, and the next shot judges
    /// it.</summary>
    private static async Task<SheetAnswer> TakeAsync(
        int id,
        AdviceChoice choice,
        RuddyContext db,
        SessionDesk sessions,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        var diagnosis = Diagnosis.Of(await ShotFactsReader.OfAsync(db, id, cancel));
        var cause = diagnosis.Causes.FirstOrDefault(c => c.Key == choice.Cause)
            ?? throw new DoesNotFitException(
                "cause",
                $"{RequestSentences.Short(choice.Cause)} is not among the causes of shot {id}."
            );
        var answer = await PrepareEndpoints.SameAsButAsync(
            id,
            sheet => sheet with { GrindSetting = cause.Change.GrindSetting ?? sheet.GrindSetting },
            db,
            sessions,
            cancel
        );
        // advice that was taken back for another has not been followed
        await db.Advices.Where(a => a.ShotId == id).ExecuteDeleteAsync(cancel);
        db.Advices.Add(
            new()
            {
                ShotId = id,
                TakenAt = time.GetUtcNow().UtcDateTime,
                Taken = new(cause.Key, cause.Change),
            }
        );
        await db.SaveChangesAsync(cancel);
        return answer;
    }

    private static async Task<IReadOnlyList<SchoolSays>> SchoolsAsync(int id, RuddyContext db, CancellationToken cancel)
    {
        var facts = await ShotFactsReader.OfAsync(db, id, cancel, own: false);
        var brewer = await db.Shots.Where(s => s.Id == id).Select(s => s.BrewerId).SingleAsync(cancel);
        return SchoolsCompared.Of(facts, await SchoolOf.BrewerAsync(db, brewer, cancel));
    }

    private static async Task<ExpectedView> ExpectedAsync(int id, RuddyContext db, CancellationToken cancel)
    {
        var facts = await ShotFactsReader.OfAsync(db, id, cancel);
        if (facts.Reading is not { } reading)
            return new([], await ShotHeatReader.OfAsync(db, id, cancel));
        var (clean, moments) = reading.SinceLever;
        var measured = ResistanceCourse.Of(clean, moments, facts.Sheet.Water.StartC());
        return new(ExpectedResistance.Of(facts, measured), await ShotHeatReader.OfAsync(db, id, cancel));
    }

    private static async Task<PuckView> PuckAsync(int id, RuddyContext db, CancellationToken cancel)
    {
        var (facts, trace) = await ShotFactsReader.WithTraceAsync(db, id, cancel);
        return new(ReadPuck.Of(facts, trace));
    }

    /// <summary>Pulls the puck that was read back another way; writes nothing.</summary>
    private static async Task<AgainView> AgainAsync(int id, AnotherWay way, RuddyContext db, CancellationToken cancel)
    {
        Check(way);
        var (facts, trace) = await ShotFactsReader.WithTraceAsync(db, id, cancel);
        if (ReadPuck.Back(facts, trace) is not { } read)
            throw new DoesNotFitException("id", "Gauge and scale did not record enough of this pull to read its puck back.");
        var plan =
            way.PlanKey is { } key && key != facts.Sheet.Plan.Key
                ? PlanLibrary.For(facts.Sheet.Machine, await PlanLibrary.AllAsync(db, cancel), key)
                : facts.Sheet.Plan;
        var next = facts.Sheet with
        {
            Plan = plan,
            YieldGrams = way.YieldGrams ?? facts.Sheet.YieldGrams,
            Water = way.WaterC is { } c ? WaterCourse.Steady(c) : facts.Sheet.Water,
            Bed = facts.Sheet.Bed with { DoseGrams = way.DoseGrams ?? facts.Sheet.Bed.DoseGrams },
        };
        var grindLog =
            way.GrindSetting is { } setting && facts.Grind is { } grind ? grind.LogPerUnit * (setting - grind.Setting) : 0;
        const string narrows = "More pulls of this coffee narrow it.";
        return new(
            Prediction.Shot(PullAgain.Of(read.After, next, grindLog, new(Seed)), read.After.Pulls, narrows),
            Prediction.Shot(PullAgain.Of(read.After, facts.Sheet, 0, new(Seed)), read.After.Pulls, narrows)
        );
    }

    /// <summary>Makes another way of pulling it the next sheet; the water is the session's and not the sheet's.</summary>
    private static Task<SheetAnswer> UseAsync(
        int id,
        AnotherWay way,
        RuddyContext db,
        SessionDesk sessions,
        CancellationToken cancel
    )
    {
        Check(way);
        return PrepareEndpoints.SameAsButAsync(
            id,
            sheet =>
                sheet with
                {
                    PlanKey = way.PlanKey ?? sheet.PlanKey,
                    DoseGrams = way.DoseGrams ?? sheet.DoseGrams,
                    YieldGrams = way.YieldGrams ?? sheet.YieldGrams,
                    GrindSetting = way.GrindSetting ?? sheet.GrindSetting,
                },
            db,
            sessions,
            cancel
        );
    }

    private static void Check(AnotherWay way)
    {
        if (way.WaterC is { } water)
            Water.Check(water);
        if (way.DoseGrams is { } dose)
            PuckParameters.Dose.Check(dose);
        if (way.YieldGrams is { } grams)
            CupVolumes.Yield.Check(grams);
        if (way.GrindSetting is { } to)
            PrepareEndpoints.GrindSetting.Check(to);
    }

    private static async Task<ShotDifference> DifferenceAsync(int id, int other, RuddyContext db, CancellationToken cancel)
    {
        if (id == other)
            throw new DoesNotFitException("other", "A shot does not differ from itself; name two.");
        var (a, b) = (await ShotFactsReader.OfAsync(db, id, cancel), await ShotFactsReader.OfAsync(db, other, cancel));
        var (sideA, grinder) = await ShotFactsReader.SideAsync(db, id, a, cancel);
        var (sideB, _) = await ShotFactsReader.SideAsync(db, other, b, cancel);
        var effects = GrindAdvice.Learn(
            a.Grind?.Steps ?? new(1, true),
            grinder is { } g ? await ShotBelief.KnownAsync(g, db, cancel) : []
        );
        return ShotDifference.Of(
            sideA,
            sideB,
            new(effects.PerUnit, Math.Abs(effects.PerUnit) * effects.SlopeUncertainty, effects.PerDay, PerDaySd),
            new(Seed)
        );
    }
}
