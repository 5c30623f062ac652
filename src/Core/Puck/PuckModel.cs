using RuddySpring.Core.Water;

namespace RuddySpring.Core.Puck;

/// <summary>What came of one step.</summary>
/// <param name="InflowMl">Water that entered the puck, ml.</param>
/// <param name="OutflowMl">Water that left it, ml.</param>
/// <param name="SolidsGrams">Solids that left with it, g.</param>
/// <param name="CupGrams">Weight that fell into the cup, g.</param>
public readonly record struct PuckStep(double InflowMl, double OutflowMl, double SolidsGrams, double CupGrams);

/// <summary>
/// A puck under pressure: parallel lanes, each wetted by its own front (<see cref="Wetting"/>), resisting by
/// <see cref="FlowResistance"/>, giving its solubles by <see cref="Extraction"/>. High pressure on a badly wetted puck, and high
/// pressure held on an eroded one, widen the spread of the lanes: a channel. Deterministic.
/// </summary>
public sealed class PuckModel
{
    // per bar above 3 bar while the front crosses: the same for a thick bed as for a thin one
    private const double EarlyStress = 0.06;
    private const double LateStress = 0.004; // per bar s above 6 bar on lanes already eroded

    private readonly PuckParameters _puck;
    private Lane[] _lanes;
    private Extraction _extraction;
    private readonly PuckBehaviour _behaviour;
    private double _waterC;
    private double _thermal;
    private double _densityGramsPerMl;
    private readonly double _laneHeldMl;
    private double _stress;
    private double _stepSeconds,
        _swellStep,
        _softenStep;

    /// <summary>A dry puck.</summary>
    /// <param name="puck">Its parameters.</param>
    /// <param name="laneFactors">Permeability of each lane over the mean, length <see cref="PuckParameters.Lanes"/>; null spreads
    /// them by the quantiles of a normal distribution of the logarithm.</param>
    /// <exception cref="FieldRangeException">A parameter is out of range.</exception>
    public PuckModel(PuckParameters puck, IReadOnlyList<double>? laneFactors = null)
    {
        _puck = puck.Checked();
        _behaviour = puck.Behaviour;
        (_waterC, _thermal, _densityGramsPerMl) = (
            puck.WaterC,
            FlowResistance.Thermal(puck.WaterC),
            LiquidWater.DensityGramsPerMl(puck.WaterC)
        );
        var factors = laneFactors ?? QuantileFactors(puck.Lanes, puck.LaneSpread);
        HeldMl = _behaviour.WaterHeldPerGram * puck.DoseGrams / _densityGramsPerMl;
        _laneHeldMl = HeldMl / factors.Count;
        _lanes = [.. factors.Select(f => new Lane(f))];
        _extraction = new(factors.Count, puck.DoseGrams / factors.Count, _laneHeldMl, _behaviour.SolubleShare, puck.WaterC);
    }

    /// <summary>The water that enters now, degC, 20 to 100.</summary>
    /// <exception cref="FieldRangeException">It is out of range: at the puck no water is above boiling.</exception>
    public double WaterC
    {
        get => _waterC;
        set
        {
            _waterC = PuckParameters.WaterTemperature.Check(value);
            (_thermal, _densityGramsPerMl) = (FlowResistance.Thermal(value), LiquidWater.DensityGramsPerMl(value));
            _extraction.WaterC = value;
        }
    }

    /// <summary>Water in ml that the puck takes before it gives any.</summary>
    public double HeldMl { get; }

    /// <summary>Water that has entered, ml.</summary>
    public double InflowMl { get; private set; }

    /// <summary>Water that has left, ml.</summary>
    public double OutflowMl { get; private set; }

    /// <summary>Weight in the cup, g: water and solids.</summary>
    public double CupGrams { get; private set; }

    /// <summary>Solids in the cup, g.</summary>
    public double SolidsGrams { get; private set; }

    /// <summary>Strength of the cup so far: solids over weight, 0 to 1.</summary>
    public double Strength => CupGrams > 0.0 ? SolidsGrams / CupGrams : 0.0;

    /// <summary>Extraction so far: solids in the cup over dose, 0 to 1.</summary>
    public double ExtractionShare => SolidsGrams / _puck.DoseGrams;

    /// <summary>Standard deviation of the lanes' extraction, as a share of the dose: unevenness.</summary>
    public double ExtractionSpread
    {
        get
        {
            var dose = _puck.DoseGrams / _lanes.Length;
            var mean = _extraction.CupSolidsGrams.Average(g => g / dose);
            return Math.Sqrt(_extraction.CupSolidsGrams.Average(g => Math.Pow((g / dose) - mean, 2)));
        }
    }

