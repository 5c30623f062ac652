using System.Globalization;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Reasoning;
using RuddySpring.Core.Shots;

namespace RuddySpring.Core.Tests.SecondWorld.Mornings;

/// <summary>Why two shots differ, judged where it is known: in the second world each thing can truly be swapped by
/// itself.</summary>
public sealed class DifferenceTests(ITestOutputHelper output)
{
    private sealed record Change(DifferenceGroup Group, Action<OtherShot> Does);

    private static readonly DifferenceGroup[] s_swapped =
    [
        DifferenceGroup.Heat,
        DifferenceGroup.Dose,
        DifferenceGroup.Grind,
        DifferenceGroup.Arm,
        DifferenceGroup.Cup,
    ];

    /// <summary>Two or three things that are done otherwise in the second shot.</summary>
    private static List<Change> Changes(OtherBench bench, SeededRandom random)
    {
        Change Of(DifferenceGroup group) =>
            group switch
            {
                DifferenceGroup.Heat when random.Uniform(-10, 4) is var k => new(group, s => s.WaterC += k),
                DifferenceGroup.Dose when (random.Uniform() < 0.5 ? 1.0 : -1.0) is var g => new(group, s => s.Dose(g)),
                DifferenceGroup.Grind when random.Uniform(1.5, 4.5) * (random.Uniform() < 0.5 ? 1 : -1) is var steps => new(
                    group,
                    s => s.Grind(Math.Round(steps) * bench.LogPerStep, noted: true)
                ),
                DifferenceGroup.Arm when random.Uniform(0.72, 0.9) is var softer => new(group, s =>
                    s.PullBy(bench.Plan.Scaled(softer))
                ),
                DifferenceGroup.Cup when random.Uniform(-0.2, 0.2) is var off => new(group, s => s.StopsOff = off),
                _ => throw new InvalidOperationException(),
            };
        var left = s_swapped.ToList();
        return
        [
            .. Enumerable
                .Range(0, 2 + random.Below(2))
                .Select(_ =>
                {
                    var group = left[random.Below(left.Count)];
                    left.Remove(group);
                    return Of(group);
                }),
        ];
    }

    private static MadeShot Pull(OtherBench bench, IEnumerable<Change> changes, ulong seed)
    {
        var shot = new OtherShot(bench, OtherBench.UsualSetting, bench.FirstAgeDays + 3);
        foreach (var change in changes)
            change.Does(shot);
        return bench.Make(shot, seed);
    }

    /// <summary>Time and extraction of a shot.</summary>
    private static double[] Truth(MadeShot s) => [s.Seconds, 100 * s.SolidsGrams / s.Shot.DoseGrams];

    private static ShotSide Side(SeenBench seen, MadeShot made)
    {
        var facts = seen.Facts(made);
        var (bench, measures) = (seen.Bench, facts.Reading!.Measures);
        var sheet = facts.Sheet with
        {
            Bed = facts.Sheet.Bed with { DoseGrams = made.Shot.DoseGrams },
            Water = WaterCourse.Steady(made.Shot.WaterC),
        };
        var rho = GrindResistivity.Of(measures.R10!.Value * Thicker(made, bench), made.Shot.DoseGrams, bench.Basket);
        var (clean, moments) = facts.Reading.SinceLever;
        return new()
        {
            Shot = GrindResistivity.With(sheet, rho),
            Arm = ArmRecord.Of(clean, moments),
            CupGrams = measures.CupGrams!.Value,
            GrindSetting = made.Shot.Setting,
            AgeDays = made.Shot.AgeDays,
            Coffee = "one",
            Machine = "one",
            Measured = [made.Seconds, measures.MeanFlowGramsPerS, null, null, measures.R10],
        };
    }

    // R10 was read with the usual water's viscosity; here the water is known
    private static double Thicker(MadeShot made, OtherBench bench) =>
        Core.Puck.FlowResistance.Thermal(bench.WaterC) / Core.Puck.FlowResistance.Thermal(made.Shot.WaterC);

