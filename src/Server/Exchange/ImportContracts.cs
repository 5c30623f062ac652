using RuddySpring.Core.Puck;
using RuddySpring.Core.Traces;
using RuddySpring.Server.Ledger;

namespace RuddySpring.Server.Exchange;

/// <summary>A file to look at, with the columns as the reader set them; null columns ask for a guess.</summary>
public sealed record ImportFile(string FileName, byte[] ContentBase64, IReadOnlyList<ImportColumn>? Columns);

/// <summary>What a shot has that its file does not say. Null where nobody knows.</summary>
/// <param name="PlanKey">The plan that was meant.</param>
/// <param name="YieldGrams">Aimed at, g; null takes what is in the cup.</param>
/// <param name="WaterC">Water at the puck, degC.</param>
/// <param name="GroupC">Outside of the group at lever-up, degC; null takes what the file tells.</param>
/// <param name="Seen">What was seen of stream and puck.</param>
public sealed record ImportedShot(
    DateTime PulledAt,
    int MachineId,
    int? BrewerId,
    int? BagId,
    int? GrinderId,
    double? GrindSetting,
    double DoseGrams,
    double? YieldGrams = null,
    string? PlanKey = null,
    int? BasketId = null,
    Preparation? Preparation = null,
    double? WaterC = null,
    double? GroupC = null,
    string? Seen = null
);

/// <summary>What is asked before an odd shot is kept.</summary>
public enum ImportQuestionKind
{
    /// <summary>The same file has been kept as a shot before.</summary>
    SameFile,

    /// <summary>The setting lies far from those that the grinder was used at.</summary>
    FarSetting,

    /// <summary>The shot is older than its beans.</summary>
    BeforeRoasting,
}

/// <summary>A question, with what it is about.</summary>
/// <param name="ShotId">The shot of the same file.</param>
/// <param name="Low">Lowest setting used.</param>
/// <param name="High">Highest setting used.</param>
/// <param name="RoastedOn">When the beans were roasted.</param>
public sealed record ImportQuestion(
    ImportQuestionKind Kind,
    int? ShotId = null,
    double? Low = null,
    double? High = null,
    DateOnly? RoastedOn = null
);

/// <summary>A file and its shot.</summary>
/// <param name="Answered">Questions to which the answer was to keep it all the same; only used when it is kept.</param>
/// <param name="Clock">What the file's clock begins with; null where nobody has said.</param>
public sealed record ImportRequest(
    ImportFile File,
    ImportedShot Shot,
    IReadOnlyList<ImportQuestionKind>? Answered = null,
    ClockStart? Clock = null
);

/// <summary>How a trace's file is read.</summary>
public sealed record TraceAnswers(IReadOnlyList<ImportColumn> Columns, ClockStart Clock);

/// <summary>What would be imported.</summary>
/// <param name="Separator">Name of the separator found.</param>
/// <param name="FirstRows">Up to 6 rows as text.</param>
/// <param name="Errors">Why it cannot be imported as it is; empty if it can.</param>
/// <param name="Notes">What was put right in the file.</param>
/// <param name="Curves">The trace as it would be kept, s since the lever moved; null with errors.</param>
/// <param name="Moments">Found in it, on the same clock.</param>
/// <param name="Measures">The numbers that would be stored.</param>
/// <param name="YieldGrams">The yield that would be stored, g.</param>
/// <param name="GroupC">The group's temperature that would be stored, degC.</param>
/// <param name="Corrections">What was put right in the trace.</param>
/// <param name="Questions">What would be asked.</param>
/// <param name="Clock">What the file's clock begins with; null where it must be asked.</param>
/// <param name="IsRemembered">Whether a file with these columns was read this way before.</param>
public sealed record ImportPreview(
    string Separator,
    bool DecimalComma,
    bool HasHeader,
    int Rows,
    IReadOnlyList<ImportColumn> Columns,
    IReadOnlyDictionary<string, IReadOnlyList<string>> Units,
    IReadOnlyList<IReadOnlyList<string>> FirstRows,
    IReadOnlyList<string> Errors,
    IReadOnlyList<string> Notes,
    Curves? Curves,
    Moments? Moments,
    Measures? Measures,
    double? YieldGrams,
    double? GroupC,
    IReadOnlyList<TraceCorrection> Corrections,
    IReadOnlyList<ImportQuestion> Questions,
    ClockStart? Clock,
    bool IsRemembered
);
