using RuddySpring.Core.Machines;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Shots;

namespace RuddySpring.Core.Reasoning;

/// <summary>What two shots can differ in.</summary>
public enum DifferenceGroup
{
    /// <summary>The water's temperature at the puck.</summary>
    Heat,

    /// <summary>Days from roast.</summary>
    Age,

    /// <summary>Dose.</summary>
    Dose,

    /// <summary>The grinder's setting.</summary>
    Grind,

    /// <summary>Basket.</summary>
    Basket,

    /// <summary>Preparation as it was noted.</summary>
    Preparation,

    /// <summary>The pressure that was pressed, and when.</summary>
    Arm,

    /// <summary>How much was drawn.</summary>
    Cup,

    /// <summary>Machine.</summary>
    Machine,

    /// <summary>What the coffee resisted beyond all that: another coffee, or a puck that was not like the other.</summary>
    Puck,
}

/// <summary>One of two shots, as far as the model can swap its parts.</summary>
public sealed record ShotSide
{
    /// <summary>The shot as its sheet has it, with the resistivity that its puck told, or else was expected to have.</summary>
    public required ShotConditions Shot { get; init; }

    /// <summary>What the arm did; null where no gauge told, so that its plan is taken.</summary>
    public ArmRecord? Arm { get; init; }

    /// <summary>What stood in the cup, g.</summary>
    public required double CupGrams { get; init; }

    /// <summary>On the grinder's scale; null where nobody noted it.</summary>
    public double? GrindSetting { get; init; }

    /// <summary>Days from roast; null likewise.</summary>
    public double? AgeDays { get; init; }

    /// <summary>Whatever tells one coffee on one grinder from another.</summary>
    public required string Coffee { get; init; }

    /// <summary>Whatever tells one machine from another.</summary>
    public required string Machine { get; init; }

    /// <summary>What was measured, in the order of <see cref="ShotDifference.Quantities"/>; null where nothing told.</summary>
    public required IReadOnlyList<double?> Measured { get; init; }
}

/// <summary>What a unit of the grinder and a day of the bag do to the logarithm of the resistivity, with one standard
/// deviation.</summary>
public sealed record GrindEffects(double PerUnit, double PerUnitSd, double PerDay, double PerDaySd);

/// <summary>What one group explains of a difference.</summary>
/// <param name="Group">Which.</param>
/// <param name="Name">In words.</param>
/// <param name="By">By how much, in the quantity's unit.</param>
/// <param name="Low">Eight in ten of the draws lie above this.</param>
/// <param name="High">And below this.</param>
public sealed record DifferencePart(DifferenceGroup Group, string Name, double By, double Low, double High);

/// <summary>One quantity that differs.</summary>
/// <param name="Name">Which.</param>
/// <param name="Unit">Of its numbers.</param>
/// <param name="Digits">Decimals that say something.</param>
/// <param name="A">Of the first shot: measured where something told, else the model's.</param>
/// <param name="B">Of the second.</param>
/// <param name="Parts">What each group explains, most first; only those in which the two differ.</param>
/// <param name="Unexplained">What is left: the parts and this are the whole difference.</param>
public sealed record ExplainedQuantity(
    string Name,
    string Unit,
    int Digits,
    double A,
    double B,
    IReadOnlyList<DifferencePart> Parts,
    double Unexplained
);

/// <summary>
/// Why two shots differ: the model is run with one group of conditions of the first after another put in place of the second's,
/// and each group's part is the mean over all orders (Shapley 1953, A value for n-person games), so that parts and rest add up to
/// the whole and swapping the two shots turns every sign. Bands are the same over draws of what is not known: what a step of the
/// grinder and a day do, how the coffee compacts and erodes.
/// </summary>
/// <param name="Explained">Quantity by quantity.</param>
/// <param name="FromPlans">Whether a pull without a gauge was taken to have followed its plan.</param>
public sealed record ShotDifference(IReadOnlyList<ExplainedQuantity> Explained, bool FromPlans)
{
    /// <summary>Quantities that are explained: name, unit, decimals.</summary>
    public static readonly IReadOnlyList<(string Name, string Unit, int Digits)> Quantities =
    [
        ("Time", "s", 1),
        ("Mean flow", "g/s", 2),
        ("Strength", "%", 1),
        ("Extraction", "%", 1),
        ("R10", "bar s/ml", 1),
    ];

