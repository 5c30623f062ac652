namespace RuddySpring.Core.Explain;

/// <summary>A term of the trade.</summary>
/// <param name="Name">As the pages use it.</param>
/// <param name="Meaning">In a sentence or two (common practice).</param>
public sealed record Term(string Name, string Meaning);

/// <summary>The trade's terms that the pages use, in alphabetical order.</summary>
public static class Glossary
{
    /// <summary>All of them.</summary>
    public static IReadOnlyList<Term> Terms { get; } =
    [
        new("Basket", "The metal cup with holes that holds the ground coffee."),
        new("Blonding", "The stream turns pale: most of what dissolves easily is out. Many stop here."),
        new("Bloom", "Wetting the coffee with little or no pressure and waiting, so that gas escapes before the pull."),
        new("Bottomless holder", "A holder without a spout: the underside of the basket is seen, and so is every channel."),
        new(
            "Channel",
            "A crack or soft place in the puck that takes most of the water: it sprays or gushes and tastes thin and harsh."
        ),
        new("Choke", "So fine a grind, or so much coffee, that hardly anything comes through."),
        new("Dose", "The dry coffee in the basket, in grams."),
        new("Ease", "Letting the pressure fall slowly towards the end while the puck gives way. Also called decline."),
        new("Extraction", "The share of the dry coffee that ends up dissolved in the cup."),
        new(
            "False pressure",
            "Pressure that trapped air shows on a boiler's gauge while the water is still too cool. Bleed it by the steam valve."
        ),
        new("Fines", "The dust in ground coffee; it moves with the water and can clog the puck."),
        new("First drops", "When the first coffee falls into the cup."),
        new("Flow", "Grams a second into the cup."),
        new("Group", "The part of the machine that holds the piston, the screen and the portafilter."),
        new("Headspace", "The room between the puck and the rim of the basket or the shower screen."),
        new("Indicator card", "Pressure against the water moved in a stroke, as steam engineers drew it. Its area is work."),
        new("Peak", "The highest pressure of the pull."),
        new("Portafilter", "The handle with the basket that locks into the group. Here also: holder."),
        new("Pre-infusion", "The beginning of a pull at low pressure, until the puck is wet through."),
        new("Puck", "The pressed coffee in the basket."),
        new("R10", "The puck's resistance over the first 10 g of the cup, with what the arm did taken out."),
        new("Ramp", "The rise from pre-infusion to the peak."),
        new("Ratio", "Yield divided by dose, written 1 : 2."),
        new("Retention", "What a spent puck weighs more than its dose: the water that it keeps."),
        new("Sink shot", "A shot that is pulled only to warm or rinse, and poured away."),
        new("Strength", "The share of the drink that is dissolved coffee."),
        new("Stroke", "One way of the lever or piston from top to bottom."),
        new("Yield", "The coffee in the cup, in grams."),
    ];
}
