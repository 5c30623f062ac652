using System.Text;
using System.Text.RegularExpressions;
using RuddySpring.Core;

namespace RuddySpring.Server.Exchange;

/// <summary>How a delimited file is written.</summary>
/// <param name="Separator">Between cells.</param>
/// <param name="DecimalComma">Whether numbers carry a comma.</param>
/// <param name="HasHeader">Whether the first line names the columns.</param>
public sealed partial record CsvDialect(char Separator, bool DecimalComma, bool HasHeader)
{
    private const int LongestLine = 20_000;
    private const int LinesLookedAt = 30;
    private static readonly char[] Separators = [';', '\t', ',', '|'];

    /// <summary>Text of a file: by its byte-order mark, else UTF-8, else Latin-1.</summary>
    /// <exception cref="DoesNotFitException">The file is empty or no text.</exception>
    public static string Decode(byte[] bytes)
    {
        if (bytes.Length == 0)
            throw new DoesNotFitException("file", "The file is empty.");
        Encoding? marked = bytes switch
        {
            [0xEF, 0xBB, 0xBF, ..] => Encoding.UTF8,
            [0xFF, 0xFE, ..] => Encoding.Unicode,
            [0xFE, 0xFF, ..] => Encoding.BigEndianUnicode,
            _ => null,
        };
        string text;
        try
        {
            text = (marked ?? new UTF8Encoding(false, throwOnInvalidBytes: true)).GetString(bytes).TrimStart('\uFEFF');
        }
        catch (DecoderFallbackException)
        {
            text = Encoding.Latin1.GetString(bytes);
        }

        if (text.Contains('\0'))
            throw new DoesNotFitException("file", "The file is not text; a trace is read from a CSV file.");
        return text;
    }

    /// <summary>The dialect of a text, by the separator that cuts its first lines into the most columns of one count.</summary>
    /// <exception cref="DoesNotFitException">No separator cuts the lines alike.</exception>
    public static CsvDialect Detect(string text)
    {
        var lines = Lines(text, quotes: true);
        // a quotation mark that is never closed, as for inches, would make one line of all the rest
        if (lines.Exists(l => l.Length > LongestLine))
            lines = Lines(text, quotes: false);
        if (lines.Count < 2)
            throw new DoesNotFitException("file", "The file has fewer than two lines; a trace needs a row for each sample.");
        if (lines.Exists(l => l.Length > LongestLine))
            throw new DoesNotFitException(
                "file",
                $"A line of the file has more than {LongestLine} characters; a row of a trace is shorter."
            );
        var best = Separators
            .Select(s => (Separator: s, Counts: lines.Select(l => Cells(l, s).Count).ToList()))
            .Where(c => c.Counts[0] > 1)
            .Select(c => (c.Separator, Columns: c.Counts[0], Alike: c.Counts.Count(n => n == c.Counts[0]) / (double)lines.Count))
            .OrderByDescending(c => c.Alike > 0.8)
            .ThenByDescending(c => c.Separator != ',')
            .ThenByDescending(c => c.Columns)
            .FirstOrDefault();
        if (best.Columns == 0)
            throw new DoesNotFitException(
                "file",
                "The file has only one column. Cells must be separated by comma, semicolon, tab or bar."
            );
        var cells = lines.Skip(1).SelectMany(l => Cells(l, best.Separator)).ToList();
        var decimalComma =
            best.Separator != ',' && cells.Count(c => WithComma().IsMatch(c)) > cells.Count(c => WithPoint().IsMatch(c));
        var header = Cells(lines[0], best.Separator).Any(c => c.Length > 0 && !CsvNumber.Looks(c, decimalComma));
        return new(best.Separator, decimalComma, header);
    }

    [GeneratedRegex(@"^[^\d,.]*\d*,\d+[^\d,.]*$")]
    private static partial Regex WithComma();

    [GeneratedRegex(@"^[^\d,.]*\d*\.\d+[^\d,.]*$")]
    private static partial Regex WithPoint();

    /// <summary>The first lines that are not empty; a line break inside quotation marks ends none where they count.</summary>
    private static List<string> Lines(string text, bool quotes)
    {
        var lines = new List<string>();
        var quoted = false;
        var from = 0;
        for (var i = 0; i <= text.Length && lines.Count < LinesLookedAt; i++)
        {
            if (quotes && i < text.Length && text[i] == '"')
                quoted = !quoted;
            if (i < text.Length && (text[i] != '\n' || quoted) && i - from <= LongestLine)
                continue;
            var line = text[from..i].TrimEnd('\r');
            if (line.Trim().Length > 0)
                lines.Add(line);
            from = i + 1;
        }

        return lines;
    }

    private static List<string> Cells(string line, char separator)
    {
        var cells = new List<string>();
        var cell = new StringBuilder();
        var quoted = false;
        foreach (var c in line)
        {
            if (c == '"')
                quoted = !quoted;
            else if (c == separator && !quoted)
            {
                cells.Add(cell.ToString().Trim());
                cell.Clear();
            }
            else
            {
                cell.Append(c);
            }
        }

        cells.Add(cell.ToString().Trim());
        return cells;
    }
}
