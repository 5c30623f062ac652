using Microsoft.EntityFrameworkCore;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Practice;
using RuddySpring.Core.Shots;
using RuddySpring.Server.Hosting;
using RuddySpring.Server.Instruments;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Practice;

public static class PracticeEndpoints
{
    private const int MostPlayed = 50;

    public static void MapPractice(this IEndpointRouteBuilder api)
    {
        api.MapGet("/practice", OverviewAsync);
        api.MapPost("/practice", BeginAsync);
        api.MapPost("/practice/{id}/drops", (string id, PracticeDesk desk, SteadyClock clock) =>
        {
            Found(desk, id).MarkDrops(clock.Now);
            return TypedResults.NoContent();
        });
        api.MapPost("/practice/{id}/let-go", (string id, PracticeDesk desk, SteadyClock clock) =>
        {
            Found(desk, id).LetGo(clock.Now);
            return TypedResults.NoContent();
        });
        api.MapPost("/practice/{id}/end", EndAsync);
        api.MapDelete("/practice/{id}", (string id, PracticeDesk desk) =>
        {
            desk.Remove(id);
            return TypedResults.NoContent();
        });
    }

    private static PracticeSession Found(PracticeDesk desk, string id) =>
        desk.Find(id) ?? throw new NotThereException("That lesson is no longer being played. Begin it again.");

    private static async Task<PracticeOverview> OverviewAsync(RuddyContext db, CancellationToken cancel)
    {
        var views = await LessonsAsync(db, cancel);
        return new(views, Lessons.Next(key => views.Single(l => l.Key == key).Played.Select(p => (int?)p.Points).Max()).Key);
    }

    private static async Task<PracticeView> BeginAsync(
        PracticeRequest asked,
        PracticeDesk desk,
        RuddyContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        var lesson = Lessons.Of(asked.Lesson);
        var chosen = asked.MachineId is { } id
            ? await db.Machines.AsNoTracking().SingleOrDefaultAsync(m => m.Id == id && m.DeletedAt == null, cancel)
                ?? throw new NotThereException($"There is no machine {id}.")
            : null;
        var machine = lesson.On(chosen?.Spec ?? FamilyDefaults.Of(MachineFamily.PortableLever).Machine);
        var session = desk.Begin(lesson, new PracticeRun(lesson, machine, (ulong)time.GetTimestamp()));
        var (course, seconds) = PlanCourse.Usual(lesson.Plan, machine, lesson.DoseGrams, lesson.YieldGrams);
        var view = (await LessonsAsync(db, cancel)).Single(l => l.Key == lesson.Key);
        return new(
            session.Id,
            view,
            machine == chosen?.Spec ? chosen.Name : FamilyWords.Name(machine.Family),
            session.Frame(0, 0, whole: true),
            lesson.Plan,
            course,
            Math.Min(seconds, lesson.LongestSeconds),
            lesson.YieldGrams,
            machine.PressureBy == PressureBy.Arm ? machine.WillingForceKgf : null,
            machine.PressureBy,
            Strokes.VolumeMl(machine),
            PlanReach.OverStroke(machine),
            LeverControls.Of(machine),
            Strokes.RhythmSeconds(machine),
            lesson.Plan.Easing()
        );
    }

    private static async Task<PracticeResult> EndAsync(
        string id,
        PracticeDesk desk,
        SteadyClock clock,
        RuddyContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        var session = Found(desk, id);
        if (!desk.Remove(id))
            throw new NotThereException("That lesson has been scored already.");
        var record = session.End(clock.Now);
        var score = PracticeScore.Of(session.Lesson, record);
        var before = (await LessonsAsync(db, cancel)).Single(l => l.Key == session.Lesson.Key).Played;
        db.Practice.Add(
            new PracticeAttempt
            {
                LessonKey = session.Lesson.Key,
                PlayedAt = time.GetUtcNow().UtcDateTime,
                Family = session.Run.Machine.Family,
                Points = score.Points,
                Score = score,
            }
        );
        await db.SaveChangesAsync(cancel);
        return new(
            session.Lesson.Key,
            score,
            before.Count == 0 ? null : before.Max(p => p.Points),
            before.Count == 0 ? null : before[^1].Points,
            Lessons.After(session.Lesson)?.Key,
            session.Run.OverDialledIn,
            record.TrueDropsSeconds,
            record.ChannelSeconds
        );
    }

    private static async Task<IReadOnlyList<LessonView>> LessonsAsync(RuddyContext db, CancellationToken cancel)
    {
        var played = (
            await db
                .Practice.AsNoTracking()
                .OrderBy(p => p.PlayedAt)
                .Select(p => new
                {
                    p.LessonKey,
                    p.PlayedAt,
                    p.Points,
                })
                .ToListAsync(cancel)
        ).ToLookup(p => p.LessonKey);
        return
        [
            .. Lessons.All.Select(l => new LessonView(
                l.Key,
                l.Name,
                l.Teaches,
                l.Why,
                [.. l.Scored.Keys],
                l.Family,
                [.. played[l.Key].TakeLast(MostPlayed).Select(p => new PlayedOnce(p.PlayedAt, p.Points))]
            )),
        ];
    }
}
