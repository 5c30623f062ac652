namespace RuddySpring.Store.Entities;

/// <summary>A view of the ledger that is kept under a name.</summary>
public sealed class SavedView
{
    public int Id { get; set; }

    /// <summary>What it is called; no two are called the same.</summary>
    public string Name { get; set; } = "";

    /// <summary>What is shown, as it stands in the ledger's address after the question mark.</summary>
    public string Query { get; set; } = "";
}
