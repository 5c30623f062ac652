using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Design;
using Microsoft.EntityFrameworkCore.Diagnostics;

namespace RuddySpring.Store;

/// <summary>The file that the database lies in: looked over before anything is written, migrated after a copy, put back from a
/// copy.</summary>
public static class StoreFile
{
    /// <summary>Name of the database file in the data folder.</summary>
    public const string FileName = "ruddy-spring.db";

    /// <summary>Ending of a copy that is still being written.</summary>
    internal const string Unfinished = ".part";

    private const string CopyPrefix = "ruddy-spring.before-";
    private const string MigrationLockTable = "__EFMigrationsLock";

    /// <summary>Path of the database in a data folder.</summary>
    public static string PathIn(string dataFolder) => Path.Combine(Path.GetFullPath(dataFolder), FileName);

    /// <summary>Options for a context over the file in a data folder.</summary>
    public static DbContextOptions<RuddyContext> Options(string dataFolder) =>
        Configure(new DbContextOptionsBuilder<RuddyContext>(), dataFolder).Options;

    /// <summary>Sets a builder to the file in a data folder.</summary>
    public static TBuilder Configure<TBuilder>(TBuilder builder, string dataFolder)
        where TBuilder : DbContextOptionsBuilder
    {
        builder
            .UseSqlite(
                ConnectionString(PathIn(dataFolder), SqliteOpenMode.ReadWriteCreate),
                // a list is one parameter, so that one statement serves lists of every length
                sqlite => sqlite.UseParameterizedCollectionMode(ParameterTranslationMode.Parameter)
            )
            .AddInterceptors(SearchWords.OnOpened.Only)
            // shots are counted up to some number, and it is the same whichever they are
            .ConfigureWarnings(w => w.Ignore(CoreEventId.RowLimitingOperationWithoutOrderByWarning));
        return builder;
    }

    /// <summary>
    /// Brings the database to the current form. Nothing is written to one that is damaged, in use or of a newer version. Where
    /// there is something to migrate it is copied first to <c>ruddy-spring.before-NAME.db</c>. Write-ahead logging is on. The
    /// caller holds the folder's lock, so that what an interrupted migration left of its own lock is nobody's.
    /// </summary>
    /// <exception cref="StoreProblemException">It cannot be used; the sentence says why and what to do.</exception>
    /// <exception cref="UnauthorizedAccessException">The folder cannot be written.</exception>
    /// <param name="dataFolder">Where.</param>
    /// <param name="lookOverBytes">Every page of a file up to this size is looked at; a larger one is to be looked at with
    /// <see cref="IsWhole"/> once people can work.</param>
    public static void Migrate(string dataFolder, long lookOverBytes = long.MaxValue)
    {
        var file = PathIn(dataFolder);
        try
        {
            LookOver(dataFolder, file, lookOverBytes);
            using var context = new RuddyContext(Options(dataFolder));
            var pending = context.Database.GetPendingMigrations().ToList();
            if (pending.Count == 0)
                return; // the journal mode stays in the file
            if (context.Database.GetAppliedMigrations().Any())
                Copy(file, Path.Combine(dataFolder, $"{CopyPrefix}{pending[0]}.db"));
            FreeMigrationLock(context);
            context.Database.Migrate();
            context.Database.ExecuteSqlRaw("PRAGMA journal_mode=WAL;");
        }
        catch (SqliteException error)
        {
            throw Problem(dataFolder, error);
        }
    }

    /// <summary>
    /// Has the database estimate again how many rows a value of each index has, where it has grown much since the last time or an
    /// index is new: it chooses by that which index answers a question, and without it goes through a whole ledger where a few
    /// rows would do. It looks at some rows of each index only (<see href="https://sqlite.org/lang_analyze.html"/>, approximate
    /// analysis), which takes some milliseconds at any size. Where the disk is full or somebody else writes, it is left for the
    /// next time.
    /// </summary>
    public static async Task CountAnewAsync(RuddyContext db, CancellationToken cancel = default)
    {
        await db.Database.OpenConnectionAsync(cancel);
        try
        {
            await db.Database.ExecuteSqlRawAsync("PRAGMA analysis_limit = 1000; PRAGMA optimize = 0x10002;", cancel);
        }
        catch (SqliteException error) when (DatabaseFault.Of(error) is DatabaseFault.Busy or DatabaseFault.DiskFull)
        {
            // answers are right all the same, and slower at most
        }
        finally
        {
            await db.Database.CloseConnectionAsync();
        }
    }

