using System.Globalization;

namespace RuddySpring.Core.Reasoning;

/// <summary>A piece of advice that somebody took, and what it was given for.</summary>
/// <param name="Cause">Key of the cause.</param>
/// <param name="Change">What was to be changed, and what was then to be expected.</param>
public sealed record TakenAdvice(string Cause, NextChange Change);

/// <summary>How advice came out.</summary>
/// <param name="Worked">Whether the next shot showed what it should; null where it was not followed, or cannot be told.</param>
/// <param name="Sentence">In plain words.</param>
public sealed record AdviceVerdict(bool? Worked, string Sentence)
{
    private const double BackWithin = 2.0; // standard deviations of the sign that should be as expected again
    private const double StillThere = 0.4;

    /// <summary>Judges advice by the shot after it.</summary>
    /// <param name="advice">What was advised.</param>
    /// <param name="next">The next shot.</param>
    /// <param name="said">What is said of it.</param>
    public static AdviceVerdict Of(TakenAdvice advice, ShotFacts next, Diagnosis said)
    {
        var cause = CauseList.Find(advice.Cause);
        if (
            advice.Change.GrindSetting is { } setting
            && next.Grind is { } grind
            && Math.Abs(grind.Setting - setting) > grind.Steps.Step / 2
        )
            return new(
                null,
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"The grind was set to {grind.Setting:0.##} and not to {setting:0.##}, so this shot says nothing about the "
                        + $"advice."
                )
            );
        var still = said.Causes.FirstOrDefault(c => c.Key == advice.Cause)?.Probability ?? 0;
        var proof = said.Signs.FirstOrDefault(s => s.Sign == cause?.Proof);
        if (proof is null && said.Signs.Count == 0)
            return new(null, "Nothing was recorded or tasted for the next shot, so the advice cannot be checked.");
        if (still < StillThere && (proof is null || Math.Abs(proof.Value) <= BackWithin * proof.Sd))
            return new(true, $"The advice worked: {advice.Change.Do} {Said(proof)}".TrimEnd());
        return new(false, $"The advice did not help: {advice.Change.Do} {Said(proof)}".TrimEnd());
    }

    private static string Said(SignReading? proof) => proof is null ? "" : $"Now {proof.Text}.";
}
