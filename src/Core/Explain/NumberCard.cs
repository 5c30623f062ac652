namespace RuddySpring.Core.Explain;

/// <summary>Something that a number was computed from.</summary>
/// <param name="Name">What people call it.</param>
/// <param name="Value">Its value with its unit, as a sentence has it.</param>
public sealed record CardInput(string Name, string Value);

/// <summary>A computed number explained: what it is, how it comes about, how sure it is, and what would narrow it.</summary>
/// <param name="Key">What the number is called in the program: "water", "chance".</param>
/// <param name="Title">What people call it.</param>
/// <param name="What">What it is, in a sentence or two.</param>
/// <param name="Equation">How it is computed, in words.</param>
/// <param name="Inputs">What it is computed from, with the values of this very sheet or shot.</param>
/// <param name="HowSure">How sure it is.</param>
/// <param name="Narrows">What would make it better known; empty where nothing would.</param>
public sealed record NumberCard(
    string Key,
    string Title,
    string What,
    string Equation,
    IReadOnlyList<CardInput> Inputs,
    string HowSure,
    string Narrows
);