    /// <summary>All solubles in g still in the puck.</summary>
    public double RemainingSolublesGrams => _extraction.RemainingGrams;

    /// <summary>A factor on how easily water passes, 1 for the puck as it was described; what is learned of it while it
    /// runs.</summary>
    public double FlowFactor { get; set; } = 1.0;

    /// <summary>The same puck once more as it stands now, to be taken another way.</summary>
    public PuckModel Copy()
    {
        var copy = (PuckModel)MemberwiseClone();
        copy._lanes = [.. _lanes.Select(l => l.Copy())];
        copy._extraction = _extraction.Copy();
        return copy;
    }

    /// <summary>A channel: water has found a way down one lane.</summary>
    /// <param name="lane">Which, from 0.</param>
    /// <param name="times">How many times as easily water passes there, above 0.</param>
    public void OpenChannel(int lane, double times) => _lanes[lane].Opened *= times;

    /// <summary>What would leave the puck in ml/s at a gauge pressure in bar as it stands now; nothing before the front is
    /// through.</summary>
    public double OutflowMlPerS(double pressureBar)
    {
        var pressure = Math.Max(0.0, pressureBar);
        var share = 1.0 / _lanes.Length;
        var baseResistance = _puck.ResistanceBarSPerMl * _thermal * FlowResistance.Compaction(_behaviour, pressure);
        return Restricted(
            pressure,
            _lanes.Where(l => l.Wetted >= 1.0).Sum(l => Conductance(l, FactorOf(l), baseResistance, share, out _))
        );
    }

    /// <summary>Advances the puck by a step in s under a gauge pressure in bar held over the step.</summary>
    public PuckStep Step(double pressureBar, double seconds)
    {
        var pressure = Math.Max(0.0, pressureBar);
        if (seconds != _stepSeconds)
        {
            _stepSeconds = seconds;
            _swellStep = Math.Exp(-seconds / _behaviour.SwellSeconds);
            _softenStep = Math.Exp(-seconds / _behaviour.SoftenSeconds);
        }

        var share = 1.0 / _lanes.Length;
        var baseResistance = _puck.ResistanceBarSPerMl * _thermal * FlowResistance.Compaction(_behaviour, pressure);
        var dryBase = _puck.ResistanceBarSPerMl * _thermal * _behaviour.DryShare;
        var open = 0.0;
        var advance = 0.0;
        var eroded = 0.0;
        var inflow = 0.0;

        foreach (var lane in _lanes)
        {
            var factor = FactorOf(lane);
            lane.StepInflow = 0.0;
            lane.StepConductance = 0.0;
            var left = seconds;
            if (lane.Wetted < 1.0)
            {
                var before = lane.Wetted;
                lane.Wetted =
                    pressure > 0.0 || before > 0.0
                        ? Wetting.Advance(
                            before,
                            pressure + _behaviour.CapillaryBar,
                            dryBase / (share * factor),
                            _laneHeldMl,
                            seconds,
                            out left
                        )
                        : before;
                lane.StepInflow = (lane.Wetted - before) * _laneHeldMl;
                advance += share * (lane.Wetted - before);
                if (lane.Wetted < 1.0)
                    left = 0.0;
            }

            if (lane.Wetted > 0.0)
            {
                lane.SwellLeft *= _swellStep;
                lane.SoftenLeft *= _softenStep;
            }

            if (left > 0.0)
            {
                lane.FlowingSeconds += left;
                lane.StepConductance = Conductance(lane, factor, baseResistance, share, out var erode) * (left / seconds);
                open += lane.StepConductance;
                if (_behaviour.ErodedTo < 1.0)
                    eroded += share * (1.0 - erode) / (1.0 - _behaviour.ErodedTo);
            }
        }

        var total = Restricted(pressure, open);
        // behind a small hole the puck itself bears only a part of the pressure
        var own = pressure - (_puck.RestrictorBarS2PerMl2 * total * total);
        _stress +=
            (EarlyStress * Math.Max(0.0, own - 3.0) * advance) + (seconds * LateStress * Math.Max(0.0, own - 6.0) * eroded);
        var solids = 0.0;
        var outflow = 0.0;
        Span<double> enters = stackalloc double[_lanes.Length];
        Span<double> leaves = stackalloc double[_lanes.Length];
        for (var i = 0; i < _lanes.Length; i++)
        {
            var lane = _lanes[i];
            var passing = open > 0.0 ? total * lane.StepConductance / open * seconds : 0.0;
            lane.PassedMl += passing;
            outflow += passing;
            enters[i] = passing + lane.StepInflow;
            inflow += enters[i];
        }

        _extraction.Step(enters, seconds, leaves);
        foreach (var grams in leaves)
            solids += grams;

        var cup = (outflow * _densityGramsPerMl) + solids;
        InflowMl += inflow;
        OutflowMl += outflow;
        SolidsGrams += solids;
        CupGrams += cup;
        return new PuckStep(inflow, outflow, solids, cup);
    }

