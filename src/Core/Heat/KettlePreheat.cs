using RuddySpring.Core.Machines;
using RuddySpring.Core.Water;

namespace RuddySpring.Core.Heat;

/// <summary>How the metal of a kettle-filled machine is warmed (common practice).</summary>
public enum PreheatMethod
{
    /// <summary>Not at all: a school of its own.</summary>
    None,

    /// <summary>Filled with boiling water, left, emptied.</summary>
    FillAndHold,

    /// <summary>Kettle steam under the cylinder.</summary>
    SteamBath,

    /// <summary>The cylinder lies in the boiling kettle.</summary>
    Submersion,
}

/// <summary>An estimate with its uncertainty.</summary>
/// <param name="Value">Best value.</param>
/// <param name="PlusMinus">One standard deviation's worth, rounded up to what a person can use.</param>
/// <param name="NarrowedBy">What would make it narrower.</param>
public sealed record Estimate(double Value, double PlusMinus, string NarrowedBy);

/// <summary>
/// Water at the puck of a kettle-filled machine: kettle at its boiling point, less what pouring costs, mixed with the metal it meets
/// (energy balance, T = (m c T_w + C T_m) / (m c + C)).
/// </summary>
public static class KettlePreheat
{
    /// <summary>Loss on pouring in K, 2 to 4 (common practice).</summary>
    public const double PourLossK = 3.0;

    private const double PourLossSpreadK = 1.0;
    private const double MetalSpreadShare = 0.25;
    private static readonly FieldRange Ambient = new("ambientC", "Room temperature", -10, 45, "degC");
    private static readonly FieldRange Held = new("heldSeconds", "Preheat time", 0, 3600, "s");
    private static readonly FieldRange Kettle = new("kettleC", "Kettle", 20, 101, "degC");

    /// <summary>How long to go on with a method, s; after this little more is won.</summary>
    public static double RecommendedSeconds(PreheatMethod method) => method switch
    {
        PreheatMethod.FillAndHold => 60,
        PreheatMethod.SteamBath => 240,
        PreheatMethod.Submersion => 150,
        _ => 0,
    };

    /// <summary>Temperature in degC of mixing water (g, degC) with metal (J/K, degC), nothing lost.</summary>
    public static double MixC(double waterGrams, double waterC, double metalJPerK, double metalC)
    {
        var water = waterGrams * LiquidWater.HeatCapacity(Math.Max(1.0, waterC), Atmosphere.SeaLevelBar);
        return ((water * waterC) + (metalJPerK * metalC)) / (water + metalJPerK);
    }

    /// <summary>Temperature in degC of the metal after a preheat.</summary>
    /// <param name="machine">The machine.</param>
    /// <param name="method">Method.</param>
    /// <param name="heldSeconds">How long it went on, 0 to 3600 s.</param>
    /// <param name="kettleC">Kettle temperature, degC.</param>
    /// <param name="ambientC">Room, -10 to 45 degC.</param>
    /// <exception cref="FieldRangeException">A value is out of range.</exception>
    public static double MetalC(Machine machine, PreheatMethod method, double heldSeconds, double kettleC, double ambientC)
    {
        Ambient.Check(ambientC);
        Held.Check(heldSeconds);
        Kettle.Check(kettleC);
        // heat comes in at the pace of each method: boiling water on metal within tens of seconds, steam condensing more slowly on the
        // outside. Time constants from memory of common practice.
        var (reachedC, tau) = method switch
        {
            PreheatMethod.FillAndHold => (MixC(FillGrams(machine, kettleC), kettleC - PourLossK, machine.MetalHeatCapacity, ambientC), 15.0),
            PreheatMethod.SteamBath => (kettleC - 5.0, 75.0),
            PreheatMethod.Submersion => (kettleC - 1.0, 45.0),
            _ => (ambientC, 1.0),
        };
        return ambientC + ((reachedC - ambientC) * (1.0 - Math.Exp(-heldSeconds / tau)));
    }

    /// <summary>Water at the puck in degC with its uncertainty, the shot poured right after the preheat.</summary>
    /// <inheritdoc cref="MetalC" path="/param"/>
    public static Estimate WaterAtPuck(Machine machine, PreheatMethod method, double heldSeconds, double kettleC, double ambientC)
    {
        var grams = FillGrams(machine, kettleC);
        var metal = MetalC(machine, method, heldSeconds, kettleC, ambientC);
        var poured = kettleC - PourLossK;
        var value = MixC(grams, poured, machine.MetalHeatCapacity, metal);
        var waterShare = MixC(grams, poured + 1.0, machine.MetalHeatCapacity, metal) - value;
        var fromPour = PourLossSpreadK * waterShare;
        var fromMetalHeat = MixC(grams, poured, machine.MetalHeatCapacity * (1.0 + MetalSpreadShare), metal) - value;
        var fromMetal = MixC(grams, poured, machine.MetalHeatCapacity, metal + MetalUncertaintyK(method)) - value;
        var plusMinus = Math.Sqrt((fromPour * fromPour) + (fromMetalHeat * fromMetalHeat) + (fromMetal * fromMetal));
        return new(value, plusMinus, "a thermometer in the chamber, once, right after filling");
    }

    private static double MetalUncertaintyK(PreheatMethod method) => method switch
    {
        PreheatMethod.None => 3.0,
        PreheatMethod.FillAndHold => 5.0,
        PreheatMethod.SteamBath => 5.0,
        _ => 3.0,
    };

    private static double FillGrams(Machine machine, double kettleC) => machine.ChamberMl * LiquidWater.DensityGramsPerMl(kettleC);
}
