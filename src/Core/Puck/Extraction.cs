using System.Runtime.InteropServices;
using System.Runtime.Intrinsics;

namespace RuddySpring.Core.Puck;

/// <summary>
/// The coffee of parallel lanes, each of cells in series. Each cell holds a fast and a slow pool of solubles that dissolve at
/// first order with a saturation limit and are carried on by the flow; water first fills a cell and then passes it. Mass is
/// conserved to rounding. Rates are a first calibration from memory of common practice (18 to 22 % at 1:2). A cell waits for the
/// one above it, which keeps a processor waiting too, so that lanes are worked out side by side.
/// </summary>
public sealed class Extraction
{
    /// <summary>Cells in series.</summary>
    public const int Cells = 24;

    private const double FastShare = 0.65;
    private const double FastPerSecond = 0.28;
    private const double SlowPerSecond = 0.009;
    private const double SaturationGramsPerMl = 0.32;
    private const double ActivationKelvin = 3000.0; // activation energy over gas constant, about 25 kJ/mol
    private static readonly int Side = Vector256<double>.Count; // lanes worked out side by side

    private readonly int _lanes;
    private readonly int _width; // the lanes, and empty ones up to a whole number of sides
    private readonly double _roomMl;

    // g of each pool, g dissolved and ml of water: of the lanes side by side, cell after cell
    private double[] _fast,
        _slow,
        _dissolved,
        _water;
    private double[] _cup;
    private int _filling;
    private double _arrhenius;

    /// <summary>Starts dry lanes, each of a dose in g that holds a volume of water in ml, at a temperature in degC.</summary>
    public Extraction(int lanes, double doseGrams, double heldMl, double solubleShare, double waterC)
    {
        (_lanes, _filling) = (lanes, lanes);
        _width = (lanes + Side - 1) / Side * Side;
        _roomMl = heldMl / Cells;
        WaterC = waterC;
        (_fast, _slow, _dissolved, _water) = (Empty(), Empty(), Empty(), Empty());
        _cup = new double[lanes];
        var soluble = doseGrams * solubleShare / Cells;
        for (var cell = 0; cell < Cells; cell++)
        {
            _fast.AsSpan(cell * _width, lanes).Fill(soluble * FastShare);
            _slow.AsSpan(cell * _width, lanes).Fill(soluble * (1.0 - FastShare));
        }
    }

    /// <summary>Temperature of the water, degC: solubles dissolve faster in hotter water (Arrhenius).</summary>
    public double WaterC
    {
        set =>
            _arrhenius = Math.Exp(
                -ActivationKelvin * ((1.0 / (value + Units.KelvinAtZeroC)) - (1.0 / (93.0 + Units.KelvinAtZeroC)))
            );
    }

    /// <summary>Solids in g that have left each lane so far.</summary>
    public IReadOnlyList<double> CupSolidsGrams => _cup;

    /// <summary>All solubles in g still in the lanes, dissolved or not.</summary>
    public double RemainingGrams => Enumerable.Range(0, _lanes).Sum(RemainingIn);

    /// <summary>The same lanes once more, to be taken another way.</summary>
    public Extraction Copy()
    {
        var copy = (Extraction)MemberwiseClone();
        (copy._fast, copy._slow, copy._dissolved) = ([.. _fast], [.. _slow], [.. _dissolved]);
        (copy._water, copy._cup) = ([.. _water], [.. _cup]);
        return copy;
    }

    /// <summary>Lets volumes in ml of fresh water enter over a step in s.</summary>
    /// <param name="inflowMl">One a lane.</param>
    /// <param name="seconds">The step.</param>
    /// <param name="solidsGrams">Gets what leaves each lane in this step, g.</param>
    public void Step(ReadOnlySpan<double> inflowMl, double seconds, Span<double> solidsGrams)
    {
        var fastStep = Math.Min(0.5, FastPerSecond * _arrhenius * seconds);
        var slowStep = Math.Min(0.5, SlowPerSecond * _arrhenius * seconds);
        if (_filling == 0)
        {
            StepFull(inflowMl, fastStep, slowStep, solidsGrams);
        }
        else
        {
            _filling = 0;
            for (var lane = 0; lane < _lanes; lane++)
                solidsGrams[lane] = StepFilling(lane, inflowMl[lane], fastStep, slowStep);
        }

        for (var lane = 0; lane < _lanes; lane++)
            _cup[lane] += solidsGrams[lane];
    }

