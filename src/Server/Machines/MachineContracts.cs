using RuddySpring.Core.Fitting;
using RuddySpring.Core.Heat;
using RuddySpring.Core.Machines;

namespace RuddySpring.Server.Machines;

/// <summary>A machine to start from, with the section of its defaults.</summary>
public sealed record StartView(StartingPoint Start, Cutaway Cutaway);

/// <summary>Hand force over the stroke at a pressure.</summary>
public sealed record ForceLine(double PressureBar, IReadOnlyList<ForcePoint> Points);

/// <summary>Hand force in kgf at a share of the stroke.</summary>
public sealed record ForcePoint(double StrokeShare, double HandKgf);

/// <summary>Spring pressure after some water has been moved.</summary>
public sealed record SpringPoint(double MovedMl, double PressureBar);

/// <summary>How soft some trapped air makes the lever.</summary>
public sealed record SoftPoint(double AirMl, double MlPerBarAtTwo, double MlPerBarAtNine, double LostMl);

/// <summary>What a machine can do.</summary>
/// <param name="ReachBar">Pressure that the brewer's force reaches half-way; null where the hand makes no pressure.</param>
/// <param name="SpringWorkJ">Work of one free stroke; null without a spring.</param>
/// <param name="CockKgf">Force to cock the spring; null without one.</param>
/// <param name="LargestYieldGrams">Largest cup from the usual dose.</param>
/// <param name="StrokesForUsualYield">Strokes or pumps for the usual yield.</param>
public sealed record CanDo(
    IReadOnlyList<ForceLine> Force, double? ReachBar, double? CockKgf, IReadOnlyList<SpringPoint> SpringLine, double? SpringWorkJ, double DoseGrams, double YieldGrams,
    double LargestYieldGrams, double WaterGrams, int StrokesForUsualYield, IReadOnlyList<SoftPoint> Soft);

/// <summary>One machine, whole.</summary>
public sealed record MachineDetail(
    int Id, string Name, string FamilyName, Machine Spec, Cutaway Cutaway, CanDo Can, IReadOnlyList<MachineNumber> Numbers, HeatConstants Heat,
    bool HeatIsFamily, int HeatReadings, IReadOnlyList<string> Ways);

/// <summary>Rows of a measurement; the list of its way is filled, the others are left out.</summary>
/// <param name="Keep">Whether to put the outcome into the machine, or only to show it.</param>
public sealed record MeasureRequest(
    bool Keep, IReadOnlyList<HandleReading>? Handle = null, IReadOnlyList<StrokeReading>? Stroke = null, IReadOnlyList<PuckReading>? Puck = null,
    IReadOnlyList<SpringReading>? Spring = null, IReadOnlyList<HoldReading>? Seal = null, IReadOnlyList<TemperatureRow>? Temperatures = null);

/// <summary>A group or chamber temperature some minutes after switch-on, or after the preheat ended.</summary>
public sealed record TemperatureRow(double Minutes, double GroupC);

/// <summary>What a measurement gives.</summary>
public sealed record MeasureView(
    IReadOnlyList<MeasuredChange> Changes, IReadOnlyList<FitPoint> Points, string XLabel, string YLabel, string Sentence, bool Kept);

/// <summary>What the readings of its sessions say about a machine's heat.</summary>
public sealed record HeatFitView(
    IReadOnlyList<FittedConstant> Constants, IReadOnlyList<FitPoint> Points, int Readings, int Sessions, string Sentence, bool Kept);
