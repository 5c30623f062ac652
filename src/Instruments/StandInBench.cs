using RuddySpring.Core;
using RuddySpring.Core.Beans;
using RuddySpring.Core.Heat;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Shots;
using RuddySpring.Core.Traces;

namespace RuddySpring.Instruments;

/// <summary>What the server says of the pull that is ready to begin; the part of the protocol that a device may ignore.</summary>
public sealed record ReadyPull(
    Machine Machine,
    PullPlan Plan,
    double DoseGrams,
    double YieldGrams,
    double? GrindSetting,
    double? GrindStep,
    int? DaysFromRoast,
    double WaterC
);

/// <summary>What the server says of the heat of a session under way.</summary>
public sealed record SessionHeat(
    Machine Machine,
    IReadOnlyList<HeatEvent> Events,
    double AmbientC,
    double AltitudeMetres,
    double NowSeconds
);

/// <summary>
/// A bench with a machine, a hand and a cup, in the stand-in's own time. It is the world that the three stand-in instruments look
/// at.
/// </summary>
public sealed class StandInBench(ulong seed)
{
    /// <summary>Step of this world, s.</summary>
    public const double StepSeconds = 0.01;

    private const double CupWeighsGrams = 63.4;
    private const long ReachesForLeverSteps = 300;
    private const long CupStaysSteps = 800;
    private const double RoomC = 22.0;
    private const double TrueLoss = 1.1;
    private const double TrueFlange = 0.97;

    private readonly SeededRandom _random = new(seed);
    private readonly Queue<(long Step, Action Then)> _heard = [];
    private StandInPuck? _puck;
    private StandInHand? _hand;
    private double _mostPuckMl;

    // moments are whole steps: a sum of hundredths would put a moment now one step earlier and now one later, and with it all
    // chance that follows
    private long _steps;
    private long? _leverMoves;
    private long? _endedAt;
    private long? _letsGoAt;
    private HeatRun? _heat;
    private double _heatBegan;
    private double _heatNow;

    /// <summary>How much faster than life this world runs; the heat of a session keeps to life.</summary>
    public double Speed { get; init; } = 1.0;

    /// <summary>Whether the hand lets go when the coach says so.</summary>
    public bool LetsGoAtTheCue { get; init; } = true;

    /// <summary>Time of this world, s.</summary>
    public double Seconds => _steps * StepSeconds;

    /// <summary>True pressure, bar.</summary>
    public double PressureBar => _hand?.PressureBar ?? 0.0;

    /// <summary>True weight on the scale, g, with the cup.</summary>
    public double ScaleGrams => _puck is null ? 0.0 : CupWeighsGrams + _puck.CupGrams;

    /// <summary>What falls into the cup, g/s.</summary>
    public double FallingGramsPerS => _puck?.FallingGramsPerS ?? 0.0;

    /// <summary>Temperature that the probe sits in, degC: the water at the puck during a pull, the room otherwise.</summary>
    public double ProbeC => _puck is { } puck && _leverMoves <= _steps ? puck.TrueWaterC : RoomC;

    /// <summary>Outside of the group, degC: as this bench's own machine warms, which is not quite the one the server
    /// knows.</summary>
    public double GroupC
    {
        get
        {
            if (_heat is null)
                return RoomC;
            _heat.AdvanceTo(_heatNow + ((Seconds - _heatBegan) / Speed));
            return _heat.GroupC;
        }
    }

    /// <summary>What is heard at a moment happens at that moment, also where this world has fallen behind it and comes to it
    /// later: a hand that hears the cue while its world still lags would let go before its time.</summary>
    /// <param name="seconds">When it is heard, s of this world, no earlier than what was heard before it.</param>
    /// <param name="then">What happens.</param>
    public void Hear(double seconds, Action then) => _heard.Enqueue(((long)Math.Ceiling(seconds / StepSeconds), then));

    /// <summary>Something has happened to the heat of a session.</summary>
    public void Heat(SessionHeat said)
    {
        var own = HeatConstants.Of(said.Machine);
        var truth = said.Machine with
        {
            Heat = own with
            {
                GroupAmbientWPerK = own.GroupAmbientWPerK * TrueLoss,
                BoilerGroupWPerK = own.BoilerGroupWPerK * TrueFlange,
            },
        };
        (_heatBegan, _heatNow) = (Seconds, said.NowSeconds);
        _heat = HeatRun.Play(truth, said.AmbientC, said.AltitudeMetres, said.Events, said.NowSeconds, records: false);
    }

    /// <summary>A pull is ready: cup on the scale, hand to the lever.</summary>
    public void Ready(ReadyPull pull)
    {
        _puck = new StandInPuck(
            _random,
            ShotConditions
                .Of(pull.Machine, pull.Plan, pull.DoseGrams, pull.YieldGrams, pull.WaterC)
                .WithResistance(TrueResistance(pull))
        );
        _hand = new StandInHand(_random, pull.Plan, pull.Machine, pull.YieldGrams);
        _mostPuckMl = CupVolumes.MostPuckMl(pull.Machine);
        _leverMoves = _steps + ReachesForLeverSteps;
        _endedAt = _letsGoAt = null;
    }

