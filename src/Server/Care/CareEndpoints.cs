using Microsoft.EntityFrameworkCore;
using RuddySpring.Core;
using RuddySpring.Core.Care;
using RuddySpring.Server.Hosting;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Care;

/// <summary>What machines need, what was done, and the calendar of it.</summary>
public static class CareEndpoints
{
    public static void MapCare(this IEndpointRouteBuilder api)
    {
        api.MapGet("/care", ViewAsync);
        api.MapGet("/care/due", (RuddyContext db, TimeProvider time, CancellationToken cancel) =>
            CareReader.DueAsync(db, time.GetLocalNow(), cancel)
        );
        api.MapPost("/care/done", DoneAsync);
        api.MapDelete("/care/done/{id:int}", async (int id, RuddyContext db, CancellationToken cancel) =>
            await db.CareDone.Where(d => d.Id == id).ExecuteDeleteAsync(cancel) > 0
                ? TypedResults.NoContent()
                : throw new NotThereException($"There is no entry {id} in the history.")
        );
        api.MapPut("/care/task", WishAsync);
        api.MapPut("/care/hardness", async (HardnessChange change, RuddyContext db, CancellationToken cancel) =>
        {
            var row = await db.Households.SingleAsync(cancel);
            row.WaterHardness = Descaling.Hardness.Check(change.WaterHardness);
            await db.SaveChangesAsync(cancel);
            return TypedResults.NoContent();
        });
        api.MapGet("/care/calendar.ics", async (RuddyContext db, TimeProvider time, CancellationToken cancel) =>
            TypedResults.File(
                CareCalendar.Write(await CareReader.AllAsync(db, time.GetLocalNow(), cancel), Today(time)),
                CareCalendar.MediaType,
                "care.ics"
            )
        );
    }

    private static async Task<CareView> ViewAsync(RuddyContext db, TimeProvider time, CancellationToken cancel)
    {
        var hardness = await db.Households.Select(h => h.WaterHardness).SingleAsync(cancel);
        return new(hardness, Descaling.Degrees(hardness), await CareReader.AllAsync(db, time.GetLocalNow(), cancel));
    }

    private static async Task<CareDoneView> DoneAsync(
        CareDoing doing,
        RuddyContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        var task = await TaskAsync(doing.MachineId, doing.Task, db, cancel);
        var row = new CareDone
        {
            MachineId = doing.MachineId,
            Task = doing.Task,
            DoneOn = CareDays.Check(doing.On, "on", Today(time)),
            Note = Texts.Optional(doing.Note ?? "", "note", "The note", CareDays.LongestNote),
        };
        db.CareDone.Add(row);
        await db.SaveChangesAsync(cancel);
        return new(row.Id, row.Task, task.Name, row.DoneOn, row.Note);
    }

    private static async Task<Microsoft.AspNetCore.Http.HttpResults.NoContent> WishAsync(
        CareWish wish,
        RuddyContext db,
        CancellationToken cancel
    )
    {
        await TaskAsync(wish.MachineId, wish.Task, db, cancel);
        var interval = wish.Interval?.Checked();
        var row = await db.CareChoices.SingleOrDefaultAsync(c => c.MachineId == wish.MachineId && c.Task == wish.Task, cancel);
        if (row is null)
            db.CareChoices.Add(row = new() { MachineId = wish.MachineId, Task = wish.Task });
        (row.Interval, row.IsOff) = (interval, wish.IsOff);
        await db.SaveChangesAsync(cancel);
        return TypedResults.NoContent();
    }

    private static async Task<CareTask> TaskAsync(int machineId, string task, RuddyContext db, CancellationToken cancel)
    {
        var machine = await db.Machines.AsNoTracking().SingleOrDefaultAsync(m => m.Id == machineId, cancel)
            ?? throw new NotThereException($"There is no machine {machineId}.");
        return CareList.For(machine.Spec, Descaling.UsualHardness).FirstOrDefault(t => t.Key == task)
            ?? throw new DoesNotFitException(
                "task",
                $"{machine.Name} has no task \"{RequestSentences.Short(task)}\"; its tasks are "
                    + $"{string.Join(", ", CareList.For(machine.Spec, Descaling.UsualHardness).Select(t => t.Key))}."
            );
    }

    private static DateOnly Today(TimeProvider time) => DateOnly.FromDateTime(time.GetLocalNow().DateTime);
}
