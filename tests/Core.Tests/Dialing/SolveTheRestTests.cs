using RuddySpring.Core.Dialing;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Shots;

namespace RuddySpring.Core.Tests.Dialing;

public sealed class SolveTheRestTests
{
    private const double Dose = 15;
    private const double Yield = 32;
    private const double Setting = 20;
    private static readonly PullPlan Plan = ShippedPlans.EarlyPeak;
    private static readonly Machine Strong = FamilyDefaults.Of(MachineFamily.PortableLever).Machine with
    {
        WillingForceKgf = 40,
        ChamberMl = 90,
    };

    /// <summary>A grinder of clicks, each worth 7 %, smaller finer.</summary>
    private static Func<double, double> Grind(double resistivity) =>
        setting => resistivity * Math.Exp(-0.07 * (setting - Setting));

    private static ShotConditions At(double resistivity) =>
        GrindResistivity.With(ShotConditions.Of(Strong, Plan, Dose, Yield, 90), resistivity);

    private static ShotToLand Shot(double r10, double? setting = Setting) => new(At(r10), Grind(r10), setting, new(1, true));

    private static readonly TimeBand Wanted = new(34, 37, 40);

    /// <summary>The shot with a change, played by hand.</summary>
    private static double Seconds(double r10, LandingChange change)
    {
        double dose = Dose,
            yield = Yield,
            setting = Setting,
            press = 1,
            water = 90;
        foreach (var part in change.Parts)
        {
            if (part.Of == ChangeOf.Dose)
                dose = part.Value;
            if (part.Of == ChangeOf.Yield)
                yield = part.Value;
            if (part.Of == ChangeOf.Grind)
                setting = part.Value;
            if (part.Of == ChangeOf.Pressure)
                press = part.Value;
            if (part.Of == ChangeOf.Water)
                water = part.Value;
        }

        var shot = At(Grind(r10)(setting));
        return SimulatedShot
            .Pull(
                shot with
                {
                    Bed = shot.Bed with { DoseGrams = dose },
                    YieldGrams = yield,
                    Water = WaterCourse.Steady(water),
                    Plan = Plan with { Phases = [.. Plan.Phases.Select(p => p with { ToBar = Math.Min(12, p.ToBar * press) })] },
                }
            )
            .Seconds;
    }

    [Theory] // common practice: leave the grind and change the dose by a gram, cut the cup shorter, or let the arm correct
    [InlineData(6.0)]
    [InlineData(9.5)]
    [InlineData(8.6)]
    public void Every_change_that_is_offered_lands_the_time(double r10)
    {
        var now = Seconds(r10, new([], 0));
        var changes = SolveTheRest.Of(Shot(r10), Wanted, [ChangeOf.Time]).Changes;
        Assert.True(changes.Count >= 2);
        Assert.Equal(changes.OrderBy(c => c.Effort), changes);
        foreach (var change in changes)
        {
            Assert.InRange(Seconds(r10, change), Wanted.Low - 0.3, Wanted.High + 0.3);
            Assert.Equal(Seconds(r10, change), change.Seconds, 0.3);
            var part = Assert.Single(change.Parts);
            // too fast asks for more coffee, a longer cup, a softer arm, cooler water or a finer grind; too slow for the opposite
            var slows = part.Of switch
            {
                ChangeOf.Dose => part.Value > Dose,
                ChangeOf.Yield => part.Value > Yield,
                ChangeOf.Pressure => part.Value < 1,
                ChangeOf.Water => part.Value < 90,
                _ => part.Value < Setting,
            };
            Assert.Equal(now < 37, slows);
        }
    }

    [Fact] // hot water is thinner: 85 degC to 95 degC is 10 % in viscosity (IAPWS R12-08), and a shot that much faster
    public void Hotter_water_lands_a_shot_that_is_a_little_too_slow()
    {
        ChangeOf[] others = [ChangeOf.Dose, ChangeOf.Yield, ChangeOf.Pressure, ChangeOf.Grind, ChangeOf.Plan, ChangeOf.Time];
        var r10 = Enumerable.Range(0, 60).Select(i => 6.0 + (i * 0.1)).First(r => Seconds(r, new([], 0)) > Wanted.High + 0.5);
        var change = Assert.Single(SolveTheRest.Of(Shot(r10), Wanted, others).Changes);
        Assert.InRange(change.Parts[0].Value, 91, 96);
        Assert.InRange(Seconds(r10, change), Wanted.Low, Wanted.High);
    }

    [Fact]
    public void Another_plan_lands_in_the_time_that_it_is_meant_to_take_and_the_time_can_be_taken_as_it_comes()
    {
        ChangeOf[] byDegrees = [ChangeOf.Dose, ChangeOf.Yield, ChangeOf.Pressure, ChangeOf.Grind, ChangeOf.Water];
        var slow = Enumerable.Range(0, 40).Select(i => 8.0 + (i * 0.25)).First(r => Seconds(r, new([], 0)) > Wanted.High + 3);
        var shot = Shot(slow) with { OtherPlans = [.. ShippedPlans.All.Where(p => p.Suits(Strong) && p.Key != Plan.Key)] };
        var answer = SolveTheRest.Of(shot, Wanted, byDegrees);
        var time = Assert.Single(answer.Changes, c => c.Parts[0].Of == ChangeOf.Time);
        Assert.Equal(Seconds(slow, new([], 0)), time.Seconds, 0.3);
        Assert.Equal(time, answer.Changes[^1]);
        foreach (var plan in answer.Changes.Where(c => c != time).Select(c => Assert.Single(c.Parts).Plan!))
            Assert.True(plan.LandingSeconds.Holds(SimulatedShot.Pull(At(slow) with { Plan = plan }).Seconds));
        Assert.True(answer.Changes.Count > 1);
        Assert.DoesNotContain(SolveTheRest.Of(shot, Wanted, [.. byDegrees, ChangeOf.Plan]).Changes, c =>
            c.Parts[0].Of == ChangeOf.Plan
        );
    }

