namespace RuddySpring.Core.Reasoning;

/// <summary>What would tell most about a shot's cause: something to look at now, or the next shot with one thing
/// changed.</summary>
/// <param name="Do">What to do.</param>
/// <param name="Bits">Expected information about the cause, bits.</param>
/// <param name="IfSo">What one answer would mean.</param>
/// <param name="IfNot">What the other would.</param>
public sealed record TellingNext(string Do, double Bits, string IfSo, string IfNot)
{
    private const int Points = 61;
    private const double Reach = 4;
    private const double LeastBits = 0.08;

    // looking costs nothing, another shot a dose: so much of the best does for it
    private const double LookingShare = 0.6;

    /// <summary>A cause that may be at work, or none.</summary>
    /// <param name="Cause">Null for nothing wrong.</param>
    /// <param name="Case">What it does; null likewise.</param>
    /// <param name="Weight">Probability; all together 1.</param>
    internal sealed record Possible(Cause? Cause, CauseCase? Case, double Weight)
    {
        public (double Mean, double Sd) Of(Sign sign, double sd)
        {
            var shifts = Case?.Shifts.Where(s => s.Sign == sign).ToList() ?? [];
            return (shifts.Sum(s => s.Mean), Math.Sqrt((sd * sd) + shifts.Sum(s => s.Sd * s.Sd)));
        }
    }

    /// <summary>The most telling thing to do; null where the answer is plain, or nothing would tell.</summary>
    internal static TellingNext? Of(ShotFacts shot, IReadOnlyList<SignReading> signs, IReadOnlyList<Possible> possible)
    {
        // nothing by itself is left to tell from something else
        if (possible.Count < 2)
            return null;
        var unsure = Entropy(possible.Select(p => p.Weight));
        var looks = Looks(shot, signs, possible)
            .Select(l => l with { Bits = Math.Min(l.Bits, unsure) })
            .OrderByDescending(l => l.Bits)
            .ToList();
        var shots = possible
            .Where(p => p.Cause?.Proof is not null)
            .GroupBy(p => p.Cause!)
            .OrderByDescending(g => g.Sum(p => p.Weight))
            .Take(3)
            .Select(g => NextShot(shot, signs, possible, g.Key, g.First().Case!.Size))
            .OrderByDescending(s => s.Bits)
            .ToList();
        var best = Math.Max(looks.Select(l => l.Bits).DefaultIfEmpty(0).Max(), shots.Select(s => s.Bits).DefaultIfEmpty(0).Max());
        if (best < LeastBits)
            return null;
        if (looks.FirstOrDefault(l => l.Bits >= LookingShare * best) is { } look)
            return look;
        // what is advised anyway need not be said twice
        var leading = possible.Where(p => p.Cause is not null).GroupBy(p => p.Cause!).MaxBy(g => g.Sum(p => p.Weight))!;
        var advised = leading.Key.Change(shot, leading.First().Case!.Size).Do;
        return shots[0].Do.StartsWith(advised, StringComparison.Ordinal) ? null : shots[0];
    }

    private static IEnumerable<TellingNext> Looks(
        ShotFacts shot,
        IReadOnlyList<SignReading> signs,
        IReadOnlyList<Possible> possible
    )
    {
        double Bits(params Sign[] of) => of.Sum(s => Information(possible, s, SignReader.Usual(s, []).Sd));
        var leading = possible.Where(p => p.Cause is not null).OrderByDescending(p => p.Weight).FirstOrDefault();
        var name = leading?.Cause?.Name ?? "";
        const string otherwise = "If all is as usual, it is less likely.";
        if (shot.Taste == TasteMarks.None)
            yield return new(
                "Taste it, stirred, and say how.",
                Bits(Sign.Sour, Sign.Bitter, Sign.Dry, Sign.Sweet, Sign.Body),
                $"The taste tells whether {Lower(name)}.",
                otherwise
            );
        if (shot.Seen is null)
            yield return new(
                "Look at the spent puck, and tap what you see.",
                SeenWords.All.Sum(w => Information(possible, w)),
                "A hole, a bald spot or a spurt points to a channel.",
                "A whole, even puck points to no channel."
            );
        if (shot.Band is not null && shot.GroupC is null)
            yield return new(
                "Read the group before the next lever-up.",
                Bits(Sign.Group),
                "If it is out of its band, deal with the heat first.",
                "If it is in its band, the heat is not the cause."
            );
        if (shot.Sheet.Machine.HasBoiler && shot.BoilerBar is null)
            yield return new(
                "Read the boiler's gauge before the next pull.",
                Bits(Sign.Boiler),
                "If it is low, deal with the boiler first.",
                "If it is at its usual pressure, the boiler is not the cause."
            );
        if (shot.Strength is null && signs.Any(s => s.Sign == Sign.Drops))
            yield return new(
                "Measure the strength of the cup, if you have a refractometer.",
                Bits(Sign.Strength) / 2,
                "Weaker than expected points to a channel, or too coarse a grind.",
                "As strong as expected points to neither."
            );
    }

