using RuddySpring.Core.Machines;
using RuddySpring.Core.Sessions;

namespace RuddySpring.Core.Tests.Sessions;

/// <summary>Which step of a plan is the one to do.</summary>
public sealed class NextStepTests
{
    private static readonly SessionPlan Any = new SessionPlanner(
        new(FamilyDefaults.Of(MachineFamily.BoilerSpring).Machine, 20, 0)
    ).Plan(
        new SessionWants
        {
            Drinks = [new("", 0)],
            DoseGrams = 14,
            YieldGrams = 28,
        },
        null,
        SessionProgress.None
    );

    private static SessionStep Step(string key, double start, double seconds, bool handsFree = false) =>
        new(key, StepKind.Rinse, start, seconds, key, "", null, handsFree, null, null, 0, 0);

    private static string? Next(SessionStep[] steps, params string[] underWay) =>
        (Any with { Steps = steps }).Next(underWay)?.Key;

    [Fact]
    public void The_first_that_is_due_comes_next() => Assert.Equal("fill", Next([Step("fill", 0, 60), Step("on", 60, 5)]));

    [Fact]
    public void What_goes_on_by_itself_leaves_the_hands_to_the_next_one() =>
        Assert.Equal("boil", Next([Step("heater", 0, 540, handsFree: true), Step("boil", 400, 150)], "heater"));

    [Fact]
    public void What_is_over_before_anything_else_is_waited_for() =>
        Assert.Equal("cloth", Next([Step("cloth", 0, 40, handsFree: true), Step("shot", 60, 40)], "cloth"));

    [Fact]
    public void The_last_one_under_way_is_shown_to_its_end() =>
        Assert.Equal("cool", Next([Step("cool", 0, 600, handsFree: true)], "cool"));

    [Fact]
    public void When_all_is_done_there_is_none() => Assert.Null(Next([]));

    [Fact]
    public void A_fresh_plan_begins_with_its_first_step() => Assert.Equal(Any.Steps[0], Any.Next([]));
}
