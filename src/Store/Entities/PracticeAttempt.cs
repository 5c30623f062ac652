using RuddySpring.Core.Machines;
using RuddySpring.Core.Practice;

namespace RuddySpring.Store.Entities;

/// <summary>A lesson that was played. It stands apart from the shots: nothing is learned of beans or grinders from it.</summary>
public sealed class PracticeAttempt
{
    public int Id { get; set; }

    /// <summary>Key of the lesson.</summary>
    public required string LessonKey { get; set; }

    /// <summary>When, UTC.</summary>
    public DateTime PlayedAt { get; set; }

    /// <summary>On the feel of which family.</summary>
    public MachineFamily Family { get; set; }

    /// <summary>0 to 100.</summary>
    public int Points { get; set; }

    /// <summary>What it came to.</summary>
    public required PracticeScore Score { get; set; }
}
