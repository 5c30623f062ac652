using System.Globalization;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Traces;

namespace RuddySpring.Core.Practice;

/// <summary>One part of a score.</summary>
/// <param name="Of">What was scored.</param>
/// <param name="Points">0 to 100.</param>
/// <param name="Sentence">What was seen, in numbers.</param>
public sealed record ScorePart(ScoreOf Of, int Points, string Sentence);

/// <summary>What a practice pull came to.</summary>
/// <param name="Points">0 to 100, the weighted mean of its parts.</param>
/// <param name="Parts">Its parts.</param>
/// <param name="Better">The one thing that would bring most next time.</param>
public sealed record PracticeScore(int Points, IReadOnlyList<ScorePart> Parts, string Better)
{
    private const double SettleSeconds = 1.5;
    private const double ReactionSeconds = 6.0;
    private const int HalfWindow = 10;

    /// <summary>Scores a pull of a lesson.</summary>
    public static PracticeScore Of(Lesson lesson, PracticeRecord record)
    {
        var parts = lesson.Scored.Keys.Select(of => Part(of, lesson, record)).ToList();
        var whole = parts.Sum(p => p.Points * lesson.Scored[p.Of]) / lesson.Scored.Values.Sum();
        var worst = parts.MinBy(p => (p.Points - 100) * lesson.Scored[p.Of])!;
        return new((int)Math.Round(whole), parts, worst.Points >= 90 ? "Well pulled. Go on to the next lesson." : Hint(worst.Of));
    }

    private static ScorePart Part(ScoreOf of, Lesson lesson, PracticeRecord record) =>
        of switch
        {
            ScoreOf.Phases => Phases(lesson, record),
            ScoreOf.Steadiness => Steadiness(record),
            ScoreOf.Easing => Easing(record),
            ScoreOf.Cup => Cup(lesson, record),
            ScoreOf.Drops => Drops(record),
            ScoreOf.Flow => Flow(lesson, record),
            ScoreOf.Time => Time(lesson, record),
            ScoreOf.Channel => Channel(record),
            _ => Rhythm(record),
        };

    /// <summary>Share of the time inside the plan's band, each phase counting alike, its first moment left out.</summary>
    private static ScorePart Phases(Lesson lesson, PracticeRecord record)
    {
        // strokes make the pressure go up and down: what counts is their mean
        var seen = lesson.Family == Machines.MachineFamily.HandPump ? Smooth(record.Samples, 10) : record.Samples;
        var phases = seen.Where(s => s.Phase < lesson.Plan.Phases.Count)
            .GroupBy(s => s.Phase)
            .Select(g =>
            {
                var from =
                    g.First().Seconds
                    + (lesson.Plan.Phases[g.Key].Ending == PhaseEnding.Seconds && g.Key > 0 ? 0.4 : SettleSeconds);
                var inside = g.Where(s => s.Seconds >= from).ToList();
                return inside.Count == 0
                    ? (double?)null
                    : inside.Average(s => Math.Abs(s.PressureBar - s.TargetBar) <= lesson.Plan.BandBar ? 1.0 : 0.0);
            })
            .OfType<double>()
            .ToList();
        // a phase that was never come to counts as missed
        var missed = Math.Max(0, record.Samples.Count == 0 ? 1 : lesson.Plan.Phases.Count - 1 - record.Samples[^1].Phase);
        var share = phases.Count == 0 ? 0 : phases.Sum() / (phases.Count + missed);
        return new(
            ScoreOf.Phases,
            Of100(share / 0.92),
            FormattableString.Invariant(
                $"In the band {share * 100:0} % of the time{(missed > 0 ? $"; {missed} phases were never reached" : "")}."
            )
        );
    }

    /// <summary>How much the hand shakes while it should hold.</summary>
    private static ScorePart Steadiness(PracticeRecord record)
    {
        var shake = ArmShake.Of(
            [.. record.Samples.Select(s => s.PressureBar)],
            [.. record.Samples.Select(s => s.TargetBar)],
            HalfWindow
        ) ?? 1.0;
        return new(
            ScoreOf.Steadiness,
            Of100(1.3 - (shake / 0.6)),
            FormattableString.Invariant($"The hand shook by {Quantity.Bar(shake):0.00} while holding.")
        );
    }

    /// <summary>Where the plan goes down: how much of the way was up again.</summary>
    private static ScorePart Easing(PracticeRecord record)
    {
        double up = 0,
            down = 0;
        var eased = record.Samples.Where(s => s.CupGrams > 3).Where((_, i) => i % 10 == 0).ToList();
        for (var i = 1; i < eased.Count; i++)
        {
            var way = eased[i].PressureBar - eased[i - 1].PressureBar;
            if (way > 0)
                up += way;
            else
                down -= way;
        }

        // the ramp at the beginning goes up once
        var peak = eased.Count == 0 ? 0 : eased.Max(s => s.PressureBar) - eased[0].PressureBar;
        var back = Math.Max(0, up - peak);
        var share = down <= 0.5 ? 0.0 : Math.Max(0, 1 - (back / down));
        return new(
            ScoreOf.Easing,
            Of100(share / 0.9),
            down <= 0.5
                ? "The pressure was hardly eased at all."
                : FormattableString.Invariant(
                    $"Eased by {Quantity.Bar(down):0.0} in all, {Quantity.Bar(back):0.0} of it back and forth."
                )
        );
    }

    private static ScorePart Cup(Lesson lesson, PracticeRecord record)
    {
        var off = record.CupGrams - lesson.YieldGrams;
        return new(
            ScoreOf.Cup,
            Of100(1.1 - (Math.Abs(off) / 5)),
            FormattableString.Invariant($"{record.CupGrams:0.0} g in the cup, {(off >= 0 ? "+" : "-")}{Math.Abs(off):0.0} g off.")
        );
    }

