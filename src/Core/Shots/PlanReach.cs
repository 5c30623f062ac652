using System.Globalization;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Pulls;

namespace RuddySpring.Core.Shots;

/// <summary>The most pressure a machine gives at a share of the yield in the cup.</summary>
public sealed record ReachPoint(double YieldShare, double MostBar);

/// <summary>The most pressure a machine gives when its stroke has moved so much water.</summary>
public sealed record StrokeReach(double MovedMl, double MostBar);

/// <summary>Something a plan asks of a machine that it does not give, and what to change.</summary>
/// <param name="Phase">Index of the phase.</param>
/// <param name="Sentence">What is wrong and what to change.</param>
public sealed record PlanProblem(int Phase, string Sentence);

/// <summary>
/// What a machine can do of a plan: the force the brewer allows over the stroke, the spring's line, strokes and chamber.
/// </summary>
public static class PlanReach
{
    private const int Steps = 40;
    private const double Slack = 0.25;

    /// <summary>Most pressure over the cup, 41 points. A spring begins its stroke at the first drops, the puck having drunk at
    /// boiler pressure, and is taken as cocked again whenever it has run out.</summary>
    /// <param name="machine">The machine.</param>
    /// <param name="doseGrams">Dose in g.</param>
    /// <param name="yieldGrams">Yield in g.</param>
    public static IReadOnlyList<ReachPoint> Of(Machine machine, double doseGrams, double yieldGrams)
    {
        var held = WaterBalance.HeldPerGram(machine.RetentionPerGram) * PuckParameters.Dose.Check(doseGrams);
        CupVolumes.Yield.Check(yieldGrams);
        return
        [
            .. Enumerable
                .Range(0, Steps + 1)
                .Select(i =>
                {
                    var share = (double)i / Steps;
                    return new ReachPoint(
                        share,
                        Most(machine, (machine.PressureBy == PressureBy.Spring ? 0 : held) + (share * yieldGrams))
                    );
                }),
        ];
    }

    /// <summary>The two ends of one stroke: a spring's straight line, a level one for an arm.</summary>
    public static IReadOnlyList<StrokeReach> OverStroke(Machine machine)
    {
        var ml = Strokes.VolumeMl(machine);
        return [new(0, Most(machine, 0)), new(ml, Most(machine, ml * (1 - 1e-9)))];
    }

    /// <summary>What a plan asks that the machine does not give; empty where all of it can be done.</summary>
    public static IReadOnlyList<PlanProblem> Problems(PullPlan plan, Machine machine, double doseGrams, double yieldGrams)
    {
        var reach = Of(machine, doseGrams, yieldGrams);
        var found = new List<PlanProblem>();
        var share = 0.0;
        for (var i = 0; i < plan.Phases.Count; i++)
        {
            var phase = plan.Phases[i];
            if (phase.Ending == PhaseEnding.YieldShare)
                share = phase.EndsAt;
            if (phase.Ending == PhaseEnding.Grams)
                share = Math.Clamp(phase.EndsAt / yieldGrams, 0, 1);
            if (phase.Ending == PhaseEnding.Grams && phase.EndsAt > yieldGrams)
                found.Add(
                    new(
                        i,
                        string.Create(
                            CultureInfo.InvariantCulture,
                            $"Phase {i + 1}, {phase.Name}, ends at {phase.EndsAt:0.#} g, beyond the yield of "
                                + $"{yieldGrams:0.#} g: it is never reached. Ask for at most {yieldGrams:0.#} g."
                        )
                    )
                );
            if (phase.Move == PhaseMove.Lift && machine.BoilerGaugeBar is not { })
                found.Add(
                    new(
                        i,
                        $"Phase {i + 1}, {phase.Name}, lifts the lever to refill, and this machine has no boiler to refill "
                            + "from. Take the phase out."
                    )
                );
            var most = phase.Move == PhaseMove.Lift ? machine.BoilerGaugeBar ?? 12 : MostAround(machine, reach, share, phase);
            if (phase.Move is PhaseMove.Rest || phase.ToBar <= most + Slack)
                continue;
            found.Add(
                new(
                    i,
                    machine.PressureBy switch
                    {
                        _ when phase.Move == PhaseMove.Lift => string.Create(
                            CultureInfo.InvariantCulture,
                            $"Phase {i + 1}, {phase.Name}, asks for {Quantity.Bar(phase.ToBar):0.0} with the lever up, "
                                + $"where the boiler gives {Quantity.Bar(most):0.0}. Lower it to that."
                        ),
                        PressureBy.Spring => string.Create(
                            CultureInfo.InvariantCulture,
                            $"Phase {i + 1}, {phase.Name}, asks for {Quantity.Bar(phase.ToBar):0.0} where the spring gives "
                                + $"{Quantity.Bar(most):0.0}: the hand can hold a spring back and hardly add to it. Lower the "
                                + $"point, or lift and cock the spring again before it."
                        ),
                        _ => string.Create(
                            CultureInfo.InvariantCulture,
                            $"Phase {i + 1}, {phase.Name}, asks for {Quantity.Bar(phase.ToBar):0.0}; "
                                + $"{Quantity.Kgf(machine.WillingForceKgf):0} at the handle give {Quantity.Bar(most):0.0} on "
                                + $"this lever. Lower the point, or be willing to use "
                                + $"{Quantity.Kgf(Lever.HandForceKgf(machine, phase.ToBar)):0}."
                        ),
                    }
                )
            );
        }

        return found;
    }

    /// <summary>A phase before the first drops, or one of a stroke of its own, starts from the top of the spring.</summary>
    private static double MostAround(Machine machine, IReadOnlyList<ReachPoint> reach, double share, PullPhase phase) =>
        machine.PressureBy != PressureBy.Spring ? reach.Max(r => r.MostBar)
        : phase.Ending is PhaseEnding.YieldShare or PhaseEnding.Grams ? reach[(int)Math.Round(share * Steps)].MostBar
        : machine.SpringTopBar ?? 12;

    private static double Most(Machine machine, double movedMl) => PressureLimit.MostBar(machine, movedMl % machine.ChamberMl);
}
