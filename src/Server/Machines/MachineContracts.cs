using RuddySpring.Core.Fitting;
using RuddySpring.Core.Heat;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Shots;

namespace RuddySpring.Server.Machines;

/// <summary>A machine to start from, with the section of its defaults.</summary>
public sealed record StartView(StartingPoint Start, Cutaway Cutaway);

/// <summary>One machine, whole.</summary>
/// <param name="Problem">What is wrong with its stored numbers and how to mend it; null where they are sound.</param>
public sealed record MachineDetail(
    int Id,
    int Version,
    string? Problem,
    string Name,
    string FamilyName,
    Machine Spec,
    Cutaway Cutaway,
    Abilities Can,
    IReadOnlyList<MachineNumber> Numbers,
    HeatConstants Heat,
    bool HeatIsFamily,
    int HeatReadings,
    IReadOnlyList<string> Ways
);

/// <summary>Rows of a measurement; the list of its way is filled, the others are left out.</summary>
/// <param name="Keep">Whether to put the outcome into the machine, or only to show it.</param>
public sealed record MeasureRequest(
    bool Keep,
    IReadOnlyList<HandleReading>? Handle = null,
    IReadOnlyList<StrokeReading>? Stroke = null,
    IReadOnlyList<PuckReading>? Puck = null,
    IReadOnlyList<SpringReading>? Spring = null,
    IReadOnlyList<HoldReading>? Seal = null,
    IReadOnlyList<TemperatureRow>? Temperatures = null
);

/// <summary>A group or chamber temperature some minutes after switch-on, or after the preheat ended.</summary>
public sealed record TemperatureRow(double Minutes, double GroupC);

/// <summary>What a measurement gives.</summary>
public sealed record MeasureView(
    IReadOnlyList<MeasuredChange> Changes,
    IReadOnlyList<FitPoint> Points,
    string XLabel,
    string YLabel,
    string Sentence,
    bool Kept
);

/// <summary>What the readings of its sessions say about a machine's heat.</summary>
public sealed record HeatFitView(
    IReadOnlyList<FittedConstant> Constants,
    IReadOnlyList<FitPoint> Points,
    int Readings,
    int Sessions,
    string Sentence,
    bool Kept
);
