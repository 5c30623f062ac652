using RuddySpring.Core.Coaching;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Shots;
using RuddySpring.Core.Traces;
using RuddySpring.Instruments;

namespace RuddySpring.Core.Tests.Coaching;

/// <summary>
/// A pull on the stand-in with its noise and lag, with a coach beside it who sees only what the instruments say. What the coach
/// says is noted beside the noiseless truth.
/// </summary>
public sealed class CoachedPull
{
    /// <summary>What the sheet says of the water, degC.</summary>
    public const double WaterC = 90;

    private const double StepSeconds = 0.01;
    private const double ReactsSeconds = 0.35; // to hear the cue, to know and to move (common practice)
    private readonly SeededRandom _random;
    private readonly PullPlan _plan;
    private readonly Machine _machine;
    private readonly double _yieldGrams;

    public CoachedPull(
        ulong seed,
        PullPlan? plan = null,
        double? resistance = null,
        MachineFamily family = MachineFamily.PortableLever,
        double dose = 15,
        double yield = 32,
        double expectedSd = 0.12
    )
    {
        _random = new SeededRandom(seed);
        _plan = plan ?? ShippedPlans.EarlyPeak;
        _machine = FamilyDefaults.Of(family).Machine;
        _yieldGrams = yield;
        var grind = resistance ?? Math.Exp(Math.Log(3.2) + _random.Normal(0.35));
        var sheet = ShotConditions.Of(_machine, _plan, dose, yield, WaterC).WithResistance(grind);
        Puck = new StandInPuck(_random, sheet);
        Hand = new StandInHand(_random, _plan, _machine, yield);
        // what is expected of the puck is off by what a dialled-in grind is usually off by
        (Expected, ExpectedSd) = (sheet.WithResistance(grind * Math.Exp(_random.Normal(expectedSd))), expectedSd);
        // this household has pulled before: it knows its scale, its spout and how its coffee behaves
        Coach = new LiveCoach(Seasoned(Expected, expectedSd));
        _gauge = new GaugeModel(_random);
        _scale = new ScaleModel(_random);
    }

    private readonly GaugeModel _gauge;
    private readonly ScaleModel _scale;
    private readonly HashSet<string> _afterDrops = [];

    public StandInPuck Puck { get; }

    public StandInHand Hand { get; }

    public LiveCoach Coach { get; }

    public ShotConditions Expected { get; }

    public double ExpectedSd { get; }

    /// <summary>What the gauge has said, bar, and the scale, g.</summary>
    public List<(double At, double Bar)> Pressures { get; } = [];

    public List<(double At, double Grams)> Weights { get; } = [];

    public double? TrueDrops { get; private set; }

    /// <summary>When the instruments let the coach see the first drops.</summary>
    public double? Seen { get; private set; }

    /// <summary>When the truth would have the hand let go so that the last drop makes the yield.</summary>
    public double? TrueStop { get; private set; }

    public double? SaidStop { get; private set; }

    /// <summary>When the cup truly held what ends the peak, and when the coach went on to the ease.</summary>
    public double? TrueEase { get; private set; }

    public double? SaidEase { get; private set; }

    public double FinalGrams => Puck.CupGrams;

    public List<(double At, CoachAdvice Advice)> Said { get; } = [];

    /// <summary>What a household believes after many pulls of usual coffees with one scale.</summary>
    private static PuckBelief Seasoned(ShotConditions expected, double sd)
    {
        // the grind, and what no two pucks of one grind have in common
        var before = PuckBelief.Before(
            expected,
            Math.Sqrt((sd * sd) + (0.06 * 0.06)),
            new(new(CupPath.Usual.SpoutDelaySeconds, 0.05), new(CupPath.Usual.ScaleLagSeconds, 0.03))
        );
        // dry share, onset, compaction, erosion: as far as one puck of these is like the next
        double[] fromPuckToPuck = [0.12, 0.1, 0.15, 0.08];
        for (var i = 0; i < fromPuckToPuck.Length; i++)
            before.Covariance[i + 1, i + 1] = fromPuckToPuck[i] * fromPuckToPuck[i];
        return before;
    }

