using RuddySpring.Core.Pulls;

namespace RuddySpring.Core.Reasoning.Schools;

/// <summary>
/// The stream is held level by easing the pressure (common practice: it starts near 0.5 g/s and is held at about 1.3 to 1.6
/// g/s). Pressure is what the hand gives for it and no aim of its own.
/// </summary>
public sealed class FlowLed : School
{
    private const double LowGramsPerS = 1.3;
    private const double HighGramsPerS = 1.6;
    private const double MiddleGramsPerS = 1.45;
    private const double BeforeDropsSeconds = 8; // of a pre-infusion that ends on first drops
    private const double RisesSeconds = 1.5; // lost while the stream rises from 0.5 g/s
    private const double GentlestBar = 2.5;
    private const double HardestBar = 8.5;
    private const double LeastCupGrams = 8;
    private const double OneShotSd = 0.1;
    private const double BandWidth = 0.12; // anywhere in 1.3 to 1.6 g/s is as good

    public override string Key => "flow-led";

    public override string Name => "Flow led";

    public override string Holds =>
        "The stream held level, at 1.3 to 1.6 g/s. The pressure is whatever holds it, and the time follows from that. "
        + "The grind is right when the arm can hold that stream without strain.";

    public override int Place => 1;

    public override IReadOnlySet<Sign> Overlooks { get; } = new HashSet<Sign> { Sign.Peak, Sign.End, Sign.Time, Sign.Setting };

    public override IReadOnlyList<WorkingOrder> Order { get; } =
    [
        WorkingOrder.Forgotten,
        WorkingOrder.Heat,
        WorkingOrder.Age,
        WorkingOrder.Preparation,
        WorkingOrder.Pull,
        WorkingOrder.Ratio,
        WorkingOrder.Grind,
        WorkingOrder.Wear,
    ];

    public override double Suspects(string cause, ShotFacts shot) =>
        cause switch
        {
            // what the arm can hold needs no other grind, and what it cannot hold does
            "grind-fine" or "grind-coarse" => ArmHolds(shot) switch
            {
                true => 0.25,
                false => 1.5,
                null => 1,
            },
            "channel-ramp" or "channel-puck" => 1.3,
            _ => 1,
        };

    public override string GrindExpects => "A stream of 1.3 to 1.6 g/s that one arm holds without strain.";

    public override TimeBand Aim(PullPlan plan, double yieldGrams)
    {
        var before = RisesSeconds;
        foreach (var phase in plan.Phases)
        {
            before += phase.Ending == PhaseEnding.Seconds ? phase.EndsAt : BeforeDropsSeconds;
            if (phase.Ending == PhaseEnding.FirstDrops || before >= 2 * BeforeDropsSeconds || phase.ToBar > 4)
                break;
        }

        return new(
            Math.Floor(before + (yieldGrams / HighGramsPerS)),
            Math.Round(before + (yieldGrams / MiddleGramsPerS), 1),
            Math.Ceiling(before + (yieldGrams / LowGramsPerS))
        );
    }

    public override IReadOnlyList<SchoolTarget> Targets(ShotFacts shot)
    {
        var flow = MiddleFlow(shot);
        return
        [
            new(
                "Flow over the middle of the cup",
                FormattableString.Invariant($"{LowGramsPerS:0.0} to {HighGramsPerS:0.0} g/s"),
                flow is { } q ? FormattableString.Invariant($"{q:0.00} g/s") : null,
                flow is { } f ? Math.Round(f, 1) is >= LowGramsPerS and <= HighGramsPerS : null
            ),
            TargetsOf.Cup(shot),
        ];
    }

    public override IEnumerable<SignReading> OwnSigns(ShotFacts shot)
    {
        if (!shot.Restricted && MiddleFlow(shot) is { } flow)
            yield return new(
                Sign.Flow,
                Math.Log(flow / MiddleGramsPerS),
                Math.Sqrt((OneShotSd * OneShotSd) + (BandWidth * BandWidth)),
                FormattableString.Invariant(
                    $"the middle of the cup ran at {flow:0.00} g/s; {LowGramsPerS:0.0} to {HighGramsPerS:0.0} g/s is wanted"
                )
            );
    }

    /// <summary>Whether the wanted stream could have been held with this grind, at a pressure that leaves the arm something to
    /// ease; null where the trace cannot tell.</summary>
    public static bool? ArmHolds(ShotFacts shot)
    {
        if (MiddleFlow(shot) is not { } flow || shot.Reading!.Measures.MeanBar is not { } bar)
            return null;
        // p = q R (1 + beta p), of the same puck at both flows
        var (ratio, beta) = (MiddleGramsPerS / flow, shot.Sheet.Behaviour.CompactionPerBar);
        var rest = 1 + (beta * bar * (1 - ratio));
        return rest > 0 && ratio * bar / rest is >= GentlestBar and <= HardestBar;
    }

    /// <summary>Mean flow between a fifth and nine tenths of the cup, g/s; null where the trace cannot tell.</summary>
    public static double? MiddleFlow(ShotFacts shot)
    {
        if (shot.Reading is not { SinceLever: ({ HasWeight: true } clean, { Stop: { } stop }) })
            return null;
        var last = Math.Clamp((int)Math.Round(stop / clean.StepSeconds), 0, clean.Seconds.Length - 1);
        var rest = clean.WeightGrams[0];
        var cup = clean.WeightGrams[last] - rest;
        var from = Array.FindIndex(clean.WeightGrams, w => w - rest >= 0.2 * cup);
        var to = Array.FindIndex(clean.WeightGrams, w => w - rest >= 0.9 * cup);
        if (cup < LeastCupGrams || from < 0 || to <= from)
            return null;
        return (clean.WeightGrams[to] - clean.WeightGrams[from]) / (clean.Seconds[to] - clean.Seconds[from]);
    }
}
