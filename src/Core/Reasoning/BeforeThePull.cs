using RuddySpring.Core.Machines;
using RuddySpring.Core.Puck;

namespace RuddySpring.Core.Reasoning;

/// <summary>One of the things to be done before a pull, as they are asked for afterwards.</summary>
public enum DoneBefore
{
    Preheated,
    Bled,
    Purged,
    ScreenIn,
}

/// <summary>One of them in words.</summary>
/// <param name="What">Which.</param>
/// <param name="Name">What was to be done.</param>
public sealed record AskedBefore(DoneBefore What, string Name);

/// <summary>What is easily forgotten before a pull, by machine and puck.</summary>
public static class BeforeThePull
{
    /// <summary>What there was to be done, in the working order.</summary>
    /// <param name="machine">The machine.</param>
    /// <param name="preparation">How the puck was prepared; null where nobody said.</param>
    /// <param name="ground">Whether it was ground here, in a grinder that may hold another coffee back.</param>
    public static IReadOnlyList<AskedBefore> Of(Machine machine, Preparation? preparation, bool ground)
    {
        var asked = new List<AskedBefore>
        {
            machine.HasBoiler
                ? new(DoneBefore.Bled, "Let the air out of the boiler")
                : new(DoneBefore.Preheated, "Preheat the machine"),
        };
        if (ground)
            asked.Add(new(DoneBefore.Purged, "Purge the grinder"));
        if (preparation is { Cover: not PuckCover.Nothing })
            asked.Add(new(DoneBefore.ScreenIn, "Lay the screen or paper on the puck"));
        return asked;
    }
}
