using Microsoft.EntityFrameworkCore;
using RuddySpring.Core;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Traces;
using RuddySpring.Server.Hosting;
using RuddySpring.Server.Plans;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Exchange.Logbooks;

/// <summary>Makes shots of the rows of a spreadsheet. The preview shows the very shots that would be stored; all are, or
/// none.</summary>
public sealed class LogbookImport(RuddyContext db, TimeProvider time)
{
    /// <summary>Most rows of one logbook.</summary>
    public const int MostRows = 20_000;

    private const string Kind = "logbook";
    private const int MostErrors = 5;
    private const int FirstShots = 8;
    private const int FirstRows = 6;
    private const int UsedUpAfterDays = 42;
    private static readonly FieldRange RestDays = new("restDays", "Days of rest", 0, 365, "days");

    /// <summary>A logbook as it was read.</summary>
    private sealed record Reading(
        CsvTable Table,
        LogbookAnswers Answers,
        bool IsRemembered,
        IReadOnlyList<LogbookRow> Rows,
        int Faulty,
        IReadOnlyList<string> Errors,
        IReadOnlyList<string> Notes
    );

    /// <summary>What storing it would do.</summary>
    public async Task<LogbookPreview> PreviewAsync(LogbookFile file, CancellationToken cancel)
    {
        var reading = await ReadAsync(file, cancel);
        var plan = await SortAsync(reading, cancel);
        return new(
            reading.Answers,
            reading.IsRemembered,
            Enum.GetValues<LogbookRole>().ToDictionary(r => r.ToString(), LogbookUnits.Of),
            reading.Table.Rows.Count,
            [
                .. reading
                    .Table.Rows.Take(FirstRows)
                    .Select(row => row.Take(CsvTable.MostColumns).Select(RequestSentences.Short).ToList()),
            ],
            plan.New.Count,
            plan.Already,
            reading.Faulty,
            reading.Errors,
            reading.Notes,
            plan.Adds,
            [
                .. plan
                    .New.Take(FirstShots)
                    .Select(n => new LogbookShot(
                        n.Row.Line,
                        n.Shot.PulledAt,
                        n.Machine.Name,
                        n.Row.Coffee,
                        n.Shot.DoseGrams,
                        n.Shot.Measures.CupGrams,
                        n.Row.Of(LogbookRole.Seconds) ?? n.Shot.Measures.SecondsFromPressure ?? n.Shot.Measures.SecondsFromLever,
                        n.Shot.Liking
                    )),
            ]
        );
    }

    /// <summary>Stores it, and remembers how it was read.</summary>
    /// <exception cref="DoesNotFitException">It cannot be read as it is.</exception>
    public async Task<StoredLogbook> StoreAsync(LogbookFile file, CancellationToken cancel)
    {
        var reading = await ReadAsync(file, cancel);
        if (reading.Errors.Count > 0)
            throw new DoesNotFitException("file", $"{reading.Errors[0]} Nothing was stored.");
        var plan = await SortAsync(reading, cancel);
        await ImportMemory.NoteAsync(db, Kind, reading.Table.Names, reading.Answers, time.GetUtcNow().UtcDateTime, cancel);
        // numbers rise with time, in whichever order the file has its rows
        var inOrder = plan.New.Select(n => n.Shot).ToList();
        if (inOrder.Count > 0 && inOrder[0].PulledAt > inOrder[^1].PulledAt)
            inOrder.Reverse();
        db.Shots.AddRange(inOrder.OrderBy(s => s.PulledAt));
        await db.SaveChangesAsync(cancel);
        return new(plan.New.Count, plan.Already, reading.Faulty);
    }

