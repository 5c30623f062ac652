using RuddySpring.Core.Machines;
using RuddySpring.Core.Shots;

namespace RuddySpring.Core.Explain;

/// <summary>What a machine can do, explained.</summary>
public static class MachineCards
{
    /// <summary>A card for each.</summary>
    public static IReadOnlyList<NumberCard> Of(Machine machine, Abilities can)
    {
        var cards = new List<NumberCard>
        {
            new(
                "largestCup",
                "Largest cup",
                "The most coffee that one pull gives from the usual dose.",
                "The water that the machine moves, less what puck and machine keep, plus the dissolved coffee.",
                [
                    new("Dose", $"{can.DoseGrams:0.#} g"),
                    new("Water it moves", $"{CupVolumes.MostWaterGrams(machine, Abilities.HotC):0.0} g"),
                    new("A spent puck weighs more than its dose by", $"{machine.RetentionPerGram:0.00} g a gram"),
                    new("Left in the machine", $"{machine.DeadWaterGrams:0.#} g"),
                ],
                "Good to about 1 g.",
                "Weigh one full stroke and a spent puck."
            ),
            new(
                "strokes",
                "Strokes for the usual cup",
                "How often the piston goes down for the usual yield.",
                "Water for the yield divided by what one stroke moves, rounded up.",
                [
                    new("Yield", $"{can.YieldGrams:0.#} g"),
                    new("Water for it", $"{can.WaterGrams:0.0} g"),
                    new("One stroke", $"{machine.ChamberMl:0.#} ml"),
                ],
                "As good as the stroke's volume.",
                "Weigh one full stroke."
            ),
        };
        if (can.ReachBar is { } reach)
        {
            cards.Add(
                new(
                    "reach",
                    "Pressure with your force",
                    "The pressure that the force you are willing to use gives halfway down the stroke.",
                    "Force times the lever's ratio and its efficiency, less the seal's friction, divided "
                        + "by the piston's area.",
                    [
                        new("Force", $"{Quantity.Kgf(machine.WillingForceKgf):0}"),
                        new("Lever's ratio in mid stroke", $"{Lever.RatioAt(machine, 0.5):0.0}"),
                        new("Piston", $"{machine.PistonDiameterMm:0.0} mm"),
                        new("Seal's friction", $"{Quantity.Kgf(machine.FrictionNewtons / Units.NewtonsPerKgf):0.0}"),
                    ],
                    $"At {Quantity.Bar(reach):0.0} it is good to a tenth with a family's numbers, a few per cent "
                        + "with measured ones.",
                    "Weigh the handle against the gauge."
                )
            );
        }

        return cards;
    }
}
