using RuddySpring.Core.Heat;
using RuddySpring.Core.Machines;

namespace RuddySpring.Core.Tests.Heat;

public sealed class HeatFitTests
{
    private static readonly Machine Dipper = FamilyDefaults.Of(MachineFamily.BoilerDirect).Machine;
    private static readonly HeatEvent[] Morning =
    [
        new(HeatEventKind.On, 0),
        new(HeatEventKind.Bleed, 330, 14),
        new(HeatEventKind.Flush, 1380, 8, 30),
        new(HeatEventKind.Shot, 1500, 30, 45, 14),
        new(HeatEventKind.Shot, 1740, 30, 45, 14),
        new(HeatEventKind.Off, 2100),
    ];

    private static Machine Truth(SeededRandom random, double spread) =>
        Dipper with
        {
            Heat = HeatConstants.Of(Dipper) with
            {
                GroupAmbientWPerK = 0.6 * Math.Exp(random.Normal(spread)),
                BoilerGroupWPerK = 0.9 * Math.Exp(random.Normal(spread)),
            },
        };

    /// <summary>Ten readings of a strip in steps of 2 K over a morning of 50 min, with a kelvin of seating.</summary>
    private static HeatLog TenReadings(Machine truth, SeededRandom random)
    {
        var readings = Enumerable
            .Range(1, 10)
            .Select(i =>
            {
                var at = i * 300.0;
                var c = HeatRun.Play(truth, 20, 500, Morning, at, records: false).GroupC + random.Normal(HeatReading.SeatingK);
                return new HeatReading(
                    HeatReadingKind.Strip,
                    at,
                    Math.Round(c / HeatReading.StripStepK) * HeatReading.StripStepK
                );
            });
        return new(Morning, [.. readings], 20, 500);
    }

    [Fact]
    public void Ten_strip_readings_bring_back_the_conductances_and_the_interval_covers_them_as_often_as_it_says()
    {
        var random = new SeededRandom(41);
        const int machines = 30;
        int covered = 0,
            near = 0;
        for (var n = 0; n < machines; n++)
        {
            var truth = Truth(random, 0.25);
            var fit = HeatFit.Of(Dipper, [TenReadings(truth, random)]);
            foreach (
                var (field, value) in new[]
                {
                    ("groupAmbientWPerK", truth.Heat!.GroupAmbientWPerK),
                    ("boilerGroupWPerK", truth.Heat.BoilerGroupWPerK),
                }
            )
            {
                var constant = fit.Constants.Single(c => c.Field == field);
                if (value >= constant.Low && value <= constant.High)
                    covered++;
                if (Math.Abs((constant.Value / value) - 1) <= 0.15)
                    near++;
            }
        }

        Assert.InRange(covered / (2.0 * machines), 0.88, 1.0);
        Assert.InRange(near / (2.0 * machines), 0.95, 1.0);
    }

    [Fact]
    public void A_fit_narrows_the_doubt_and_says_how_many_readings_it_has()
    {
        var random = new SeededRandom(8);
        var fit = HeatFit.Of(Dipper, [TenReadings(Truth(random, 0.25), random)]);
        Assert.InRange(fit.Changed.Heat!.SpreadK, 0.6, 2.5);
        Assert.Equal(10, fit.Changed.Heat.FittedReadings);
        Assert.Equal(10, fit.Points.Count);
        Assert.InRange(fit.RootMeanSquareK, 0.1, 2);
        Assert.Contains("10 readings", fit.Sentence, StringComparison.Ordinal);
    }

    [Fact]
    public void The_lamp_alone_tells_a_weaker_element()
    {
        var truth = Dipper with { Lamp = LampMeans.Heating, Heat = HeatConstants.Of(Dipper) with { HeaterWatts = 780 } };
        var run = HeatRun.Play(truth, 20, 500, Morning, 2100, records: false);
        var lamp = run
            .ElementChanges.Select(c => new HeatReading(c.On ? HeatReadingKind.LampOn : HeatReadingKind.LampOff, c.Seconds))
            .ToArray();
        var fit = HeatFit.Of(Dipper with { Lamp = LampMeans.Heating }, [new(Morning, lamp, 20, 500)]);
        Assert.InRange(fit.Constants.Single(c => c.Field == "heaterWatts").Value, 730, 860);
        var unknown = HeatFit.Of(Dipper, [new(Morning, lamp, 20, 500)]);
        Assert.DoesNotContain(unknown.Constants, c => c.Field == "heaterWatts"); // nobody said what lit means
    }

    [Fact]
    public void A_boilers_gauge_tells_a_weaker_element()
    {
        var truth = Dipper with { Heat = HeatConstants.Of(Dipper) with { HeaterWatts = 820 } };
        var gauge = Enumerable
            .Range(3, 8)
            .Select(i => new HeatReading(
                HeatReadingKind.BoilerGauge,
                i * 60,
                Math.Max(0, HeatRun.Play(truth, 20, 500, Morning, i * 60, records: false).GaugeBar!.Value)
            ))
            .ToArray();
        Assert.InRange(
            HeatFit.Of(Dipper, [new(Morning, gauge, 20, 500)]).Constants.Single(c => c.Field == "heaterWatts").Value,
            785,
            855
        );
    }

    // a drop that sizzles says that the metal boils water; one that does not says nothing of a group that is cooler than that
    // anyway
    [Fact]
    public void A_sizzle_is_a_bound_from_below_and_its_absence_one_from_above()
    {
        HeatLog Log(HeatReadingKind kind) =>
            new(Morning, [.. Enumerable.Range(0, 5).Select(i => new HeatReading(kind, 1600 + (i * 60)))], 20, 500);
        double Group(Machine machine) => HeatRun.Play(machine, 20, 500, Morning, 1700, records: false).GroupC;
        var before = Group(Dipper);
        Assert.True(before < 97);
        Assert.True(Group(HeatFit.Of(Dipper, [Log(HeatReadingKind.Sizzles)]).Changed) > before + 4);
        Assert.Equal(before, Group(HeatFit.Of(Dipper, [Log(HeatReadingKind.DoesNotSizzle)]).Changed), 0.2);
    }

    [Fact]
    public void Few_readings_are_refused_and_wrong_ones_are_named()
    {
        Assert.Equal("readings", Assert.Throws<DoesNotFitException>(() => HeatFit.Of(Dipper, [new(Morning, [], 20, 0)])).Field);
        Assert.Equal(
            "at",
            Assert.Throws<DoesNotFitException>(() => new HeatReading(HeatReadingKind.Strip, -5, 60).Checked()).Field
        );
        Assert.Throws<FieldRangeException>(() => new HeatReading(HeatReadingKind.Probe, 5, 400).Checked());
        Assert.Throws<FieldRangeException>(() => new HeatReading(HeatReadingKind.BoilerGauge, 5, 9).Checked());
    }

    [Fact]
    public void Readings_of_a_session_steer_its_curve()
    {
        var log = new HeatLog(Morning, [new(HeatReadingKind.Strip, 900, 40), new(HeatReadingKind.Sizzles, 1000)], 20, 500);
        var free = new HeatLog(Morning, [], 20, 500);
        Assert.True(log.Play(Dipper, 950).GroupC < free.Play(Dipper, 950).GroupC - 8);
        Assert.True(log.Play(Dipper, 1001).GroupC > 70);
    }
}
