using RuddySpring.Core.Dialing;
using RuddySpring.Core.Shots;

namespace RuddySpring.Core.Reasoning;

/// <summary>The two signs of the grind: what its setting made one expect before the pull, and how far the puck was from
/// that.</summary>
public static class FromTheGrind
{
    private const double PuckShare = 0.07; // from puck to puck, as a share of the resistance

    // how far the model's clock may be off, as a logarithm, before any shot told, and of one shot
    private const double ClockSd = 0.25;
    private const double OneShotSd = 0.06;

    /// <summary>What is known of a household's clock: its shots take so many times what the model says, as a logarithm, and how
    /// sure that is.</summary>
    public static (double Log, double Sd) Clock(ShotFacts shot)
    {
        var offs = shot
            .Earlier.Take(SignReader.MostEarlier)
            .Where(e => !e.Restricted && e.Reading?.Measures.SecondsFromLever is > 0 && Resistivity(e) is not null)
            .Select(e => Math.Log(e.Reading!.Measures.SecondsFromLever!.Value / PlanSeconds(e, Resistivity(e)!.Value)))
            .Where(double.IsFinite)
            .Order()
            .ToList();
        return offs.Count == 0 ? (0, ClockSd) : (offs[offs.Count / 2], OneShotSd / Math.Sqrt(offs.Count));
    }

    /// <summary>The resistivity that a shot's puck told; null where none did.</summary>
    public static double? Resistivity(ShotFacts shot) =>
        shot.Reading?.Measures.R10 is > 0 and < double.PositiveInfinity and var r10
            ? GrindResistivity.Of(r10, shot.Sheet.Bed.DoseGrams, shot.Sheet.Bed.Basket)
            : null;

    /// <summary>Logarithm of the resistivity that the puck told, or else of the expected one, over that at which the plan lands
    /// here; null where neither is known.</summary>
    public static double? OverWanted(ShotFacts shot)
    {
        if ((Resistivity(shot) ?? shot.Expected?.Median) is not { } told)
            return null;
        var (band, clock) = (shot.Sheet.Plan.LandingSeconds, Math.Exp(Clock(shot).Log));
        return WantedResistance.Of(shot.Sheet, band.Low / clock, band.Best / clock, band.High / clock) is { } wanted
            ? Math.Log(told / wanted.Best)
            : null;
    }

    /// <summary>One standard deviation of the logarithm of a puck's resistivity about what was expected of its grind.</summary>
    public static double Spread(Fitting.Prediction expected) =>
        Math.Sqrt((expected.Scale * expected.Scale) + (PuckShare * PuckShare));

    /// <summary>Time to the yield by the plan, s, at a resistivity.</summary>
    public static double PlanSeconds(ShotFacts shot, double resistivity) =>
        SimulatedShot.Pull(GrindResistivity.With(shot.Sheet, resistivity)).Seconds;

    public static IEnumerable<SignReading> Of(ShotFacts shot)
    {
        if (shot.Restricted || shot.Expected is not { } expected)
            yield break;
        var best = shot.Sheet.Plan.LandingSeconds.Best;
        var clock = Clock(shot);
        var seconds = PlanSeconds(shot, expected.Median) * Math.Exp(clock.Log);
        var (off, text) = (
            Math.Log(seconds / best),
            FormattableString.Invariant($"this setting was expected to take {seconds:0} s; {best:0} s is wanted")
        );
        // a shot that landed is not told that its grind should have missed: no more than what it was off itself
        if (
            shot.Reading?.Measures.SecondsFromLever is { } took
            && shot.Sheet.Plan.LandingSeconds.Holds(took)
            && Math.Abs(Math.Log(took / best)) < Math.Abs(off)
        )
            (off, text) = (
                Math.Log(took / best),
                FormattableString.Invariant($"it took {took:0} s; {best:0} s is wanted, {seconds:0} s was expected")
            );
        yield return new(Sign.Setting, off, Math.Sqrt(Math.Pow(0.04 + (0.5 * expected.Scale), 2) + (clock.Sd * clock.Sd)), text);
        if (Resistivity(shot) is not { } told)
            yield break;
        var was = shot.Reading!.Measures.R10!.Value;
        var due = expected.Median * was / told;
        yield return new(
            Sign.Resistance,
            Math.Log(told) - expected.Mean,
            Spread(expected),
            FormattableString.Invariant(
                $"the puck resisted {Quantity.BarSPerMl(was):0.0}; {Quantity.BarSPerMl(due):0.0} was expected at this setting"
            )
        );
    }
}
