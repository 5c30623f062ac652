using Microsoft.EntityFrameworkCore;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Traces;
using RuddySpring.Server.Bench;
using RuddySpring.Server.Hosting;
using RuddySpring.Server.Plans;
using RuddySpring.Server.Prepare;
using RuddySpring.Server.Sessions;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Pull;

/// <summary>The pull under way, or the one that would be next.</summary>
/// <param name="Frame">State and samples so far.</param>
/// <param name="Sheet">What was set.</param>
/// <param name="Plan">The plan.</param>
/// <param name="PlanCourse">The plan's course on an ordinary puck, for drawing.</param>
/// <param name="MachineName">Name of the machine.</param>
/// <param name="MaxHandForceKgf">What the brewer is willing to use; null where the hand makes no pressure.</param>
public sealed record PullView(
    LiveFrame Frame, Sheet Sheet, PullPlan Plan, IReadOnlyList<PlanPoint> PlanCourse, double PlanSeconds, string MachineName,
    double? MaxHandForceKgf, IReadOnlyList<string> Cautions);

/// <summary>A pull that a crash interrupted.</summary>
public sealed record RecoveredPull(string Id, DateTime StartedAt, string MachineName, double Seconds, int Samples, double? CupGrams);

public sealed record MarkRequest(string Moment);

/// <summary>A shot that was saved.</summary>
public sealed record SavedShot(int ShotId);

public static class PullEndpoints
{
    public static void MapPull(this IEndpointRouteBuilder api)
    {
        api.MapGet("/pull", ViewAsync);
        api.MapPost("/pull/ready", ReadyAsync);
        api.MapPost("/pull/begin", (PullDesk desk) => Then(desk, desk.Begin));
        api.MapPost("/pull/mark", (MarkRequest mark, PullDesk desk) => Then(desk, () => desk.Mark(mark.Moment)));
        api.MapPost("/pull/stop", (PullDesk desk) => Then(desk, desk.Stop));
        api.MapPost("/pull/discard", (PullDesk desk) => Then(desk, desk.Discard));
        api.MapPost("/pull/save", SaveAsync);
        api.MapGet("/pull/recovered", RecoveredAsync);
        api.MapPost("/pull/recovered/{id}/save", SaveRecoveredAsync);
        api.MapPost("/pull/recovered/{id}/discard", (string id, PullDesk desk, PullJournal journal) =>
        {
            journal.Close(Found(id, desk, journal).Start.Id);
            return TypedResults.NoContent();
        });
    }

    private static LiveFrame Then(PullDesk desk, Action action)
    {
        action();
        return desk.WholeFrame();
    }

    private static async Task<PullView> ViewAsync(PullDesk desk, RuddyContext db, SessionDesk sessions)
    {
        var answer = await PrepareEndpoints.CurrentAsync(db, sessions);
        var start = desk.CurrentStart;
        var sheet = start?.Sheet ?? answer.Sheet;
        var machine = await db.Machines.AsNoTracking().SingleAsync(m => m.Id == sheet.MachineId);
        var plan = start?.Plan ?? PlanLibrary.For(machine.Spec, await PlanLibrary.AllAsync(db), sheet.PlanKey);
        var (course, seconds) = PlanCourse.Usual(plan, machine.Spec, sheet.DoseGrams, sheet.YieldGrams);
        return new(
            desk.WholeFrame(), sheet, plan, course, seconds, machine.Name,
            machine.Spec.PressureBy == PressureBy.Arm ? machine.Spec.WillingForceKgf : null, answer.Cautions);
    }

    private static async Task<PullView> ReadyAsync(PullDesk desk, RuddyContext db, SessionDesk sessions, TimeProvider time)
    {
        var answer = await PrepareEndpoints.CurrentAsync(db, sessions);
        if (answer.Problems.Count > 0) throw new RuddySpring.Core.DoesNotFitException(answer.Problems[0].Field, answer.Problems[0].Sentence);
        if (!answer.Fits) throw new RuddySpring.Core.DoesNotFitException("yieldGrams", answer.FitSentence);
        var sheet = answer.Sheet;
        var machine = await db.Machines.AsNoTracking().SingleAsync(m => m.Id == sheet.MachineId);
        var bag = await db.Bags.AsNoTracking().SingleOrDefaultAsync(b => b.Id == sheet.BagId);
        var grinder = await db.Grinders.AsNoTracking().SingleOrDefaultAsync(g => g.Id == sheet.GrinderId);
        var plan = PlanLibrary.For(machine.Spec, await PlanLibrary.AllAsync(db), sheet.PlanKey);
        desk.Ready(sheet, plan, machine, answer.WaterC, new
        {
            Pull = "ready",
            Machine = machine.Spec,
            Plan = plan,
            sheet.DoseGrams,
            sheet.YieldGrams,
            sheet.GrindSetting,
            GrindStep = grinder?.Step,
            DaysFromRoast = bag is null ? (int?)null : BenchEndpoints.DaysFromRoast(bag, time),
            answer.WaterC,
        });
        return await ViewAsync(desk, db, sessions);
    }

