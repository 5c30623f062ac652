using RuddySpring.Core.Coaching;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Traces;
using RuddySpring.Server.Instruments;
using RuddySpring.Server.Prepare;
using RuddySpring.Server.Pull;

namespace RuddySpring.Server.Tests.Pull;

/// <summary>A pull that nobody looked at for some seconds: what is missing is told of, and what is not is not.</summary>
public sealed class StoodStillTests
{
    private readonly RunningPull _pull = Armed();

    private static RunningPull Armed() =>
        new(
            new(
                new('a', 32),
                new DateTime(2026, 2, 1, 7, 0, 0, DateTimeKind.Utc),
                new Sheet(1, 1, 2, 1, 20, 15, 32, "early-peak"),
                ShippedPlans.EarlyPeak,
                FamilyDefaults.Of(MachineFamily.PortableLever).Machine,
                "Pack lever",
                89,
                null
            ),
            0
        );

    private IReadOnlyList<string> Look(double now) => _pull.Frame(now, false, null, null, null, 0).Notices;

    /// <summary>Runs for five seconds with a reading and a look ten times a second.</summary>
    private void Run()
    {
        _pull.Begin(0);
        for (var at = 0.1; at < 5.05; at += 0.1)
        {
            Readings(at, at);
            Look(at);
        }
    }

    private void Readings(double from, double until)
    {
        for (var at = from; at <= until; at += 0.1)
            _pull.Take([new TimedSample(Channel.Pressure, at, 6)], until);
    }

    [Fact]
    public void Seconds_without_a_reading_are_told_of_once_it_is_sure_that_none_comes()
    {
        Run();
        Assert.Empty(Look(12));
        Readings(12.1, 14.1);
        Assert.StartsWith("The computer stood still for 7 s", Assert.Single(Look(14.1)), StringComparison.Ordinal);
        Assert.Single(Look(14.2));
    }

    [Fact]
    public void Readings_that_came_while_nobody_looked_are_not_missing()
    {
        Run();
        Readings(5.1, 12);
        Assert.Empty(Look(12));
        Assert.Empty(Look(15));
    }

    [Fact]
    public void Readings_that_waited_at_the_door_are_not_missing()
    {
        Run();
        Assert.Empty(Look(12));
        Readings(5.1, 12.1);
        Assert.Empty(Look(15));
    }

    [Fact]
    public void What_is_missing_when_the_pull_ends_is_told_of()
    {
        Run();
        Look(12);
        _pull.Stop(12.5);
        Assert.Contains("stood still for 7 s", _pull.Finish().Notices, StringComparison.Ordinal);
    }

    [Fact]
    public void A_pull_that_has_not_begun_misses_nothing()
    {
        Assert.Empty(Look(10));
        _pull.Begin(10.1);
        Assert.Empty(Look(10.2));
        Assert.Empty(Look(12.9));
    }

    /// <summary>With nothing but a clock the plan says what is assumed, also of seconds in which the computer stood
    /// still.</summary>
    [Fact]
    public void A_pull_that_nothing_tells_of_misses_nothing_and_what_is_assumed_has_no_hole()
    {
        _pull.Begin(0);
        for (var at = 0.1; at < 5.05; at += 0.1)
            Look(at);
        Assert.Empty(Look(12));
        Assert.Empty(Look(15));
        _pull.Stop(15.1);
        var finished = _pull.Finish();
        Assert.DoesNotContain("stood still", finished.Notices, StringComparison.Ordinal);
        var assumed = finished.Trace.Of(Channel.Pressure)!;
        Assert.Equal(Origin.Assumed, assumed.Origin);
        Assert.True(assumed.Seconds[^1] > 14);
        Assert.All(assumed.Seconds.Zip(assumed.Seconds.Skip(1), (a, b) => b - a), step => Assert.InRange(step, 0, 0.5));
    }

    [Fact]
    public void After_a_late_look_the_readings_at_the_door_come_before_the_cue_to_let_go()
    {
        PullUntilNearlyDone(_pull);
        // the hand let go by itself while the computer stood still
        Assert.True(_pull.IsTooLate(22));
        for (var at = 19.1; at < 22; at += 0.1)
            Cup(_pull, at, 28.5);
        Assert.False(_pull.IsTooLate(22.1));
        Assert.NotEqual(AdviceKind.Stop, Advice(_pull, 22.1));
        Assert.False(_pull.TellToLetGo());

        // what the cup is reckoned at otherwise
        var hasty = Armed();
        PullUntilNearlyDone(hasty);
        Assert.Equal(AdviceKind.Stop, Advice(hasty, 22));
    }

    [Fact]
    public void A_look_that_is_a_little_late_is_a_look()
    {
        Run();
        Assert.False(_pull.IsTooLate(5.8));
        Assert.True(_pull.IsTooLate(8));
        Assert.False(_pull.IsTooLate(12)); // one frame is left out, not every one of a slow computer
    }

    /// <summary>To 28 g of 32, at 2 g/s.</summary>
    private static void PullUntilNearlyDone(RunningPull pull)
    {
        pull.Begin(0);
        for (var at = 0.1; at < 19.05; at += 0.1)
        {
            Cup(pull, at, Math.Max(0, (at - 5) * 2));
            Advice(pull, at);
        }
    }

    private static void Cup(RunningPull pull, double at, double grams) =>
        pull.Take([new TimedSample(Channel.Pressure, at, 6), new TimedSample(Channel.Weight, at, grams)], at);

    private static AdviceKind? Advice(RunningPull pull, double now) =>
        pull.Frame(now, false, null, null, null, 0).Reading!.Coach?.Advice?.Kind;
}
