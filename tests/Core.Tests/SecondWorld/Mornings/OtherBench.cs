using RuddySpring.Core.Heat;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Shots;
using RuddySpring.Core.Traces;

namespace RuddySpring.Core.Tests.SecondWorld.Mornings;

/// <summary>A shot of the second world with all that a household has of it.</summary>
/// <param name="Shot">What truly was, and what was noted.</param>
/// <param name="Trace">What gauge and scale recorded.</param>
/// <param name="CupGrams">What stands in the cup, g.</param>
/// <param name="SolidsGrams">Solids in it, g.</param>
/// <param name="Seconds">From lever to stop.</param>
/// <param name="Taste">How it tasted.</param>
/// <param name="Tapped">What was seen of stream and puck; null where nobody looked.</param>
/// <param name="Strength">By refractometer, 0 to 1; null without one.</param>
/// <param name="GroupC">The group as it was read, degC; null where nobody read it.</param>
/// <param name="BoilerBar">The boiler's gauge as it was read; null likewise.</param>
/// <param name="Preheated">Whether the preheat was ticked; null where this household ticks nothing, or has none.</param>
/// <param name="Bled">The same of bleeding the boiler.</param>
/// <param name="Purged">The same of purging the grinder after another coffee.</param>
/// <param name="ScreenIn">The same of the screen on the puck.</param>
public sealed record MadeShot(
    OtherShot Shot,
    Trace Trace,
    double CupGrams,
    double SolidsGrams,
    double Seconds,
    OtherTaste Taste,
    IReadOnlySet<string>? Tapped,
    double? Strength,
    double? GroupC,
    double? BoilerBar,
    bool? Preheated,
    bool? Bled,
    bool? Purged,
    bool? ScreenIn
);

/// <summary>
/// A household of the second world with a bench of one of the families: it has dialled its grind in, pulls healthy shots, and
/// now and then something goes wrong. Its numbers were set once and are not tuned.
/// </summary>
public sealed class OtherBench
{
    private const double ReactsSeconds = 0.35;
    private const double LongestSeconds = 150;
    private readonly OtherCoffee _coffee;
    private readonly OtherTongue _tongue;
    private readonly double _spoutSeconds;
    private readonly double _scaleSeconds;
    private readonly double _resistance;
    private readonly double _usualExtraction;
    private readonly double _usualStrength;
    private readonly ulong _seed;
    private readonly bool _ticks;

    /// <summary>A household by chance.</summary>
    public OtherBench(MachineFamily family, bool restricted, ulong seed)
    {
        _seed = (seed * 20) + (ulong)family + (restricted ? 10UL : 0);
        var random = new SeededRandom(_seed * 15_485_863);
        _ticks = random.Uniform() < 0.75;
        var (machine, dose, yield) = FamilyDefaults.Of(family);
        // arms that can give what the plan asks for
        Machine = machine with { WillingForceKgf = machine.WillingForceKgf * 1.15 };
        DoseGrams = dose;
        Roast = random.Below(3) switch
        {
            0 => "light",
            1 => "medium",
            _ => "dark",
        };
        YieldGrams = Math.Min(yield * (Roast == "light" ? 1.1 : 1), CupVolumes.LargestYieldGrams(Machine, dose, 92) - 1.0);
        var plans = ShippedPlans.All.Where(p => p.Suits(Machine)).ToList();
        Plan = plans[random.Below(plans.Count)];
        WaterC = 91 + random.Normal(1.0);
        Restrictor = restricted ? 4.0 : 0;
        HasScreen = !Machine.HasBoiler;
        Step = 1;
        LogPerStep = random.Uniform(0.05, 0.11);
        PerDay = -0.011 + random.Normal(0.003);
        _coffee = OtherCoffee.Draw(random);
        _tongue = new(random);
        (_spoutSeconds, _scaleSeconds) = (0.2 + random.Uniform(), 0.2 + (0.6 * random.Uniform()));
        FirstAgeDays = random.Uniform(8, 12);
        _resistance = DialIn();
        var (usual, solids) = Enumerable
            .Range(1, 3)
            .Select(i => Pull(new(this, UsualSetting, FirstAgeDays), 900_000 + (ulong)i))
            .Aggregate((Cup: 0.0, Solids: 0.0), (sum, p) => (sum.Cup + p.CupGrams, sum.Solids + p.SolidsGrams));
        (_usualExtraction, _usualStrength) = (100 * solids / 3 / DoseGrams, 100 * solids / usual);
    }

    /// <summary>Setting that its grind was dialled in at.</summary>
    public const double UsualSetting = 20;

    public Machine Machine { get; }

    public PullPlan Plan { get; }

    public double DoseGrams { get; }

    public double YieldGrams { get; }