    private double FactorOf(Lane lane) => lane.Factor * Math.Exp(_stress * lane.Bias) * lane.Opened * FlowFactor;

    /// <summary>How easily a wet lane lets water pass, ml/(s bar), and how much of its resistance erosion has left.</summary>
    private double Conductance(Lane lane, double factor, double baseResistance, double share, out double erode)
    {
        erode = FlowResistance.Erode(_behaviour, lane.PassedMl / (_puck.DoseGrams * share));
        var resistance = baseResistance * FlowResistance.Swell(_behaviour, lane.SwellLeft, lane.SoftenLeft) * erode;
        return factor * share * FlowResistance.Onset(_behaviour, lane.FlowingSeconds) / resistance;
    }

    /// <summary>
    /// Flow in ml/s through lanes of a conductance in ml/(s bar), compacted by the whole pressure, and the orifice: p = x + k Q^2
    /// with the puck's own drop x, by which alone it is compacted, Q = x G / (1 + beta x). Newton's method; the left side rises
    /// with x.
    /// </summary>
    private double Restricted(double pressureBar, double conductance)
    {
        if (conductance <= 0.0 || pressureBar <= 0.0)
            return 0.0;
        var k = _puck.RestrictorBarS2PerMl2;
        if (k <= 0.0)
            return pressureBar * conductance;
        var loose = conductance * FlowResistance.Compaction(_behaviour, pressureBar);
        var drop = pressureBar / 2.0;
        for (var i = 0; i < 40; i++)
        {
            var compaction = FlowResistance.Compaction(_behaviour, drop);
            var flow = loose * drop / compaction;
            var over = drop + (k * flow * flow) - pressureBar;
            if (Math.Abs(over) < 1e-9)
                break;
            drop = Math.Clamp(drop - (over / (1.0 + (2.0 * k * flow * loose / (compaction * compaction)))), 0.0, pressureBar);
        }

        return loose * drop / FlowResistance.Compaction(_behaviour, drop);
    }

    /// <summary>Lane factors at the mid-quantiles of a log-normal distribution, scaled to a mean of 1.</summary>
    private static double[] QuantileFactors(int lanes, double spread)
    {
        var raw = Enumerable.Range(0, lanes).Select(i => Math.Exp(spread * NormalQuantile((i + 0.5) / lanes))).ToArray();
        var mean = raw.Average();
        return [.. raw.Select(f => f / mean)];
    }

    /// <summary>Normal quantile by bisection of the probability integral (Abramowitz and Stegun 26.2.17, error below
    /// 7.5e-8).</summary>
    private static double NormalQuantile(double probability)
    {
        double low = -6.0,
            high = 6.0;
        for (var i = 0; i < 60; i++)
        {
            var middle = (low + high) / 2.0;
            if (NormalProbability(middle) < probability)
                low = middle;
            else
                high = middle;
        }

        return (low + high) / 2.0;
    }

    private static double NormalProbability(double x)
    {
        var t = 1.0 / (1.0 + (0.2316419 * Math.Abs(x)));
        var poly = t * (0.319381530 + (t * (-0.356563782 + (t * (1.781477937 + (t * (-1.821255978 + (t * 1.330274429))))))));
        var tail = Math.Exp(-x * x / 2.0) / Math.Sqrt(2.0 * Math.PI) * poly;
        return x >= 0.0 ? 1.0 - tail : tail;
    }

    private sealed class Lane(double factor)
    {
        public readonly double Factor = factor;
        public readonly double Bias = Math.Log(Math.Max(factor, 1e-6));
        public double Opened = 1.0;
        public double Wetted;
        public double SwellLeft = 1.0;
        public double SoftenLeft = 1.0;
        public double FlowingSeconds;
        public double PassedMl;
        public double StepInflow;
        public double StepConductance;

        public Lane Copy() => (Lane)MemberwiseClone();
    }
}
