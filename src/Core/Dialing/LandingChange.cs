using RuddySpring.Core.Pulls;
using RuddySpring.Core.Shots;

namespace RuddySpring.Core.Dialing;

/// <summary>What may be changed to land the time.</summary>
public enum ChangeOf
{
    /// <summary>Dose, g.</summary>
    Dose,

    /// <summary>Yield, g, and with it the water to move.</summary>
    Yield,

    /// <summary>Every pressure of the plan, by one factor.</summary>
    Pressure,

    /// <summary>The grinder's setting.</summary>
    Grind,

    /// <summary>Water at the puck, degC: hotter water is thinner.</summary>
    Water,

    /// <summary>Another plan.</summary>
    Plan,

    /// <summary>The time itself, s: taken as it comes.</summary>
    Time,
}

/// <summary>One thing changed.</summary>
/// <param name="Of">What changes.</param>
/// <param name="Value"> To what, as finely as people can set it: g to a tenth, the factor on every pressure to a hundredth, a
/// step of the grinder, degC to a half, s; 0 for a plan. </param>
/// <param name="Effort">How much of what people would still do that is, 0 to 1: 2 g of dose, a third of the yield or of the
/// pressure, eight steps of the grinder, 6 K.</param>
/// <param name="Plan">The other plan; null for what is no plan.</param>
public sealed record SoleChange(ChangeOf Of, double Value, double Effort, PullPlan? Plan = null);

/// <summary>A change that lands the time: one thing, or two together where no one thing does.</summary>
/// <param name="Parts">What changes.</param>
/// <param name="Seconds">The time with it, played with the values as they are set.</param>
public sealed record LandingChange(IReadOnlyList<SoleChange> Parts, double Seconds)
{
    /// <summary>How much of a change it is in all.</summary>
    public double Effort => Parts.Sum(p => p.Effort);
}

/// <summary>What lands a shot.</summary>
/// <param name="Changes">Each lands it by itself, smallest first; empty where none does or none is needed.</param>
/// <param name="Sentence">Where it lands as it is, or why nothing lands it; null where there are changes.</param>
public sealed record LandingAnswer(IReadOnlyList<LandingChange> Changes, string? Sentence);

/// <summary>A shot as far as it can be changed.</summary>
/// <param name="Shot">The shot as it is.</param>
/// <param name="ResistivityAt">What a setting of the grinder resists (<see cref="GrindResistivity"/>), bar s/ml.</param>
/// <param name="Setting">The grinder's setting; null where it is not known and cannot be solved for.</param>
/// <param name="Steps">The grinder's scale.</param>
public sealed record ShotToLand(ShotConditions Shot, Func<double, double> ResistivityAt, double? Setting, GrinderSteps Steps)
{
    /// <summary>Other plans that the machine can pull.</summary>
    public IReadOnlyList<PullPlan> OtherPlans { get; init; } = [];

    /// <summary>Water boils here at, degC.</summary>
    public double BoilingC { get; init; } = 99;

    /// <summary>Dose, g.</summary>
    public double DoseGrams => Shot.Bed.DoseGrams;

    /// <summary>Yield, g.</summary>
    public double YieldGrams => Shot.YieldGrams;
}
