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

/// <summary>
/// What age means (common practice): rest 4 days at least, best from 7, most people stop at 3 weeks, no crema past 6 weeks.
/// </summary>
public static class BeanAge
{
    /// <summary>State of a bag at an age in days since roast, 0 or more.</summary>
    public static RestState State(int days) => days switch
    {
        < 4 => RestState.TooFresh,
        < 7 => RestState.Resting,
        <= 21 => RestState.Ready,
        <= 42 => RestState.Fading,
        _ => RestState.Stale,
    };

    /// <summary>One sentence for the brewer.</summary>
    public static string Meaning(int days) => State(days) switch
    {
        RestState.TooFresh => $"{days} days from roast: still gassy, can taste sour and sharp. Most people wait until day 4 to 7.",
        RestState.Resting => $"{days} days from roast: drinkable, at its best from about day 7.",
        RestState.Ready => $"{days} days from roast: in its window. Expect to grind a little finer each week.",
        RestState.Fading => $"{days} days from roast: past the 3 weeks most people keep to. Grind finer, expect less crema.",
        _ => $"{days} days from roast: past 6 weeks there is no crema to speak of.",
    };
}
