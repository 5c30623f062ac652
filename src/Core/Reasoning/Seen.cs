namespace RuddySpring.Core.Reasoning;

/// <summary>What people see of stream and puck, or feel in the lever, and tap afterwards.</summary>
public enum Seen
{
    /// <summary>A spot of the basket that no coffee came from.</summary>
    BaldSpot,

    /// <summary>A thin jet.</summary>
    Spurt,

    /// <summary>A streak that turned pale before the rest.</summary>
    PaleStreak,

    /// <summary>The stream leaned to one side: by itself no channel, frames flex.</summary>
    Lean,

    /// <summary>The spent puck is cracked, or stands off the wall.</summary>
    Crack,

    /// <summary>There is a hole in the spent puck.</summary>
    Hole,

    /// <summary>The spent puck is soup.</summary>
    Soup,

    /// <summary>The lever felt springy.</summary>
    SoftLever,

    /// <summary>Water came past the piston.</summary>
    WaterPastPiston,
}

/// <summary>What is said of <see cref="Seen"/>.</summary>
/// <param name="What">Which.</param>
/// <param name="Name">In a few words.</param>
/// <param name="Often">How often it is seen of a shot with which nothing is wrong (common practice).</param>
/// <param name="Meaning">What it may mean.</param>
public sealed record SeenWords(Seen What, string Name, double Often, string Meaning)
{
    /// <summary>All of them.</summary>
    public static readonly IReadOnlyList<SeenWords> All =
    [
        new(Seen.BaldSpot, "bald spot", 0.05, "the water took another path there"),
        new(Seen.Spurt, "spurt", 0.06, "a fine channel"),
        new(Seen.PaleStreak, "pale streak", 0.06, "one part of the puck was drawn faster"),
        new(Seen.Lean, "stream leans", 0.15, "nothing by itself: a frame that flexes does it too"),
        new(Seen.Crack, "crack at the wall", 0.06, "water ran along the wall"),
        new(Seen.Hole, "hole", 0.04, "a channel went through"),
        new(Seen.Soup, "soup", 0.12, "water stood on it: common in deep baskets, and without a screen"),
        new(Seen.SoftLever, "lever felt springy", 0.04, "air under the piston"),
        new(Seen.WaterPastPiston, "water past the piston", 0.03, "the seal lets water past"),
    ];

    /// <summary>Of one.</summary>
    public static SeenWords Of(Seen what) => All.First(s => s.What == what);
}
