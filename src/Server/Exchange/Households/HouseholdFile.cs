using RuddySpring.Core.Beans;
using RuddySpring.Core.Care;
using RuddySpring.Core.Coaching;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Practice;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Reasoning;
using RuddySpring.Core.Sessions;
using RuddySpring.Core.Traces;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Exchange.Households;

/// <summary>
/// A whole household as one file: numbers stand for things within the file only. The file is written and read piece by piece;
/// this is its description.
/// </summary>
/// <param name="Format">Always <c>ruddy-spring-household</c>.</param>
/// <param name="Version">Of the format, 1.</param>
/// <param name="WrittenAt">When it was written, UTC.</param>
public sealed record HouseholdFile(
    string Format,
    int Version,
    DateTime WrittenAt,
    FiledHousehold Household,
    IReadOnlyList<FiledBrewer> Brewers,
    IReadOnlyList<FiledMachine> Machines,
    IReadOnlyList<FiledGrinder> Grinders,
    IReadOnlyList<FiledBasket> Baskets,
    IReadOnlyList<FiledBag> Bags,
    IReadOnlyList<FiledPlan> Plans,
    IReadOnlyList<FiledShot> Shots,
    IReadOnlyList<FiledPhoto> Photos,
    IReadOnlyList<FiledAdvice> Advice,
    IReadOnlyList<FiledSession> Sessions,
    IReadOnlyList<FiledPractice> Practice,
    IReadOnlyList<FiledLadder> Ladders,
    IReadOnlyList<FiledView> Views,
    IReadOnlyList<FiledCareDone>? Care = null,
    IReadOnlyList<FiledCareChoice>? CareChoices = null
)
{
    public const string FormatName = "ruddy-spring-household";

    public const int CurrentVersion = 1;

    /// <summary>Names of its lists, in the order in which they must stand: what is referred to comes first.</summary>
    public static readonly IReadOnlyList<string> Lists =
    [
        "brewers",
        "machines",
        "grinders",
        "baskets",
        "bags",
        "plans",
        "shots",
        "photos",
        "advice",
        "sessions",
        "practice",
        "ladders",
        "views",
        "care",
        "careChoices",
    ];
}

/// <summary>Where the bench stands and how it likes its numbers.</summary>
/// <param name="AltitudeMetres">Height above the sea, m.</param>
/// <param name="AmbientC">Usual room temperature, degC.</param>
/// <param name="WaterHardness">mg/l of CaCO3.</param>
public sealed record FiledHousehold(
    string Name,
    double AltitudeMetres,
    double AmbientC,
    string PressureUnit,
    string TemperatureUnit,
    string ForceUnit,
    string School,
    IReadOnlyList<string> TasteWords,
    RestWindow Rest,
    double WaterHardness = Descaling.UsualHardness
);

/// <summary>A person who brews; school and units are null for the household's.</summary>
public sealed record FiledBrewer(
    int Id,
    string Name,
    string? School = null,
    string? PressureUnit = null,
    string? TemperatureUnit = null,
    string? ForceUnit = null
);

/// <summary>A machine with its numbers.</summary>
/// <param name="PutAwayAt">When it was put away, UTC; null while it stands on the bench.</param>
public sealed record FiledMachine(int Id, string Name, Machine Spec, DateTime? PutAwayAt = null);

/// <summary>A grinder and its scale.</summary>
public sealed record FiledGrinder(
    int Id,
    string Name,
    string ScaleUnit,
    double Step,
    bool FinerIsLower,
    double? ZeroPoint = null,
    double RetentionGrams = 0,
    double PurgeGrams = 0,
    DateTime? PutAwayAt = null
);

/// <summary>A basket with its numbers.</summary>
public sealed record FiledBasket(int Id, string Name, Basket Spec, DateTime? PutAwayAt = null);

/// <summary>A bag of beans.</summary>
/// <param name="BrewerId">Whose it is; null for everybody's.</param>
public sealed record FiledBag(
    int Id,
    string Name,
    string Roaster,
    DateOnly RoastedOn,
    string RoastLevel,
    bool Finished,
    string Process = "",
    DateOnly? OpenedOn = null,
    DateOnly? FrozenOn = null,
    DateOnly? ThawedOn = null,
    double? GramsLeft = null,
    int? BrewerId = null,
    DateTime? PutAwayAt = null
);

