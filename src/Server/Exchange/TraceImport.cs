using System.Globalization;
using System.Security.Cryptography;
using Microsoft.EntityFrameworkCore;
using RuddySpring.Core;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Shots;
using RuddySpring.Core.Traces;
using RuddySpring.Server.Hosting;
using RuddySpring.Server.Plans;
using RuddySpring.Server.Prepare;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Exchange;

/// <summary>Makes a shot of a trace from elsewhere and of what its person says of it; the preview shows the very shot that would
/// be kept.</summary>
public sealed class TraceImport(RuddyContext db, TimeProvider time)
{
    private const int StepsFar = 5;
    private const int LongestSeen = 400;
    private static readonly DateTime Earliest = new(1950, 1, 1, 0, 0, 0, DateTimeKind.Utc);
    private static readonly FieldRange WaterC = new("waterC", "Water at the puck", 20, 100, "degC");
    private static readonly FieldRange GroupC = new("groupC", "Group", 0, 150, "degC");
    internal static readonly PullPlan UnknownPlan = ShippedPlans.EarlyPeak with
    {
        Key = PullPlan.UnknownKey,
        Name = "not known",
        Why = "",
    };

    /// <summary>The shot, not kept yet, with its trace as it was read.</summary>
    /// <exception cref="FieldRangeException">A number is out of range.</exception>
    /// <exception cref="DoesNotFitException">Something that is named is not on the bench, or the date makes no sense.</exception>
    public async Task<(Shot Shot, ShotReading Reading)> ShotAsync(
        ImportRequest request,
        Trace trace,
        IReadOnlyList<string> notes,
        ClockStart clock,
        CancellationToken cancel
    )
    {
        var said = request.Shot;
        PuckParameters.Dose.Check(said.DoseGrams);
        if (said.YieldGrams is { } yield)
            CupVolumes.Yield.Check(yield);
        if (said.GrindSetting is { } setting)
            PrepareEndpoints.GrindSetting.Check(setting);
        if (said.WaterC is { } water)
            WaterC.Check(water);
        if (said.GroupC is { } group)
            GroupC.Check(group);
        var pulledAt = said.PulledAt.ToUniversalTime();
        if (pulledAt < Earliest || pulledAt > time.GetUtcNow().UtcDateTime.AddDays(1))
            throw new DoesNotFitException(
                "pulledAt",
                $"The shot's date is {pulledAt:yyyy-MM-dd}; it must lie between {Earliest:yyyy-MM-dd} and today."
            );
        var machine = (await NeedAsync(db.Machines, said.MachineId, "machineId", "machine", cancel))!;
        await NeedAsync(db.Brewers, said.BrewerId, "brewerId", "person", cancel);
        await NeedAsync(db.Bags, said.BagId, "bagId", "bag", cancel);
        await NeedAsync(db.Grinders, said.GrinderId, "grinderId", "grinder", cancel);
        var basket = await NeedAsync(db.Baskets, said.BasketId, "basketId", "basket", cancel);
        var plan = said.PlanKey is not { Length: > 0 } key
            ? UnknownPlan
            : (await PlanLibrary.AllAsync(db, cancel)).FirstOrDefault(p => p.Key == key)
                ?? throw new DoesNotFitException("planKey", "There is no plan of that name. Choose one that is on the bench.");
        var shot = new Shot
        {
            PulledAt = pulledAt,
            Source = ShotSource.Imported,
            MachineId = said.MachineId,
            BrewerId = said.BrewerId,
            BagId = said.BagId,
            GrinderId = said.GrinderId,
            GrindSetting = said.GrindSetting,
            BasketId = said.BasketId,
            Preparation = said.Preparation?.Checked(),
            DoseGrams = said.DoseGrams,
            WaterC = said.WaterC,
            GroupC = said.GroupC,
            Seen = Texts.Lines(said.Seen, "seen", "What was seen", LongestSeen),
            FileHash = HashOf(request.File),
            Notices =
                $"Imported from {Texts.Optional(request.File.FileName, "fileName", "File name", 120)}. {string.Join(" ", notes)}".Trim(),
        };
        var reading = ShotRecording.SetTrace(shot, plan, machine.Spec, basket?.Spec, trace, Moments.None, clock);
        shot.YieldGrams = said.YieldGrams ?? Math.Round(shot.Measures.CupGrams ?? 0.0, 1);
        return (shot, reading);
    }

    /// <summary>What to ask about a shot before it is kept.</summary>
    public async Task<IReadOnlyList<ImportQuestion>> QuestionsAsync(Shot shot, CancellationToken cancel)
    {
        var questions = new List<ImportQuestion>();
        var same = await db
            .Shots.Where(s => s.FileHash == shot.FileHash && s.DeletedAt == null)
            .Select(s => (int?)s.Id)
            .FirstOrDefaultAsync(cancel);
        if (same is not null)
            questions.Add(new(ImportQuestionKind.SameFile, ShotId: same));
        if (shot is { GrinderId: { } grinderId, GrindSetting: { } setting })
        {
            var used = await db
                .Shots.Where(s => s.GrinderId == grinderId && s.GrindSetting != null && s.DeletedAt == null)
                .GroupBy(_ => 1)
                .Select(g => new { Low = g.Min(s => s.GrindSetting!.Value), High = g.Max(s => s.GrindSetting!.Value) })
                .SingleOrDefaultAsync(cancel);
            var step = await db.Grinders.Where(g => g.Id == grinderId).Select(g => g.Step).SingleAsync(cancel);
            if (used is not null && (setting < used.Low - (StepsFar * step) || setting > used.High + (StepsFar * step)))
                questions.Add(new(ImportQuestionKind.FarSetting, Low: used.Low, High: used.High));
        }

        if (shot.BagId is { } bagId)
        {
            var roasted = await db.Bags.Where(b => b.Id == bagId).Select(b => b.RoastedOn).SingleAsync(cancel);
            if (DateOnly.FromDateTime(shot.PulledAt.ToLocalTime()) < roasted)
                questions.Add(new(ImportQuestionKind.BeforeRoasting, RoastedOn: roasted));
        }

        return questions;
    }

    /// <summary>A question as a sentence, for whoever keeps shots without the page.</summary>
    public static string Sentence(ImportQuestion question) =>
        question.Kind switch
        {
            ImportQuestionKind.SameFile => $"This file has been kept before, as shot {question.ShotId}.",
            ImportQuestionKind.FarSetting => string.Create(
                CultureInfo.InvariantCulture,
                $"The grind setting lies far from those that this grinder was used at, {question.Low:0.##} to "
                    + $"{question.High:0.##}."
            ),
            _ => $"The shot was pulled before its beans were roasted on {question.RoastedOn:yyyy-MM-dd}.",
        };

    private static string HashOf(ImportFile file) => Convert.ToHexString(SHA256.HashData(file.ContentBase64));

    private static async Task<T?> NeedAsync<T>(DbSet<T> rows, int? id, string field, string what, CancellationToken cancel)
        where T : class
    {
        if (id is not { } number)
            return null;
        return await rows.FindAsync([number], cancel)
            ?? throw new DoesNotFitException(field, $"There is no {what} with number {number}. Choose one that is on the bench.");
    }
}