    private static async Task<SavedShot> SaveAsync(PullDesk desk, PullJournal journal, RuddyContext db, SessionDesk sessions)
    {
        var (start, trace, marked, notices) = desk.Finish();
        var shot = await StoreAsync(db, sessions, start, trace, marked, notices);
        desk.Clear(start.Id);
        journal.Close(start.Id);
        return new(shot.Id);
    }

    private static async Task<IReadOnlyList<RecoveredPull>> RecoveredAsync(PullDesk desk, PullJournal journal, RuddyContext db)
    {
        var names = await db.Machines.AsNoTracking().ToDictionaryAsync(m => m.Id, m => m.Name);
        var found = new List<RecoveredPull>();
        foreach (var pull in journal.Unfinished(desk.CurrentId))
        {
            var (trace, _) = Replay(pull);
            if (trace.EndSeconds < 1.0)
            {
                journal.Close(pull.Start.Id); // made ready and never begun: nothing to offer back
                continue;
            }

            var weight = trace.Of(Channel.Weight);
            found.Add(new(
                pull.Start.Id, pull.Start.StartedAt, names.GetValueOrDefault(pull.Start.Sheet.MachineId, "a machine"), trace.EndSeconds,
                trace.Series.Sum(s => s.Count), weight?.Values[^1]));
        }

        return found;
    }

    private static async Task<SavedShot> SaveRecoveredAsync(string id, PullDesk desk, PullJournal journal, RuddyContext db, SessionDesk sessions)
    {
        var pull = Found(id, desk, journal);
        var (trace, marked) = Replay(pull);
        var shot = await StoreAsync(
            db, sessions, pull.Start, trace, marked, "The application was interrupted during this pull; the trace was brought back from its journal.");
        journal.Close(id);
        return new(shot.Id);
    }

    private static JournalledPull Found(string id, PullDesk desk, PullJournal journal) =>
        journal.Unfinished(desk.CurrentId).SingleOrDefault(p => p.Start.Id == id)
        ?? throw new NotThereException("That interrupted pull is no longer there.");

    private static (Trace Trace, Moments Marked) Replay(JournalledPull pull)
    {
        var tracker = new PullTracker(pull.Start.Plan, pull.Start.Machine, pull.Start.Sheet.YieldGrams);
        foreach (var sample in pull.Samples)
        {
            if (pull.StartedByHandAt is { } begun && sample.ServerSeconds >= begun) tracker.StartNow(begun);
            tracker.Take(sample.Channel, sample.ServerSeconds, sample.Value);
        }

        if (pull.StartedByHandAt is { } at) tracker.StartNow(at);
        double? stop = null;
        foreach (var (moment, seconds) in pull.Marks)
        {
            if (moment == "stop") stop = tracker.Read(seconds).Seconds;
            else if (tracker.Started) tracker.Mark(moment, seconds);
        }

        return (tracker.ToTrace(), tracker.Marked with { Stop = stop });
    }

    private static async Task<Shot> StoreAsync(RuddyContext db, SessionDesk sessions, PullStart start, Trace trace, Moments marked, string notices)
    {
        var sheet = start.Sheet;
        var shot = new Shot
        {
            PulledAt = start.StartedAt,
            Source = ShotSource.Pulled,
            BrewerId = sheet.BrewerId,
            MachineId = sheet.MachineId,
            BagId = sheet.BagId,
            GrinderId = sheet.GrinderId,
            GrindSetting = sheet.GrindSetting,
            BasketId = sheet.BasketId,
            Preparation = sheet.Preparation,
            DoseGrams = sheet.DoseGrams,
            YieldGrams = sheet.YieldGrams,
            WaterC = Math.Round(start.WaterC, 1),
            Notices = notices,
        };
        ShotRecording.SetTrace(shot, start.Plan, trace, marked);
        await Ledger.ShotText.SetAsync(db, shot);
        db.Shots.Add(shot);
        if (await db.Bags.SingleOrDefaultAsync(b => b.Id == shot.BagId) is { GramsLeft: { } left } bag)
            bag.GramsLeft = Math.Max(0, Math.Round(left - shot.DoseGrams, 1));
        await db.SaveChangesAsync();
        await sessions.ShotPulledAsync(
            shot.MachineId, shot.PulledAt, shot.Measures.SecondsFromLever ?? trace.EndSeconds, shot.Measures.CupGrams ?? shot.YieldGrams, shot.DoseGrams);
        return shot;
    }
}
