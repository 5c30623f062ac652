using Microsoft.EntityFrameworkCore;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Traces;
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
/// <param name="Before">What to make sure of before any pressure.</param>
/// <param name="After">What to do once the hand has let go.</param>
/// <param name="StrokeMl">Water of one stroke.</param>
/// <param name="Reach">Most pressure over the stroke, for the indicator card.</param>
/// <param name="NeedleToFollow">Whether it has a gauge that eyes can read.</param>
/// <param name="TickSeconds">Rhythm of its strokes; null where there is none.</param>
/// <param name="WaterGrams">Water to pour or to move for the yield, where no scale meters the cup.</param>
public sealed record PullView(
    LiveFrame Frame, Sheet Sheet, PullPlan Plan, IReadOnlyList<PlanPoint> PlanCourse, double PlanSeconds, string MachineName,
    double? MaxHandForceKgf, IReadOnlyList<string> Cautions, IReadOnlyList<PullCheck> Before, IReadOnlyList<PullCheck> After, MachineFamily Family, PressureBy PressureBy,
    double StrokeMl, IReadOnlyList<StrokeReach> Reach, double WaterGrams, bool NeedleToFollow, double? TickSeconds);

/// <summary>An instrument for a pull.</summary>
public sealed record GiveRequest(string Device);

/// <summary>A pull that a crash interrupted.</summary>
public sealed record RecoveredPull(string Id, DateTime StartedAt, string MachineName, double Seconds, int Samples, double? CupGrams);

public sealed record MarkRequest(string Moment);

/// <summary>A shot that was saved.</summary>
public sealed record SavedShot(int ShotId);

public static class PullEndpoints
{
    // two screens never keep one pull twice
    private static readonly SemaphoreSlim Keeping = new(1);

    public static void MapPull(this IEndpointRouteBuilder api)
    {
        api.MapGet("/pull", ViewAsync);
        api.MapPost("/pull/ready", ReadyAsync);
        api.MapPost("/pull/begin", (PullDesk desk, string? pull) => desk.Begin(pull));
        api.MapPost("/pull/mark", (MarkRequest mark, PullDesk desk, string? pull) => desk.Mark(pull, mark.Moment));
        api.MapPost("/pull/stop", (PullDesk desk, string? pull) => desk.Stop(pull));
        api.MapPost("/pull/discard", (PullDesk desk, string? pull) =>
        {
            desk.Discard(pull);
            return desk.WholeFrame(null);
        });
        api.MapPost("/pull/instrument", (GiveRequest give, PullDesk desk, string? pull) => desk.Give(pull, give.Device));
        api.MapPost("/pull/save", SaveAsync);
        api.MapGet("/pull/recovered", RecoveredAsync);
        api.MapPost("/pull/recovered/{id}/save", SaveRecoveredAsync);
        api.MapPost("/pull/recovered/{id}/discard", (string id, PullDesk desk, PullJournal journal) =>
        {
            journal.Close(Found(id, desk, journal).Start.Id);
            return TypedResults.NoContent();
        });
    }

    private static async Task<PullView> ViewAsync(PullDesk desk, RuddyContext db, SessionDesk sessions, string? pull = null)
    {
        var start = desk.StartOf(pull);
        IReadOnlyList<string> cautions = [];
        if (start is null)
        {
            var answer = await PrepareEndpoints.CurrentAsync(db, sessions);
            var bench = await db.Machines.AsNoTracking().SingleAsync(m => m.Id == answer.Sheet.MachineId);
            var ofSheet = PlanLibrary.For(bench.Spec, await PlanLibrary.AllAsync(db), answer.Sheet.PlanKey);
            start = new("", default, answer.Sheet, ofSheet, bench.Spec, bench.Name, answer.WaterC, null);
            cautions = answer.Cautions;
        }

        var (sheet, plan, machine) = (start.Sheet, start.Plan, start.Machine);
        var (course, seconds) = PlanCourse.Usual(plan, machine, sheet.DoseGrams, sheet.YieldGrams);
        return new(
            desk.WholeFrame(pull), sheet, plan, course, seconds, start.MachineName,
            machine.PressureBy == PressureBy.Arm ? machine.WillingForceKgf : null, cautions,
            PullWords.Before(machine, sheet.Preparation?.Cover is PuckCover.Screen or PuckCover.Paper), PullWords.After(machine), machine.Family, machine.PressureBy,
            Strokes.VolumeMl(machine), PlanReach.OverStroke(machine),
            CupVolumes.WaterGrams(machine, sheet.DoseGrams, sheet.YieldGrams), machine.Reads.Contains(Reads.Gauge), Strokes.RhythmSeconds(machine));
    }

