using System.Globalization;
using System.Text.RegularExpressions;
using RuddySpring.Core;

namespace RuddySpring.Server.Exchange.Logbooks;

/// <summary>Units and ways of writing of a logbook's cells.</summary>
public static partial class LogbookUnits
{
    public const string YearFirst = "year first";
    public const string DayFirst = "day first";
    public const string MonthFirst = "month first";

    /// <summary>Units that go with a role, the usual one first; empty for words and plain numbers.</summary>
    public static IReadOnlyList<string> Of(LogbookRole role) =>
        role switch
        {
            LogbookRole.PulledAt or LogbookRole.RoastedOn => [YearFirst, DayFirst, MonthFirst],
            LogbookRole.Dose or LogbookRole.TargetYield or LogbookRole.Cup => ["g", "oz"],
            LogbookRole.Seconds
            or LogbookRole.SecondsFromLever
            or LogbookRole.SecondsFromPressure
            or LogbookRole.SecondsFromDrops
            or LogbookRole.SecondsToDrops => ["s", "m:ss"],
            LogbookRole.Peak or LogbookRole.MeanPressure => ["bar", "psi", "kPa"],
            LogbookRole.MeanFlow => ["g/s"],
            LogbookRole.R10 => ["bar s/ml"],
            LogbookRole.Water or LogbookRole.Group => ["degC", "degF"],
            LogbookRole.Sour or LogbookRole.Bitter or LogbookRole.Dry or LogbookRole.Sweet or LogbookRole.Body =>
            [
                "0 to 4",
                "0 to 5",
                "0 to 10",
            ],
            LogbookRole.Liking => ["1 to 5", "0 to 10", "0 to 100"],
            LogbookRole.Strength => ["%"],
            _ => [],
        };

    /// <summary>A number of a cell in the unit that is stored; null where it is none.</summary>
    public static double? Number(string cell, string unit, bool decimalComma)
    {
        var text = cell.Trim().TrimEnd('%', 'g', 's').Trim();
        var value =
            unit == "m:ss"
                ? CsvNumber.ParseClock(text, decimalComma) ?? CsvNumber.Parse(text, decimalComma)
                : CsvNumber.Parse(text, decimalComma);
        return value is not { } raw
            ? null
            : unit switch
            {
                "oz" => raw * Units.GramsPerOunce,
                "psi" => raw * Units.BarPerPsi,
                "kPa" => raw * Units.BarPerKpa,
                "degF" => Units.CelsiusFromFahrenheit(raw),
                "0 to 5" => raw * 4 / 5,
                "0 to 10" => raw * 4 / 10,
                "0 to 100" => raw * 4 / 100,
                "%" => raw / 100,
                _ => raw,
            };
    }

    /// <summary>A liking from 1 to 5; null where the cell holds no number.</summary>
    public static double? LikingOf(string cell, string unit, bool decimalComma) =>
        unit == "1 to 5" ? Number(cell, unit, decimalComma) : Number(cell, unit, decimalComma) + 1;

    /// <summary>A day and time of day, UTC; a time without a zone is by the clock of this place.</summary>
    /// <param name="cell">As written.</param>
    /// <param name="order">Which of day, month and year comes first.</param>
    /// <param name="timeOfDay">From a column of its own; null for none.</param>
    /// <param name="hasTime">Whether a time of day was given at all.</param>
    /// <returns>Null where it is no date.</returns>
    public static DateTime? Moment(string cell, string order, string? timeOfDay, out bool hasTime)
    {
        hasTime = false;
        var match = Date().Match(cell.Trim());
        if (!match.Success)
            return null;
        var parts = new[] { match.Groups[1].Value, match.Groups[2].Value, match.Groups[3].Value };
        // a year of four digits says itself where it stands
        var byItself =
            parts[0].Length == 4 ? YearFirst
            : order == YearFirst && parts[2].Length == 4 ? DayFirst
            : order;
        var (y, m, d) = byItself switch
        {
            YearFirst => (parts[0], parts[1], parts[2]),
            MonthFirst => (parts[2], parts[0], parts[1]),
            _ => (parts[2], parts[1], parts[0]),
        };
        var year = int.Parse(y, CultureInfo.InvariantCulture);
        if (y.Length <= 2)
            year += 2000;
        if (
            !DateOnly.TryParseExact(
                $"{year:0000}-{int.Parse(m, CultureInfo.InvariantCulture):00}-{int.Parse(d, CultureInfo.InvariantCulture):00}",
                "yyyy-MM-dd",
                CultureInfo.InvariantCulture,
                DateTimeStyles.None,
                out var day
            )
        )
            return null;
        var rest = match.Groups[4].Value.Trim().TrimStart('T', ',').Trim();
        var text = timeOfDay is { Length: > 0 } own ? own.Trim() : rest;
        if (text.Length == 0)
            return Local(day.ToDateTime(new TimeOnly(12, 0)));
        hasTime = true;
        if (
            DateTimeOffset.TryParse(
                $"{day:yyyy-MM-dd}T{text.Replace(" ", "", StringComparison.Ordinal)}",
                CultureInfo.InvariantCulture,
                DateTimeStyles.AssumeUniversal,
                out var zoned
            ) && Zone().IsMatch(text)
        )
            return zoned.UtcDateTime;
        return TimeOnly.TryParse(text, CultureInfo.InvariantCulture, out var time) ? Local(day.ToDateTime(time)) : null;
    }

    /// <summary>Which of day, month and year comes first, from what the cells can mean; day first where they do not
    /// tell.</summary>
    public static string OrderOf(IEnumerable<string> cells)
    {
        var dates = cells.Select(c => Date().Match(c.Trim())).Where(m => m.Success).ToList();
        if (dates.Exists(m => m.Groups[1].Value.Length == 4))
            return YearFirst;
        return dates.Exists(m => int.Parse(m.Groups[2].Value, CultureInfo.InvariantCulture) > 12) ? MonthFirst : DayFirst;
    }

    private static DateTime? Local(DateTime local) =>
        local.Year is < 2 or > 9998 ? null : DateTime.SpecifyKind(local, DateTimeKind.Local).ToUniversalTime();

    [GeneratedRegex(@"^(\d{1,4})[-./ ](\d{1,2})[-./ ](\d{1,4})(.*)$")]
    private static partial Regex Date();

    [GeneratedRegex(@"(Z|[+-]\d\d:?\d\d)$")]
    private static partial Regex Zone();
}
