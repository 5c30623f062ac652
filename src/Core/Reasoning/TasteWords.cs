namespace RuddySpring.Core.Reasoning;

/// <summary>The words that a household tastes with: a list of its own, to pick from.</summary>
public static class TasteWords
{
    /// <summary>The most that a list holds.</summary>
    public const int Most = 60;

    /// <summary>The longest word, in characters.</summary>
    public const int Longest = 30;

    /// <summary>The list to begin with (common practice).</summary>
    public static IReadOnlyList<string> Usual { get; } =
    [
        "chocolate",
        "nuts",
        "caramel",
        "honey",
        "berries",
        "citrus",
        "stone fruit",
        "flowers",
        "spice",
        "smoke",
        "ash",
        "wood",
        "grass",
        "salt",
        "syrupy",
        "thin",
        "clean",
        "muddy",
    ];

    /// <summary>A list as somebody typed it: trimmed, without what is empty or there twice, in its order.</summary>
    /// <exception cref="DoesNotFitException">There are too many, or one is too long.</exception>
    public static IReadOnlyList<string> Checked(IEnumerable<string?> words)
    {
        var list = words
            .Select(w => string.Join(' ', (w ?? "").Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries)))
            .Where(w => w.Length > 0 && !w.Any(char.IsControl))
            .DistinctBy(w => w.ToUpperInvariant())
            .Take(Most + 1)
            .ToList();
        if (list.Count > Most)
            throw new DoesNotFitException("tasteWords", $"A list of words for tasting holds at most {Most}.");
        if (list.FirstOrDefault(w => w.Length > Longest) is { } longest)
            throw new DoesNotFitException(
                "tasteWords",
                $"A word for tasting has at most {Longest} characters; \u201c{longest[..Longest]}\u2026\u201d has "
                    + $"{longest.Length}."
            );
        return list;
    }
}
