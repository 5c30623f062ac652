using Microsoft.EntityFrameworkCore;
using RuddySpring.Server.Hosting;
using RuddySpring.Server.Prepare;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Sessions;

/// <summary>The session from switch-on to last rinse: planned, followed, re-planned from what really happened.</summary>
public static class SessionEndpoints
{
    public static void MapSessions(this IEndpointRouteBuilder api)
    {
        var session = api.MapGroup("/session");
        session.MapGet("", async (SessionDesk desk, RuddyContext db) =>
        {
            var row = await MachineAsync(db);
            return SessionMapping.View(desk, await desk.OpenAsync(row.Id) ?? await desk.ProposalAsync(row));
        });

        // what would come of other wants, without keeping them
        session.MapPost("/preview", async (SessionRequest request, SessionDesk desk, RuddyContext db) =>
        {
            var row = await MachineAsync(db);
            var trial = await desk.OpenAsync(row.Id, tracked: false) ?? await desk.ProposalAsync(row);
            desk.Ask(trial, request);
            return SessionMapping.View(desk, trial);
        });
        session.MapPut("", async (SessionRequest request, SessionDesk desk, RuddyContext db) =>
        {
            var row = await MachineAsync(db);
            var open = await desk.OpenAsync(row.Id);
            if (open is null)
            {
                open = await desk.ProposalAsync(row);
                desk.Ask(open, request);
                open.Machine = await db.Machines.SingleAsync(m => m.Id == row.Id);
                db.Sessions.Add(open);
            }
            else
            {
                desk.Ask(open, request);
            }

            await db.SaveChangesAsync();
            return SessionMapping.View(desk, open);
        });
        session.MapPost("/begin", (StepTick tick, SessionDesk desk, RuddyContext db) =>
            ChangeAsync(desk, db, s => desk.Begin(s, tick)));
        session.MapPost("/done", (StepTick tick, SessionDesk desk, RuddyContext db) =>
            ChangeAsync(desk, db, s => desk.Done(s, tick)));
        session.MapPost("/undo", (SessionDesk desk, RuddyContext db) => ChangeAsync(desk, db, SessionDesk.Undo));
        session.MapPost("/readings", (NewReading reading, SessionDesk desk, RuddyContext db) =>
            ChangeAsync(desk, db, s => desk.Read(s, reading)));
        session.MapDelete("/readings/{index:int}", (int index, SessionDesk desk, RuddyContext db) =>
            ChangeAsync(desk, db, s =>
            {
                if (index < 0 || index >= s.Log.Readings.Count) throw new NotThereException("That reading is no longer there.");
                s.Log = s.Log with { Readings = [.. s.Log.Readings.Where((_, i) => i != index)] };
            }));
        session.MapPost("/end", (SessionDesk desk, RuddyContext db, TimeProvider time) =>
            ChangeAsync(desk, db, s => s.EndedAt = time.GetUtcNow().UtcDateTime));
        session.MapGet("/plan.ics", async (SessionDesk desk, RuddyContext db) =>
        {
            var row = await MachineAsync(db);
            var view = SessionMapping.View(desk, await desk.OpenAsync(row.Id) ?? await desk.ProposalAsync(row));
            return TypedResults.File(SessionCalendar.Write(view), SessionCalendar.MediaType, "session.ics");
        });
    }

    /// <summary>The machine that the sheet is about.</summary>
    private static async Task<BenchMachine> MachineAsync(RuddyContext db)
    {
        var sheet = await PrepareEndpoints.SheetAsync(db);
        return await db.Machines.AsNoTracking().SingleAsync(m => m.Id == sheet.MachineId);
    }

    private static async Task<SessionView> ChangeAsync(SessionDesk desk, RuddyContext db, Action<Session> change)
    {
        var row = await MachineAsync(db);
        return await desk.Gate.AloneAsync(async () =>
        {
            var session = await desk.NeedAsync(row.Id);
            change(session);
            await db.SaveChangesAsync();
            desk.Announce(session);
            return session.EndedAt is null ? SessionMapping.View(desk, session) : SessionMapping.View(desk, await desk.ProposalAsync(row));
        });
    }
}
