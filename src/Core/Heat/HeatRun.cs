using RuddySpring.Core.Machines;
using RuddySpring.Core.Water;
using static RuddySpring.Core.Heat.MachineNodes;

namespace RuddySpring.Core.Heat;

/// <summary>
/// A machine's heat through a session: plays events on a lumped network of group, portafilter, boiler and the water in a chamber,
/// stepped exactly between events and cut where the thermostat switches. Water that passes the group exchanges heat by
/// effectiveness-NTU, T_out = T_g + (T_w - T_g) exp(-hA/(m_dot c)). Times are seconds since the session's start, which finds
/// everything at room temperature and the boiler filled.
/// </summary>
public sealed class HeatRun
{
    private const double FlowSliceSeconds = 2.0;
    private const double SampleSeconds = 15.0;

    private readonly HeatState _state;
    private readonly HeatedBoiler _boiler;
    private readonly GroupDoubt _doubt;
    private readonly List<HeatEvent> _pending = [];
    private readonly List<HeatEvent> _active = [];
    private readonly List<HeatPoint> _points = [];
    private readonly List<ShotHeat> _shots = [];
    private readonly List<HeatNotice> _notices = [];
    private readonly List<(double Seconds, bool On)> _lamp = [];
    private readonly double[] _integral = new double[Nodes];
    private readonly bool _records;
    private PuckWater? _puckWater;

    /// <summary>A cold machine.</summary>
    /// <param name="machine">Its numbers.</param>
    /// <param name="ambientC">Room, -10 to 45 degC.</param>
    /// <param name="altitudeMetres">Height above the sea, m.</param>
    /// <param name="records">Whether to keep the course; a look ahead needs none.</param>
    /// <exception cref="FieldRangeException">A value is out of range.</exception>
    public HeatRun(Machine machine, double ambientC, double altitudeMetres, bool records = true)
    {
        _state = new(machine, ambientC, altitudeMetres);
        _boiler = new(_state);
        _doubt = new(machine, _state.Constants);
        _records = records;
        Record();
    }

    private HeatRun(HeatRun other, bool records)
    {
        _state = other._state.Clone();
        _boiler = other._boiler.CloneInto(_state);
        _doubt = other._doubt.Clone();
        _records = records;
        _pending.AddRange(other._pending);
        _active.AddRange(other._active);
        if (records)
            _points.AddRange(other._points);
        _shots.AddRange(other._shots);
        _notices.AddRange(other._notices);
        _lamp.AddRange(other._lamp);
        _puckWater = other._puckWater?.Clone();
        Seconds = other.Seconds;
    }

    /// <summary>Now, s since the start.</summary>
    public double Seconds { get; private set; }

    /// <summary>Group, or metal of the chamber, degC.</summary>
    public double GroupC => _state.TemperatureC[Group];

    /// <summary>Water in the boiler, degC; null without a boiler.</summary>
    public double? BoilerC => HasBoiler ? _boiler.WaterC : null;

    /// <summary>What the boiler's gauge shows, bar; null without a boiler.</summary>
    public double? GaugeBar => HasBoiler ? Air.GaugeBar(_boiler.WaterC) : null;

    /// <summary>Water left in the boiler, g.</summary>
    public double WaterGrams => _state.Nodes.WaterGrams;

    /// <summary>Air in the boiler, as a share of what its headspace holds when it is closed cold.</summary>
    public double AirShare => _boiler.AirShare;

    /// <summary>One standard deviation of the group, K.</summary>
    public double PlusMinusK => _doubt.PlusMinusK;

    /// <summary>Whether it is switched on.</summary>
    public bool Powered => _state.Powered;

    /// <summary>Whether the element is on.</summary>
    public bool Heating => _state.Heating;

    /// <summary>The course so far.</summary>
    public IReadOnlyList<HeatPoint> Points => _points;

    /// <summary>Shots so far.</summary>
    public IReadOnlyList<ShotHeat> Shots => _shots;

