using System.Globalization;
using System.Text.RegularExpressions;

namespace RuddySpring.Store;

/// <summary>Why a backup was taken.</summary>
public enum BackupKind
{
    /// <summary>By the application, once a day; old ones make room.</summary>
    Daily,

    /// <summary>By hand; stays until it is deleted by hand.</summary>
    ByHand,

    /// <summary>Of what was there before a restore; the newest few stay.</summary>
    BeforeRestore,

    /// <summary>Brought from elsewhere; stays until it is deleted by hand.</summary>
    Brought,
}

/// <summary>A intact copy of the database.</summary>
/// <param name="Name">Name of its file, which is its name in addresses too.</param>
/// <param name="TakenAt">When, UTC.</param>
public sealed record Backup(string Name, BackupKind Kind, DateTime TakenAt, long Bytes);

/// <summary>Dated copies of the database in a folder of their own: each is whole or not there.</summary>
public sealed partial class Backups
{
    /// <summary>The folder's name within the data folder, unless another was chosen.</summary>
    public const string FolderName = "backups";

    private const string TimeFormat = "yyyyMMdd-HHmmss";
    private const int BeforeRestores = 3;
    private static readonly Dictionary<string, BackupKind> Kinds = new()
    {
        ["daily"] = BackupKind.Daily,
        ["by-hand"] = BackupKind.ByHand,
        ["before-restore"] = BackupKind.BeforeRestore,
        ["brought"] = BackupKind.Brought,
    };
    private readonly string _database;

    /// <param name="dataFolder">Where the database lies.</param>
    /// <param name="folder">Where the copies go; null for a folder beside the database.</param>
    public Backups(string dataFolder, string? folder = null) =>
        (_database, Folder) = (StoreFile.PathIn(dataFolder), folder ?? Path.Combine(Path.GetFullPath(dataFolder), FolderName));

    /// <summary>Where the copies lie.</summary>
    public string Folder { get; }

    /// <summary>Those that are there, newest first.</summary>
    public IReadOnlyList<Backup> All() =>
        [
            .. Files()
                .Select(Read)
                .OfType<Backup>()
                .OrderByDescending(b => b.TakenAt)
                .ThenByDescending(b => b.Name, StringComparer.Ordinal),
        ];

    /// <summary>Paths of those that are there.</summary>
    public IEnumerable<string> Files() =>
        Directory.Exists(Folder) ? Directory.EnumerateFiles(Folder).Where(f => Read(f) is not null) : [];

    /// <summary>Path of the one with a name; null where there is none. A name that leads elsewhere is none.</summary>
    public string? PathOf(string name) =>
        Name().IsMatch(name) && Path.Combine(Folder, name) is var path && File.Exists(path) ? path : null;

    /// <summary>Takes one.</summary>
    /// <exception cref="Microsoft.Data.Sqlite.SqliteException">The database cannot be read or the copy not written; there is no
    /// half one.</exception>
    /// <exception cref="IOException">The folder cannot be written.</exception>
    public Backup Take(BackupKind kind, DateTime nowUtc)
    {
        Prepare();
        var path = FreePath(kind, nowUtc);
        try
        {
            StoreFile.Copy(_database, path);
        }
        catch
        {
            File.Delete(path + StoreFile.Unfinished);
            throw;
        }

        return Read(path)!;
    }

    /// <summary>Takes in a database from elsewhere, which has been looked over.</summary>
    /// <param name="file">Path of it on the same disk; it is moved.</param>
    /// <param name="nowUtc">When.</param>
    public Backup Bring(string file, DateTime nowUtc)
    {
        Prepare();
        var path = FreePath(BackupKind.Brought, nowUtc);
        File.Move(file, path);
        return Read(path)!;
    }

    /// <summary>Deletes one; nothing where there is none.</summary>
    public void Delete(string name)
    {
        if (PathOf(name) is { } path)
            File.Delete(path);
    }

    /// <summary>Deletes the daily ones and those before restores that make room for newer ones.</summary>
    public void Rotate()
    {
        var all = All();
        var days = BackupRotation.Kept(all.Where(b => b.Kind == BackupKind.Daily).Select(b => b.TakenAt));
        var befores = all.Where(b => b.Kind == BackupKind.BeforeRestore).Take(BeforeRestores).ToHashSet();
        foreach (var backup in all)
        {
            if (
                backup.Kind == BackupKind.Daily && !days.Contains(backup.TakenAt)
                || backup.Kind == BackupKind.BeforeRestore && !befores.Contains(backup)
            )
                Delete(backup.Name);
        }
    }

    /// <summary>Whether the database was changed since a time.</summary>
    public bool IsChangedSince(DateTime utc) =>
        new[] { _database, _database + "-wal" }.Any(f => File.Exists(f) && File.GetLastWriteTimeUtc(f) > utc);

    /// <summary>Makes the folder, and clears away what a copy that was cut off left behind.</summary>
    private void Prepare()
    {
        Directory.CreateDirectory(Folder);
        foreach (var left in Directory.EnumerateFiles(Folder, "ruddy-spring.*" + StoreFile.Unfinished + "*"))
            File.Delete(left);
    }

    private string FreePath(BackupKind kind, DateTime nowUtc)
    {
        var word = Kinds.First(k => k.Value == kind).Key;
        for (var count = 1; ; count++)
        {
            var again = count > 1 ? $"-{count}" : "";
            var path = Path.Combine(
                Folder,
                $"ruddy-spring.{word}-{nowUtc.ToString(TimeFormat, CultureInfo.InvariantCulture)}{again}.db"
            );
            if (!File.Exists(path))
                return path;
        }
    }

    private static Backup? Read(string path)
    {
        var name = Path.GetFileName(path);
        var match = Name().Match(name);
        return
            match.Success
            && DateTime.TryParseExact(
                match.Groups[2].Value,
                TimeFormat,
                CultureInfo.InvariantCulture,
                DateTimeStyles.AssumeUniversal | DateTimeStyles.AdjustToUniversal,
                out var taken
            )
            ? new(name, Kinds[match.Groups[1].Value], taken, new FileInfo(path).Length)
            : null;
    }

    [GeneratedRegex(@"^ruddy-spring\.(daily|by-hand|before-restore|brought)-(\d{8}-\d{6})(-\d{1,3})?\.db\z")]
    private static partial Regex Name();
}