    private async Task<Reading> ReadAsync(LogbookFile file, CancellationToken cancel)
    {
        Texts.Optional(file.FileName, "fileName", "File name", 120);
        var table = CsvTable.Read(CsvDialect.Decode(file.ContentBase64));
        if (table.Rows.Count > MostRows)
            throw new DoesNotFitException("file", $"The file has {table.Rows.Count} rows; at most {MostRows} are read at once.");
        var remembered = file.Answers is null
            ? await ImportMemory.FindAsync<LogbookAnswers>(db, Kind, table.Names, cancel)
            : null;
        var firstMachine = await db.Machines.Where(m => m.DeletedAt == null).Select(m => m.Id).FirstOrDefaultAsync(cancel);
        var answers = file.Answers ?? remembered ?? new(LogbookColumns.Guess(table), firstMachine);
        RestDays.Check(answers.RestDays);
        var (errors, notes) = (Faults(table, answers), new List<string>());
        if (!await db.Machines.AnyAsync(m => m.Id == answers.MachineId, cancel))
            errors.Add(
                firstMachine == 0 ? "There is no machine on the bench yet; add one first." : "Choose a machine of the bench."
            );
        if (errors.Count > 0)
            return new(table, answers, remembered is not null, [], 0, errors, notes);
        var rows = new List<LogbookRow>();
        var faulty = 0;
        for (var row = 0; row < table.Rows.Count; row++)
        {
            if (table.Rows[row].All(c => c.Length == 0))
                continue;
            try
            {
                rows.Add(LogbookRow.Read(table, row, answers.Columns));
            }
            catch (DoesNotFitException error)
            {
                faulty++;
                if (faulty <= MostErrors)
                    (answers.LeaveOutFaulty ? notes : errors).Add(error.Sentence);
            }
        }

        if (faulty > MostErrors)
            (answers.LeaveOutFaulty ? notes : errors).Add($"{faulty - MostErrors} more rows cannot be read.");
        var latest = time.GetUtcNow().UtcDateTime.AddDays(1);
        if (rows.Find(r => r.PulledAt > latest) is { } late)
            errors.Add($"Line {late.Line}: the shot's date is {late.PulledAt:yyyy-MM-dd}; it must lie between 1950 and today.");
        if (rows.Exists(r => !r.HasTime))
            notes.Add("Rows without a time of day are stored from noon on, a minute apart, in the order of the file.");
        return new(table, answers, remembered is not null, rows, faulty, errors, notes);
    }

    private static List<string> Faults(CsvTable table, LogbookAnswers answers)
    {
        var errors = new List<string>();
        var used = answers.Columns.Where(c => c.Role != LogbookRole.Ignore).ToList();
        foreach (var column in used)
        {
            if (column.Index < 0 || column.Index >= table.Names.Count)
                errors.Add($"There is no column {column.Index + 1}.");
            else if (LogbookUnits.Of(column.Role) is { Count: > 0 } units && !units.Contains(column.Unit))
                errors.Add(
                    $"{column.Name}: {RequestSentences.Short(column.Unit)} does not go with it; use one of "
                        + $"{string.Join(", ", units)}."
                );
        }

        foreach (var twice in used.GroupBy(c => c.Role).Where(g => g.Count() > 1))
            errors.Add($"{string.Join(" and ", twice.Select(c => c.Name))} are marked as the same thing; mark one of them.");
        if (!used.Exists(c => c.Role == LogbookRole.PulledAt))
            errors.Add("No column is marked as the date.");
        if (!used.Exists(c => c.Role == LogbookRole.Dose))
            errors.Add("No column is marked as the dose.");
        if (used.Exists(c => c.Role == LogbookRole.Seconds) && answers.Clock is null)
            errors.Add("Say what the clock of the times begins with: the lever, first pressure or first drops.");
        return errors;
    }

    private sealed record NewShot(LogbookRow Row, Shot Shot, BenchMachine Machine);

    private sealed record Sorted(IReadOnlyList<NewShot> New, int Already, IReadOnlyList<string> Adds);

