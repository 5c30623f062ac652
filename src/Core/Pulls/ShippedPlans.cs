using RuddySpring.Core.Machines;

namespace RuddySpring.Core.Pulls;

/// <summary>The plans that ship with the application, under plain descriptive names. Numbers are common practice.</summary>
public static class ShippedPlans
{
    // a little pump moves hardly more than a millilitre a second: what asks for more is left out on it
    private static readonly MachineFamily[] ByHand =
    [
        MachineFamily.BoilerDirect,
        MachineFamily.PortableLever,
        MachineFamily.HeatedGroup,
        MachineFamily.TwinArmBasket,
        MachineFamily.TwinArmChamber,
        MachineFamily.SteppedLever,
    ];

    private static readonly MachineFamily[] FromAKettle = [.. ByHand.Where(f => f != MachineFamily.BoilerDirect)];

    public static readonly PullPlan EarlyPeak = new(
        "early-peak",
        "Early peak, long ease",
        "Most of the coffee is drawn in the first third, so press early and let the pressure fall as the puck gives way. "
            + "Those who hold one pressure say the ease wastes strength.",
        0.6,
        [
            new("pre-infuse", 2.5, PhaseEnding.FirstDrops, 0, 1.5, 25, "Hold {bar}"),
            new("ramp", 8.0, PhaseEnding.Seconds, 5, 0, 5, "Ramp to {bar}"),
            new("peak", 8.0, PhaseEnding.YieldShare, 0.25, 0, 40, "Hold {bar}"),
            new("ease", 5.0, PhaseEnding.YieldShare, 0.6, 0, 60, "Ease to {bar}"),
            new("ease", 3.5, PhaseEnding.YieldShare, 1.0, 0, 90, "Ease to {bar}"),
        ],
        new(31, 37, 44),
        ByHand
    );

    public static readonly PullPlan FlatAndFirm = new(
        "flat-firm",
        "Flat and firm",
        "One pressure, easy to repeat, and what pump machines taught people to expect. The other school says it "
            + "over-extracts at the end.",
        0.6,
        [
            new("pre-infuse", 3.0, PhaseEnding.FirstDrops, 0, 1.5, 20, "Hold {bar}"),
            new("ramp", 7.5, PhaseEnding.Seconds, 4, 0, 4, "Ramp to {bar}"),
            new("hold", 7.5, PhaseEnding.YieldShare, 1.0, 0, 90, "Hold {bar}"),
        ],
        new(26, 31, 37),
        ByHand
    );

    public static readonly PullPlan LongSoft = new(
        "long-soft",
        "Long and soft",
        "A low peak after a patient pre-infusion forgives uneven pucks and suits light roasts. It asks for a fine grind and "
            + "gives less body.",
        0.5,
        [
            new("pre-infuse", 2.0, PhaseEnding.FirstDrops, 0, 1.5, 30, "Hold {bar}"),
            new("soak", 2.0, PhaseEnding.Seconds, 3, 0, 3, "Stay at {bar}"),
            new("ramp", 6.0, PhaseEnding.Seconds, 6, 0, 6, "Ramp to {bar}"),
            new("ease", 4.0, PhaseEnding.YieldShare, 1.0, 0, 90, "Ease to {bar}"),
        ],
        new(45, 55, 65),
        [.. ByHand, MachineFamily.HandPump]
    );

    public static readonly PullPlan FreeSpring = new(
        "free-spring",
        "Free spring",
        "Let the water stand at boiler pressure until drops show, then give the spring its stroke and keep the hand off it. "
            + "Some hold it back at the top.",
        0.8,
        [
            new("pre-infuse", 1.1, PhaseEnding.FirstDrops, 0, 1.0, 15, "Lever down, wait at boiler pressure", PhaseMove.Lift),
            new("release", 9.0, PhaseEnding.Seconds, 2, 0, 2, "Let the lever rise slowly, hand on it"),
            new("spring", 8.0, PhaseEnding.YieldShare, 0.4, 0, 60, "Let the spring work"),
            new("spring", 5.7, PhaseEnding.YieldShare, 1.0, 0, 60, "Let the spring run out"),
        ],
        new(33, 40, 47),
        [MachineFamily.BoilerSpring]
    );

    public static readonly PullPlan HalfThenFull = new(
        "half-full",
        "Half pulls, then full pulls",
        "On a spring lever two half pulls add water to what stands over the puck, then two full pulls draw the cup; about "
            + "45 s in all. "
            + "Others say that every lift disturbs the puck, and give it one long stroke.",
        0.9,
        [
            new("pre-infuse", 1.1, PhaseEnding.FirstDrops, 0, 1.0, 12, "Lever down, wait at boiler pressure", PhaseMove.Lift),
            new("half pull", 9.0, PhaseEnding.Strokes, 0.5, 1.5, 7, "Half a pull: let the lever rise half way, hand on it"),
            new("refill", 1.1, PhaseEnding.Seconds, 3, 0, 3, "Lever down again, the group refills", PhaseMove.Lift),
            new("half pull", 9.0, PhaseEnding.Strokes, 0.5, 1.5, 9, "Half a pull: let the lever rise half way, hand on it"),
            new("refill", 1.1, PhaseEnding.Seconds, 3, 0, 3, "Lever down again, the group refills", PhaseMove.Lift),
            new("full pull", 8.5, PhaseEnding.YieldShare, 1.0, 1.5, 90, "A full pull: let the spring work, hand on the lever"),
        ],
        new(38, 45, 55),
        [MachineFamily.BoilerSpring]
    );

