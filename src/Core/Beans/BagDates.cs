namespace RuddySpring.Core.Beans;

/// <summary>The dates that a bag's age goes by.</summary>
/// <param name="RoastedOn">Roast date.</param>
/// <param name="FrozenOn">When it went into the freezer; null if never.</param>
/// <param name="ThawedOn">When it came out; null while it is in.</param>
public sealed record BagDates(DateOnly RoastedOn, DateOnly? FrozenOn, DateOnly? ThawedOn)
{
    /// <summary>Whether it lies in the freezer on a day.</summary>
    public bool Frozen(DateOnly on) => FrozenOn <= on && (ThawedOn is null || ThawedOn > on);

    /// <summary>Days of rest on a day, 0 or more: whole days from roast, less those in the freezer, which stop the
    /// clock.</summary>
    public int RestDays(DateOnly on)
    {
        var days = on.DayNumber - RoastedOn.DayNumber;
        if (FrozenOn is { } frozen && frozen < on)
        {
            var until = ThawedOn is { } thawed && thawed < on ? thawed : on;
            days -= Math.Max(0, until.DayNumber - frozen.DayNumber);
        }

        return Math.Max(0, days);
    }

    /// <summary>The first and the last day on which it had rested for <paramref name="least"/> to <paramref name="most"/> whole
    /// days; null where it never did.</summary>
    public (DateOnly First, DateOnly Last)? DaysOfRest(int least, int most)
    {
        DateOnly LastWithAtMost(int days)
        {
            // the clock stands still in the freezer, and never when it was not in one or came out
            if (FrozenOn is { } frozen && ThawedOn is null && frozen.DayNumber - RoastedOn.DayNumber <= days)
                return DateOnly.MaxValue.AddDays(-1);
            var inFreezer = FrozenOn is { } from && ThawedOn is { } to ? Math.Max(0, to.DayNumber - from.DayNumber) : 0;
            var thawed = FrozenOn is { } since && since.DayNumber - RoastedOn.DayNumber <= days;
            var last = RoastedOn.DayNumber + (long)days + (thawed ? inFreezer : 0);
            return last < DateOnly.MaxValue.DayNumber ? DateOnly.FromDayNumber((int)last) : DateOnly.MaxValue.AddDays(-1);
        }

        if (least > most)
            return null;
        var first = least == 0 ? DateOnly.MinValue.AddDays(1) : LastWithAtMost(least - 1).AddDays(1);
        var end = LastWithAtMost(most);
        return first > end ? null : (first, end);
    }

    /// <summary>The dates checked against each other and against today.</summary>
    /// <exception cref="DoesNotFitException">A date lies where it cannot.</exception>
    public BagDates Checked(DateOnly today)
    {
        if (RoastedOn > today || RoastedOn < today.AddYears(-3))
            throw new DoesNotFitException(
                "roastedOn",
                $"Roast date is {RoastedOn:yyyy-MM-dd}; it must lie between {today.AddYears(-3):yyyy-MM-dd} and today."
            );
        if (FrozenOn < RoastedOn || FrozenOn > today)
            throw new DoesNotFitException(
                "frozenOn",
                $"Frozen on {FrozenOn:yyyy-MM-dd}; it must lie between the roast date and today."
            );
        if (ThawedOn is not null && FrozenOn is null)
            throw new DoesNotFitException(
                "thawedOn",
                "It can be thawed only after it was frozen; give the day it went into the freezer."
            );
        if (ThawedOn < FrozenOn || ThawedOn > today)
            throw new DoesNotFitException(
                "thawedOn",
                $"Thawed on {ThawedOn:yyyy-MM-dd}; it must lie between the day it was frozen and today."
            );
        return this;
    }
}