    private const double LongestSeconds = 200;
    private const double SameKelvin = 0.5;
    private const double SameGrams = 0.15;
    private const double SameDays = 0.5;
    private const double WaterSdK = 2.5;
    private const double Edge = 0.1;
    private const int ManyGroups = 5;

    private sealed record Unknowns(double PerUnit, double PerDay, double Compaction, double Eroded, double HeatA, double HeatB)
    {
        public static Unknowns Middle(GrindEffects grind) => new(grind.PerUnit, grind.PerDay, 0, 0, 0, 0);
    }

    /// <summary>Explains a difference.</summary>
    /// <param name="a">From this shot.</param>
    /// <param name="b">To this one.</param>
    /// <param name="grind">What grinder and age do, as this household's shots told.</param>
    /// <param name="random">For the draws; the same seed gives the same bands.</param>
    /// <param name="draws">How many, 5 or more.</param>
    public static ShotDifference Of(ShotSide a, ShotSide b, GrindEffects grind, SeededRandom random, int draws = 12)
    {
        var groups = Differing(a, b);
        var middle = Parts(a, b, groups, Unknowns.Middle(grind));
        var some = groups.Count > ManyGroups ? Math.Max(5, draws / 3) : draws;
        var seen = Enumerable
            .Range(0, groups.Count == 0 ? 0 : some)
            .Select(_ => new Unknowns(
                grind.PerUnit + random.Normal(grind.PerUnitSd),
                grind.PerDay + random.Normal(grind.PerDaySd),
                random.Normal(PuckUnknown.Compaction.SdLog),
                random.Normal(PuckUnknown.Eroded.SdLog),
                random.Normal(WaterSdK),
                random.Normal(WaterSdK)
            ))
            .ToList()
            .AsParallel()
            .AsOrdered()
            .Select(u => Parts(a, b, groups, u))
            .ToList();
        var explained = Quantities.Select(
            (q, k) =>
            {
                var (fromA, fromB) = (a.Measured[k] ?? middle.Ends[k].A, b.Measured[k] ?? middle.Ends[k].B);
                var parts = groups
                    .Select(
                        (g, i) =>
                        {
                            var part = middle.By[i][k];
                            var over = seen.Select(s => s.By[i][k]).Order().ToList();
                            var (low, high) = (
                                over[(int)(Edge * (over.Count - 1))],
                                over[(int)Math.Ceiling((1 - Edge) * (over.Count - 1))]
                            );
                            var doubt = Doubts(k, g, part);
                            return new DifferencePart(
                                g,
                                Words(g, a.Coffee == b.Coffee),
                                part,
                                part - Math.Sqrt(Math.Pow(Math.Max(0, part - low), 2) + (doubt * doubt)),
                                part + Math.Sqrt(Math.Pow(Math.Max(0, high - part), 2) + (doubt * doubt))
                            );
                        }
                    )
                    .OrderByDescending(p => Math.Abs(p.By))
                    .ToList();
                return new ExplainedQuantity(q.Name, q.Unit, q.Digits, fromA, fromB, parts, fromB - fromA - parts.Sum(p => p.By));
            }
        );
        return new([.. explained], a.Arm is null || b.Arm is null);
    }

