using Microsoft.EntityFrameworkCore;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Shots;
using RuddySpring.Server.Hosting;
using RuddySpring.Server.Plans;
using RuddySpring.Server.Prepare;
using RuddySpring.Server.Sessions;
using RuddySpring.Store;

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
/// <param name="SheetVersion">Version of the sheet that the next pull would be made ready of.</param>
/// <param name="Easing">Which of the plan's phases the hand eases into.</param>
/// <param name="WaterGrams">Water to pour or to move for the yield, where no scale meters the cup.</param>
public sealed record PullView(
    LiveFrame Frame,
    Sheet Sheet,
    PullPlan Plan,
    IReadOnlyList<PlanPoint> PlanCourse,
    double PlanSeconds,
    string MachineName,
    double? MaxHandForceKgf,
    IReadOnlyList<PullCheck> Before,
    IReadOnlyList<PullCheck> After,
    MachineFamily Family,
    PressureBy PressureBy,
    double StrokeMl,
    IReadOnlyList<StrokeReach> Reach,
    double WaterGrams,
    bool NeedleToFollow,
    double? TickSeconds,
    int SheetVersion,
    IReadOnlyList<bool> Easing
);

/// <summary>An instrument for a pull.</summary>
public sealed record GiveRequest(string Device);

/// <summary>Makes a pull ready of the sheet as the screen knows it.</summary>
/// <param name="SheetVersion">The sheet's version that was seen.</param>
public sealed record ReadyRequest(int SheetVersion);

/// <summary>A pull that a crash interrupted.</summary>
/// <param name="StartedAt">When it began, or its file was last written where it cannot be read, UTC.</param>
/// <param name="Problem">Why it cannot be kept as a shot; null where it can.</param>
public sealed record RecoveredPull(
    string Id,
    DateTime StartedAt,
    string MachineName,
    double Seconds,
    int Samples,
    double? CupGrams,
    string? Problem
);

/// <summary>A pull that was thrown away.</summary>
/// <param name="ShotId">The shot in the bin; null where nothing had been pulled yet.</param>
public sealed record DiscardedPull(int? ShotId);

public sealed record MarkRequest(string Moment);

/// <summary>A shot that was saved.</summary>
public sealed record SavedShot(int ShotId);

public static class PullEndpoints
{
    public static void MapPull(this IEndpointRouteBuilder api)
    {
        api.MapGet("/pull", ViewAsync);
        api.MapGet("/pull/learned", (RuddyContext db, CancellationToken cancel) => PullLearning.DelaysAsync(db, cancel));
        api.MapPost("/pull/ready", ReadyAsync);
        api.MapPost("/pull/begin", (PullDesk desk, string? pull) => desk.Begin(pull));
        api.MapPost("/pull/mark", (MarkRequest mark, PullDesk desk, string? pull) => desk.Mark(pull, mark.Moment));
        api.MapPost("/pull/stop", (PullDesk desk, string? pull) => desk.Stop(pull));
        api.MapPost("/pull/late", (LateDeeds late, PullDesk desk, string? pull) => desk.Late(pull, late.Checked()));
        api.MapPost("/pull/discard", (PullKeeping keeping, string? pull, bool forGood = false) =>
            keeping.DiscardAsync(pull, forGood)
        );
        api.MapPost("/pull/instrument", (GiveRequest give, PullDesk desk, string? pull) => desk.Give(pull, give.Device));
        api.MapPost("/pull/save", (PullKeeping keeping, string? pull) => keeping.SaveAsync(pull));
        api.MapGet("/pull/trace.csv", (PullDesk desk, string? pull) =>
        {
            var (id, trace) = desk.TraceOf(pull);
            return TypedResults.File(
                System.Text.Encoding.UTF8.GetBytes(Exchange.TraceCsvWriter.Write(trace)),
                "text/csv; charset=utf-8",
                $"pull-{id}.csv"
            );
        });
        api.MapGet("/pull/recovered", (PullKeeping keeping, CancellationToken cancel) => keeping.RecoveredAsync(cancel));
        api.MapPost("/pull/recovered/{id}/save", (string id, PullKeeping keeping) => keeping.SaveRecoveredAsync(id, bin: false));
        api.MapPost("/pull/recovered/{id}/discard", async (string id, PullKeeping keeping) =>
            new DiscardedPull((await keeping.SaveRecoveredAsync(id, bin: true)).ShotId)
        );
        api.MapPost("/pull/recovered/{id}/set-aside", (string id, PullJournal journal) =>
        {
            journal.SetAside(id);
            return TypedResults.NoContent();
        });
    }

