using System.Globalization;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Shots;
using RuddySpring.Core.Traces;

namespace RuddySpring.Core.Reasoning;

/// <summary>The signs that one shot gives by itself.</summary>
internal static class RawSigns
{
    private const double SpoutTailSeconds = 2.0;
    private const double HoleResistivity = 9; // behind a small hole the grind hardly counts
    private const double FallWithinSeconds = 3.0;
    private const double EaseBar = 1.0;
    private const double LeastPullSeconds = 1.0;
    private const double LeastRampBar = 0.8;
    private const double LeastHeldBar = 1.5;
    private const double UsualLetDownSeconds = 0.6;

    public static IEnumerable<RawSign> Of(ShotFacts shot) => Taste(shot).Concat(Heat(shot)).Concat(Pull(shot));

    private static IEnumerable<RawSign> Taste(ShotFacts shot)
    {
        (Sign Sign, int? Mark, string Name)[] marks =
        [
            (Sign.Sour, shot.Taste.Sour, "sourness"),
            (Sign.Bitter, shot.Taste.Bitter, "bitterness"),
            (Sign.Dry, shot.Taste.Dry, "dryness"),
            (Sign.Sweet, shot.Taste.Sweet, "sweetness"),
            (Sign.Body, shot.Taste.Body, "body"),
        ];
        foreach (var (sign, mark, name) in marks)
        {
            if (mark is { } m)
                yield return new(sign, m, name);
        }
    }