    /// <summary>
    /// What the model's own shape leaves open of a part, beyond its numbers: half the width of eight in ten. Set where the truth
    /// is known, on pucks of other physics; of solids the model knows least.
    /// </summary>
    private static double Doubts(int quantity, DifferenceGroup group, double part)
    {
        var (share, least) = quantity switch
        {
            0 => group == DifferenceGroup.Arm ? (0.8, 2.5) : (0.35, 0.8),
            1 => group == DifferenceGroup.Arm ? (0.8, 0.15) : (0.35, 0.05),
            4 => (0, 0.1),
            _ => (2.0, 0.5),
        };
        return (share * Math.Abs(part)) + least;
    }

    private static string Words(DifferenceGroup group, bool sameCoffee) =>
        group switch
        {
            DifferenceGroup.Heat => "Heat of the water",
            DifferenceGroup.Age => "Age of the beans",
            DifferenceGroup.Grind => "Grind setting",
            DifferenceGroup.Arm => "The arm",
            DifferenceGroup.Cup => "Size of the cup",
            DifferenceGroup.Puck => sameCoffee ? "The puck itself" : "The other coffee",
            _ => group.ToString(),
        };

    /// <summary>Groups in which two shots differ by more than people can set or read.</summary>
    private static List<DifferenceGroup> Differing(ShotSide a, ShotSide b)
    {
        var groups = new List<DifferenceGroup>();
        void Add(DifferenceGroup group, bool differs)
        {
            if (differs)
                groups.Add(group);
        }

        Add(DifferenceGroup.Heat, Math.Abs(a.Shot.Water.StartC() - b.Shot.Water.StartC()) > SameKelvin);
        Add(DifferenceGroup.Age, Math.Abs((a.AgeDays - b.AgeDays) ?? 0) > SameDays && a.Coffee == b.Coffee);
        Add(DifferenceGroup.Dose, Math.Abs(a.Shot.Bed.DoseGrams - b.Shot.Bed.DoseGrams) > SameGrams);
        Add(DifferenceGroup.Grind, ((a.GrindSetting - b.GrindSetting) ?? 0) != 0 && a.Coffee == b.Coffee);
        Add(DifferenceGroup.Basket, a.Shot.Bed.Basket != b.Shot.Bed.Basket);
        Add(DifferenceGroup.Preparation, Math.Abs(a.Shot.Bed.LaneSpread - b.Shot.Bed.LaneSpread) > 1e-3);
        Add(DifferenceGroup.Arm, !ReferenceEquals(a.Arm, b.Arm) || a.Shot.Plan != b.Shot.Plan);
        Add(DifferenceGroup.Cup, Math.Abs(a.CupGrams - b.CupGrams) > SameGrams);
        Add(DifferenceGroup.Machine, a.Machine != b.Machine);
        Add(DifferenceGroup.Puck, true);
        return groups;
    }

    private sealed record Whole(double[][] By, (double A, double B)[] Ends);

    /// <summary>Each group's part, by all subsets of groups once.</summary>
    private static Whole Parts(ShotSide a, ShotSide b, List<DifferenceGroup> groups, Unknowns unknown)
    {
        var n = groups.Count;
        var runs = new double[1 << n][];
        for (var set = 0; set < runs.Length; set++)
        {
            var from = set;
            // what differs by less than people can set or read goes with the puck, so that both ends are the shots themselves
            runs[set] = Run(
                a,
                b,
                g => (from & (1 << groups.IndexOf(groups.Contains(g) ? g : DifferenceGroup.Puck))) != 0,
                unknown
            );
        }

        var by = new double[n][];
        for (var i = 0; i < n; i++)
        {
            by[i] = new double[Quantities.Count];
            for (var set = 0; set < runs.Length; set++)
            {
                if ((set & (1 << i)) != 0)
                    continue;
                var size = System.Numerics.BitOperations.PopCount((uint)set);
                var weight = Factorial(size) * Factorial(n - size - 1) / Factorial(n);
                for (var k = 0; k < Quantities.Count; k++)
                    by[i][k] += weight * (runs[set | (1 << i)][k] - runs[set][k]);
            }
        }

        return new(by, [.. Quantities.Select((_, k) => (runs[0][k], runs[^1][k]))]);
    }

