using System.Globalization;

namespace RuddySpring.Core.Reasoning;

/// <summary>What one school says of a shot.</summary>
/// <param name="Key">Of the school.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Holds">What it holds.</param>
/// <param name="Targets">What it looks at in this shot.</param>
/// <param name="Headline">Its answer in a sentence.</param>
/// <param name="Advice">The one change it asks for; null where it asks for none.</param>
/// <param name="Disagrees">Why it says something else than the school in use; null where it says the same, and of that school
/// itself.</param>
/// <param name="IsOwn">Whether it is the school in use.</param>
public sealed record SchoolSays(
    string Key,
    string Name,
    string Holds,
    IReadOnlyList<SchoolTarget> Targets,
    string Headline,
    string? Advice,
    string? Disagrees,
    bool IsOwn
);

/// <summary>One shot in the eyes of all schools, and why they do not agree.</summary>
public static class SchoolsCompared
{
    private const double SameAim = 0.1;
    private const double Much = 1.4;
    private const double Speaks = 0.3;

    /// <summary>Every school's answer.</summary>
    /// <param name="shot">The shot, as nobody's school sees it: its plan has its own aim.</param>
    /// <param name="mine">The school in use.</param>
    public static IReadOnlyList<SchoolSays> Of(ShotFacts shot, School mine)
    {
        var answers = SchoolList.All.Select(s => s.See(shot)).Select(f => (Facts: f, Said: Diagnosis.Of(f))).ToList();
        var own = answers.Single(a => a.Facts.School == mine);
        return
        [
            .. answers.Select(a => new SchoolSays(
                a.Facts.School.Key,
                a.Facts.School.Name,
                a.Facts.School.Holds,
                a.Facts.School.Targets(a.Facts),
                DiagnosisWords.Headline(a.Said),
                First(a.Said)?.Change.Do,
                a.Facts.School == mine || First(a.Said)?.Key == First(own.Said)?.Key ? null : Disagrees(own, a),
                a.Facts.School == mine
            )),
        ];
    }

    private static PossibleCause? First(Diagnosis said) =>
        said.Verdict is Verdict.OneCause or Verdict.CannotTell && said.Causes.Count > 0 ? said.Causes[0] : null;

    /// <summary>What of a school makes it say something else: its aim, what it does not judge by, what it suspects.</summary>
    private static string Disagrees((ShotFacts Facts, Diagnosis Said) mine, (ShotFacts Facts, Diagnosis Said) other)
    {
        List<string> reasons = [];
        var (aim, own) = (other.Facts.Sheet.Plan.LandingSeconds, mine.Facts.Sheet.Plan.LandingSeconds);
        if (Math.Abs(Math.Log(aim.Best / own.Best)) > SameAim || Math.Abs(Math.Log(aim.High / own.High)) > SameAim)
            reasons.Add(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"It aims at {aim.Low:0} to {aim.High:0} s where {Lower(mine.Facts.School)} aims at {own.Low:0} to "
                        + $"{own.High:0} s."
                )
            );
        reasons.AddRange(Unheard(other, mine).Select(t => $"It does not judge by this: {t}."));
        reasons.AddRange(Unheard(mine, other).Select(t => $"It alone judges by this: {t}."));
        foreach (var cause in new[] { First(mine.Said), First(other.Said) }.OfType<PossibleCause>())
        {
            var times = other.Facts.School.Suspects(cause.Key, other.Facts) / mine.Facts.School.Suspects(cause.Key, mine.Facts);
            if (times is > Much or < 1 / Much)
                reasons.Add($"It considers this {(times > 1 ? "more" : "less")} likely: {Lower(cause.Name)}.");
        }

        return reasons.Count > 0
            ? string.Join(" ", reasons)
            : "It weighs the same numbers a little differently; the two answers are about as likely.";
    }

    /// <summary>Signs that speak in one school's answer and that the other does not have.</summary>
    private static IEnumerable<string> Unheard((ShotFacts Facts, Diagnosis Said) by, (ShotFacts Facts, Diagnosis Said) of)
    {
        var heard = by.Said.Signs.Select(s => s.Sign).ToHashSet();
        var speaking = First(of.Said)?.For.Where(e => e.LogRatio >= Speaks).Select(e => e.Text).ToHashSet() ?? [];
        return of.Said.Signs.Where(s => !heard.Contains(s.Sign) && speaking.Contains(s.Text)).Select(s => s.Text);
    }

    private static string Lower(School school) => Lower(school.Name);

    private static string Lower(string name) => char.ToLowerInvariant(name[0]) + name[1..];
}
