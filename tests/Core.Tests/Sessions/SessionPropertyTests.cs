using CsCheck;
using RuddySpring.Core.Heat;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Sessions;

namespace RuddySpring.Core.Tests.Sessions;

/// <summary>What must hold of every plan, whatever is asked and whatever happens.</summary>
public sealed class SessionPropertyTests
{
    private static readonly Gen<MachineFamily> Boilers = Gen.OneOf(
        Gen.Const(MachineFamily.BoilerDirect),
        Gen.Const(MachineFamily.BoilerSpring)
    );

    private static SessionWants Wants(MachineFamily family, int drinks, int milks, bool cloth, int cups = 1)
    {
        var (machine, dose, yield) = FamilyDefaults.Of(family);
        return new()
        {
            Drinks = [.. Enumerable.Range(0, drinks).Select(i => new Drink($"Guest {i}", i < milks ? 150 : 0))],
            DoseGrams = dose,
            YieldGrams = yield,
            Cloth = cloth,
            CupsAPull = cups,
            Preheat = machine.HasBoiler ? PreheatMethod.None : KettlePreheat.Methods(machine)[0],
        };
    }

    [Fact]
    public void Every_shot_of_a_plan_without_a_problem_is_in_its_band_and_water_covers_the_element() =>
        Gen.Select(Boilers, Gen.Int[1, 7], Gen.Int[0, 3], Gen.Bool, Gen.Double[5, 32], Gen.Double[0, 2500])
            .Sample(
                (family, drinks, milks, cloth, ambient, altitude) =>
                {
                    var machine = FamilyDefaults.Of(family).Machine;
                    var heat = HeatConstants.Of(machine);
                    var plan = new SessionPlanner(new(machine, ambient, altitude)).Plan(
                        Wants(family, drinks, milks, cloth),
                        null,
                        SessionProgress.None
                    );
                    return plan.Problem is not null
                        || (
                            plan.Shots.Count == drinks
                            && plan.Shots.All(s => s.LeverUpC >= heat.BandLowC - 1 && s.LeverUpC <= heat.BandHighC + 1)
                            && plan.Water.AtEndGrams >= heat.MinimumGrams - 0.5
                        );
                },
                iter: 60
            );

    [Fact]
    public void A_plan_made_again_in_the_middle_never_asks_for_what_is_done_nor_looks_back() =>
        Gen.Select(Gen.Enum<MachineFamily>(), Gen.Int[1, 4], Gen.Double[0, 1], Gen.Double[0, 900], Gen.Bool)
            .Sample(
                (family, drinks, share, late, cloth) =>
                {
                    var planner = new SessionPlanner(new(FamilyDefaults.Of(family).Machine, 20, 800));
                    var wants = Wants(family, drinks, 1, cloth);
                    var first = planner.Plan(wants, null, SessionProgress.None);
                    var done = first
                        .Steps.OrderBy(s => s.EndSeconds)
                        .Take((int)(share * first.Steps.Count))
                        .Select(s => new DoneStep(s.Key, s.Kind, s.StartSeconds, s.EndSeconds, false, s.Grams, s.DoseGrams))
                        .ToArray();
                    var now = done.Select(d => d.EndSeconds).DefaultIfEmpty(0).Max() + late;
                    var again = planner.Plan(wants, null, new(now, done, [], []));
                    var pulled = done.Count(d => d.Kind == StepKind.Shot);
                    return again.Problem is not null
                        || (
                            again.Steps.All(s => done.All(d => d.Key != s.Key))
                            && again.Steps.All(s => s.StartSeconds >= now - 1e-6)
                            && again.Steps.Count(s => s.Kind == StepKind.Shot) + pulled == drinks
                            && again.Course.Any(p => p.Seconds <= now)
                        );
                },
                iter: 80
            );

    [Fact]
    public void One_more_drink_is_never_ready_sooner_and_sharing_a_pull_never_later() =>
        Gen.Select(Gen.Enum<MachineFamily>(), Gen.Int[1, 5], Gen.Bool)
            .Sample(
                (family, drinks, cloth) =>
                {
                    var planner = new SessionPlanner(new(FamilyDefaults.Of(family).Machine, 20, 0));
                    SessionPlan Plan(int n, int cups) =>
                        planner.Plan(Wants(family, n, 0, cloth, cups), null, SessionProgress.None);
                    var (few, more, shared) = (Plan(drinks, 1), Plan(drinks + 1, 1), Plan(drinks + 1, 2));
                    return few.Problem is not null
                        || more.Problem is not null
                        || (more.LastCupSeconds >= few.LastCupSeconds - 1 && shared.LastCupSeconds <= more.LastCupSeconds + 1);
                },
                iter: 40
            );