    /// <summary>What the events asked for and the machine could not give.</summary>
    public IReadOnlyList<HeatNotice> Notices => _notices;

    /// <summary>When the element went on and off.</summary>
    public IReadOnlyList<(double Seconds, bool On)> ElementChanges => _lamp;

    /// <summary>Boiler with its air as it stands.</summary>
    public TrappedAir Air => _boiler.Air;

    /// <summary>Boiler temperature at which the element goes off, degC, with the air that is in it now; the step of a heated
    /// group.</summary>
    public double SetC => HasBoiler ? _boiler.OffAtC : _state.GroupSetC;

    /// <summary>Everything exchanged with the outside.</summary>
    public HeatAccount Account => _state.Account;

    private bool HasBoiler => _state.Machine.HasBoiler;

    /// <summary>A copy to look ahead with.</summary>
    public HeatRun Clone(bool records = false) => new(this, records);

    /// <summary>Plays events in their order and goes on to a time in s.</summary>
    public static HeatRun Play(
        Machine machine,
        double ambientC,
        double altitudeMetres,
        IEnumerable<HeatEvent> events,
        double untilSeconds,
        bool records = true
    )
    {
        var run = new HeatRun(machine, ambientC, altitudeMetres, records);
        foreach (var e in events)
            run.Add(e);
        run.AdvanceTo(untilSeconds);
        return run;
    }

    /// <summary>Adds something that happens now or later.</summary>
    public void Add(HeatEvent e)
    {
        var at = _pending.FindIndex(p => p.AtSeconds > e.AtSeconds);
        if (at < 0)
            _pending.Add(e);
        else
            _pending.Insert(at, e);
    }

    /// <summary>Corrects the group by a reading in degC with its standard deviation in K.</summary>
    public void CorrectGroup(double readingC, double sigmaK)
    {
        _state.ShiftGroup(_doubt.Read(readingC, GroupC, sigmaK));
        Record();
    }

    /// <summary>Corrects the group by a one-sided reading: it is at least (or at most) so many degC.</summary>
    public void CorrectGroupOneSided(double limitC, bool atLeast, double sigmaK)
    {
        if (atLeast ? GroupC >= limitC : GroupC <= limitC)
            return;
        CorrectGroup(limitC, sigmaK);
    }

    /// <summary>Corrects the boiler by its gauge in bar, seen with the air that is in it.</summary>
    public void CorrectBoilerByGauge(double gaugeBar)
    {
        if (HasBoiler)
            _boiler.Shift(Air.WaterC(gaugeBar));
        Record();
    }

    /// <summary>Corrects the boiler by the element having just gone on or off.</summary>
    public void CorrectBoilerByElement(bool on)
    {
        if (!HasBoiler || !Powered)
            return;
        _boiler.Shift(on ? _boiler.OnAtC : _boiler.OffAtC);
        _state.Heating = on;
        Record();
    }

    /// <summary>Goes on to a time in s.</summary>
    public void AdvanceTo(double seconds)
    {
        while (true)
        {
            while (_pending.Count > 0 && _pending[0].AtSeconds <= Seconds + 1e-9)
            {
                var e = _pending[0];
                _pending.RemoveAt(0);
                Start(e);
            }

            var step = seconds - Seconds;
            if (step <= 1e-9)
                return;
            if (_pending.Count > 0)
                step = Math.Min(step, _pending[0].AtSeconds - Seconds);
            foreach (var e in _active)
                step = Math.Min(step, e.EndSeconds - Seconds);
            if (_active.Count > 0 && _active.Any(IsFlow))
                step = Math.Min(step, FlowSliceSeconds);
            if (_records)
                step = Math.Min(step, (Math.Floor((Seconds + 1e-6) / SampleSeconds) * SampleSeconds) + SampleSeconds - Seconds);
            Step(step);
            for (var i = _active.Count - 1; i >= 0; i--)
            {
                if (_active[i].EndSeconds > Seconds + 1e-9)
                    continue;
                var over = _active[i];
                _active.RemoveAt(i);
                End(over);
            }

            if (_records && Math.Abs((Seconds / SampleSeconds) - Math.Round(Seconds / SampleSeconds)) < 1e-6)
                Record();
        }
    }

