using Microsoft.Data.Sqlite;

namespace RuddySpring.Store;

/// <summary>How many of something there are now, and in a backup.</summary>
/// <param name="What">Name of the list.</param>
public sealed record BackupCount(string What, int Now, int Then);

/// <summary>What a restore would change.</summary>
/// <param name="Counts">List by list.</param>
/// <param name="LastShotNow">When the last shot was pulled that is here now, UTC; null for none.</param>
/// <param name="LastShotThen">The same in the backup.</param>
/// <param name="ShotsLost">Shots that are here and not in the backup.</param>
/// <param name="ShotsBack">Shots that are in the backup and not here.</param>
/// <param name="IsOlderForm">Whether it was written by an older version: it is brought up to date on the way.</param>
public sealed record RestorePreview(
    IReadOnlyList<BackupCount> Counts,
    DateTime? LastShotNow,
    DateTime? LastShotThen,
    int ShotsLost,
    int ShotsBack,
    bool IsOlderForm
);

/// <summary>Looks at what a backup would change, and puts it in the database's place while the application runs.</summary>
public static class Restoring
{
    private const string StagedName = "ruddy-spring.restoring";
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(10);
    private static readonly TimeSpan Between = TimeSpan.FromMilliseconds(50);

    // the lists that people know; a backup of an older form may lack the later ones
    private static readonly IReadOnlyList<(string What, string Table)> Lists =
    [
        ("shots", "Shots"),
        ("sessions", "Sessions"),
        ("bags", "Bags"),
        ("machines", "Machines"),
        ("grinders", "Grinders"),
        ("baskets", "Baskets"),
        ("plans", "Plans"),
        ("practice", "Practice"),
        ("photos", "Photos"),
    ];

    /// <summary>Looks a file over: every page sound, a database of ours, not newer than this program.</summary>
    /// <exception cref="StoreProblemException">It cannot be restored; the sentence says why.</exception>
    public static void Check(string file)
    {
        try
        {
            if (!StoreFile.IsWhole(file))
                throw new StoreProblemException("The backup is damaged and cannot be restored.");
            if (StoreFile.Migrations(file).Unknown.Count > 0)
                throw new StoreProblemException("The backup was written by a newer Ruddy Spring. Start that one to restore it.");
        }
        catch (SqliteException error)
        {
            throw new StoreProblemException("The file is not a database, or it is damaged.", error);
        }
    }

    /// <summary>What a backup would change; changes nothing.</summary>
    /// <exception cref="StoreProblemException">It cannot be restored.</exception>
    public static RestorePreview Preview(string dataFolder, string backup)
    {
        Check(backup);
        using var now = Open(StoreFile.PathIn(dataFolder));
        using var then = Open(backup);
        var (here, there) = (Shots(now), Shots(then));
        return new(
            [.. Lists.Select(l => new BackupCount(l.What, Count(now, l.Table), Count(then, l.Table)))],
            Last(here),
            Last(there),
            here.Count(s => !there.Contains(s)),
            there.Count(s => !here.Contains(s)),
            StoreFile.Migrations(backup).Lacking.Count > 0
        );
    }

    /// <summary>
    /// Puts a backup in the database's place in one transaction of SQLite's own: cut off at any moment, the database is either as
    /// it was or as the backup. What is there now is kept as a backup first. Connections that are open see the new content.
    /// </summary>
    /// <returns>The backup of what was there.</returns>
    /// <exception cref="StoreProblemException">It cannot be restored; nothing was changed.</exception>
    /// <exception cref="SqliteException">The database is busy or the disk full; nothing was changed.</exception>
    public static Backup Restore(string dataFolder, Backups backups, string backup, DateTime nowUtc)
    {
        Check(backup);
        var staged = Path.Combine(dataFolder, StagedName);
        Clear(staged);
        try
        {
            StoreFile.Copy(backup, staged);
            Update(staged);
            var before = backups.Take(BackupKind.BeforeRestore, nowUtc);
            using var from = Open(staged);
            using var to = new SqliteConnection(
                StoreFile.ConnectionString(StoreFile.PathIn(dataFolder), SqliteOpenMode.ReadWrite)
            );
            to.Open();
            Overwrite(from, to);
            return before;
        }
        finally
        {
            Clear(staged);
        }
    }

    private static void Update(string staged)
    {
        try
        {
            StoreFile.MigrateCopy(staged);
        }
        catch (SqliteException error) when (DatabaseFault.Of(error) == DatabaseFault.Other)
        {
            throw new StoreProblemException("The backup does not have the form of Ruddy Spring's database.", error);
        }
    }

    private static void Overwrite(SqliteConnection from, SqliteConnection to)
    {
        for (var waited = TimeSpan.Zero; ; waited += Between)
        {
            try
            {
                from.BackupDatabase(to);
                return;
            }
            catch (SqliteException error) when (DatabaseFault.Of(error) == DatabaseFault.Busy && waited < Patience)
            {
                Thread.Sleep(Between);
            }
        }
    }

    private static void Clear(string staged)
    {
        foreach (var part in new[] { "", StoreFile.Unfinished, "-wal", "-shm", "-journal" })
            File.Delete(staged + part);
    }

    private static SqliteConnection Open(string file)
    {
        var connection = new SqliteConnection(StoreFile.ConnectionString(file, SqliteOpenMode.ReadOnly));
        connection.Open();
        return connection;
    }

    private static int Count(SqliteConnection connection, string table) =>
        StoreFile.Scalar(connection, $"SELECT 1 FROM sqlite_master WHERE type = 'table' AND name = '{table}'") is null
            ? 0
            : (int)(long)StoreFile.Scalar(connection, $"SELECT count(*) FROM \"{table}\"")!;

    private static HashSet<(long Id, long PulledAt)> Shots(SqliteConnection connection)
    {
        using var command = connection.CreateCommand();
        command.CommandText = "SELECT Id, PulledAt FROM Shots";
        using var reader = command.ExecuteReader();
        var shots = new HashSet<(long, long)>();
        while (reader.Read())
            shots.Add((reader.GetInt64(0), reader.GetInt64(1)));
        return shots;
    }

    private static DateTime? Last(HashSet<(long Id, long PulledAt)> shots) =>
        shots.Count == 0 ? null : new DateTime(shots.Max(s => s.PulledAt), DateTimeKind.Utc);
}
