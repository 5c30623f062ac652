namespace RuddySpring.Core.Tests.SecondWorld;

/// <summary>What one coffee is in the second world; all its pucks share it. The numbers were set once and are not
/// tuned.</summary>
/// <param name="CompactsBy">Rise of a layer's resistance under a very large stress.</param>
/// <param name="HalfStressBar">Stress at which half of that is there.</param>
/// <param name="PressSeconds">How long a layer takes to be compacted; it takes twice as long to recover.</param>
/// <param name="FinesWeight">How much the fines in a layer count in its resistance.</param>
/// <param name="DetachPerMl">Share of the loose fines that a ml of flow tears off.</param>
/// <param name="CaughtALayer">Share of what is carried that a layer catches.</param>
/// <param name="OpensBy">Share of the resistance that is lost when all solubles have gone.</param>
/// <param name="InertialBarS2PerMl2">Loss that goes with the square of the flow.</param>
/// <param name="VoidsGramsPerGram">Water that the front leaves between the grains, g a g of coffee.</param>
/// <param name="SoakGramsPerGram">Water that the grains drink after that.</param>
/// <param name="SoakSeconds">Time constant of that.</param>
/// <param name="SolublePerSecond">Rate at which solubles leave a grain.</param>
public sealed record OtherCoffee(
    double CompactsBy,
    double HalfStressBar,
    double PressSeconds,
    double FinesWeight,
    double DetachPerMl,
    double CaughtALayer,
    double OpensBy,
    double InertialBarS2PerMl2,
    double VoidsGramsPerGram,
    double SoakGramsPerGram,
    double SoakSeconds,
    double SolublePerSecond
)
{
    /// <summary>A coffee by chance.</summary>
    public static OtherCoffee Draw(SeededRandom random)
    {
        double About(double middle, double share) => middle * Math.Exp(random.Normal(share));
        return new(
            About(0.7, 0.25),
            About(5, 0.2),
            About(1.5, 0.2),
            About(0.5, 0.25),
            About(0.02, 0.3),
            About(0.2, 0.2),
            Math.Clamp(About(0.45, 0.15), 0.2, 0.7),
            About(0.2, 0.3),
            About(0.62, 0.05),
            About(0.5, 0.08),
            About(4, 0.15),
            About(0.07, 0.15)
        );
    }
}

/// <summary>
/// A puck of physics that the core does not have, to judge the core by: columns of layers in series; every layer is compacted,
/// late and up to a limit, by the pressure drop above it; fines come loose, move down and clog the layers below; what dissolves
/// opens the bed; flow has an inertial loss (Forchheimer 1901); the front fills the voids, and the grains go on drinking after
/// it. Frozen: nothing in it was set by looking at what the core makes of it.
/// </summary>
public sealed class OtherPuck
{
    private const int Columns = 3;
    private const int Layers = 8;
    private const double SuctionBar = 0.15;
    private const double FrontShare = 0.4; // of a layer's resistance while it is only just wet
    private const double EntryShare = 0.12; // of the whole bed's resistance, above the first layer
    private const double LooseFines = 0.5;
    private const double LastLayerCatches = 2.0;
    private const double WanderShare = 0.04;
    private const double WanderSeconds = 10.0;
    private const double ColumnSpread = 0.12;
    private const double SolubleShare = 0.28;
    private const double SaturationPerGram = 0.30;

    private readonly SeededRandom _random;
    private readonly OtherCoffee _coffee;
    private readonly double _dose;
    private readonly double _restrictor;
    private readonly double _layerResistance; // of one layer of the whole puck, fresh and at rest
    private readonly double[] _ease = new double[Columns];
    private readonly Layer[] _layers = new Layer[Columns * Layers];
    private readonly double[] _front = new double[Columns];
    private readonly double[] _soaked = new double[Columns];
    private double _wander;