    /// <summary>Fills a database without a household: an empty one as asked, whole or not at all; one that holds anything else is
    /// not touched.</summary>
    /// <param name="dataFolder">Where.</param>
    /// <param name="newHousehold">Whether one that has lost its household's row gets a new one, everything else in it
    /// staying.</param>
    /// <param name="fill">Fills an empty one.</param>
    /// <exception cref="StoreProblemException">The household's row is gone and the rest is there, or it cannot be
    /// written.</exception>
    public static void Begin(string dataFolder, bool newHousehold, Action<RuddyContext> fill)
    {
        try
        {
            using var context = new RuddyContext(Options(dataFolder));
            if (context.Households.Any())
                return;
            var used = context.Machines.Any() || context.Shots.Any() || context.Bags.Any();
            if (used && !newHousehold)
            {
                throw new StoreProblemException(
                    $"The database in {dataFolder} holds machines or shots, but its household's settings are gone; nothing "
                        + "was changed. "
                        + "Start once with --new-household to give it new settings and keep everything else, or with "
                        + "--restore to go back to the newest intact copy."
                );
            }

            if (used)
                context.Households.Add(new() { Name = "My bench" });
            else
                fill(context);
            context.SaveChanges();
        }
        catch (SqliteException error)
        {
            throw Problem(dataFolder, error);
        }
        catch (DbUpdateException error) when (error.InnerException is SqliteException inner)
        {
            throw Problem(dataFolder, inner);
        }
    }

    /// <summary>Puts the newest intact copy in the database's place; the database is kept beside it as
    /// <c>ruddy-spring.set-aside-TIME.db</c>.</summary>
    /// <returns>Path of the copy that was put in place.</returns>
    /// <exception cref="StoreProblemException">There is no intact copy.</exception>
    public static string Restore(string dataFolder, DateTime nowUtc)
    {
        var copy = NewestWholeCopy(dataFolder)
            ?? throw new StoreProblemException(
                $"There is no intact copy of the database in {dataFolder}, so nothing was changed."
            );
        var file = PathIn(dataFolder);
        foreach (var part in new[] { file, file + "-wal", file + "-shm" }.Where(File.Exists))
            File.Move(
                part,
                part.Replace(FileName, $"ruddy-spring.set-aside-{nowUtc:yyyyMMdd-HHmmss}.db", StringComparison.Ordinal)
            );
        Copy(copy, file);
        return copy;
    }

    /// <summary>Whether every page of a database is sound (SQLite's quick check).</summary>
    /// <exception cref="SqliteException">It cannot be read at all.</exception>
    public static bool IsWhole(string file)
    {
        using var connection = new SqliteConnection(ConnectionString(file, SqliteOpenMode.ReadOnly));
        connection.Open();
        return (string?)Scalar(connection, "PRAGMA quick_check(1);") == "ok";
    }

    internal static string ConnectionString(string file, SqliteOpenMode mode) =>
        new SqliteConnectionStringBuilder
        {
            DataSource = file,
            Mode = mode,
            ForeignKeys = true,
            // a look takes no long wait for somebody else's lock
            DefaultTimeout = mode == SqliteOpenMode.ReadOnly ? 2 : 10,
            Pooling = mode != SqliteOpenMode.ReadOnly,
        }.ToString();

    /// <summary>What can be wrong with a file is found before it is opened for writing.</summary>
    private static void LookOver(string dataFolder, string file, long lookOverBytes)
    {
        if (!File.Exists(file) || new FileInfo(file).Length == 0)
            return;
        if (new FileInfo(file).Length <= lookOverBytes && !IsWhole(file))
            throw Damaged(dataFolder);
        using var connection = new SqliteConnection(ConnectionString(file, SqliteOpenMode.ReadOnly));
        connection.Open();
        if (Scalar(connection, "SELECT 1 FROM sqlite_master WHERE name = '__EFMigrationsHistory';") is null)
            return;
        connection.Close();
        if (Migrations(file).Unknown.Count > 0)
            throw new StoreProblemException(
                $"The database in {dataFolder} was written by a newer Ruddy Spring. Start that one; this one changed nothing."
            );
    }

