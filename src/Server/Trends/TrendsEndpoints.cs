using Microsoft.EntityFrameworkCore;
using RuddySpring.Core.Traces;
using RuddySpring.Core.Trends;
using RuddySpring.Server.Ledger;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Trends;

/// <summary>A quantity to set against another.</summary>
/// <param name="Unit">Of the wire; empty for none.</param>
/// <param name="Digits">Decimals that say something.</param>
public sealed record QuantityView(string Key, string Name, string Unit, int Digits);

/// <summary>A shot in a trend.</summary>
/// <param name="Series">Its coffee: points of one coffee belong together.</param>
public sealed record TrendPoint(int ShotId, DateTime PulledAt, double X, double Y, string Series);

/// <summary>One quantity against another.</summary>
/// <param name="Points">Oldest first.</param>
/// <param name="Line">A straight line with its interval; null where there is too little.</param>
/// <param name="Correlation">By ranks; null where there is too little.</param>
/// <param name="Control">Control chart of y in the order of time; null where there is too little.</param>
/// <param name="Sentence">What it comes to.</param>
public sealed record TrendView(
    QuantityView X,
    QuantityView Y,
    IReadOnlyList<TrendPoint> Points,
    TrendLine? Line,
    RankCorrelation? Correlation,
    ControlChart? Control,
    string Sentence
);

/// <summary>A plan on a machine that was pulled often enough to tell of the arm.</summary>
public sealed record ArmChoice(int MachineId, string Machine, string PlanName, int Pulls);

/// <summary>How repeatable the arm is.</summary>
/// <param name="Choices">What can be asked for, most pulled first.</param>
/// <param name="Of">The one that this is of; null where nothing was pulled often enough.</param>
/// <param name="Arm">Null likewise.</param>
/// <param name="Off">Control chart of the distance from the plan, bar; null where there is too little.</param>
/// <param name="Cup">Control chart of cup less yield, g; null where there is too little.</param>
public sealed record ArmView(
    IReadOnlyList<ArmChoice> Choices,
    ArmChoice? Of,
    ArmRepeat? Arm,
    ControlChart? Off,
    ControlChart? Cup
);

public static class TrendsEndpoints
{
    private const int MostShots = 1000; // what is older tells of another grinder, another hand
    private const int MostChoices = 20;

    public static void MapTrends(this IEndpointRouteBuilder api)
    {
        api.MapGet("/trends/quantities", () => TrendQuantity.All.Select(View).ToList());
        api.MapGet("/trends", OfAsync);
        api.MapGet("/trends/liking", LikingAsync);
        api.MapGet("/trends/arm", ArmAsync);
    }

    private static QuantityView View(TrendQuantity q) => new(q.Key, q.Name, q.Unit, q.Digits);

    private static async Task<TrendView> OfAsync(
        RuddyContext db,
        CancellationToken cancel,
        string x = "age",
        string y = "r10",
        int? machineId = null,
        int? bagId = null,
        int? brewerId = null
    )
    {
        var (qx, qy) = (TrendQuantity.Named(x, "x"), TrendQuantity.Named(y, "y"));
        var shots = await ShotsAsync(db, machineId, bagId, brewerId, cancel);
        var points = shots
            .Select(s => (s.Shot, s.Bag, X: qx.Of(s.Shot), Y: qy.Of(s.Shot)))
            .Where(s => s.X is { } a && s.Y is { } b && double.IsFinite(a) && double.IsFinite(b))
            .Select(s => new TrendPoint(s.Shot.Id, s.Shot.PulledAt, s.X!.Value, s.Y!.Value, s.Bag))
            .ToList();
        var pairs = points.Select(p => (p.X, p.Y)).ToList();
        var (line, correlation) = (TrendLine.Of(pairs), RankCorrelation.Of(pairs));
        return new(
            View(qx),
            View(qy),
            points,
            line,
            correlation,
            ControlChart.Of([.. points.Select(p => p.Y)]),
            TrendWords.Of(qx, qy, line, correlation, points.Count, points.Select(p => p.Series).Distinct().Count())
        );
    }

    private static async Task<Liked> LikingAsync(
        RuddyContext db,
        CancellationToken cancel,
        int? machineId = null,
        int? bagId = null,
        int? brewerId = null
    ) => Liked.Of([.. (await ShotsAsync(db, machineId, bagId, brewerId, cancel)).Select(s => s.Shot)]);