    /// <summary>A dry puck of a coffee.</summary>
    /// <param name="random">Its chance, and that of what happens to it.</param>
    /// <param name="coffee">The coffee.</param>
    /// <param name="doseGrams">Dose on the sheet, g.</param>
    /// <param name="resistance">Of the bed at rest, fresh, at 93 degC, bar s/ml.</param>
    /// <param name="waterC">Water, degC.</param>
    /// <param name="restrictor">Orifice below it, bar s2/ml2.</param>
    public OtherPuck(
        SeededRandom random,
        OtherCoffee coffee,
        double doseGrams,
        double resistance,
        double waterC,
        double restrictor = 0
    )
    {
        (_random, _coffee, _restrictor) = (random, coffee, restrictor);
        _dose = doseGrams + random.Normal(0.12);
        // water thins by about 1.1 % a kelvin near the boil (steam tables, from memory)
        var thin = Math.Exp(-0.011 * (waterC + random.Normal(1.2) - 93));
        _layerResistance = resistance * thin * Math.Exp(random.Normal(0.05)) / Layers;
        for (var c = 0; c < Columns; c++)
            _ease[c] = Math.Exp(random.Normal(ColumnSpread));
        var mean = _ease.Average();
        for (var c = 0; c < Columns; c++)
            _ease[c] /= mean;
        Array.Fill(
            _layers,
            new Layer
            {
                Fines = 1,
                Loose = LooseFines,
                Solubles = 1,
            }
        );
    }

    private OtherPuck(OtherPuck other, SeededRandom random)
    {
        (_random, _coffee, _dose, _restrictor, _layerResistance) = (
            random,
            other._coffee,
            other._dose,
            other._restrictor,
            other._layerResistance
        );
        (_ease, _layers, _front, _soaked) = ([.. other._ease], [.. other._layers], [.. other._front], [.. other._soaked]);
        (_wander, InflowMl, LeftGrams, SolidsGrams) = (other._wander, other.InflowMl, other.LeftGrams, other.SolidsGrams);
    }

    /// <summary>Water that has entered, ml.</summary>
    public double InflowMl { get; private set; }

    /// <summary>Coffee that has left the puck, g.</summary>
    public double LeftGrams { get; private set; }

    /// <summary>Solids in it, g.</summary>
    public double SolidsGrams { get; private set; }

    /// <summary>How much slower the front moves than it would: gas of fresh beans or air that was pressed in holds it up; 1 for
    /// not at all.</summary>
    public double FrontHeldUp { get; init; } = 1;

    /// <summary>Water finds a way: one column lets through so many times as much from now on.</summary>
    public void Open(double times) => _ease[0] *= times;

    /// <summary>The same puck as it stands now, with a chance of its own from here on.</summary>
    public OtherPuck Copy(SeededRandom random) => new(this, random);

    /// <summary>Advances by a step in s under a pressure in bar; gives the grams that leave it.</summary>
    public double Step(double pressureBar, double seconds)
    {
        _wander += (-_wander * seconds / WanderSeconds) + _random.Normal(WanderShare * Math.Sqrt(2 * seconds / WanderSeconds));
        var pressure = Math.Max(0, pressureBar);
        Span<double> conductance = stackalloc double[Columns];
        var open = 0.0;
        for (var c = 0; c < Columns; c++)
        {
            if (_front[c] < Layers)
                Wet(c, pressure, seconds);
            conductance[c] = _front[c] >= Layers ? _ease[c] / Columns / Resistance(c, Layers) : 0;
            open += conductance[c];
        }

        var flow = Through(pressure, open);
        var left = 0.0;
        for (var c = 0; c < Columns; c++)
        {
            if (_front[c] < Layers)
                continue;
            var through = open > 0 ? flow * conductance[c] / open : 0;
            InflowMl += through * seconds;
            left += Flow(c, pressure, through, seconds);
        }

        LeftGrams += left;
        return left;
    }

    /// <summary>What would flow through it now at a pressure in bar, ml/s, with its layers as they are.</summary>
    public double FlowAt(double pressureBar)
    {
        var open = 0.0;
        for (var c = 0; c < Columns; c++)
            open += _front[c] >= Layers ? _ease[c] / Columns / Resistance(c, Layers) : 0;
        return Through(Math.Max(0, pressureBar), open);
    }

