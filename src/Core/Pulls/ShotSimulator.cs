using RuddySpring.Core.Machines;
using RuddySpring.Core.Puck;

namespace RuddySpring.Core.Pulls;

/// <summary>One instant of a simulated shot.</summary>
/// <param name="Seconds">Since the lever moved.</param>
/// <param name="PressureBar">On the puck, gauge.</param>
/// <param name="FlowGramsPerS">Out of the puck, solids and all.</param>
/// <param name="CupGrams">In the cup.</param>
/// <param name="Strength">Of the cup so far, 0 to 1.</param>
/// <param name="MovedMl">Water that has entered the puck, as the piston moved it.</param>
/// <param name="StrokeMl">Water of the stroke under way, from where the lever was last up; of a pump's or stepped lever's pull all of it.</param>
/// <param name="MostBar">Most that the machine would have given at that instant.</param>
public readonly record struct SimulatedSample(
    double Seconds, double PressureBar, double FlowGramsPerS, double CupGrams, double Strength, double MovedMl = 0,
    double StrokeMl = 0, double MostBar = 12);

/// <summary>A whole simulated shot.</summary>
/// <param name="Samples">Ten a second.</param>
/// <param name="FirstDropsSeconds">When the first drops fell, or null.</param>
/// <param name="Seconds">When the yield was reached, or when the shot was given up.</param>
/// <param name="CupGrams">In the cup at the end.</param>
/// <param name="Strength">Of the cup, 0 to 1.</param>
/// <param name="ExtractionShare">Solids in the cup over dose, 0 to 1.</param>
/// <param name="ExtractionSpread">Standard deviation between the lanes, share of dose.</param>
/// <param name="ReachedYield">False when the water ran out or nothing flowed.</param>
public sealed record SimulatedShot(
    IReadOnlyList<SimulatedSample> Samples, double? FirstDropsSeconds, double Seconds, double CupGrams, double Strength,
    double ExtractionShare, double ExtractionSpread, bool ReachedYield);

/// <summary>
/// A plan pulled by a steady hand on a puck and a machine. The hand follows the plan with a short lag, never beyond the force the
/// brewer is willing to use or what the spring still gives.
/// </summary>
public static class ShotSimulator
{
    /// <summary>Step of the equations, s.</summary>
    public const double StepSeconds = 0.05;

    /// <summary>Weight in g that counts as first drops.</summary>
    public const double FirstDropsGrams = 0.2;

    /// <summary>Strength of the stream below which it looks pale, share of its weight (common practice: the last third of a 1:2 cup).</summary>
    public const double PaleBelow = 0.04;

    private const int StepsASample = 2;
    private const double PaleFromGrams = 8;

    /// <summary>Runs a shot to its yield in g.</summary>
    /// <param name="puck">The puck.</param>
    /// <param name="plan">The pull plan.</param>
    /// <param name="machine">The machine.</param>
    /// <param name="yieldGrams">Where to stop, g.</param>
    /// <param name="longestSeconds">Where to give up, s.</param>
    public static SimulatedShot Run(
        PuckParameters puck, PullPlan plan, Machine machine, double yieldGrams, double longestSeconds = 150)
    {
        CupVolumes.Yield.Check(yieldGrams);
        var model = new PuckModel(puck);
        var hand = new PlanHand(new(plan.Checked(), yieldGrams, Strokes.VolumeMl(machine)), machine);
        var samples = new List<SimulatedSample>(600) { new(0, 0, 0, 0, 0, MostBar: MostPressureBar(machine, 0)) };
        var mostInflowMl = CupVolumes.MostPuckMl(machine);
        double? drops = null;
        var seconds = 0.0;
        var pale = false;
        var result = default(PuckStep);
        for (var step = 1; seconds < longestSeconds && model.CupGrams < yieldGrams; step++)
        {
            var pressure = hand.Next(
                new(seconds, model.CupGrams, drops is not null, result.CupGrams / StepSeconds, model.InflowMl, pale),
                result.InflowMl / StepSeconds, StepSeconds, model.InflowMl < mostInflowMl);
            result = model.Step(pressure, StepSeconds);
            pale |= result.CupGrams > 0 && model.CupGrams > PaleFromGrams && result.SolidsGrams < PaleBelow * result.CupGrams;
            seconds = step * StepSeconds;
            if (drops is null && model.CupGrams >= FirstDropsGrams) drops = seconds;
            if (step % StepsASample == 0 || model.CupGrams >= yieldGrams)
                samples.Add(new(seconds, pressure, result.CupGrams / StepSeconds, model.CupGrams, model.Strength, model.InflowMl, model.InflowMl - hand.StrokeFromMl, hand.MostBar));
            if (model.InflowMl >= mostInflowMl && pressure < 0.05) break;
        }

        return new(
            samples, drops, seconds, model.CupGrams, model.Strength, model.ExtractionShare, model.ExtractionSpread,
            model.CupGrams >= yieldGrams);
    }

    /// <summary>
    /// Most pressure in bar that the machine gives after a volume in ml has gone through: the brewer's force, or the spring's line. A
    /// spring that is cocked again starts at its top; a pump's small piston is limited by nothing the hand would notice before 12 bar.
    /// </summary>
    public static double MostPressureBar(Machine machine, double movedMl) => machine.PressureBy switch
    {
        PressureBy.Spring => Spring.PressureBar(machine, movedMl % machine.ChamberMl) ?? 0.0,
        PressureBy.Arm => Lever.PressureBar(machine, machine.WillingForceKgf),
        _ => PullPlan.PlanPressure.Max,
    };
}
