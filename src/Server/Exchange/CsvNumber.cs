using System.Globalization;

namespace RuddySpring.Server.Exchange;

/// <summary>Numbers and times as files write them.</summary>
public static class CsvNumber
{
    /// <summary>A number with a decimal point or comma; null if it is none.</summary>
    public static double? Parse(string cell, bool decimalComma)
    {
        var text = decimalComma ? cell.Replace(',', '.') : cell;
        return double.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out var value) && double.IsFinite(value)
            ? value
            : null;
    }

    /// <summary>A time of the form m:ss.t or h:mm:ss.t in s; null if it is none.</summary>
    public static double? ParseClock(string cell, bool decimalComma)
    {
        var parts = cell.Split(':');
        if (parts.Length is < 2 or > 3)
            return null;
        var total = 0.0;
        for (var i = 0; i < parts.Length; i++)
        {
            if (Parse(parts[i], decimalComma) is not { } part || part < 0 || (i > 0 && part >= 60))
                return null;
            total = (total * 60.0) + part;
        }

        return total;
    }

    /// <summary>Whether a cell is a number or a time.</summary>
    public static bool Looks(string cell, bool decimalComma) =>
        Parse(cell, decimalComma) is not null || ParseClock(cell, decimalComma) is not null;
}