    /// <summary>The pressure in bar that, held from now on, truly gives a flow in g/s a second later; null where 12 bar do
    /// not.</summary>
    public double? TrueHoldBar(double gramsPerS)
    {
        double Soon(double bar)
        {
            var ahead = new StandInPuck(Puck, new SeededRandom(1));
            for (var i = 0; i < 100; i++)
                ahead.Step(bar, StepSeconds);
            return ahead.LeavesGramsPerS;
        }

        double low = 0,
            high = 12;
        if (Soon(high) < gramsPerS)
            return null;
        for (var i = 0; i < 14; i++)
        {
            var middle = (low + high) / 2;
            if (Soon(middle) < gramsPerS)
                low = middle;
            else
                high = middle;
        }

        return low;
    }

    /// <summary>Whether a sentence with these words stood on the screen once the coach had seen the first drops.</summary>
    public bool SaidAfterDrops(string words) => _afterDrops.Any(s => s.Contains(words, StringComparison.Ordinal));

    /// <summary>Runs to the end, letting go when the coach says so, or without listening; <paramref name="look"/> sees all that
    /// is said.</summary>
    public void Run(
        Action<double, CoachReading>? look = null,
        Action<double, StandInPuck>? happens = null,
        bool gauge = true,
        bool scale = true,
        bool listens = true,
        double longest = 150
    )
    {
        var ease = _plan.Phases.TakeWhile(p => p.Name != "ease").Count();
        var truth = new PlanFollower(_plan, _yieldGrams, Strokes.VolumeMl(_machine));
        for (var step = 1; step * StepSeconds < longest; step++)
        {
            var t = step * StepSeconds;
            if ((t > SaidStop + ReactsSeconds && listens) || TrueStop < t - 20)
                Hand.LetGo();
            happens?.Invoke(t, Puck);
            Hand.Next(Puck.Seen with { Seconds = t }, Puck.InflowMlPerS, StepSeconds);
            Puck.Step(Hand.PressureBar, StepSeconds);
            if (Puck.CupGrams >= ShotRun.FirstDropsGrams)
                TrueDrops ??= t;
            truth.TargetBar(new(t, Puck.CupGrams, TrueDrops is not null, Puck.FallingGramsPerS, Puck.InflowMl));
            if (truth.PhaseIndex >= ease)
                TrueEase ??= t;
            if (
                (SaidStop is null || !listens)
                && Puck.CupGrams + Puck.AtSpoutGrams + (Puck.TrueOutflowMlPerS(Hand.PressureBar) * LetGo.UsualSeconds)
                    >= _yieldGrams
            )
                TrueStop ??= t;
            if (gauge && step % 5 == 0)
            {
                Pressures.Add((t, _gauge.Read(Hand.PressureBar)));
                Coach.Pressure(t, Pressures[^1].Bar);
            }

            if (scale && step % 10 == 0)
            {
                Weights.Add((t, _scale.Read(Puck.CupGrams, Puck.FallingGramsPerS, 0.1)));
                Coach.Weight(t, Weights[^1].Grams);
            }

            if (step % 5 != 0)
                continue;
            var coaching = Coach.Read(t);
            if (Coach.DropsSeen)
                Seen ??= t;
            look?.Invoke(t, coaching);
            if (Coach.PhaseIndex >= ease)
                SaidEase ??= t;
            if (coaching.Advice is { } advice)
            {
                if (Coach.DropsSeen)
                    _afterDrops.Add(advice.Sentence);
                if (Said.Count == 0 || Said[^1].Advice.Kind != advice.Kind)
                    Said.Add((t, advice));
                if (advice.Kind == AdviceKind.Stop)
                    SaidStop ??= t;
            }

            if ((listens ? SaidStop : TrueStop) is { } over && t > over + 4)
                break;
        }
    }
}
