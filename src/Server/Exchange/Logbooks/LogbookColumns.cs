namespace RuddySpring.Server.Exchange.Logbooks;

/// <summary>Names of the columns that are written, and what the columns of a file may be.</summary>
public static class LogbookColumns
{
    /// <summary>Every role that is written, with its column's name; the unit stands in brackets.</summary>
    public static readonly IReadOnlyList<(LogbookRole Role, string Name)> Written =
    [
        (LogbookRole.PulledAt, "pulled at"),
        (LogbookRole.Brewer, "who brewed"),
        (LogbookRole.Machine, "machine"),
        (LogbookRole.Coffee, "coffee"),
        (LogbookRole.Roaster, "roaster"),
        (LogbookRole.RoastedOn, "roasted on"),
        (LogbookRole.Grinder, "grinder"),
        (LogbookRole.Grind, "grind"),
        (LogbookRole.Basket, "basket"),
        (LogbookRole.Plan, "plan"),
        (LogbookRole.Dose, "dose (g)"),
        (LogbookRole.TargetYield, "target yield (g)"),
        (LogbookRole.Cup, "cup (g)"),
        (LogbookRole.SecondsFromLever, "time from lever (s)"),
        (LogbookRole.SecondsFromPressure, "time from first pressure (s)"),
        (LogbookRole.SecondsFromDrops, "time from first drops (s)"),
        (LogbookRole.SecondsToDrops, "time to first drops (s)"),
        (LogbookRole.Peak, "peak pressure (bar)"),
        (LogbookRole.MeanPressure, "mean pressure (bar)"),
        (LogbookRole.MeanFlow, "mean flow (g/s)"),
        (LogbookRole.R10, "r10 (bar s/ml)"),
        (LogbookRole.Water, "water (degC)"),
        (LogbookRole.Group, "group (degC)"),
        (LogbookRole.Sour, "sour (0 to 4)"),
        (LogbookRole.Bitter, "bitter (0 to 4)"),
        (LogbookRole.Dry, "dry (0 to 4)"),
        (LogbookRole.Sweet, "sweet (0 to 4)"),
        (LogbookRole.Body, "body (0 to 4)"),
        (LogbookRole.Liking, "liking (1 to 5)"),
        (LogbookRole.Strength, "strength (%)"),
        (LogbookRole.Words, "words"),
        (LogbookRole.Seen, "seen"),
    ];

    private static readonly (LogbookRole Role, string[] Words)[] Words =
    [
        (LogbookRole.PulledAt, ["date", "day", "datum", "tag", "fecha", "when", "datetime"]),
        (LogbookRole.TimeOfDay, ["clock", "hour", "uhrzeit", "heure", "hora"]),
        (LogbookRole.RoastedOn, ["roasted", "roastdate", "röstdatum"]),
        (LogbookRole.Roaster, ["roaster", "roastery", "röster", "torréfacteur", "tostador"]),
        (LogbookRole.Coffee, ["coffee", "bean", "beans", "bag", "kaffee", "bohnen", "café", "blend"]),
        (LogbookRole.Grinder, ["grinder", "mill", "mühle", "moulin", "molino"]),
        (LogbookRole.Grind, ["grind", "setting", "clicks", "mahlgrad", "mouture", "molienda"]),
        (LogbookRole.Basket, ["basket", "sieb"]),
        (LogbookRole.Plan, ["plan", "profile", "recipe", "rezept"]),
        (LogbookRole.Dose, ["dose", "in", "dosis", "doses"]),
        (LogbookRole.TargetYield, ["target", "ziel", "aim"]),
        (LogbookRole.Cup, ["cup", "out", "yield", "output", "beverage", "tasse", "ertrag"]),
        (LogbookRole.Seconds, ["time", "seconds", "secs", "s", "duration", "zeit", "temps", "tiempo"]),
        (LogbookRole.SecondsToDrops, ["drops", "drop"]),
        (LogbookRole.Peak, ["peak", "pressure", "bar", "psi", "druck", "pression"]),
        (LogbookRole.Group, ["group"]),
        (LogbookRole.Water, ["temperature", "temp", "water", "temperatur"]),
        (LogbookRole.Sour, ["sour", "sourness", "acidity", "sauer"]),
        (LogbookRole.Bitter, ["bitter", "bitterness"]),
        (LogbookRole.Sweet, ["sweet", "sweetness", "süß"]),
        (LogbookRole.Body, ["body"]),
        (LogbookRole.Liking, ["liking", "rating", "score", "stars", "overall", "note", "punkte"]),
        (LogbookRole.Strength, ["strength", "tds"]),
        (LogbookRole.Words, ["words", "notes", "tasting", "comment", "comments", "remarks", "notizen"]),
        (LogbookRole.Machine, ["machine", "lever", "maschine"]),
        (LogbookRole.Brewer, ["who", "brewer", "barista", "name"]),
    ];

    private static readonly char[] Gaps = [' ', '_', '(', ')', '[', ']', '-', '.', ',', '/', ':'];

    /// <summary>What the columns of a table may be; each role at most once.</summary>
    public static IReadOnlyList<LogbookColumn> Guess(CsvTable table)
    {
        var taken = new HashSet<LogbookRole>();
        var columns = new List<LogbookColumn>();
        for (var i = 0; i < table.Names.Count; i++)
        {
            var name = table.Names[i].Trim().ToLowerInvariant();
            var role = Written.FirstOrDefault(w => w.Name == name).Role;
            var words = name.Replace("\u00b0", "deg").Split(Gaps, StringSplitOptions.RemoveEmptyEntries);
            if (name is "time of day")
                role = LogbookRole.TimeOfDay;
            if (role == LogbookRole.Ignore)
                role = Words.FirstOrDefault(w => !taken.Contains(w.Role) && w.Words.Any(words.Contains)).Role;
            if (role != LogbookRole.Ignore && !taken.Add(role))
                role = LogbookRole.Ignore;
            columns.Add(new(i, table.Names[i], role, UnitOf(table, i, role, words)));
        }

        return columns;
    }

    private static string UnitOf(CsvTable table, int column, LogbookRole role, string[] words)
    {
        var units = LogbookUnits.Of(role);
        if (units.Count == 0)
            return "";
        var cells = Enumerable.Range(0, Math.Min(500, table.Rows.Count)).Select(r => table.Cell(r, column)).ToList();
        if (units.Contains(LogbookUnits.DayFirst))
            return LogbookUnits.OrderOf(cells);
        if (units.Contains("m:ss"))
            return cells.Exists(c => c.Contains(':')) ? "m:ss" : "s";
        if (units.FirstOrDefault(u => words.Contains(u.ToLowerInvariant())) is { } named)
            return named;
        var most = cells.Select(c => CsvNumber.Parse(c, table.Dialect.DecimalComma)).OfType<double>().DefaultIfEmpty(0).Max();
        return role switch
        {
            LogbookRole.Liking => most > 10 ? "0 to 100"
            : most > 5 ? "0 to 10"
            : "1 to 5",
            LogbookRole.Water or LogbookRole.Group when most > 120 || words.Contains("f") || words.Contains("degf") => "degF",
            LogbookRole.Peak or LogbookRole.MeanPressure when most > 30 => "psi",
            _ when units[0] == "0 to 4" => most > 5 ? "0 to 10"
            : most > 4 ? "0 to 5"
            : "0 to 4",
            _ => units[0],
        };
    }
}
