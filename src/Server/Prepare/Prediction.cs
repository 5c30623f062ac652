using Microsoft.EntityFrameworkCore;
using RuddySpring.Core;
using RuddySpring.Core.Dialing;
using RuddySpring.Core.Puck;
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
    IReadOnlyList<PredictedPoint> Points, IReadOnlyList<double> FasterGrams, IReadOnlyList<double> SlowerGrams, double? FirstDropsSeconds,
    double Seconds, double SecondsLow, double SecondsHigh, bool ReachesYield, double Strength, double ExtractionLow, double ExtractionShare,
    double ExtractionHigh, int KnownShots, string NarrowedBy);

/// <summary>What to set on the grinder, and why.</summary>
/// <param name="Suggestion">The setting; null where there is nothing to go by yet.</param>
/// <param name="ChanceNow">Chance that the sheet's own setting lands; null without one.</param>
/// <param name="SecondsLow">The time that counts as landing, from the lever's first move.</param>
/// <param name="Sentences">Why, one after the other.</param>
public sealed record GrindAdviceView(
    GrindSuggestion? Suggestion, double? ChanceNow, double SecondsLow, double SecondsHigh, IReadOnlyList<string> Sentences);

/// <summary>One thing to change.</summary>
/// <param name="Of">What changes.</param>
/// <param name="Value">To what, in what the sheet takes: g to a tenth, a setting of the grinder, the factor on every pressure, degC or s.</param>
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

    private static async Task<PredictionView> OfSheetAsync(RuddyContext db, SessionDesk sessions, TimeProvider time, CancellationToken cancel)
    {
        var answer = await PrepareEndpoints.CurrentAsync(db, sessions, cancel);
        if (answer.Problems.Count > 0) return new(null, null);
        var sheet = answer.Sheet;
        var b = await ShotBelief.OfAsync(answer, db, time, cancel);
        var (low, best, high) = b.Unit.Plan.LandingSeconds;
        // the grind that is wanted is searched for beside the forecast: whoever types waits for both
        var wanted = b.Grinder is null || b.Restricted
            ? Task.FromResult<WantedResistance?>(null)
            : Task.Run(() => WantedResistance.Of(b.Unit, low, best, high));
        var forecast = ShotForecast.Of(b.Unit, b.LogResistivity);
        var shot = Shot(forecast, b.Known.Count(s => s.Bag == b.BagId), b.Grinder is not null && sheet.GrindSetting is not null);
        return new(shot, b.Grinder is null ? null : Advise(sheet, b, await wanted, low, high));
    }

    /// <summary>The changes that land the sheet's shot, smallest first, or why there are none. A search, so it has its own question.</summary>
    private static async Task<LandingView> LandingAsync(RuddyContext db, SessionDesk sessions, TimeProvider time, CancellationToken cancel)
    {
        var answer = await PrepareEndpoints.CurrentAsync(db, sessions, cancel);
        if (answer.Problems.Count > 0) return new([], answer.Problems[0].Sentence);
        var sheet = answer.Sheet;
        var b = await ShotBelief.OfAsync(answer, db, time, cancel);
        if (b.Restricted) return new([], null);
        var altitude = await db.Households.AsNoTracking().Select(h => h.AltitudeMetres).SingleAsync(cancel);
        var plans = await PlanLibrary.AllAsync(db, cancel);
        var shot = new ShotToLand(
            b.Middle, setting => Math.Exp(b.Advice.Predict(b.BagId, sheet.MachineId, setting, b.AgeDays, sheet.DoseGrams, b.BasketId).Mean),
            b.Grinder is null ? null : sheet.GrindSetting, b.Steps)
        {
            OtherPlans = [.. plans.Where(p => p.Key != b.Unit.Plan.Key && p.Suits(b.Unit.Machine))],
            BoilingC = Math.Min(Saturation.BoilingPointC(altitude), PuckParameters.WaterTemperature.Max),
        };
        var landing = SolveTheRest.Of(shot, b.Unit.Plan.LandingSeconds, sheet.Locked ?? []);
        return new([.. landing.Changes.Take(MostChanges).Select(c => View(c, shot, b.Grinder?.ScaleUnit ?? ""))], landing.Sentence);
    }

    private static ChangeView View(LandingChange change, ShotToLand shot, string scaleUnit) => new(
        [.. change.Parts.Select(p => new ChangePart(p.Of, p.Value, p.Plan?.Key))],
        string.Join(" ", change.Parts.Select(p => p.Of switch
        {
            ChangeOf.Dose => FormattableString.Invariant($"Dose {p.Value:0.0} g instead of {shot.DoseGrams:0.0} g."),
            ChangeOf.Yield => FormattableString.Invariant($"{p.Value:0.0} g in the cup instead of {shot.YieldGrams:0.0} g."),
            ChangeOf.Grind => FormattableString.Invariant($"Grind at {p.Value:0.##} instead of {shot.Setting:0.##} {scaleUnit}."),
            ChangeOf.Water => FormattableString.Invariant($"Water at {Quantity.Celsius(p.Value):0.0} instead of {Quantity.Celsius(shot.Shot.Water.StartC()):0.0}."),
            ChangeOf.Plan => $"Pull it by the plan {p.Plan!.Name}.",
            ChangeOf.Time => "Leave everything and take the time as it comes.",
            _ => FormattableString.Invariant($"Press {Math.Abs(p.Value - 1) * 100:0} % {(p.Value > 1 ? "harder" : "softer")} all the way: peak {Quantity.Bar(shot.Shot.Plan.PeakBar * p.Value):0.0}."),
        })),
        change.Seconds);

    private static GrindAdviceView Advise(Sheet sheet, ShotBelief b, WantedResistance? wanted, double low, double high)
    {
        var (grinder, advice, age, bagId, known) = (b.Grinder!, b.Advice, b.AgeDays, b.BagId, b.Known);
        if (b.Restricted)
        {
            return new(null, null, low, high, [
                "A small hole in this basket gives the back-pressure, so there is no dialling in by the grind: take shop-ground coffee, or grind a good deal coarser than for an ordinary basket.",
                "Press gently and steadily; what changes the cup is dose, yield and water.",
            ]);
        }

        if (wanted is null)
            return new(null, null, low, high, ["No grind gives this yield in that time on this machine with this plan. Ask for another yield or another plan."]);
        var suggestion = advice.Suggest(bagId, sheet.MachineId, age, sheet.DoseGrams, wanted, b.BasketId);
        if (suggestion is null)
            return new(null, null, low, high, [$"Nothing has been pulled with {grinder.Name} yet. Begin on the fine side and work back; after one shot there is advice here."]);
        double? chance = sheet.GrindSetting is { } set
            ? advice.Chance(bagId, sheet.MachineId, set, age, sheet.DoseGrams, wanted, b.BasketId) : null;
        var sentences = new List<string>
        {
            FormattableString.Invariant($"{suggestion.Chance * 100:0} % chance to land between {low:0} and {high:0} s from the lever's first move when it is pulled as planned, as {(suggestion.Shots == 0 ? "the grinder's other coffees say" : $"{suggestion.Shots} {(suggestion.Shots == 1 ? "shot of this bag says" : "shots of this bag say")}")}."),
        };
        if (suggestion.HeldBack)
            sentences.Add("More would be needed, and the shots so far do not say how much: go this far, pull, and look again.");
        if (suggestion.TooCoarse)
            sentences.Add(FormattableString.Invariant($"One step of {grinder.Name} moves the resistance by {suggestion.StepShare * 100:0} %, more than the band is wide: it is too coarse in its steps for this. Change the dose by a few tenths instead, or let the arm correct."));
        var toward = suggestion.InAWeek - ((suggestion.Low + suggestion.High) / 2);
        if (Math.Abs(toward) > grinder.Step * 0.2)
            sentences.Add(FormattableString.Invariant($"Ageing alone will ask for about {Math.Abs(toward):0.#} {grinder.ScaleUnit} finer in a week."));
        if (known.Count > 0 && known[^1].Bag != bagId && bagId != 0)
            sentences.Add(FormattableString.Invariant($"Another coffee was ground last, at {known[^1].Setting:0.##}: set {grinder.Name} back to {suggestion.Setting:0.##} and purge {(grinder.PurgeGrams > 0 ? FormattableString.Invariant($"{grinder.PurgeGrams:0.#} g ") : "")}before you weigh."));
        sentences.Add("It goes by the resistance of each puck, so what arm and heat did is not held against the grind.");
        return new(suggestion, chance, low, high, sentences);
    }

    private static PredictedShot Shot(ShotForecast forecast, int knownShots, bool setKnown)
    {
        var (fast, middle, slow) = forecast;
        var points = middle.Samples.Where((_, i) => i % EveryNth == 0).Select(s => new PredictedPoint(
            Math.Round(s.Seconds, 2), Math.Round(s.PressureBar, 2), Math.Round(s.FlowGramsPerS, 3), Math.Round(s.CupGrams, 2), Math.Round(s.StrokeMl, 2))).ToList();
        IReadOnlyList<double> Cups(SimulatedShot shot) => [.. points.Select(p => Math.Round(ShotForecast.CupAt(shot, p.Seconds), 2))];
        return new(
            points, Cups(fast), Cups(slow), middle.FirstDropsSeconds, middle.Seconds, fast.Seconds, slow.Seconds, middle.ReachedYield, middle.Strength,
            Math.Min(fast.ExtractionShare, slow.ExtractionShare), middle.ExtractionShare, Math.Max(fast.ExtractionShare, slow.ExtractionShare), knownShots,
            !setKnown ? "grinder and setting" : knownShots < 3 ? "pulling this bag: three shots narrow it a lot" : "doing the preparation the same each time");
    }
}
