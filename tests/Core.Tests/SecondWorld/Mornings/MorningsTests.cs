using RuddySpring.Core.Machines;

namespace RuddySpring.Core.Tests.SecondWorld.Mornings;

/// <summary>The made-up mornings are what people know: healthy shots land, and faults show as people say that they do (common
/// practice). They were written before anything that reasons about a shot, and nothing in them is tuned.</summary>
public sealed class MorningsTests
{
    /// <summary>All nine kinds of bench.</summary>
    public static readonly IReadOnlyList<(MachineFamily Family, bool Restricted)> Kinds =
    [
        .. Enum.GetValues<MachineFamily>().Select(f => (f, false)),
        (MachineFamily.PortableLever, true),
    ];

    [Fact]
    public void Healthy_shots_land_and_taste_good()
    {
        var benches = Kinds.SelectMany(k => Enumerable.Range(1, 3).Select(s => (k, s))).AsParallel();
        Assert.All(benches.Select(b => new OtherBench(b.k.Family, b.k.Restricted, (ulong)b.s)).ToList(), bench =>
        {
            var shots = bench.Healthy(6);
            Assert.InRange(shots.Average(s => s.CupGrams - s.Shot.YieldGrams), -2, 3.5);
            Assert.InRange(shots.Average(s => s.Seconds), bench.Plan.LandingSeconds.Low, bench.Plan.LandingSeconds.High);
            Assert.InRange(shots.Average(s => s.Taste.Sour), 0, 2);
            Assert.InRange(shots.Average(s => s.Taste.Bitter), 0, 2);
        });
    }

    [Fact]
    public void Faults_show_as_people_say()
    {
        List<(OtherBench Bench, MadeShot Well)> benches =
        [
            .. Kinds
                .SelectMany(k => Enumerable.Range(1, 3).Select(s => (k, s)))
                .AsParallel()
                .AsOrdered()
                .Select(b => new OtherBench(b.k.Family, b.k.Restricted, (ulong)b.s))
                .Select(b => (b, b.With([], 1))),
        ];
        void Shows(string fault, Func<MadeShot, double> of, double least, double most) =>
            Assert.InRange(
                benches
                    .Where(b => Fault.Of(fault).Happens(b.Bench))
                    .Average(b => of(b.Bench.With([Fault.Of(fault)], 1)) - of(b.Well)),
                least,
                most
            );
        Shows("choked", s => s.Seconds, 20, 90);
        Shows("gusher", s => s.Seconds, -40, -10);
        Shows("preheat-forgotten", s => s.Taste.Sour, 0.6, 3);
        Shows("group-hot", s => s.Taste.Bitter, 0.3, 3);
        Shows("channel-puck", s => s.Seconds, -15, -2);
        Shows("channel-puck", s => s.Taste.Sour, 0.5, 3);
        Shows("pressed-to-the-end", s => s.Taste.Dry, 0.5, 3);
        Shows("ended-late", s => s.CupGrams, 4, 13);
        Shows("too-old", s => s.Seconds, -25, -4);
        Shows("too-fresh", s => s.Taste.Sour, 0.3, 3);
    }

    [Fact]
    public void The_same_seed_is_the_same_morning()
    {
        MadeShot Made() => new OtherBench(MachineFamily.HeatedGroup, false, 4).With([Fault.Of("channel-puck")], 9);
        var (a, b) = (Made(), Made());
        Assert.Equal(a.CupGrams, b.CupGrams);
        Assert.Equal(a.Taste, b.Taste);
    }
}
