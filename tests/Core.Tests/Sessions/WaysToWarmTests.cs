using RuddySpring.Core.Heat;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Sessions;

namespace RuddySpring.Core.Tests.Sessions;

public sealed class WaysToWarmTests
{
    private static readonly Machine Heated = FamilyDefaults.Of(MachineFamily.HeatedGroup).Machine;
    private static readonly Machine Portable = FamilyDefaults.Of(MachineFamily.PortableLever).Machine;

    private static SessionWants Wants(PreheatMethod way) =>
        new()
        {
            Drinks = [new("", 0)],
            DoseGrams = 16,
            YieldGrams = 32,
            Preheat = way,
        };

    private static SessionPlan Plan(Machine machine, SessionWants wants) =>
        new SessionPlanner(new(machine, 20, 0)).Plan(wants, null, SessionProgress.None);

    [Theory] // common practice: heater steps of roughly 85, 90, 95 and more
    [InlineData(85)]
    [InlineData(90)]
    [InlineData(95)]
    [InlineData(103)]
    public void The_group_goes_to_the_step_that_is_chosen(double step)
    {
        var plan = Plan(Heated, Wants(PreheatMethod.ElectricStep) with { HeaterStepC = step });
        Assert.InRange(plan.Shots[0].LeverUpC, step - 3, step + 3);
        Assert.Contains(
            $"{Quantity.Celsius(step):0}",
            plan.Steps.Single(s => s.Kind == StepKind.Preheat).Detail,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void A_higher_step_takes_longer_and_gives_hotter_water()
    {
        var low = Plan(Heated, Wants(PreheatMethod.ElectricStep) with { HeaterStepC = 85 });
        var high = Plan(Heated, Wants(PreheatMethod.ElectricStep));
        Assert.True(high.LastCupSeconds > low.LastCupSeconds);
        Assert.True(high.Shots[0].WaterC > low.Shots[0].WaterC + 1);
    }

    [Fact]
    public void A_step_that_the_heater_does_not_have_is_refused_with_those_it_has()
    {
        var error = Assert.Throws<DoesNotFitException>(() =>
            (Wants(PreheatMethod.ElectricStep) with { HeaterStepC = 97 }).PreheatOn(Heated)
        );
        Assert.Equal("heaterStepC", error.Field);
        Assert.Contains("{85 degC}, {90 degC}, {95 degC}, {103 degC}", error.Message, StringComparison.Ordinal);
    }

    [Fact]
    public void More_fills_warm_more_and_take_more_water()
    {
        var once = Plan(Portable, Wants(PreheatMethod.FillAndHold));
        var thrice = Plan(Portable, Wants(PreheatMethod.FillAndHold) with { PreheatTimes = 3 });
        Assert.True(thrice.Shots[0].WaterC > once.Shots[0].WaterC + 1);
        Assert.Equal(2 * KettlePreheat.FillGrams(Portable, 100), once.Water.AtEndGrams - thrice.Water.AtEndGrams, 0);
        Assert.Throws<FieldRangeException>(() =>
            (Wants(PreheatMethod.FillAndHold) with { PreheatTimes = 11 }).PreheatOn(Portable)
        );
    }

    [Fact]
    public void A_pull_that_no_full_boiler_can_give_is_no_part_of_the_plan()
    {
        var dipper = FamilyDefaults.Of(MachineFamily.BoilerDirect).Machine with
        {
            Heat = new()
            {
                FillGrams = 400,
                MinimumGrams = 370,
                BoilerVolumeMl = 900,
            },
        };
        var plan = Plan(dipper, Wants(PreheatMethod.None));
        Assert.Contains("more than a full boiler gives", plan.Problem, StringComparison.Ordinal);
        Assert.DoesNotContain(plan.Steps, s => s.Kind == StepKind.Shot);
        Assert.NotEmpty(plan.Remedies);
    }

    [Fact] // common practice: a full small boiler is good for two or three shots before its group is too hot
    public void Shots_in_a_row_are_two_or_three_on_a_warm_small_dipper()
    {
        var dipper = FamilyDefaults.Of(MachineFamily.BoilerDirect).Machine;
        var wants = Wants(PreheatMethod.None) with { DoseGrams = 14, YieldGrams = 28 };
        var run = HeatRun.Play(dipper, 20, 0, UsualWarmUp.Boiler(dipper, 20, 0), 1500, records: false);
        Assert.InRange(ShotsInARow.Left(dipper, wants, run), 2, 3);
        Assert.Equal(0, ShotsInARow.Left(dipper, wants, new HeatRun(dipper, 20, 0)));
        Assert.Equal(0, ShotsInARow.Left(Portable, wants, new HeatRun(Portable, 20, 0)));
    }

    [Fact] // common practice: bled when the element first goes off, well before the group is warm
    public void A_usual_warm_up_bleeds_the_boiler_once_its_element_goes_off()
    {
        var spring = FamilyDefaults.Of(MachineFamily.BoilerSpring).Machine;
        var events = UsualWarmUp.Boiler(spring, 20, 0);
        Assert.Equal([HeatEventKind.On, HeatEventKind.Bleed], events.Select(e => e.Kind));
        Assert.InRange(events[1].AtSeconds, 120, 1200);
        Assert.True(HeatRun.Play(spring, 20, 0, events, 1800).AirShare < 0.05);
    }

    [Fact]
    public void A_log_after_a_kettle_preheat_counts_from_its_end()
    {
        var log = UsualWarmUp.Log(Portable, [new HeatReading(HeatReadingKind.Probe, 0, 80)], 20, 0);
        Assert.Equal(KettlePreheat.Usual(Portable, KettlePreheat.Methods(Portable)[0]).Seconds, log.Readings[0].AtSeconds);
        var heated = UsualWarmUp.Log(Heated, [new HeatReading(HeatReadingKind.Probe, 60, 40)], 20, 0);
        Assert.Equal(60, heated.Readings[0].AtSeconds);
    }

    [Fact] // common practice: 1.1 bar gauge unbled is only at 84 to 92 degC, bled 122.0 (steam tables)
    public void The_gauge_hides_how_cool_an_unbled_boiler_is()
    {
        var behind = BehindTheGauge.Of(
            FamilyDefaults.Of(MachineFamily.BoilerDirect).Machine with
            {
                BoilerGaugeBar = 1.1,
            },
            20,
            0
        );
        Assert.InRange(behind.UnbledC, 84, 92);
        Assert.Equal(122.0, behind.SetC, 0);
        Assert.Equal(41, behind.Points.Count);
        Assert.All(behind.Points.Zip(behind.Points.Skip(1)), pair =>
        {
            Assert.True(pair.Second.UnbledBar >= pair.First.UnbledBar);
            Assert.True(pair.Second.HeadspaceMl < pair.First.HeadspaceMl);
            Assert.True(pair.Second.UnderTopMm < pair.First.UnderTopMm);
        });
        Assert.Throws<DoesNotFitException>(() => BehindTheGauge.Of(Portable, 20, 0));
    }

    [Fact] // common practice: one or two blank fills; nobody makes a dozen
    public void Fills_ticked_again_and_again_are_not_asked_for_without_end()
    {
        var dipper = FamilyDefaults.Of(MachineFamily.BoilerDirect).Machine;
        var wants = Wants(PreheatMethod.None) with { DoseGrams = 14, YieldGrams = 28 };
        var planner = new SessionPlanner(new(dipper, 20, 0));
        List<DoneStep> done =
        [
            new("fill", StepKind.Fill, 0, 60, false),
            new("on", StepKind.SwitchOn, 60, 62, false),
            new("bleed", StepKind.Bleed, 600, 614, false),
        ];
        var now = 620.0;
        for (var i = 0; i < 20; i++)
        {
            var flush = planner.Plan(wants, null, new(now, done, [], [])).Steps.FirstOrDefault(s => s.Kind == StepKind.Flush);
            if (flush is null)
                break;
            done.Add(new(flush.Key, StepKind.Flush, now, ++now, false, flush.Grams));
        }

        Assert.InRange(done.Count(d => d.Kind == StepKind.Flush), 1, 8);
        var plan = planner.Plan(wants, null, new(now, done, [], []));
        Assert.Contains(plan.Steps, s => s.Kind == StepKind.Shot);
    }
}