    /// <summary>The coach says to let go: the hand does, as late as a person (about 0.4 s to hear, to know and to move; common
    /// practice).</summary>
    public void Cued()
    {
        if (LetsGoAtTheCue)
            _letsGoAt ??= _steps + (long)Math.Round(Math.Max(0.2, 0.4 + _random.Normal(0.1)) / StepSeconds);
    }

    /// <summary>The pull is over: the hand lets go, and the cup is taken away a little later.</summary>
    public void Ended()
    {
        _hand?.LetGo();
        _endedAt ??= _steps;
    }

    /// <summary>Whether nothing is pulled: instruments with a battery send less then.</summary>
    public bool Asleep => _puck is null;

    /// <summary>Advances by <see cref="StepSeconds"/>.</summary>
    public void Step()
    {
        _steps++;
        while (_heard.TryPeek(out var next) && next.Step <= _steps)
            _heard.Dequeue().Then();
        if (_puck is null || _hand is null)
            return;
        if (_leverMoves is { } moved && _steps >= moved)
        {
            if (_puck.InflowMl >= _mostPuckMl || _steps >= _letsGoAt)
                _hand.LetGo(); // the chamber is empty, or it is time
            _hand.Next(_puck.Seen with { Seconds = (_steps - moved) * StepSeconds }, _puck.InflowMlPerS, StepSeconds);
        }

        _puck.Step(_hand.PressureBar, StepSeconds);
        if (_endedAt is { } ended && _steps > ended + CupStaysSteps)
        {
            _puck = null;
            _hand = null;
            _leverMoves = null;
        }
    }

    /// <summary>
    /// The resistance that this grind really makes, in bar s/ml: this bench's own coffee and grinders. A scale in whole clicks
    /// centres on 20, one in halves on 7.
    /// </summary>
    private static double TrueResistance(ReadyPull pull)
    {
        var scale = pull.GrindStep is < 1.0 ? new GrinderScale(7, -0.22) : new GrinderScale(20, -0.075);
        var setting = pull.GrindSetting ?? scale.ReferenceSetting;
        var resistance =
            scale.Resistance(setting, 6.3) * (pull.DoseGrams / 15.0) * Math.Exp(-0.011 * ((pull.DaysFromRoast ?? 8) - 8));
        return Math.Clamp(resistance, 0.4, 120.0);
    }
}

/// <summary>One stand-in instrument: what it sends, how often, and how it errs.</summary>
public abstract class StandInInstrument(string device, string channel, string unit, int samplesASecond)
{
    public string Device { get; } = device;
    public string Channel { get; } = channel;
    public string Unit { get; } = unit;

    /// <summary>Steps of the bench between two samples.</summary>
    public int EverySteps { get; } = (int)Math.Round(1.0 / (samplesASecond * StandInBench.StepSeconds));

    /// <summary>Its reading now; called once every <see cref="EverySteps"/> steps.</summary>
    public abstract double Read(StandInBench bench);
}

/// <summary>A gauge at 20 samples a second with 0.05 bar of noise.</summary>
public sealed class StandInGauge(SeededRandom random, int samplesASecond = 20)
    : StandInInstrument("Stand-in gauge", "pressure", "bar", samplesASecond)
{
    private readonly GaugeModel _model = new(random);

    public override double Read(StandInBench bench) => _model.Read(bench.PressureBar);
}

/// <summary>A scale at 10 samples a second in steps of 0.1 g, late and shaken by drops.</summary>
public sealed class StandInScale(SeededRandom random, int samplesASecond = 10)
    : StandInInstrument("Stand-in scale", "weight", "g", samplesASecond)
{
    private readonly ScaleModel _model = new(random);

    public override double Read(StandInBench bench) =>
        _model.Read(bench.ScaleGrams, bench.FallingGramsPerS, EverySteps * StandInBench.StepSeconds);
}

/// <summary>A probe at 2 samples a second.</summary>
public sealed class StandInThermometer(SeededRandom random) : StandInInstrument("Stand-in thermometer", "temperature", "degC", 2)
{
    private readonly ThermometerModel _model = new(random, 22.0);

    public override double Read(StandInBench bench) => _model.Read(bench.ProbeC, EverySteps * StandInBench.StepSeconds);
}

/// <summary>A probe on the outside of the group at one sample a second.</summary>
public sealed class StandInGroupProbe(SeededRandom random) : StandInInstrument("Stand-in group probe", "group", "degC", 1)
{
    private readonly ThermometerModel _model = new(random, 22.0);

    public override double Read(StandInBench bench) => _model.Read(bench.GroupC, EverySteps * StandInBench.StepSeconds);
}
