using RuddySpring.Core.Pulls;

namespace RuddySpring.Core.Tests.SecondWorld.Mornings;

/// <summary>A shot that is about to be pulled on a bench: what truly is, and what was noted.</summary>
public sealed class OtherShot(OtherBench bench, double setting, double ageDays)
{
    /// <summary>Whose it is.</summary>
    public OtherBench Bench { get; } = bench;

    /// <summary>Setting that was noted.</summary>
    public double Setting { get; private set; } = setting;

    /// <summary>Logarithm of the resistance over that of the noted setting.</summary>
    public double Unnoted { get; private set; }

    /// <summary>Days from roast.</summary>
    public double AgeDays { get; private set; } = ageDays;

    /// <summary>Water at the puck, degC.</summary>
    public double WaterC { get; set; } = bench.WaterC;

    /// <summary>Outside of the group, degC.</summary>
    public double GroupC { get; private set; } = bench.BandMiddleC;

    /// <summary>What the boiler's gauge shows, bar.</summary>
    public double BoilerBar { get; private set; } = bench.Machine.BoilerGaugeBar ?? 0;

    /// <summary>Shots pulled just before.</summary>
    public int InARow { get; private set; } = 1;

    /// <summary>Whether the preheat was ticked.</summary>
    public bool Preheated { get; set; } = true;

    /// <summary>Whether bleeding was ticked.</summary>
    public bool Bled { get; set; } = true;

    /// <summary>Whether another coffee was ground just before.</summary>
    public bool OtherCoffeeBefore { get; private set; }

    /// <summary>Whether a purge was ticked after it.</summary>
    public bool Purged { get; private set; } = true;

    /// <summary>Whether the screen on the puck was ticked.</summary>
    public bool ScreenIn { get; private set; } = true;

    /// <summary>True dose, g.</summary>
    public double DoseGrams { get; private set; } = bench.DoseGrams;

    /// <summary>Yield on the sheet, g.</summary>
    public double YieldGrams { get; private set; } = bench.YieldGrams;

    /// <summary>By which share of the yield the hand stops late.</summary>
    public double StopsOff { get; set; }

    /// <summary>The small hole over what it is.</summary>
    public double RestrictorTimes { get; set; } = 1;

    /// <summary>Most that the arm gives, bar.</summary>
    public double MostBar { get; set; } = 12;

    /// <summary>How slowly a soft lever's pressure follows, s; 0 for a hard one.</summary>
    public double SoftSeconds { get; private set; }

    /// <summary>Share of the water that goes past the seal.</summary>
    public double LeakShare { get; private set; }

    /// <summary>How the arm truly pulls.</summary>
    public PullPlan Pulled { get; private set; } = bench.Plan;

    /// <summary>A channel: seconds after first drops, and how many times as much it lets through.</summary>
    public (double AfterDrops, double Times)? Channels { get; private set; }

    /// <summary>How the front is held up.</summary>
    public double FrontHeldUp { get; private set; } = 1;

    /// <summary>What was off beyond that, for the tongue: stale, gassy, foreign.</summary>
    public double Gassy { get; private set; }

    /// <summary>How stale, 0 to 1.</summary>
    public double Stale { get; private set; }

    /// <summary>Whether it is pressed hard to the end.</summary>
    public bool Harsh { get; private set; }

    /// <summary>The group is off.</summary>
    public void Group(double groupC, int inARow)
    {
        WaterC += 0.35 * (groupC - GroupC);
        (GroupC, InARow) = (groupC, inARow);
    }

    /// <summary>The boiler is set too low.</summary>
    public void Boiler(double bar)
    {
        WaterC -= 14 * (BoilerBar - bar);
        BoilerBar = bar;
        Pulled = Changed((p, _) => p.Move == PhaseMove.Lift ? p with { ToBar = bar } : p);
    }

