using Microsoft.Data.Sqlite;

namespace RuddySpring.Server.Tests;

/// <summary>For tests that need more shots than the sample has, and copy them by SQL.</summary>
internal static class ShotColumns
{
    /// <summary>The columns of a shot that can be written, as a list for SQL: all but the generated ones.</summary>
    public static async Task<string> OfAsync(SqliteConnection connection)
    {
        await using var command = connection.CreateCommand();
        command.CommandText = "SELECT group_concat('\"' || name || '\"') FROM pragma_table_info('Shots')";
        return (string)(await command.ExecuteScalarAsync())!;
    }
}
