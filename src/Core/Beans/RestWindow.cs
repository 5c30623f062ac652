namespace RuddySpring.Core.Beans;

/// <summary>Where a bag stands in its rest window.</summary>
public enum RestState
{
    /// <summary>Gassy: sour and sharp.</summary>
    TooFresh,

    /// <summary>Usable, not yet at its best.</summary>
    Resting,

    /// <summary>At its best.</summary>
    Ready,

    /// <summary>Past what most people drink.</summary>
    Fading,

    /// <summary>No crema left.</summary>
    Stale,
}

/// <summary>Schools of resting beans (common practice).</summary>
public enum RestSchool
{
    /// <summary>As fresh as possible.</summary>
    Fresh,

    /// <summary>After four or five days.</summary>
    FourToFive,

    /// <summary>After seven to ten days.</summary>
    SevenToTen,
}

/// <summary>A school's rest window with its name.</summary>
public sealed record NamedRest(string Name, RestWindow Window);

/// <summary>A rest window in days from roast, each later than the one before.</summary>
/// <param name="UsableFrom">First day it is drinkable, 0 to 30.</param>
/// <param name="BestFrom">First day at its best, 0 to 60.</param>
/// <param name="BestTo">Last day most people drink it, 1 to 120.</param>
/// <param name="CremaTo">Last day with crema to speak of, 2 to 365.</param>
public sealed record RestWindow(int UsableFrom, int BestFrom, int BestTo, int CremaTo)
{
    public static readonly FieldRange UsableRange = new("usableFrom", "Drinkable from day", 0, 30, "days");
    public static readonly FieldRange BestFromRange = new("bestFrom", "At its best from day", 0, 60, "days");
    public static readonly FieldRange BestToRange = new("bestTo", "Stop at day", 1, 120, "days");
    public static readonly FieldRange CremaRange = new("cremaTo", "Crema to day", 2, 365, "days");

    /// <summary>The window of a school (common practice): stop at 3 weeks, no crema past 6.</summary>
    public static RestWindow Of(RestSchool school) =>
        school switch
        {
            RestSchool.Fresh => new(0, 0, 14, 42),
            RestSchool.FourToFive => new(2, 4, 21, 42),
            _ => new(4, 7, 21, 42),
        };

    /// <summary>All schools with their windows, in words.</summary>
    public static IReadOnlyList<NamedRest> Schools { get; } =
    [
        new("as fresh as possible", Of(RestSchool.Fresh)),
        new("after 4 to 5 days", Of(RestSchool.FourToFive)),
        new("after 7 to 10 days", Of(RestSchool.SevenToTen)),
    ];

    /// <summary>The window with its days checked.</summary>
    /// <exception cref="FieldRangeException">A day is out of range.</exception>
    /// <exception cref="DoesNotFitException">The days do not follow each other.</exception>
    public RestWindow Checked()
    {
        UsableRange.Check(UsableFrom);
        BestFromRange.Check(BestFrom);
        BestToRange.Check(BestTo);
        CremaRange.Check(CremaTo);
        if (BestFrom < UsableFrom)
            throw new DoesNotFitException("bestFrom", "Beans cannot be at their best before they are drinkable.");
        if (BestTo <= BestFrom)
            throw new DoesNotFitException("bestTo", "The last good day has to lie after the first.");
        if (CremaTo <= BestTo)
            throw new DoesNotFitException("cremaTo", "Crema goes later than the best days; this day has to lie after them.");
        return this;
    }

    /// <summary>State of a bag after so many days of rest, 0 or more.</summary>
    public RestState State(int days) =>
        days < UsableFrom ? RestState.TooFresh
        : days < BestFrom ? RestState.Resting
        : days <= BestTo ? RestState.Ready
        : days <= CremaTo ? RestState.Fading
        : RestState.Stale;

    /// <summary>One sentence for the brewer.</summary>
    public string Meaning(int days) =>
        State(days) switch
        {
            RestState.TooFresh =>
                $"{Days(days)} from roast: still gassy, can taste sour and sharp. Your window opens on day {UsableFrom}.",
            RestState.Resting => $"{Days(days)} from roast: drinkable, at its best from about day {BestFrom}.",
            RestState.Ready => $"{Days(days)} from roast: in its window. Expect to grind a little finer each week.",
            RestState.Fading =>
                $"{Days(days)} from roast: past day {BestTo}, where you would stop. Grind finer, expect less crema.",
            _ => $"{Days(days)} from roast: past day {CremaTo} there is no crema to speak of.",
        };

    private static string Days(int days) => days == 1 ? "1 day" : $"{days} days";
}
