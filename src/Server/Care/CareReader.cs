using Microsoft.EntityFrameworkCore;
using RuddySpring.Core.Care;
using RuddySpring.Server.Household;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Care;

/// <summary>Gathers use, history and wear of the machines; all of it bounded.</summary>
public static class CareReader
{
    private const int MostHistory = 200;
    private const double MlPerLitre = 1000;

    /// <summary>The care of every machine that stands on the bench.</summary>
    /// <param name="db">The household.</param>
    /// <param name="now">With the offset of the household's clock, by which its days are counted.</param>
    /// <param name="cancel">Ends the work.</param>
    public static async Task<IReadOnlyList<MachineCareView>> AllAsync(
        RuddyContext db,
        DateTimeOffset now,
        CancellationToken cancel
    )
    {
        var all = new List<MachineCareView>();
        var book = await BookAsync(db, null, cancel);
        foreach (var machine in await MachinesAsync(db, cancel))
        {
            var done = book.Done[machine.Id].ToList();
            var tasks = Tasks(machine, done, book, await UseAsync(db, machine, now.Offset, cancel), Day(now));
            var names = tasks.ToDictionary(t => t.Key, t => t.Name);
            all.Add(
                new(
                    machine.Id,
                    machine.Name,
                    tasks,
                    await WearReader.FindingsAsync(db, machine.Id, machine.Spec, null, cancel),
                    [
                        .. done.Take(MostHistory)
                            .Select(d => new CareDoneView(
                                d.Id,
                                d.Task,
                                names.GetValueOrDefault(d.Task, d.Task),
                                d.DoneOn,
                                d.Note
                            )),
                    ]
                )
            );
        }

        return all;
    }

    /// <summary>What is due now.</summary>
    public static async Task<IReadOnlyList<CareNotice>> DueAsync(RuddyContext db, DateTimeOffset now, CancellationToken cancel)
    {
        var due = new List<CareNotice>();
        var book = await BookAsync(db, null, cancel);
        foreach (var machine in await MachinesAsync(db, cancel))
            due.AddRange(
                Tasks(machine, book.Done[machine.Id], book, await UseAsync(db, machine, now.Offset, cancel), Day(now))
                    .Where(t => t.Due?.State is CareState.Due or CareState.Overdue)
                    .Select(t => new CareNotice(machine.Id, machine.Name, t.Key, t.Name, t.Due!.State))
            );
        return due;
    }

    /// <summary>What is overdue on a machine at the time of a shot, and what its wear was by then.</summary>
    public static async Task<CareFacts> OfAsync(
        RuddyContext db,
        BenchMachine machine,
        DateTimeOffset at,
        CancellationToken cancel
    )
    {
        var day = Day(at);
        var book = await BookAsync(db, machine.Id, cancel);
        var tasks = Tasks(
            machine,
            book.Done[machine.Id].Where(d => d.DoneOn <= day),
            book,
            await UseAsync(db, machine, at.Offset, cancel),
            day
        );
        return new(
            tasks.Where(t => t.Due?.State == CareState.Overdue).Select(t => t.Key).ToHashSet(),
            (await WearReader.FindingsAsync(db, machine.Id, machine.Spec, at.UtcDateTime, cancel)).Select(f => f.Kind).ToHashSet()
        );
    }

    private static DateOnly Day(DateTimeOffset at) => DateOnly.FromDateTime(at.DateTime);

    private static Task<List<BenchMachine>> MachinesAsync(RuddyContext db, CancellationToken cancel) =>
        db.Machines.AsNoTracking().Where(m => m.DeletedAt == null).OrderBy(m => m.Id).ToListAsync(cancel);

    /// <summary>What was done, the newest first, and what the owner wants, by machine.</summary>
    private sealed record Book(double Hardness, ILookup<int, CareDone> Done, ILookup<int, CareChoice> Choices);

