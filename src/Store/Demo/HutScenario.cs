using RuddySpring.Core;
using RuddySpring.Core.Beans;
using RuddySpring.Core.Care;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Shots;
using RuddySpring.Core.Traces;
using RuddySpring.Store.Entities;

namespace RuddySpring.Store.Demo;

/// <summary>
/// The sample household, all made up: a mountain hut at 1640 m, three machines, two people, five weeks of shots. Every trace is
/// simulated by the core with instrument noise from a seed, and grind, age, heat and taste hang together as they would.
/// </summary>
public static class HutScenario
{
    private const int Days = 35;
    private const ulong Seed = 1640;

    /// <summary>
    /// Fills an empty database with the hut, its last shot pulled the day before <paramref name="nowUtc"/>: all of it, or nothing
    /// where it is interrupted.
    /// </summary>
    public static void Fill(RuddyContext context, DateTime nowUtc)
    {
        using var whole = context.Database.BeginTransaction();
        var random = new SeededRandom(Seed);
        var today = DateOnly.FromDateTime(nowUtc);
        context.Households.Add(
            new Household
            {
                Name = "Hut at the saddle",
                AltitudeMetres = 1640,
                AmbientC = 18,
                MadeUp = true,
            }
        );
        Brewer ilva = new() { Name = "Ilva" },
            tomo = new() { Name = "Tomo" };
        var portable = new BenchMachine
        {
            Name = "Pack lever",
            Spec = FamilyDefaults.Of(MachineFamily.PortableLever).Machine with
            {
                WillingForceKgf = 19,
                FrictionNewtons = 40,
                Reads = [Reads.Gauge, Reads.Scale],
            },
        };
        var dipper = new BenchMachine { Name = "Window dipper", Spec = HutSessions.DipperAsKnown };
        var spring = new BenchMachine { Name = "Hall spring", Spec = HutSessions.SpringAsKnown };
        var hand = new Grinder
        {
            Name = "Hand mill",
            ScaleUnit = "clicks",
            ZeroPoint = 0,
            RetentionGrams = 0.2,
            PurgeGrams = 1,
        };
        var bench = new Grinder
        {
            Name = "Bench mill",
            ScaleUnit = "marks",
            Step = 0.5,
            RetentionGrams = 3,
            PurgeGrams = 4,
        };
        Bag Beans(string name, string roaster, int daysOld, string level, string process, double? grams, bool finished = false) =>
            new()
            {
                Name = name,
                Roaster = roaster,
                RoastedOn = today.AddDays(-daysOld),
                RoastLevel = level,
                Finished = finished,
                Process = process,
                GramsLeft = grams,
            };
        var marmot = Beans("Marmot Whistle", "Ninth Switchback", 44, "medium", "washed", null, true);
        var gentian = Beans("Blue Gentian", "Scree and Lantern", 26, "light", "washed", 84);
        var ember = Beans("Stove Ember", "Ninth Switchback", 17, "dark", "natural", 131);
        var saddle = Beans("Saddle Wind", "Scree and Lantern", 11, "medium", "honey", 212);
        var straight = new BenchBasket
        {
            Name = "Straight 51",
            Spec = new()
            {
                DiameterMm = 51,
                DepthMm = 18.5,
                NominalDoseGrams = 15,
                Shape = BasketShape.Straight,
            },
        };
        var tapered = new BenchBasket
        {
            Name = "Old tapered 51",
            Spec = new()
            {
                DiameterMm = 51,
                DepthMm = 19.5,
                NominalDoseGrams = 15,
                Shape = BasketShape.Tapered,
                Ridged = true,
            },
        };
        var own = new OwnPlan
        {
            Plan = ShippedPlans.LongSoft with
            {
                Name = "Hut soft",
                Why = "Tomo's own: the long soft pull, kept under a name of his own to change from.",
            },
        };
        context.AddRange(
            ilva,
            tomo,
            portable,
            dipper,
            spring,
            hand,
            bench,
            marmot,
            gentian,
            ember,
            saddle,
            straight,
            tapered,
            own
        );
        context.SaveChanges();

        // the truth behind the bench, known to nobody in the hut: resistance at the reference setting for a 15 g puck
        var truths = new Dictionary<Bag, Truth>
        {
            [marmot] = new(6.2, 0.0),
            [gentian] = new(7.4, 0.5),
            [ember] = new(5.2, -0.6),
            [saddle] = new(6.4, 0.1),
        };
        var scales = new Dictionary<Grinder, GrinderScale> { [hand] = new(20, -0.075), [bench] = new(7, -0.22) };
        var habits = new Habit[]
        {
            new(ilva, portable, hand, 15, 32, ShippedPlans.EarlyPeak, 20.5),
            new(tomo, dipper, bench, 14, 28, ShippedPlans.FlatAndFirm, 7.0),
            new(ilva, spring, bench, 16, 32, ShippedPlans.FreeSpring, 7.5),
            new(tomo, portable, hand, 15, 33, ShippedPlans.LongSoft, 19) { Basket = straight, BasketFactor = 0.92 },
        };
        var settings = new Dictionary<(Habit, Bag), double>();
        var shots = new List<Shot>();

        for (var day = Days; day >= 1; day--)
        {
            var count = 1 + random.Below(3) / 2 + (day % 7 is 1 or 2 ? 1 : 0);
            var inRow = 0;
            for (var n = 0; n < count; n++)
            {
                var habit = habits[(day + (n * 2) + random.Below(2)) % habits.Length];
                var open = truths.Keys.Where(b => AgeOn(b, today.AddDays(-day)) is >= 4 and <= 30).ToList();
                if (open.Count == 0)
                    continue;
                var bag = open[random.Below(open.Count)];
                var setting = settings.GetValueOrDefault(
                    (habit, bag),
                    habit.Setting
                        + (
                            bag == ember ? 1.0
                            : bag == gentian ? -1.0
                            : 0.0
                        )
                );
                var pulledAt = nowUtc.Date.AddDays(-day).AddHours(5).AddMinutes(35 + (n * 9) + random.Below(20));
                var shot = Pull(random, habit, bag, truths[bag], scales[habit.Grinder], setting, pulledAt, inRow++);
                shots.Add(shot);
                settings[(habit, bag)] = NextSetting(habit, setting, shot.Measures.SecondsFromPressure ?? 0);
            }
        }

        HutSessions.Fill(context, dipper, random, nowUtc);
        CareDone Done(BenchMachine machine, string task, int daysAgo, string note = "") =>
            new()
            {
                Machine = machine,
                Task = task,
                DoneOn = today.AddDays(-daysAgo),
                Note = note,
            };
        context.CareDone.AddRange(
            Done(portable, CareList.Rinse, 4),
            Done(portable, CareList.Seal, 12, "silicone grease"),
            Done(dipper, CareList.Rinse, 20),
            Done(dipper, CareList.Seal, 31, "silicone grease"),
            Done(spring, CareList.Rinse, 9),
            Done(spring, CareList.Seal, 24),
            Done(spring, CareList.Descale, 60)
        );
        context.Shots.AddRange(shots.OrderBy(s => s.PulledAt));
        context.SaveChanges();
        whole.Commit();
    }

