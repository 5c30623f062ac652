using Microsoft.EntityFrameworkCore;
using RuddySpring.Core;
using RuddySpring.Core.Reasoning;
using RuddySpring.Server.Hosting;
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
public sealed record WhyView(string Headline, Diagnosis Diagnosis, string? Taken, AdviceVerdict? Before, AdviceScore Score);

/// <summary>Which advice is taken.</summary>
public sealed record AdviceChoice(string Cause);

public static class ReasoningEndpoints
{
    public static void MapReasoning(this IEndpointRouteBuilder api)
    {
        api.MapGet("/shots/{id:int}/why", WhyAsync);
        api.MapPost("/shots/{id:int}/advice", TakeAsync);
        api.MapGet("/reasoning/seen", () => SeenWords.All);
    }

    private static async Task<WhyView> WhyAsync(int id, RuddyContext db, CancellationToken cancel)
    {
        var facts = await ShotFactsReader.OfAsync(db, id, cancel);
        var diagnosis = Diagnosis.Of(facts);
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
            new(facts.Record.Count(r => r.Worked), facts.Record.Count)
        );
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
        var answer = await PrepareEndpoints.SameAsWithAsync(id, cause.Change.GrindSetting, db, sessions, cancel);
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
}
