namespace RuddySpring.Core.Reasoning;

/// <summary>All causes: every class that is one.</summary>
public static class CauseList
{
    /// <summary>In the working order.</summary>
    public static readonly IReadOnlyList<Cause> All =
    [
        .. typeof(Cause)
            .Assembly.GetTypes()
            .Where(t => t.IsSubclassOf(typeof(Cause)) && !t.IsAbstract)
            .Select(t => (Cause)Activator.CreateInstance(t)!)
            .OrderBy(c => c.Order)
            .ThenBy(c => c.Key, StringComparer.Ordinal),
    ];

    /// <summary>The cause with a key, or null.</summary>
    public static Cause? Find(string key) => All.FirstOrDefault(c => c.Key == key);
}
