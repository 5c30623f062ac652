using CsCheck;
using RuddySpring.Core.Heat;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Sessions;

namespace RuddySpring.Core.Tests.Sessions;

public sealed class SessionPlannerTests
{
    private static SessionWants Wants(MachineFamily family, int drinks, int milks = 0)
    {
        var (_, dose, yield) = FamilyDefaults.Of(family);
        return new()
        {
            Drinks = [.. Enumerable.Range(0, drinks).Select(i => new Drink("", i < milks ? 150 : 0))],
            DoseGrams = dose,
            YieldGrams = yield,
        };
    }

    private static SessionPlanner Planner(MachineFamily family, double altitude = 0) =>
        new(new SessionBench(FamilyDefaults.Of(family).Machine, 20, altitude));

    private static SessionPlan Plan(MachineFamily family, int drinks, int milks = 0, double? ready = null) =>
        Planner(family).Plan(Wants(family, drinks, milks), ready, SessionProgress.None);

    private static string Text(SessionPlan plan) =>
        string.Join(
            "\n",
            plan.Steps.Select(s => $"{s.StartSeconds / 60, 6:0.0} {s.Seconds, 5:0} {s.Key, -12} {s.GroupC:0.0} {s.Title}")
        ) + $"\n{plan.LastCupSeconds / 60:0.0} {plan.Problem} {plan.Water}";

    [Fact] // common practice: after two or three in a row a small dipper's group is too hot; a large spring machine's is not
    public void Five_cups_need_cooling_on_the_dipper_and_none_on_the_spring_machine()
    {
        var dipper = Plan(MachineFamily.BoilerDirect, 5);
        Assert.Null(dipper.Problem);
        Assert.Contains(dipper.Steps, s => s.Kind == StepKind.Cloth);
        Assert.Equal(5, dipper.Steps.Count(s => s.Kind == StepKind.Shot));
        Assert.All(dipper.Shots, s => Assert.InRange(s.LeverUpC, 69.9, 85.1));
        var spring = Plan(MachineFamily.BoilerSpring, 5);
        Assert.DoesNotContain(spring.Steps, s => s.Kind is StepKind.Cloth or StepKind.Rest);
        Assert.All(spring.Shots, s => Assert.InRange(s.LeverUpC, 82, 98));
        var rested = Planner(MachineFamily.BoilerDirect)
            .Plan(Wants(MachineFamily.BoilerDirect, 5) with { Cloth = false }, null, SessionProgress.None);
        Assert.Contains(rested.Steps, s => s.Kind == StepKind.Rest);
        Assert.All(rested.Shots, s => Assert.InRange(s.LeverUpC, 69.9, 85.1));
        Assert.True(rested.LastCupSeconds > dipper.LastCupSeconds);
    }

    [Theory]
    [InlineData(MachineFamily.BoilerDirect, 15, 40)]
    [InlineData(MachineFamily.BoilerSpring, 20, 50)]
    [InlineData(MachineFamily.PortableLever, 5, 15)]
    [InlineData(MachineFamily.HeatedGroup, 6, 16)]
    [InlineData(MachineFamily.TwinArmBasket, 3, 15)]
    [InlineData(MachineFamily.TwinArmChamber, 5, 15)]
    [InlineData(MachineFamily.SteppedLever, 5, 15)]
    [InlineData(MachineFamily.HandPump, 5, 15)]
    public void Every_family_gets_a_session_in_working_order(MachineFamily family, double least, double most)
    {
        var method = KettlePreheat.Methods(FamilyDefaults.Of(family).Machine)[0];
        var plan = Planner(family).Plan(Wants(family, 1) with { Preheat = method }, null, SessionProgress.None);
        Assert.Null(plan.Problem);
        Assert.True(plan.LastCupSeconds / 60 >= least && plan.LastCupSeconds / 60 <= most, Text(plan));
        var order = plan.Steps.Select(s => s.Kind).ToList();
        Assert.True(order.IndexOf(StepKind.Grind) < order.IndexOf(StepKind.Prepare), Text(plan));
        Assert.True(order.IndexOf(StepKind.Prepare) < order.IndexOf(StepKind.Shot), Text(plan));
        Assert.True(order.IndexOf(StepKind.Shot) < order.IndexOf(StepKind.Rinse), Text(plan));
        if (FamilyDefaults.Of(family).Machine.HasBoiler)
        {
            Assert.Equal([StepKind.Fill, StepKind.SwitchOn, StepKind.Bleed], order.Take(3));
            Assert.Equal(StepKind.SwitchOff, order[^1]);
            Assert.True(order.IndexOf(StepKind.Bleed) < order.IndexOf(StepKind.Flush), Text(plan));
        }

        Assert.All(plan.Steps.Zip(plan.Steps.Skip(1)), pair => Assert.True(pair.Second.StartSeconds >= pair.First.StartSeconds));
    }

