namespace RuddySpring.Core.Reasoning;

/// <summary>The order in which causes are asked for: what is cheap to check first (common practice).</summary>
public enum WorkingOrder
{
    Forgotten,
    Heat,
    Age,
    Preparation,
    Pull,
    Grind,
    Ratio,
    Wear,
}

/// <summary>What a cause does to a sign.</summary>
/// <param name="Sign">Which.</param>
/// <param name="Mean">By how much, in the sign's own measure.</param>
/// <param name="Sd">How far that may be off, one standard deviation.</param>
public readonly record struct Shift(Sign Sign, double Mean, double Sd);

/// <summary>How often something is seen where a cause is at work.</summary>
public readonly record struct Shows(Seen What, double Often);

/// <summary>One size of a cause.</summary>
/// <param name="Share">Its share, all sizes together 1.</param>
/// <param name="Size">How large it is in the cause's own measure, e.g. the logarithm of a resistance.</param>
/// <param name="Shifts">What it does.</param>
public sealed record CauseCase(double Share, double Size, IReadOnlyList<Shift> Shifts);

/// <summary>What to change for the next shot.</summary>
/// <param name="Do">The one change, with its size.</param>
/// <param name="Leave">What to leave alone meanwhile.</param>
/// <param name="Expect">What the next shot should then show.</param>
/// <param name="GrindSetting">A setting of the grinder, where that is the change; null otherwise.</param>
public sealed record NextChange(string Do, string Leave, string Expect, double? GrindSetting = null);

/// <summary>
/// A cause of a shot that is not as it should be: a file of its own, found by itself. It says when it can be at work, how
/// often it
/// is, what it does to a shot (through the model where the model can say, else as people report it), what to change, and where
/// that comes from.
/// </summary>
public abstract class Cause
{
    private const double Admitted = 25;

    /// <summary>Stable key.</summary>
    public abstract string Key { get; }

    /// <summary>As a sentence says it: "The preheat was forgotten".</summary>
    public abstract string Name { get; }

    /// <summary>Where it stands in the working order.</summary>
    public abstract WorkingOrder Order { get; }

    /// <summary>Where all this comes from.</summary>
    public virtual string Source => "common practice";

    /// <summary>What can hurt when it is put right; null for nothing.</summary>
    public virtual string? Caution => null;

    /// <summary>The sign that should be as expected again once it is put right; null where none tells.</summary>
    public abstract Sign? Proof { get; }

    /// <summary>How often it is at work against nothing being wrong, from what is known before any sign: 0 where it cannot
    /// be.</summary>
    public abstract double Odds(ShotFacts shot);

    /// <summary>What is known of it before any sign, in words; null for nothing.</summary>
    public virtual string? Known(ShotFacts shot) => null;

    /// <summary>What it does, size by size.</summary>
    public abstract IReadOnlyList<CauseCase> Cases(ShotFacts shot);

    /// <summary>What is then seen of stream and puck, and how often.</summary>
    public virtual IReadOnlyList<Shows> Seen => [];

    /// <summary>The one change.</summary>
    /// <param name="shot">The shot.</param>
    /// <param name="size">The size that is believed in.</param>
    public abstract NextChange Change(ShotFacts shot, double size);

    /// <summary>A cause of one size.</summary>
    protected static IReadOnlyList<CauseCase> One(params IReadOnlyList<Shift> shifts) => [new(1, 1, shifts)];

    /// <summary>Odds of something that people tick: hardly where it was ticked, likely where it was not, all but certain where
    /// somebody said afterwards that it was forgotten.</summary>
    protected static double Forgotten(ShotFacts shot, DoneBefore what, double ifNobodyTicks) =>
        shot.Admitted.Contains(what)
            ? Admitted
            : shot.Ticked.Of(what) switch
            {
                true => 0.01,
                false => 0.7,
                null => ifNobodyTicks,
            };

    /// <summary>What is known of something that people tick, in words; null for nothing.</summary>
    /// <param name="shot">The shot.</param>
    /// <param name="what">Which of them.</param>
    /// <param name="named">It as the subject of a sentence: "the preheat".</param>
    protected static string? Unticked(ShotFacts shot, DoneBefore what, string named) =>
        shot.Admitted.Contains(what) ? $"you said that {named} was forgotten"
        : shot.Ticked.Of(what) == false ? $"{named} was not ticked"
        : null;

    /// <summary>What cooler or hotter water does to the resistance: the logarithm of the ratio of its viscosities.</summary>
    protected static double Thicker(ShotFacts shot, double kelvin)
    {
        var c = shot.Sheet.Water.StartC();
        return Math.Log(Puck.FlowResistance.Thermal(Math.Max(20, c + kelvin)) / Puck.FlowResistance.Thermal(c));
    }
}
