using Microsoft.EntityFrameworkCore;
using RuddySpring.Core.Care;
using RuddySpring.Core.Heat;
using RuddySpring.Core.Machines;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Care;

/// <summary>Gathers use, history and wear of the machines; all of it bounded.</summary>
public static class CareReader
{
    private const int MostHistory = 200;
    private const int FirstShots = 80;
    private const int LastShots = 240;
    private const int MostSessions = 8;
    private const double MlPerLitre = 1000;

    /// <summary>The care of every machine that stands on the bench.</summary>
    public static async Task<IReadOnlyList<MachineCareView>> AllAsync(RuddyContext db, DateOnly today, CancellationToken cancel)
    {
        var all = new List<MachineCareView>();
        foreach (var machine in await MachinesAsync(db, cancel))
        {
            var done = await DoneAsync(db, machine.Id, cancel);
            var tasks = await TasksAsync(db, machine, done, today, cancel);
            var names = tasks.ToDictionary(t => t.Key, t => t.Name);
            all.Add(
                new(
                    machine.Id,
                    machine.Name,
                    tasks,
                    await FindingsAsync(db, machine.Id, machine.Spec, null, cancel),
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
    public static async Task<IReadOnlyList<CareNotice>> DueAsync(RuddyContext db, DateOnly today, CancellationToken cancel)
    {
        var due = new List<CareNotice>();
        foreach (var machine in await MachinesAsync(db, cancel))
            due.AddRange(
                (await TasksAsync(db, machine, await DoneAsync(db, machine.Id, cancel), today, cancel))
                    .Where(t => t.Due?.State is CareState.Due or CareState.Overdue)
                    .Select(t => new CareNotice(machine.Id, machine.Name, t.Key, t.Name, t.Due!.State))
            );
        return due;
    }

    /// <summary>What is overdue on a machine at the time of a shot, and what its wear was by then.</summary>
    public static async Task<CareFacts> OfAsync(
        RuddyContext db,
        int machineId,
        Machine spec,
        DateTime at,
        CancellationToken cancel
    )
    {
        var done = await DoneAsync(db, machineId, cancel);
        var day = DateOnly.FromDateTime(at);
        var tasks = await TasksAsync(
            db,
            new BenchMachine { Id = machineId, Spec = spec },
            [.. done.Where(d => d.DoneOn <= day)],
            day,
            cancel
        );
        return new(
            tasks.Where(t => t.Due?.State == CareState.Overdue).Select(t => t.Key).ToHashSet(),
            (await FindingsAsync(db, machineId, spec, at, cancel)).Select(f => f.Kind).ToHashSet()
        );
    }

    private static Task<List<BenchMachine>> MachinesAsync(RuddyContext db, CancellationToken cancel) =>
        db.Machines.AsNoTracking().Where(m => m.DeletedAt == null).OrderBy(m => m.Id).ToListAsync(cancel);

    private static Task<List<CareDone>> DoneAsync(RuddyContext db, int machineId, CancellationToken cancel) =>
        db
            .CareDone.AsNoTracking()
            .Where(d => d.MachineId == machineId)
            .OrderByDescending(d => d.DoneOn)
            .ThenByDescending(d => d.Id)
            .ToListAsync(cancel);

    private static async Task<IReadOnlyList<CareTaskView>> TasksAsync(
        RuddyContext db,
        BenchMachine machine,
        IReadOnlyList<CareDone> done,
        DateOnly today,
        CancellationToken cancel
    )
    {
        var hardness = await db.Households.Select(h => h.WaterHardness).SingleAsync(cancel);
        var choices = await db
            .CareChoices.AsNoTracking()
            .Where(c => c.MachineId == machine.Id)
            .ToDictionaryAsync(c => c.Task, cancel);
        var use = await UseAsync(db, machine, cancel);
        var firstUse = use.Select(u => (DateOnly?)u.Day).Min();
        var last = done.GroupBy(d => d.Task).ToDictionary(g => g.Key, g => g.Max(d => d.DoneOn));
        return
        [
            .. CareList
                .For(machine.Spec, hardness)
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

    /// <summary>Shots and water of a machine, day by day (UTC): what was poured or drawn for a shot is the cup, what the puck
    /// keeps, and what stays in the machine.</summary>
    private static async Task<IReadOnlyList<DayOfUse>> UseAsync(RuddyContext db, BenchMachine machine, CancellationToken cancel)
    {
        var (keeps, dead) = (machine.Spec.RetentionPerGram, machine.Spec.DeadWaterGrams);
        var days = await db
            .Database.SqlQuery<UseRow>(
                $"""
                SELECT PulledAt / {TimeSpan.TicksPerDay} AS Day, count(*) AS Shots,
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

    private static async Task<IReadOnlyList<WearFinding>> FindingsAsync(
        RuddyContext db,
        int machineId,
        Machine spec,
        DateTime? until,
        CancellationToken cancel
    )
    {
        // a new spring or a soaked basket begins anew
        var mends = spec.PressureBy == PressureBy.Spring ? CareList.SpringService : CareList.Restrictor;
        var day = until is { } then ? DateOnly.FromDateTime(then) : DateOnly.MaxValue;
        var since = await db
            .CareDone.Where(d => d.MachineId == machineId && d.Task == mends && d.DoneOn <= day)
            .MaxAsync(d => (DateOnly?)d.DoneOn, cancel);
        var from = since?.ToDateTime(TimeOnly.MaxValue, DateTimeKind.Utc) ?? DateTime.MinValue;
        var to = until ?? DateTime.MaxValue;
        IReadOnlyList<WearShot> shots = [];
        if (spec.PressureBy == PressureBy.Spring || spec.RestrictorBarS2PerMl2 > 0)
        {
            var of = db
                .Shots.AsNoTracking()
                .Where(s => s.MachineId == machineId && s.DeletedAt == null && s.PulledAt > from && s.PulledAt <= to);
            var last = await of.OrderByDescending(s => s.PulledAt)
                .Take(LastShots)
                .Select(s => new
                {
                    s.PulledAt,
                    s.PlanName,
                    s.Measures,
                })
                .ToListAsync(cancel);
            var oldest = last.Count > 0 ? last[^1].PulledAt : to;
            var first = await of.Where(s => s.PulledAt < oldest)
                .OrderBy(s => s.PulledAt)
                .Take(FirstShots)
                .Select(s => new
                {
                    s.PulledAt,
                    s.PlanName,
                    s.Measures,
                })
                .ToListAsync(cancel);
            shots =
            [
                .. first
                    .Concat(Enumerable.Reverse(last))
                    .Select(s => new WearShot(s.PlanName, s.Measures.PeakBar, s.Measures.MeanBar, s.Measures.MeanFlowGramsPerS)),
            ];
        }

        return Wear.Of(spec, shots, spec.HasBoiler ? await BoilerAsync(db, machineId, to, cancel) : []);
    }

    /// <summary>The boiler's gauge, the highest reading of each session that has one.</summary>
    private static async Task<IReadOnlyList<double>> BoilerAsync(
        RuddyContext db,
        int machineId,
        DateTime to,
        CancellationToken cancel
    )
    {
        var sessions = await db
            .Sessions.AsNoTracking()
            .Where(s => s.MachineId == machineId && s.CreatedAt <= to)
            .OrderByDescending(s => s.CreatedAt)
            .Take(MostSessions)
            .Select(s => s.Log)
            .ToListAsync(cancel);
        return
        [
            .. Enumerable
                .Reverse(sessions)
                .Select(l => l.Readings.Where(r => r.Kind == HeatReadingKind.BoilerGauge).Select(r => (double?)r.Value).Max())
                .OfType<double>(),
        ];
    }
}
