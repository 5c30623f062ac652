namespace RuddySpring.Core.Reasoning;

/// <summary>A diagnosis in a sentence or two.</summary>
public static class DiagnosisWords
{
    private const double AlmostCertain = 0.9;
    private const double Probable = 0.65;
    private const double Both = 0.7;

    /// <summary>The answer.</summary>
    public static string Headline(Diagnosis diagnosis) =>
        diagnosis.Verdict switch
        {
            Verdict.TooLittle => "There is too little to go by yet.",
            Verdict.NothingWrong when diagnosis.Nothing >= Probable => "Nothing is wrong with this shot.",
            Verdict.NothingWrong => "Probably nothing is wrong with this shot.",
            Verdict.OneCause when diagnosis.Causes is [_, { Probability: >= Both } other, ..] =>
                $"Two things at once: {Lower(diagnosis.Causes[0].Name)}, and {Lower(other.Name)}. Change the first one first.",
            Verdict.OneCause => $"{Sure(diagnosis.Causes[0].Probability)}: {Lower(diagnosis.Causes[0].Name)}.",
            _ when diagnosis.Causes.Count > 1 =>
                $"It cannot be told yet: {Lower(diagnosis.Causes[0].Name)}, or {Lower(diagnosis.Causes[1].Name)}.",
            _ => $"It cannot be told yet whether {Lower(diagnosis.Causes[0].Name)}.",
        };

    private static string Sure(double probability) =>
        probability >= AlmostCertain ? "Almost certainly"
        : probability >= Probable ? "Probably"
        : "Perhaps";

    private static string Lower(string name) => char.ToLowerInvariant(name[0]) + name[1..];
}