    private static ScorePart Drops(PracticeRecord record)
    {
        if (record.TrueDropsSeconds is not { } fell)
            return new(ScoreOf.Drops, 0, "No drops fell: hold the pressure longer.");
        if (record.MarkedDropsSeconds is not { } said)
            return new(ScoreOf.Drops, 0, "First drops were never marked.");
        var late = said - fell;
        return late < -0.3
            ? new(ScoreOf.Drops, 0, FormattableString.Invariant($"Marked {-late:0.0} s before any drop fell."))
            : new(
                ScoreOf.Drops,
                Of100(1.2 - (Math.Max(0, late) / 4)),
                FormattableString.Invariant($"Seen {Math.Max(0, late):0.0} s after they fell.")
            );
    }

    private static ScorePart Flow(Lesson lesson, PracticeRecord record)
    {
        var wanted = lesson.Plan.Phases.FirstOrDefault(p => p.Move == PhaseMove.HoldFlow)?.FlowGramsPerS ?? 1.5;
        var held = record.Samples.Where(s => s.CupGrams > 6).ToList();
        if (held.Count < 20)
            return new(ScoreOf.Flow, 0, "The stream hardly ran.");
        var share = held.Average(s => Math.Abs(s.FlowGramsPerS - wanted) <= 0.35 ? 1.0 : 0.0);
        return new(
            ScoreOf.Flow,
            Of100(share / 0.85),
            string.Create(
                CultureInfo.InvariantCulture,
                $"Within 0.35 g/s of {wanted:0.0} for {share * 100:0} % of the time; on the whole "
                    + $"{held.Average(s => s.FlowGramsPerS):0.0} g/s."
            )
        );
    }

    private static ScorePart Time(Lesson lesson, PracticeRecord record)
    {
        var (low, _, high) = lesson.Plan.LandingSeconds;
        var reached = record.CupGrams >= lesson.YieldGrams * 0.85;
        var off =
            record.Seconds < low ? low - record.Seconds
            : record.Seconds > high ? record.Seconds - high
            : 0;
        return new(
            ScoreOf.Time,
            reached ? Of100(1 - (off / 15)) : 0,
            string.Create(
                CultureInfo.InvariantCulture,
                $"{record.Seconds:0} s; {low:0} to {high:0} s is what can be had from "
                    + $"it{(reached ? "" : ", and the yield was not reached")}."
            )
        );
    }

    private static ScorePart Channel(PracticeRecord record)
    {
        if (record.ChannelSeconds is not { } opened)
            return new(ScoreOf.Channel, 0, "The pull ended before the channel opened.");
        // a hand that shakes is no hand that eases: what counts is the mean over two seconds
        var seen = Smooth(record.Samples, 20);
        var before = seen.LastOrDefault(s => s.Seconds <= opened - 1).PressureBar;
        var eased = seen.FirstOrDefault(s => s.Seconds > opened && s.PressureBar <= before * 0.7);
        if (eased.Seconds <= 0)
            return new(ScoreOf.Channel, 0, FormattableString.Invariant($"A channel opened at {opened:0} s and was pressed on."));
        var late = eased.Seconds - opened;
        return new(
            ScoreOf.Channel,
            Of100(1.4 - (late / ReactionSeconds)),
            FormattableString.Invariant($"A channel opened at {opened:0} s; eased {late:0.0} s later.")
        );
    }

    private static ScorePart Rhythm(PracticeRecord record)
    {
        var gaps = record.StrokeSeconds.Zip(record.StrokeSeconds.Skip(1), (a, b) => b - a).Where(g => g < 2.5).ToList();
        if (gaps.Count < 8)
            return new(ScoreOf.Rhythm, 0, "Too few strokes to hear a rhythm.");
        var mean = gaps.Average();
        var spread = Math.Sqrt(gaps.Average(g => (g - mean) * (g - mean))) / mean;
        return new(
            ScoreOf.Rhythm,
            Of100(1.25 - (spread / 0.5)),
            FormattableString.Invariant(
                $"{record.StrokeSeconds.Count} strokes, one every {mean:0.0} s, {spread * 100:0} % uneven."
            )
        );
    }

    private static List<PracticeSample> Smooth(IReadOnlyList<PracticeSample> samples, int half) =>
        [
            .. samples.Select(
                (s, i) =>
                {
                    int from = Math.Max(0, i - half),
                        to = Math.Min(samples.Count - 1, i + half);
                    var sum = 0.0;
                    for (var n = from; n <= to; n++)
                        sum += samples[n].PressureBar;
                    return s with { PressureBar = sum / (to - from + 1) };
                }
            ),
        ];

    private static int Of100(double share) => (int)Math.Round(Math.Clamp(share, 0, 1) * 100);

    private static string Hint(ScoreOf of) =>
        of switch
        {
            ScoreOf.Phases => "Look at the tape and at nothing else: keep the red inside the hatched frame.",
            ScoreOf.Steadiness => "Move less, and slower: small corrections, then wait a breath.",
            ScoreOf.Easing => "Once past the peak go only down, a little at a time.",
            ScoreOf.Cup => "Let go when it says stop: what hangs at the spout still falls.",
            ScoreOf.Drops => "Watch the cup, not the gauge, and mark the very first drop.",
            ScoreOf.Flow => "Follow the flow figure: too fast, ease; too slow, press a little.",
            ScoreOf.Time => "Listen to the coach: its pressure lands the time with this grind.",
            ScoreOf.Channel => "When the flow jumps by itself, ease by a third at once and look for spurts.",
            _ => "Count aloud with the tick: down on one, up on two.",
        };
}