    /// <summary>Roast level of its coffee.</summary>
    public string Roast { get; }

    /// <summary>Water at the puck on a good day, degC.</summary>
    public double WaterC { get; }

    /// <summary>Orifice of its basket, bar s2/ml2; 0 for none.</summary>
    public double Restrictor { get; }

    /// <summary>Whether a screen belongs on its puck.</summary>
    public bool HasScreen { get; }

    /// <summary>A step of its grinder; finer is lower.</summary>
    public double Step { get; }

    /// <summary>What a step does to the logarithm of the resistance.</summary>
    public double LogPerStep { get; }

    /// <summary>What a day does to it.</summary>
    public double PerDay { get; }

    /// <summary>Days from roast at its first shot.</summary>
    public double FirstAgeDays { get; }

    /// <summary>Middle of the group's band, degC.</summary>
    public double BandMiddleC =>
        (GroupBand.Of(HeatConstants.Of(Machine)).LowC + GroupBand.Of(HeatConstants.Of(Machine)).HighC) / 2;

    /// <summary>Whether its plan eases towards the end.</summary>
    public bool Eases => Plan.Phases[^1].ToBar < Plan.PeakBar - 1.5;

    /// <summary>Its basket.</summary>
    public Basket Basket => Basket.Of(Machine) with { RestrictorBarS2PerMl2 = Restrictor };

    /// <summary>The sheet of a shot, as it was noted.</summary>
    public ShotConditions Sheet(OtherShot shot) =>
        ShotConditions.Of(Machine, Plan, DoseGrams, shot.YieldGrams, WaterC, basket: Basket);

    /// <summary>Healthy shots of its first days, a step off now and then.</summary>
    public IReadOnlyList<MadeShot> Healthy(int count) =>
        [.. Enumerable.Range(0, count).Select(n => Make(HealthyShot(n), _seed * 1000 + (ulong)n))];

    /// <summary>A shot with which nothing is wrong, so many days after its first.</summary>
    public OtherShot HealthyShot(int day) => new(this, UsualSetting + ((day % 3) - 1), FirstAgeDays + (day / 2.0));

    /// <summary>A shot that faults happen to.</summary>
    /// <param name="faults">Which.</param>
    /// <param name="seed">Chance.</param>
    /// <param name="then">What is done about it before it is pulled.</param>
    public MadeShot With(IReadOnlyList<Fault> faults, ulong seed, Action<OtherShot>? then = null)
    {
        var random = new SeededRandom((_seed * 32_452_843) + seed);
        var shot = new OtherShot(this, UsualSetting, FirstAgeDays + 3);
        foreach (var fault in faults)
            fault.Does(shot, random);
        then?.Invoke(shot);
        return Make(shot, (_seed * 7_919) + seed);
    }

    /// <summary>Pulls a shot and tastes it.</summary>
    public MadeShot Make(OtherShot shot, ulong seed)
    {
        var pulled = Pull(shot, seed);
        var chance = new SeededRandom((seed * 86_028_121) + 5);
        var uneven = shot.Channels is { Times: var times } ? Math.Clamp((times - 1) / 3, 0, 1) : 0;
        var strength = pulled.CupGrams > 1 ? pulled.SolidsGrams / pulled.CupGrams : 0;
        var taste = _tongue.Taste(
            (100 * pulled.SolidsGrams / DoseGrams) - _usualExtraction,
            (100 * strength) - _usualStrength,
            shot,
            uneven,
            chance
        );
        var group =
            Machine.HasBoiler && chance.Uniform() < 0.7 ? Math.Round((shot.GroupC + chance.Normal(1.5)) / 2) * 2 : (double?)null;
        var gauge =
            Machine.HasBoiler && chance.Uniform() < 0.7 ? Math.Round(shot.BoilerBar + chance.Normal(0.03), 2) : (double?)null;
        var refractometer = chance.Uniform() < 0.25;
        return new(
            shot,
            pulled.Trace,
            pulled.CupGrams,
            pulled.SolidsGrams,
            pulled.Seconds,
            taste,
            Seen(shot, uneven, chance),
            refractometer ? strength + chance.Normal(0.001) : null,
            group,
            gauge,
            Machine.HasBoiler ? null : Ticked(shot.Preheated, chance),
            Machine.HasBoiler ? Ticked(shot.Bled, chance) : null,
            shot.OtherCoffeeBefore ? Ticked(shot.Purged, chance) : null,
            HasScreen ? Ticked(shot.ScreenIn, chance) : null
        );
    }

    /// <summary>Three households in four tick what they do, and forget to tick one thing in twenty.</summary>
    private bool? Ticked(bool done, SeededRandom chance) => _ticks ? done && chance.Uniform() > 0.05 : null;