    private double[] Empty() => new double[_width * Cells];

    private double RemainingIn(int lane)
    {
        var sum = 0.0;
        for (var at = lane; at < _fast.Length; at += _width)
            sum += _fast[at] + _slow[at] + _dissolved[at];
        return sum;
    }

    /// <summary>While the front runs down: water fills each cell before it passes it on.</summary>
    private double StepFilling(int lane, double inflowMl, double fastStep, double slowStep)
    {
        var flow = inflowMl;
        var carried = 0.0;
        for (var at = lane; at < _fast.Length; at += _width)
        {
            var through = _water[at] + flow;
            if (through <= 0.0)
                break;

            var fast = _fast[at] * fastStep;
            var slow = _slow[at] * slowStep;
            var held = _dissolved[at] + carried;
            var undersaturation = Math.Max(0.0, 1.0 - (held * (1.0 / (through * SaturationGramsPerMl))));
            _fast[at] -= fast * undersaturation;
            _slow[at] -= slow * undersaturation;
            held += (fast + slow) * undersaturation;
            var kept = Math.Min(through, _roomMl);
            flow = through - kept;
            carried = held * flow / through;
            _water[at] = kept;
            _dissolved[at] = held - carried;
        }

        if (_water[_water.Length - _width + lane] < _roomMl)
            _filling++;
        return carried;
    }

    /// <summary>With every cell full the same volume passes all of a lane's, so its divisions are made once.</summary>
    private void StepFull(ReadOnlySpan<double> inflowMl, double fastStep, double slowStep, Span<double> solidsGrams)
    {
        Span<double> flows = stackalloc double[_width];
        flows.Clear();
        inflowMl[.._lanes].CopyTo(flows);
        var flow = MemoryMarshal.Cast<double, Vector256<double>>(flows);
        var sides = flow.Length;
        Span<Vector256<double>> leaves = stackalloc Vector256<double>[sides];
        Span<Vector256<double>> perSaturation = stackalloc Vector256<double>[sides];
        Span<Vector256<double>> carried = stackalloc Vector256<double>[sides];
        for (var side = 0; side < sides; side++)
        {
            var through = Vector256.Create(_roomMl) + flow[side];
            leaves[side] = flow[side] / through;
            perSaturation[side] = Vector256<double>.One / (through * SaturationGramsPerMl);
            carried[side] = Vector256<double>.Zero;
        }

        var fast = MemoryMarshal.Cast<double, Vector256<double>>(_fast.AsSpan());
        var slow = MemoryMarshal.Cast<double, Vector256<double>>(_slow.AsSpan());
        var dissolved = MemoryMarshal.Cast<double, Vector256<double>>(_dissolved.AsSpan());
        for (var at = 0; at < fast.Length; at += sides)
        {
            for (var side = 0; side < sides; side++)
            {
                var here = at + side;
                var fastGives = fast[here] * fastStep;
                var slowGives = slow[here] * slowStep;
                var held = dissolved[here] + carried[side];
                var undersaturation = Vector256.Max(Vector256<double>.Zero, Vector256<double>.One - (held * perSaturation[side]));
                fast[here] -= fastGives * undersaturation;
                slow[here] -= slowGives * undersaturation;
                held += (fastGives + slowGives) * undersaturation;
                carried[side] = held * leaves[side];
                dissolved[here] = held - carried[side];
            }
        }

        MemoryMarshal.Cast<Vector256<double>, double>(carried)[.._lanes].CopyTo(solidsGrams);
    }
}
