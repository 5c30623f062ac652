using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Design;

namespace RuddySpring.Store;

/// <summary>The file that the database lies in: opening, migrating after a copy, and what else belongs to its folder.</summary>
public static class StoreFile
{
    /// <summary>Name of the database file in the data folder.</summary>
    public const string FileName = "ruddy-spring.db";

    /// <summary>Options for a context over the file in a data folder.</summary>
    public static DbContextOptions<RuddyContext> Options(string dataFolder) =>
        Configure(new DbContextOptionsBuilder<RuddyContext>(), dataFolder).Options;

    /// <summary>Sets a builder to the file in a data folder.</summary>
    public static TBuilder Configure<TBuilder>(TBuilder builder, string dataFolder)
        where TBuilder : DbContextOptionsBuilder
    {
        builder.UseSqlite(new SqliteConnectionStringBuilder
        {
            DataSource = Path.Combine(Path.GetFullPath(dataFolder), FileName),
            ForeignKeys = true,
            DefaultTimeout = 10,
        }.ToString());
        return builder;
    }

    /// <summary>
    /// Brings the database to the current form. Where there is something to migrate, the file is copied first to
    /// <c>ruddy-spring.before-NAME.db</c>. Write-ahead logging is on.
    /// </summary>
    /// <exception cref="UnauthorizedAccessException">The folder cannot be written.</exception>
    public static void Migrate(string dataFolder)
    {
        Directory.CreateDirectory(dataFolder);
        var probe = Path.Combine(dataFolder, ".write-probe");
        File.WriteAllText(probe, "");
        File.Delete(probe);
        using var context = new RuddyContext(Options(dataFolder));
        var file = Path.Combine(dataFolder, FileName);
        var pending = context.Database.GetPendingMigrations().ToList();
        if (pending.Count > 0 && File.Exists(file) && context.Database.GetAppliedMigrations().Any())
        {
            context.Database.CloseConnection();
            SqliteConnection.ClearAllPools();
            File.Copy(file, Path.Combine(dataFolder, $"ruddy-spring.before-{pending[0]}.db"), overwrite: true);
        }

        if (pending.Count == 0) return; // the journal mode stays in the file
        context.Database.Migrate();
        context.Database.ExecuteSqlRaw("PRAGMA journal_mode=WAL;");
    }
}

/// <summary>Lets the migration tool make a context without starting the server.</summary>
internal sealed class DesignTimeFactory : IDesignTimeDbContextFactory<RuddyContext>
{
    public RuddyContext CreateDbContext(string[] args) => new(StoreFile.Options(Path.GetTempPath()));
}
