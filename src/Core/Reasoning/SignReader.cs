namespace RuddySpring.Core.Reasoning;

/// <summary>
/// Reads the signs of a shot: each a number told against what was expected of this puck, this arm and this heat. What the model
/// gets wrong about a household in the same way every time is taken off by its earlier shots: the usual value of a sign and its
/// spread are a normal prior moved by them.
/// </summary>
public static class SignReader
{
    /// <summary>How many earlier shots are looked at.</summary>
    public const int MostEarlier = 8;

    private const double UsualWaterC = 91;
    private const double LeastOffK = 4;
    private const double SameMark = 0.5;
    private const double SpreadWeight = 5; // shots that the spread told beforehand counts for

    /// <summary>What is taken of a sign before any shot: its usual value, how far that may be off, and its spread from shot to
    /// shot where nothing is wrong (common practice; of the tongue, that people are off by a mark now and then).</summary>
    private sealed record Beforehand(double Usual, double Bias, double Spread);

    private static readonly Dictionary<Sign, Beforehand> s_beforehand = new()
    {
        [Sign.Resistance] = new(0, 0.3, 0.1),
        [Sign.Setting] = new(0, 0, 0.08),
        [Sign.Time] = new(0, 0.25, 0.09),
        [Sign.Drops] = new(0, 0.3, 0.12),
        [Sign.LateFlow] = new(0, 0.2, 0.08),
        [Sign.Fall] = new(0.15, 0.1, 0.12),
        [Sign.Cup] = new(0.03, 0.03, 0.02),
        [Sign.Peak] = new(0, 0.4, 0.25),
        [Sign.End] = new(0, 0.5, 0.3),
        [Sign.PreInfusion] = new(0, 0.15, 0.06),
        [Sign.Ramp] = new(0, 0.3, 0.14),
        [Sign.LetDown] = new(0, 0.3, 0.1),
        [Sign.HoleFlow] = new(0, 0.4, 0.06),
        [Sign.Group] = new(0, 0.3, 0.4),
        [Sign.Water] = new(UsualWaterC, 4, 2),
        [Sign.Boiler] = new(0, 0.05, 0.05),
        [Sign.Sour] = new(1.0, 0.4, 0.6),
        [Sign.Bitter] = new(1.0, 0.4, 0.6),
        [Sign.Dry] = new(0.7, 0.4, 0.6),
        [Sign.Sweet] = new(2.3, 0.4, 0.6),
        [Sign.Body] = new(2.2, 0.4, 0.6),
        [Sign.Strength] = new(0, 0.15, 0.05),
        [Sign.Flow] = new(0, 0, 0.16),
    };

    /// <summary>All signs that this shot gives.</summary>
    public static IReadOnlyList<SignReading> Of(ShotFacts shot)
    {
        var earlier = shot
            .Earlier.Take(MostEarlier)
            .Select(e => Sound(RawSigns.Of(e)).ToDictionary(r => r.Sign, r => r.Value))
            .ToList();
        var signs = new List<SignReading>();
        foreach (var raw in Sound(RawSigns.Of(shot)))
        {
            var (usual, sd) = Usual(raw.Sign, [.. earlier.Where(e => e.ContainsKey(raw.Sign)).Select(e => e[raw.Sign])]);
            if (raw.Sign != Sign.Water || Math.Abs(raw.Value - usual) > LeastOffK)
                signs.Add(new(raw.Sign, raw.Value - usual, sd, Tasted(raw.Sign) ? InWords(raw, usual) : raw.Text));
        }

        signs.AddRange(
            FromTheGrind.Of(shot).Concat(shot.School.OwnSigns(shot)).Where(s => double.IsFinite(s.Value) && double.IsFinite(s.Sd))
        );
        signs.RemoveAll(s => shot.School.Overlooks.Contains(s.Sign));
        return signs;
    }

    /// <summary>Those that are numbers: of a trace whose moments make no sense, some have no logarithm.</summary>
    private static IEnumerable<RawSign> Sound(IEnumerable<RawSign> signs) => signs.Where(s => double.IsFinite(s.Value));

    private static bool Tasted(Sign sign) => sign is Sign.Sour or Sign.Bitter or Sign.Dry or Sign.Sweet or Sign.Body;

    /// <summary>A mark against the usual one: "more sourness than usual (very much)".</summary>
    private static string InWords(RawSign mark, double usual)
    {
        string[] degrees = ["none", "a touch", "some", "clear", "very much"];
        var degree = degrees[Math.Clamp((int)mark.Value, 0, 4)];
        return mark.Value > usual + SameMark ? $"more {mark.Text} than usual ({degree})"
            : mark.Value < usual - SameMark ? $"less {mark.Text} than usual ({degree})"
            : $"{mark.Text} as usual ({degree})";
    }

    /// <summary>The usual value of a sign and the spread about it, from earlier values.</summary>
    public static (double Usual, double Sd) Usual(Sign sign, IReadOnlyList<double> earlier)
    {
        var before = s_beforehand[sign];
        if (earlier.Count == 0)
            return (before.Usual, Math.Sqrt((before.Bias * before.Bias) + (before.Spread * before.Spread)));
        var sorted = earlier.Order().ToList();
        // a shot that went wrong among the earlier ones must not become the usual
        var middle =
            sorted.Count % 2 == 1 ? sorted[sorted.Count / 2] : (sorted[(sorted.Count / 2) - 1] + sorted[sorted.Count / 2]) / 2;
        var squares = earlier.Sum(v => Math.Min(Math.Pow(v - middle, 2), 9 * before.Spread * before.Spread));
        var spread = Math.Sqrt(((SpreadWeight * before.Spread * before.Spread) + squares) / (SpreadWeight + earlier.Count - 1));
        var told = earlier.Count / (spread * spread);
        var precision = (1 / Math.Max(1e-9, before.Bias * before.Bias)) + told;
        var usual = ((before.Usual / Math.Max(1e-9, before.Bias * before.Bias)) + (middle * told)) / precision;
        return (usual, Math.Sqrt((spread * spread) + (1 / precision)));
    }
}

/// <summary>A sign as the shot alone gives it, before it is told against the household's usual.</summary>
internal sealed record RawSign(Sign Sign, double Value, string Text);
