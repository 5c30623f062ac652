using RuddySpring.Core.Machines;
using RuddySpring.Core.Pulls;

namespace RuddySpring.Core.Practice;

/// <summary>The lessons, in the order in which they build on one another. Numbers are common practice.</summary>
public static class Lessons
{
    // an exercise that ends before the cup is full has no time to land
    private static readonly TimeBand Any = new(5, 60, 240);

    private static PullPlan Plan(string name, double band, params PullPhase[] phases) =>
        new($"practice-{name.ToLowerInvariant().Replace(' ', '-')}", name, "", band, phases, Any);

    private static readonly PullPhase UntilDrops = new("pre-infuse", 2.5, PhaseEnding.FirstDrops, 0, 1.5, 40, "Hold {bar}");
    private static readonly PullPhase RampTo8 = new("ramp", 8, PhaseEnding.Seconds, 5, 0, 5, "Ramp to {bar}");

    /// <summary>All of them.</summary>
    public static IReadOnlyList<Lesson> All { get; } =
    [
        new(
            "hold-3",
            "Hold {3 bar}",
            "To find a pressure and stay on it.",
            "Everything else builds on this. Pre-infusion at {2 bar!} to {3 bar} wets the puck evenly; a shaking hand tears it.",
            Plan("Hold {3 bar}", 0.4, new PullPhase("hold", 3, PhaseEnding.FirstDrops, 0, 1.5, 15, "Hold {bar}")),
            16,
            32,
            5,
            null,
            15,
            new Dictionary<ScoreOf, double> { [ScoreOf.Phases] = 2, [ScoreOf.Steadiness] = 1 }
        ),
        new(
            "first-drops",
            "Find first drops",
            "To see the moment at which the water is through.",
            "First drops end the pre-infusion and start the ramp; miss them and you press on a puck that already runs, or "
                + "wait too long.",
            Plan(
                "Find first drops",
                0.5,
                UntilDrops,
                new PullPhase("stay", 2.5, PhaseEnding.Seconds, 4, 0, 4, "You have them: stay at {bar}")
            ),
            15,
            30,
            1.1,
            null,
            45,
            new Dictionary<ScoreOf, double> { [ScoreOf.Drops] = 3, [ScoreOf.Phases] = 1 }
        ),
        new(
            "ramp-5",
            "Ramp in 5 s",
            "To go from pre-infusion to the peak without a jerk.",
            "A ramp of about 5 s lets the puck settle under the pressure; a sudden one opens channels.",
            Plan("Ramp in 5 s", 0.7, UntilDrops, RampTo8, new PullPhase("peak", 8, PhaseEnding.Seconds, 3, 0, 3, "Hold {bar}")),
            15,
            40,
            1.0,
            null,
            60,
            new Dictionary<ScoreOf, double> { [ScoreOf.Phases] = 3, [ScoreOf.Steadiness] = 1 }
        ),
        new(
            "hold-flow",
            "Ease to hold 1.5 g/s",
            "To let the pressure go as the puck gives way.",
            "The stream says more than the gauge: kept level by easing, the last part of the cup is drawn as gently as the "
                + "first.",
            ShippedPlans.HoldTheFlow,
            15,
            32,
            0.5,
            null,
            80,
            new Dictionary<ScoreOf, double>
            {
                [ScoreOf.Flow] = 3,
                [ScoreOf.Easing] = 1,
                [ScoreOf.Cup] = 1,
            }
        ),
        new(
            "stop-gram",
            "Stop on the gram",
            "To let go before the yield, because the stream goes on.",
            "What hangs in basket and spout still falls: 1 to 2 g. The last part is the bitter one, and two cups compare "
                + "only at one yield.",
            ShippedPlans.FlatAndFirm,
            15,
            30,
            0.9,
            null,
            80,
            new Dictionary<ScoreOf, double> { [ScoreOf.Cup] = 3, [ScoreOf.Phases] = 1 }
        ),
        new(
            "too-fine",
            "Rescue too fine",
            "To wait where pressing would not help.",
            "A puck ground too fine softens as it stands wet. Stay in pre-infusion until drops, then press as far as it "
                + "goes easily and never force it.",
            ShippedPlans.EarlyPeak with
            {
                Lands = new(31, 44, 70),
            },
            15,
            30,
            1.9,
            null,
            110,
            new Dictionary<ScoreOf, double>
            {
                [ScoreOf.Time] = 2,
                [ScoreOf.Steadiness] = 1,
                [ScoreOf.Cup] = 1,
            }
        ),
        new(
            "too-coarse",
            "Rescue too coarse",
            "To go gently where the puck hardly resists.",
            "A puck ground too coarse gushes under a full peak. Peak early and low, then ease far down: a slower pull draws "
                + "more from it.",
            ShippedPlans.EarlyPeak with
            {
                Lands = new(15, 22, 44),
            },
            15,
            30,
            0.4,
            null,
            80,
            new Dictionary<ScoreOf, double>
            {
                [ScoreOf.Time] = 2,
                [ScoreOf.Easing] = 1,
                [ScoreOf.Cup] = 1,
            }
        ),
        new(
            "channel",
            "Spot the channel",
            "To see a stream run away, and to ease at once.",
            "When flow jumps without more pressure, water has found a way through. Pausing for an instant lets the puck "
                + "close; pressing on digs it deeper.",
            ShippedPlans.FlatAndFirm,
            15,
            32,
            1.0,
            9,
            80,
            new Dictionary<ScoreOf, double> { [ScoreOf.Channel] = 3, [ScoreOf.Cup] = 1 }
        ),
        new(
            "half-pulls",
            "Spring with half pulls",
            "To give a spring its stroke in parts.",
            "Two half pulls add water to what stands over the puck, two full ones draw the cup; the hand stays on the lever "
                + "all the time.",
            ShippedPlans.HalfThenFull,
            14,
            28,
            1.0,
            null,
            90,
            new Dictionary<ScoreOf, double> { [ScoreOf.Phases] = 2, [ScoreOf.Cup] = 1 },
            MachineFamily.BoilerSpring
        ),
        new(
            "pump-rest",
            "Pump and rest",
            "To keep a rhythm, and to rest while the puck drinks.",
            "A small pump makes pressure stroke by stroke; an even rhythm holds it level, a rest lets the puck take what "
                + "stands over it.",
            ShippedPlans.PumpAndRest,
            17,
            32,
            1.0,
            null,
            110,
            new Dictionary<ScoreOf, double>
            {
                [ScoreOf.Rhythm] = 2,
                [ScoreOf.Phases] = 1,
                [ScoreOf.Cup] = 1,
            },
            MachineFamily.HandPump
        ),
    ];

    /// <summary>The lesson with a key.</summary>
    /// <exception cref="DoesNotFitException">There is none.</exception>
    public static Lesson Of(string key) =>
        All.FirstOrDefault(l => l.Key == key)
        ?? throw new DoesNotFitException(
            "lesson",
            $"There is no lesson called {key}. Lessons are {string.Join(", ", All.Select(l => l.Key))}."
        );

    /// <summary>Points, of 100, from which a lesson counts as played well.</summary>
    public const int WellPlayed = 75;

    /// <summary>The one to play next: the first that has not been played well, or the last.</summary>
    /// <param name="bestPoints">Best points so far of a lesson by its key; null where it was never played.</param>
    public static Lesson Next(Func<string, int?> bestPoints) =>
        All.FirstOrDefault(l => !(bestPoints(l.Key) >= WellPlayed)) ?? All[^1];

    /// <summary>The one after a lesson; null after the last.</summary>
    public static Lesson? After(Lesson lesson) => All.SkipWhile(l => l.Key != lesson.Key).Skip(1).FirstOrDefault();
}
