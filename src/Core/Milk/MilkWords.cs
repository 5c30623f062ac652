using System.Globalization;

namespace RuddySpring.Core.Milk;

/// <summary>How milk is steamed, in words (common practice).</summary>
public static class MilkWords
{
    /// <summary>What can hurt.</summary>
    public const string Caution =
        "Steam burns: hold the jug by its handle and the wand by its sleeve. Milk left in the wand spoils and makes people ill: "
        + "wipe and purge it at once.";

    /// <summary>What the wand wants afterwards.</summary>
    public const string Wipe = "Wipe the wand with a damp cloth and open the steam for two seconds, before the milk is poured.";

    /// <summary>What can hurt where the wand is left as it is.</summary>
    public const string Spoils = "Milk that is left in the wand spoils and makes people ill. The tip is hot.";

    /// <summary>The milk of a pull in a sentence or two: "150 g of milk, stretched by a third, to 60 degrees."</summary>
    public static string Of(IEnumerable<MilkOrder> orders) =>
        string.Join(
            " ",
            orders.Select(o =>
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{o.Grams:0} g of {Name(o.Kind)}, {Stretched(o.Stretch)}, to {Quantity.Celsius(o.EndC):0}."
                )
            )
        );

    /// <summary>The same for a separate frother.</summary>
    public static string Frothed(IEnumerable<MilkOrder> orders) => $"{Of(orders)} In a separate frother.";

    private static string Stretched(MilkStretch stretch) =>
        stretch switch
        {
            MilkStretch.None => "without air",
            MilkStretch.Silky => "stretched by about a third",
            _ => "stretched by about two thirds",
        };

    /// <summary>Name of a kind in a sentence.</summary>
    public static string Name(MilkKind kind) =>
        kind switch
        {
            MilkKind.Skimmed => "skimmed milk",
            MilkKind.Oat => "oat drink",
            MilkKind.Soy => "soy drink",
            MilkKind.Almond => "almond drink",
            _ => "milk",
        };

    /// <summary>What is done with the wand, in order.</summary>
    public static IReadOnlyList<string> Steps(MilkOrder order) =>
        [
            "Purge the wand into a cloth: the first of it is water.",
            order.Stretch switch
            {
                MilkStretch.None => "Hold the tip well under the surface and open the steam; no air goes in.",
                MilkStretch.Silky =>
                    "Tip just under the surface, steam open: stretch until it has grown by about a third, no longer "
                        + "than hand-warm.",
                _ => "Tip just under the surface, steam open: stretch until it has grown by about two thirds, no "
                    + "longer than hand-warm.",
            },
            string.Create(
                CultureInfo.InvariantCulture,
                $"Sink the tip and let the milk turn until {Quantity.Celsius(order.EndC):0}."
            ),
            "Ease the valve nearly shut, lower the jug until the tip is free, then close it: closed under the surface "
                + "it draws big "
                + "bubbles and sucks milk back.",
            "Knock the jug and swirl it until it shines.",
        ];

    /// <summary>What is different with a kind; null for cow's milk.</summary>
    public static string? About(MilkKind kind) =>
        kind switch
        {
            MilkKind.Skimmed => "It foams easily and stiffly; stop stretching early.",
            MilkKind.Oat => "Kinds made for foaming take air like whole milk; others stay thin. Shake it first.",
            MilkKind.Soy => "Curdles in acid coffee and above about 60 degrees: keep it cooler and pour slowly.",
            MilkKind.Almond => "Thin, with little foam, and it separates when hot: keep it cooler.",
            _ => null,
        };
}