    /// <summary>Beans of another age, ground as ever.</summary>
    public void Age(double days)
    {
        AgeDays = days;
        Gassy = Math.Max(0, 5 - days) / 3;
        Stale = Math.Clamp((days - 24) / 20, 0, 1);
        FrontHeldUp = 1 + (0.25 * Gassy);
        Unnoted += 0.06 * Gassy;
    }

    /// <summary>Pre-infusion of two seconds and a ramp of one.</summary>
    public void FastRamp() =>
        Pulled = Changed(
            (p, i) =>
                i == 0 ? p with { Ending = PhaseEnding.Seconds, EndsAt = 2, LeadSeconds = 0 }
                : p.Name == "ramp" ? p with { EndsAt = 1, ToBar = Math.Min(9.5, p.ToBar + 1) }
                : p
        );

    /// <summary>Water finds a way.</summary>
    public void Channel(double afterDrops, double times) => Channels = (afterDrops, times);

    /// <summary>The grind is off by a logarithm of its resistance, with the setting or behind its back.</summary>
    public void Grind(double log, bool noted)
    {
        if (!noted)
        {
            Unnoted += log;
            return;
        }

        var steps = Math.Max(1, Math.Round(Math.Abs(log) / Bench.LogPerStep));
        Setting -= Math.Sign(log) * steps * Bench.Step;
    }

    /// <summary>Nothing spreads the water.</summary>
    public void NoScreen(double times)
    {
        ScreenIn = false;
        FrontHeldUp = 0.75;
        Channels = (0, times);
    }

    /// <summary>Air under the piston.</summary>
    public void Air(double seconds) => (SoftSeconds, FrontHeldUp) = (seconds, 1.25);

    /// <summary>The grinder is set to a number; what it did behind its scale's back it goes on doing.</summary>
    public void SetTo(double setting, OtherShot before) => (Setting, Unnoted) = (setting, before.Unnoted);

    /// <summary>Pulled in another way.</summary>
    public void PullBy(PullPlan plan) => Pulled = plan;

    /// <summary>As a day finds it: set so, so old, of another lot; what a fault did to it stays.</summary>
    public void Live(double setting, double ageDays, double lotLog) =>
        (Setting, AgeDays, Unnoted) = (setting, ageDays, Unnoted + lotLog);

    /// <summary>The seal lets water by.</summary>
    public void Leak(double share) => LeakShare = share;

    /// <summary>A gram more or less than was noted.</summary>
    public void Dose(double grams) => DoseGrams += grams;

    /// <summary>Pressed before the puck is wet.</summary>
    public void ShortPreInfusion() =>
        Pulled = Changed((p, i) => i == 0 ? p with { Ending = PhaseEnding.Seconds, EndsAt = 1.5, LeadSeconds = 0.5 } : p);

    /// <summary>Nine bar to the end.</summary>
    public void PressToTheEnd()
    {
        var ramp = Bench.Plan.Phases.ToList().FindIndex(p => p.ToBar >= Bench.Plan.PeakBar - 0.1);
        Pulled = Changed((p, i) => i >= ramp ? p with { ToBar = 9, Move = PhaseMove.Press } : p);
        Harsh = true;
    }

    /// <summary>Grounds of the other coffee.</summary>
    public void NotPurged(SeededRandom random)
    {
        (OtherCoffeeBefore, Purged) = (true, false);
        Unnoted += (random.Uniform() < 0.5 ? -1 : 1) * random.Uniform(0.12, 0.35);
        Gassy = 0.4;
    }

    /// <summary>A long cup of a dark roast, or a short one of a light.</summary>
    public void Ratio(SeededRandom random) =>
        YieldGrams =
            Bench.Roast == "light" ? DoseGrams * random.Uniform(1.1, 1.3)
            : Bench.Roast == "dark" ? DoseGrams * random.Uniform(2.7, 3.0)
            : DoseGrams * (random.Uniform() < 0.5 ? 1.1 : 3.1);

    private PullPlan Changed(Func<PullPhase, int, PullPhase> change) =>
        Pulled with
        {
            Phases = [.. Pulled.Phases.Select(change)],
        };
}
