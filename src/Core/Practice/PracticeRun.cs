using RuddySpring.Core.Coaching;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Shots;
using RuddySpring.Core.Traces;

namespace RuddySpring.Core.Practice;

/// <summary>One instant of a practice pull, kept for its score.</summary>
public readonly record struct PracticeSample(
    double Seconds,
    double PressureBar,
    double TargetBar,
    int Phase,
    double CupGrams,
    double FlowGramsPerS,
    double Effort
);

/// <summary>A practice pull from the first touch to its end.</summary>
/// <param name="Samples">Twenty a second, from the lever's first move.</param>
/// <param name="CupGrams">In the cup when all has dripped.</param>
/// <param name="Seconds">From the first move to letting go.</param>
/// <param name="TrueDropsSeconds">When the first drops fell; null if they never did.</param>
/// <param name="MarkedDropsSeconds">When the player said so; null if never.</param>
/// <param name="ChannelSeconds">When a channel opened; null if none did.</param>
/// <param name="StrokeSeconds">When each stroke was made.</param>
public sealed record PracticeRecord(
    IReadOnlyList<PracticeSample> Samples,
    double CupGrams,
    double Seconds,
    double? TrueDropsSeconds,
    double? MarkedDropsSeconds,
    double? ChannelSeconds,
    IReadOnlyList<double> StrokeSeconds
);

/// <summary>
/// A lesson being played: the virtual lever, a puck of the core's own kind with uneven lanes, coffee that hangs at the spout, and
/// the instruments with their noise, in steps of 0.01 s. The same seed and the same hand give the same pull.
/// </summary>
public sealed class PracticeRun
{
    /// <summary>Step, s.</summary>
    public const double StepSeconds = 0.01;

    private const double WaterC = 91;
    private const double BeginsBar = 0.3;
    private const double CupWeighsGrams = 60;
    private const double DripSeconds = 2.5;
    private const double LiveAfterSeconds = 1.0;
    private const double ChannelTimes = 6;
    private const int MostStrokes = 3; // a player may fill a boiler lever once more

    private readonly Lesson _lesson;
    private readonly ShotRun _run;
    private readonly VirtualLever _lever;
    private readonly GaugeModel _gauge;
    private readonly ScaleModel _scale;
    private readonly List<PracticeSample> _samples = [];
    private readonly List<double> _strokes = [];
    private long _step;
    private double? _began;
    private double? _drops;
    private double? _marked;
    private double? _channel;
    private double? _letGo;

    /// <param name="lesson">The lesson.</param>
    /// <param name="machine">Machine with the feel that is wanted; must be <see cref="Lesson.On"/> of it.</param>
    /// <param name="seed">Of the puck and of the instruments' noise.</param>
    public PracticeRun(Lesson lesson, Machine machine, ulong seed)
    {
        var random = new SeededRandom(seed);
        (_lesson, Machine) = (lesson, machine);
        OverDialledIn = lesson.GrindFactor * Math.Exp(random.Normal(0.06));
        var shot = ShotConditions.Of(machine, lesson.Plan, lesson.DoseGrams, lesson.YieldGrams, WaterC);
        shot = shot with { Bed = shot.Bed with { Basket = shot.Bed.Basket with { RestrictorBarS2PerMl2 = 0 } } };
        var lanes = Enumerable.Range(0, 7).Select(_ => Math.Exp(random.Normal(0.15))).ToArray();
        _run = new ShotRun(shot.WithResistance(Lesson.DialledIn * OverDialledIn), [.. lanes.Select(l => l / lanes.Average())]);
        _lever = new VirtualLever(machine)
        {
            MostMl = CupVolumes.MostPuckMl(machine, Math.Max(MostStrokes, machine.StrokesAShot)),
        };
        (_gauge, _scale) = (new GaugeModel(random, 0.03), new ScaleModel(random));
        _scale.Read(CupWeighsGrams, 0, 60); // the cup has stood there for a while
        // what the player expects is a dialled-in grind, whatever it is
        Tracker = new PullTracker(
            lesson.Plan,
            machine,
            lesson.YieldGrams,
            new LiveCoach(shot.WithResistance(Lesson.DialledIn), 0.4)
        );
    }

