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
    private const int RightPucks = 24;
    private const int RightSteps = 2;
    private const int ReadBackOfEach = 4; // and of the first pulls all

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

        (double? Resistivity, Trace Trace, ShotReading Reading, double Seconds) Pull(double setting, double age)
        {
            var arm = Math.Clamp(Math.Exp(random.Normal(ArmNoise)), 0.6, 1.45);
            var plan = Plan with
            {
                Phases = [.. Plan.Phases.Select(p => p with { ToBar = Math.Clamp(p.ToBar * arm, 0.5, 11.5) })],
            };
            var (trace, cued, _) = World.Record(house.Pull(sheet with { Plan = plan }, Grind(setting, age), seen++), YieldGrams);
            var reading = MeasureShot.Read(trace, Moments.None, DoseGrams, WaterC);
            double? rho = reading.Measures.R10 is { } r10 ? GrindResistivity.Of(r10, DoseGrams, sheet.Bed.Basket) : null;
            return (rho, trace, reading, cued);
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
            var measures = followed.Reading.Measures;
            known.Add(new(1, 1, advised, age, DoseGrams, rho, 0, measures.R10MeanBar, measures.R10WetSeconds));
            // the puck is read back as the application does it, but not of every pull: it is the coffee's and hardly moves
            if (n >= ReadBackOfEach && n % ReadBackOfEach != 0)
                continue;
            var before = GrindResistivity.With(sheet, rho);
            belief = PuckReadBack
                .Of(
                    belief?.Next(before, 0.2) ?? PuckBelief.Before(before, 0.3),
                    followed.Trace,
                    followed.Reading,
                    PuckReadBack.ForTheNextPull
                )
                ?.After
                ?? belief;
        }

        return new(ShotsEach, grindByTime, grindByAdvice, cupByTime, cupByAdvice);
    }

    /// <summary>The grind at which the plan, pulled as planned, lands in the middle of its time: the mean of so many pucks that
    /// it is known to about a hundredth.</summary>
    private static double RightGrind(IHousehold house, ShotConditions sheet, double seconds)
    {
        double LogSeconds(double logGrind) =>
            Enumerable
                .Range(0, RightPucks)
                .Average(n =>
                    Math.Log(World.Record(house.Pull(sheet, Math.Exp(logGrind), (ulong)(900_000 + n)), YieldGrams).CuedAt)
                );

        // the time goes nearly as a power of the resistance
        double before = Math.Log(1.2),
            at = Math.Log(1.6),
            wanted = Math.Log(seconds),
            timeBefore = LogSeconds(before);
        for (var i = 0; i < RightSteps; i++)
        {
            var time = LogSeconds(at);
            var next = at + ((wanted - time) * (at - before) / (time - timeBefore));
            (before, timeBefore, at) = (at, time, Math.Clamp(next, -1.2, 1.25));
        }

        return Math.Exp(at);
    }
}