    private static async Task<PullView> ViewAsync(
        PullDesk desk,
        RuddyContext db,
        SessionDesk sessions,
        CancellationToken cancel,
        string? pull = null
    )
    {
        var start = desk.StartOf(pull);
        var version = 0;
        if (start is null)
        {
            var answer = await PrepareEndpoints.CurrentAsync(db, sessions, cancel);
            var bench = await db.Machines.AsNoTracking().SingleAsync(m => m.Id == answer.Sheet.MachineId, cancel);
            var ofSheet = PlanLibrary.For(bench.Spec, await PlanLibrary.AllAsync(db, cancel), answer.Sheet.PlanKey);
            start = new("", default, answer.Sheet, ofSheet, bench.Spec, bench.Name, answer.WaterC, null);
            version = answer.Version;
        }

        var (sheet, plan, machine) = (start.Sheet, start.Plan, start.Machine);
        var (course, seconds) = PlanCourse.Usual(plan, machine, sheet.DoseGrams, sheet.YieldGrams);
        return new(
            desk.WholeFrame(pull),
            sheet,
            plan,
            course,
            seconds,
            start.MachineName,
            machine.PressureBy == PressureBy.Arm ? machine.WillingForceKgf : null,
            PullWords.Before(machine, sheet.Preparation?.Cover is PuckCover.Screen or PuckCover.Paper),
            PullWords.After(machine),
            machine.Family,
            machine.PressureBy,
            Strokes.VolumeMl(machine),
            PlanReach.OverStroke(machine),
            CupVolumes.WaterGrams(machine, sheet.DoseGrams, sheet.YieldGrams),
            machine.Reads.Contains(Reads.Gauge),
            Strokes.RhythmSeconds(machine),
            version,
            plan.Easing()
        );
    }

    private static async Task<PullView> ReadyAsync(
        ReadyRequest request,
        PullDesk desk,
        RuddyContext db,
        SessionDesk sessions,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        var answer = await PrepareEndpoints.CurrentAsync(db, sessions, cancel);
        if (answer.Version != request.SheetVersion)
            throw new NotNowException(
                "The sheet was changed on another screen since you saw it. Check it again, then go to the pull."
            );
        if (answer.Problems.Count > 0)
            throw new RuddySpring.Core.DoesNotFitException(answer.Problems[0].Field, answer.Problems[0].Sentence);
        if (!answer.Fits)
            throw new RuddySpring.Core.DoesNotFitException("yieldGrams", answer.FitSentence);
        var sheet = answer.Sheet;
        var machine = await db.Machines.AsNoTracking().SingleAsync(m => m.Id == sheet.MachineId, cancel);
        var belief = await ShotBelief.OfAsync(answer, db, time, cancel);
        var start = desk.Ready(
            PullLearning.With(
                new(
                    Guid.NewGuid().ToString("N"),
                    time.GetUtcNow().UtcDateTime,
                    sheet,
                    belief.Unit.Plan,
                    machine.Spec,
                    machine.Name,
                    answer.WaterC,
                    belief.Expected,
                    belief.BasketId == 0 ? null : belief.Unit.Bed.Basket,
                    Scale: desk.ScaleName,
                    Water: answer.WaterCourse,
                    Lands: belief.Lands
                ),
                belief.Taught
            ),
            new
            {
                Pull = "ready",
                Machine = machine.Spec,
                belief.Unit.Plan,
                sheet.DoseGrams,
                sheet.YieldGrams,
                sheet.GrindSetting,
                GrindStep = belief.Grinder?.Step,
                DaysFromRoast = belief.BagId == 0 ? (int?)null : (int)belief.AgeDays,
                answer.WaterC,
            }
        );
        return await ViewAsync(desk, db, sessions, cancel, start.Id);
    }
}
