using RuddySpring.Core.Dialing;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Shots;
using RuddySpring.Core.Tests.SecondWorld;
using RuddySpring.Core.Traces;

namespace RuddySpring.Core.Tests.Dialing;

/// <summary>How often two ways of dialling in missed: the grind that is wanted, and the time in which the cup was to
/// land.</summary>
/// <param name="Shots">Shots each way.</param>
/// <param name="GrindMissedByTime">Grinds missed by those who chase the time to yield.</param>
/// <param name="GrindMissedByAdvice">Grinds missed by those who follow the advice.</param>
/// <param name="CupMissedByTime">Cups out of their time, chasing it.</param>
/// <param name="CupMissedByAdvice">Cups out of their time, by the advice.</param>
public sealed record TrialOutcome(
    int Shots,
    int GrindMissedByTime,
    int GrindMissedByAdvice,
    int CupMissedByTime,
    int CupMissedByAdvice
);

/// <summary>
/// A trial of the advice on households of a world: a coffee that ages, a grinder with steps, an arm that is harder one day and
/// softer another, and instruments that the advice has to do with. One household changes the grind by the time to yield, as
/// people do; the other sets what is advised. Both are judged by the true grind against the one that lands the plan in its time
/// on that coffee, and by the cup.
/// </summary>
public static class DialingTrial
{
    private const int ShotsEach = 30;
    private const double DoseGrams = 15;
    private const double YieldGrams = 32;
    private const double WaterC = 91;
    private const double ShotsADay = 2;
    private const double FirstAge = 6;
    private const double ArmNoise = 0.12;

    // what a grind may be off by, either way, for a shot to land: logarithm of the resistance
    private const double GrindBand = 0.13;

    private static readonly Machine Machine = FamilyDefaults.Of(MachineFamily.PortableLever).Machine with
    {
        WillingForceKgf = 40,
    };
    private static readonly PullPlan Plan = ShippedPlans.EarlyPeak;

    /// <summary>Plays one household's 30 shots both ways.</summary>
    public static TrialOutcome Household(World world, ulong seed)
    {
        var random = new SeededRandom(seed);
        var house = world.Household(seed);
        var (low, best, high) = Plan.LandingSeconds;
        var sheet = ShotConditions.Of(Machine, Plan, DoseGrams, YieldGrams, WaterC);
        // what the household does not know: its coffee, its grinder, how fast the bag ages
        var share = 0.05 + (random.Uniform() * 0.07);
        var coffee = Math.Exp(random.Normal(0.25));
        var ageing = -0.011 + random.Normal(0.004);
        double Grind(double setting, double age) => coffee * Math.Exp((-share * (setting - 20)) + (ageing * (age - 8)));
        var right = RightGrind(house, sheet, best);
        var seen = seed * 10_000;

        (double? Resistivity, Measures Measures, double Seconds) Pull(double setting, double age)
        {
            var arm = Math.Clamp(Math.Exp(random.Normal(ArmNoise)), 0.6, 1.45);
            var plan = Plan with
            {
                Phases = [.. Plan.Phases.Select(p => p with { ToBar = Math.Clamp(p.ToBar * arm, 0.5, 11.5) })],
            };
            var (trace, cued, _) = World.Record(house.Pull(sheet with { Plan = plan }, Grind(setting, age), seen++), YieldGrams);
            var measures = MeasureShot.Read(trace, Moments.None, DoseGrams, WaterC).Measures;
            return (measures.R10 is { } r10 ? GrindResistivity.Of(r10, DoseGrams, sheet.Bed.Basket) : null, measures, cued);
        }

        bool GrindMissed(double setting, double age) => Math.Abs(Math.Log(Grind(setting, age) / right)) > GrindBand;
        bool CupMissed(double seconds) => seconds < low || seconds > high;
        int grindByTime = 0,
            grindByAdvice = 0,
            cupByTime = 0,
            cupByAdvice = 0;
        double byTime = 20,
            advised = 20;
        var known = new List<GrindShot>();
        PuckBelief? belief = null;
        for (var n = 0; n < ShotsEach; n++)
        {
            var age = FirstAge + (n / ShotsADay);
            if (GrindMissed(byTime, age))
                grindByTime++;
            var chased = Pull(byTime, age).Seconds;
            if (CupMissed(chased))
                cupByTime++;
            byTime +=
                chased > high ? 1
                : chased < low ? -1
                : 0;

            if (known.Count > 0)
            {
                var unit = belief is null ? sheet : PuckMemory.Of(belief).Like(sheet);
                var wanted = WantedResistance.Of(unit, low, best, high);
                if (wanted is not null)
                    advised = GrindAdvice.Learn(new(1, true), known).Suggest(1, 1, age, DoseGrams, wanted)?.Setting ?? advised;
            }

            if (GrindMissed(advised, age))
                grindByAdvice++;
            var followed = Pull(advised, age);
            if (CupMissed(followed.Seconds))
                cupByAdvice++;
            if (followed.Resistivity is not { } rho)
                continue;
            known.Add(new(1, 1, advised, age, DoseGrams, rho, 0, followed.Measures.R10MeanBar, followed.Measures.R10WetSeconds));
            // the puck's behaviour is read back now and then: it is the coffee's and hardly moves
            if (n is 0 or 1 or 2 or 5)
            {
                var before = GrindResistivity.With(sheet, rho);
                var (trace, _, _) = World.Record(house.Pull(sheet, Grind(advised, age), seen - 1), YieldGrams);
                if (
                    PuckReadBack.Of(
                        belief?.Next(before, 0.2) ?? PuckBelief.Before(before, 0.3),
                        trace,
                        MeasureShot.Read(trace, Moments.None, DoseGrams, WaterC)
                    ) is
                    { } told
                )
                    belief = told.After;
            }
        }

        return new(ShotsEach, grindByTime, grindByAdvice, cupByTime, cupByAdvice);
    }

    /// <summary>The grind at which the plan, pulled as planned, lands in the middle of its time: the mean of four
    /// pucks.</summary>
    private static double RightGrind(IHousehold house, ShotConditions sheet, double seconds)
    {
        double low = 0.3,
            high = 3.5;
        for (var i = 0; i < 7; i++)
        {
            var middle = Math.Sqrt(low * high);
            var mean = Enumerable
                .Range(1, 4)
                .Average(n => World.Record(house.Pull(sheet, middle, (ulong)(900_000 + n)), YieldGrams).CuedAt);
            if (mean < seconds)
                low = middle;
            else
                high = middle;
        }

        return Math.Sqrt(low * high);
    }
}
