using RuddySpring.Core.Machines;
using RuddySpring.Core.Water;
using static RuddySpring.Core.Heat.MachineNodes;

namespace RuddySpring.Core.Heat;

/// <summary>
/// A machine's heat through a session: a lumped network of group, portafilter, boiler and the water in a chamber, stepped exactly between
/// events, with a pressurestat that has a hysteresis and a boiler that may hold trapped air. Water that passes the group exchanges heat by
/// effectiveness-NTU, T_out = T_g + (T_w - T_g) exp(-hA/(m_dot c)). Times are seconds since the session's start, which finds everything
/// at room temperature and the boiler filled.
/// </summary>
public sealed class HeatRun
{
    /// <summary>Heat capacity of roasted coffee, J/(g K), about 1.8 (food engineering handbooks, from memory).</summary>
    public const double CoffeeJPerGK = 1.8;

    // of the heat that passing water loses, this share warms the group's lump; the rest leaves with basket, vapour and dead water. Fitted
    // to what people report: 88 to 92 degC at the puck from a group at 70 to 78, and 5 K a shot.
    private const double PassShareToGroup = 0.75;
    private const double ClothWPerK = 4.0;

    // vapour from the element sweeps the air out of the open valve well before the bulk of the water boils; 10 to 15 s until the steam is
    // steady (common practice)
    private const double AirLeavesInSeconds = 3.0;
    private const double AirLeavesAboveC = 75.0;
    private const double SteamBathSeconds = 75.0;
    private const double SubmersionSeconds = 45.0;
    private const double SteamBathFallK = 5.0;
    private const double SubmersionFallK = 1.0;
    private const double GroupThermostatK = 1.0;
    private const double FlowSliceSeconds = 2.0;
    private const double SampleSeconds = 15.0;
    private const double ColdSpreadK = 1.0;

    private readonly Machine _machine;
    private readonly HeatConstants _constants;
    private readonly double _ambientC;
    private readonly double _atmosphereBar;
    private readonly double _boilingC;
    private readonly List<HeatEvent> _pending = [];
    private readonly List<HeatEvent> _active = [];
    private readonly List<HeatPoint> _points = [];
    private readonly List<ShotHeat> _shots = [];
    private readonly List<(double Seconds, bool On)> _lamp = [];
    private readonly double[] _temperature = new double[Nodes];
    private readonly double[] _integral = new double[Nodes];
    private readonly bool _records;
    private readonly MachineNodes _nodes;
    private double _shotWater, _shotWaterMass, _leverUp;
    private double _airShare, _sealedAtC;
    private double _groupSetC;
    private bool _powered, _heating;
    private double _variance;
    private double _offAtC = double.NaN, _onAtC = double.NaN;
    private readonly double _startJ;
    private double _heaterJ, _broughtJ, _lostJ, _carriedJ;

    /// <summary>A cold machine.</summary>
    /// <param name="machine">Its numbers.</param>
    /// <param name="ambientC">Room, -10 to 45 degC.</param>
    /// <param name="altitudeMetres">Height above the sea, m.</param>
    /// <param name="records">Whether to keep the course; a look ahead needs none.</param>
    /// <exception cref="FieldRangeException">A value is out of range.</exception>
    public HeatRun(Machine machine, double ambientC, double altitudeMetres, bool records = true)
    {
        _machine = machine;
        _constants = HeatConstants.Of(machine).Checked();
        _nodes = new(machine, _constants) { WaterGrams = machine.HasBoiler ? _constants.FillGrams : 0 };
        _ambientC = HeatRanges.Ambient.Check(ambientC);
        _atmosphereBar = Atmosphere.PressureBar(altitudeMetres);
        _boilingC = Saturation.TemperatureC(_atmosphereBar);
        _records = records;
        Array.Fill(_temperature, ambientC);
        _airShare = 1.0;
        _sealedAtC = Math.Max(1.0, ambientC);
        _groupSetC = _constants.HeaterStepsC.Count > 0 ? _constants.HeaterStepsC[^1] : 0;
        _variance = ColdSpreadK * ColdSpreadK;
        _startJ = StoredJ();
        Record();
    }

