using System.Globalization;

namespace RuddySpring.Store;

/// <summary>
/// Which of many daily backups stay: the newest of each of the last seven days, five weeks and thirteen months that have one,
/// so that the last days are close together and a year back is still there.
/// </summary>
public static class BackupRotation
{
    private const int Days = 7;
    private const int Weeks = 5;
    private const int Months = 13;

    /// <summary>Of the times of backups, those that stay.</summary>
    public static IReadOnlySet<DateTime> Kept(IEnumerable<DateTime> taken)
    {
        var newestFirst = taken.OrderDescending().ToList();
        return NewestOfEach(newestFirst, t => t.Date, Days)
            .Concat(NewestOfEach(newestFirst, t => (ISOWeek.GetYear(t), ISOWeek.GetWeekOfYear(t)), Weeks))
            .Concat(NewestOfEach(newestFirst, t => (t.Year, t.Month), Months))
            .ToHashSet();
    }

    private static IEnumerable<DateTime> NewestOfEach<TSpan>(
        IEnumerable<DateTime> newestFirst,
        Func<DateTime, TSpan> of,
        int most
    ) => newestFirst.GroupBy(of).Take(most).Select(g => g.First());
}
