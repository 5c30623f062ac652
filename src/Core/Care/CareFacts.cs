namespace RuddySpring.Core.Care;

/// <summary>What is known of a machine's care when a shot was pulled.</summary>
/// <param name="Overdue">Keys of the tasks that were overdue.</param>
/// <param name="Wear">What its earlier shots and readings showed.</param>
public sealed record CareFacts(IReadOnlySet<string> Overdue, IReadOnlySet<WearKind> Wear)
{
    /// <summary>Nothing.</summary>
    public static readonly CareFacts None = new(new HashSet<string>(), new HashSet<WearKind>());

    /// <summary>How many times likelier something is that a task would have prevented, or that wear has shown.</summary>
    /// <param name="task">Key of the task.</param>
    /// <param name="wear">The wear that shows it; null where none does.</param>
    public double Likelier(string task, WearKind? wear = null)
    {
        const double overdue = 2.5,
            seen = 8;
        return (Overdue.Contains(task) ? overdue : 1) * (wear is { } kind && Wear.Contains(kind) ? seen : 1);
    }
}
