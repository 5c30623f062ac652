using RuddySpring.Core;

namespace RuddySpring.Server.Care;

/// <summary>What an entry in the history may be.</summary>
public static class CareDays
{
    /// <summary>Most characters of its note.</summary>
    public const int LongestNote = 200;

    private const int OldestYear = 1990;

    /// <summary>The day, if it may be one.</summary>
    /// <exception cref="DoesNotFitException">It lies in the future or too far back.</exception>
    public static DateOnly Check(DateOnly day, string field, DateOnly today) =>
        // whoever lives east of Greenwich may have tomorrow already
        day.Year >= OldestYear
        && day <= today.AddDays(1)
            ? day
            : throw new DoesNotFitException(field, $"The day is {day:yyyy-MM-dd}; it must lie between {OldestYear} and today.");
}