    /// <summary>What people tap afterwards on basket and puck; six in ten look.</summary>
    private static HashSet<string>? Seen(OtherShot shot, double uneven, SeededRandom chance)
    {
        if (chance.Uniform() > 0.6)
            return null;
        var seen = new HashSet<string>();
        void Maybe(string what, double often)
        {
            if (chance.Uniform() < often)
                seen.Add(what);
        }

        Maybe("lean", 0.15);
        Maybe("spurt", 0.04 + (0.5 * uneven));
        Maybe("pale-streak", 0.05 + (0.45 * uneven));
        Maybe("bald-spot", 0.04 + (0.3 * uneven));
        Maybe("hole", 0.03 + (0.45 * uneven));
        Maybe("crack", 0.05 + (0.1 * uneven));
        Maybe("soup", 0.1 + (shot.ScreenIn ? 0 : 0.35));
        Maybe("water-past-piston", 0.02 + (shot.LeakShare > 0 ? 0.6 : 0));
        Maybe("soft-lever", 0.03 + (shot.SoftSeconds > 0 ? 0.6 : 0));
        return seen;
    }

    private sealed record Pulled(Trace Trace, double CupGrams, double SolidsGrams, double Seconds);

    private Pulled Pull(OtherShot shot, ulong seed, double? resistance = null)
    {
        var random = new SeededRandom(seed);
        var log = ((UsualSetting - shot.Setting) / Step * LogPerStep) + (PerDay * (shot.AgeDays - FirstAgeDays)) + shot.Unnoted;
        var puck = new OtherPuck(
            random,
            _coffee,
            shot.DoseGrams,
            (resistance ?? _resistance) * Math.Exp(log) * shot.DoseGrams / DoseGrams,
            shot.WaterC,
            Restrictor * shot.RestrictorTimes
        )
        {
            FrontHeldUp = shot.FrontHeldUp,
        };
        var spout = new OtherSpout(_spoutSeconds);
        var arm = new OtherArm(random, shot.Pulled, Machine, shot.YieldGrams);
        var gauge = new OtherGauge(random);
        var scale = new OtherScale(random, _scaleSeconds);
        List<double> at = [],
            bars = [],
            when = [],
            grams = [];
        double cup = 0,
            moved = 0,
            falls = 0,
            bar = 0;
        double? drops = null,
            over = null;
        var opened = false;
        var stopAt = shot.YieldGrams * (1 + shot.StopsOff);
        var most = CupVolumes.MostPuckMl(Machine);
        const double dt = World.StepSeconds;
        for (var step = 1; step * dt < LongestSeconds && !(over < (step * dt) - 6); step++)
        {
            var t = step * dt;
            if (cup + spout.Grams >= stopAt || moved >= most)
                over ??= t;
            if (t > over + ReactsSeconds)
                arm.LetGo();
            arm.Step(t, dt, cup, moved, falls / dt);
            var pressed = Math.Min(arm.PressureBar, shot.MostBar) * (1 - (0.35 * shot.LeakShare));
            bar = shot.SoftSeconds > 0 ? bar + ((pressed - bar) * dt / shot.SoftSeconds) : pressed;
            var before = puck.InflowMl;
            var left = puck.Step(bar, dt);
            // what goes past the seal has left the piston all the same
            moved += (puck.InflowMl - before) / (1 - shot.LeakShare);
            falls = spout.Pass(left, dt);
            cup += falls;
            if (cup > 0.3)
                drops ??= t;
            if (shot.Channels is { } channel && !opened && t > drops + channel.AfterDrops)
            {
                puck.Open(channel.Times);
                opened = true;
            }

            scale.See(t, cup);
            if (step % World.GaugeSteps == 0)
            {
                at.Add(t);
                bars.Add(gauge.Read(bar, World.GaugeSteps * dt));
            }

            if (step % World.ScaleSteps != 0)
                continue;
            when.Add(t);
            grams.Add(scale.Read(falls > 1e-4));
        }

        return new(
            new([new(Channel.Pressure, Origin.Measured, at, bars), new(Channel.Weight, Origin.Measured, when, grams)]),
            cup,
            puck.SolidsGrams,
            over ?? LongestSeconds
        );
    }

    /// <summary>The resistance at which its plan lands where it is meant to.</summary>
    private double DialIn()
    {
        double low = 0.4,
            high = 14;
        for (var i = 0; i < 9; i++)
        {
            var middle = Math.Sqrt(low * high);
            var seconds = Pull(new(this, UsualSetting, FirstAgeDays), 500_000, middle).Seconds;
            if (seconds < Plan.LandingSeconds.Best)
                low = middle;
            else
                high = middle;
        }

        return Math.Sqrt(low * high);
    }
}
