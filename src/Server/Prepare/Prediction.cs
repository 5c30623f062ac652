using Microsoft.EntityFrameworkCore;
using RuddySpring.Core.Dialing;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Traces;
using RuddySpring.Server.Bench;
using RuddySpring.Server.Sessions;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Prepare;

/// <summary>A point of the predicted shot.</summary>
public sealed record PredictedPoint(double Seconds, double PressureBar, double FlowMlPerS, double CupGrams);

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

/// <summary>One change that lands the time with the grind left as it is.</summary>
/// <param name="Of">What changes.</param>
/// <param name="Value">To what, in what the sheet takes: g to a tenth, or the factor on every pressure.</param>
/// <param name="Sentence">In words.</param>
public sealed record ChangeView(ChangeOf Of, double Value, string Sentence);

/// <summary>Predicted shot and grind advice of the sheet as it stands; null while the sheet has problems.</summary>
/// <param name="WithThisGrind">Where the predicted time is out of its band: the single changes that land it, smallest first.</param>
public sealed record PredictionView(PredictedShot? Shot, GrindAdviceView? Grind, IReadOnlyList<ChangeView> WithThisGrind);

public static class Prediction
{
    private const int MostShots = 300;
    private const int EveryNth = 2;

    public static void MapPrediction(this IEndpointRouteBuilder api) => api.MapGet("/prepare/prediction", OfSheetAsync);

    private static async Task<PredictionView> OfSheetAsync(RuddyContext db, SessionDesk sessions, TimeProvider time)
    {
        var answer = await PrepareEndpoints.CurrentAsync(db, sessions);
        if (answer.Problems.Count > 0) return new(null, null, []);
        var sheet = answer.Sheet;
        var machine = (await db.Machines.AsNoTracking().SingleAsync(m => m.Id == sheet.MachineId)).Spec;
        var bag = await db.Bags.AsNoTracking().SingleOrDefaultAsync(b => b.Id == sheet.BagId);
        var grinder = await db.Grinders.AsNoTracking().SingleOrDefaultAsync(g => g.Id == sheet.GrinderId);
        var plan = ShippedPlans.Find(sheet.PlanKey)!;
        var puck = new PuckParameters
        {
            DoseGrams = sheet.DoseGrams,
            ResistanceBarSPerMl = 1,
            WaterC = Math.Clamp(answer.WaterC, 20, 100),
            Retention = machine.RetentionPerGram,
            RestrictorBarS2PerMl2 = machine.RestrictorBarS2PerMl2,
        };
        var known = grinder is null ? [] : await KnownAsync(grinder.Id, db);
        var steps = new GrinderSteps(grinder?.Step ?? 1, grinder?.FinerIsLower ?? true);
        var advice = GrindAdvice.Learn(steps, known);
        double age = bag is null ? 8 : BenchEndpoints.DaysFromRoast(bag, time);
        var bagId = bag?.Id ?? 0;

        var setting = sheet.GrindSetting ?? (known.Count > 0 ? known[^1].Setting : 0);
        var believed = advice.Predict(bagId, sheet.MachineId, setting, age, sheet.DoseGrams);
        var ofBag = known.Count(s => s.Bag == bagId);
        var forecast = ShotForecast.Of(puck, plan, machine, sheet.YieldGrams, believed);
        var shot = Shot(forecast, ofBag, grinder is not null && sheet.GrindSetting is not null);

        var (low, best, high) = plan.LandingSeconds;
        var wanted = WantedResistance.Of(puck, plan, machine, sheet.YieldGrams, low, best, high);
        var landed = shot.ReachesYield && shot.Seconds >= low && shot.Seconds <= high;
        var changes = landed || grinder is null ? [] : Changes(
            new(dose => puck with { DoseGrams = dose, ResistanceBarSPerMl = Resistance(advice.Predict(bagId, sheet.MachineId, setting, age, dose).Mean, puck) },
                plan, machine, sheet.DoseGrams, sheet.YieldGrams), best);
        return new(shot, grinder is null ? null : Advise(sheet, grinder, advice, wanted, age, bagId, known, low, high), changes);
    }

    private static double Resistance(double logR10, PuckParameters puck) =>
        Math.Clamp(Math.Exp(logR10) / GrindResistance.Of(puck) * puck.ResistanceBarSPerMl, 0.2, 200);

    private static List<ChangeView> Changes(FixedGrind shot, double seconds) => [.. SolveTheRest.Of(shot, seconds).Select(c => c.Of switch
    {
        ChangeOf.Dose => new ChangeView(c.Of, Math.Round(c.Value, 1), FormattableString.Invariant($"Dose {c.Value:0.0} g instead of {shot.DoseGrams:0.0} g.")),
        ChangeOf.Yield => new(c.Of, Math.Round(c.Value, 1), FormattableString.Invariant($"{c.Value:0.0} g in the cup instead of {shot.YieldGrams:0.0} g.")),
        _ => new(c.Of, Math.Round(c.Value, 2), FormattableString.Invariant($"Press {Math.Abs(c.Share) * 100:0} % {(c.Share > 0 ? "harder" : "softer")} all the way: peak {shot.Plan.PeakBar * c.Value:0.0} bar.")),
    })];