    /// <summary>The newest shots that fit, oldest first, with the names of their coffees.</summary>
    private static async Task<List<(TrendShot Shot, string Bag)>> ShotsAsync(
        RuddyContext db,
        int? machineId,
        int? bagId,
        int? brewerId,
        CancellationToken cancel
    )
    {
        var shots = await Fitting(db, machineId, bagId, brewerId)
            .Include(s => s.Bag)
            .OrderByDescending(s => s.PulledAt)
            .Take(MostShots)
            .ToListAsync(cancel);
        shots.Reverse();
        return [.. shots.Select(s => (Numbers(s), s.Bag?.Name ?? ""))];
    }

    private static IQueryable<Shot> Fitting(RuddyContext db, int? machineId, int? bagId, int? brewerId)
    {
        var shots = db.Shots.AsNoTracking().Where(s => s.DeletedAt == null);
        if (machineId is { } machine)
            shots = shots.Where(s => s.MachineId == machine);
        if (bagId is { } bag)
            shots = shots.Where(s => s.BagId == bag);
        return brewerId is { } brewer ? shots.Where(s => s.BrewerId == brewer) : shots;
    }

    private static TrendShot Numbers(Shot s) =>
        new(
            s.Id,
            s.PulledAt,
            s.Bag?.Dates.RestDays(DateOnly.FromDateTime(s.PulledAt.ToLocalTime())),
            s.GrindSetting,
            s.DoseGrams,
            s.YieldGrams,
            s.WaterC,
            s.GroupC,
            s.Strength,
            s.Measures,
            new(s.Taste.Sour, s.Taste.Bitter, s.Taste.Dry, s.Taste.Sweet, s.Taste.Body, s.Liking)
        );

    private static async Task<ArmView> ArmAsync(
        RuddyContext db,
        CancellationToken cancel,
        int? machineId = null,
        string? planName = null,
        int? brewerId = null
    )
    {
        var recent = await Fitting(db, null, null, brewerId)
            .OrderByDescending(s => s.PulledAt)
            .Take(MostShots)
            .Select(s => new
            {
                s.Id,
                s.MachineId,
                Machine = s.Machine!.Name,
                s.PlanName,
            })
            .ToListAsync(cancel);
        var groups = recent
            .GroupBy(s => (s.MachineId, s.Machine, s.PlanName))
            .Where(g => g.Count() >= ArmRepeat.Fewest && g.Key.PlanName.Length > 0)
            .OrderByDescending(g => g.Count())
            .Take(MostChoices)
            .ToList();
        var choices = groups.Select(g => new ArmChoice(g.Key.MachineId, g.Key.Machine, g.Key.PlanName, g.Count())).ToList();
        var at = groups.FindIndex(g =>
            (machineId is null || g.Key.MachineId == machineId) && (planName is null || g.Key.PlanName == planName)
        );
        if (at < 0)
            return new(choices, null, null, null, null);
        var ids = groups[at].Select(s => s.Id).Take(ArmRepeat.Most).ToList();
        var shots = await db
            .Shots.AsNoTracking()
            .Include(s => s.Trace)
            .Include(s => s.Machine)
            .Include(s => s.Basket)
            .Where(s => ids.Contains(s.Id))
            .OrderBy(s => s.PulledAt)
            .ToListAsync(cancel);
        var pulls = shots
            // what was assumed from the plan tells nothing of the arm
            .Select(s => (Shot: s, Trace: ShotViews.TraceOf(s)))
            .Where(s => s.Trace.Of(Channel.Pressure) is { Origin: not Origin.Assumed })
            .Select(s =>
            {
                var (clean, moments) = MeasureShot.Read(s.Trace, s.Shot.Trace.Marked, ShotRecording.Context(s.Shot)).SinceLever;
                return new ArmPull(clean, moments, s.Shot.YieldGrams, s.Shot.Measures.CupGrams);
            })
            .ToList();
        var arm = shots.Count == 0 ? null : ArmRepeat.Of(shots[^1].Trace.Plan, pulls);
        return new(
            choices,
            choices[at],
            arm,
            arm is null ? null : ControlChart.Of(arm.OffBar),
            arm is null ? null : ControlChart.Of(arm.CupOffGrams)
        );
    }
}
