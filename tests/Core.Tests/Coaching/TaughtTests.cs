using RuddySpring.Core.Coaching;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Shots;
using RuddySpring.Core.Traces;

namespace RuddySpring.Core.Tests.Coaching;

/// <summary>What earlier pulls make one expect: of the scale by its name, of the spout by its holder, of the hand by who
/// brews.</summary>
public sealed class TaughtTests
{
    private static readonly ShotConditions Sheet = ShotConditions.Of(
        FamilyDefaults.Of(MachineFamily.PortableLever).Machine,
        ShippedPlans.EarlyPeak,
        15,
        32,
        90,
        4
    );

    private static TaughtBy Pull(
        string scale,
        string holder,
        double spout,
        double lag,
        int bag = 1,
        int brewer = 1,
        double? letGo = null
    ) =>
        new(
            bag,
            1,
            brewer,
            new(PuckMemory.Of(PuckBelief.Before(Sheet, 0.2, new(new(spout, 0.1), new(lag, 0.05)))), scale, holder, letGo)
        );

    private static TaughtBy Next(string? scale, string holder, int brewer = 1) =>
        new(1, 1, brewer, new(null, scale, holder, null));

    [Fact]
    public void A_slow_scale_is_known_by_its_name_and_a_spout_by_its_holder()
    {
        List<TaughtBy> earlier = [Pull("quick", "1 spout", 0.9, 0.25), Pull("slow", "1 bottomless", 0.3, 0.75)];
        Assert.Equal(0.9, Taught.Puck(earlier, Next("quick", "1 spout"), Sheet)!.Path.SpoutDelaySeconds);
        // never together: the scale's part from one pull, the spout's from the other
        var mixed = Taught.Puck(earlier, Next("slow", "1 spout"), Sheet)!.LearnedPath;
        Assert.Equal(0.9, mixed.Spout.Seconds, 1e-9);
        Assert.Equal(0.75, mixed.Scale.Seconds, 1e-9);
        var strange = Taught.Puck(earlier, Next("new", "2 spout"), Sheet)!.LearnedPath;
        Assert.Equal(CupPathBelief.Unknown.Scale.SdLog, strange.Scale.SdLog, 1e-4);
        Assert.Null(Taught.Puck([], Next("slow", "1 spout"), Sheet));
    }

    [Fact]
    public void A_hand_is_known_by_who_brews()
    {
        List<TaughtBy> earlier =
        [
            Pull("a", "h", 0.5, 0.4, letGo: 1.1),
            Pull("a", "h", 0.5, 0.4, letGo: 1.0),
            Pull("a", "h", 0.5, 0.4, brewer: 2, letGo: 0.3),
        ];
        Assert.Equal((1.1 + 1.0 + LetGo.UsualSeconds) / 3, Taught.LetGoSeconds(earlier, Next("a", "h")), 1e-9);
        Assert.Equal((0.3 + LetGo.UsualSeconds) / 2, Taught.LetGoSeconds(earlier, Next("a", "h", brewer: 2)), 1e-9);
        Assert.Equal(LetGo.UsualSeconds, Taught.LetGoSeconds(earlier, Next("a", "h", brewer: 3)));
    }

    // held for half a second, then dying with a time constant of 0.4 s: 0.5 + 0.4 of the pressure, less the tail under a tenth
    [Fact]
    public void How_long_a_hand_goes_on_is_read_off_the_gauge()
    {
        double Bar(double t) => t < 20.5 ? 6 : 6 * Math.Exp(-(t - 20.5) / 0.4);
        double[] at = [.. Enumerable.Range(0, 500).Select(i => i * 0.05)];
        var gauge = new Series(Channel.Pressure, Origin.Measured, at, [.. at.Select(Bar)]);
        Assert.Equal(0.5 + (0.4 * 0.9), LetGo.Seconds(gauge, 20)!.Value, 0.03);
        Assert.Null(LetGo.Seconds(gauge, 24)); // nothing pressed any more
        Assert.Null(LetGo.Seconds(gauge with { Values = [.. at.Select(_ => 6.0)] }, 20)); // the cue was not followed
    }
}