    private static IEnumerable<RawSign> Heat(ShotFacts shot)
    {
        if (shot.WaterC is { } water)
            yield return new(
                Sign.Water,
                water,
                FormattableString.Invariant($"the water reached the puck at about {Quantity.Celsius(water):0}")
            );
        if (shot is { GroupC: { } group, Band: { } band })
            yield return new(
                Sign.Group,
                (group - ((band.LowC + band.HighC) / 2)) / (band.WidthK / 2),
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"the group was at {Quantity.Celsius(group):0}; its band is "
                        + $"{Quantity.Celsius(band.LowC) with { Bare = true }:0} to {Quantity.Celsius(band.HighC):0}"
                )
            );
        if (shot.BoilerBar is { } bar && shot.Sheet.Machine.BoilerGaugeBar is { } set)
            yield return new(
                Sign.Boiler,
                bar - set,
                FormattableString.Invariant(
                    $"the boiler stood at {Quantity.Bar(bar):0.00}; {Quantity.Bar(set):0.00} is usual here"
                )
            );
    }

    private static List<RawSign> Pull(ShotFacts shot)
    {
        var signs = new List<RawSign>();
        if (shot.Reading is not { } reading)
            return signs;
        var (clean, moments) = reading.SinceLever;
        // a record that breaks off tells of no cup and of no time
        if (moments.Stop is not { } stop || stop < LeastPullSeconds)
            return signs;
        if (reading.Measures is { R10: null, SecondsFromLever: { } took } && !shot.Restricted)
        {
            var best = shot.Sheet.Plan.LandingSeconds.Best;
            signs.Add(
                new(Sign.Time, Math.Log(took / best), FormattableString.Invariant($"it took {took:0} s; {best:0} s is wanted"))
            );
        }

        if (reading.Measures.CupGrams is { } cup)
            signs.Add(
                new(
                    Sign.Cup,
                    (cup - shot.Sheet.YieldGrams) / shot.Sheet.YieldGrams,
                    FormattableString.Invariant($"{cup:0.0} g in the cup; {shot.Sheet.YieldGrams:0.0} g was wanted")
                )
            );
        if (!clean.HasPressure)
            return signs;
        Arm(shot, clean, moments, stop, signs);
        if (clean.HasWeight)
            Puck(shot, clean, moments, stop, signs);
        return signs;
    }

    /// <summary>What the arm did, against the plan.</summary>
    private static void Arm(ShotFacts shot, CleanTrace clean, Moments moments, double stop, List<RawSign> signs)
    {
        var plan = shot.Sheet.Plan;
        var last = LastAt(clean, stop);
        if (last < 10)
            return;
        var sorted = clean.PressureBar[..last].Order().ToArray();
        var peak = sorted[(int)(0.95 * (sorted.Length - 1))];
        if (LetDownSeconds(clean) is { } seconds)
            signs.Add(
                new(
                    Sign.LetDown,
                    Math.Log((seconds + 0.3) / UsualLetDownSeconds),
                    FormattableString.Invariant($"the pressure took {seconds:0.0} s to fall after the hand let go")
                )
            );
        if (
            plan.Key == PullPlan.UnknownKey
            || PlanCourse.Of(plan, shot.Sheet.YieldGrams, clean, moments) is not { Count: > 10 } wanted
        )
            return;
        var pressed = plan.Phases.Where(p => p.Move == PhaseMove.Press).Select(p => p.ToBar).DefaultIfEmpty(plan.PeakBar).Max();
        signs.Add(
            new(
                Sign.Peak,
                peak - pressed,
                FormattableString.Invariant($"the peak was {Quantity.Bar(peak):0.0}; the plan has {Quantity.Bar(pressed):0.0}")
            )
        );
        var bars = wanted.Select(w => w.Bar).ToArray();
        var before = plan.Phases[0].ToBar;
        if (
            ReachedAt(bars, (before + bars.Max()) / 2, clean.StepSeconds) is { } planned
            && ReachedAt(clean.PressureBar, (before + peak) / 2, clean.StepSeconds) is { } reached
        )
            signs.Add(
                new(
                    Sign.PreInfusion,
                    Math.Log((reached + 1) / (planned + 1)),
                    FormattableString.Invariant($"the pressure rose after {reached:0} s; the plan has {planned:0} s")
                )
            );
        if (
            RampSeconds(bars, before, bars.Max(), clean.StepSeconds) is { } should
            && RampSeconds(clean.PressureBar[..last], before, peak, clean.StepSeconds) is { } took
        )
            signs.Add(
                new(
                    Sign.Ramp,
                    Math.Log((took + 0.5) / (should + 0.5)),
                    FormattableString.Invariant($"the ramp took {took:0.0} s; the plan has {should:0.0} s")
                )
            );
        if (plan.Phases[^1] is { Move: PhaseMove.Press } final && final.ToBar < pressed - EaseBar && clean.HasWeight)
        {
            var end = clean.WeightGrams[last] - clean.WeightGrams[0];
            var from = Array.FindIndex(clean.WeightGrams, w => w - clean.WeightGrams[0] > 0.75 * end);
            var until = Math.Min(last, wanted.Count - 1);
            if (from > 0 && until - from > 5)
            {
                var (was, by) = (clean.PressureBar[from..until].Average(), bars[from..until].Average());
                signs.Add(
                    new(
                        Sign.End,
                        was - by,
                        FormattableString.Invariant(
                            $"the last quarter was pressed at {Quantity.Bar(was):0.0}; the plan has {Quantity.Bar(by):0.0}"
                        )
                    )
                );
            }
        }
    }

    /// <summary>What the puck did, against itself: the same resistance played under the pressure that was recorded.</summary>
    private static void Puck(ShotFacts shot, CleanTrace clean, Moments moments, double stop, List<RawSign> signs)
    {
        if (Replayed(shot, clean, stop) is not { } replay)
            return;
        var last = Math.Min(LastAt(clean, stop), replay.Shown.Length - 1);
        var rest = clean.WeightGrams[0];
        if (moments.FirstDrops is { } drops && replay.DropsSeconds is { } own)
        {
            var wet = Math.Min(moments.FirstPressure ?? 0, Math.Min(drops, own)) - 1;
            signs.Add(
                new(
                    Sign.Drops,
                    Math.Log((drops - wet) / (own - wet)),
                    FormattableString.Invariant($"first drops after {drops:0.0} s; {own:0.0} s was expected of this puck")
                )
            );
        }

        if (shot.Restricted)
        {
            signs.Add(
                new(
                    Sign.HoleFlow,
                    Math.Log(Math.Max(1, clean.WeightGrams[last] - rest) / Math.Max(1, replay.Shown[last])),
                    FormattableString.Invariant($"{clean.WeightGrams[last] - rest:0} g came through in {stop:0} s")
                )
            );
            return;
        }

        var half = Array.FindIndex(clean.WeightGrams, w => w - rest > 0.5 * (clean.WeightGrams[last] - rest));
        if (half > 0 && last - half > 20)
        {
            var (came, owed) = (clean.WeightGrams[last] - clean.WeightGrams[half], replay.Shown[last] - replay.Shown[half]);
            if (came > 2 && owed > 1)
                signs.Add(
                    new(
                        Sign.LateFlow,
                        Math.Log(came / owed),
                        string.Create(
                            CultureInfo.InvariantCulture,
                            $"the second half of the cup ran {Math.Abs((came / owed) - 1) * 100:0} % "
                                + $"{(came > owed ? "faster" : "slower")} than the first suggested"
                        )
                    )
                );
        }

        if (Fall(ResistanceCourse.Of(clean, moments, shot.Sheet.Water.StartC()), replay, clean.StepSeconds, shot) is { } fall)
            signs.Add(
                new(
                    Sign.Fall,
                    fall.Log,
                    FormattableString.Invariant(
                        $"at {fall.Seconds:0} s the resistance fell by {(1 - Math.Exp(-fall.Log)) * 100:0} % more than usual"
                    )
                )
            );
        if (shot.Strength is { } strength)
            signs.Add(
                new(
                    Sign.Strength,
                    Math.Log(strength / replay.Strength),
                    FormattableString.Invariant(
                        $"the strength was {strength * 100:0.0} %; {replay.Strength * 100:0.0} % was expected"
                    )
                )
            );
    }

    private sealed record Replay(double[] Shown, double[] LeavesGramsPerS, double? DropsSeconds, double Strength);

    private static Replay? Replayed(ShotFacts shot, CleanTrace clean, double stop)
    {
        ShotConditions conditions;
        if (shot.Restricted)
            conditions = GrindResistivity.With(shot.Sheet, HoleResistivity);
        else if (FromTheGrind.Resistivity(shot) is { } told)
            conditions = GrindResistivity.With(shot.Sheet, told);
        else
            return null;
        var run = new ShotRun(conditions);
        var count = Math.Min(clean.Seconds.Length, (int)((stop + SpoutTailSeconds) / clean.StepSeconds) + 1);
        var (shown, leaves) = (new double[count], new double[count]);
        for (var i = 0; i < count; i++)
        {
            shown[i] = run.Stream.ShownGrams;
            run.Press(Math.Max(0, clean.PressureBar[i]), clean.StepSeconds);
            leaves[i] = run.LeavesGramsPerS;
        }

        return new(shown, leaves, run.FirstDropsSeconds, run.Puck.Strength > 0 ? run.Puck.Strength : 0.1);
    }

    /// <summary>Where the resistance fell most against the replayed puck's, and by how much.</summary>
    private static (double Seconds, double Log)? Fall(
        IReadOnlyList<ResistancePoint> course,
        Replay replay,
        double step,
        ShotFacts shot
    )
    {
        var mlPerGram = MeasureShot.WaterMlPerGram(shot.Sheet.Water.StartC());
        List<(double Seconds, double Log)> over = [];
        foreach (var p in course)
        {
            var i = (int)Math.Round(p.Seconds / step);
            if (i < replay.LeavesGramsPerS.Length && replay.LeavesGramsPerS[i] > 0.1)
                over.Add(
                    (p.Seconds, Math.Log(p.ResistanceBarSPerMl / (p.PressureBar / (replay.LeavesGramsPerS[i] * mlPerGram))))
                );
        }

        if (over.Count < 8)
            return null;
        var smooth = Enumerable
            .Range(1, over.Count - 2)
            .Select(i => (over[i].Seconds, Log: (over[i - 1].Log + over[i].Log + over[i + 1].Log) / 3))
            .ToList();
        (double Seconds, double Log) worst = (0, 0);
        for (var i = 0; i < smooth.Count; i++)
        {
            for (var j = i + 1; j < smooth.Count && smooth[j].Seconds <= smooth[i].Seconds + FallWithinSeconds; j++)
            {
                if (smooth[i].Log - smooth[j].Log > worst.Log)
                    worst = (smooth[j].Seconds, smooth[i].Log - smooth[j].Log);
            }
        }

        return worst;
    }

    private static int LastAt(CleanTrace clean, double seconds) =>
        Math.Clamp((int)Math.Round(seconds / clean.StepSeconds), 0, clean.Seconds.Length - 1);

    private static double? ReachedAt(double[] bars, double bar, double step)
    {
        var i = Array.FindIndex(bars, b => b >= bar);
        return i < 0 ? null : i * step;
    }

    private static double? RampSeconds(double[] bars, double from, double top, double step)
    {
        var high = Array.FindIndex(bars, b => b >= from + (0.8 * (top - from)));
        if (high <= 0 || top - from < LeastRampBar)
            return null;
        var low = Array.FindLastIndex(bars, high, b => b <= from + (0.2 * (top - from)));
        return low < 0 ? null : (high - low) * step;
    }

    /// <summary>How long the pressure took to go, from what it was while the last part of the cup ran.</summary>
    private static double? LetDownSeconds(CleanTrace clean)
    {
        if (!clean.HasWeight)
            return null;
        var cup = clean.WeightGrams[^1] - clean.WeightGrams[0];
        var from = Array.FindIndex(clean.WeightGrams, w => w - clean.WeightGrams[0] > 0.8 * cup);
        var to = Array.FindIndex(clean.WeightGrams, w => w - clean.WeightGrams[0] > 0.9 * cup);
        if (from < 0 || to <= from)
            return null;
        var held = clean.PressureBar[from..to].Average();
        if (held < LeastHeldBar)
            return null;
        var high = Array.FindLastIndex(clean.PressureBar, b => b >= 0.8 * held);
        var low = Array.FindIndex(clean.PressureBar, Math.Max(0, high), b => b <= 0.3 * held);
        // a record that ends before the pressure has gone tells that it took at least so long
        return high < 0 ? null : ((low < 0 ? clean.PressureBar.Length - 1 : low) - high) * clean.StepSeconds;
    }
}
