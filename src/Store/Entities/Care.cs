using RuddySpring.Core.Care;

namespace RuddySpring.Store.Entities;

/// <summary>Something that was done for a machine.</summary>
public sealed class CareDone
{
    public int Id { get; set; }
    public int MachineId { get; set; }
    public BenchMachine? Machine { get; set; }

    /// <summary>Key of the task.</summary>
    public string Task { get; set; } = "";

    /// <summary>The day on which it was done.</summary>
    public DateOnly DoneOn { get; set; }

    /// <summary>The part that was used, or anything else to remember.</summary>
    public string Note { get; set; } = "";
}

/// <summary>How the owner wants a task of a machine to come.</summary>
public sealed class CareChoice
{
    public int Id { get; set; }
    public int MachineId { get; set; }
    public BenchMachine? Machine { get; set; }

    /// <summary>Key of the task.</summary>
    public string Task { get; set; } = "";

    /// <summary>After how much use; null for the usual. Stored as JSON.</summary>
    public CareInterval? Interval { get; set; }

    /// <summary>Whether it is left out.</summary>
    public bool IsOff { get; set; }
}
