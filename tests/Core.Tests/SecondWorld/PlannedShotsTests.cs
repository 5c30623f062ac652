using RuddySpring.Core.Heat;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Sessions;

namespace RuddySpring.Core.Tests.SecondWorld;

/// <summary>A planned session played on boilers that the core does not know: the chance that it states for each shot against what
/// happens.</summary>
public sealed class PlannedShotsTests(ITestOutputHelper output)
{
    private static readonly Machine Dipper = FamilyDefaults.Of(MachineFamily.BoilerDirect).Machine;

    [Theory]
    [InlineData(true)]
    [InlineData(false)]
    public void A_planned_shot_is_in_its_band_with_the_chance_that_is_stated(bool cloth)
    {
        var bench = new SessionBench(Dipper, 20, 500);
        var wants = new SessionWants
        {
            Drinks = [.. Enumerable.Repeat(new Drink("", 0), 4)],
            DoseGrams = 14,
            YieldGrams = 28,
            Cloth = cloth,
        };
        var plan = new SessionPlanner(bench).Plan(wants, null, SessionProgress.None);
        Assert.Null(plan.Problem);
        HeatEvent[] events = [.. plan.Steps.SelectMany(s => s.HeatEvents(Dipper, wants, bench.KettleC))];
        var band = GroupBand.Of(HeatConstants.Of(Dipper));
        double[] at = [.. plan.Shots.Select(s => s.AtSeconds)];
        var stated = plan.Shots.Average(s => band.Chance(s.LeverUpC, s.PlusMinusK));
        var really = Enumerable
            .Range(0, 60)
            .Select(i =>
                new OtherBoiler(new SeededRandom((ulong)(98001 + (2 * i))))
                    .Bell(events, at)
                    .Average(c => c >= band.LowC && c <= band.HighC ? 1.0 : 0.0)
            )
            .Average();
        output.WriteLine($"{(cloth ? "cloth" : "rests")}: stated {stated:0.00}, really {really:0.00}");
        Assert.Equal(4, at.Length);
        Assert.InRange(really, stated - 0.1, stated + 0.1);
        Assert.All(plan.Steps.Where(s => s.Kind == StepKind.Shot), s =>
            Assert.Contains("times in ten", s.Detail, StringComparison.Ordinal)
        );
    }

    [Fact]
    public void A_chance_is_what_lies_of_a_normal_curve_between_the_ends()
    {
        var band = new GroupBand(70, 85);
        Assert.Equal(0.9392, band.Chance(77.5, 4), 1e-4); // normal table: 1.875 standard deviations to either side
        Assert.Equal(0.5, band.Chance(85, 2), 1e-4);
        Assert.Equal(1, band.Chance(80, 0));
        Assert.Equal(0, band.Chance(90, 0));
        Assert.True(band.ToAimFor(4).LowC > band.ToAimFor(1).LowC && band.ToAimFor(4).HighC < band.ToAimFor(1).HighC);
        Assert.True(band.ToAimFor(40).HighC > band.ToAimFor(40).LowC);
    }
}