    [Fact]
    public void What_lands_as_it_stands_is_said_and_so_is_what_nothing_lands()
    {
        var right = Enumerable.Range(0, 80).Select(i => 5.0 + (i * 0.1)).First(r => Wanted.Holds(Seconds(r, new([], 0))));
        var lands = SolveTheRest.Of(Shot(right), Wanted, []);
        Assert.Empty(lands.Changes);
        Assert.Contains("lands as it stands", lands.Sentence, StringComparison.Ordinal);
        var locked = SolveTheRest.Of(Shot(6.5), new(70, 75, 80), Enum.GetValues<ChangeOf>());
        Assert.Empty(locked.Changes);
        Assert.Contains("everything is locked", locked.Sentence, StringComparison.Ordinal);
        Assert.Contains(
            "no unlocked setting",
            SolveTheRest.Of(Shot(6.5), new(145, 147, 149), [ChangeOf.Grind, ChangeOf.Time]).Sentence,
            StringComparison.Ordinal
        );
        Assert.Contains(
            "at most",
            SolveTheRest
                .Of(new(At(6.5) with { YieldGrams = 110 }, Grind(6.5), Setting, new(1, true)), Wanted, [ChangeOf.Yield])
                .Sentence,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void Every_sheet_in_range_gets_an_answer_that_lands_or_a_sentence()
    {
        for (var i = 0; i < 60; i++)
        {
            var random = new SeededRandom((ulong)(4100 + i));
            var family = Enum.GetValues<MachineFamily>()[i % Enum.GetValues<MachineFamily>().Length];
            var machine = FamilyDefaults.Of(family).Machine;
            var plans = ShippedPlans.All.Where(p => p.Suits(machine)).ToArray();
            var plan = plans[random.Below(plans.Length)];
            var shot = ShotConditions.Of(
                machine,
                plan,
                Math.Round(random.Uniform(5, 30), 1),
                Math.Round(random.Uniform(5, 120), 1),
                Math.Round(random.Uniform(20, 100), 1)
            );
            var resistivity = Math.Exp(random.Uniform(-0.5, 3));
            var steps = new GrinderSteps(random.Uniform(0.05, 2), random.Below(2) == 0);
            double At(double setting) =>
                resistivity * Math.Exp(-0.06 * (setting - 20) / steps.Step * (steps.FinerIsLower ? 1 : -1));
            var toLand = new ShotToLand(GrindResistivity.With(shot, At(20)), At, random.Below(4) == 0 ? null : 20, steps)
            {
                OtherPlans = plans,
            };
            var locked = Enum.GetValues<ChangeOf>().Where(_ => random.Below(3) == 0).ToArray();
            var answer = SolveTheRest.Of(toLand, plan.LandingSeconds, locked);
            Assert.Equal(answer.Changes.Count == 0, answer.Sentence is { Length: > 20 });
            Assert.All(answer.Changes, c =>
                Assert.True(
                    c.Parts[0].Of == ChangeOf.Time || (c.Parts[0].Plan?.LandingSeconds ?? plan.LandingSeconds).Holds(c.Seconds),
                    $"{i}: {c}"
                )
            );
            Assert.DoesNotContain(answer.Changes, c => c.Parts.Any(p => locked.Contains(p.Of)));
        }
    }

    [Fact]
    public void What_is_locked_is_never_touched()
    {
        foreach (var locked in Enum.GetValues<ChangeOf>())
        {
            var changes = SolveTheRest.Of(Shot(6.5), Wanted, [locked]).Changes;
            Assert.NotEmpty(changes);
            Assert.DoesNotContain(changes, c => c.Parts.Any(p => p.Of == locked));
        }

        Assert.Empty(SolveTheRest.Of(Shot(6.5), Wanted, Enum.GetValues<ChangeOf>()).Changes);
        Assert.DoesNotContain(SolveTheRest.Of(Shot(6.5, null), Wanted, []).Changes, c =>
            c.Parts.Any(p => p.Of == ChangeOf.Grind)
        );
    }

    [Fact]
    public void Where_no_one_thing_does_two_are_moved_together()
    {
        // far too fast, and only a little of dose and yield left to change
        var changes = SolveTheRest.Of(Shot(5.0), Wanted, [ChangeOf.Grind, ChangeOf.Time]).Changes;
        Assert.NotEmpty(changes);
        Assert.All(changes, c => Assert.Equal(2, c.Parts.Count));
        Assert.All(changes, c => Assert.InRange(Seconds(5.0, c), Wanted.Low - 0.3, Wanted.High + 0.3));
    }
}
