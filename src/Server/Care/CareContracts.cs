using RuddySpring.Core.Care;

namespace RuddySpring.Server.Care;

/// <summary>What a machine needs, and when.</summary>
/// <param name="Key">Key of the task.</param>
/// <param name="Interval">After how much use; the owner's or the usual.</param>
/// <param name="IsOwn">Whether the owner set it.</param>
/// <param name="IsOff">Whether the owner left it out; then it is never due.</param>
/// <param name="LastDone">When it was done last; null for never.</param>
/// <param name="Due">When it is due; null where it is left out or the machine was never used.</param>
public sealed record CareTaskView(
    string Key,
    string Name,
    string Why,
    IReadOnlyList<string> Steps,
    string? Caution,
    string? Part,
    string Source,
    CareInterval Interval,
    bool IsOwn,
    bool IsOff,
    DateOnly? LastDone,
    CareDue? Due
);

/// <summary>Something that was done.</summary>
public sealed record CareDoneView(int Id, string Task, string Name, DateOnly DoneOn, string Note);

/// <summary>The care of a machine.</summary>
/// <param name="Tasks">What is due first comes first.</param>
/// <param name="Findings">Wear that its shots and readings show.</param>
/// <param name="History">The newest first, at most 200.</param>
public sealed record MachineCareView(
    int MachineId,
    string Machine,
    IReadOnlyList<CareTaskView> Tasks,
    IReadOnlyList<WearFinding> Findings,
    IReadOnlyList<CareDoneView> History
);

/// <summary>The care of every machine on the bench.</summary>
/// <param name="WaterHardness">mg/l of CaCO3.</param>
/// <param name="HardnessDegrees">The same in German degrees.</param>
public sealed record CareView(double WaterHardness, double HardnessDegrees, IReadOnlyList<MachineCareView> Machines);

/// <summary>What is due now, for the strip.</summary>
public sealed record CareNotice(int MachineId, string Machine, string Task, string Name, CareState State);

/// <summary>Something was done.</summary>
/// <param name="On">The day, not in the future.</param>
/// <param name="Note">At most 200 characters; null for none.</param>
public sealed record CareDoing(int MachineId, string Task, DateOnly On, string? Note = null);

/// <summary>How a task is to come.</summary>
/// <param name="Interval">Null for the usual.</param>
/// <param name="IsOff">True leaves it out.</param>
public sealed record CareWish(int MachineId, string Task, CareInterval? Interval = null, bool IsOff = false);

/// <summary>Hardness of the water.</summary>
/// <param name="WaterHardness">mg/l of CaCO3, 0 to 1000.</param>
public sealed record HardnessChange(double WaterHardness);
