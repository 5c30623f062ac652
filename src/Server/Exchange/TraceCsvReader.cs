using RuddySpring.Core;
using RuddySpring.Core.Traces;
using RuddySpring.Server.Hosting;

namespace RuddySpring.Server.Exchange;

/// <summary>A trace read from a table, or why not. All or nothing: with an error there is no trace.</summary>
public sealed record TraceReading(Trace? Trace, IReadOnlyList<string> Errors, IReadOnlyList<string> Notes);

/// <summary>Reads a trace from a table by a mapping of its columns.</summary>
public static class TraceCsvReader
{
    private const int MostErrors = 5;
    private const double GapSeconds = 2.0;

    private static readonly Dictionary<ColumnRole, (Channel Channel, FieldRange Range)> Targets = new()
    {
        [ColumnRole.Pressure] = (Channel.Pressure, ChannelRanges.Pressure),
        [ColumnRole.Weight] = (Channel.Weight, ChannelRanges.Weight),
        [ColumnRole.Temperature] = (Channel.Temperature, ChannelRanges.Temperature),
        [ColumnRole.Group] = (Channel.Group, ChannelRanges.Group),
        [ColumnRole.Flow] = (Channel.Flow, ChannelRanges.Flow),
        [ColumnRole.Force] = (Channel.Force, ChannelRanges.Force),
    };

    /// <summary>Units that go with a role, the usual one first.</summary>
    public static IReadOnlyList<string> UnitsOf(ColumnRole role) =>
        role switch
        {
            ColumnRole.Time => ["s", "ms", "min", "m:ss"],
            ColumnRole.Pressure => ["bar", "psi", "kPa"],
            ColumnRole.Weight => ["g", "oz"],
            ColumnRole.Temperature or ColumnRole.Group => ["degC", "degF"],
            ColumnRole.Flow => ["ml/s"],
            ColumnRole.Force => ["kgf", "N"],
            _ => [],
        };

    /// <summary>Reads.</summary>
    public static TraceReading Read(CsvTable table, IReadOnlyList<ImportColumn> columns)
    {
        var errors = new List<string>();
        var notes = new List<string>();
        var used = columns.Where(c => c.Role != ColumnRole.Ignore).ToList();
        foreach (var column in used)
        {
            if (column.Index < 0 || column.Index >= table.Names.Count)
                errors.Add($"There is no column {column.Index + 1}.");
            if (!UnitsOf(column.Role).Contains(column.Unit))
                errors.Add(
                    $"{column.Unit} is not a unit of {column.Role.ToString().ToLowerInvariant()}; use one of "
                        + $"{string.Join(", ", UnitsOf(column.Role))}."
                );
        }

        foreach (var twice in used.GroupBy(c => c.Role).Where(g => g.Count() > 1))
            errors.Add($"Two columns are marked as {twice.Key.ToString().ToLowerInvariant()}; mark one.");
        var time = used.FirstOrDefault(c => c.Role == ColumnRole.Time);
        if (time is null)
            errors.Add("No column is marked as time.");
        if (!used.Any(c => c.Role is ColumnRole.Pressure or ColumnRole.Weight))
            errors.Add("Mark a column as pressure or as weight: one of them is needed.");
        if (errors.Count > 0)
            return new(null, errors, notes);

        var times = ReadTimes(table, time!, errors, notes);
        var series = new List<Series>();
        foreach (var column in used.Where(c => c.Role != ColumnRole.Time))
            series.Add(ReadChannel(table, column, times, errors, notes));
        if (errors.Count > 0)
            return new(null, errors, notes);
        if (series.All(s => s.Count < 5))
            return new(null, ["Fewer than 5 samples could be read; a trace needs more."], notes);
        return new(new([.. series.Where(s => s.Count > 0).OrderBy(s => s.Channel)]), errors, notes);
    }

    private static double[] ReadTimes(CsvTable table, ImportColumn column, List<string> errors, List<string> notes)
    {
        var comma = table.Dialect.DecimalComma;
        var factor = column.Unit switch
        {
            "ms" => 0.001,
            "min" => 60.0,
            _ => 1.0,
        };
        var times = new double[table.Rows.Count];
        for (var row = 0; row < times.Length; row++)
        {
            var cell = table.Cell(row, column.Index);
            var value =
                column.Unit == "m:ss"
                    ? CsvNumber.ParseClock(cell, comma) ?? CsvNumber.Parse(cell, comma)
                    : CsvNumber.Parse(cell, comma);
            times[row] = (value ?? double.NaN) * factor;
            if (value is null && errors.Count < MostErrors)
                errors.Add(
                    $"Line {table.LineOf(row)}, {column.Name}: \"{RequestSentences.Short(cell)}\" is not a time in {column.Unit}."
                );
        }

        if (errors.Count > 0)
            return times;
        var first = times.Min();
        if (times.Max() - first > 600.0)
            errors.Add($"The rows span {times.Max() - first:0} s; a pull lasts at most 600 s. Is the time's unit right?");
        if (first != 0.0)
            notes.Add($"Times start at {first:0.##} s; they were moved to start at 0.");
        var backwards = times.Zip(times.Skip(1)).Count(p => p.Second < p.First);
        if (backwards > 0)
            notes.Add($"{backwards} rows were out of order and were sorted.");
        var repeated = times.Length - times.Distinct().Count();
        if (repeated > 0)
            notes.Add($"{repeated} rows repeat a time; the last of each was kept.");
        return [.. times.Select(t => t - first)];
    }

    private static Series ReadChannel(
        CsvTable table,
        ImportColumn column,
        double[] times,
        List<string> errors,
        List<string> notes
    )
    {
        var (channel, range) = Targets[column.Role];
        Func<double, double> convert = column.Unit switch
        {
            "psi" => v => v * Units.BarPerPsi,
            "N" => v => v / Units.NewtonsPerKgf,
            "kPa" => v => v * Units.BarPerKpa,
            "oz" => v => v * Units.GramsPerOunce,
            "degF" => Units.CelsiusFromFahrenheit,
            _ => v => v,
        };
        var seconds = new List<double>();
        var values = new List<double>();
        for (var row = 0; row < times.Length; row++)
        {
            var cell = table.Cell(row, column.Index);
            if (cell.Length == 0)
                continue; // instruments speak each at its own times

            if (CsvNumber.Parse(cell, table.Dialect.DecimalComma) is not { } raw)
            {
                if (errors.Count < MostErrors)
                    errors.Add($"Line {table.LineOf(row)}, {column.Name}: \"{RequestSentences.Short(cell)}\" is not a number.");
                continue;
            }

            var value = convert(raw);
            if (value < range.Min || value > range.Max)
            {
                if (errors.Count < MostErrors)
                    errors.Add($"Line {table.LineOf(row)}: {range.Sentence(value)} Is {column.Unit} the right unit?");
                continue;
            }

            seconds.Add(times[row]);
            values.Add(value);
        }

        var series = TraceCleaning.Ordered(new Series(channel, Origin.Imported, seconds, values));
        for (var i = 1; i < series.Count; i++)
        {
            if (series.Seconds[i] - series.Seconds[i - 1] <= GapSeconds)
                continue;
            notes.Add(
                $"{column.Name}: nothing between {series.Seconds[i - 1]:0.0} and {series.Seconds[i]:0.0} s; the line runs "
                    + "straight across."
            );
            break;
        }

        return series;
    }
}
