namespace RuddySpring.Server.Exchange.Logbooks;

/// <summary>
/// Text that a spreadsheet would take for a formula is made harmless with an apostrophe before it, and comes back as it was
/// (the characters that begin a formula: OWASP, CSV Injection, as remembered).
/// </summary>
public static class LogbookText
{
    private const string Marked = "=+-@\t\r\n'";

    /// <summary>As it is written.</summary>
    public static string Written(string text) => text.Length > 0 && Marked.Contains(text[0]) ? $"'{text}" : text;

    /// <summary>As it was before it was written.</summary>
    public static string Read(string cell) => cell.Length > 1 && cell[0] == '\'' && Marked.Contains(cell[1]) ? cell[1..] : cell;
}