    [Fact] // asked for: within a fifth, or in the stated band, nine in ten
    public void Parts_come_back_as_they_truly_are()
    {
        var told = Suite
            .Benches(World.Whole ? [1, 3, 5] : [1])
            .Where(b => b.Bench.Restrictor == 0)
            .AsParallel()
            .AsOrdered()
            .SelectMany((seen, n) => Enumerable.Range(0, 3).SelectMany(k => Told(seen, (ulong)((n * 10) + k))))
            .ToList();
        foreach (var g in told.GroupBy(t => (t.Group, t.Quantity)))
            output.WriteLine(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{g.Key.Group} {g.Key.Quantity}: within {100.0 * g.Count(t => t.Within) / g.Count():0} of 100 "
                        + $"({g.Count()}), said over true {g.Sum(t => t.Said * t.True) / g.Sum(t => t.True * t.True):0.00}, off by {g.Average(t => Math.Abs(t.Said - t.True)):0.0} where it is {g.Average(t => Math.Abs(t.True)):0.0}"
                )
            );
        var share = told.Count(t => t.Within) / (double)told.Count;
        output.WriteLine(
            FormattableString.Invariant($"{share * 100:0} of 100 parts within a fifth or their band ({told.Count})")
        );
        Assert.True(share >= 0.9);
    }

    private static IEnumerable<(DifferenceGroup Group, string Quantity, double Said, double True, bool Within)> Told(
        SeenBench seen,
        ulong seed
    )
    {
        var bench = seen.Bench;
        var changes = Changes(bench, new SeededRandom(seed + 77));
        var (a, b) = (Pull(bench, [], 300 + seed), Pull(bench, changes, 300 + seed));
        var said = ShotDifference.Of(Side(seen, a), Side(seen, b), seen.Grinder, new SeededRandom(seed), 16);
        // the true parts: every set of changes, over a few pucks
        var n = changes.Count;
        var runs = Enumerable
            .Range(0, 1 << n)
            .Select(set =>
                Enumerable
                    .Range(0, 3)
                    .Select(k =>
                        Truth(Pull(bench, changes.Where((_, i) => (set & (1 << i)) != 0), 300 + seed + (ulong)(1000 * k)))
                    )
                    .Aggregate((x, y) => [x[0] + y[0], x[1] + y[1]])
                    .Select(v => v / 3)
                    .ToArray()
            )
            .ToArray();
        double Factorial(int m) => m < 2 ? 1 : m * Factorial(m - 1);
        foreach (var (q, name) in new[] { (0, "Time"), (1, "Extraction") })
        {
            for (var i = 0; i < n; i++)
            {
                var truth = 0.0;
                for (var set = 0; set < runs.Length; set++)
                {
                    if ((set & (1 << i)) != 0)
                        continue;
                    var size = System.Numerics.BitOperations.PopCount((uint)set);
                    truth += Factorial(size) * Factorial(n - size - 1) / Factorial(n) * (runs[set | (1 << i)][q] - runs[set][q]);
                }

                var part = said.Explained.Single(e => e.Name == name).Parts.SingleOrDefault(p => p.Group == changes[i].Group);
                var by = part?.By ?? 0;
                var within =
                    Math.Abs(by - truth) <= 0.2 * Math.Abs(truth)
                    || (part is not null && truth >= part.Low && truth <= part.High);
                yield return (changes[i].Group, name, by, truth, within);
            }
        }
    }

    [Fact]
    public void Parts_and_rest_are_the_whole_and_turn_their_signs_when_the_shots_are_swapped()
    {
        var seen = new SeenBench((MachineFamily.PortableLever, false), 3);
        var changes = Changes(seen.Bench, new SeededRandom(5));
        var (a, b) = (Side(seen, Pull(seen.Bench, [], 1)), Side(seen, Pull(seen.Bench, changes, 2)));
        var there = ShotDifference.Of(a, b, seen.Grinder, new SeededRandom(1), 5);
        var back = ShotDifference.Of(b, a, seen.Grinder, new SeededRandom(1), 5);
        Assert.All(there.Explained, (e, i) =>
        {
            Assert.Equal(e.B - e.A, e.Parts.Sum(p => p.By) + e.Unexplained, 9);
            Assert.All(e.Parts, p => Assert.Equal(-p.By, back.Explained[i].Parts.Single(o => o.Group == p.Group).By, 6));
        });
    }
}
