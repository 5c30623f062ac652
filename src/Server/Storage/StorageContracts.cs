using RuddySpring.Store;

namespace RuddySpring.Server.Storage;

/// <summary>Where the data are and how large they are.</summary>
/// <param name="Folder">The data folder.</param>
/// <param name="DatabaseBytes">Of the database with what still waits to be written into it.</param>
/// <param name="TraceBytes">Of it, the traces of the shots.</param>
/// <param name="PhotoBytes">Of it, the photos.</param>
/// <param name="SpareBytes">Of it, room that deleted things left, which new ones take first.</param>
/// <param name="BackupBytes">Of all backups.</param>
/// <param name="FreeBytes">Free on the disk of the data folder; null where it cannot be told.</param>
/// <param name="BackupFolder">Where the backups lie.</param>
/// <param name="Backups">Newest first.</param>
/// <param name="BinCount">Shots in the bin.</param>
/// <param name="BinDays">Days after which shots in the bin are deleted for good; null for never.</param>
public sealed record StorageView(
    string Folder,
    long DatabaseBytes,
    long TraceBytes,
    long PhotoBytes,
    long SpareBytes,
    long BackupBytes,
    long? FreeBytes,
    string BackupFolder,
    IReadOnlyList<Backup> Backups,
    int BinCount,
    int? BinDays
);

/// <summary>How long shots stay in the bin.</summary>
/// <param name="Days">1 to 3650; null keeps them.</param>
public sealed record BinChange(int? Days);

/// <summary>What was deleted for good.</summary>
public sealed record BinEmptied(int Shots);

/// <summary>A restore that was done.</summary>
/// <param name="Before">The backup of what was there before it.</param>
public sealed record Restored(Backup Before);
