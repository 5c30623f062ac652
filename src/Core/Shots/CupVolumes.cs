using RuddySpring.Core.Machines;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Water;

namespace RuddySpring.Core.Shots;

/// <summary>
/// The water of a shot, all in grams: cup = water in - a * dose - dead water + solids, with a the water held a gram of dry coffee
/// and the solids those of a cup of its ratio (<see cref="WaterBalance"/>). Common practice; a spent puck weighs about 1.05 g/g
/// more than its dose, 0.9 to 1.3 seen.
/// </summary>
public static class CupVolumes
{
    public static readonly FieldRange Yield = new("yieldGrams", "Yield", 5, 120, "g");
    private const int Rounds = 30; // each takes at least four fifths off what is left to find

    /// <summary>Water in g to pour, or to move with the piston, for a yield in g.</summary>
    public static double WaterGrams(Machine machine, double doseGrams, double yieldGrams, double? retention = null) =>
        Yield.Check(yieldGrams) + KeptGrams(machine, doseGrams, retention) - SolidsGrams(doseGrams, yieldGrams);

    /// <summary>Cup in g from water in g; never negative.</summary>
    public static double CupGrams(Machine machine, double doseGrams, double waterGrams, double? retention = null)
    {
        var runs = waterGrams - KeptGrams(machine, doseGrams, retention);
        if (runs <= 0)
            return 0;
        var cup = runs;
        for (var i = 0; i < Rounds; i++)
            cup = runs + SolidsGrams(doseGrams, cup);
        return cup;
    }

    private static double KeptGrams(Machine machine, double doseGrams, double? retention) =>
        (
            WaterBalance.HeldPerGram(MachineRanges.Retention.Check(retention ?? machine.RetentionPerGram))
            * PuckParameters.Dose.Check(doseGrams)
        ) + machine.DeadWaterGrams;

    private static double SolidsGrams(double doseGrams, double cupGrams) =>
        doseGrams * WaterBalance.SolidsPerGram(cupGrams / doseGrams);

    /// <summary>
    /// Most water in g that the machine can put through one puck: its chamber less the air left in it (times its strokes on a
    /// boiler lever) at the water's temperature in degC; 60 ml at 95 degC weighs 57.7 g.
    /// </summary>
    public static double MostWaterGrams(Machine machine, double waterC) =>
        machine.WaterMl * (machine.HasBoiler ? machine.StrokesAShot : 1) * LiquidWater.DensityGramsPerMl(waterC);

    /// <summary>
    /// Most water in ml that reaches the puck: the chamber of every stroke less the dead water, which stands cold beside it (1 g
    /// is 1 ml).
    /// </summary>
    /// <param name="machine">The machine.</param>
    /// <param name="strokes">Strokes of a boiler lever; null for as many as it takes for a shot.</param>
    public static double MostPuckMl(Machine machine, int? strokes = null) =>
        (machine.WaterMl * (machine.HasBoiler ? strokes ?? machine.StrokesAShot : 1)) - machine.DeadWaterGrams;

    /// <summary>Largest yield in g that the machine gives from a dose in g in one pull.</summary>
    public static double LargestYieldGrams(Machine machine, double doseGrams, double waterC, double? retention = null) =>
        CupGrams(machine, doseGrams, MostWaterGrams(machine, waterC), retention);
}