    /// <summary>The next shot with one cause put right: where it was the cause its sign comes back, where not it stays.</summary>
    private static TellingNext NextShot(
        ShotFacts shot,
        IReadOnlyList<SignReading> signs,
        IReadOnlyList<Possible> possible,
        Cause cause,
        double size
    )
    {
        var proof = cause.Proof!.Value;
        var sd = signs.FirstOrDefault(s => s.Sign == proof)?.Sd ?? SignReader.Usual(proof, []).Sd;
        var bits = Information([
            .. possible.Select(p =>
                p.Cause == cause || p.Cause is null
                    ? (p.Weight, Mean: 0.0, Sd: sd)
                    : (p.Weight, p.Of(proof, sd).Mean, p.Of(proof, sd).Sd)
            ),
        ]);
        var change = cause.Change(shot, size);
        return new(
            $"{change.Do} Change nothing else.",
            bits,
            $"Then expect: {Lower(change.Expect)} If so, {Lower(cause.Name)}.",
            "If it is as before, it was something else."
        );
    }

    /// <summary>Information of a number about the cause, bits.</summary>
    private static double Information(IReadOnlyList<Possible> possible, Sign sign, double sd) =>
        Information([.. possible.Select(p => (p.Weight, p.Of(sign, sd).Mean, p.Of(sign, sd).Sd))]);

    /// <summary>What knowing a number tells about which of several normal distributions it came from, bits.</summary>
    public static double Information(IReadOnlyList<(double Weight, double Mean, double Sd)> of)
    {
        var (low, high) = (of.Min(p => p.Mean - (Reach * p.Sd)), of.Max(p => p.Mean + (Reach * p.Sd)));
        var step = (high - low) / (Points - 1);
        var before = Entropy(of.Select(p => p.Weight));
        double after = 0,
            all = 0;
        for (var i = 0; i < Points; i++)
        {
            var x = low + (i * step);
            var joint = of.Select(p => p.Weight * Math.Exp(-0.5 * Math.Pow((x - p.Mean) / p.Sd, 2)) / p.Sd).ToList();
            var sum = joint.Sum();
            if (sum <= 0)
                continue;
            after += sum * Entropy(joint.Select(j => j / sum));
            all += sum;
        }

        return Math.Max(0, before - (after / all));
    }

    private static double Information(IReadOnlyList<Possible> possible, SeenWords word)
    {
        double Often(Possible p) =>
            p.Cause?.Seen.FirstOrDefault(s => s.What == word.What) is { Often: > 0 } shows
                ? 1 - ((1 - word.Often) * (1 - shows.Often))
                : word.Often;
        var yes = possible.Sum(p => p.Weight * Often(p));
        var before = Entropy(possible.Select(p => p.Weight));
        return before
            - (yes * Entropy(possible.Select(p => p.Weight * Often(p) / yes)))
            - ((1 - yes) * Entropy(possible.Select(p => p.Weight * (1 - Often(p)) / (1 - yes))));
    }

    private static double Entropy(IEnumerable<double> weights) => -weights.Where(w => w > 0).Sum(w => w * Math.Log2(w));

    private static string Lower(string text) => text.Length == 0 ? text : char.ToLowerInvariant(text[0]) + text[1..];
}
