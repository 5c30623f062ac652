namespace RuddySpring.Core.Pulls;

/// <summary>What ends a phase of a pull.</summary>
public enum PhaseEnding
{
    /// <summary>The first drops in the cup.</summary>
    FirstDrops,

    /// <summary>A number of seconds since the phase began.</summary>
    Seconds,

    /// <summary>A share of the yield in the cup, 0 to 1.</summary>
    YieldShare,
}

/// <summary>
/// One phase: the pressure goes from where the last phase left it to <paramref name="ToBar"/>, over the phase itself where its length is
/// known, over <paramref name="LeadSeconds"/> where it ends on an event.
/// </summary>
/// <param name="Name">The trade's word: pre-infuse, ramp, peak, ease.</param>
/// <param name="ToBar">Pressure at the end, bar gauge, 0 to 12.</param>
/// <param name="Ending">What ends it.</param>
/// <param name="EndsAt">Seconds or share of the yield; unused for first drops.</param>
/// <param name="LeadSeconds">Seconds to reach the pressure when the phase ends on first drops.</param>
/// <param name="AtMostSeconds">Longest the phase may last when its event does not come.</param>
/// <param name="Cue">What to do, as an imperative without its ending.</param>
public sealed record PullPhase(
    string Name, double ToBar, PhaseEnding Ending, double EndsAt, double LeadSeconds, double AtMostSeconds, string Cue)
{
    /// <summary>How the phase ends, in words.</summary>
    public string EndsOn(double yieldGrams) => Ending switch
    {
        PhaseEnding.FirstDrops => "until first drops",
        PhaseEnding.Seconds => $"for {EndsAt:0.#} s",
        _ => $"until {EndsAt * yieldGrams:0.#} g",
    };
}

/// <summary>A pull as phases of pressure, with the width of the band that counts as on plan.</summary>
/// <param name="Key">Stable key.</param>
/// <param name="Name">Plain name.</param>
/// <param name="Why">Why people pull this way, and who disagrees (common practice).</param>
/// <param name="BandBar">Half width of the band, bar.</param>
/// <param name="Phases">In order; the last one ends at the yield.</param>
public sealed record PullPlan(string Key, string Name, string Why, double BandBar, IReadOnlyList<PullPhase> Phases)
{
    public static readonly FieldRange PlanPressure = new("toBar", "Plan pressure", 0, 12, "bar");

    /// <summary>Highest pressure of the plan, bar.</summary>
    public double PeakBar => Phases.Max(p => p.ToBar);

    /// <summary>The plan with its numbers checked.</summary>
    /// <exception cref="FieldRangeException">A pressure is out of range.</exception>
    /// <exception cref="DoesNotFitException">The plan has no phase, or its shares of the yield run backwards.</exception>
    public PullPlan Checked()
    {
        if (Phases.Count is 0 or > 20) throw new DoesNotFitException("phases", "A plan has between 1 and 20 phases.");
        var share = 0.0;
        foreach (var phase in Phases)
        {
            PlanPressure.Check(phase.ToBar);
            if (phase.Ending != PhaseEnding.YieldShare) continue;
            if (phase.EndsAt <= share || phase.EndsAt > 1.0)
                throw new DoesNotFitException("phases", $"Phase {phase.Name} ends at {phase.EndsAt:0.##} of the yield; it must lie above {share:0.##} and at most 1.");
            share = phase.EndsAt;
        }

        return this;
    }
}

/// <summary>The plans that ship with the application, under plain descriptive names. Numbers are common practice.</summary>
public static class ShippedPlans
{
    public static readonly PullPlan EarlyPeak = new(
        "early-peak", "Early peak, long ease",
        "Most of the coffee is drawn in the first third, so press early and let the pressure fall as the puck gives way. "
        + "Those who hold one pressure say the ease wastes strength.",
        0.6,
        [
            new("pre-infuse", 2.5, PhaseEnding.FirstDrops, 0, 1.5, 25, "Hold 2.5 bar"),
            new("ramp", 8.0, PhaseEnding.Seconds, 5, 0, 5, "Ramp to 8 bar"),
            new("peak", 8.0, PhaseEnding.YieldShare, 0.25, 0, 40, "Hold 8 bar"),
            new("ease", 5.0, PhaseEnding.YieldShare, 0.6, 0, 60, "Ease to 5 bar"),
            new("ease", 3.5, PhaseEnding.YieldShare, 1.0, 0, 90, "Ease to 3.5 bar"),
        ]);

    public static readonly PullPlan FlatAndFirm = new(
        "flat-firm", "Flat and firm",
        "One pressure, easy to repeat, and what pump machines taught people to expect. The other school says it over-extracts at the end.",
        0.6,
        [
            new("pre-infuse", 3.0, PhaseEnding.FirstDrops, 0, 1.5, 20, "Hold 3 bar"),
            new("ramp", 7.5, PhaseEnding.Seconds, 4, 0, 4, "Ramp to 7.5 bar"),
            new("hold", 7.5, PhaseEnding.YieldShare, 1.0, 0, 90, "Hold 7.5 bar"),
        ]);

    public static readonly PullPlan LongSoft = new(
        "long-soft", "Long and soft",
        "A low peak after a patient pre-infusion forgives uneven pucks and suits light roasts. It asks for a fine grind and gives less body.",
        0.5,
        [
            new("pre-infuse", 2.0, PhaseEnding.FirstDrops, 0, 1.5, 30, "Hold 2 bar"),
            new("soak", 2.0, PhaseEnding.Seconds, 3, 0, 3, "Stay at 2 bar"),
            new("ramp", 6.0, PhaseEnding.Seconds, 6, 0, 6, "Ramp to 6 bar"),
            new("ease", 4.0, PhaseEnding.YieldShare, 1.0, 0, 90, "Ease to 4 bar"),
        ]);

    public static readonly PullPlan FreeSpring = new(
        "free-spring", "Free spring",
        "Let the water stand at boiler pressure until drops show, then give the spring its stroke and keep the hand off it. "
        + "Some hold it back at the top.",
        0.8,
        [
            new("pre-infuse", 1.1, PhaseEnding.FirstDrops, 0, 1.0, 15, "Lever down, wait at boiler pressure"),
            new("release", 9.0, PhaseEnding.Seconds, 2, 0, 2, "Let the lever rise slowly, hand on it"),
            new("spring", 8.2, PhaseEnding.YieldShare, 0.4, 0, 60, "Let the spring work"),
            new("spring", 6.4, PhaseEnding.YieldShare, 1.0, 0, 60, "Let the spring run out"),
        ]);

    /// <summary>All of them, the one to start with first.</summary>
    public static IReadOnlyList<PullPlan> All { get; } = [EarlyPeak, FlatAndFirm, LongSoft, FreeSpring];

    /// <summary>The plan with a key, or null.</summary>
    public static PullPlan? Find(string key) => All.FirstOrDefault(p => p.Key == key);
}