    /// <summary>Brings a copy of a database to the current form; nothing else may have it open.</summary>
    /// <exception cref="StoreProblemException">It is of a newer version, or no database of ours.</exception>
    internal static void MigrateCopy(string file)
    {
        var (unknown, _) = Migrations(file);
        if (unknown.Count > 0)
            throw new StoreProblemException("The backup was written by a newer Ruddy Spring. Start that one to restore it.");
        using var context = new RuddyContext(OptionsOf(file));
        FreeMigrationLock(context);
        context.Database.Migrate();
        // a database that only claims to be of this form is found here and not when somebody asks for a shot
        foreach (var table in context.Model.GetRelationalModel().Tables)
        {
            using var command = context.Database.GetDbConnection().CreateCommand();
            context.Database.OpenConnection();
            command.CommandText =
                $"SELECT {string.Join(", ", table.Columns.Select(c => $"\"{c.Name}\""))} FROM \"{table.Name}\" LIMIT 0";
            command.ExecuteNonQuery();
        }
    }

    /// <summary>Migrations that a database has and this program does not know, and those that it still lacks.</summary>
    /// <exception cref="StoreProblemException">It is no database of ours.</exception>
    /// <exception cref="SqliteException">It cannot be read.</exception>
    internal static (IReadOnlyList<string> Unknown, IReadOnlyList<string> Lacking) Migrations(string file)
    {
        using var connection = new SqliteConnection(ConnectionString(file, SqliteOpenMode.ReadOnly));
        connection.Open();
        if (Scalar(connection, "SELECT 1 FROM sqlite_master WHERE name = '__EFMigrationsHistory';") is null)
            throw new StoreProblemException("The file is a database, but not one of Ruddy Spring.");
        using var context = new RuddyContext(OptionsOf(file));
        var known = context.Database.GetMigrations().ToList();
        var has = new HashSet<string>();
        using var command = connection.CreateCommand();
        command.CommandText = "SELECT MigrationId FROM __EFMigrationsHistory;";
        using var reader = command.ExecuteReader();
        while (reader.Read())
            has.Add(reader.GetString(0));
        return ([.. has.Except(known)], [.. known.Where(k => !has.Contains(k))]);
    }

    private static DbContextOptions<RuddyContext> OptionsOf(string file) =>
        new DbContextOptionsBuilder<RuddyContext>()
            .UseSqlite(
                new SqliteConnectionStringBuilder
                {
                    DataSource = file,
                    ForeignKeys = true,
                    Pooling = false,
                }.ToString()
            )
            .Options;

    private static void FreeMigrationLock(RuddyContext context)
    {
        var there = context
            .Database.SqlQueryRaw<int>($"SELECT count(*) AS Value FROM sqlite_master WHERE name = '{MigrationLockTable}'")
            .Single();
        if (there > 0)
            context.Database.ExecuteSqlRaw($"DELETE FROM {MigrationLockTable}");
    }

    /// <summary>A copy that is whole or not there: written under another name first. Takes what still lies in the write-ahead log
    /// along.</summary>
    /// <exception cref="SqliteException">It cannot be read or written.</exception>
    internal static void Copy(string from, string to)
    {
        var part = to + Unfinished;
        File.Delete(part);
        using (var source = new SqliteConnection(ConnectionString(from, SqliteOpenMode.ReadOnly)))
        using (var copy = new SqliteConnection($"Data Source={part};Pooling=False"))
        {
            source.Open();
            copy.Open();
            source.BackupDatabase(copy);
        }

        File.Move(part, to, overwrite: true);
    }

    private static string? NewestWholeCopy(string dataFolder) =>
        Directory
            .GetFiles(dataFolder, $"{CopyPrefix}*.db")
            .Concat(new Backups(dataFolder).Files())
            .OrderByDescending(File.GetLastWriteTimeUtc)
            .FirstOrDefault(file =>
            {
                try
                {
                    return IsWhole(file);
                }
                catch (SqliteException)
                {
                    return false;
                }
            });

    private static StoreProblemException Problem(string dataFolder, SqliteException error) =>
        DatabaseFault.Of(error) switch
        {
            DatabaseFault.Damaged => Damaged(dataFolder, error),
            DatabaseFault.Busy => new(
                $"The database in {dataFolder} is in use by another program. Close that and start again; nothing was changed.",
                error
            ),
            DatabaseFault.DiskFull => new(
                $"The disk of {dataFolder} is full. Make room and start again; what was stored before is as it was.",
                error
            ),
            DatabaseFault.Disk => new(
                $"The database in {dataFolder} cannot be read or written. Look at the disk and at who may write the folder; "
                    + "nothing was changed.",
                error
            ),
            _ => new(
                $"The database in {dataFolder} cannot be opened (SQLite code {error.SqliteErrorCode}). Nothing was changed.",
                error
            ),
        };

    private static StoreProblemException Damaged(string dataFolder, SqliteException? error = null) =>
        new(
            $"The database in {dataFolder} is damaged; nothing was changed. "
                + (
                    NewestWholeCopy(dataFolder) is { } copy
                        ? $"The newest intact copy is {Path.GetFileName(copy)} of "
                            + $"{File.GetLastWriteTime(copy):yyyy-MM-dd HH:mm}. Start once with --restore to put it in "
                            + "place; the damaged file is kept beside it."
                        : "There is no intact copy in the folder. Put a copy of your own in its place, or start with another "
                            + "folder: --data DIR."
                ),
            error
        );

    internal static object? Scalar(SqliteConnection connection, string sql)
    {
        using var command = connection.CreateCommand();
        command.CommandText = sql;
        return command.ExecuteScalar();
    }
}

/// <summary>Lets the migration tool make a context without starting the server.</summary>
internal sealed class DesignTimeFactory : IDesignTimeDbContextFactory<RuddyContext>
{
    public RuddyContext CreateDbContext(string[] args) => new(StoreFile.Options(Path.GetTempPath()));
}
