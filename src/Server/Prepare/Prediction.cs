using Microsoft.EntityFrameworkCore;
using RuddySpring.Core.Dialing;
using RuddySpring.Core.Explain;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Shots;
using RuddySpring.Core.Water;
using RuddySpring.Server.Plans;
using RuddySpring.Server.Sessions;
using RuddySpring.Store;

namespace RuddySpring.Server.Prepare;

/// <summary>A point of the predicted shot.</summary>
/// <param name="StrokeMl">Water moved in the stroke under way, for the indicator card.</param>
public sealed record PredictedPoint(double Seconds, double PressureBar, double FlowGramsPerS, double CupGrams, double StrokeMl);

/// <summary>The shot that the sheet makes, with a band that eight shots in ten should lie in.</summary>
/// <param name="Points">The middle of it, five a second.</param>
/// <param name="FasterGrams">Cup at those seconds at the fast edge of the band, g.</param>
/// <param name="SlowerGrams">And at the slow edge.</param>
/// <param name="Seconds">Time to the yield.</param>
/// <param name="SecondsLow">At the fast edge.</param>
/// <param name="SecondsHigh">At the slow edge.</param>
/// <param name="ReachesYield">False where the middle shot runs out of water or chokes.</param>
/// <param name="Strength">Of the cup, 0 to 1.</param>
/// <param name="ExtractionShare">Solids in the cup over dose, 0 to 1.</param>
/// <param name="KnownShots">Shots of this bag on this grinder that it rests on.</param>
/// <param name="NarrowedBy">What would narrow the band.</param>
public sealed record PredictedShot(
    IReadOnlyList<PredictedPoint> Points,
    IReadOnlyList<double> FasterGrams,
    IReadOnlyList<double> SlowerGrams,
    double? FirstDropsSeconds,
    double Seconds,
    double SecondsLow,
    double SecondsHigh,
    bool ReachesYield,
    double Strength,
    double ExtractionLow,
    double ExtractionShare,
    double ExtractionHigh,
    int KnownShots,
    string NarrowedBy
);

/// <summary>What to set on the grinder, and why.</summary>
/// <param name="Suggestion">The setting; null where there is nothing to go by yet.</param>
/// <param name="ChanceNow">Chance that the sheet's own setting lands; null without one.</param>
/// <param name="SecondsLow">The time that counts as landing, from the lever's first move.</param>
/// <param name="Sentences">Why, one after the other.</param>
public sealed record GrindAdviceView(
    GrindSuggestion? Suggestion,
    double? ChanceNow,
    double SecondsLow,
    double SecondsHigh,
    IReadOnlyList<string> Sentences
);

/// <summary>One thing to change.</summary>
/// <param name="Of">What changes.</param>
/// <param name="Value">To what, in what the sheet takes: g to a tenth, a setting of the grinder, the factor on every pressure,
/// degC or s.</param>
/// <param name="PlanKey">The other plan; null for what is no plan.</param>
public sealed record ChangePart(ChangeOf Of, double Value, string? PlanKey);

/// <summary>A change that lands the time while what is locked stays.</summary>
/// <param name="Parts">One thing, or two together.</param>
/// <param name="Sentence">In words.</param>
/// <param name="Seconds">The time with it.</param>
public sealed record ChangeView(IReadOnlyList<ChangePart> Parts, string Sentence, double Seconds);

/// <summary>What lands the sheet's shot.</summary>
/// <param name="Changes">Smallest first.</param>
/// <param name="Sentence">Where it lands as it stands, or why nothing lands it; null otherwise.</param>
public sealed record LandingView(IReadOnlyList<ChangeView> Changes, string? Sentence);

/// <summary>Predicted shot and grind advice of the sheet as it stands; null while the sheet has problems.</summary>
public sealed record PredictionView(PredictedShot? Shot, GrindAdviceView? Grind);

public static class Prediction
{
    private const int MostChanges = 6;
    private const int EveryNth = 2;

    public static void MapPrediction(this IEndpointRouteBuilder api)
    {
        api.MapGet("/prepare/prediction", OfSheetAsync);
        api.MapGet("/prepare/landing", LandingAsync);
    }

    private static async Task<PredictionView> OfSheetAsync(
        RuddyContext db,
        SessionDesk sessions,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        var answer = await PrepareEndpoints.CurrentAsync(db, sessions, cancel);
        if (answer.Problems.Count > 0)
            return new(null, null);
        var (b, wanted, forecast, shots, set) = await ForecastAsync(answer, db, time, cancel);
        return new(Shot(forecast, shots, set), b.Grinder is null ? null : Advise(answer.Sheet, b, wanted, b.Lands));
    }

    /// <summary>What is forecast of a sheet without problems, for those who explain it.</summary>
    internal static async Task<ForecastFacts> FactsAsync(
        SheetAnswer answer,
        RuddyContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        var (b, wanted, forecast, shots, set) = await ForecastAsync(answer, db, time, cancel);
        var advice = b.Grinder is null ? null : Advise(answer.Sheet, b, wanted, b.Lands);
        return new(
            b.Middle with
            {
                Plan = b.School.Aimed(b.Unit.Plan, answer.Sheet.YieldGrams),
            },
            b.LogResistivity,
            forecast,
            shots,
            NarrowedBy(shots, set),
            advice?.Suggestion,
            advice?.ChanceNow,
            b.Grinder?.ScaleUnit ?? ""
        );
    }