    private HeatRun(HeatRun other, bool records)
    {
        _machine = other._machine;
        _constants = other._constants;
        _ambientC = other._ambientC;
        _atmosphereBar = other._atmosphereBar;
        _boilingC = other._boilingC;
        _records = records;
        _pending.AddRange(other._pending);
        _active.AddRange(other._active);
        if (records) _points.AddRange(other._points);
        _shots.AddRange(other._shots);
        _lamp.AddRange(other._lamp);
        other._temperature.CopyTo(_temperature, 0);
        (_shotWater, _shotWaterMass, _leverUp) = (other._shotWater, other._shotWaterMass, other._leverUp);
        _nodes = other._nodes.Clone();
        (_airShare, _sealedAtC) = (other._airShare, other._sealedAtC);
        (_groupSetC, _powered, _heating) = (other._groupSetC, other._powered, other._heating);
        (_variance, _offAtC, _onAtC, Seconds) = (other._variance, other._offAtC, other._onAtC, other.Seconds);
        (_startJ, _heaterJ, _broughtJ, _lostJ, _carriedJ) = (other._startJ, other._heaterJ, other._broughtJ, other._lostJ, other._carriedJ);
    }

    /// <summary>Now, s since the start.</summary>
    public double Seconds { get; private set; }

    /// <summary>Group, or metal of the chamber, degC.</summary>
    public double GroupC => _temperature[Group];

    /// <summary>Water in the boiler, degC; null without a boiler.</summary>
    public double? BoilerC => _machine.HasBoiler ? _temperature[Boiler] : null;

    /// <summary>What the boiler's gauge shows, bar; null without a boiler.</summary>
    public double? GaugeBar => _machine.HasBoiler ? Air.GaugeBar(_temperature[Boiler]) : null;

    /// <summary>Water left in the boiler, g.</summary>
    public double WaterGrams => _nodes.WaterGrams;

    /// <summary>Share of the sealed-in air that is still there, 0 to 1.</summary>
    public double AirShare => _airShare;

    /// <summary>One standard deviation of the group, K.</summary>
    public double PlusMinusK => Math.Sqrt(_variance);

    /// <summary>Whether it is switched on.</summary>
    public bool Powered => _powered;

    /// <summary>Whether the element is on.</summary>
    public bool Heating => _heating;

    /// <summary>The course so far.</summary>
    public IReadOnlyList<HeatPoint> Points => _points;

    /// <summary>Shots so far.</summary>
    public IReadOnlyList<ShotHeat> Shots => _shots;

    /// <summary>When the element went on and off.</summary>
    public IReadOnlyList<(double Seconds, bool On)> ElementChanges => _lamp;

    /// <summary>Boiler with its air as it stands.</summary>
    public TrappedAir Air => new(_constants.BoilerVolumeMl, _nodes.WaterGrams, _airShare, _sealedAtC, _atmosphereBar);

    /// <summary>Boiler temperature at which the element goes off, degC, with the air that is in it now.</summary>
    public double SetC
    {
        get
        {
            Thresholds();
            return _machine.HasBoiler ? _offAtC : _groupSetC;
        }
    }

    /// <summary>Everything exchanged with the outside.</summary>
    public HeatAccount Account => new(_startJ, StoredJ(), _heaterJ, _broughtJ, _lostJ, _carriedJ);

    /// <summary>A copy to look ahead with.</summary>
    public HeatRun Clone(bool records = false) => new(this, records);

    /// <summary>Plays events in their order and goes on to a time in s.</summary>
    public static HeatRun Play(
        Machine machine, double ambientC, double altitudeMetres, IEnumerable<HeatEvent> events, double untilSeconds, bool records = true)
    {
        var run = new HeatRun(machine, ambientC, altitudeMetres, records);
        foreach (var e in events) run.Add(e);
        run.AdvanceTo(untilSeconds);
        return run;
    }

    /// <summary>Adds something that happens now or later.</summary>
    public void Add(HeatEvent e)
    {
        var at = _pending.FindIndex(p => p.AtSeconds > e.AtSeconds);
        if (at < 0) _pending.Add(e);
        else _pending.Insert(at, e);
    }

    /// <summary>Corrects the group by a reading in degC with its standard deviation in K (scalar Kalman update).</summary>
    public void CorrectGroup(double readingC, double sigmaK)
    {
        var gain = _variance / (_variance + (sigmaK * sigmaK));
        ShiftGroup(gain * (readingC - GroupC));
        _variance *= 1.0 - gain;
        Record();
    }

