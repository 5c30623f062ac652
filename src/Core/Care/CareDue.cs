using System.Globalization;

namespace RuddySpring.Core.Care;

/// <summary>How near something is.</summary>
public enum CareState
{
    /// <summary>Not yet.</summary>
    Fine,

    /// <summary>Within a week, or the last tenth of its interval.</summary>
    Soon,

    /// <summary>Now.</summary>
    Due,

    /// <summary>More than a quarter over.</summary>
    Overdue,
}

/// <summary>A day's use of a machine.</summary>
/// <param name="Day">Which.</param>
/// <param name="Shots">Shots pulled.</param>
/// <param name="Litres">Water through it, l.</param>
public sealed record DayOfUse(DateOnly Day, int Shots, double Litres);

/// <summary>When a task is due.</summary>
/// <param name="State">How near it is.</param>
/// <param name="Share">How much of its interval is used, of what is used up most; 1 when it is due.</param>
/// <param name="On">The day on which it will be due as things go; in the past where it is due.</param>
/// <param name="Shots">Shots since it was done.</param>
/// <param name="Litres">Litres since.</param>
/// <param name="Days">Days since.</param>
/// <param name="By">What uses it up first, in words: "12 of 40 shots".</param>
public sealed record CareDue(CareState State, double Share, DateOnly On, int Shots, double Litres, int Days, string By)
{
    private const double SoonShare = 0.9;
    private const int SoonDays = 7;
    private const double OverdueShare = 1.25;
    private const int RateDays = 30;
    private const int Farthest = 3650;

    /// <summary>When something is due.</summary>
    /// <param name="interval">After how much use.</param>
    /// <param name="since">The day on which it was done, or the machine was first used.</param>
    /// <param name="use">Use of the machine, day by day, in any order; what comes after today is left out.</param>
    /// <param name="today">Today, or the day that is asked about.</param>
    public static CareDue Of(CareInterval interval, DateOnly since, IReadOnlyList<DayOfUse> use, DateOnly today)
    {
        // what was used on the day itself counts before it: things are done after the last shot
        var after = use.Where(u => u.Day > since && u.Day <= today).ToList();
        var (shots, litres) = (after.Sum(u => u.Shots), after.Sum(u => u.Litres));
        var days = Math.Max(0, today.DayNumber - since.DayNumber);
        var recent = use.Where(u => u.Day > today.AddDays(-RateDays) && u.Day <= today).ToList();
        var known = Math.Clamp(
            today.DayNumber - use.Select(u => u.Day.DayNumber).DefaultIfEmpty(today.DayNumber).Min() + 1,
            1,
            RateDays
        );
        var ways = new List<(double Share, double Left, string By)>();
        void Way(double? most, double used, double aDay, string unit, string format)
        {
            if (most is not { } limit)
                return;
            var left = limit - used;
            ways.Add(
                (
                    used / limit,
                    left <= 0 ? Math.Max(left / Math.Max(aDay, 1e-9), -days) : left / Math.Max(aDay, 1e-9),
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"{used.ToString(format, CultureInfo.InvariantCulture)} of "
                            + $"{limit.ToString(format, CultureInfo.InvariantCulture)} {unit}"
                    )
                )
            );
        }

        Way(interval.Shots, shots, recent.Sum(u => u.Shots) / (double)known, "shots", "0");
        Way(interval.Litres, litres, recent.Sum(u => u.Litres) / known, "l", "0.#");
        Way(interval.Days, days, 1, "days", "0");
        var most = ways.MaxBy(w => w.Share);
        var first = Math.Clamp(ways.Min(w => w.Left), -Farthest, Farthest);
        var state =
            most.Share >= OverdueShare ? CareState.Overdue
            : most.Share >= 1 ? CareState.Due
            : most.Share >= SoonShare || (first <= SoonDays && most.Share > 0.5) ? CareState.Soon
            : CareState.Fine;
        return new(state, most.Share, today.AddDays((int)Math.Ceiling(first)), shots, litres, days, most.By);
    }
}
