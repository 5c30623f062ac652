namespace RuddySpring.Core.Traces;

/// <summary>What the clock of a record begins with: people and instruments start it at different moments.</summary>
public enum ClockStart
{
    /// <summary>The lever's first move.</summary>
    Lever,

    /// <summary>First pressure on the puck.</summary>
    FirstPressure,

    /// <summary>First drops in the cup.</summary>
    FirstDrops,
}
