namespace RuddySpring.Core.Reasoning;

/// <summary>All schools: every class that is one.</summary>
public static class SchoolList
{
    /// <summary>In their order; the first is the one that nobody chose.</summary>
    public static readonly IReadOnlyList<School> All =
    [
        .. typeof(School)
            .Assembly.GetTypes()
            .Where(t => t.IsSubclassOf(typeof(School)) && !t.IsAbstract)
            .Select(t => (School)Activator.CreateInstance(t)!)
            .OrderBy(s => s.Place),
    ];

    /// <summary>The school that holds where nobody chose one.</summary>
    public static School Usual => All[0];

    /// <summary>The school with a key; the usual one where there is none.</summary>
    public static School Find(string key) => All.FirstOrDefault(s => s.Key == key) ?? Usual;
}
