using RuddySpring.Core.Dialing;
using RuddySpring.Core.Heat;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Reasoning;
using RuddySpring.Core.Shots;
using RuddySpring.Core.Traces;

namespace RuddySpring.Core.Tests.SecondWorld.Mornings;

/// <summary>A household with its healthy first shots, as the core sees it.</summary>
public sealed class SeenBench
{
    private const int Days = 6;
    private readonly IReadOnlyList<ShotFacts> _earlier;
    private readonly GrindAdvice _advice;

    /// <summary>By chance.</summary>
    public SeenBench((MachineFamily Family, bool Restricted) kind, ulong seed, int shots = Days)
    {
        Bench = new(kind.Family, kind.Restricted, seed);
        var healthy = Bench.Healthy(shots);
        First = [.. healthy.Select(s => Learned(s, 1)).OfType<GrindShot>()];
        _advice = GrindAdvice.Learn(new(Bench.Step, true), First);
        _earlier = [.. healthy.Reverse().Select(s => Facts(s, [], _advice, 1))];
    }

    /// <summary>The household itself.</summary>
    public OtherBench Bench { get; }

    /// <summary>What is known of a shot here.</summary>
    public ShotFacts Facts(MadeShot made) => Facts(made, _earlier, _advice, 1);

    /// <summary>Its first shots, as the grind is learned from them.</summary>
    public IReadOnlyList<GrindShot> First { get; }

    /// <summary>A shot as the grind is learned from it; null where it told no resistance.</summary>
    public GrindShot? Learned(MadeShot made, int bag) =>
        Read(made).Measures.R10 is { } r10 ? Learned(made, r10) with { Bag = bag } : null;

    /// <summary>What its first shots told of its grinder.</summary>
    public GrindEffects Grinder =>
        new(_advice.PerUnit, Math.Abs(_advice.PerUnit) * _advice.SlopeUncertainty, _advice.PerDay, 0.004);

    private GrindShot Learned(MadeShot s, double r10) =>
        new(1, 1, s.Shot.Setting, s.Shot.AgeDays, Bench.DoseGrams, GrindResistivity.Of(r10, Bench.DoseGrams, Bench.Basket));

    private ShotReading Read(MadeShot made) =>
        MeasureShot.Read(
            made.Trace,
            Moments.None,
            new(Bench.DoseGrams, Bench.WaterC, Bench.Machine.HasBoiler, Bench.Plan.WaitsFirst, Bench.Restrictor > 0)
        );

    /// <summary>The same after other shots, of another bag.</summary>
    public ShotFacts Facts(MadeShot made, IReadOnlyList<ShotFacts> earlier, GrindAdvice advice, int bag) =>
        new()
        {
            Sheet = Bench.Sheet(made.Shot),
            Reading = Read(made),
            Expected =
                Bench.Restrictor > 0 || earlier.Count == 0
                    ? null
                    : advice.Predict(bag, 1, made.Shot.Setting, made.Shot.AgeDays, Bench.DoseGrams),
            Grind = new(made.Shot.Setting, "clicks", new(Bench.Step, true), advice.PerUnit),
            Roast = Bench.Roast,
            AgeDays = made.Shot.AgeDays,
            GroupC = made.GroupC,
            Band = Bench.Machine.HasBoiler ? GroupBand.Of(HeatConstants.Of(Bench.Machine)) : null,
            InARow = made.Shot.InARow,
            BoilerBar = made.BoilerBar,
            Ticked = new(made.Preheated, made.Bled, made.Purged, made.ScreenIn),
            ScreenBelongs = Bench.HasScreen,
            OtherCoffeeBefore = made.Shot.OtherCoffeeBefore,
            Taste = new(made.Taste.Sour, made.Taste.Bitter, made.Taste.Dry, made.Taste.Sweet, made.Taste.Body, made.Taste.Liking),
            Seen = made.Tapped?.Select(Tapped).ToHashSet(),
            Strength = made.Strength,
            Earlier = earlier,
        };

    private static Seen Tapped(string what) =>
        Enum.Parse<Seen>(what.Replace("-", "", StringComparison.Ordinal), ignoreCase: true);
}

/// <summary>A shot with what truly was wrong and what the core says.</summary>
/// <param name="Faults">Keys of its causes; empty for a healthy one.</param>
/// <param name="Key">Of the fault by itself; empty for a healthy one.</param>
/// <param name="Seed">Its chance.</param>
public sealed record Judged(SeenBench Bench, MadeShot Made, IReadOnlyList<string> Faults, Diagnosis Said, string Key, ulong Seed)
{
    /// <summary>What stands first: a cause, or nothing.</summary>
    public string First => Said.Causes.Count == 0 || Said.Nothing >= Said.Causes[0].Probability ? "nothing" : Said.Causes[0].Key;

    /// <summary>Whether a true one stands among the first so many.</summary>
    public bool Among(int count) =>
        Faults.Count == 0 ? First == "nothing" : Said.Causes.Take(count).Any(c => Faults.Contains(c.Key));

    /// <summary>Whether a true one stands first.</summary>
    public bool Right => Faults.Count == 0 ? First == "nothing" : Faults.Contains(First);
}

/// <summary>The whole suite, or a part of it.</summary>
public static class Suite
{
    /// <summary>Households a kind of bench; even seeds are for setting constants, odd ones for judging.</summary>
    public static IReadOnlyList<SeenBench> Benches(IEnumerable<ulong> seeds, int shots = 6) =>
        [
            .. seeds
                .SelectMany(s => MorningsTests.Kinds.Select(k => (k, s)))
                .AsParallel()
                .AsOrdered()
                .Select(b => new SeenBench(b.k, b.s, shots)),
        ];

    /// <summary>So many shots of each fault, of each pair, and healthy ones.</summary>
    public static IReadOnlyList<Judged> Of(
        IReadOnlyList<SeenBench> benches,
        int each,
        int healthy,
        Func<ShotFacts, ShotFacts>? known = null
    )
    {
        List<IReadOnlyList<Fault>> what =
        [
            .. Fault.All.Select(f => new[] { f }),
            .. Fault.Pairs.Select(p => new[] { Fault.Of(p.First), Fault.Of(p.Second) }),
        ];
        var shots = what.SelectMany(faults =>
            {
                var fit = benches.Where(b => faults.All(f => f.Happens(b.Bench))).ToList();
                return Enumerable.Range(0, each).Select(n => (Bench: fit[n % fit.Count], Faults: faults, Seed: (ulong)(100 + n)));
            })
            .Concat(
                Enumerable
                    .Range(0, healthy)
                    .Select(n => (Bench: benches[n % benches.Count], Faults: (IReadOnlyList<Fault>)[], Seed: (ulong)(5000 + n)))
            );
        return
        [
            .. shots
                .AsParallel()
                .AsOrdered()
                .Select(s =>
                {
                    var made = s.Bench.Bench.With(s.Faults, s.Seed);
                    var facts = s.Bench.Facts(made);
                    return new Judged(
                        s.Bench,
                        made,
                        [.. s.Faults.Select(f => f.Cause)],
                        Diagnosis.Of(known?.Invoke(facts) ?? facts),
                        s.Faults.Count > 0 ? s.Faults[0].Key : "",
                        s.Seed
                    );
                }),
        ];
    }
}
