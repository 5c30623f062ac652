using RuddySpring.Core.Machines;
using RuddySpring.Core.Water;
using static RuddySpring.Core.Heat.MachineNodes;

namespace RuddySpring.Core.Heat;

/// <summary>
/// A machine's heat at one moment: the temperature of each lump, what is switched on, and the account of everything exchanged
/// with the outside. It knows nothing of time or events.
/// </summary>
internal sealed class HeatState
{
    /// <summary>A machine at room temperature with its boiler filled.</summary>
    /// <exception cref="FieldRangeException">A value is out of range.</exception>
    public HeatState(Machine machine, double ambientC, double altitudeMetres)
    {
        Machine = machine;
        Constants = HeatConstants.Of(machine).Checked();
        Nodes = new(machine, Constants) { WaterGrams = machine.HasBoiler ? Constants.FillGrams : 0 };
        AmbientC = HeatRanges.Ambient.Check(ambientC);
        AtmosphereBar = Atmosphere.PressureBar(altitudeMetres);
        BoilingC = Saturation.TemperatureC(AtmosphereBar);
        Array.Fill(TemperatureC, ambientC);
        GroupSetC = Constants.HeaterStepsC.Count > 0 ? Constants.HeaterStepsC[^1] : 0;
        StartJ = StoredJ();
    }

    private HeatState(HeatState other)
    {
        (Machine, Constants, Nodes) = (other.Machine, other.Constants, other.Nodes.Clone());
        (AmbientC, AtmosphereBar, BoilingC) = (other.AmbientC, other.AtmosphereBar, other.BoilingC);
        other.TemperatureC.CopyTo(TemperatureC, 0);
        (GroupSetC, Powered, Heating) = (other.GroupSetC, other.Powered, other.Heating);
        (StartJ, HeaterJ, BroughtJ, LostJ, CarriedJ) = (other.StartJ, other.HeaterJ, other.BroughtJ, other.LostJ, other.CarriedJ);
    }

    /// <summary>The machine.</summary>
    public Machine Machine { get; }

    /// <summary>What its heat goes by.</summary>
    public HeatConstants Constants { get; }

    /// <summary>Its lumps.</summary>
    public MachineNodes Nodes { get; }

    /// <summary>Room, degC.</summary>
    public double AmbientC { get; }

    /// <summary>Pressure outside, bar absolute.</summary>
    public double AtmosphereBar { get; }

    /// <summary>Water boils here at, degC.</summary>
    public double BoilingC { get; }

    /// <summary>Temperature of each lump, degC.</summary>
    public double[] TemperatureC { get; } = new double[MachineNodes.Nodes];

    /// <summary>What an electrically heated group is set to, degC.</summary>
    public double GroupSetC { get; set; }

    /// <summary>Whether the machine is switched on.</summary>
    public bool Powered { get; set; }

    /// <summary>Whether the element is on.</summary>
    public bool Heating { get; set; }

    /// <summary>Stored at the start, J over 0 degC.</summary>
    public double StartJ { get; }

    /// <summary>From the element so far, J.</summary>
    public double HeaterJ { get; set; }

    /// <summary>Brought in by water, baths and corrections, J.</summary>
    public double BroughtJ { get; set; }

    /// <summary>Lost to the room, J.</summary>
    public double LostJ { get; set; }

    /// <summary>Carried away by water and steam, J.</summary>
    public double CarriedJ { get; set; }

    /// <summary>Everything exchanged with the outside.</summary>
    public HeatAccount Account => new(StartJ, StoredJ(), HeaterJ, BroughtJ, LostJ, CarriedJ);

    /// <summary>The lump that the element heats.</summary>
    public int Heated => Machine.HasBoiler ? Boiler : Group;

    /// <summary>Whether anything is heated by a thermostat at all.</summary>
    public bool HasElement => Machine.HasBoiler || Constants.HeaterStepsC.Count > 0;

    /// <summary>The same state, to go on with separately.</summary>
    public HeatState Clone() => new(this);

    /// <summary>Makes group and portafilter warmer by some K, as a correction.</summary>
    public void ShiftGroup(double kelvin)
    {
        foreach (var node in new[] { Group, Portafilter })
        {
            if (!Nodes.Has(node))
                continue;
            TemperatureC[node] += kelvin;
            BroughtJ += Nodes.HeatOf(node) * kelvin;
        }
    }

    /// <summary>Pours water of a temperature into the chamber.</summary>
    public void PourIn(double grams, double waterC)
    {
        PourOut();
        Nodes.ChamberGrams = grams;
        TemperatureC[ChamberWater] = waterC;
        BroughtJ += grams * Steam.WaterJPerGK * waterC;
    }

    /// <summary>Empties the chamber.</summary>
    public void PourOut()
    {
        CarriedJ += Nodes.ChamberGrams * Steam.WaterJPerGK * TemperatureC[ChamberWater];
        Nodes.ChamberGrams = 0;
    }

    private double StoredJ()
    {
        var sum = 0.0;
        for (var i = 0; i < MachineNodes.Nodes; i++)
        {
            if (Nodes.Has(i))
                sum += Nodes.HeatOf(i) * TemperatureC[i];
        }

        return sum;
    }
}
