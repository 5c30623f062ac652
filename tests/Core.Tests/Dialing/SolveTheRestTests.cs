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
    private static readonly Machine Strong = FamilyDefaults.Of(MachineFamily.PortableLever).Machine with { WillingForceKgf = 40, ChamberMl = 90 };

    /// <summary>A grinder of clicks, each worth 7 %, smaller finer.</summary>
    private static Func<double, double> Grind(double resistivity) => setting => resistivity * Math.Exp(-0.07 * (setting - Setting));

    private static ShotConditions At(double resistivity) => GrindResistivity.With(ShotConditions.Of(Strong, Plan, Dose, Yield, 90), resistivity);

    private static ShotToLand Shot(double r10, double? setting = Setting) => new(At(r10), Grind(r10), setting, new(1, true));

    private static double Seconds(double r10, LandingChange change)
    {
        double dose = Dose, yield = Yield, setting = Setting, press = 1;
        foreach (var part in change.Parts)
        {
            if (part.Of == ChangeOf.Dose) dose = part.Value;
            if (part.Of == ChangeOf.Yield) yield = part.Value;
            if (part.Of == ChangeOf.Grind) setting = part.Value;
            if (part.Of == ChangeOf.Pressure) press = part.Value;
        }

        var shot = At(Grind(r10)(setting));
        return SimulatedShot.Pull(shot with
        {
            Bed = shot.Bed with { DoseGrams = dose },
            YieldGrams = yield,
            Plan = Plan with { Phases = [.. Plan.Phases.Select(p => p with { ToBar = Math.Min(12, p.ToBar * press) })] },
        }).Seconds;
    }

    [Theory] // common practice: leave the grind and change the dose by a gram, cut the cup shorter, or let the arm correct
    [InlineData(6.0)]
    [InlineData(9.5)]
    [InlineData(8.6)]
    public void Every_change_that_is_offered_lands_the_time(double r10)
    {
        var now = Seconds(r10, new([]));
        var changes = SolveTheRest.Of(Shot(r10), 37, []);
        Assert.True(changes.Count >= 2);
        Assert.Equal(changes.OrderBy(c => c.Effort), changes);
        foreach (var change in changes)
        {
            Assert.Equal(37, Seconds(r10, change), 1.0);
            var part = Assert.Single(change.Parts);
            // too fast asks for more coffee, a longer cup, a softer arm or a finer grind; too slow for the opposite
            var slows = part.Of switch
            {
                ChangeOf.Dose => part.Value > Dose,
                ChangeOf.Yield => part.Value > Yield,
                ChangeOf.Pressure => part.Value < 1,
                _ => part.Value < Setting,
            };
            Assert.Equal(now < 37, slows);
        }
    }

    [Fact]
    public void What_is_locked_is_never_touched()
    {
        foreach (var locked in Enum.GetValues<ChangeOf>())
        {
            var changes = SolveTheRest.Of(Shot(6.5), 37, [locked]);
            Assert.NotEmpty(changes);
            Assert.DoesNotContain(changes, c => c.Parts.Any(p => p.Of == locked));
        }

        Assert.Empty(SolveTheRest.Of(Shot(6.5), 37, Enum.GetValues<ChangeOf>()));
        Assert.DoesNotContain(SolveTheRest.Of(Shot(6.5, null), 37, []), c => c.Parts.Any(p => p.Of == ChangeOf.Grind));
    }

    [Fact]
    public void Where_no_one_thing_does_two_are_moved_together()
    {
        // far too fast, and only a little of dose and yield left to change
        var changes = SolveTheRest.Of(Shot(5.0), 37, [ChangeOf.Grind]);
        Assert.NotEmpty(changes);
        Assert.All(changes, c => Assert.Equal(2, c.Parts.Count));
        Assert.All(changes, c => Assert.Equal(37, Seconds(5.0, c), 1.5));
    }
}
