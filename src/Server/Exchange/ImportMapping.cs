using System.Globalization;
using CsvHelper;
using CsvHelper.Configuration;
using RuddySpring.Core;
using RuddySpring.Core.Traces;

namespace RuddySpring.Server.Exchange;

/// <summary>What a column of a file holds.</summary>
public enum ColumnRole
{
    Ignore,
    Time,
    Pressure,
    Weight,
    Temperature,
    Group,
    Flow,
    Force,
}

/// <summary>A column: where, what, in which unit.</summary>
public sealed record ImportColumn(int Index, string Name, ColumnRole Role, string Unit);

/// <summary>The cells of a file as text.</summary>
public sealed record CsvTable(CsvDialect Dialect, IReadOnlyList<string> Names, IReadOnlyList<string[]> Rows)
{
    /// <summary>Most rows that are read.</summary>
    public const int MostRows = 200_000;

    private const int LongestCell = 4096;

    /// <summary>Most columns that are read.</summary>
    public const int MostColumns = 64;

    /// <summary>Reads a text in its dialect (RFC 4180 quoting).</summary>
    /// <exception cref="DoesNotFitException">Too many rows, no rows, or a broken quotation.</exception>
    public static CsvTable Read(string text)
    {
        var dialect = CsvDialect.Detect(text);
        var configuration = new CsvConfiguration(CultureInfo.InvariantCulture)
        {
            Delimiter = dialect.Separator.ToString(),
            HasHeaderRecord = false,
            IgnoreBlankLines = true,
            TrimOptions = TrimOptions.Trim,
            BadDataFound = null,
            MaxFieldSize = LongestCell,
        };
        var rows = new List<string[]>();
        try
        {
            using var parser = new CsvParser(new StringReader(text), configuration);
            while (parser.Read())
            {
                if (rows.Count > MostRows)
                    throw new DoesNotFitException("file", $"The file has more than {MostRows} rows.");
                if (parser.Record is not { } record)
                    continue;
                if (record.Length > MostColumns)
                    throw new DoesNotFitException(
                        "file",
                        $"Row {rows.Count + 1} of the file has {record.Length} columns; at most {MostColumns} are read."
                    );
                rows.Add(record);
            }
        }
        catch (CsvHelperException)
        {
            throw new DoesNotFitException(
                "file",
                $"The file cannot be read as a table near line {rows.Count + 1}: a quotation mark may be missing there, or "
                    + $"a cell is longer than {LongestCell} characters."
            );
        }

        var names = dialect.HasHeader ? rows[0] : [.. rows[0].Select((_, i) => $"Column {i + 1}")];
        var body = dialect.HasHeader ? rows.Skip(1).ToList() : rows;
        return body.Count > 0
            ? new(dialect, names, body)
            : throw new DoesNotFitException("file", "The file has a header and no rows.");
    }

    /// <summary>Line in the file of a row, for messages.</summary>
    public int LineOf(int row) => row + 1 + (Dialect.HasHeader ? 1 : 0);

    /// <summary>A cell, empty where the row is short.</summary>
    public string Cell(int row, int column) => column < Rows[row].Length ? Rows[row][column] : "";
}

/// <summary>Guesses what the columns are: by their names and units if there are any, else by how their numbers run.</summary>
public static class ColumnGuess
{
    private static readonly (ColumnRole Role, string[] Words)[] Words =
    [
        (ColumnRole.Time, ["time", "elapsed", "zeit", "temps", "tiempo", "sec", "seconds", "timestamp", "t", "ms", "clock"]),
        (ColumnRole.Pressure, ["pressure", "press", "druck", "pression", "presion", "bar", "psi", "kpa", "p"]),
        (ColumnRole.Flow, ["flow", "fluss", "debit", "g/s", "ml/s"]),
        (ColumnRole.Force, ["force", "kraft", "fuerza", "kgf", "n"]),
        (ColumnRole.Group, ["group"]),
        (ColumnRole.Temperature, ["temperature", "temp", "temperatur", "degc", "degf"]),
        (ColumnRole.Weight, ["weight", "mass", "cup", "gewicht", "poids", "peso", "grams", "yield", "g", "oz", "scale"]),
    ];

    private static readonly char[] Gaps = [' ', '_', '(', ')', '[', ']', '-', '.', ','];

    /// <summary>Columns of a table as guessed; each role but Ignore at most once.</summary>
    public static IReadOnlyList<ImportColumn> Of(CsvTable table) => table.Dialect.HasHeader ? ByName(table) : ByNumbers(table);