    private static async Task<(
        ShotBelief Belief,
        WantedResistance? Wanted,
        ShotForecast Forecast,
        int KnownShots,
        bool SetKnown
    )> ForecastAsync(SheetAnswer answer, RuddyContext db, TimeProvider time, CancellationToken cancel)
    {
        var b = await ShotBelief.OfAsync(answer, db, time, cancel);
        var lands = b.Lands;
        // the grind that is wanted is searched for beside the forecast: whoever types waits for both
        var wanted =
            b.Grinder is null || b.Restricted
                ? Task.FromResult<WantedResistance?>(null)
                : Task.Run(() => WantedResistance.Of(b.Unit, lands.Low, lands.Best, lands.High));
        var forecast = ShotForecast.Of(b.Unit, b.LogResistivity);
        var setKnown = b.Grinder is not null && answer.Sheet.GrindSetting is not null;
        return (b, await wanted, forecast, b.Known.Count(s => s.Bag == b.BagId), setKnown);
    }

    private static string NarrowedBy(int knownShots, bool setKnown) =>
        !setKnown ? "grinder and setting"
        : knownShots < 3 ? "pulling this bag: three shots narrow it a lot"
        : "doing the preparation the same each time";

    /// <summary>The changes that land the sheet's shot, smallest first, or why there are none. A search, so it has its own
    /// question.</summary>
    private static async Task<LandingView> LandingAsync(
        RuddyContext db,
        SessionDesk sessions,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        var answer = await PrepareEndpoints.CurrentAsync(db, sessions, cancel);
        if (answer.Problems.Count > 0)
            return new([], answer.Problems[0].Sentence);
        var sheet = answer.Sheet;
        var b = await ShotBelief.OfAsync(answer, db, time, cancel);
        if (b.Restricted)
            return new([], null);
        var altitude = await db.Households.AsNoTracking().Select(h => h.AltitudeMetres).SingleAsync(cancel);
        var plans = await PlanLibrary.AllAsync(db, cancel);
        var shot = new ShotToLand(
            b.Middle,
            setting => b.Advice.Predict(b.BagId, sheet.MachineId, setting, b.AgeDays, sheet.DoseGrams, b.BasketId).Median,
            b.Grinder is null ? null : sheet.GrindSetting,
            b.Steps
        )
        {
            OtherPlans =
            [
                .. plans
                    .Where(p => p.Key != b.Unit.Plan.Key && p.Suits(b.Unit.Machine))
                    .Select(p => b.School.Aimed(p, sheet.YieldGrams)),
            ],
            BoilingC = Math.Min(Saturation.BoilingPointC(altitude), PuckParameters.WaterTemperature.Max),
        };
        var landing = SolveTheRest.Of(shot, b.Lands, sheet.Locked ?? []);
        return new(
            [.. landing.Changes.Take(MostChanges).Select(c => View(c, shot, b.Grinder?.ScaleUnit ?? ""))],
            landing.Sentence
        );
    }

    private static ChangeView View(LandingChange change, ShotToLand shot, string scaleUnit) =>
        new(
            [.. change.Parts.Select(p => new ChangePart(p.Of, p.Value, p.Plan?.Key))],
            LandingWords.Of(change, shot, scaleUnit),
            change.Seconds
        );

    private static GrindAdviceView Advise(Sheet sheet, ShotBelief b, WantedResistance? wanted, TimeBand lands)
    {
        var grinder = b.Named!;
        GrindAdviceView Words(IReadOnlyList<string> sentences) => new(null, null, lands.Low, lands.High, sentences);
        if (b.Restricted)
            return Words(GrindWords.Restricted);
        if (wanted is null)
            return Words(GrindWords.OutOfReach);
        if (b.Advice.Suggest(b.BagId, sheet.MachineId, b.AgeDays, sheet.DoseGrams, wanted, b.BasketId) is not { } suggestion)
            return Words(GrindWords.Nothing(grinder));
        double? chance = sheet.GrindSetting is { } set
            ? b.Advice.Chance(b.BagId, sheet.MachineId, set, b.AgeDays, sheet.DoseGrams, wanted, b.BasketId)
            : null;
        double? before = b.Known.Count > 0 && b.Known[^1].Bag != b.BagId && b.BagId != 0 ? b.Known[^1].Setting : null;
        return new(suggestion, chance, lands.Low, lands.High, GrindWords.Of(suggestion, grinder, lands, before));
    }

    private static PredictedShot Shot(ShotForecast forecast, int knownShots, bool setKnown) =>
        Shot(forecast, knownShots, NarrowedBy(knownShots, setKnown));

    /// <summary>A forecast for drawing.</summary>
    internal static PredictedShot Shot(ShotForecast forecast, int knownShots, string narrowedBy)
    {
        var (fast, middle, slow) = forecast;
        var points = middle
            .Samples.Where((_, i) => i % EveryNth == 0)
            .Select(s => new PredictedPoint(
                Math.Round(s.Seconds, 2),
                Math.Round(s.PressureBar, 2),
                Math.Round(s.FlowGramsPerS, 3),
                Math.Round(s.CupGrams, 2),
                Math.Round(s.StrokeMl, 2)
            ))
            .ToList();
        IReadOnlyList<double> Cups(SimulatedShot shot) =>
            [.. points.Select(p => Math.Round(ShotForecast.CupAt(shot, p.Seconds), 2))];
        return new(
            points,
            Cups(fast),
            Cups(slow),
            middle.FirstDropsSeconds,
            middle.Seconds,
            fast.Seconds,
            slow.Seconds,
            middle.ReachedYield,
            middle.Strength,
            Math.Min(fast.ExtractionShare, slow.ExtractionShare),
            middle.ExtractionShare,
            Math.Max(fast.ExtractionShare, slow.ExtractionShare),
            knownShots,
            narrowedBy
        );
    }
}