    private double Through(double pressure, double open)
    {
        if (open <= 0)
            return 0;
        var (r, k) = (1 / open, _coffee.InertialBarS2PerMl2 + _restrictor);
        return (Math.Sqrt((r * r) + (4 * k * pressure)) - r) / (2 * k);
    }

    /// <summary>The front of one column fills the voids of its layers, one after the other.</summary>
    private void Wet(int column, double pressure, double seconds)
    {
        if (pressure <= 0.02 && _front[column] <= 0)
            return;
        var room = _coffee.VoidsGramsPerGram * _dose / Columns / Layers;
        var behind = (FrontShare * Resistance(column, _front[column])) + (EntryShare * _layerResistance * Layers);
        var taken = (pressure + SuctionBar) * _ease[column] / Columns / behind / FrontHeldUp * seconds;
        _front[column] = Math.Min(Layers, _front[column] + (taken / room));
        InflowMl += taken;
    }

    /// <summary>Resistance of the upper layers of a column, up to the front, as if the whole puck were like it.</summary>
    private double Resistance(int column, double upTo)
    {
        var sum = 0.0;
        for (var i = 0; i < Layers && i < upTo; i++)
            sum += Math.Min(1, upTo - i) * Of(_layers[(column * Layers) + i]);
        return sum * _layerResistance * Math.Exp(_wander);
    }

    private double Of(in Layer layer) =>
        (1 + layer.Compacted) * (1 + (_coffee.FinesWeight * (layer.Fines - 1))) * (1 - (_coffee.OpensBy * (1 - layer.Solubles)));

    /// <summary>What a flow in ml/s through a column does to its layers in a step; gives what leaves, g.</summary>
    private double Flow(int column, double pressure, double flow, double seconds)
    {
        var drink = Math.Min(
            flow * seconds,
            _coffee.SoakGramsPerGram * _dose / Columns * (1 - _soaked[column]) * seconds / _coffee.SoakSeconds
        );
        _soaked[column] += drink / (_coffee.SoakGramsPerGram * _dose / Columns);
        var whole = 0.0;
        for (var i = 0; i < Layers; i++)
            whole += Of(_layers[(column * Layers) + i]);
        double above = 0,
            carriedFines = 0,
            carriedSolids = 0;
        var passes = (flow * seconds) - drink;
        var holds = _coffee.VoidsGramsPerGram * _dose / Columns / Layers;
        for (var i = 0; i < Layers; i++)
        {
            ref var layer = ref _layers[(column * Layers) + i];
            above += pressure * Of(layer) / whole;
            var target = _coffee.CompactsBy * above / (above + _coffee.HalfStressBar);
            layer.Compacted +=
                (target - layer.Compacted)
                * seconds
                / (target > layer.Compacted ? _coffee.PressSeconds : 2 * _coffee.PressSeconds);
            // a column carries its third of the flow: what tears is the flow of the whole puck
            var torn = layer.Loose * Math.Min(0.5, _coffee.DetachPerMl * flow * Columns * seconds);
            var caught = carriedFines * Math.Min(1, _coffee.CaughtALayer * (i == Layers - 1 ? LastLayerCatches : 1));
            layer.Loose -= torn;
            layer.Fines += caught - torn;
            carriedFines += torn - caught;
            var soluble = SolubleShare * _dose / Columns / Layers;
            var room = Math.Max(0, 1 - (layer.Dissolved / (holds * SaturationPerGram)));
            var gone = Math.Min(layer.Solubles, layer.Solubles * _coffee.SolublePerSecond * room * seconds);
            layer.Solubles -= gone;
            layer.Dissolved += (gone * soluble) + carriedSolids;
            carriedSolids = layer.Dissolved * passes / (holds + passes);
            layer.Dissolved -= carriedSolids;
        }

        SolidsGrams += carriedSolids;
        return (passes * 0.965) + carriedSolids; // hot water weighs less than a gram a ml
    }

    private struct Layer
    {
        public double Compacted;
        public double Fines;
        public double Loose;
        public double Solubles;
        public double Dissolved;
    }
}
