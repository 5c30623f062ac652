using RuddySpring.Core.Beans;
using RuddySpring.Core.Dialing;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Shots;
using RuddySpring.Core.Traces;

namespace RuddySpring.Core.Tests.Dialing;

/// <summary>How often two ways of dialling in missed the wanted band.</summary>
/// <param name="Shots">Shots each way.</param>
/// <param name="MissedByTime">Missed by those who chase the time to yield.</param>
/// <param name="MissedByAdvice">Missed by those who follow the advice.</param>
public sealed record TrialOutcome(int Shots, int MissedByTime, int MissedByAdvice);

/// <summary>
/// A trial of the advice on simulated households: a coffee that ages, a grinder with steps, an arm that never does the same twice and
/// instruments with noise. One household changes the grind by the time to yield, as people do; the other sets what is advised from R10.
/// Both are judged by the puck's own resistance, which neither knows.
/// </summary>
public static class DialingTrial
{
    private const int ShotsEach = 30;
    private const double DoseGrams = 15;
    private const double YieldGrams = 30;
    private const double ShotsADay = 2;
    private const double FirstAge = 6;
    private const double PrepNoise = 0.05;
    private const double ArmNoise = 0.16;
    private const double WaterNoiseK = 2.0;

    /// <summary>Plays one household's 30 shots both ways.</summary>
    /// <param name="seed">Seed of everything random.</param>
    public static TrialOutcome Household(ulong seed)
    {
        var random = new SeededRandom(seed);
        var (machine, _, _) = FamilyDefaults.Of(MachineFamily.PortableLever);
        var plan = ShippedPlans.EarlyPeak;
        var (low, best, high) = plan.LandingSeconds;
        var wanted = WantedResistance.Of(ShotConditions.Of(machine, plan, DoseGrams, YieldGrams, 91), low, best, high)!;
        // what the household does not know: its coffee, its grinder, how fast the bag ages
        var scale = new GrinderScale(20, -(0.05 + (random.Uniform() * 0.07)));
        var coffee = wanted.Best / 1.48 * Math.Exp(random.Normal(0.3));
        var ageing = -0.011 + random.Normal(0.004);
        double Truth(double setting, double age) => scale.Resistance(setting, coffee) * Math.Exp(ageing * (age - 8));

        var byTime = 20.0;
        var missedByTime = 0;
        var known = new List<GrindShot>();
        var missedByAdvice = 0;
        var advised = 20.0;
        for (var n = 0; n < ShotsEach; n++)
        {
            var age = FirstAge + (n / ShotsADay);
            var chased = Pull(random, plan, machine, Truth(byTime, age));
            if (Misses(chased.R10True, wanted)) missedByTime++;
            byTime += chased.Seconds > high ? 1 : chased.Seconds < low ? -1 : 0;

            if (known.Count > 0) advised = GrindAdvice.Learn(new(1, true), known).Suggest(1, 1, age, DoseGrams, wanted)?.Setting ?? advised;
            var followed = Pull(random, plan, machine, Truth(advised, age));
            if (Misses(followed.R10True, wanted)) missedByAdvice++;
            if (followed.R10Read is { } read) known.Add(new(1, 1, advised, age, DoseGrams, read));
        }

        return new(ShotsEach, missedByTime, missedByAdvice);
    }

    private static bool Misses(double r10, WantedResistance wanted) => r10 < wanted.Low || r10 > wanted.High;

    private static (double R10True, double? R10Read, double Seconds) Pull(SeededRandom random, PullPlan plan, Machine machine, double resistance)
    {
        var puck = new PuckParameters
        {
            DoseGrams = DoseGrams,
            ResistanceBarSPerMl = Math.Clamp(resistance * Math.Exp(random.Normal(PrepNoise)), 0.4, 100),
            WaterC = 91 + random.Normal(WaterNoiseK),
        };
        // the arm: today a little harder or softer than the plan, and a pre-infusion of its own length
        var arm = Math.Exp(random.Normal(ArmNoise));
        var pulled = plan with { Phases = [.. plan.Phases.Select(p => p with { ToBar = Math.Clamp(p.ToBar * arm, 0.5, 11.5) })] };
        var shot = PuckShots.Run(puck, pulled, machine with { WillingForceKgf = 40 }, YieldGrams);
        var gauge = new GaugeModel(random);
        var scales = new ScaleModel(random);
        double[] seconds = [.. shot.Samples.Select(s => s.Seconds)];
        var trace = new Trace([
            new(Channel.Pressure, Origin.Measured, seconds, [.. shot.Samples.Select(s => gauge.Read(s.PressureBar))]),
            new(Channel.Weight, Origin.Measured, seconds, [.. shot.Samples.Select(s => scales.Read(s.CupGrams, s.FlowGramsPerS, 0.1))]),
        ]);
        var (_, _, measures, _) = MeasureShot.Read(trace, Moments.None, DoseGrams, 91);
        return (GrindResistance.Of(puck), measures.R10, shot.Seconds);
    }
}
