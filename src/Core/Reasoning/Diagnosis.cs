namespace RuddySpring.Core.Reasoning;

/// <summary>What an answer comes to.</summary>
public enum Verdict
{
    /// <summary>Nothing is wrong.</summary>
    NothingWrong,

    /// <summary>One cause stands out.</summary>
    OneCause,

    /// <summary>It cannot be told between causes.</summary>
    CannotTell,

    /// <summary>There is too little to say anything.</summary>
    TooLittle,
}

/// <summary>A number that speaks for or against a cause.</summary>
/// <param name="Text">The number in a sentence, of this shot.</param>
/// <param name="LogRatio">How much: logarithm of how many times more likely it is with the cause than with nothing; below 0
/// against it.</param>
public sealed record CauseEvidence(string Text, double LogRatio);

/// <summary>A cause with its probability.</summary>
/// <param name="Key">Of the cause.</param>
/// <param name="Name">As a sentence says it.</param>
/// <param name="Probability">0 to 1, alone or with another.</param>
/// <param name="For">What speaks for it, strongest first.</param>
/// <param name="Against">What speaks against it.</param>
/// <param name="Change">What to change, were it so.</param>
/// <param name="Caution">What can hurt on the way; null for nothing.</param>
/// <param name="Source">Where what is said of it comes from.</param>
public sealed record PossibleCause(
    string Key,
    string Name,
    double Probability,
    IReadOnlyList<CauseEvidence> For,
    IReadOnlyList<CauseEvidence> Against,
    NextChange Change,
    string? Caution,
    string Source
);

