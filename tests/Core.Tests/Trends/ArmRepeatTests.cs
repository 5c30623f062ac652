using RuddySpring.Core.Pulls;
using RuddySpring.Core.Traces;
using RuddySpring.Core.Trends;

namespace RuddySpring.Core.Tests.Trends;

/// <summary>How repeatable an arm is, on pulls whose faults are known because they were put in.</summary>
public sealed class ArmRepeatTests
{
    private static readonly PullPlan s_plan = ShippedPlans.FlatAndFirm;

    /// <summary>A pull that pre-infuses at 3 bar to drops at 8 s, ramps in 4 s and holds 7.5 bar, off by so much.</summary>
    private static ArmPull Pull(double preOff, double holdOff, double cupOff, double shake, SeededRandom random)
    {
        const double step = 0.1;
        var n = 340;
        var (at, bar, grams) = (new double[n], new double[n], new double[n]);
        for (var i = 0; i < n; i++)
        {
            var t = at[i] = i * step;
            bar[i] =
                t < 1.5 ? 3 * t / 1.5
                : t < 8 ? 3 + preOff
                : t < 12 ? 3 + preOff + ((4.5 + holdOff - preOff) * (t - 8) / 4)
                : t < 32 ? 7.5 + holdOff
                : Math.Max(0, 7.5 - (6 * (t - 32)));
            bar[i] += shake * random.Normal(1);
            grams[i] = t < 8 ? 0 : Math.Min(32 + cupOff, (t - 8) * 32 / 24.0);
        }

        var flow = Enumerable.Range(0, n).Select(i => i == 0 ? 0 : (grams[i] - grams[i - 1]) / step).ToArray();
        return new(new(step, at, bar, grams, flow, 0), new Moments(0.3, 8, 8, 12, null, null, 32, 0), 32, 32 + cupOff);
    }

    private static ArmRepeat Of(int pulls, Func<int, SeededRandom, ArmPull> pull)
    {
        var random = new SeededRandom(11);
        return ArmRepeat.Of(s_plan, [.. Enumerable.Range(0, pulls).Select(i => pull(i, random))])!;
    }

    [Fact]
    public void A_steady_arm_is_called_steady()
    {
        var arm = Of(10, (_, r) => Pull(0, 0, 0.3, 0.02, r));
        Assert.Null(arm.LessonKey);
        Assert.Contains("steady", arm.Sentence, StringComparison.Ordinal);
        Assert.Equal(3, arm.Phases.Count);
        Assert.All(arm.Phases, p => Assert.True(p.SpreadBar < 0.1 && p.InsideShare > 0.8, p.Name));
        Assert.Equal(10, arm.OffBar.Count);
        var held = arm.Band.Single(b => Math.Abs(b.Seconds - 20) < 1e-9);
        Assert.Equal(7.5, held.MiddleBar, 1);
        Assert.True(held.HighBar - held.LowBar < 0.2);
    }

    [Fact]
    public void A_phase_that_is_pressed_too_hard_is_named_with_its_size_and_its_lesson()
    {
        var arm = Of(10, (_, r) => Pull(0, 1.4, 0, 0.02, r));
        Assert.Equal("hold-3", arm.LessonKey);
        Assert.Contains("\u201cHold\u201d is {1.4 bar} above the plan", arm.Sentence, StringComparison.Ordinal);
        Assert.Equal(1.4, arm.Phases[2].OffBar, 1);
    }

    [Fact]
    public void A_pre_infusion_that_differs_from_pull_to_pull_is_told_from_one_that_is_off()
    {
        var arm = Of(12, (i, r) => Pull(i % 2 == 0 ? 1.2 : -1.2, 0, 0, 0.02, r));
        Assert.Equal("first-drops", arm.LessonKey);
        Assert.Contains("from pull to pull", arm.Sentence, StringComparison.Ordinal);
        Assert.InRange(arm.Phases[0].SpreadBar, 1.0, 1.5);
        Assert.InRange(Math.Abs(arm.Phases[0].OffBar), 0, 0.1);
    }

    [Fact]
    public void Cups_that_miss_and_phases_that_improved_are_said()
    {
        var cups = Of(8, (i, r) => Pull(0, 0, i % 2 == 0 ? 3 : 2, 0.02, r));
        Assert.Equal("stop-gram", cups.LessonKey);
        Assert.Equal(8, cups.CupOffGrams.Count);
        var better = Of(10, (i, r) => Pull(0, i < 5 ? 1.5 : 0.2, 0, 0.02, r));
        Assert.Contains("came closer to the plan", better.Sentence, StringComparison.Ordinal);
        Assert.True(better.Phases[2].LaterOffBar < better.Phases[2].EarlierOffBar);
    }

    [Fact]
    public void Too_few_pulls_say_nothing_and_every_lesson_named_is_one()
    {
        var random = new SeededRandom(1);
        Assert.Null(ArmRepeat.Of(s_plan, [Pull(0, 0, 0, 0.02, random), Pull(0, 0, 0, 0.02, random)]));
        Assert.Null(ArmRepeat.Of(s_plan, []));
        foreach (var key in new[] { "stop-gram", "hold-flow", "half-pulls", "ramp-5", "first-drops", "pump-rest", "hold-3" })
            Assert.Contains(Core.Practice.Lessons.All, l => l.Key == key);
    }
}
