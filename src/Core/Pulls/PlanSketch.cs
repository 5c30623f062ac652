namespace RuddySpring.Core.Pulls;

/// <summary>A point of a plan's sketch.</summary>
/// <param name="Seconds">Since the lever moved.</param>
/// <param name="Bar">Pressure, bar.</param>
public sealed record SketchPoint(double Seconds, double Bar);

/// <summary>A plan with its phases at their usual length: a picture to choose by, not a forecast.</summary>
public static class PlanSketch
{
    // a whole cup is taken to flow for 26 s and to weigh 32 g (common practice)
    private const double CupSeconds = 26;
    private const double CupGrams = 32;
    private const double EventSeconds = 6;
    private const double StrokesSeconds = 8;
    private const double ShortestSeconds = 1;

    /// <summary>The corners, from nothing at the start.</summary>
    public static IReadOnlyList<SketchPoint> Of(PullPlan plan)
    {
        var points = new List<SketchPoint> { new(0, 0) };
        double at = 0,
            share = 0;
        foreach (var phase in plan.Phases)
        {
            if (phase.LeadSeconds > 0 && phase.Ending != PhaseEnding.Seconds)
                points.Add(new(at + phase.LeadSeconds, phase.ToBar));
            at += Seconds(phase, share);
            share = phase.Ending switch
            {
                PhaseEnding.YieldShare => phase.EndsAt,
                PhaseEnding.Grams => phase.EndsAt / CupGrams,
                _ => share,
            };
            // a flow is held by easing: to about half of the most pressure at the end
            points.Add(new(at, phase.Move == PhaseMove.HoldFlow ? phase.ToBar / 2 : phase.ToBar));
        }

        return points;
    }

    private static double Seconds(PullPhase phase, double before) =>
        phase.Ending switch
        {
            PhaseEnding.Seconds => phase.EndsAt,
            PhaseEnding.YieldShare => Math.Max(ShortestSeconds, (phase.EndsAt - before) * CupSeconds),
            PhaseEnding.Grams => Math.Max(ShortestSeconds, ((phase.EndsAt / CupGrams) - before) * CupSeconds),
            PhaseEnding.Strokes => Math.Min(StrokesSeconds, phase.AtMostSeconds),
            _ => EventSeconds,
        };
}