    [Theory]
    [InlineData(StepKind.SwitchOn, HeatEventKind.On)]
    [InlineData(StepKind.Bleed, HeatEventKind.Bleed)]
    [InlineData(StepKind.Cloth, HeatEventKind.Cloth)]
    [InlineData(StepKind.Steam, HeatEventKind.Steam)]
    [InlineData(StepKind.Shot, HeatEventKind.Shot)]
    [InlineData(StepKind.Flush, HeatEventKind.Flush)]
    [InlineData(StepKind.SwitchOff, HeatEventKind.Off)]
    public void A_step_does_to_the_heat_what_it_says(StepKind step, HeatEventKind heat)
    {
        var machine = FamilyDefaults.Of(MachineFamily.BoilerDirect).Machine;
        var wants = Wants(MachineFamily.BoilerDirect, 1, 0, true);
        var e = SessionStep.HeatEvents(machine, wants, 95, new("x", step, 100, 120, false, 30, 14)).Single();
        Assert.Equal(heat, e.Kind);
        Assert.Equal(100, e.AtSeconds);
        Assert.Empty(SessionStep.HeatEvents(machine, wants, 95, new("x", step, 100, 120, true, 30, 14))); // left out
    }

    [Fact]
    public void A_rest_is_off_and_on_again_and_a_refill_closes_with_cold_water()
    {
        var machine = FamilyDefaults.Of(MachineFamily.BoilerDirect).Machine;
        var wants = Wants(MachineFamily.BoilerDirect, 1, 0, true);
        HeatEventKind[] Kinds(StepKind kind) =>
            [.. SessionStep.HeatEvents(machine, wants, 95, new("x", kind, 100, 700, false, 200)).Select(e => e.Kind)];
        Assert.Equal([HeatEventKind.Off, HeatEventKind.On], Kinds(StepKind.Rest));
        Assert.Equal([HeatEventKind.Off, HeatEventKind.Bleed], Kinds(StepKind.Depressurise));
        Assert.Equal([HeatEventKind.Refill, HeatEventKind.On], Kinds(StepKind.Refill));
        Assert.Empty(Kinds(StepKind.Grind));

        var run = HeatRun.Play(
            machine,
            20,
            0,
            [new(HeatEventKind.On, 0), new(HeatEventKind.Bleed, 330, 14), new(HeatEventKind.Refill, 900, 0, 100)],
            905
        );
        Assert.InRange(run.WaterGrams, 840, 860);
        Assert.Equal(1.0, run.AirShare); // the filler was open: false pressure again
    }

    [Theory] // the lamp means heating on one machine and ready on another (common practice)
    [InlineData(HeatReadingKind.LampOn, LampMeans.Heating, true)]
    [InlineData(HeatReadingKind.LampOff, LampMeans.Heating, false)]
    [InlineData(HeatReadingKind.LampOn, LampMeans.Ready, false)]
    [InlineData(HeatReadingKind.LampOff, LampMeans.Ready, true)]
    [InlineData(HeatReadingKind.LampOn, LampMeans.Unknown, null)]
    [InlineData(HeatReadingKind.Strip, LampMeans.Heating, null)]
    public void A_lamp_says_what_its_owner_said_it_means(HeatReadingKind kind, LampMeans lamp, bool? elementOn) =>
        Assert.Equal(elementOn, new HeatReading(kind, 10).ElementOn(lamp));

    [Fact]
    public void The_element_going_off_tells_where_the_boiler_is()
    {
        var machine = FamilyDefaults.Of(MachineFamily.BoilerDirect).Machine with { Lamp = LampMeans.Heating };
        HeatEvent[] on = [new(HeatEventKind.On, 0), new(HeatEventKind.Bleed, 330, 14)];
        var log = new HeatLog(on, [new(HeatReadingKind.LampOff, 480)], 20, 0);
        var run = log.Play(machine, 480.5);
        Assert.Equal(Core.Water.Saturation.BoilerTemperatureC(machine.BoilerGaugeBar!.Value, 0), run.BoilerC!.Value, 0.2);
        Assert.False(run.Heating);
    }
}
