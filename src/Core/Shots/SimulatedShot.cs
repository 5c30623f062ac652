using RuddySpring.Core.Machines;

namespace RuddySpring.Core.Shots;

/// <summary>One instant of a simulated shot.</summary>
/// <param name="Seconds">Since the lever moved.</param>
/// <param name="PressureBar">On the puck, gauge.</param>
/// <param name="FlowGramsPerS">Into the cup, solids and all.</param>
/// <param name="CupGrams">In the cup.</param>
/// <param name="Strength">Of the cup so far, 0 to 1.</param>
/// <param name="MovedMl">Water that has entered the puck, as the piston moved it.</param>
/// <param name="StrokeMl">Water of the stroke under way, from where the lever was last up; of a pump's or stepped lever's pull
/// all of it.</param>
/// <param name="MostBar">Most that the machine would have given at that instant.</param>
public readonly record struct SimulatedSample(
    double Seconds,
    double PressureBar,
    double FlowGramsPerS,
    double CupGrams,
    double Strength,
    double MovedMl = 0,
    double StrokeMl = 0,
    double MostBar = 12
);

/// <summary>A whole simulated shot.</summary>
/// <param name="Samples">Ten a second.</param>
/// <param name="FirstDropsSeconds">When the first drops fell, or null.</param>
/// <param name="Seconds">When the hand let go so that the last drops make the yield, or when the shot was given up.</param>
/// <param name="CupGrams">In the cup when all has dripped.</param>
/// <param name="Strength">Of the cup, 0 to 1.</param>
/// <param name="ExtractionShare">Solids in the cup over dose, 0 to 1.</param>
/// <param name="ExtractionSpread">Standard deviation between the lanes, share of dose.</param>
/// <param name="ReachedYield">False when the water ran out or nothing flowed.</param>
public sealed record SimulatedShot(
    IReadOnlyList<SimulatedSample> Samples,
    double? FirstDropsSeconds,
    double Seconds,
    double CupGrams,
    double Strength,
    double ExtractionShare,
    double ExtractionSpread,
    bool ReachedYield
)
{
    private const int StepsASample = 2;
    private const double UsualLongestSeconds = 150;

    /// <summary>Pulls a shot by its plan, with a steady hand, to its yield.</summary>
    /// <param name="conditions">The shot.</param>
    /// <param name="longestSeconds">Where to give up, s.</param>
    /// <exception cref="FieldRangeException">A number of the shot is out of range.</exception>
    public static SimulatedShot Pull(ShotConditions conditions, double longestSeconds = UsualLongestSeconds)
    {
        var (machine, yieldGrams) = (conditions.Machine, CupVolumes.Yield.Check(conditions.YieldGrams));
        var run = new ShotRun(conditions);
        var drive = new PlanDrive(new(conditions.Plan.Checked(), yieldGrams, Strokes.VolumeMl(machine)), machine);
        var samples = new List<SimulatedSample>(600) { new(0, 0, 0, 0, 0, MostBar: PressureLimit.MostBar(machine, 0)) };
        bool reached = false,
            empty = false;
        for (var step = 1; run.Seconds < longestSeconds && !reached && !empty; step++)
        {
            run.Step(drive, ShotRun.UsualStepSeconds);
            reached = run.Stream.LeftPuckGrams >= yieldGrams;
            empty = !drive.HasWater(run.Puck.InflowMl) && run.PressureBar < 0.05;
            if (step % StepsASample == 0 || reached)
            {
                samples.Add(
                    new(
                        step * ShotRun.UsualStepSeconds,
                        run.PressureBar,
                        run.FallingGramsPerS,
                        run.Stream.CupGrams,
                        run.Puck.Strength,
                        run.Puck.InflowMl,
                        run.Puck.InflowMl - drive.StrokeFromMl,
                        drive.MostBar
                    )
                );
            }
        }

        return new(
            samples,
            run.FirstDropsSeconds,
            samples[^1].Seconds,
            run.Stream.LeftPuckGrams,
            run.Puck.Strength,
            run.Puck.ExtractionShare,
            run.Puck.ExtractionSpread,
            reached
        );
    }
}
