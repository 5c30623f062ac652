using RuddySpring.Core.Heat;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Sessions;

namespace RuddySpring.Server.Sessions;

/// <summary>Where a step stands.</summary>
public enum StepState
{
    /// <summary>Still to come.</summary>
    Due,

    /// <summary>Begun and not ended.</summary>
    UnderWay,

    /// <summary>Done.</summary>
    Done,

    /// <summary>Left out.</summary>
    Skipped,
}

/// <summary>A step as the screen lists it; seconds count from the session's origin.</summary>
public sealed record SessionStepView(
    string Key,
    StepKind Kind,
    double StartSeconds,
    double Seconds,
    string Title,
    string Detail,
    string? Caution,
    bool HandsFree,
    int? Pull,
    double? GroupC,
    StepState State
);

/// <summary>A point of the heat course; seconds count from the session's origin.</summary>
public sealed record CoursePoint(double Seconds, double GroupC, double PlusMinusK, double? BoilerC);

/// <summary>A reading as the screen lists it.</summary>
public sealed record ReadingView(int Index, HeatReadingKind Kind, double Seconds, double Value);

/// <summary>What the gauge hides: pressure shown, and how hot the water really is behind it.</summary>
public sealed record FalsePressure(double GaugeBar, double WaterC, double BledC);

/// <summary>How warm the machine is now.</summary>
/// <param name="GroupC">Group, or metal of the chamber, degC.</param>
/// <param name="PlusMinusK">One standard deviation.</param>
/// <param name="InBand">Whether the group is in its band.</param>
/// <param name="ShotsLeft">How many shots one after the other before it leaves its band.</param>
/// <param name="WaterC">Water at the puck if the shot were pulled now.</param>
/// <param name="False">Set while trapped air holds the gauge up.</param>
/// <param name="ElementOn">Whether the element is thought to be on.</param>
/// <param name="Notices">What was ticked off that the machine cannot have given, or that must not be.</param>
public sealed record HeatNow(
    double GroupC,
    double PlusMinusK,
    double? BoilerC,
    double? GaugeBar,
    bool InBand,
    int ShotsLeft,
    double WaterC,
    double WaterPlusMinusK,
    FalsePressure? False,
    bool ElementOn,
    IReadOnlyList<string> Notices
);

/// <summary>The session: open, or as it would be planned now.</summary>
/// <param name="Id">Null while it is only a proposal.</param>
/// <param name="Begun">Whether a step has been done or begun.</param>
/// <param name="OriginAt">Second 0, UTC; now for what has not begun.</param>
/// <param name="NowSeconds">Now, s since the origin.</param>
/// <param name="Next">The step to do next; null when all is done.</param>
/// <param name="WantsVersion">Version of the wants, to send with a change of them; 0 while it is only a proposal.</param>
/// <param name="LastTick">The step that was ticked last, which can be taken back; null for none.</param>
public sealed record SessionView(
    int? Id,
    int MachineId,
    string MachineName,
    MachineFamily Family,
    bool HasBoiler,
    bool HasHeater,
    IReadOnlyList<Reads> Reads,
    LampMeans Lamp,
    double BandLowC,
    double BandHighC,
    IReadOnlyList<double> HeaterStepsC,
    bool Begun,
    DateTime OriginAt,
    double NowSeconds,
    DateTime? ReadyAt,
    SessionWants Wants,
    IReadOnlyList<SessionStepView> Steps,
    IReadOnlyList<CoursePoint> Course,
    IReadOnlyList<ShotHeat> Shots,
    IReadOnlyList<ReadingView> Readings,
    double StartSeconds,
    double LastCupSeconds,
    double EndSeconds,
    string? Problem,
    IReadOnlyList<string> Remedies,
    WaterBudget Water,
    HeatNow Now,
    double BoilingPointC,
    NextStepView? Next,
    int WantsVersion,
    string? LastTick
);

/// <summary>The step to do next, in a few words.</summary>
/// <param name="StartSeconds">When it is due, s since the origin.</param>
public sealed record NextStepView(string Key, string Title, double StartSeconds);

/// <summary>What a session is to give, and when.</summary>
/// <param name="Wants">What.</param>
/// <param name="ReadyAt">When the last drink is wanted, UTC; null for as soon as can be.</param>
public sealed record SessionRequest(SessionWants Wants, DateTime? ReadyAt);

/// <summary>A step begun or done.</summary>
/// <param name="Key">Which.</param>
/// <param name="SecondsAgo">How long ago it was, s; 0 for now.</param>
/// <param name="Skipped">Left out.</param>
public sealed record StepTick(string Key, double SecondsAgo = 0, bool Skipped = false);

/// <summary>A tick to take back.</summary>
/// <param name="Key">The step that was ticked last as the screen knows it.</param>
public sealed record TickBack(string Key);

/// <summary>A reading just taken, or some time ago.</summary>
public sealed record NewReading(HeatReadingKind Kind, double Value = 0, double SecondsAgo = 0);