/// <summary>
/// Why a shot was as it was: probabilities over causes, nothing among them and pairs allowed, from what was known before (how
/// often each happens, what was ticked, the bag's age) and the signs of the shot, each told against what was expected. A sign
/// that is not there changes nothing. Signs are taken to be independent where a cause is given, and to have heavy tails
/// (Student's t), so that no single odd number decides.
/// </summary>
/// <param name="Verdict">What it comes to.</param>
/// <param name="Nothing">Probability that nothing is wrong.</param>
/// <param name="Causes">Those worth naming, most probable first.</param>
/// <param name="Signs">What was read.</param>
/// <param name="Telling">What would tell most, where the answer is not plain; null where it is.</param>
public sealed record Diagnosis(
    Verdict Verdict,
    double Nothing,
    IReadOnlyList<PossibleCause> Causes,
    IReadOnlyList<SignReading> Signs,
    TellingNext? Telling = null
)
{
    private const double Freedom = 6;

    // about every second shot that somebody asks about has something; without a record only a remarkable taste counts
    private const double OddsOverall = 2.2;
    private const double OddsWithoutRecord = 1.5;
    private const double PairShare = 0.5; // two things at once are rarer than chance alone would have it
    private const double WorthNaming = 0.04;
    private const int MostNamed = 5;
    private const double Alike = 0.05;
    private const double Stands = 0.45;
    private const double PlainFrom = 0.75;
    private const double NothingPlainFrom = 0.6;
    private const double WorthWeighing = 0.01;
    private const double Likely = 0.8;
    private const double Speaks = 0.3;
    private const int FewestSigns = 3;

    private sealed record Hypothesis(Cause Cause, CauseCase Case, double LogPrior);

    /// <summary>Reasons about a shot.</summary>
    /// <param name="shot">What is known of it.</param>
    /// <param name="causes">What may be at work; null for all that are known.</param>
    public static Diagnosis Of(ShotFacts shot, IReadOnlyList<Cause>? causes = null)
    {
        var signs = SignReader.Of(shot);
        var order = shot.School.Order.ToList();
        var overall = shot.Reading is null ? OddsWithoutRecord : OddsOverall;
        var singles = (causes ?? CauseList.All)
            .Select(c => (Cause: c, Odds: c.Odds(shot) * shot.School.Suspects(c.Key, shot) * Fared(c, shot.Record)))
            .Where(c => c.Odds > 0)
            .SelectMany(c => c.Cause.Cases(shot).Select(k => new Hypothesis(c.Cause, k, Math.Log(overall * c.Odds * k.Share))))
            .ToList();
        var nothing = LogLikelihood(shot, signs, []);
        List<(Hypothesis? A, Hypothesis? B, double Log)> all = [(null, null, nothing)];
        all.AddRange(singles.Select(h => ((Hypothesis?)h, (Hypothesis?)null, h.LogPrior + LogLikelihood(shot, signs, [h]))));
        for (var i = 0; i < singles.Count; i++)
        {
            for (var j = i + 1; j < singles.Count; j++)
            {
                var (a, b) = (singles[i], singles[j]);
                if (a.Cause != b.Cause)
                    all.Add((a, b, Math.Log(PairShare) + a.LogPrior + b.LogPrior + LogLikelihood(shot, signs, [a, b])));
            }
        }

        var most = all.Max(h => h.Log);
        var sum = all.Sum(h => Math.Exp(h.Log - most));
        var weighed = all.Select(h => (h.A, h.B, P: Math.Exp(h.Log - most) / sum)).ToList();
        var byCause = weighed
            .SelectMany(h => new[] { h.A, h.B }.OfType<Hypothesis>().Select(x => (Hypothesis: x, h.P)))
            .GroupBy(h => h.Hypothesis.Cause)
            .Select(g =>
                (
                    Cause: g.Key,
                    P: g.Sum(h => h.P),
                    Size: g.Sum(h => h.P * h.Hypothesis.Case.Size) / g.Sum(h => h.P),
                    Best: g.MaxBy(h => h.P).Hypothesis
                )
            )
            // where two are at work, what is cheap to check comes first; so it does between two that are as probable
            .OrderByDescending(c => Math.Min(Likely, Math.Round(c.P / Alike) * Alike))
            .ThenBy(c => order.IndexOf(c.Cause.Order))
            .ThenByDescending(c => c.P)
            .ToList();
        var named = byCause
            .Where(c => c.P >= WorthNaming)
            .Take(MostNamed)
            .Select(c => Named(shot, signs, c.Cause, c.P, c.Size, c.Best))
            .ToList();
        var free = weighed[0].P;
        var verdict =
            signs.Count < FewestSigns && shot.Seen is null && free > 0.5 ? Verdict.TooLittle
            : named.Count == 0 || free >= named[0].Probability ? Verdict.NothingWrong
            : named[0].Probability >= Stands ? Verdict.OneCause
            : Verdict.CannotTell;
        return new(verdict, free, named, signs, Plain(free, named) ? null : TellingNext.Of(shot, signs, Singles(weighed)));
    }

    private static bool Plain(double nothing, List<PossibleCause> named) =>
        nothing >= NothingPlainFrom || (named.Count > 0 && named[0].Probability >= PlainFrom);

    /// <summary>What may be at work by itself, worth weighing; together 1.</summary>
    private static List<TellingNext.Possible> Singles(IReadOnlyList<(Hypothesis? A, Hypothesis? B, double P)> weighed)
    {
        var worth = weighed.Where(h => h.B is null && h.P >= WorthWeighing).ToList();
        var sum = worth.Sum(h => h.P);
        return [.. worth.Select(h => new TellingNext.Possible(h.A?.Cause, h.A?.Case, h.P / sum))];
    }

    /// <summary>How often a cause turned out to be one here, against how often it was advised: two of each are taken for
    /// granted.</summary>
    private static double Fared(Cause cause, IReadOnlyList<AdviceOutcome> record)
    {
        var of = record.Where(r => r.Cause == cause.Key).ToList();
        return (of.Count(r => r.Worked) + 2.0) / ((of.Count * 0.7) + 2.0);
    }

    private static PossibleCause Named(
        ShotFacts shot,
        IReadOnlyList<SignReading> signs,
        Cause cause,
        double probability,
        double size,
        Hypothesis best
    )
    {
        List<CauseEvidence> evidence =
        [
            .. signs.Select(s => new CauseEvidence(s.Text, LogLikelihood(s, [best]) - LogLikelihood(s, []))),
        ];
        if (shot.Seen is { } seen)
            evidence.AddRange(
                SeenWords
                    .All.Where(w => cause.Seen.Any(s => s.What == w.What))
                    .Select(w => new CauseEvidence(
                        seen.Contains(w.What) ? $"{w.Name} was seen" : $"no {w.Name} was seen",
                        LogSeen(w, seen.Contains(w.What), [best]) - LogSeen(w, seen.Contains(w.What), [])
                    ))
            );
        if (cause.Known(shot) is { } known)
            evidence.Add(new(known, Math.Max(0.5, best.LogPrior + 3)));
        return new(
            cause.Key,
            cause.Name,
            probability,
            [.. evidence.Where(e => e.LogRatio >= Speaks).OrderByDescending(e => e.LogRatio).Take(4)],
            [.. evidence.Where(e => e.LogRatio <= -Speaks).OrderBy(e => e.LogRatio).Take(2)],
            cause.Change(shot, size),
            cause.Caution,
            cause.Source
        );
    }

    private static double LogLikelihood(ShotFacts shot, IReadOnlyList<SignReading> signs, ReadOnlySpan<Hypothesis> of)
    {
        var sum = 0.0;
        foreach (var sign in signs)
            sum += LogLikelihood(sign, of);
        if (shot.Seen is { } seen)
        {
            foreach (var word in SeenWords.All)
                sum += LogSeen(word, seen.Contains(word.What), of);
        }

        return sum;
    }

    /// <summary>Of one sign: Student's t about what the causes shift it to, together.</summary>
    private static double LogLikelihood(SignReading sign, ReadOnlySpan<Hypothesis> of)
    {
        double mean = 0,
            square = sign.Sd * sign.Sd;
        foreach (var hypothesis in of)
        {
            foreach (var shift in hypothesis.Case.Shifts)
            {
                if (shift.Sign != sign.Sign)
                    continue;
                mean += shift.Mean;
                square += shift.Sd * shift.Sd;
            }
        }

        var z2 = (sign.Value - mean) * (sign.Value - mean) / square;
        return (-0.5 * Math.Log(square)) - ((Freedom + 1) / 2 * Math.Log(1 + (z2 / Freedom)));
    }

    private static double LogSeen(SeenWords word, bool seen, ReadOnlySpan<Hypothesis> of)
    {
        var not = 1 - word.Often;
        foreach (var hypothesis in of)
        {
            foreach (var shows in hypothesis.Cause.Seen)
            {
                if (shows.What == word.What)
                    not = Math.Min(not, 1 - word.Often) * (1 - shows.Often);
            }
        }

        return Math.Log(seen ? 1 - not : not);
    }
}