    /// <summary>Corrects the group by a one-sided reading: it is at least (or at most) so many degC.</summary>
    public void CorrectGroupOneSided(double limitC, bool atLeast, double sigmaK)
    {
        if (atLeast ? GroupC >= limitC : GroupC <= limitC) return;
        CorrectGroup(limitC, sigmaK);
    }

    /// <summary>Corrects the boiler by its gauge in bar, seen with the air that is in it.</summary>
    public void CorrectBoilerByGauge(double gaugeBar)
    {
        if (_machine.HasBoiler) ShiftBoiler(Air.WaterC(gaugeBar));
        Record();
    }

    /// <summary>Corrects the boiler by the element having just gone on or off.</summary>
    public void CorrectBoilerByElement(bool on)
    {
        if (!_machine.HasBoiler || !_powered) return;
        Thresholds();
        ShiftBoiler(on ? _onAtC : _offAtC);
        _heating = on;
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
            if (step <= 1e-9) return;
            if (_pending.Count > 0) step = Math.Min(step, _pending[0].AtSeconds - Seconds);
            foreach (var e in _active) step = Math.Min(step, e.EndSeconds - Seconds);
            if (_active.Count > 0 && _active.Any(IsFlow)) step = Math.Min(step, FlowSliceSeconds);
            if (_records) step = Math.Min(step, (Math.Floor((Seconds + 1e-6) / SampleSeconds) * SampleSeconds) + SampleSeconds - Seconds);
            Step(step);
            for (var i = _active.Count - 1; i >= 0; i--)
            {
                if (_active[i].EndSeconds > Seconds + 1e-9) continue;
                var over = _active[i];
                _active.RemoveAt(i);
                End(over);
            }

            if (_records && Math.Abs((Seconds / SampleSeconds) - Math.Round(Seconds / SampleSeconds)) < 1e-6) Record();
        }
    }

    private static bool IsFlow(HeatEvent e) => e.Kind is HeatEventKind.Flush or HeatEventKind.Shot or HeatEventKind.Steam or HeatEventKind.Bleed;

    private void Start(HeatEvent e)
    {
        switch (e.Kind)
        {
            case HeatEventKind.On:
                _powered = true;
                SetHeating(true);
                break;
            case HeatEventKind.Off:
                _powered = false;
                SetHeating(false);
                break;
            case HeatEventKind.PortafilterOut:
                _nodes.PortafilterIn = false;
                break;
            case HeatEventKind.PortafilterIn:
                _nodes.PortafilterIn = true;
                break;
            case HeatEventKind.HeaterStep:
                _groupSetC = HeatRanges.HeaterStep.Check(e.ValueC);
                break;
            case HeatEventKind.Refill:
                Refill(e.Grams);
                break;
            default:
                Open(e);
                break;
        }

        Record();
    }

    private void Open(HeatEvent e)
    {
        if (e.Kind is HeatEventKind.FillAndHold || (e.Kind is HeatEventKind.Shot && !_machine.HasBoiler))
        {
            PourOut();
            _nodes.ChamberGrams = e.Grams;
            _temperature[ChamberWater] = e.ValueC;
            _broughtJ += e.Grams * Steam.WaterJPerGK * e.ValueC;
        }

        if (e.Kind == HeatEventKind.Shot) (_leverUp, _shotWater, _shotWaterMass) = (GroupC, 0, 0);
        if (e.Seconds > 0) _active.Add(e);
        else End(e);
    }

    private void End(HeatEvent e)
    {
        if (e.Kind == HeatEventKind.FillAndHold) PourOut();
        if (e.Kind == HeatEventKind.Shot)
        {
            if (!_machine.HasBoiler) PourOut();
            var water = _shotWaterMass > 0 ? _shotWater / _shotWaterMass : GroupC;
            var hot = e.Grams * Steam.WaterJPerGK;
            var coffee = e.DoseGrams * CoffeeJPerGK;
            var bed = hot + coffee > 0 ? ((hot * water) + (coffee * _ambientC)) / (hot + coffee) : water;
            _shots.Add(new(e.AtSeconds, _leverUp, water, bed));
        }

        Record();
    }

    private void PourOut()
    {
        _carriedJ += _nodes.ChamberGrams * Steam.WaterJPerGK * _temperature[ChamberWater];
        _nodes.ChamberGrams = 0;
    }

    private void Refill(double grams)
    {
        if (!_machine.HasBoiler) return;
        var before = _nodes.BoilerJPerK;
        _nodes.WaterGrams += grams;
        _temperature[Boiler] = ((before * _temperature[Boiler]) + (grams * Steam.WaterJPerGK * _ambientC)) / _nodes.BoilerJPerK;
        _broughtJ += grams * Steam.WaterJPerGK * _ambientC;
        _airShare = 1.0;
        _sealedAtC = Math.Clamp(_temperature[Boiler], 1.0, _boilingC - 1.0);
        _offAtC = double.NaN;
    }

    private double StoredJ()
    {
        var sum = 0.0;
        for (var i = 0; i < Nodes; i++)
        {
            if (_nodes.Has(i)) sum += _nodes.HeatOf(i) * _temperature[i];
        }

        return sum;
    }

    /// <summary>One step of at most so many seconds, cut where the thermostat switches.</summary>
    private void Step(double seconds)
    {
        double passFlow = 0, pass = 0, cloth = 0, bath = 0, bathC = 0, steamFlow = 0;
        var bleeding = false;
        foreach (var e in _active)
        {
            switch (e.Kind)
            {
                case HeatEventKind.Flush or HeatEventKind.Shot when _machine.HasBoiler:
                    passFlow += e.Grams / e.Seconds;
                    break;
                case HeatEventKind.Cloth:
                    cloth += ClothWPerK;
                    break;
                case HeatEventKind.SteamBath:
                    (bath, bathC) = (_machine.MetalHeatCapacity / SteamBathSeconds, e.ValueC - SteamBathFallK);
                    break;
                case HeatEventKind.Submersion:
                    (bath, bathC) = (_machine.MetalHeatCapacity / SubmersionSeconds, e.ValueC - SubmersionFallK);
                    break;
                case HeatEventKind.Steam:
                    steamFlow += e.Grams / e.Seconds;
                    break;
                case HeatEventKind.Bleed:
                    bleeding = true;
                    steamFlow += _constants.SteamGramsPerS * Math.Min(1.0, GaugeBar ?? 0);
                    break;
            }
        }

        var ntu = passFlow > 0 ? _constants.PassWPerK / (passFlow * Steam.WaterJPerGK) : 0;
        if (passFlow > 0) pass = passFlow * Steam.WaterJPerGK * (1.0 - Math.Exp(-ntu)) * PassShareToGroup;
        var sourceC = _temperature[Boiler];

        var network = _nodes.Network(cloth + bath + pass);
        Span<double> t = stackalloc double[Nodes];
        Span<double> inflow = stackalloc double[Nodes];
        Span<double> integral = stackalloc double[Nodes];
        var heater = _heating ? _constants.HeaterWatts : 0.0;
        var heated = _machine.HasBoiler ? Boiler : Group;
        Span<int> index = stackalloc int[Nodes];
        var count = 0;
        for (var i = 0; i < Nodes; i++)
        {
            if (!_nodes.Has(i)) continue;
            t[count] = _temperature[i];
            inflow[count] = (_nodes.LossOf(i) + (i == Group ? cloth : 0)) * _ambientC;
            if (i == Group) inflow[count] += (bath * bathC) + (pass * sourceC);
            if (i == heated) inflow[count] += heater;
            index[i] = count++;
        }

        network.Begin(t[..count], inflow[..count]);
        var (length, switches) = UntilSwitch(network, index[heated], seconds);
        network.Advance(length, t[..count], integral[..count]);
        for (var i = 0; i < Nodes; i++)
        {
            if (!_nodes.Has(i)) continue;
            _temperature[i] = t[index[i]];
            _integral[i] = integral[index[i]];
            _lostJ += (_nodes.LossOf(i) + (i == Group ? cloth : 0)) * (_integral[i] - (_ambientC * length));
        }

        _heaterJ += heater * length;
        _broughtJ += bath * ((bathC * length) - _integral[Group]);
        _variance = Relax(length);
        Seconds += length;
        if (passFlow > 0) Draw(passFlow, length, ntu, sourceC, pass);
        if (steamFlow > 0 && _machine.HasBoiler) LetSteam(steamFlow * length);
        if (bleeding && _temperature[Boiler] > AirLeavesAboveC)
        {
            _airShare *= Math.Exp(-length / AirLeavesInSeconds);
            if (_airShare < 0.01) _airShare = 0;
            _offAtC = double.NaN;
        }

        if (_nodes.ChamberGrams > 0) FollowChamber(length);
        if (switches) SetHeating(!_heating);
    }

    private void Draw(double flow, double seconds, double ntu, double sourceC, double pass)
    {
        var mass = Math.Min(flow * seconds, _nodes.WaterGrams);
        var toGroup = pass * ((sourceC * seconds) - _integral[Group]);
        _carriedJ += (mass * Steam.WaterJPerGK * _temperature[Boiler]) - toGroup;
        _nodes.WaterGrams -= mass;
        var mean = _integral[Group] / seconds;
        _shotWater += mass * (mean + ((sourceC - mean) * Math.Exp(-ntu)));
        _shotWaterMass += mass;
        _offAtC = double.NaN;
    }

    private void LetSteam(double grams)
    {
        var boiler = _temperature[Boiler];
        var latent = Steam.LatentJPerG(Math.Clamp(boiler, 80, 140));
        // no more steam than the heat above boiling gives
        var most = Math.Max(0, _nodes.BoilerJPerK * (boiler - _boilingC) / latent);
        var mass = Math.Min(Math.Min(grams, most), Math.Max(0, _nodes.WaterGrams - 1.0));
        if (mass <= 0) return;
        _carriedJ += mass * (latent + (Steam.WaterJPerGK * boiler));
        _nodes.WaterGrams -= mass;
        _temperature[Boiler] = boiler - (mass * latent / _nodes.BoilerJPerK);
        _offAtC = double.NaN;
    }

    private void FollowChamber(double seconds)
    {
        var shot = _active.Find(e => e.Kind == HeatEventKind.Shot);
        if (shot is null || Seconds <= shot.AtSeconds + shot.BloomSeconds + 1e-9) return;
        var mass = shot.Grams * seconds / Math.Max(1e-6, shot.Seconds - shot.BloomSeconds);
        _shotWater += mass * _integral[ChamberWater] / seconds;
        _shotWaterMass += mass;
    }

    private (double Seconds, bool Switches) UntilSwitch(HeatNetwork network, int node, double seconds)
    {
        if (!_powered || (!_machine.HasBoiler && _constants.HeaterStepsC.Count == 0)) return (seconds, false);
        Thresholds();
        return network.FirstCrossing(node, _heating ? _offAtC : _onAtC, rising: _heating, seconds) is { } at ? (at, true) : (seconds, false);
    }

    private void Thresholds()
    {
        if (!_machine.HasBoiler)
        {
            (_offAtC, _onAtC) = (_groupSetC + GroupThermostatK, _groupSetC - GroupThermostatK);
            return;
        }

        if (!double.IsNaN(_offAtC)) return;
        var air = Air;
        var set = _machine.BoilerGaugeBar ?? 1.0;
        _offAtC = air.WaterC(set);
        _onAtC = air.WaterC(Math.Max(0.02, set - _constants.HysteresisBar));
    }

    /// <summary>What is not known about the group grows from the cold start, or from a reading, to its spread at the group's own pace.</summary>
    private double Relax(double seconds)
    {
        var pace = (_constants.GroupAmbientWPerK + (_machine.HasBoiler ? _constants.EffectiveBoilerGroupWPerK : 0)) / _machine.MetalHeatCapacity;
        var spread = _constants.SpreadK * _constants.SpreadK;
        return spread + ((_variance - spread) * Math.Exp(-2.0 * pace * seconds));
    }

    private void ShiftGroup(double kelvin)
    {
        foreach (var node in new[] { Group, Portafilter })
        {
            if (!_nodes.Has(node)) continue;
            _temperature[node] += kelvin;
            _broughtJ += _nodes.HeatOf(node) * kelvin;
        }
    }

    private void ShiftBoiler(double toC)
    {
        _broughtJ += _nodes.BoilerJPerK * (toC - _temperature[Boiler]);
        _temperature[Boiler] = toC;
    }

    private void SetHeating(bool on)
    {
        if (on == _heating) return;
        if (on && !_machine.HasBoiler && _constants.HeaterStepsC.Count == 0) return;
        _heating = on;
        _lamp.Add((Seconds, on));
    }

    private void Record()
    {
        if (!_records) return;
        var point = new HeatPoint(Seconds, GroupC, PlusMinusK, BoilerC, GaugeBar);
        if (_points.Count > 0 && _points[^1].Seconds >= Seconds - 1e-6) _points[^1] = point;
        else _points.Add(point);
    }
}
