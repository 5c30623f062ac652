namespace RuddySpring.Core.Care;

/// <summary>After how much use something is due; whichever comes first. Null for what does not count.</summary>
/// <param name="Shots">Shots, 1 to 20 000.</param>
/// <param name="Litres">Water through the machine, l, 0.5 to 5000.</param>
/// <param name="Days">Days, 1 to 3650.</param>
public sealed record CareInterval(int? Shots = null, double? Litres = null, int? Days = null)
{
    private static readonly FieldRange ShotRange = new("shots", "Number of shots", 1, 20_000, "");
    private static readonly FieldRange LitreRange = new("litres", "Water through the machine", 0.5, 5000, "l");
    private static readonly FieldRange DayRange = new("days", "Time", 1, 3650, "days");

    /// <summary>The interval with every number checked.</summary>
    /// <exception cref="FieldRangeException">A number is out of range.</exception>
    /// <exception cref="DoesNotFitException">There is none at all.</exception>
    public CareInterval Checked()
    {
        if (Shots is { } shots)
            ShotRange.Check(shots);
        if (Litres is { } litres)
            LitreRange.Check(litres);
        if (Days is { } days)
            DayRange.Check(days);
        return Shots is null && Litres is null && Days is null
            ? throw new DoesNotFitException("days", "Say after how many shots, litres or days it is due.")
            : this;
    }
}

/// <summary>Something that a machine needs now and then.</summary>
/// <param name="Key">Stable key.</param>
/// <param name="Name">As a button or a list says it: "Grease the piston seal".</param>
/// <param name="Why">What it is good for, in a sentence.</param>
/// <param name="Steps">How it is done, in order.</param>
/// <param name="Caution">What can hurt; null for nothing.</param>
/// <param name="Usual">After how much use it is due where nobody set anything else.</param>
/// <param name="Part">What part may be noted with it; null for none.</param>
/// <param name="Source">Where the interval comes from.</param>
public sealed record CareTask(
    string Key,
    string Name,
    string Why,
    IReadOnlyList<string> Steps,
    string? Caution,
    CareInterval Usual,
    string? Part = null,
    string Source = "common practice"
);