    private static bool IsFlow(HeatEvent e) =>
        e.Kind is HeatEventKind.Flush or HeatEventKind.Shot or HeatEventKind.Steam or HeatEventKind.Bleed;

    private void Start(HeatEvent e)
    {
        switch (e.Kind)
        {
            case HeatEventKind.On or HeatEventKind.Off:
                _state.Powered = e.Kind == HeatEventKind.On;
                SetHeating(_state.Powered);
                break;
            case HeatEventKind.PortafilterOut or HeatEventKind.PortafilterIn:
                _state.Nodes.PortafilterIn = e.Kind == HeatEventKind.PortafilterIn;
                break;
            case HeatEventKind.HeaterStep:
                _state.GroupSetC = HeatRanges.HeaterStep.Check(e.ValueC);
                break;
            case HeatEventKind.Refill when HasBoiler:
                Say(HeatNoticeKind.RefillDoesNotFit, _boiler.Refill(e.Grams));
                break;
            case HeatEventKind.Refill:
                break;
            default:
                Open(e);
                break;
        }

        Record();
    }

    private void Open(HeatEvent e)
    {
        if (e.Kind is HeatEventKind.FillAndHold || (e.Kind is HeatEventKind.Shot && !HasBoiler))
            _state.PourIn(e.Grams, e.ValueC);
        if (e.Kind == HeatEventKind.Shot)
            _puckWater = new(e.AtSeconds, GroupC, PlusMinusK, _state.BoilingC);
        if (e.Seconds > 0)
            _active.Add(e);
        else
            End(e);
    }

    private void End(HeatEvent e)
    {
        if (e.Kind == HeatEventKind.FillAndHold || (e.Kind == HeatEventKind.Shot && !HasBoiler))
            _state.PourOut();
        if (e.Kind == HeatEventKind.Shot && _puckWater is not null)
        {
            var heat = _puckWater.Over(e);
            _shots.Add(heat);
            if (heat.FlashedK > 0)
                _notices.Add(new(Seconds, HeatNoticeKind.WaterFlashes, heat.FlashedK));
        }

        Record();
    }

    /// <summary>One step of at most so many seconds, cut where the thermostat switches.</summary>
    private void Step(double seconds)
    {
        var constants = _state.Constants;
        var load = HeatLoad.Of(_active, _state.Machine, constants, () => GaugeBar ?? 0);
        var pass = load.PassWPerK(constants);
        var sourceC = _state.TemperatureC[Boiler];
        var network = _state.Nodes.Network(load.ClothWPerK + load.BathWPerK + pass);
        Span<double> t = stackalloc double[Nodes];
        Span<double> inflow = stackalloc double[Nodes];
        Span<double> integral = stackalloc double[Nodes];
        Span<int> index = stackalloc int[Nodes];
        var heater = Heating ? constants.HeaterWatts : 0.0;
        var count = 0;
        for (var i = 0; i < Nodes; i++)
        {
            if (!_state.Nodes.Has(i))
                continue;
            t[count] = _state.TemperatureC[i];
            inflow[count] = LossOf(i, load) * _state.AmbientC;
            if (i == Group)
                inflow[count] += (load.BathWPerK * load.BathC) + (pass * sourceC);
            if (i == _state.Heated)
                inflow[count] += heater;
            index[i] = count++;
        }

        network.Begin(t[..count], inflow[..count]);
        var (length, switches) = UntilSwitch(network, index[_state.Heated], seconds);
        network.Advance(length, t[..count], integral[..count]);
        for (var i = 0; i < Nodes; i++)
        {
            if (!_state.Nodes.Has(i))
                continue;
            _state.TemperatureC[i] = t[index[i]];
            _integral[i] = integral[index[i]];
            _state.LostJ += LossOf(i, load) * (_integral[i] - (_state.AmbientC * length));
        }

        _state.HeaterJ += heater * length;
        _state.BroughtJ += load.BathWPerK * ((load.BathC * length) - _integral[Group]);
        _doubt.Relax(length);
        Seconds += length;
        MoveWater(load, length, sourceC, pass);
        if (switches)
            SetHeating(!Heating);
    }

