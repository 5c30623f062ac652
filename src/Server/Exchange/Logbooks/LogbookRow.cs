using RuddySpring.Core;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Reasoning;
using RuddySpring.Core.Traces;
using RuddySpring.Server.Hosting;
using RuddySpring.Server.Prepare;

namespace RuddySpring.Server.Exchange.Logbooks;

/// <summary>A row of a logbook, read.</summary>
public sealed record LogbookRow
{
    private const int LongestName = 80;
    private static readonly FieldRange Seconds = new("seconds", "Time", 0, 600, "s");
    private static readonly FieldRange Cup = new("cup", "Cup", 0, 500, "g");
    private static readonly FieldRange R10Range = new("r10", "R10", 0, 1000, "bar s/ml");

    public int Line { get; init; }
    public DateTime PulledAt { get; init; }
    public bool HasTime { get; init; }
    public string Brewer { get; init; } = "";
    public string Machine { get; init; } = "";
    public string Coffee { get; init; } = "";
    public string Roaster { get; init; } = "";
    public DateOnly? RoastedOn { get; init; }
    public string Grinder { get; init; } = "";
    public string Basket { get; init; } = "";
    public string Plan { get; init; } = "";
    public string Words { get; init; } = "";
    public string Seen { get; init; } = "";

    /// <summary>Its numbers in the units that are stored, by role.</summary>
    public IReadOnlyDictionary<LogbookRole, double> Numbers { get; init; } = new Dictionary<LogbookRole, double>();

    /// <summary>A number of it; null where the row has none.</summary>
    public double? Of(LogbookRole role) => Numbers.TryGetValue(role, out var value) ? value : null;

    /// <summary>Reads a row.</summary>
    /// <exception cref="DoesNotFitException">A cell cannot be read, or is out of range; the sentence names line and
    /// column.</exception>
    public static LogbookRow Read(CsvTable table, int row, IReadOnlyList<LogbookColumn> columns)
    {
        var line = table.LineOf(row);
        var numbers = new Dictionary<LogbookRole, double>();
        var read = new LogbookRow { Line = line };
        var timeOfDay = columns.FirstOrDefault(c => c.Role == LogbookRole.TimeOfDay) is { } clock
            ? table.Cell(row, clock.Index)
            : null;
        foreach (var column in columns)
        {
            var cell = table.Cell(row, column.Index);
            if (cell.Length == 0 || column.Role is LogbookRole.Ignore or LogbookRole.TimeOfDay)
                continue;
            try
            {
                read = column.Role switch
                {
                    LogbookRole.PulledAt => WithMoment(read, cell, column.Unit, timeOfDay),
                    LogbookRole.RoastedOn => read with { RoastedOn = Day(cell, column.Unit) },
                    LogbookRole.Brewer => read with { Brewer = Name(cell, "Name") },
                    LogbookRole.Machine => read with { Machine = Name(cell, "Machine") },
                    LogbookRole.Coffee => read with { Coffee = Name(cell, "Coffee") },
                    LogbookRole.Roaster => read with { Roaster = Name(cell, "Roaster") },
                    LogbookRole.Grinder => read with { Grinder = Name(cell, "Grinder") },
                    LogbookRole.Basket => read with { Basket = Name(cell, "Basket") },
                    LogbookRole.Plan => read with { Plan = Name(cell, "Plan") },
                    LogbookRole.Words => read with { Words = Texts.Lines(LogbookText.Read(cell), "words", "Words", 500) },
                    LogbookRole.Seen => read with { Seen = Texts.Lines(LogbookText.Read(cell), "seen", "What was seen", 400) },
                    _ => read,
                };
                if (LogbookUnits.Of(column.Role).Count > 0 || column.Role == LogbookRole.Grind)
                {
                    if (Number(cell, column, table.Dialect.DecimalComma) is { } number)
                        numbers[column.Role] = number;
                }
            }
            catch (FieldRangeException error)
            {
                throw new DoesNotFitException("file", $"Line {line}, {column.Name}: {Quantity.Plain(error.Sentence)}");
            }
            catch (DoesNotFitException error)
            {
                throw new DoesNotFitException("file", $"Line {line}, {column.Name}: {error.Sentence}");
            }
        }

        if (read.PulledAt == default)
            throw new DoesNotFitException("file", $"Line {line}: the date is missing.");
        if (!numbers.ContainsKey(LogbookRole.Dose))
            throw new DoesNotFitException("file", $"Line {line}: the dose is missing.");
        return read with { Numbers = numbers };
    }

    private static LogbookRow WithMoment(LogbookRow row, string cell, string order, string? timeOfDay)
    {
        var moment = LogbookUnits.Moment(cell, order, timeOfDay, out var hasTime)
            ?? throw new DoesNotFitException("date", $"\"{RequestSentences.Short(cell)}\" is not a date written {order}.");
        return moment.Year is < 1950 or > 2200
            ? throw new DoesNotFitException("date", $"The date is {moment:yyyy-MM-dd}; it must lie between 1950 and today.")
            : row with
            {
                PulledAt = moment,
                HasTime = hasTime,
            };
    }

    private static DateOnly Day(string cell, string order)
    {
        var moment = LogbookUnits.Moment(cell, order, "12:00", out _)
            ?? throw new DoesNotFitException("date", $"\"{RequestSentences.Short(cell)}\" is not a date written {order}.");
        return moment.Year is < 1950 or > 2200
            ? throw new DoesNotFitException("date", $"The date is {moment:yyyy-MM-dd}; it must lie between 1950 and today.")
            : DateOnly.FromDateTime(moment.ToLocalTime());
    }

    private static string Name(string cell, string label) =>
        Texts.Optional(LogbookText.Read(cell), label.ToLowerInvariant(), label, LongestName);

    private static double? Number(string cell, LogbookColumn column, bool decimalComma)
    {
        if (column.Role is LogbookRole.PulledAt or LogbookRole.RoastedOn)
            return null;
        var value =
            column.Role == LogbookRole.Liking
                ? LogbookUnits.LikingOf(cell, column.Unit, decimalComma)
                : LogbookUnits.Number(cell, column.Unit, decimalComma);
        if (value is not { } number)
            throw new DoesNotFitException("number", $"\"{RequestSentences.Short(cell)}\" is not a number.");
        var range = column.Role switch
        {
            LogbookRole.Dose => PuckParameters.Dose,
            LogbookRole.TargetYield or LogbookRole.Cup => Cup,
            LogbookRole.Grind => PrepareEndpoints.GrindSetting,
            LogbookRole.Peak or LogbookRole.MeanPressure => ChannelRanges.Pressure,
            LogbookRole.MeanFlow => ChannelRanges.Flow,
            LogbookRole.R10 => R10Range,
            LogbookRole.Water => ChannelRanges.Temperature,
            LogbookRole.Group => ChannelRanges.Group,
            LogbookRole.Liking => TasteMarks.HowLiked,
            LogbookRole.Strength => MeasuredExtraction.Strength,
            LogbookRole.Sour or LogbookRole.Bitter or LogbookRole.Dry or LogbookRole.Sweet or LogbookRole.Body => TasteMarks.Mark,
            _ => Seconds,
        };
        return range.Check(number);
    }
}