    private static double Factorial(int n) => n < 2 ? 1 : n * Factorial(n - 1);

    /// <summary>The model's quantities of a shot put together from both.</summary>
    private static double[] Run(ShotSide a, ShotSide b, Func<DifferenceGroup, bool> second, Unknowns unknown)
    {
        ShotSide Of(DifferenceGroup g) => second(g) ? b : a;
        // what setting and age explain of the resistivity, about the first shot's; the rest is the puck's own
        var grind = a.Coffee == b.Coffee ? unknown.PerUnit * ((b.GrindSetting - a.GrindSetting) ?? 0) : 0;
        var age = a.Coffee == b.Coffee ? unknown.PerDay * ((b.AgeDays - a.AgeDays) ?? 0) : 0;
        var puck = Math.Log(b.Shot.Bed.Resistivity / a.Shot.Bed.Resistivity) - grind - age;
        var log =
            Math.Log(a.Shot.Bed.Resistivity)
            + (second(DifferenceGroup.Grind) ? grind : 0)
            + (second(DifferenceGroup.Age) ? age : 0)
            + (second(DifferenceGroup.Puck) ? puck : 0);
        var behaviour = Of(DifferenceGroup.Puck).Shot.Behaviour;
        var arm = Of(DifferenceGroup.Arm);
        var bed = a.Shot.Bed with
        {
            Resistivity = Math.Exp(log),
            DoseGrams = Of(DifferenceGroup.Dose).Shot.Bed.DoseGrams,
            Basket = Of(DifferenceGroup.Basket).Shot.Bed.Basket,
            OwnLaneSpread = Of(DifferenceGroup.Preparation).Shot.Bed.LaneSpread,
        };
        var heat = Of(DifferenceGroup.Heat);
        var shot = a.Shot with
        {
            Bed = bed,
            Behaviour = behaviour with
            {
                CompactionPerBar = behaviour.CompactionPerBar * Math.Exp(unknown.Compaction),
                ErodedTo = Math.Min(0.98, behaviour.ErodedTo * Math.Exp(unknown.Eroded)),
            },
            Water = heat.Shot.Water.Shifted(second(DifferenceGroup.Heat) ? unknown.HeatB : unknown.HeatA).Within(20, 100),
            // what was learned of spout and scale goes with the puck that it was learned from
            Path = Of(DifferenceGroup.Puck).Shot.Path,
            Machine = Of(DifferenceGroup.Machine).Shot.Machine,
            Plan = arm.Shot.Plan,
            YieldGrams = Of(DifferenceGroup.Cup).CupGrams,
        };
        shot = shot.WithResistance(PuckParameters.Resistance.Nearest(shot.Bed.ResistanceBarSPerMl));
        return Quantify(shot, arm.Arm);
    }

    private static double[] Quantify(ShotConditions shot, ArmRecord? arm)
    {
        var run = new ShotRun(shot);
        IDrive drive = arm is not null
            ? new RecordedArm(arm)
            : new PlanDrive(new(shot.Plan, shot.YieldGrams, Strokes.VolumeMl(shot.Machine)), shot.Machine);
        while (run.Seconds < LongestSeconds && run.Stream.LeftPuckGrams < shot.YieldGrams)
            run.Step(drive, ShotRun.UsualStepSeconds);
        var flowing = run.Seconds - (run.FirstDropsSeconds ?? run.Seconds);
        return
        [
            run.Seconds,
            flowing > 0.1 ? run.Stream.LeftPuckGrams / flowing : 0,
            100 * run.Puck.Strength,
            100 * run.Puck.ExtractionShare,
            shot.Bed.ResistanceBarSPerMl
                * FlowResistance.Compaction(PuckBehaviour.Usual, Traces.GrindResistance.ReferenceBar)
                * Math.Exp(-shot.Behaviour.OverR10),
        ];
    }
}