    private static int AgeOn(Bag bag, DateOnly day) => day.DayNumber - bag.RoastedOn.DayNumber;

    /// <summary>What people do: chase the time with the grind, a step at a time, and only when it is well off.</summary>
    private static double NextSetting(Habit habit, double setting, double seconds)
    {
        var step = habit.Grinder.Step;
        return seconds switch
        {
            > 55 => setting + step,
            > 0 and < 27 => setting - step,
            _ => setting,
        };
    }

    private static Shot Pull(
        SeededRandom random,
        Habit habit,
        Bag bag,
        Truth truth,
        GrinderScale scale,
        double setting,
        DateTime pulledAt,
        int inRow
    )
    {
        var age = AgeOn(bag, DateOnly.FromDateTime(pulledAt));
        var dose = Math.Round(habit.DoseGrams + random.Normal(0.1), 1);
        var spec = habit.Machine.Spec;
        // heat: the dipper's group climbs with each shot in a row; the portable is sometimes forgotten cold
        var forgotten = spec.Family == MachineFamily.PortableLever && random.Uniform() < 0.12;
        var waterC = spec.Family switch
        {
            MachineFamily.BoilerDirect => 90.5 + (2.5 * inRow) + random.Normal(0.7),
            MachineFamily.BoilerSpring => 91.5 + random.Normal(0.4),
            _ => (forgotten ? 74.0 : 86.5) + random.Normal(1.0),
        };
        var spread = Math.Clamp(0.12 + Math.Abs(random.Normal(0.09)), 0.05, 0.45);
        var resistance =
            scale.Resistance(setting, truth.AtReference)
            * Math.Exp((-0.011 * (age - 8)) + random.Normal(0.04))
            * (dose / 15.0)
            * habit.BasketFactor;
        var described = ShotConditions
            .Of(spec, HandOf(random, habit.Plan), dose, habit.YieldGrams + random.Normal(0.8), waterC, basket: habit.Basket?.Spec)
            .WithResistance(resistance) with
        {
            Behaviour = PuckBehaviour.Usual with { SwellSeconds = 6.0 + random.Normal(0.7) },
        };
        // how evenly each puck came out
        var truthShot = SimulatedShot.Pull(described with { Bed = described.Bed with { OwnLaneSpread = spread } }, 110);
        var shot = new Shot
        {
            PulledAt = pulledAt,
            Source = ShotSource.MadeUp,
            Brewer = habit.Brewer,
            Machine = habit.Machine,
            Bag = bag,
            Grinder = habit.Grinder,
            GrindSetting = setting,
            Basket = habit.Basket,
            Preparation = habit.Preparation,
            DoseGrams = dose,
            YieldGrams = habit.YieldGrams,
            WaterC = Math.Round(waterC + random.Normal(1.0), 1),
        };
        (shot.Taste, shot.Liking) = TasteOf(random, truthShot, waterC, truth.RoastBias, forgotten);
        ShotRecording.SetTrace(shot, habit.Plan, spec, habit.Basket?.Spec, Recorded(random, truthShot), Moments.None);
        return shot;
    }

