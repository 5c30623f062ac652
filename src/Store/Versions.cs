namespace RuddySpring.Store;

/// <summary>A row that several screens may change: each change has the next version, and a change of an older version is
/// refused.</summary>
public interface IVersioned
{
    /// <summary>Counts the changes; set by the context.</summary>
    public int Version { get; set; }
}

/// <summary>A change was made of a row as it stood before somebody else changed it.</summary>
public sealed class ChangedMeanwhileException(string what) : Exception(Sentence(what))
{
    /// <summary>What is said of it.</summary>
    public static string Sentence(string what) =>
        $"{what} was changed on another screen meanwhile. Nothing was overwritten; look at it as it is now and save again.";

    /// <summary>Refuses a change of an older version.</summary>
    /// <exception cref="ChangedMeanwhileException">The row has another version.</exception>
    public static void ThrowIfOlder(IVersioned row, int version, string what)
    {
        if (row.Version != version)
            throw new ChangedMeanwhileException(what);
    }
}
