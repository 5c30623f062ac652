using RuddySpring.Core.Machines;
using RuddySpring.Core.Sessions;

namespace RuddySpring.Core.Explain;

/// <summary>How warm a machine is believed to be.</summary>
/// <param name="GroupC">Group, or the metal of a chamber, degC.</param>
/// <param name="PlusMinusK">One standard deviation of it, K.</param>
/// <param name="BoilerC">Water in the boiler, degC; null without one.</param>
/// <param name="WaterC">Water at the puck if it were pulled now, degC.</param>
/// <param name="WaterPlusMinusK">One standard deviation of it, K.</param>
/// <param name="BandLowC">Lower end of the group's band at lever-up, degC.</param>
/// <param name="BandHighC">Upper end.</param>
/// <param name="ShotsInBand">Shots that can follow each other with the group in its band.</param>
/// <param name="BoilingC">What water boils at here, degC.</param>
/// <param name="Readings">Readings entered in this session.</param>
/// <param name="Water">What is left of the water.</param>
public sealed record HeatFacts(
    double GroupC,
    double PlusMinusK,
    double? BoilerC,
    double WaterC,
    double WaterPlusMinusK,
    double BandLowC,
    double BandHighC,
    int ShotsInBand,
    double BoilingC,
    int Readings,
    WaterBudget Water
);

/// <summary>The numbers of a session explained.</summary>
public static class HeatCards
{
    /// <summary>A card for each.</summary>
    public static IReadOnlyList<NumberCard> Of(Machine machine, HeatFacts now)
    {
        var readings = new CardInput("Readings entered", $"{now.Readings}");
        var fitted = machine.Heat is { } heat
            ? $"Its constants were learned from {heat.FittedReadings} readings."
            : "Its constants are those of its family until they are learned from its own readings.";
        var cards = new List<NumberCard>
        {
            new(
                "group",
                machine.HasBoiler ? "Group" : "Chamber",
                machine.HasBoiler
                    ? "The temperature of the group's metal now: it decides how much heat a shot loses."
                    : "The temperature of the chamber's metal now: it decides how much heat the water loses.",
                "Heat that comes in from boiler, element or water, less what goes to the room, step by step since it "
                    + "was switched on "
                    + "or filled, with every step that was ticked; each reading corrects it.",
                machine.HasBoiler
                    ?
                    [
                        readings,
                        new("Band at lever-up", $"{Quantity.Celsius(now.BandLowC):0} to {Quantity.Celsius(now.BandHighC):0}"),
                    ]
                    : [readings],
                $"Two times in three within {Quantity.Kelvin(now.PlusMinusK):0.0}. {fitted}",
                "A strip or a thermometer on the metal: one reading now narrows it most."
            ),
            new(
                "puckWater",
                "Water at the puck",
                "What the water would have when it reaches the coffee, if you pulled now.",
                "The boiler's or kettle's water, less the heat that group, piston and puck take from it on the way.",
                [
                    machine.HasBoiler
                        ? new("Water in the boiler", $"{Quantity.Celsius(now.BoilerC ?? 0):0}")
                        : new("Boiling point here", $"{Quantity.Celsius(now.BoilingC):0.0}"),
                    new(machine.HasBoiler ? "Group" : "Chamber", $"{Quantity.Celsius(now.GroupC):0}"),
                ],
                $"Two times in three within {Quantity.Kelvin(now.WaterPlusMinusK):0.0}.",
                "A thermometer in the chamber or basket, once, right after filling."
            ),
            new(
                "shotsLeft",
                "Shots left",
                machine.HasBoiler
                    ? "How many shots can follow each other with the group in its band."
                    : "How many shots the water in the kettle still gives.",
                machine.HasBoiler
                    ? "Shots are simulated from now on, one after the other, until the group leaves its band."
                    : "Water in the kettle divided by what a shot and its preheat take.",
                [
                    new("Water now", $"{now.Water.NowGrams:0} g"),
                    new("Water gives", $"{now.Water.ShotsLeft} shots"),
                    new("Must stay", $"{now.Water.MinimumGrams:0} g"),
                ],
                machine.HasBoiler ? "As good as the group's temperature." : "As good as the weight of the water in the kettle.",
                machine.HasBoiler ? "A reading on the group." : "Weigh the kettle."
            ),
        };
        if (machine.HasBoiler)
        {
            cards.Add(
                new(
                    "boiler",
                    "Boiler",
                    "The temperature of the water in the boiler.",
                    "The element heats until the stat opens; steam, shots and the walls take heat away. Without air "
                        + "the gauge shows "
                        + "the steam's pressure at this temperature.",
                    [
                        new("Water in it", $"{now.Water.NowGrams:0} g"),
                        new("Boiling point here", $"{Quantity.Celsius(now.BoilingC):0.0}"),
                    ],
                    "Good to about a degree once it has been bled and the element has gone off.",
                    "Enter what the boiler's gauge shows."
                )
            );
        }

        return cards;
    }
}