    [Fact]
    public void Hands_are_never_asked_for_two_things_at_once()
    {
        Gen.Select(Gen.Enum<MachineFamily>(), Gen.Int[1, 6], Gen.Int[0, 3], Gen.Int[0, 2], Gen.Double[20, 120], Gen.Bool)
            .Sample(
                (family, drinks, milks, spare, grind, cloth) =>
                {
                    var plan = Planner(family, 1640)
                        .Plan(
                            Wants(family, drinks, milks) with
                            {
                                SpareBaskets = spare,
                                GrindSeconds = grind,
                                Cloth = cloth,
                            },
                            null,
                            SessionProgress.None
                        );
                    var busy = plan.Steps.Where(s => !s.HandsFree).OrderBy(s => s.StartSeconds).ToArray();
                    for (var i = 1; i < busy.Length; i++)
                    {
                        if (busy[i].StartSeconds < busy[i - 1].EndSeconds - 0.5)
                            throw new InvalidOperationException($"{busy[i - 1].Key} and {busy[i].Key}\n{Text(plan)}");
                    }

                    return plan.Problem is not null || plan.Steps.Count(s => s.Kind == StepKind.Shot) == drinks;
                },
                iter: 60
            );
    }

    [Fact]
    public void The_last_drink_is_ready_when_it_is_wanted_and_a_plan_that_cannot_be_met_says_what_would_help()
    {
        var ready = 3 * 3600.0;
        var plan = Plan(MachineFamily.BoilerDirect, 4, 2, ready);
        Assert.Equal(ready, plan.LastCupSeconds, 46.0);
        Assert.True(plan.Steps[0].StartSeconds > 3600);
        var late = Planner(MachineFamily.BoilerDirect)
            .Plan(Wants(MachineFamily.BoilerDirect, 5) with { Cloth = false }, 1500, SessionProgress.None);
        Assert.Contains("after the time you asked for", late.Problem, StringComparison.Ordinal);
        Assert.Contains(late.Remedies, r => r.StartsWith("Serve", StringComparison.Ordinal));
        Assert.Contains(late.Remedies, r => r.Contains("cloth", StringComparison.Ordinal));
        var soon = Planner(MachineFamily.BoilerDirect)
            .Plan(
                Wants(MachineFamily.BoilerDirect, 5),
                Plan(MachineFamily.BoilerDirect, 3).LastCupSeconds + 20,
                SessionProgress.None
            );
        Assert.Contains(soon.Remedies, r => r.StartsWith("Make 3 drinks", StringComparison.Ordinal));
    }

    // 2 milks of 150 g take about 28 g of steam; a full small boiler gives a handful of shots, and then wants refilling with a
    // cool-down
    [Fact]
    public void Water_never_falls_below_the_element()
    {
        var plan = Plan(MachineFamily.BoilerDirect, 9, 4);
        Assert.True(plan.Water.Refills >= 1, Text(plan));
        var kinds = plan.Steps.Select(s => s.Kind).ToList();
        var release = kinds.IndexOf(StepKind.Depressurise);
        Assert.True(
            release > 0
                && release < kinds.IndexOf(StepKind.Cool)
                && kinds.IndexOf(StepKind.Cool) < kinds.IndexOf(StepKind.Refill),
            Text(plan)
        );
        Assert.Contains("Never open the filler", plan.Steps[release].Caution, StringComparison.Ordinal);
        Assert.True(plan.Water.AtEndGrams >= plan.Water.MinimumGrams - 0.1, Text(plan));
        Assert.InRange(Plan(MachineFamily.BoilerDirect, 1).Water.ShotsLeft, 5, 9);
    }

    [Fact]
    public void Spare_baskets_two_cups_a_pull_and_steam_alongside_save_time()
    {
        var family = MachineFamily.BoilerSpring;
        var plain = Planner(family).Plan(Wants(family, 4, 4), null, SessionProgress.None);
        Assert.True(
            Planner(family).Plan(Wants(family, 4, 4) with { SpareBaskets = 3 }, null, SessionProgress.None).LastCupSeconds
                < plain.LastCupSeconds
        );
        Assert.True(
            Planner(family).Plan(Wants(family, 4, 4) with { SteamAlongside = true }, null, SessionProgress.None).LastCupSeconds
                < plain.LastCupSeconds
        );
        var shared = Planner(family).Plan(Wants(family, 4) with { CupsAPull = 2 }, null, SessionProgress.None);
        Assert.Equal(2, shared.Steps.Count(s => s.Kind == StepKind.Shot));
    }

