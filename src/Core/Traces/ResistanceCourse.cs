using RuddySpring.Core.Puck;

namespace RuddySpring.Core.Traces;

/// <summary>The puck's resistance as water passed it.</summary>
/// <param name="Seconds">When, on the trace's clock.</param>
/// <param name="Grams">In the cup by then.</param>
/// <param name="PressureBar">Pressure.</param>
/// <param name="ResistanceBarSPerMl">Pressure over flow, bar s/ml.</param>
public sealed record ResistancePoint(double Seconds, double Grams, double PressureBar, double ResistanceBarSPerMl);

/// <summary>Resistance against grams, from any recorded trace with pressure and weight.</summary>
public static class ResistanceCourse
{
    private const double EverySeconds = 0.5;
    private const double LeastFlow = 0.15;
    private const double LeastBar = 0.5;
    private const double SettledAfterDropsSeconds = 1.0;

    /// <summary>Points twice a second from first drops to stop, where both were seen and something flows; empty where the trace
    /// cannot tell.</summary>
    /// <param name="clean">The trace.</param>
    /// <param name="moments">Its moments, on the same clock.</param>
    /// <param name="waterC">Water at the puck, degC.</param>
    public static IReadOnlyList<ResistancePoint> Of(CleanTrace clean, Moments moments, double waterC)
    {
        if (!clean.HasPressure || !clean.HasWeight || moments is not { FirstDrops: { } drops, Stop: { } stop })
            return [];
        var mlPerGram = MeasureShot.WaterMlPerGram(waterC);
        var every = Math.Max(1, (int)Math.Round(EverySeconds / clean.StepSeconds));
        var points = new List<ResistancePoint>();
        for (var i = 0; i < clean.Seconds.Length; i += every)
        {
            if (
                clean.Seconds[i] < drops + SettledAfterDropsSeconds
                || clean.Seconds[i] > stop
                || !clean.SawPressure(i)
                || !clean.SawWeight(i)
            )
                continue;
            if (clean.FlowGramsPerS[i] < LeastFlow || clean.PressureBar[i] < LeastBar)
                continue;
            points.Add(
                new(
                    clean.Seconds[i],
                    Math.Max(0, clean.WeightGrams[i] - clean.WeightGrams[0]),
                    clean.PressureBar[i],
                    clean.PressureBar[i] / (clean.FlowGramsPerS[i] * mlPerGram)
                )
            );
        }

        return points;
    }
}

/// <summary>Resistance that fell far faster than a puck's own, with pressure not rising: water has found a channel.</summary>
/// <param name="AtSeconds">Where it fell fastest, on the trace's clock.</param>
/// <param name="Fall">By which share of what it should have been, 0 to 1.</param>
public sealed record ChannelEvidence(double AtSeconds, double Fall)
{
    private const double WindowSeconds = 2.5;
    private const double LeastLogFall = 0.30;
    private const double PressureRisesBar = 0.5;
    private const double PressureFallsBar = 2.0;
    private const double AfterDropsSeconds = 3.0;

    // the stream follows a pressure that comes back by spout and scale, and the flow is a slope over some of their readings
    private const double FollowsSeconds = 2.0;
    private const double HoleSeconds = 1.0;

    /// <summary>What a trace says of a channel; null where it says nothing of one.</summary>
    /// <param name="course">Its resistance (<see cref="ResistanceCourse"/>).</param>
    /// <param name="moments">Its moments, on the same clock.</param>
    /// <param name="doseGrams">Dose, g.</param>
    public static ChannelEvidence? Of(IReadOnlyList<ResistancePoint> course, Moments moments, double doseGrams)
    {
        if (moments.FirstDrops is not { } drops)
            return null;
        var wetFrom = Math.Min(moments.FirstPressure ?? drops, drops);
        var puck = PuckBehaviour.Usual;
        double Own(ResistancePoint p) =>
            Math.Log(
                FlowResistance.StateFactor(puck, p.Seconds - wetFrom, p.Grams / doseGrams)
                    * FlowResistance.Compaction(puck, p.PressureBar)
            );
        ChannelEvidence? worst = null;
        for (int i = 0, j = 0; i < course.Count; i++)
        {
            if (course[i].Seconds < drops + AfterDropsSeconds)
                continue;
            while (j < course.Count && course[j].Seconds < course[i].Seconds + WindowSeconds - 1e-6)
                j++;
            if (j >= course.Count)
                break;
            // where the lever is lifted the pressure is gone before the stream is
            if (
                course[j].PressureBar > course[i].PressureBar + PressureRisesBar
                || Enumerable.Range(i, j - i + 1).Any(k => course[k].PressureBar < course[i].PressureBar - PressureFallsBar)
                || HasJustComeBack(course, i)
            )
                continue;
            var fell =
                Math.Log(course[i].ResistanceBarSPerMl / course[j].ResistanceBarSPerMl) - (Own(course[i]) - Own(course[j]));
            if (fell >= LeastLogFall && (worst is null || 1 - Math.Exp(-fell) > worst.Fall))
                worst = new(course[i].Seconds + (WindowSeconds / 2), 1 - Math.Exp(-fell));
        }

        return worst;
    }

    /// <summary>Whether the pressure has just come back, as at the second stroke of a lever: the resistance looks too high until
    /// the stream has followed, and its fall from there is no channel's.</summary>
    private static bool HasJustComeBack(IReadOnlyList<ResistancePoint> course, int at)
    {
        var since = course[at].Seconds - FollowsSeconds;
        for (var k = at; k > 0 && course[k].Seconds > since; k--)
        {
            // where nothing flowed there are no points
            if (
                course[k - 1].Seconds < course[k].Seconds - HoleSeconds
                || course[k - 1].PressureBar < course[at].PressureBar - PressureFallsBar
            )
                return true;
        }

        return false;
    }
}