    private static List<ImportColumn> ByName(CsvTable table)
    {
        var taken = new HashSet<ColumnRole>();
        var columns = new List<ImportColumn>();
        for (var i = 0; i < table.Names.Count; i++)
        {
            var words = table
                .Names[i]
                .ToLowerInvariant()
                .Replace("\u00b0", "deg")
                .Split(Gaps, StringSplitOptions.RemoveEmptyEntries);
            var role = Words.Where(w => !taken.Contains(w.Role)).FirstOrDefault(w => w.Words.Any(words.Contains)).Role;
            if (role == ColumnRole.Ignore)
                role = Words
                    .Where(w => !taken.Contains(w.Role))
                    .FirstOrDefault(w =>
                        w.Words.Any(k => k.Length > 3 && words.Any(x => x.StartsWith(k, StringComparison.Ordinal)))
                    )
                    .Role;
            if (role != ColumnRole.Ignore)
                taken.Add(role);
            columns.Add(new(i, table.Names[i], role, UnitOf(table, i, role, words)));
        }

        return columns;
    }

    private static string UnitOf(CsvTable table, int column, ColumnRole role, string[] words) =>
        role switch
        {
            ColumnRole.Time => TimeUnit(table, column, words),
            ColumnRole.Pressure => words.Contains("psi") ? "psi"
            : words.Contains("kpa") ? "kPa"
            : "bar",
            ColumnRole.Weight => words.Contains("oz") ? "oz" : "g",
            ColumnRole.Temperature or ColumnRole.Group => words.Contains("degf") || words.Contains("f") ? "degF" : "degC",
            ColumnRole.Flow => "ml/s",
            ColumnRole.Force => words.Contains("n") ? "N" : "kgf",
            _ => "",
        };

    private static string TimeUnit(CsvTable table, int column, string[] words)
    {
        if (Cells(table, column).Any(c => c.Contains(':')))
            return "m:ss";
        if (words.Contains("ms") || words.Contains("millis") || words.Contains("milliseconds"))
            return "ms";
        if (words.Contains("min") || words.Contains("minutes"))
            return "min";
        return words.Any(w => w is "s" or "sec" or "seconds") ? "s" : ByStep(Numbers(table, column));
    }

    /// <summary>Samples of a pull lie at most a few seconds apart: steps of more than 5 are milliseconds.</summary>
    private static string ByStep(List<double> times)
    {
        var steps = times.Zip(times.Skip(1), (a, b) => Math.Abs(b - a)).Where(d => d > 0).ToList();
        return steps.Count > 0 && Hampel.Median(steps) > 5.0 ? "ms" : "s";
    }

    private static List<ImportColumn> ByNumbers(CsvTable table)
    {
        var columns = new List<ImportColumn>();
        var taken = new HashSet<ColumnRole>();
        for (var i = 0; i < table.Names.Count; i++)
        {
            var clock = Cells(table, i).Any(c => c.Contains(':'));
            var numbers = Numbers(table, i);
            var role = ColumnRole.Ignore;
            var unit = "";
            if (i == 0 && (clock || RisesMostly(numbers, 0.9)))
            {
                role = ColumnRole.Time;
                unit = clock ? "m:ss" : ByStep(numbers);
            }
            else if (numbers.Count > 0)
            {
                var rising = numbers[^1] > 0.9 * numbers.Max() && numbers.Max() > 10.0;
                role =
                    rising ? ColumnRole.Weight
                    : numbers.Max() <= 16.0 ? ColumnRole.Pressure
                    : numbers.Max() is > 40 and < 180 ? ColumnRole.Pressure
                    : ColumnRole.Ignore;
                unit =
                    role == ColumnRole.Weight ? "g"
                    : numbers.Max() <= 16.0 ? "bar"
                    : "psi";
            }

            if (role != ColumnRole.Ignore && !taken.Add(role))
                role = ColumnRole.Ignore;
            columns.Add(new(i, table.Names[i], role, role == ColumnRole.Ignore ? "" : unit));
        }

        return columns;
    }

    private static IEnumerable<string> Cells(CsvTable table, int column) =>
        Enumerable.Range(0, Math.Min(200, table.Rows.Count)).Select(r => table.Cell(r, column));

    private static List<double> Numbers(CsvTable table, int column) =>
        [
            .. Enumerable
                .Range(0, Math.Min(5000, table.Rows.Count))
                .Select(r => CsvNumber.Parse(table.Cell(r, column), table.Dialect.DecimalComma))
                .OfType<double>(),
        ];

    private static bool RisesMostly(List<double> numbers, double share) =>
        numbers.Count > 1 && numbers.Zip(numbers.Skip(1)).Count(p => p.Second > p.First) >= share * (numbers.Count - 1);
}
