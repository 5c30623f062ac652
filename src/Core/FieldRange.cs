namespace RuddySpring.Core;

/// <summary>The values a field may take, with the words to say so.</summary>
/// <param name="Field">Name of the field as it stands in contracts, e.g. <c>doseGrams</c>.</param>
/// <param name="Label">What people call it, e.g. "Dose".</param>
/// <param name="Min">Smallest allowed value, inclusive.</param>
/// <param name="Max">Largest allowed value, inclusive.</param>
/// <param name="Unit">Unit as printed, e.g. "g".</param>
public sealed record FieldRange(string Field, string Label, double Min, double Max, string Unit)
{
    /// <summary>Returns <paramref name="value"/> when it is finite and in range.</summary>
    /// <exception cref="FieldRangeException">The value is not a number or lies outside the range.</exception>
    public double Check(double value) => Holds(value) ? value : throw new FieldRangeException(this, value);

    /// <summary>Whether a value is finite and in range.</summary>
    public bool Holds(double value) => double.IsFinite(value) && value >= Min && value <= Max;

    /// <summary>The value of the range that lies nearest.</summary>
    public double Nearest(double value) => Math.Clamp(value, Min, Max);

    /// <summary>One sentence that names the field and its range, with its quantities marked (<see cref="Quantity"/>).</summary>
    public string Sentence(double value) =>
        double.IsFinite(value)
            ? $"{Label} is {Said(value)}; it must lie between {Said(Min, bare: true)} and {Said(Max)}."
            : $"{Label} must be a number between {Said(Min, bare: true)} and {Said(Max)}.";

    private string Said(double value, bool bare = false) =>
        Quantity.Marks(Unit) ? new Quantity(value, Unit, bare).ToString("0.##", null)
        : bare || Unit.Length == 0 ? $"{value:0.###}"
        : $"{value:0.###} {Unit}";
}

/// <summary>A value outside the range of its field. Carries the range, so that every caller can name it.</summary>
public sealed class FieldRangeException(FieldRange range, double value)
    : ArgumentOutOfRangeException(range.Field, range.Sentence(value))
{
    /// <summary>The range that was broken.</summary>
    public FieldRange Range { get; } = range;

    /// <summary>The sentence alone, without the parameter's name that the framework appends.</summary>
    public string Sentence { get; } = range.Sentence(value);
}

/// <summary>A value that is in range by itself but does not go with the others.</summary>
public sealed class DoesNotFitException(string field, string sentence) : ArgumentException(sentence)
{
    /// <summary>The field to change first.</summary>
    public string Field { get; } = field;

    /// <summary>What does not fit and what would.</summary>
    public string Sentence { get; } = sentence;
}
