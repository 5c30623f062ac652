using System.Runtime.ExceptionServices;
using Microsoft.EntityFrameworkCore;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Reasoning;
using RuddySpring.Core.Shots;
using RuddySpring.Core.Traces;
using RuddySpring.Server.Hosting;
using RuddySpring.Server.Tasting;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Ledger;

/// <summary>Maps stored shots to what the screens show.</summary>
public static class ShotViews
{
    /// <summary>Shots with what they refer to, without their traces.</summary>
    public static IQueryable<Shot> WithNames(IQueryable<Shot> shots) =>
        shots.Include(s => s.Brewer).Include(s => s.Machine).Include(s => s.Bag).Include(s => s.Grinder);

    /// <summary>A line of the ledger.</summary>
    public static ShotLine Line(Shot s) =>
        new(
            s.Id,
            s.Version,
            s.PulledAt,
            s.Source,
            s.Brewer?.Name ?? "",
            s.Machine?.Name ?? "",
            s.Bag?.Name ?? "",
            s.Bag?.Roaster ?? "",
            s.Grinder?.Name ?? "",
            s.Grinder?.ScaleUnit ?? "",
            s.GrindSetting,
            s.DoseGrams,
            s.YieldGrams,
            s.WaterC,
            s.PlanName,
            s.Measures,
            TastingEndpoints.View(s),
            s.SmallPressure,
            s.SmallWeight
        );

    /// <summary>A shot whole.</summary>
    /// <exception cref="NotThereException">There is none with that number.</exception>
    public static async Task<ShotView> WholeAsync(RuddyContext db, int id, CancellationToken cancel) =>
        (await WholeAsync(db, [id], cancel))[0];

    /// <summary>Shots whole, in the order of their numbers as given.</summary>
    /// <exception cref="NotThereException">One of them is not there.</exception>
    public static async Task<IReadOnlyList<ShotView>> WholeAsync(
        RuddyContext db,
        IReadOnlyList<int> ids,
        CancellationToken cancel
    )
    {
        var shots = await WithNames(db.Shots.AsNoTracking())
            .Include(s => s.Basket)
            .Include(s => s.Trace)
            .Where(s => ids.Contains(s.Id) && s.DeletedAt == null)
            .ToDictionaryAsync(s => s.Id, cancel);
        var inOrder = ids.Select(id => shots.GetValueOrDefault(id) ?? throw new NotThereException($"There is no shot {id}."))
            .ToList();
        // reading a trace takes some milliseconds, and twenty may be asked for
        try
        {
            return [.. inOrder.AsParallel().AsOrdered().Select(Whole)];
        }
        catch (AggregateException faults)
        {
            // one is told of by its own sentence, as if they were read one after the other
            ExceptionDispatchInfo.Throw(faults.InnerExceptions[0]);
            throw;
        }
    }

    private static ShotView Whole(Shot shot)
    {
        var trace = TraceOf(shot);
        var context = ShotRecording.Context(shot);
        var reading = MeasureShot.Read(trace, shot.Trace.Marked, context);
        var (clean, moments) = reading.SinceLever;
        var resistance = ResistanceCourse.Of(clean, moments, context.WaterC);
        return new(
            Line(shot),
            shot.Trace.Plan,
            moments,
            shot.Trace.Marked.Since(reading.Moments.Start ?? 0.0),
            CurvesOf(clean, moments, shot),
            [.. trace.Series.Select(s => new ChannelOrigin(s.Channel, s.Origin, s.Count))],
            shot.Notices,
            reading.Corrections,
            shot.Basket?.Name ?? "",
            shot.Preparation?.InWords() ?? "",
            shot.GroupC,
            shot.Seen,
            shot.Source == ShotSource.Pulled && shot.Machine is { } machine ? PullWords.After(machine.Spec) : [],
            PlanDistance.Of(shot.Trace.Plan, shot.YieldGrams, clean, moments),
            [.. resistance.Select(Rounded)],
            ChannelEvidence.Of(resistance, moments, shot.DoseGrams),
            shot is { Strength: { } strength, Measures.CupGrams: { } cup }
                ? MeasuredExtraction.Of(strength, cup, shot.DoseGrams).Sentence
                : null,
            shot.Machine is { } on ? BeforeThePull.Of(on.Spec, shot.Preparation, shot.GrinderId is not null) : []
        );
    }

    /// <summary>A trace for drawing, on the clock that begins when the lever moves, with the plan where there was one.</summary>
    public static Curves CurvesOf(CleanTrace clean, Moments moments, Shot shot) =>
        new(
            clean.StepSeconds,
            clean.HasPressure ? Rounded(clean.PressureBar, 2) : null,
            clean.HasWeight ? Rounded(clean.WeightGrams, 2) : null,
            clean.HasWeight ? Rounded(clean.FlowGramsPerS, 3) : null,
            shot.Trace.Plan.Key == PullPlan.UnknownKey
                ? null
                : Rounded(PlanCourse.Of(shot.Trace.Plan, shot.YieldGrams, clean, moments).Select(p => p.Bar), 2)
        );

    /// <summary>The trace of a shot, which must have been loaded with it.</summary>
    public static Trace TraceOf(Shot shot) => TraceCodec.Decode(shot.Trace.Packed);

    private static double[] Rounded(IEnumerable<double> values, int digits) => [.. values.Select(v => Math.Round(v, digits))];

    /// <summary>As finely as it is drawn: with all its digits it would be a fifth of what a comparison sends.</summary>
    private static ResistancePoint Rounded(ResistancePoint p) =>
        new(Math.Round(p.Seconds, 2), Math.Round(p.Grams, 2), Math.Round(p.PressureBar, 2), Math.Round(p.ResistanceBarSPerMl, 3));
}
