using Microsoft.EntityFrameworkCore;
using RuddySpring.Core.Reasoning;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Reasoning;

/// <summary>Judges advice by the shot after it, once that was tasted: the next one of the same bag on the same machine.</summary>
public static class AdviceJudge
{
    /// <summary>Advice that was taken from the shot before this one; null for none.</summary>
    public static async Task<Advice?> BeforeAsync(RuddyContext db, int id, CancellationToken cancel)
    {
        var shot = await db.Shots.AsNoTracking().SingleAsync(s => s.Id == id, cancel);
        var before = await db
            .Shots.AsNoTracking()
            .Where(s =>
                s.DeletedAt == null && s.PulledAt < shot.PulledAt && s.MachineId == shot.MachineId && s.BagId == shot.BagId
            )
            .OrderByDescending(s => s.PulledAt)
            .Select(s => (int?)s.Id)
            .FirstOrDefaultAsync(cancel);
        return before is null
            ? null
            : await db.Advices.OrderByDescending(a => a.Id).FirstOrDefaultAsync(a => a.ShotId == before, cancel);
    }

    /// <summary>Keeps how that advice came out.</summary>
    public static async Task JudgeAsync(RuddyContext db, int id, CancellationToken cancel)
    {
        if (!await db.Advices.AnyAsync(a => a.ShotId != id, cancel))
            return;
        var facts = await ShotFactsReader.OfAsync(db, id, cancel);
        var diagnosis = Diagnosis.Of(facts);
        if (await BeforeAsync(db, id, cancel) is not { } advice)
            return;
        var verdict = AdviceVerdict.Of(advice.Taken, facts, diagnosis);
        (advice.JudgedById, advice.Worked, advice.Sentence) = (id, verdict.Worked, verdict.Sentence);
        await db.SaveChangesAsync(cancel);
    }
}
