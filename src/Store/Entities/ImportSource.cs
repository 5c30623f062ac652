namespace RuddySpring.Store.Entities;

/// <summary>A kind of file that was imported before, told by the names of its columns, and how it was read.</summary>
public sealed class ImportSource
{
    public int Id { get; set; }

    /// <summary>What was imported, and the SHA-256 of the names of the columns in their order, in hexadecimal.</summary>
    public string Fingerprint { get; set; } = "";

    /// <summary>How it was read, as JSON.</summary>
    public string Answers { get; set; } = "";

    /// <summary>When a file of it was imported last, UTC.</summary>
    public DateTime UsedAt { get; set; }
}
