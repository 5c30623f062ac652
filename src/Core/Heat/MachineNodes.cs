using RuddySpring.Core.Machines;
using RuddySpring.Core.Water;

namespace RuddySpring.Core.Heat;

/// <summary>
/// The lumps of one machine and what joins them: group (or the metal of a chamber), portafilter, boiler, and the water that
/// stands in a chamber. What a machine does not have, or holds nothing, takes no part in its network.
/// </summary>
internal sealed class MachineNodes(Machine machine, HeatConstants constants)
{
    public const int Group = 0;
    public const int Portafilter = 1;
    public const int Boiler = 2;
    public const int ChamberWater = 3;
    public const int Nodes = 4;

    /// <summary>Share of the group's heat capacity and loss that is its portafilter's.</summary>
    private const double PortafilterShare = 0.2;
    private const double PortafilterContactWPerK = 4.0;
    private const double ContactAtJPerK = 760.0;
    private const double ChamberContactSeconds = 12.0;
    private const double ChamberWaterLossWPerK = 0.5;

    private readonly int[] _index = new int[Nodes];
    private (double Water, double Chamber, bool PortafilterIn, double Outward) _key;
    private HeatNetwork? _network;

    /// <summary>Water in the boiler, g.</summary>
    public double WaterGrams { get; set; }

    /// <summary>Water standing in the chamber, g.</summary>
    public double ChamberGrams { get; set; }

    /// <summary>Whether the portafilter sits in the group.</summary>
    public bool PortafilterIn { get; set; } = true;

    /// <summary>Heat capacity of the boiler with its water, J/K.</summary>
    public double BoilerJPerK => constants.BoilerMetalJPerK + (WaterGrams * Steam.WaterJPerGK);

    /// <summary>The same state, to go on with separately.</summary>
    public MachineNodes Clone() =>
        new(machine, constants)
        {
            WaterGrams = WaterGrams,
            ChamberGrams = ChamberGrams,
            PortafilterIn = PortafilterIn,
        };

    /// <summary>Whether a lump takes part.</summary>
    public bool Has(int node) =>
        node switch
        {
            Group => true,
            Portafilter or Boiler => machine.HasBoiler,
            _ => ChamberGrams > 0,
        };

    /// <summary>Heat capacity of a lump, J/K.</summary>
    public double HeatOf(int node) =>
        node switch
        {
            Group => machine.MetalHeatCapacity * (machine.HasBoiler ? 1.0 - PortafilterShare : 1.0),
            Portafilter => machine.MetalHeatCapacity * PortafilterShare,
            Boiler => BoilerJPerK,
            _ => ChamberGrams * Steam.WaterJPerGK,
        };

    /// <summary>Loss of a lump to the room, W/K.</summary>
    public double LossOf(int node) =>
        node switch
        {
            Group => constants.GroupAmbientWPerK * (machine.HasBoiler ? 1.0 - PortafilterShare : 1.0),
            Portafilter => constants.GroupAmbientWPerK * PortafilterShare,
            Boiler => constants.BoilerLossWPerK,
            _ => ChamberWaterLossWPerK,
        };

    /// <summary>The network of the lumps that take part, in their order; kept until something about it changes.</summary>
    /// <param name="groupOutward">What else takes heat from the group, W/K: a cloth, a bath, passing water.</param>
    public HeatNetwork Network(double groupOutward)
    {
        var key = (WaterGrams, ChamberGrams, PortafilterIn, groupOutward);
        if (_network is not null && key == _key)
            return _network;
        var heat = new List<double>(Nodes);
        var outward = new List<double>(Nodes);
        var links = new List<(int, int, double)>(Nodes);
        for (var i = 0; i < Nodes; i++)
        {
            if (!Has(i))
                continue;
            _index[i] = heat.Count;
            heat.Add(HeatOf(i));
            outward.Add(LossOf(i) + (i == Group ? groupOutward : 0));
        }

        if (machine.HasBoiler)
        {
            links.Add((_index[Group], _index[Boiler], constants.EffectiveBoilerGroupWPerK));
            if (PortafilterIn)
                links.Add(
                    (_index[Group], _index[Portafilter], PortafilterContactWPerK * machine.MetalHeatCapacity / ContactAtJPerK)
                );
        }

        if (Has(ChamberWater))
        {
            double metal = HeatOf(Group),
                water = HeatOf(ChamberWater);
            links.Add((_index[Group], _index[ChamberWater], metal * water / (metal + water) / ChamberContactSeconds));
        }

        _key = key;
        return _network = new HeatNetwork(heat, links, outward);
    }
}
