using Microsoft.EntityFrameworkCore;
using RuddySpring.Server.Hosting;
using RuddySpring.Server.Prepare;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Sessions;

/// <summary>The session from switch-on to last rinse: planned, followed, re-planned from what really happened.</summary>
public static class SessionEndpoints
{
    private const double SameSeconds = 1e-6;

    public static void MapSessions(this IEndpointRouteBuilder api)
    {
        var session = api.MapGroup("/session");
        session.MapGet("", CurrentAsync);

        // what would come of other wants, without keeping them
        session.MapPost("/preview", async (SessionRequest request, SessionDesk desk, RuddyContext db, CancellationToken cancel) =>
        {
            var row = await MachineAsync(db, cancel);
            var trial = await desk.OpenAsync(row.Id, cancel, tracked: false) ?? await desk.ProposalAsync(row, cancel);
            desk.Ask(trial, request);
            return SessionMapping.View(desk, trial);
        });
        session.MapPut(
            "",
            async (SessionRequest request, int version, SessionDesk desk, RuddyContext db, CancellationToken cancel) =>
            {
                var row = await MachineAsync(db, cancel);
                return await desk.Gate.AloneAsync(
                    async () =>
                    {
                        var open = await desk.OpenAsync(row.Id, cancel);
                        if ((open?.WantsVersion ?? 0) != version)
                            throw new ChangedMeanwhileException("The session");
                        var asked = open ?? await desk.ProposalAsync(row, cancel);
                        desk.Ask(asked, request);
                        asked.WantsVersion++;
                        if (open is null)
                            await desk.AddAsync(asked, cancel);
                        await db.SaveChangesAsync(cancel);
                        return SessionMapping.View(desk, asked);
                    },
                    cancel
                );
            }
        );
        session.MapPost("/begin", (StepTick tick, SessionDesk desk, RuddyContext db, CancellationToken cancel) =>
            ChangeAsync(desk, db, s => desk.Begin(s, tick), cancel)
        );
        session.MapPost("/done", (StepTick tick, SessionDesk desk, RuddyContext db, CancellationToken cancel) =>
            ChangeAsync(desk, db, s => desk.Done(s, tick), cancel)
        );
        session.MapPost("/undo", (TickBack tick, SessionDesk desk, RuddyContext db, CancellationToken cancel) =>
            ChangeAsync(desk, db, s => SessionDesk.Undo(s, tick.Key), cancel)
        );
        session.MapPost("/readings", (NewReading reading, SessionDesk desk, RuddyContext db, CancellationToken cancel) =>
            ChangeAsync(desk, db, s => desk.Read(s, reading), cancel)
        );
        session.MapDelete(
            "/readings/{index:int}",
            (int index, double atSeconds, SessionDesk desk, RuddyContext db, CancellationToken cancel) =>
                ChangeAsync(
                    desk,
                    db,
                    s =>
                    {
                        // numbers move up when another screen takes one away: the time says which is meant
                        if (
                            index < 0
                            || index >= s.Log.Readings.Count
                            || Math.Abs(s.Log.Readings[index].AtSeconds - atSeconds) > SameSeconds
                        )
                            throw new NotThereException("That reading is no longer there.");
                        s.Log = s.Log with { Readings = [.. s.Log.Readings.Where((_, i) => i != index)] };
                    },
                    cancel
                )
        );
        session.MapPost("/end", (SessionDesk desk, RuddyContext db, TimeProvider time, CancellationToken cancel) =>
            ChangeAsync(desk, db, s => s.EndedAt = time.GetUtcNow().UtcDateTime, cancel)
        );
        session.MapGet("/plan.ics", async (SessionDesk desk, RuddyContext db, CancellationToken cancel) =>
            TypedResults.File(
                SessionCalendar.Write(await CurrentAsync(desk, db, cancel)),
                SessionCalendar.MediaType,
                "session.ics"
            )
        );
    }

    /// <summary>The session under way on the sheet's machine, or as it would be planned now.</summary>
    /// <exception cref="NotThereException">There is no machine yet.</exception>
    public static async Task<SessionView> CurrentAsync(SessionDesk desk, RuddyContext db, CancellationToken cancel)
    {
        var row = await MachineAsync(db, cancel);
        return SessionMapping.View(
            desk,
            await desk.OpenAsync(row.Id, cancel, tracked: false) ?? await desk.ProposalAsync(row, cancel)
        );
    }

    /// <summary>The machine that the sheet is about.</summary>
    private static async Task<BenchMachine> MachineAsync(RuddyContext db, CancellationToken cancel)
    {
        var (sheet, _) = await PrepareEndpoints.SheetAsync(db, cancel);
        return await db.Machines.AsNoTracking().SingleAsync(m => m.Id == sheet.MachineId, cancel);
    }

    private static async Task<SessionView> ChangeAsync(
        SessionDesk desk,
        RuddyContext db,
        Action<Session> change,
        CancellationToken cancel
    )
    {
        var row = await MachineAsync(db, cancel);
        return await desk.Gate.AloneAsync(
            async () =>
            {
                var session = await desk.NeedAsync(row.Id, cancel);
                change(session);
                await db.SaveChangesAsync(cancel);
                desk.Announce(session);
                return SessionMapping.View(desk, session.EndedAt is null ? session : await desk.ProposalAsync(row, cancel));
            },
            cancel
        );
    }
}
