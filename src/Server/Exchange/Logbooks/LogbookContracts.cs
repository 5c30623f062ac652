using RuddySpring.Core.Traces;

namespace RuddySpring.Server.Exchange.Logbooks;

/// <summary>What a column of a logbook holds.</summary>
public enum LogbookRole
{
    Ignore,

    /// <summary>Day, with or without the time of day.</summary>
    PulledAt,

    /// <summary>Time of day, beside a column with the day.</summary>
    TimeOfDay,
    Brewer,
    Machine,
    Coffee,
    Roaster,
    RoastedOn,
    Grinder,
    Grind,
    Basket,
    Plan,
    Dose,
    TargetYield,
    Cup,

    /// <summary>How long it took, by a clock that begins where somebody says.</summary>
    Seconds,
    SecondsFromLever,
    SecondsFromPressure,
    SecondsFromDrops,
    SecondsToDrops,
    Peak,
    MeanPressure,
    MeanFlow,
    R10,
    Water,
    Group,
    Sour,
    Bitter,
    Dry,
    Sweet,
    Body,
    Liking,
    Strength,
    Words,
    Seen,
}

/// <summary>A column: where, what, in which unit or way of writing.</summary>
public sealed record LogbookColumn(int Index, string Name, LogbookRole Role, string Unit);

/// <summary>How a logbook is read.</summary>
/// <param name="Columns">One for each column of the file.</param>
/// <param name="MachineId">The machine of rows that name none of the bench.</param>
/// <param name="Clock">What the clock of <see cref="LogbookRole.Seconds"/> begins with; null where nobody has said.</param>
/// <param name="RestDays">Days that a coffee had rested at its first shot in the file, where no roast date is given.</param>
/// <param name="LeaveOutFaulty">Whether rows that cannot be read are left out, instead of stopping the import.</param>
public sealed record LogbookAnswers(
    IReadOnlyList<LogbookColumn> Columns,
    int MachineId,
    ClockStart? Clock = null,
    int RestDays = 10,
    bool LeaveOutFaulty = false
);

/// <summary>A logbook to look at or to store; without answers the columns are guessed, or read as last time.</summary>
public sealed record LogbookFile(string FileName, byte[] ContentBase64, LogbookAnswers? Answers = null);

/// <summary>A shot of a logbook as it would be stored.</summary>
public sealed record LogbookShot(
    int Line,
    DateTime PulledAt,
    string Machine,
    string Coffee,
    double DoseGrams,
    double? CupGrams,
    double? Seconds,
    int? Liking
);

/// <summary>What an import of a logbook would do.</summary>
/// <param name="Answers">How it is read now.</param>
/// <param name="IsRemembered">Whether that is how a file with these columns was read last.</param>
/// <param name="Units">Units that go with a role, the usual one first.</param>
/// <param name="FirstRows">Up to 6 rows as text.</param>
/// <param name="New">Shots that would be stored.</param>
/// <param name="Already">Shots that are here already, by date and machine; they are left out.</param>
/// <param name="Faulty">Rows that cannot be read.</param>
/// <param name="Errors">Why it cannot be stored as it is, with line and column; empty if it can.</param>
/// <param name="Notes">What else to know.</param>
/// <param name="Adds">What would be added to the bench, in words.</param>
/// <param name="FirstShots">Up to 8 shots as they would be stored.</param>
public sealed record LogbookPreview(
    LogbookAnswers Answers,
    bool IsRemembered,
    IReadOnlyDictionary<string, IReadOnlyList<string>> Units,
    int Rows,
    IReadOnlyList<IReadOnlyList<string>> FirstRows,
    int New,
    int Already,
    int Faulty,
    IReadOnlyList<string> Errors,
    IReadOnlyList<string> Notes,
    IReadOnlyList<string> Adds,
    IReadOnlyList<LogbookShot> FirstShots
);

/// <summary>A logbook that was stored.</summary>
/// <param name="Stored">How many shots.</param>
/// <param name="Already">How many were here already.</param>
/// <param name="LeftOut">How many rows could not be read.</param>
public sealed record StoredLogbook(int Stored, int Already, int LeftOut);
