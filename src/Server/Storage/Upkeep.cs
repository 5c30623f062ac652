using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using RuddySpring.Server.Hosting;
using RuddySpring.Server.Pull;
using RuddySpring.Store;

namespace RuddySpring.Server.Storage;

/// <summary>What the application looks after by itself: a backup a day where anything was changed, a bin that is emptied after
/// the time that was set, and what the database knows of its own size.</summary>
public sealed class Upkeep(
    Backups backups,
    ServerOptions options,
    PullDesk pulls,
    IServiceScopeFactory scopes,
    TimeProvider time,
    Troubles troubles,
    ILogger<Upkeep> log
) : GuardedLoop("Taking the daily backup", troubles, log)
{
    /// <summary>Ending of a file that is being taken in.</summary>
    internal const string Incoming = ".incoming-backup";

    private const string NoRoom =
        "The disk has no room for today's backup. Make room, or start the application with --backups DIR on another disk.";

    // first the people who have just started it
    private static readonly TimeSpan Later = TimeSpan.FromSeconds(20);
    private static readonly TimeSpan Between = TimeSpan.FromMinutes(20);
    private static readonly TimeSpan ADay = TimeSpan.FromHours(20); // who brews every morning gets one every morning
    private readonly Troubles _troubles = troubles;
    private bool _begun;

    protected override async Task TurnAsync(CancellationToken stop)
    {
        await Task.Delay(_begun ? Between : Later, time, stop);
        if (!_begun)
            Sweep();
        _begun = true;
        // the hands on a lever come first
        if (pulls.IsIdle)
            await DoAsync(time.GetUtcNow().UtcDateTime, stop);
    }

    /// <summary>What is due at a time.</summary>
    public async Task DoAsync(DateTime nowUtc, CancellationToken cancel)
    {
        using var scope = scopes.CreateScope();
        var db = scope.ServiceProvider.GetRequiredService<RuddyContext>();
        await StoreFile.CountAnewAsync(db, cancel);
        var household = await db.Households.AsNoTracking().SingleAsync(cancel);
        // what was made up for looking around needs no copies
        if (!household.MadeUp)
            TakeDaily(nowUtc);
        if (household.BinDays is { } days)
            await Bin.EmptyAsync(db, nowUtc.AddDays(-days), cancel);
    }

    private void TakeDaily(DateTime nowUtc)
    {
        var newest = backups.All().Where(b => b.Kind == BackupKind.Daily).Select(b => (DateTime?)b.TakenAt).FirstOrDefault();
        if (newest is { } last && (nowUtc - last < ADay || !backups.IsChangedSince(last)))
            return;
        try
        {
            backups.Take(BackupKind.Daily, nowUtc);
            backups.Rotate();
            _troubles.Over(NoRoom);
        }
        catch (Exception error)
            when (error is IOException || error is SqliteException e && DatabaseFault.Of(e) == DatabaseFault.DiskFull)
        {
            log.LogWarning(error, "There is no room for a backup");
            _troubles.Tell(NoRoom);
        }
    }

    /// <summary>What an earlier run of the program left behind.</summary>
    private void Sweep()
    {
        foreach (var left in Directory.EnumerateFiles(options.DataFolder, "*" + Incoming + "*"))
            File.Delete(left);
    }
}