    private static async Task<Book> BookAsync(RuddyContext db, int? machineId, CancellationToken cancel)
    {
        var done = await db
            .CareDone.AsNoTracking()
            .Where(d => machineId == null || d.MachineId == machineId)
            .OrderByDescending(d => d.DoneOn)
            .ThenByDescending(d => d.Id)
            .ToListAsync(cancel);
        var choices = await db
            .CareChoices.AsNoTracking()
            .Where(c => machineId == null || c.MachineId == machineId)
            .ToListAsync(cancel);
        return new(
            await db.Households.Select(h => h.WaterHardness).SingleAsync(cancel),
            done.ToLookup(d => d.MachineId),
            choices.ToLookup(c => c.MachineId)
        );
    }

    private static IReadOnlyList<CareTaskView> Tasks(
        BenchMachine machine,
        IEnumerable<CareDone> done,
        Book book,
        IReadOnlyList<DayOfUse> use,
        DateOnly today
    )
    {
        var choices = book.Choices[machine.Id].ToDictionary(c => c.Task);
        var firstUse = use.Select(u => (DateOnly?)u.Day).Min();
        var last = done.GroupBy(d => d.Task).ToDictionary(g => g.Key, g => g.Max(d => d.DoneOn));
        return
        [
            .. CareList
                .For(machine.Spec, book.Hardness)
                .Select(t =>
                {
                    var choice = choices.GetValueOrDefault(t.Key);
                    var interval = choice?.Interval ?? t.Usual;
                    DateOnly? doneOn = last.TryGetValue(t.Key, out var on) ? on : null;
                    var due =
                        choice?.IsOff != true && (doneOn ?? firstUse) is { } since
                            ? CareDue.Of(interval, since, use, today)
                            : null;
                    return new CareTaskView(
                        t.Key,
                        t.Name,
                        t.Why,
                        t.Steps,
                        t.Caution,
                        t.Part,
                        t.Source,
                        interval,
                        choice?.Interval is not null,
                        choice?.IsOff == true,
                        doneOn,
                        due
                    );
                })
                .OrderBy(t => t.IsOff)
                .ThenByDescending(t => t.Due?.State ?? CareState.Fine)
                .ThenBy(t => t.Due?.On ?? DateOnly.MaxValue),
        ];
    }

    /// <summary>Shots and water of a machine, day by day of a clock: what was poured or drawn for a shot is the cup, what the
    /// puck keeps, and what stays in the machine.</summary>
    private static Task<IReadOnlyList<DayOfUse>> UseAsync(
        RuddyContext db,
        BenchMachine machine,
        TimeSpan offset,
        CancellationToken cancel
    ) => ShotMemory.OfAsync(db, (machine.Id, offset), () => ReadUseAsync(db, machine, offset, cancel), cancel);

    private static async Task<IReadOnlyList<DayOfUse>> ReadUseAsync(
        RuddyContext db,
        BenchMachine machine,
        TimeSpan offset,
        CancellationToken cancel
    )
    {
        var (keeps, dead) = (machine.Spec.RetentionPerGram, machine.Spec.DeadWaterGrams);
        var days = await db
            .Database.SqlQuery<UseRow>(
                $"""
                SELECT (PulledAt + {offset.Ticks}) / {TimeSpan.TicksPerDay} AS Day, count(*) AS Shots,
                  sum(YieldGrams + {keeps} * DoseGrams + {dead}) AS Ml
                FROM Shots WHERE MachineId = {machine.Id} AND DeletedAt IS NULL GROUP BY 1
                """
            )
            .ToListAsync(cancel);
        return
        [
            .. days.Select(d => new DayOfUse(
                DateOnly.FromDateTime(new DateTime(d.Day * TimeSpan.TicksPerDay)),
                d.Shots,
                d.Ml / MlPerLitre
            )),
        ];
    }

    private sealed record UseRow(long Day, int Shots, double Ml);
}
