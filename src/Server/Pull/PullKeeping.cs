using Microsoft.EntityFrameworkCore;
using RuddySpring.Core.Traces;
using RuddySpring.Server.Hosting;
using RuddySpring.Server.Sessions;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Pull;

/// <summary>
/// Makes shots of pulls: of one that has ended, of one that is thrown away (into the bin), of one that a crash interrupted. One
/// pull is one shot, whoever asks and however often: shot, bag and session change together or not at all, and the pull's id is
/// stored with the shot.
/// </summary>
public sealed class PullKeeping(
    PullDesk desk,
    PullJournal journal,
    RuddyContext db,
    SessionDesk sessions,
    TimeProvider time,
    ILogger<PullKeeping> log
)
{
    private const string Interrupted =
        "The application was interrupted during this pull; the trace was brought back from its journal.";
    private const string CutShort = "Its journal held more than a pull can have; the rest was left out.";
    private const double LeastSeconds = 1.0;

    // two screens never keep one pull at the same time
    private static readonly SemaphoreSlim Keeping = new(1);

    /// <summary>Keeps a pull that has ended; the same shot for whoever asks again.</summary>
    /// <exception cref="NotNowException">It has not been stopped, or there is none.</exception>
    public Task<SavedShot> SaveAsync(string? id) =>
        AloneAsync(async () =>
        {
            // a second screen on the same pull asks again for what is kept already
            if (desk.KeptAs(id) is { } kept)
                return new SavedShot(kept);
            var pull = desk.Finish(id);
            var shotId = await StoreAsync(pull, bin: false);
            desk.Clear(pull.Start.Id, shotId);
            return new(shotId);
        });

    /// <summary>Throws a pull away: what was pulled lies in the bin like any shot; one that never began is simply gone.</summary>
    /// <param name="id">Which; null for the newest.</param>
    /// <param name="forGood">Not even into the bin: for a disk without room.</param>
    /// <exception cref="NotNowException">There is none.</exception>
    public Task<DiscardedPull> DiscardAsync(string? id, bool forGood) =>
        AloneAsync(async () =>
        {
            if (forGood || desk.StageOf(id) == PullStage.Ready)
            {
                desk.Discard(id);
                return new DiscardedPull(null);
            }

            desk.Stop(id);
            var pull = desk.Finish(id);
            var shotId = await StoreAsync(pull, bin: true);
            desk.Discard(pull.Start.Id);
            return new(shotId);
        });

    /// <summary>Pulls that a crash interrupted, to keep or to throw away, and files that cannot be read, with the
    /// reason.</summary>
    public async Task<IReadOnlyList<RecoveredPull>> RecoveredAsync(CancellationToken cancel)
    {
        var files = journal.Unfinished(desk.CurrentIds);
        if (files.Count == 0)
            return [];
        var names = await db.Machines.AsNoTracking().ToDictionaryAsync(m => m.Id, m => m.Name, cancel);
        var ids = files.Select(f => f.Id).ToList();
        var kept = await db
            .Shots.Where(s => s.PullId != null && ids.Contains(s.PullId))
            .Select(s => s.PullId)
            .ToListAsync(cancel);
        var found = new List<RecoveredPull>();
        foreach (var file in files.Where(f => !kept.Contains(f.Id)))
        {
            if (file.Pull is not { } pull)
            {
                found.Add(
                    new(file.Id, file.WrittenAt, "", 0, 0, null, $"An interrupted pull cannot be brought back: {file.Problem}")
                );
                continue;
            }

            var trace = Replay(pull).Trace;
            if (trace.EndSeconds < LeastSeconds)
                continue;
            found.Add(
                new(
                    file.Id,
                    pull.Start.StartedAt,
                    names.GetValueOrDefault(pull.Start.Sheet.MachineId, "a machine"),
                    trace.EndSeconds,
                    trace.Series.Sum(s => s.Count),
                    trace.Of(Channel.Weight)?.Values[^1],
                    null
                )
            );
        }

        return found;
    }

    /// <summary>Keeps an interrupted pull as a shot, in the ledger or in the bin; the same shot for whoever asks again.</summary>
    /// <exception cref="NotThereException">There is no such pull.</exception>
    public Task<SavedShot> SaveRecoveredAsync(string id, bool bin) =>
        AloneAsync(async () =>
        {
            if (await db.Shots.Where(s => s.PullId == id).Select(s => (int?)s.Id).SingleOrDefaultAsync() is { } kept)
            {
                journal.Close(id);
                return new SavedShot(kept);
            }

            if (journal.Unfinished(desk.CurrentIds).SingleOrDefault(f => f.Id == id)?.Pull is not { } pull)
                throw new NotThereException("That interrupted pull is no longer there.");
            var shotId = await StoreAsync(Replay(pull), bin);
            journal.Close(id);
            return new(shotId);
        });

    /// <summary>Removes journals of pulls that are stored already, as a crash between storing and removing leaves them, and of
    /// pulls that hardly began.</summary>
    public async Task SweepAsync(CancellationToken cancel)
    {
        foreach (var file in journal.Unfinished([]).Where(f => f.Pull is not null))
        {
            if (await db.Shots.AnyAsync(s => s.PullId == file.Id, cancel) || Replay(file.Pull!).Trace.EndSeconds < LeastSeconds)
                journal.Close(file.Id);
        }
    }

    private static async Task<T> AloneAsync<T>(Func<Task<T>> keep)
    {
        await Keeping.WaitAsync();
        try
        {
            return await keep();
        }
        finally
        {
            Keeping.Release();
        }
    }

    private static FinishedPull Replay(JournalledPull pull)
    {
        var tracker = pull.Start.Tracker();
        foreach (var sample in pull.Samples)
        {
            if (pull.StartedByHandAt is { } begun && sample.ServerSeconds >= begun)
                tracker.StartNow(begun);
            tracker.Take(sample.Channel, sample.ServerSeconds, sample.Value, sample.Origin);
        }

        if (pull.StartedByHandAt is { } at)
            tracker.StartNow(at);
        double? stop = null;
        foreach (var (moment, seconds) in pull.Marks)
        {
            if (moment == "stop")
                stop = tracker.Read(seconds).Seconds;
            else if (tracker.Started)
                tracker.Mark(moment, seconds);
        }

        var trace = tracker.ToTrace();
        // the cue of an interrupted pull is not in its journal: nothing is learned of the hand
        return new(
            pull.Start,
            trace,
            tracker.Marked with
            {
                Stop = stop is { } said ? MeasureShot.StopToMark(trace, said, pull.Start.Context) : null,
            },
            pull.CutShort ? $"{Interrupted} {CutShort}" : Interrupted,
            null
        );
    }

    /// <summary>
    /// Stores a shot, takes its dose off the bag and ticks it off in the session, in one transaction. Once begun it is not
    /// cancelled by a screen that goes away. A session that cannot be ticked keeps no shot from being stored.
    /// </summary>
    private Task<int> StoreAsync(FinishedPull pull, bool bin) =>
        sessions.Gate.AloneAsync(
            async () =>
            {
                var (start, trace, marked, notices, _) = pull;
                var sheet = start.Sheet;
                var shot = new Shot
                {
                    PullId = start.Id,
                    PulledAt = start.StartedAt,
                    Source = ShotSource.Pulled,
                    // what is gone for good since the sheet was set is left out: the shot is kept without it
                    BrewerId = await db.Brewers.AnyAsync(b => b.Id == sheet.BrewerId) ? sheet.BrewerId : null,
                    MachineId = sheet.MachineId,
                    BagId = await db.Bags.AnyAsync(b => b.Id == sheet.BagId) ? sheet.BagId : null,
                    GrinderId = await db.Grinders.AnyAsync(g => g.Id == sheet.GrinderId) ? sheet.GrinderId : null,
                    GrindSetting = sheet.GrindSetting,
                    BasketId = await db.Baskets.AnyAsync(b => b.Id == sheet.BasketId) ? sheet.BasketId : null,
                    Preparation = sheet.Preparation,
                    DoseGrams = sheet.DoseGrams,
                    YieldGrams = sheet.YieldGrams,
                    WaterC = Math.Round(start.WaterC, 1),
                    Notices = notices,
                    DeletedAt = bin ? time.GetUtcNow().UtcDateTime : null,
                };
                var reading = ShotRecording.SetTrace(shot, start.Plan, start.Machine, start.Basket, trace, marked);
                shot.Trace.Learned = PullLearning.Of(pull, reading);
                await using var whole = await db.Database.BeginTransactionAsync();
                db.Shots.Add(shot);
                await db.SaveChangesAsync();
                await db
                    .Bags.Where(b => b.Id == shot.BagId && b.GramsLeft != null)
                    .ExecuteUpdateAsync(set =>
                        set.SetProperty(b => b.GramsLeft, b => Math.Max(0, Math.Round(b.GramsLeft!.Value - shot.DoseGrams, 1)))
                            .SetProperty(b => b.Version, b => b.Version + 1)
                    );
                var ticked = bin ? null : await TickAsync(shot, trace);
                await whole.CommitAsync();
                if (ticked is not null)
                    sessions.Announce(ticked);
                return shot.Id;
            },
            CancellationToken.None
        );

    private async Task<Session?> TickAsync(Shot shot, Trace trace)
    {
        try
        {
            return await sessions.TickShotAsync(
                shot.MachineId,
                shot.PulledAt,
                shot.Measures.SecondsFromLever ?? trace.EndSeconds,
                shot.Measures.CupGrams ?? shot.YieldGrams,
                shot.DoseGrams
            );
        }
        catch (Exception error) when (error is not (DbUpdateException or Microsoft.Data.Sqlite.SqliteException))
        {
            log.LogError(error, "The session could not be ticked off");
            return null;
        }
    }
}

/// <summary>Tidies the journal once, before anybody asks for it.</summary>
public sealed class JournalSweep(IServiceScopeFactory scopes, ILogger<JournalSweep> log) : IHostedService
{
    public async Task StartAsync(CancellationToken cancellationToken)
    {
        try
        {
            using var scope = scopes.CreateScope();
            await scope.ServiceProvider.GetRequiredService<PullKeeping>().SweepAsync(cancellationToken);
        }
        catch (Exception error) when (error is not OperationCanceledException)
        {
            log.LogError(error, "The journal could not be tidied; it is tried again at the next start");
        }
    }

    public Task StopAsync(CancellationToken cancellationToken) => Task.CompletedTask;
}