    public static readonly PullPlan HoldTheFlow = new(
        "hold-flow",
        "Hold the flow",
        "Ramp up, then ease so that the stream never runs faster than 1.5 g a second: the puck says how much pressure it takes. "
            + "Those who go by the gauge find that it hides a channel.",
        0.8,
        [
            new("pre-infuse", 2.5, PhaseEnding.FirstDrops, 0, 1.5, 25, "Hold {bar}"),
            new("ramp", 8.0, PhaseEnding.Seconds, 5, 0, 5, "Ramp to {bar}"),
            new(
                "hold the flow",
                9.0,
                PhaseEnding.YieldShare,
                1.0,
                0,
                90,
                "Ease so that the flow stays at 1.5 g/s",
                PhaseMove.HoldFlow,
                1.5
            ),
        ],
        new(30, 36, 43),
        ByHand
    );

    public static readonly PullPlan BloomThenPress = new(
        "bloom-press",
        "Bloom, then press",
        "Let the water stand on the coffee with no more than a resting hand on the lever, so that gas leaves and every part "
            + "is wet before it is "
            + "pressed; light roasts want it. It costs heat, and others find the cup flat.",
        0.6,
        [
            new("bloom", 0.8, PhaseEnding.FirstDrops, 0, 1.0, 30, "Rest the hand on the lever, no more than {bar}"),
            new("wet", 3.0, PhaseEnding.Seconds, 4, 0, 4, "Press to {bar}"),
            new("ramp", 8.0, PhaseEnding.Seconds, 5, 0, 5, "Ramp to {bar}"),
            new("ease", 5.0, PhaseEnding.YieldShare, 1.0, 0, 90, "Ease to {bar}"),
        ],
        new(46, 54, 64),
        FromAKettle
    );

    public static readonly PullPlan PumpAndPull = new(
        "pump-pull",
        "Pump and pull",
        "Short half pulls with the lever lifted between them put more water over the puck of a small boiler lever, then one "
            + "long pull draws "
            + "the cup. One school lifts once and never again: each lift sucks at the puck.",
        0.8,
        [
            new("fill", 1.0, PhaseEnding.Seconds, 5, 1.0, 5, "Lever up, let the group fill", PhaseMove.Lift),
            new("half pull", 2.5, PhaseEnding.Strokes, 0.2, 1.0, 4, "A short half pull"),
            new("lift", 1.0, PhaseEnding.Seconds, 2, 0, 2, "Lever up again", PhaseMove.Lift),
            new("half pull", 2.5, PhaseEnding.FirstDrops, 0, 1.0, 10, "Another, and hold {bar}"),
            new("lift", 1.0, PhaseEnding.Seconds, 2, 0, 2, "Lever up again", PhaseMove.Lift),
            new("ramp", 8.0, PhaseEnding.Seconds, 4, 0, 4, "Ramp to {bar}"),
            new("ease", 5.0, PhaseEnding.YieldShare, 1.0, 0, 90, "Ease to {bar}"),
        ],
        new(35, 42, 50),
        [MachineFamily.BoilerDirect]
    );

    public static readonly PullPlan Steps = new(
        "steps",
        "Step by step",
        "On a stepped lever each pull moves the plunger one step: one seats and wets, one reaches {1 bar!} to {2 bar}, one "
            + "ends the pre-infusion, the "
            + "next ones extract and the last is slowed. Some do all of them at one firm pace.",
        0.9,
        [
            new("seat and wet", 1.0, PhaseEnding.Strokes, 1, 1.0, 8, "One slow pull to seat the plunger and wet the puck"),
            new("pre-infuse", 2.0, PhaseEnding.FirstDrops, 0, 1.0, 20, "A pull to {bar}, and hold"),
            new("extract", 8.0, PhaseEnding.YieldShare, 0.75, 4, 60, "Pull by pull at up to {bar}"),
            new("slow", 5.0, PhaseEnding.YieldShare, 1.0, 0, 60, "Slow the last pull, ease to {bar}"),
        ],
        new(30, 38, 46),
        [MachineFamily.SteppedLever]
    );

    public static readonly PullPlan PumpAndRest = new(
        "pump-rest",
        "Pump and rest",
        "A few strokes, a rest in which the puck drinks, then a steady rhythm to the end, about 50 s in all. The impatient "
            + "pump straight through "
            + "and get a thinner cup.",
        1.2,
        [
            new("wet", 2.0, PhaseEnding.Strokes, 8, 1.0, 8, "Pump slowly up to {bar}"),
            new("rest", 0, PhaseEnding.Seconds, 4, 0, 4, "Rest, the puck drinks", PhaseMove.Rest),
            new("wet", 2.5, PhaseEnding.FirstDrops, 0, 1.0, 25, "Pump slowly up to {bar}"),
            new("pump", 8.0, PhaseEnding.YieldShare, 0.5, 5, 60, "Pump steadily up to {bar}"),
            new("rest", 0, PhaseEnding.Seconds, 3, 0, 3, "Rest", PhaseMove.Rest),
            new("pump", 6.0, PhaseEnding.YieldShare, 1.0, 3, 60, "Pump on at up to {bar}"),
        ],
        new(40, 50, 60),
        [MachineFamily.HandPump]
    );

    /// <summary>All of them, the one to start with first.</summary>
    public static IReadOnlyList<PullPlan> All { get; } =
    [EarlyPeak, FlatAndFirm, HoldTheFlow, LongSoft, BloomThenPress, PumpAndPull, FreeSpring, HalfThenFull, Steps, PumpAndRest];

    /// <summary>The plan with a key, or null.</summary>
    public static PullPlan? Find(string key) => All.FirstOrDefault(p => p.Key == key);
}