    private double LossOf(int node, HeatLoad load) => _state.Nodes.LossOf(node) + (node == Group ? load.ClothWPerK : 0);

    /// <summary>What leaves boiler and chamber in a step.</summary>
    private void MoveWater(HeatLoad load, double seconds, double sourceC, double pass)
    {
        if (load.PassGramsPerS > 0)
        {
            var wanted = load.PassGramsPerS * seconds;
            var mass = _boiler.Draw(wanted);
            Say(HeatNoticeKind.BoilerRunsDry, wanted - mass);
            _state.CarriedJ += (mass * Steam.WaterJPerGK * _boiler.WaterC) - (pass * ((sourceC * seconds) - _integral[Group]));
            var mean = _integral[Group] / seconds;
            _puckWater?.Add(Seconds - (seconds / 2), mass, mean + ((sourceC - mean) * Math.Exp(-load.Ntu(_state.Constants))));
        }

        if (HasBoiler && load.SteamGramsPerS > 0)
            Say(HeatNoticeKind.BoilerRunsDry, _boiler.LetSteam(load.SteamGramsPerS * seconds));
        if (HasBoiler && load.Bleeding)
            _boiler.LetAir(seconds);
        if (HasBoiler && Heating && WaterGrams < _state.Constants.MinimumGrams)
            Say(HeatNoticeKind.ElementUncovered, _state.Constants.MinimumGrams - WaterGrams);
        if (
            _state.Nodes.ChamberGrams > 0
            && _active.Find(e => e.Kind == HeatEventKind.Shot) is { } shot
            && Seconds > shot.AtSeconds + shot.BloomSeconds + 1e-9
        )
        {
            var mass = shot.Grams * seconds / Math.Max(1e-6, shot.Seconds - shot.BloomSeconds);
            _puckWater?.Add(Seconds - (seconds / 2), mass, _integral[ChamberWater] / seconds);
        }
    }

    /// <summary>Notes a shortfall; one of a kind that goes on is one notice with its largest, or its summed, grams.</summary>
    private void Say(HeatNoticeKind kind, double grams)
    {
        if (grams <= 1e-6)
            return;
        var last = _notices.FindLastIndex(n => n.Kind == kind);
        if (last < 0 || Seconds - _notices[last].UntilSeconds > HeatNotice.SameWithinSeconds)
        {
            _notices.Add(new(Seconds, kind, grams) { UntilSeconds = Seconds });
            return;
        }

        var before = _notices[last];
        var amount = kind == HeatNoticeKind.ElementUncovered ? Math.Max(before.Amount, grams) : before.Amount + grams;
        _notices[last] = before with { Amount = amount, UntilSeconds = Seconds };
    }

    private (double Seconds, bool Switches) UntilSwitch(HeatNetwork network, int node, double seconds)
    {
        if (!Powered || !_state.HasElement)
            return (seconds, false);
        var atC = Heating ? _boiler.OffAtC : _boiler.OnAtC;
        return network.FirstCrossing(node, atC, rising: Heating, seconds) is { } at ? (at, true) : (seconds, false);
    }

    private void SetHeating(bool on)
    {
        if (on == Heating || (on && !_state.HasElement))
            return;
        _state.Heating = on;
        _lamp.Add((Seconds, on));
    }

    private void Record()
    {
        if (!_records)
            return;
        var point = new HeatPoint(Seconds, GroupC, PlusMinusK, BoilerC, GaugeBar);
        if (_points.Count > 0 && _points[^1].Seconds >= Seconds - 1e-6)
            _points[^1] = point;
        else
            _points.Add(point);
    }
}