    private static async Task<PullView> ReadyAsync(PullDesk desk, RuddyContext db, SessionDesk sessions, TimeProvider time)
    {
        var answer = await PrepareEndpoints.CurrentAsync(db, sessions);
        if (answer.Problems.Count > 0) throw new RuddySpring.Core.DoesNotFitException(answer.Problems[0].Field, answer.Problems[0].Sentence);
        if (!answer.Fits) throw new RuddySpring.Core.DoesNotFitException("yieldGrams", answer.FitSentence);
        var sheet = answer.Sheet;
        var machine = await db.Machines.AsNoTracking().SingleAsync(m => m.Id == sheet.MachineId);
        var belief = await ShotBelief.OfAsync(answer, db, time);
        var start = desk.Ready(
            new(Guid.NewGuid().ToString("N"), time.GetUtcNow().UtcDateTime, sheet, belief.Plan, machine.Spec, machine.Name, answer.WaterC, belief.Expected),
            new
            {
                Pull = "ready",
                Machine = machine.Spec,
                belief.Plan,
                sheet.DoseGrams,
                sheet.YieldGrams,
                sheet.GrindSetting,
                GrindStep = belief.Grinder?.Step,
                DaysFromRoast = belief.BagId == 0 ? (int?)null : (int)belief.AgeDays,
                answer.WaterC,
            });
        return await ViewAsync(desk, db, sessions, start.Id);
    }

    private static async Task<SavedShot> SaveAsync(PullDesk desk, RuddyContext db, SessionDesk sessions, string? pull)
    {
        // a second screen on the same pull asks again for what is kept already
        if (desk.KeptAs(pull) is { } shotId) return new(shotId);
        await Keeping.WaitAsync();
        try
        {
            if (desk.KeptAs(pull) is { } kept) return new(kept);
            var (start, trace, marked, notices) = desk.Finish(pull);
            var shot = await StoreAsync(db, sessions, start, trace, marked, notices);
            desk.Clear(start.Id, shot.Id);
            return new(shot.Id);
        }
        finally
        {
            Keeping.Release();
        }
    }

    private static async Task<IReadOnlyList<RecoveredPull>> RecoveredAsync(PullDesk desk, PullJournal journal, RuddyContext db)
    {
        var names = await db.Machines.AsNoTracking().ToDictionaryAsync(m => m.Id, m => m.Name);
        var found = new List<RecoveredPull>();
        foreach (var pull in journal.Unfinished(desk.CurrentIds))
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
        journal.Unfinished(desk.CurrentIds).SingleOrDefault(p => p.Start.Id == id)
        ?? throw new NotThereException("That interrupted pull is no longer there.");

    private static (Trace Trace, Moments Marked) Replay(JournalledPull pull)
    {
        var tracker = pull.Start.Tracker();
        foreach (var sample in pull.Samples)
        {
            if (pull.StartedByHandAt is { } begun && sample.ServerSeconds >= begun) tracker.StartNow(begun);
            tracker.Take(sample.Channel, sample.ServerSeconds, sample.Value, sample.Origin);
        }

        if (pull.StartedByHandAt is { } at) tracker.StartNow(at);
        double? stop = null;
        foreach (var (moment, seconds) in pull.Marks)
        {
            if (moment == "stop") stop = tracker.Read(seconds).Seconds;
            else if (tracker.Started) tracker.Mark(moment, seconds);
        }

        var trace = tracker.ToTrace();
        return (stop is { } letGo ? trace.UntilCupIsLifted(letGo) : trace, tracker.Marked with { Stop = stop });
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