    [Fact]
    public void What_really_happened_moves_the_plan_and_nothing_done_is_lost()
    {
        var planner = Planner(MachineFamily.BoilerDirect);
        var wants = Wants(MachineFamily.BoilerDirect, 3);
        var first = planner.Plan(wants, null, SessionProgress.None);
        var done = new List<DoneStep>();
        foreach (var step in first.Steps.TakeWhile(s => s.Kind != StepKind.Shot))
            done.Add(new(step.Key, step.Kind, step.StartSeconds, step.EndSeconds, false, step.Grams, step.DoseGrams));
        // ten minutes late for the first shot: the group has gone on warming
        var late = done.Max(d => d.EndSeconds) + 600;
        var second = planner.Plan(wants, null, new(late, done, [], []));
        Assert.DoesNotContain(second.Steps, s => done.Any(d => d.Key == s.Key));
        Assert.Equal(3, second.Steps.Count(s => s.Kind == StepKind.Shot));
        Assert.Equal(first.LastCupSeconds + 600, second.LastCupSeconds, 500.0);
        Assert.True(second.Steps[0].StartSeconds >= late - 1e-6);

        // a strip that reads far too hot brings a cloth forward
        var hot = planner.Plan(wants, null, new(late, done, [new(HeatReadingKind.Strip, late, 96)], []));
        Assert.Equal(StepKind.Cloth, hot.Steps[0].Kind);

        // the whole done, nothing is left but the time
        var all = first
            .Steps.Select(s => new DoneStep(s.Key, s.Kind, s.StartSeconds, s.EndSeconds, false, s.Grams, s.DoseGrams))
            .ToArray();
        Assert.Empty(planner.Plan(wants, null, new(first.EndSeconds + 5, all, [], [])).Steps);
    }

    [Fact]
    public void Waiting_for_a_later_time_delays_the_pulls_not_the_switch_on()
    {
        var planner = Planner(MachineFamily.BoilerDirect);
        var wants = Wants(MachineFamily.BoilerDirect, 2);
        DoneStep[] on = [new("fill", StepKind.Fill, 0, 60, false), new("on", StepKind.SwitchOn, 60, 65, false)];
        var plan = planner.Plan(wants, 5400, new(70, on, [], []));
        Assert.Equal(5400, plan.LastCupSeconds, 120.0);
        Assert.Equal(StepKind.Bleed, plan.Steps[0].Kind);
        Assert.True(plan.Steps[0].StartSeconds < 900);
    }

    [Fact]
    public void A_group_that_never_gets_warm_is_said_so()
    {
        var cold = FamilyDefaults.Of(MachineFamily.BoilerDirect).Machine with
        {
            BoilerGaugeBar = 0.2,
            Heat = new HeatConstants { BoilerGroupWPerK = 0.05 },
        };
        var plan = new SessionPlanner(new(cold, 10, 0)).Plan(Wants(MachineFamily.BoilerDirect, 1), null, SessionProgress.None);
        Assert.Contains("does not reach its band", plan.Problem, StringComparison.Ordinal);
        Assert.NotEmpty(plan.Remedies);
        var kettle = Planner(MachineFamily.PortableLever)
            .Plan(
                Wants(MachineFamily.PortableLever, 1) with
                {
                    KettleGrams = 200,
                    Preheat = PreheatMethod.BlankPresses,
                },
                null,
                SessionProgress.None
            );
        Assert.Contains("kettle holds", kettle.Problem, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData(0, 60, "drinks")]
    [InlineData(2, 900, "grindSeconds")]
    public void Wrong_wants_are_named(int drinks, double grind, string field) =>
        Assert.Equal(
            field,
            Assert
                .Throws<FieldRangeException>(() =>
                    Planner(MachineFamily.BoilerDirect)
                        .Plan(Wants(MachineFamily.BoilerDirect, drinks) with { GrindSeconds = grind }, null, SessionProgress.None)
                )
                .Range.Field
        );

    [Fact]
    public void A_cloth_that_is_under_way_is_waited_for()
    {
        var planner = Planner(MachineFamily.BoilerDirect);
        var wants = Wants(MachineFamily.BoilerDirect, 4);
        var first = planner.Plan(wants, null, SessionProgress.None);
        var cloth = first.Steps.Single(s => s.Kind == StepKind.Cloth);
        var done = first
            .Steps.TakeWhile(s => s != cloth)
            .Select(s => new DoneStep(s.Key, s.Kind, s.StartSeconds, s.EndSeconds, false, s.Grams, s.DoseGrams))
            .ToArray();
        var begun = new DoneStep(cloth.Key, cloth.Kind, cloth.StartSeconds, cloth.StartSeconds + 300, false);
        var plan = planner.Plan(wants, null, new(cloth.StartSeconds + 20, done, [], [begun]));
        Assert.Equal(cloth.StartSeconds, plan.Steps.Single(s => s.Kind == StepKind.Cloth).StartSeconds);
        Assert.True(plan.Steps.First(s => s.Kind == StepKind.Shot).StartSeconds >= begun.EndSeconds - 1e-6);
    }
}
