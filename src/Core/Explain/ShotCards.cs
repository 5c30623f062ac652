using RuddySpring.Core.Traces;

namespace RuddySpring.Core.Explain;

/// <summary>The measures of a shot explained.</summary>
public static class ShotCards
{
    /// <summary>A card for each measure that is computed rather than read.</summary>
    /// <param name="m">The measures.</param>
    /// <param name="doseGrams">Dose, g.</param>
    public static IReadOnlyList<NumberCard> Of(Measures m, double doseGrams)
    {
        var cards = new List<NumberCard>
        {
            new(
                "meanFlow",
                "Mean flow",
                "How fast the cup filled, from first drops to the stop.",
                "Grams in the cup at the stop divided by the seconds since first drops.",
                [
                    new("In the cup", m.CupGrams is { } cup ? $"{cup:0.0} g" : "not known"),
                    new("From first drops", m.SecondsFromDrops is { } since ? $"{since:0.0} s" : "not known"),
                ],
                "Good to a few per cent: a scale shows a drop about half a second late.",
                "A scale that streams; its delay is learned from your pulls."
            ),
            new(
                "work",
                "Work",
                "The energy that pressed the water through the puck: the area of the indicator card.",
                "Pressure times the volume moved, added up over the pull.",
                [new("Mean pressure", m.MeanBar is { } mean ? $"{Quantity.Bar(mean):0.0}" : "not known")],
                "As good as the gauge.",
                ""
            ),
        };
        if (m.R10 is { } r10)
        {
            cards.Add(
                new(
                    "r10",
                    "R10",
                    "The puck's resistance over the first 10 g of the cup, so that two shots can be compared whatever "
                        + "the arm did. "
                        + "Higher means finer, or more coffee in the basket.",
                    "Pressure divided by flow over the first 10 g, brought to "
                        + $"{Quantity.Bar(GrindResistance.ReferenceBar):0}, to water of "
                        + $"{Quantity.Celsius(93):0} and to a swollen puck.",
                    [
                        new("Mean pressure meanwhile", m.R10MeanBar is { } bar ? $"{Quantity.Bar(bar):0.0}" : "not known"),
                        new("Puck wet before", m.R10WetSeconds is { } wet ? $"{wet:0.0} s" : "not known"),
                        new("Dose", $"{doseGrams:0.0} g"),
                    ],
                    $"At {Quantity.BarSPerMl(r10):0.0}, within about 10 % where gauge and scale recorded the pull.",
                    "Pulls under different pressures teach what the arm adds on this machine."
                )
            );
        }

        return cards;
    }
}