    private static GrindAdviceView Advise(
        Sheet sheet, Grinder grinder, GrindAdvice advice, WantedResistance? wanted, double age, int bagId, List<GrindShot> known, double low,
        double high)
    {
        if (wanted is null)
            return new(null, null, low, high, ["No grind gives this yield in that time on this machine with this plan. Ask for another yield or another plan."]);
        var suggestion = advice.Suggest(bagId, sheet.MachineId, age, sheet.DoseGrams, wanted);
        if (suggestion is null)
            return new(null, null, low, high, [$"Nothing has been pulled with {grinder.Name} yet. Begin on the fine side and work back; after one shot there is advice here."]);
        double? chance = sheet.GrindSetting is { } set
            ? advice.Predict(bagId, sheet.MachineId, set, age, sheet.DoseGrams).Chance(Math.Log(wanted.Low), Math.Log(wanted.High)) : null;
        var sentences = new List<string>
        {
            FormattableString.Invariant($"{suggestion.Chance * 100:0} % chance to land between {low:0} and {high:0} s from the lever's first move when it is pulled as planned, as {(suggestion.Shots == 0 ? "the grinder's other coffees say" : $"{suggestion.Shots} {(suggestion.Shots == 1 ? "shot" : "shots")} of this bag say")}."),
        };
        if (suggestion.TooCoarse)
            sentences.Add(FormattableString.Invariant($"One step of {grinder.Name} moves the resistance by {suggestion.StepShare * 100:0} %, more than the band is wide: it is too coarse in its steps for this. Change the dose by a few tenths instead, or let the arm correct."));
        var toward = suggestion.InAWeek - ((suggestion.Low + suggestion.High) / 2);
        if (Math.Abs(toward) > grinder.Step * 0.2)
            sentences.Add(FormattableString.Invariant($"Ageing alone will ask for about {Math.Abs(toward):0.#} {grinder.ScaleUnit} finer in a week."));
        if (known.Count > 0 && known[^1].Bag != bagId && bagId != 0)
            sentences.Add(grinder.PurgeGrams > 0 ? FormattableString.Invariant($"Another coffee was ground last: purge {grinder.PurgeGrams:0.#} g before you weigh.") : "Another coffee was ground last: purge before you weigh.");
        sentences.Add("It goes by the resistance of each puck, so what arm and heat did is not held against the grind.");
        return new(suggestion, chance, low, high, sentences);
    }

    private static PredictedShot Shot(ShotForecast forecast, int knownShots, bool setKnown)
    {
        var (fast, middle, slow) = forecast;
        var points = middle.Samples.Where((_, i) => i % EveryNth == 0).Select(s => new PredictedPoint(
            Math.Round(s.Seconds, 2), Math.Round(s.PressureBar, 2), Math.Round(s.FlowMlPerS, 3), Math.Round(s.CupGrams, 2))).ToList();
        IReadOnlyList<double> Cups(SimulatedShot shot) => [.. points.Select(p => Math.Round(ShotForecast.CupAt(shot, p.Seconds), 2))];
        return new(
            points, Cups(fast), Cups(slow), middle.FirstDropsSeconds, middle.Seconds, fast.Seconds, slow.Seconds, middle.ReachedYield, middle.Strength,
            Math.Min(fast.ExtractionShare, slow.ExtractionShare), middle.ExtractionShare, Math.Max(fast.ExtractionShare, slow.ExtractionShare), knownShots,
            !setKnown ? "grinder and setting" : knownShots < 3 ? "pulling this bag: three shots narrow it a lot" : "doing the preparation the same each time");
    }

    /// <summary>Shots of a grinder that have a setting and a resistance, oldest first.</summary>
    private static async Task<List<GrindShot>> KnownAsync(int grinderId, RuddyContext db)
    {
        var shots = await db.Shots.AsNoTracking()
            .Where(s => s.DeletedAt == null && s.GrinderId == grinderId && s.GrindSetting != null)
            .OrderByDescending(s => s.PulledAt).Take(MostShots)
            .Select(s => new { s.BagId, s.MachineId, s.GrindSetting, s.PulledAt, s.DoseGrams, s.Measures, s.Bag })
            .ToListAsync();
        shots.Reverse();
        return [.. shots.Where(s => s.Measures.R10 is > 0).Select(s => new GrindShot(
            s.BagId ?? 0, s.MachineId, s.GrindSetting!.Value,
            s.Bag is { } bag ? bag.Dates.RestDays(DateOnly.FromDateTime(s.PulledAt.ToLocalTime())) : 8, s.DoseGrams, s.Measures.R10!.Value))];
    }
}
