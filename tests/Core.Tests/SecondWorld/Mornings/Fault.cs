using RuddySpring.Core.Machines;

namespace RuddySpring.Core.Tests.SecondWorld.Mornings;

/// <summary>What goes wrong with one shot of a household. The numbers were set once and are not tuned.</summary>
/// <param name="Key">What it is.</param>
/// <param name="Happens">Whether it can, on this bench.</param>
/// <param name="Does">What it does to the shot that is about to be pulled.</param>
public sealed record Fault(string Key, Func<OtherBench, bool> Happens, Action<OtherShot, SeededRandom> Does)
{
    private static bool Kettle(OtherBench b) => !b.Machine.HasBoiler;

    private static bool Boiler(OtherBench b) => b.Machine.HasBoiler;

    private static bool Lever(OtherBench b) => b.Machine.PressureBy == PressureBy.Arm;

    private static bool Bare(OtherBench b) => b.Restrictor == 0;

    /// <summary>Every fault by itself.</summary>
    public static readonly IReadOnlyList<Fault> All =
    [
        new("preheat-forgotten", Kettle, (s, r) => (s.WaterC, s.Preheated) = (s.WaterC - r.Uniform(10, 20), r.Uniform() < 0.08)),
        new("group-hot", Boiler, (s, r) => s.Group(s.Bench.BandMiddleC + r.Uniform(13, 20), inARow: 4)),
        new("group-cool", Boiler, (s, r) => s.Group(s.Bench.BandMiddleC - r.Uniform(13, 22), inARow: 0)),
        new("air-in-boiler", Boiler, (s, r) => (s.WaterC, s.Bled) = (s.WaterC - r.Uniform(10, 18), r.Uniform() < 0.08)),
        new("boiler-low", Boiler, (s, r) => s.Boiler(r.Uniform(0.4, 0.65))),
        new("too-fresh", Bare, (s, r) => s.Age(r.Uniform(1, 3.4))),
        new("too-old", Bare, (s, r) => s.Age(r.Uniform(34, 50))),
        new(
            "channel-ramp",
            b => Bare(b) && Lever(b),
            (s, r) =>
            {
                s.FastRamp();
                s.Channel(afterDrops: r.Uniform(2, 6), times: r.Uniform(3, 6));
            }
        ),
        new("channel-puck", Bare, (s, r) => s.Channel(afterDrops: r.Uniform(2, 9), times: r.Uniform(3, 6))),
        new("grind-fine", Bare, (s, r) => s.Grind(r.Uniform(0.25, 0.45), noted: true)),
        new("grind-coarse", Bare, (s, r) => s.Grind(-r.Uniform(0.25, 0.45), noted: true)),
        new("choked", Bare, (s, r) => s.Grind(r.Uniform(0.8, 1.2), noted: r.Uniform() < 0.6)),
        new("gusher", Bare, (s, r) => s.Grind(-r.Uniform(0.7, 1.0), noted: r.Uniform() < 0.6)),
        new("ended-late", _ => true, (s, r) => s.StopsOff = r.Uniform(0.15, 0.3)),
        new("ended-early", _ => true, (s, r) => s.StopsOff = -r.Uniform(0.15, 0.3)),
        new("screen-forgotten", b => b.HasScreen, (s, r) => s.NoScreen(r.Uniform(1.4, 2.2))),
        new("restrictor-clogged", b => !Bare(b), (s, r) => s.RestrictorTimes = r.Uniform(2.2, 4)),
        new("air-under-piston", b => Kettle(b) && Lever(b), (s, r) => s.Air(r.Uniform(2, 4))),
        new("seal-leaking", b => Lever(b), (s, r) => s.Leak(r.Uniform(0.2, 0.35))),
        new("dose-off", Bare, (s, r) => s.Dose(r.Uniform() < 0.5 ? 1.0 : -1.0)),
        new("preinfusion-short", b => Bare(b) && Lever(b), (s, r) => s.ShortPreInfusion()),
        new("pressed-to-the-end", b => Bare(b) && Lever(b) && b.Eases, (s, r) => s.PressToTheEnd()),
        new("arm-weak", b => Lever(b), (s, r) => s.MostBar = s.Bench.Plan.PeakBar * r.Uniform(0.5, 0.68)),
        new("not-purged", Bare, (s, r) => s.NotPurged(r)),
        new("ratio-off", Bare, (s, r) => s.Ratio(r)),
    ];

    /// <summary>Two at once, as they come.</summary>
    public static readonly IReadOnlyList<(string First, string Second)> Pairs =
    [
        ("group-hot", "ended-late"),
        ("grind-coarse", "ended-late"),
        ("preheat-forgotten", "grind-coarse"),
        ("too-old", "pressed-to-the-end"),
    ];

    /// <summary>The fault with a key.</summary>
    public static Fault Of(string key) => All.Single(f => f.Key == key);

    /// <summary>What people would call it: a choked shot and a step too fine are one and the same mistake.</summary>
    public string Cause =>
        Key switch
        {
            "choked" => "grind-fine",
            "gusher" => "grind-coarse",
            _ => Key,
        };
}