    /// <summary>The same plan with each pressure a little off: no arm is exact.</summary>
    private static PullPlan HandOf(SeededRandom random, PullPlan plan) =>
        plan with
        {
            Phases = [.. plan.Phases.Select(p => p with { ToBar = Math.Clamp(p.ToBar + random.Normal(0.25), 0.5, 11) })],
        };

    private static Trace Recorded(SeededRandom random, SimulatedShot shot)
    {
        var gauge = new GaugeModel(random);
        var scale = new ScaleModel(random);
        List<double> seconds = [],
            pressure = [],
            weight = [];
        var last = shot.Samples[0];
        foreach (var sample in shot.Samples)
        {
            seconds.Add(Math.Round(sample.Seconds, 3));
            pressure.Add(Math.Max(0.0, gauge.Read(sample.PressureBar)));
            weight.Add(scale.Read(sample.CupGrams, sample.FlowGramsPerS, sample.Seconds - last.Seconds));
            last = sample;
        }

        // after the hand lets go: the pressure falls, the last drops fall
        for (var i = 1; i <= 25; i++)
        {
            seconds.Add(Math.Round(last.Seconds + (0.1 * i), 3));
            pressure.Add(Math.Max(0.0, gauge.Read(last.PressureBar * Math.Exp(-i / 3.0))));
            weight.Add(scale.Read(shot.CupGrams - ((shot.CupGrams - last.CupGrams) * Math.Exp(-i / 5.0)), 0.1, 0.1));
        }

        return new([
            new(Channel.Pressure, Origin.Measured, seconds, pressure),
            new(Channel.Weight, Origin.Measured, seconds, weight),
        ]);
    }

    private static (Taste Taste, int Liking) TasteOf(
        SeededRandom random,
        SimulatedShot shot,
        double waterC,
        double roastBias,
        bool forgotten
    )
    {
        int Scale(double value) => (int)Math.Clamp(Math.Round(value + random.Normal(0.35)), 0, 4);
        var extraction = shot.ExtractionShare * 100.0;
        var sour = Scale(1.0 + ((20.0 - extraction) * 0.5) + ((89.0 - waterC) * 0.12) + roastBias + (forgotten ? 1.0 : 0.0));
        var bitter = Scale(0.8 + ((extraction - 21.0) * 0.5) + ((waterC - 93.0) * 0.3) - roastBias);
        var dry = Scale(0.4 + (shot.ExtractionSpread * 60.0) + ((extraction - 22.5) * 0.4));
        var sweet = Scale(3.0 - (Math.Abs(extraction - 20.8) * 0.6) - (shot.ExtractionSpread * 30.0));
        var body = Scale((shot.Strength * 100.0 - 7.0) * 0.9);
        var liking = (int)
            Math.Clamp(
                Math.Round(
                    3.6
                        - (0.5 * sour)
                        - (0.5 * bitter)
                        - (0.4 * dry)
                        + (0.4 * sweet)
                        - (forgotten ? 0.8 : 0.0)
                        + random.Normal(0.4)
                ),
                1,
                5
            );
        string[] pleasant = ["round, cocoa", "honeyed, long finish", "dried apricot", "toffee, soft", "hazelnut, clean"];
        var words =
            forgotten ? "sharp, cold cylinder"
            : sour >= 3 ? "lemon pith, thin"
            : bitter >= 3 ? "ashy at the end"
            : dry >= 3 ? "dries the mouth"
            : liking >= 4 ? pleasant[random.Below(pleasant.Length)]
            : "fair, a little flat";
        return (
            new()
            {
                Sour = sour,
                Bitter = bitter,
                Dry = dry,
                Sweet = sweet,
                Body = body,
                Words = words,
            },
            liking
        );
    }

    private sealed record Truth(double AtReference, double RoastBias);

    private sealed record Habit(
        Brewer Brewer,
        BenchMachine Machine,
        Grinder Grinder,
        double DoseGrams,
        double YieldGrams,
        PullPlan Plan,
        double Setting
    )
    {
        public BenchBasket? Basket { get; init; }

        public double BasketFactor { get; init; } = 1;

        public Preparation Preparation =>
            new(
                Misted: Brewer.Name == "Tomo",
                Stirred: true,
                Tapped: true,
                TampKgf: Brewer.Name == "Ilva" ? 4 : 9,
                Cover: PuckCover.Screen
            );
    }
}
