using Microsoft.EntityFrameworkCore;
using RuddySpring.Core.Coaching;
using RuddySpring.Core.Shots;
using RuddySpring.Core.Traces;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Pull;

/// <summary>What pulls teach of puck, spout, scale and hand: looked up before a pull, kept with its shot after it.</summary>
public static class PullLearning
{
    private const int MostPulls = 60;

    /// <summary>Pulls that taught something, newest first.</summary>
    public static async Task<List<TaughtBy>> TaughtAsync(RuddyContext db, CancellationToken cancel)
    {
        var shots = await db.Set<ShotTrace>().AsNoTracking().Where(t => t.Learned != null).OrderByDescending(t => t.ShotId)
            .Join(db.Shots.Where(s => s.DeletedAt == null), t => t.ShotId, s => s.Id, (t, s) => new { s.BagId, s.MachineId, s.BrewerId, t.Learned })
            .Take(MostPulls).ToListAsync(cancel);
        return [.. shots.Select(s => new TaughtBy(s.BagId ?? 0, s.MachineId, s.BrewerId ?? 0, s.Learned!))];
    }

    /// <summary>A pull that is about to begin, with what earlier ones taught.</summary>
    public static PullStart With(PullStart start, IReadOnlyList<TaughtBy> newestFirst)
    {
        var sheet = start.Sheet;
        var next = new TaughtBy(sheet.BagId ?? 0, sheet.MachineId, sheet.BrewerId ?? 0, new(null, start.Scale, start.Holder, null));
        return start with { Learned = Taught.Puck(newestFirst, next, start.Believed().Middle), LetGoSeconds = Taught.LetGoSeconds(newestFirst, next) };
    }

    /// <summary>What a pull taught; null where nothing measured it.</summary>
    public static LearnedPull? Of(FinishedPull pull, ShotReading reading)
    {
        var puck = PuckReadBack.Of(pull.Start.Believed(), pull.Trace, reading) is { } read ? PuckMemory.Of(read.After) : null;
        double? letGo = pull.CuedAt is { } cue && pull.Trace.Of(Channel.Pressure) is { Origin: Origin.Measured } gauge ? LetGo.Seconds(gauge, cue) : null;
        return puck is null && letGo is null ? null : new(puck, pull.Start.Scale, pull.Start.Holder, letGo);
    }
}