    /// <summary>The machine.</summary>
    public Machine Machine { get; }

    /// <summary>Resistance of the puck over that of a dialled-in one.</summary>
    public double OverDialledIn { get; }

    /// <summary>What the player sees of it.</summary>
    public PullTracker Tracker { get; }

    /// <summary>The lever.</summary>
    public VirtualLever Lever => _lever;

    /// <summary>Time, s.</summary>
    public double Seconds => _step * StepSeconds;

    /// <summary>In the cup, g.</summary>
    public double CupGrams => _run.Stream.CupGrams;

    /// <summary>What the eye sees fall, g/s.</summary>
    public double FallingGramsPerS => _run.FallingGramsPerS;

    /// <summary>Whether it is over, the drip after included.</summary>
    public bool IsOver => _letGo is { } at && Seconds - at > DripSeconds;

    /// <summary>Whether the player has let go for good.</summary>
    public bool HasLetGo => _letGo is not null;

    /// <summary>Lets go for good.</summary>
    public void LetGo() => _letGo ??= Seconds;

    /// <summary>The player says that first drops fall.</summary>
    public void MarkDrops() => _marked ??= Seconds - (_began ?? Seconds);

    /// <summary>Advances by one step with an effort from 0 to 1.</summary>
    public void Step(double effort)
    {
        _step++;
        if (_letGo is not null)
            effort = Machine.PressureBy == PressureBy.Spring ? 1 : 0;
        var strokes = _lever.Strokes;
        _lever.Effort = effort;
        var pressure = _lever.Next(_run.Seen, _run.InflowMlPerS, StepSeconds);
        // a boiler's water stands over the puck before the hand does anything, and after it has let go nothing is pressed any
        // more
        if (_lever.Filling && (_letGo is not null || (_began is null && Machine.PressureBy != PressureBy.Spring && effort <= 0)))
            pressure = 0;
        if (_lever.Strokes > strokes && _began is { } since)
            _strokes.Add(Seconds - since);
        if (Seconds < LiveAfterSeconds)
            pressure = 0; // the scale settles under the cup
        _run.Press(pressure, StepSeconds);
        if (_began is null && pressure > BeginsBar)
            _began = Seconds;
        if (_step % 5 == 0)
            Tracker.Take(Channel.Pressure, Seconds, _gauge.Read(pressure));
        if (_step % 10 == 0)
            Tracker.Take(Channel.Weight, Seconds, _scale.Read(CupWeighsGrams + CupGrams, FallingGramsPerS, 10 * StepSeconds));
        if (_began is not { } began)
            return;
        var t = Seconds - began;
        if (CupGrams >= ShotRun.FirstDropsGrams)
            _drops ??= t;
        if (_channel is null && CupGrams >= _lesson.ChannelAtGrams)
        {
            _channel = t;
            _run.Puck.OpenChannel(0, ChannelTimes);
        }

        if (_letGo is null && (t >= _lesson.LongestSeconds || Tracker.IsOver(Seconds)))
            LetGo();
        if (_step % 5 != 0 || _letGo is not null)
            return;
        var reading = Tracker.Read(Seconds);
        if (reading.PhaseIndex >= _lesson.Plan.Phases.Count)
        {
            // an exercise is over with its plan; where there is a cup to fill, the hand has to let go itself
            if (CupGrams < _lesson.YieldGrams - 5)
                LetGo();
            return;
        }

        _samples.Add(new(t, pressure, reading.TargetBar, reading.PhaseIndex, CupGrams, FallingGramsPerS, effort));
    }

    /// <summary>What was played.</summary>
    public PracticeRecord Record() =>
        new([.. _samples], CupGrams, (_letGo ?? Seconds) - (_began ?? Seconds), _drops, _marked, _channel, [.. _strokes]);
}