    /// <summary>The shots that are new, with what is added to the bench for them.</summary>
    private async Task<Sorted> SortAsync(Reading reading, CancellationToken cancel)
    {
        if (reading.Errors.Count > 0)
            return new([], 0, []);
        var bench = await LogbookBench.OfAsync(db, reading.Answers.RestDays, reading.Rows, cancel);
        var plans = await PlanLibrary.AllAsync(db, cancel);
        var fallback = bench.Machines.First(m => m.Id == reading.Answers.MachineId);
        var shots = new List<NewShot>();
        var already = 0;
        var seen = new HashSet<(DateTime, int)>();
        var noons = new Dictionary<DateTime, int>();
        var (first, last) =
            reading.Rows.Count == 0 ? default : (reading.Rows.Min(r => r.PulledAt), reading.Rows.Max(r => r.PulledAt));
        var here = (
            await db
                .Shots.Where(s => s.PulledAt >= first && s.PulledAt <= last.AddDays(1))
                .Select(s => new { s.PulledAt, s.MachineId })
                .ToListAsync(cancel)
        )
            .Select(s => (s.PulledAt, s.MachineId))
            .ToHashSet();
        foreach (var row in reading.Rows)
        {
            var at = row.PulledAt;
            if (!row.HasTime)
            {
                var minute = noons.GetValueOrDefault(at);
                noons[at] = minute + 1;
                at = at.AddMinutes(minute);
            }

            var machine = bench.MachineOf(row.Machine) ?? fallback;
            if (here.Contains((at, machine.Id)) || !seen.Add((at, machine.Id)))
            {
                already++;
                continue;
            }

            var plan = plans.FirstOrDefault(p => p.Name.Equals(row.Plan, StringComparison.OrdinalIgnoreCase))
                ?? (row.Plan.Length > 0 ? TraceImport.UnknownPlan with { Name = row.Plan } : TraceImport.UnknownPlan);
            shots.Add(new(row, ShotOf(row, at, machine, plan, bench, reading.Answers.Clock), machine));
        }

        return new(shots, already, bench.Adds(UsedUp));
    }

    /// <summary>What was roasted long ago is used up.</summary>
    private bool UsedUp(DateOnly roastedOn) =>
        roastedOn.AddDays(UsedUpAfterDays) < DateOnly.FromDateTime(time.GetLocalNow().DateTime);

    private static Shot ShotOf(
        LogbookRow row,
        DateTime pulledAt,
        BenchMachine machine,
        PullPlan plan,
        LogbookBench bench,
        ClockStart? clock
    )
    {
        static int? Whole(double? value) => value is { } v ? (int)Math.Round(v) : null;
        double? Timed(ClockStart start, LogbookRole own) => row.Of(own) ?? (clock == start ? row.Of(LogbookRole.Seconds) : null);
        var dose = row.Of(LogbookRole.Dose)!.Value;
        var cup = row.Of(LogbookRole.Cup);
        var shot = new Shot
        {
            PulledAt = pulledAt,
            Source = ShotSource.Imported,
            MachineId = machine.Id,
            Brewer = bench.BrewerOf(row.Brewer),
            Bag = bench.BagOf(row),
            Grinder = bench.GrinderOf(row.Grinder),
            GrindSetting = row.Of(LogbookRole.Grind),
            BasketId = bench.BasketOf(row.Basket)?.Id,
            DoseGrams = dose,
            YieldGrams = row.Of(LogbookRole.TargetYield) ?? Math.Round(cup ?? 0, 1),
            WaterC = row.Of(LogbookRole.Water),
            GroupC = row.Of(LogbookRole.Group),
            Seen = row.Seen,
            Taste =
            {
                Sour = Whole(row.Of(LogbookRole.Sour)),
                Bitter = Whole(row.Of(LogbookRole.Bitter)),
                Dry = Whole(row.Of(LogbookRole.Dry)),
                Sweet = Whole(row.Of(LogbookRole.Sweet)),
                Body = Whole(row.Of(LogbookRole.Body)),
                Words = row.Words,
            },
            Liking = Whole(row.Of(LogbookRole.Liking)),
            Strength = row.Of(LogbookRole.Strength),
            Notices = "Imported from a logbook, without a trace.",
            Measures = new(
                Timed(ClockStart.Lever, LogbookRole.SecondsFromLever),
                Timed(ClockStart.FirstPressure, LogbookRole.SecondsFromPressure),
                Timed(ClockStart.FirstDrops, LogbookRole.SecondsFromDrops),
                row.Of(LogbookRole.SecondsToDrops),
                cup,
                cup / dose,
                row.Of(LogbookRole.Peak),
                row.Of(LogbookRole.MeanPressure),
                row.Of(LogbookRole.MeanFlow),
                null,
                null,
                null,
                row.Of(LogbookRole.R10)
            ),
        };
        ShotRecording.SetTrace(shot, plan, machine.Spec, null, new([]), Moments.None, clock ?? ClockStart.Lever);
        return shot;
    }
}
