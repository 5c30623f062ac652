using Microsoft.Data.Sqlite;

namespace RuddySpring.Store;

/// <summary>What a database can fail of, told apart by SQLite's result codes (sqlite.org/rescode.html), and what to say of
/// it.</summary>
public enum DatabaseFault
{
    /// <summary>Another program holds it.</summary>
    Busy,

    /// <summary>No room on the disk.</summary>
    DiskFull,

    /// <summary>The disk cannot be read or written.</summary>
    Disk,

    /// <summary>The file is damaged or no database.</summary>
    Damaged,

    /// <summary>A row refers to one that is not there.</summary>
    Refers,

    /// <summary>Anything else.</summary>
    Other,
}

public static class DatabaseFaults
{
    extension(DatabaseFault)
    {
        /// <summary>The fault that an error tells of.</summary>
        public static DatabaseFault Of(SqliteException error) =>
            error.SqliteErrorCode switch
            {
                5 or 6 => DatabaseFault.Busy,
                13 => DatabaseFault.DiskFull,
                8 or 10 or 14 => DatabaseFault.Disk,
                11 or 26 => DatabaseFault.Damaged,
                19 => DatabaseFault.Refers,
                _ => DatabaseFault.Other,
            };

        /// <summary>What happened and what to do, in one or two sentences.</summary>
        public static string Sentence(SqliteException error) =>
            DatabaseFault.Of(error) switch
            {
                DatabaseFault.Busy => "The database is in use by another program. Nothing was changed; try again in a moment.",
                DatabaseFault.DiskFull => "The disk is full. Nothing was changed; make room and try again.",
                DatabaseFault.Disk =>
                    "The disk cannot be read or written just now. Nothing was changed; look at the disk and try again.",
                DatabaseFault.Damaged =>
                    "The database is damaged. Nothing was changed; stop the application and start it again: it then says "
                        + "which copy is intact.",
                DatabaseFault.Refers =>
                    "It could not be stored: it refers to something that is no longer there. Nothing was changed; load the "
                        + "page again.",
                _ => "The database cannot do that just now. Nothing was changed; try again.",
            };
    }
}