/// <summary>A pull plan of the household's own.</summary>
public sealed record FiledPlan(int Id, PullPlan Plan, DateTime? PutAwayAt = null);

/// <summary>A channel of a trace: seconds since the record began, rising, and as many values in the channel's unit (bar, g, degC,
/// ml/s, kgf).</summary>
public sealed record FiledSeries(Channel Channel, Origin Origin, double[] Seconds, double[] Values);

/// <summary>A shot with its trace.</summary>
/// <param name="Clock">What its clock begins with.</param>
/// <param name="Plan">The plan as it was then.</param>
/// <param name="Marked">Moments that a person marked, s on the record's clock.</param>
/// <param name="Measures">What the trace says in numbers; of a shot with a trace it is worked out again when it is read.</param>
/// <param name="Strength">By refractometer, 0 to 1.</param>
/// <param name="BinnedAt">When it was thrown into the bin, UTC; null while it is in the ledger.</param>
public sealed record FiledShot(
    int Id,
    DateTime PulledAt,
    ShotSource Source,
    int MachineId,
    double DoseGrams,
    double YieldGrams,
    PullPlan Plan,
    Moments Marked,
    Measures Measures,
    IReadOnlyList<FiledSeries> Trace,
    ClockStart Clock = ClockStart.Lever,
    string? PullId = null,
    int? BrewerId = null,
    int? BagId = null,
    int? GrinderId = null,
    double? GrindSetting = null,
    int? BasketId = null,
    Preparation? Preparation = null,
    double? WaterC = null,
    double? GroupC = null,
    string Seen = "",
    string? FileHash = null,
    int? Sour = null,
    int? Bitter = null,
    int? Dry = null,
    int? Sweet = null,
    int? Body = null,
    int? Liking = null,
    string Words = "",
    IReadOnlyList<Seen>? Tapped = null,
    TickedBefore? Before = null,
    double? Strength = null,
    string? Cause = null,
    string Notices = "",
    LearnedPull? Learned = null,
    DateTime? BinnedAt = null
);

/// <summary>A photo of a shot.</summary>
/// <param name="Jpeg">The picture as JPEG.</param>
public sealed record FiledPhoto(int ShotId, DateTime AddedAt, byte[] Jpeg);

/// <summary>Advice that was taken from a shot.</summary>
public sealed record FiledAdvice(
    int ShotId,
    DateTime TakenAt,
    TakenAdvice Taken,
    int? JudgedById = null,
    bool? Worked = null,
    string Sentence = ""
);

/// <summary>A session from switch-on to last rinse; seconds in its log count from <paramref name="OriginAt"/>.</summary>
public sealed record FiledSession(
    int MachineId,
    DateTime CreatedAt,
    double AmbientC,
    double AltitudeMetres,
    SessionWants Wants,
    SessionLog Log,
    DateTime? OriginAt = null,
    DateTime? ReadyAt = null,
    DateTime? EndedAt = null
);

/// <summary>A lesson that was played.</summary>
public sealed record FiledPractice(string LessonKey, DateTime PlayedAt, MachineFamily Family, PracticeScore Score);

/// <summary>A blind ladder.</summary>
public sealed record FiledLadder(
    DateTime CreatedAt,
    BlindLadder Plan,
    IReadOnlyList<int>? Places = null,
    IReadOnlyList<int?>? Liked = null
);

/// <summary>A view of the ledger under a name.</summary>
public sealed record FiledView(string Name, string Query);

/// <summary>Something that was done for a machine.</summary>
/// <param name="Task">Key of the task.</param>
public sealed record FiledCareDone(int MachineId, string Task, DateOnly DoneOn, string Note = "");

/// <summary>How a task of a machine is to come.</summary>
/// <param name="Interval">Null for the usual.</param>
/// <param name="IsOff">Whether it is left out.</param>
public sealed record FiledCareChoice(int MachineId, string Task, CareInterval? Interval = null, bool IsOff = false);
