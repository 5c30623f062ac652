using System.Globalization;
using RuddySpring.Core.Pulls;

namespace RuddySpring.Core.Dialing;

/// <summary>A grinder as advice speaks of it.</summary>
/// <param name="Name">Its name.</param>
/// <param name="ScaleUnit">What its scale counts in.</param>
/// <param name="Step">Smallest step of the scale.</param>
/// <param name="PurgeGrams">What it holds back and is to be purged, g.</param>
public sealed record NamedGrinder(string Name, string ScaleUnit, double Step, double PurgeGrams);

/// <summary>The advice of <see cref="GrindAdvice"/> in words, and why.</summary>
public static class GrindWords
{
    private const double WorthSayingSteps = 0.2;

    /// <summary>Behind a small hole the grind hardly sets anything.</summary>
    public static IReadOnlyList<string> Restricted { get; } =
    [
        "A small hole in this basket gives the back-pressure, so there is no dialling in by the grind: take shop-ground "
            + "coffee, or grind a good deal coarser than for an ordinary basket.",
        "Press gently and steadily; what changes the cup is dose, yield and water.",
    ];

    /// <summary>No grind gives the time.</summary>
    public static IReadOnlyList<string> OutOfReach { get; } =
    ["No grind gives this yield in that time on this machine with this plan. Choose another yield or another plan."];

    /// <summary>Nothing was pulled with it yet.</summary>
    public static IReadOnlyList<string> Nothing(NamedGrinder grinder) =>
        [
            $"Nothing has been pulled with {grinder.Name} yet. Begin on the fine side and work back; after one shot there "
                + "is advice here.",
        ];

    /// <summary>Why a setting is advised, one sentence after the other.</summary>
    /// <param name="suggestion">What is advised.</param>
    /// <param name="grinder">On which grinder.</param>
    /// <param name="lands">The time that counts as landing.</param>
    /// <param name="before">Setting of the last shot of another coffee; null where the last was of this one.</param>
    public static IReadOnlyList<string> Of(GrindSuggestion suggestion, NamedGrinder grinder, TimeBand lands, double? before)
    {
        var by =
            suggestion.Shots == 0
                ? "the grinder's other coffees"
                : $"{suggestion.Shots} {(suggestion.Shots == 1 ? "shot" : "shots")} of this bag";
        var sentences = new List<string>
        {
            string.Create(
                CultureInfo.InvariantCulture,
                $"{suggestion.Chance * 100:0} % chance to land between {lands.Low:0} and {lands.High:0} s when pulled as planned, "
                    + $"judging by {by}."
            ),
        };
        if (suggestion.HeldBack)
            sentences.Add("More would be needed, and the shots so far do not say how much: go this far, pull, and look again.");
        if (suggestion.TooCoarse)
            sentences.Add(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"One step of {grinder.Name} moves the resistance by {suggestion.StepShare * 100:0} %, more than the "
                        + $"band is wide: it is too coarse in its steps for this. Change the dose by a few tenths instead, or "
                        + $"let the arm correct."
                )
            );
        var toward = Math.Abs(suggestion.InAWeek - ((suggestion.Low + suggestion.High) / 2));
        if (toward > grinder.Step * WorthSayingSteps)
            sentences.Add(
                FormattableString.Invariant($"Ageing alone will ask for about {toward:0.#} {grinder.ScaleUnit} finer in a week.")
            );
        if (before is { } other)
        {
            var purge = grinder.PurgeGrams > 0 ? FormattableString.Invariant($"{grinder.PurgeGrams:0.#} g ") : "";
            sentences.Add(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"Another coffee was ground last, at {other:0.##}: set {grinder.Name} back to {suggestion.Setting:0.##} "
                        + $"and purge {purge}before you weigh."
                )
            );
        }

        return sentences;
    }

    /// <summary>What ageing asks of a bag's grind in the coming days.</summary>
    /// <param name="outlook">Settings that keep the resistance.</param>
    /// <param name="last">Setting of its last shot.</param>
    /// <param name="frozen">Whether the bag is frozen.</param>
    /// <param name="grinder">The grinder.</param>
    /// <param name="finerIsLower">Which way its scale runs.</param>
    public static string Ageing(GrindOutlook outlook, double last, bool frozen, NamedGrinder grinder, bool finerIsLower)
    {
        if (frozen)
            return "Frozen: its grind stays where it is.";
        var (now, soon, week) = outlook;
        var finer = week < now == finerIsLower ? "finer" : "coarser";
        return string.Create(
            CultureInfo.InvariantCulture,
            $"To keep the shot of {last:0.##} {grinder.ScaleUnit} on {grinder.Name}: {now:0.0} today, {soon:0.0} in three "
                + $"days, {week:0.0} in a week, {Math.Abs(week - now):0.0} {finer}."
        );
    }
}
