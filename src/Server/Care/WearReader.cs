using Microsoft.EntityFrameworkCore;
using RuddySpring.Core.Care;
using RuddySpring.Core.Heat;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Traces;
using RuddySpring.Server.Household;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Care;

/// <summary>What a machine's shots and readings show of its wear; a bounded number of them.</summary>
public static class WearReader
{
    private const int FirstShots = 80;
    private const int LastShots = 240;
    private const int MostSessions = 8;

    /// <summary>The findings by a time, UTC; by now where there is none.</summary>
    public static async Task<IReadOnlyList<WearFinding>> FindingsAsync(
        RuddyContext db,
        int machineId,
        Machine spec,
        DateTime? until,
        CancellationToken cancel
    )
    {
        // a new spring or a soaked basket begins again, and so does a cleaned seal
        var mends = spec.PressureBy == PressureBy.Spring ? CareList.SpringService : CareList.Restrictor;
        var to = until ?? DateTime.MaxValue;
        var (mended, cleaned) = (await SinceAsync(mends), await SinceAsync(CareList.Seal));
        return Wear.Of(
            spec,
            await ShotsAsync(db, machineId, mended, to, cancel),
            await ShotsAsync(db, machineId, cleaned, to, cancel),
            await ShotsAsync(db, machineId, DateTime.MinValue, to, cancel),
            spec.HasBoiler ? await BoilerAsync(db, machineId, to, cancel) : []
        );

        async Task<DateTime> SinceAsync(string task)
        {
            var day = until is { } then ? DateOnly.FromDateTime(then) : DateOnly.MaxValue;
            var since = await db
                .CareDone.Where(d => d.MachineId == machineId && d.Task == task && d.DoneOn <= day)
                .MaxAsync(d => (DateOnly?)d.DoneOn, cancel);
            return since?.ToDateTime(TimeOnly.MaxValue, DateTimeKind.Utc) ?? DateTime.MinValue;
        }
    }

    private static Task<IReadOnlyList<WearShot>> ShotsAsync(
        RuddyContext db,
        int machineId,
        DateTime from,
        DateTime to,
        CancellationToken cancel
    ) => ShotMemory.OfAsync(db, (machineId, from, to), () => ReadAsync(db, machineId, from, to, cancel), cancel);

    private static async Task<IReadOnlyList<WearShot>> ReadAsync(
        RuddyContext db,
        int machineId,
        DateTime from,
        DateTime to,
        CancellationToken cancel
    )
    {
        var of = db
            .Shots.AsNoTracking()
            .Where(s => s.MachineId == machineId && s.DeletedAt == null && s.PulledAt > from && s.PulledAt <= to);
        var last = await Rows(of.OrderByDescending(s => s.PulledAt).Take(LastShots));
        var oldest = last.Count > 0 ? last[^1].PulledAt : to;
        var first = await Rows(of.Where(s => s.PulledAt < oldest).OrderBy(s => s.PulledAt).Take(FirstShots));
        return [.. first.Concat(Enumerable.Reverse(last)).Select(s => WearShot.Of(s.PlanName, s.Measures))];

        Task<List<WearRow>> Rows(IQueryable<Shot> shots) =>
            shots.Select(s => new WearRow(s.PulledAt, s.PlanName, s.Measures)).ToListAsync(cancel);
    }

    private sealed record WearRow(DateTime PulledAt, string PlanName, Measures Measures);

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
