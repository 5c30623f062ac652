using Microsoft.EntityFrameworkCore;
using RuddySpring.Core.Coaching;
using RuddySpring.Core.Shots;
using RuddySpring.Core.Traces;
using RuddySpring.Server.Household;
using RuddySpring.Server.Prepare;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Pull;

/// <summary>A delay that pulls have told.</summary>
/// <param name="Of">What has it: the name of a scale, or of a brewer; empty for a spout.</param>
/// <param name="MachineId">The machine of a spout or a hand; null for a scale.</param>
/// <param name="Bottomless">Of a spout: whether the holder has no bottom.</param>
/// <param name="Seconds">Best value, s.</param>
/// <param name="Low">Lower end of eight in ten; null where only a mean is known.</param>
/// <param name="High">Upper end.</param>
/// <param name="Pulls">How many pulls told it.</param>
public sealed record LearnedDelay(
    string Of,
    int? MachineId,
    bool Bottomless,
    double Seconds,
    double? Low,
    double? High,
    int Pulls
);

/// <summary>What the pulls of this household have told of its instruments and hands.</summary>
/// <param name="Scales">How late each scale shows.</param>
/// <param name="Spouts">How long coffee hangs at basket and spout.</param>
/// <param name="Hands">How long a hand goes on after the cue to stop.</param>
public sealed record LearnedDelays(
    IReadOnlyList<LearnedDelay> Scales,
    IReadOnlyList<LearnedDelay> Spouts,
    IReadOnlyList<LearnedDelay> Hands
);

/// <summary>What pulls teach of puck, spout, scale and hand: looked up before a pull, kept with its shot after it.</summary>
public static class PullLearning
{
    private const int MostPulls = 60;

    // a fit that leaves so much, g, does not describe that pull
    private const double MostMisfitGrams = 1.5;

    /// <summary>Pulls that taught something, newest first.</summary>
    public static Task<IReadOnlyList<TaughtBy>> TaughtAsync(RuddyContext db, CancellationToken cancel) =>
        ShotMemory.OfAsync(db, nameof(TaughtAsync), () => ReadAsync(db, cancel), cancel);

    private static async Task<IReadOnlyList<TaughtBy>> ReadAsync(RuddyContext db, CancellationToken cancel)
    {
        var shots = await db.Set<ShotTrace>()
            .AsNoTracking()
            .Where(t => t.Learned != null)
            .OrderByDescending(t => t.ShotId)
            // a bounded number before anything is looked up; some of their shots may lie in the bin
            .Take(2 * MostPulls)
            .Join(
                db.Shots.Where(s => s.DeletedAt == null),
                t => t.ShotId,
                s => s.Id,
                (t, s) =>
                    new
                    {
                        s.BagId,
                        s.MachineId,
                        s.BrewerId,
                        t.Learned,
                        t.ShotId,
                    }
            )
            .OrderByDescending(t => t.ShotId)
            .Take(MostPulls)
            .ToListAsync(cancel);
        return [.. shots.Select(s => new TaughtBy(s.BagId ?? 0, s.MachineId, s.BrewerId ?? 0, s.Learned!))];
    }

    /// <summary>A pull that is about to begin, with what earlier ones taught.</summary>
    public static PullStart With(PullStart start, IReadOnlyList<TaughtBy> newestFirst) =>
        start with
        {
            Learned = Puck(newestFirst, start.Sheet, start.Scale, start.Believed().Middle),
            LetGoSeconds = Taught.LetGoSeconds(newestFirst, Next(start.Sheet, start.Scale)),
        };

    /// <summary>What earlier pulls taught of the puck of a sheet; null where none did.</summary>
    public static PuckMemory? Puck(IReadOnlyList<TaughtBy> newestFirst, Sheet sheet, string? scale, ShotConditions shot) =>
        Taught.Puck(newestFirst, Next(sheet, scale), shot);

    private static TaughtBy Next(Sheet sheet, string? scale) =>
        new(
            sheet.BagId ?? 0,
            sheet.MachineId,
            sheet.BrewerId ?? 0,
            new(null, scale, Taught.Holder(sheet.MachineId, sheet.Preparation?.Bottomless ?? false), null)
        );

    /// <summary>What the pulls have told so far, for people to see.</summary>
    public static async Task<LearnedDelays> DelaysAsync(RuddyContext db, CancellationToken cancel)
    {
        var taught = await TaughtAsync(db, cancel);
        var told = taught.Where(t => t.Learned.Puck is not null).ToList();
        var names = await db.Brewers.AsNoTracking().ToDictionaryAsync(b => b.Id, b => b.Name, cancel);
        LearnedDelay Of(string name, int? machine, bool bottomless, DelayBelief delay, int pulls) =>
            new(
                name,
                machine,
                bottomless,
                Math.Round(delay.Seconds, 2),
                Math.Round(delay.Low, 2),
                Math.Round(delay.High, 2),
                pulls
            );
        return new(
            [
                .. told.Where(t => t.Learned.Scale is not null)
                    .GroupBy(t => t.Learned.Scale!)
                    .Select(g => Of(g.Key, null, false, g.First().Learned.Puck!.LearnedPath.Scale, g.Count())),
            ],
            [
                .. told.GroupBy(t => (t.MachineId, t.Learned.Holder))
                    .Select(g =>
                        Of(
                            "",
                            g.Key.MachineId,
                            g.Key.Holder == Taught.Holder(g.Key.MachineId, bottomless: true),
                            g.First().Learned.Puck!.LearnedPath.Spout,
                            g.Count()
                        )
                    ),
            ],
            [
                .. taught
                    .Where(t => t.Learned.LetGoSeconds is not null)
                    .GroupBy(t => (t.MachineId, t.BrewerId))
                    .Select(g => new LearnedDelay(
                        names.GetValueOrDefault(g.Key.BrewerId, "whoever brews"),
                        g.Key.MachineId,
                        false,
                        Math.Round(Taught.LetGoSeconds(taught, g.First()), 2),
                        null,
                        null,
                        g.Count()
                    )),
            ]
        );
    }

    /// <summary>Whether a pull tells of its puck as pucks are: not one with a channel or a gap, which would be taken for the
    /// coffee's ways.</summary>
    private static bool Whole(FinishedPull pull, ShotReading reading)
    {
        var (clean, moments) = reading.SinceLever;
        return reading.Corrections.All(c => c.Kind != CorrectionKind.Gap)
            && ChannelEvidence.Of(ResistanceCourse.Of(clean, moments, pull.Start.WaterC), moments, pull.Start.Sheet.DoseGrams)
                is null;
    }

    /// <summary>What a pull taught; null where nothing measured it, or where it went as no puck does by itself.</summary>
    public static LearnedPull? Of(FinishedPull pull, ShotReading reading)
    {
        var puck =
            Whole(pull, reading)
            && PuckReadBack.Of(pull.Start.Believed(), pull.Trace, reading, PuckReadBack.ForTheNextPull)
                is { Misfit: < MostMisfitGrams } read
                ? PuckMemory.Of(read.After)
                : null;
        double? letGo =
            pull.CuedAt is { } cue && pull.Trace.Of(Channel.Pressure) is { Origin: Origin.Measured } gauge
                ? LetGo.Seconds(gauge, cue)
                : null;
        return puck is null && letGo is null ? null : new(puck, pull.Start.Scale, pull.Start.Holder, letGo);
    }
}
