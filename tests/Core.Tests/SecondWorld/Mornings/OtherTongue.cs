namespace RuddySpring.Core.Tests.SecondWorld.Mornings;

/// <summary>How a shot tastes to somebody, 0 to 4 each.</summary>
public sealed record OtherTaste(int Sour, int Bitter, int Dry, int Sweet, int Body, int Liking);

/// <summary>A person who tastes: under-drawn and cool is sour, over-drawn and hot is bitter, uneven is both, stale is flat
/// (common
/// practice). They do not all find the same cup equally sour.</summary>
public sealed class OtherTongue(SeededRandom random)
{
    private const double NoiseOfAMark = 0.45;
    private readonly double[] _bias = [.. Enumerable.Range(0, 5).Select(_ => random.Normal(0.3))];

    /// <summary>Tastes a cup.</summary>
    /// <param name="extractionOff">Extraction less this household's usual, points.</param>
    /// <param name="strengthOff">Strength likewise, points.</param>
    /// <param name="shot">What else there is to taste.</param>
    /// <param name="uneven">How unevenly it was drawn, 0 to 1.</param>
    /// <param name="chance">Of this tasting.</param>
    public OtherTaste Taste(double extractionOff, double strengthOff, OtherShot shot, double uneven, SeededRandom chance)
    {
        var hot = shot.WaterC - shot.Bench.WaterC;
        var good = Math.Abs(extractionOff) + (0.15 * Math.Abs(hot)) + uneven + shot.Gassy + shot.Stale;
        int Mark(int of, double value) => (int)Math.Round(Math.Clamp(value + _bias[of] + chance.Normal(NoiseOfAMark), 0, 4));
        return new(
            Mark(0, 1.0 - (0.35 * extractionOff) - (0.11 * hot) + (0.7 * uneven) + (1.3 * shot.Gassy)),
            Mark(1, 1.0 + (0.35 * extractionOff) + (0.13 * hot) + (0.6 * uneven) + (shot.Harsh ? 0.5 : 0)),
            Mark(2, 0.7 + (0.2 * extractionOff) + (0.9 * uneven) + (shot.Harsh ? 1.0 : 0)),
            Mark(3, 2.4 - (0.3 * good) - (0.5 * shot.Stale)),
            Mark(4, 2.2 + (0.25 * strengthOff) - (0.8 * shot.Stale)),
            Math.Clamp(Mark(3, 3.9 - (0.55 * good)), 1, 5)
        );
    }
}
