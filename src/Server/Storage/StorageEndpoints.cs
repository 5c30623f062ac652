using Microsoft.EntityFrameworkCore;
using RuddySpring.Core;
using RuddySpring.Server.Exchange.Households;
using RuddySpring.Server.Hosting;
using RuddySpring.Server.Network;
using RuddySpring.Server.Pull;
using RuddySpring.Store;

namespace RuddySpring.Server.Storage;

/// <summary>Backups, what they would change, and the bin.</summary>
public static class StorageEndpoints
{
    /// <summary>Largest backup that is taken in, bytes.</summary>
    public const long LargestBackup = 4L * 1024 * 1024 * 1024;

    /// <summary>Where a backup from elsewhere is sent.</summary>
    public const string BringPath = "/api/storage/backups/bring";

    private static readonly FieldRange BinDays = new("days", "Time in the bin", 1, 3650, "days");

    public static void MapStorage(this IEndpointRouteBuilder api)
    {
        api.MapGet("/storage", ViewAsync);
        // a tablet that is lost takes no copy of the household along
        var storage = api.MapGroup("/storage").AtTheMachineOnly();
        storage.MapPost("/backups", (Backups backups, TimeProvider time) =>
            Keeping(() => backups.Take(BackupKind.ByHand, Now(time)))
        );
        storage.MapPost("/backups/bring", BringAsync);
        storage.MapGet("/backups/{name}", (string name, Backups backups) =>
            TypedResults.PhysicalFile(PathOf(backups, name), "application/vnd.sqlite3", name)
        );
        storage.MapDelete("/backups/{name}", (string name, Backups backups) =>
        {
            PathOf(backups, name);
            return Keeping(() =>
            {
                backups.Delete(name);
                return TypedResults.NoContent();
            });
        });
        storage.MapGet("/backups/{name}/changes", (string name, Backups backups, ServerOptions options) =>
            Sound(() => Restoring.Preview(options.DataFolder, PathOf(backups, name)))
        );
        storage.MapPost("/backups/{name}/restore", Restore);
        storage.MapPut("/bin", SetBinAsync);
        storage.MapDelete("/bin", async (RuddyContext db, CancellationToken cancel) =>
            new BinEmptied(await Bin.EmptyAsync(db, null, cancel))
        );
    }

    private static async Task<StorageView> ViewAsync(
        RuddyContext db,
        Backups backups,
        ServerOptions options,
        CancellationToken cancel
    )
    {
        var file = StoreFile.PathIn(options.DataFolder);
        var all = backups.All();
        var spare = await db
            .Database.SqlQuery<long>($"SELECT freelist_count * page_size AS Value FROM pragma_freelist_count, pragma_page_size")
            .SingleAsync(cancel);
        return new(
            options.DataFolder,
            new[] { file, file + "-wal" }.Where(File.Exists).Sum(f => new FileInfo(f).Length),
            await db.Traces.SumAsync(t => (long)t.Packed.Length, cancel),
            await db.Photos.SumAsync(p => (long)p.Jpeg.Length + p.Small.Length, cancel),
            spare,
            all.Sum(b => b.Bytes),
            FreeBytes(options.DataFolder),
            backups.Folder,
            all,
            await db.Shots.CountAsync(s => s.DeletedAt != null, cancel),
            await db.Households.Select(h => h.BinDays).SingleAsync(cancel)
        );
    }

    private static async Task<Backup> BringAsync(
        HttpRequest request,
        Backups backups,
        ServerOptions options,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        var laid = Path.Combine(options.DataFolder, $"{Guid.NewGuid():N}{Upkeep.Incoming}");
        try
        {
            await KeepingAsync(async () =>
            {
                await using var to = File.Create(laid);
                await request.Body.CopyToAsync(to, cancel);
            });
            return Sound(() =>
            {
                Restoring.Check(laid);
                return Keeping(() => backups.Bring(laid, Now(time)));
            });
        }
        finally
        {
            foreach (var part in new[] { "", "-wal", "-shm" })
                File.Delete(laid + part);
        }
    }

    private static Restored Restore(
        string name,
        Backups backups,
        ServerOptions options,
        PullDesk pulls,
        HouseholdImports imports,
        Screens screens,
        TimeProvider time
    )
    {
        var path = PathOf(backups, name);
        if (!pulls.IsIdle)
            throw new NotNowException("A pull is under way. Finish it first, then restore.");
        if (imports.IsStoring)
            throw new NotNowException("A household is being imported. Wait for its end, then restore.");
        var before = Sound(() => Keeping(() => Restoring.Restore(options.DataFolder, backups, path, Now(time))));
        // every screen shows what was there before
        screens.Tell("restored", before);
        return new(before);
    }

    private static async Task<BinChange> SetBinAsync(BinChange change, RuddyContext db, CancellationToken cancel)
    {
        if (change.Days is { } days)
            BinDays.Check(days);
        var row = await db.Households.SingleAsync(cancel);
        row.BinDays = change.Days;
        await db.SaveChangesAsync(cancel);
        return new(row.BinDays);
    }

    private static string PathOf(Backups backups, string name) =>
        backups.PathOf(name)
        ?? throw new NotThereException("There is no backup of that name; it may have made room for newer ones.");

    /// <summary>A backup that cannot be used is told as a request that does not fit.</summary>
    private static T Sound<T>(Func<T> work)
    {
        try
        {
            return work();
        }
        catch (StoreProblemException error)
        {
            throw new DoesNotFitException("backup", error.Message);
        }
    }

    /// <summary>A disk that cannot be written is told as such.</summary>
    private static T Keeping<T>(Func<T> work)
    {
        try
        {
            return work();
        }
        catch (Exception error) when (IsOfTheDisk(error))
        {
            throw NoRoom(error);
        }
    }

    /// <summary>The same for what takes its time.</summary>
    private static async Task KeepingAsync(Func<Task> work)
    {
        try
        {
            await work();
        }
        catch (Exception error) when (IsOfTheDisk(error))
        {
            throw NoRoom(error);
        }
    }

    // a body that breaks off is an IOException too, and no fault of the disk
    private static bool IsOfTheDisk(Exception error) =>
        error is UnauthorizedAccessException || error is IOException and not BadHttpRequestException;

    private static UnreadableBodyException NoRoom(Exception error) =>
        new(
            StatusCodes.Status507InsufficientStorage,
            error is UnauthorizedAccessException
                ? "The backup folder cannot be written. Nothing was changed; let this user write it."
                : "The backup could not be written: there may be no room left on the disk. Nothing was changed."
        );

    private static long? FreeBytes(string folder)
    {
        try
        {
            return new DriveInfo(folder).AvailableFreeSpace;
        }
        catch (Exception error) when (error is IOException or ArgumentException or UnauthorizedAccessException)
        {
            return null;
        }
    }

    private static DateTime Now(TimeProvider time) => time.GetUtcNow().UtcDateTime;
}
