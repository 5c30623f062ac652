namespace RuddySpring.Core.Puck;

/// <summary>
/// One lane's coffee as cells in series. Each holds a fast and a slow pool of solubles that dissolve at first order with a
/// saturation limit and are carried on by the flow; water first fills a cell and then passes it. Mass is conserved to rounding.
/// Rates are a first calibration from memory of common practice (18 to 22 % at 1:2).
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

    private Cell[] _cells = new Cell[Cells];
    private readonly double _roomMl;
    private double _arrhenius;
    private bool _full;

    /// <summary>Starts a dry lane of a dose in g that holds a volume of water in ml at a temperature in degC.</summary>
    public Extraction(double doseGrams, double heldMl, double solubleShare, double waterC)
    {
        _roomMl = heldMl / Cells;
        WaterC = waterC;
        var soluble = doseGrams * solubleShare / Cells;
        Array.Fill(_cells, new Cell { Fast = soluble * FastShare, Slow = soluble * (1.0 - FastShare) });
    }

    /// <summary>Temperature of the water, degC: solubles dissolve faster in hotter water (Arrhenius).</summary>
    public double WaterC
    {
        set =>
            _arrhenius = Math.Exp(
                -ActivationKelvin * ((1.0 / (value + Units.KelvinAtZeroC)) - (1.0 / (93.0 + Units.KelvinAtZeroC)))
            );
    }

    /// <summary>Solids in g that have left the lane so far.</summary>
    public double CupSolidsGrams { get; private set; }

    /// <summary>All solubles in g still in the lane, dissolved or not.</summary>
    public double RemainingGrams => _cells.Sum(c => c.Fast + c.Slow + c.Dissolved);

    /// <summary>The same lane once more, to be taken another way.</summary>
    public Extraction Copy()
    {
        var copy = (Extraction)MemberwiseClone();
        copy._cells = [.. _cells];
        return copy;
    }

    /// <summary>Lets a volume in ml of fresh water enter over a step in s.</summary>
    /// <returns>Solids in g that leave in this step.</returns>
    public double Step(double inflowMl, double seconds)
    {
        var fastStep = Math.Min(0.5, FastPerSecond * _arrhenius * seconds);
        var slowStep = Math.Min(0.5, SlowPerSecond * _arrhenius * seconds);
        var carried = _full ? StepFull(inflowMl, fastStep, slowStep) : StepFilling(inflowMl, fastStep, slowStep);
        CupSolidsGrams += carried;
        return carried;
    }

    /// <summary>While the front runs down: water fills each cell before it passes it on.</summary>
    private double StepFilling(double inflowMl, double fastStep, double slowStep)
    {
        var flow = inflowMl;
        var carried = 0.0;
        foreach (ref var cell in _cells.AsSpan())
        {
            var through = cell.WaterMl + flow;
            if (through <= 0.0)
                break;
            var held = cell.Dissolve(carried, 1.0 / (through * SaturationGramsPerMl), fastStep, slowStep);
            var kept = Math.Min(through, _roomMl);
            flow = through - kept;
            carried = held * flow / through;
            cell.WaterMl = kept;
            cell.Dissolved = held - carried;
        }

        _full = _cells[Cells - 1].WaterMl >= _roomMl;
        return carried;
    }

    /// <summary>With every cell full the same volume passes all of them, so its divisions are made once.</summary>
    private double StepFull(double flow, double fastStep, double slowStep)
    {
        var through = _roomMl + flow;
        var leaves = flow / through;
        var perSaturation = 1.0 / (through * SaturationGramsPerMl);
        var carried = 0.0;
        foreach (ref var cell in _cells.AsSpan())
        {
            var held = cell.Dissolve(carried, perSaturation, fastStep, slowStep);
            carried = held * leaves;
            cell.Dissolved = held - carried;
        }

        return carried;
    }

    /// <summary>One slice of the lane: grams of each pool and of what is dissolved in its water.</summary>
    private struct Cell
    {
        public double Fast;
        public double Slow;
        public double Dissolved;
        public double WaterMl;

        /// <summary>Dissolves for one step; gives what is then held in solution, with what was carried in.</summary>
        public double Dissolve(double carriedIn, double perSaturation, double fastStep, double slowStep)
        {
            // what could dissolve does not wait for what was carried in: it shortens the chain the processor has to follow
            var fast = Fast * fastStep;
            var slow = Slow * slowStep;
            var held = Dissolved + carriedIn;
            var undersaturation = 1.0 - (held * perSaturation);
            if (undersaturation <= 0.0)
                return held;
            Fast -= fast * undersaturation;
            Slow -= slow * undersaturation;
            return held + ((fast + slow) * undersaturation);
        }
    }
}
