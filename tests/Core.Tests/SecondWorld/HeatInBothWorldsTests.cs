using RuddySpring.Core.Heat;
using RuddySpring.Core.Machines;

namespace RuddySpring.Core.Tests.SecondWorld;

/// <summary>
/// What is said of a machine's heat, judged on machines whose numbers nobody told it: the core's own with other constants, and
/// boilers of the second world. Constants of the core were set on even seeds; these are the odd ones.
/// </summary>
public sealed class HeatInBothWorldsTests(ITestOutputHelper output)
{
    private const double NinetyPercent = 1.645;
    private static readonly Machine Dipper = FamilyDefaults.Of(MachineFamily.BoilerDirect).Machine with
    {
        Lamp = LampMeans.Heating,
    };

    /// <summary>A morning: bled, flushed, two shots, and some minutes more.</summary>
    private static readonly HeatEvent[] Morning =
    [
        new(HeatEventKind.On, 0),
        new(HeatEventKind.Bleed, 345, 14),
        new(HeatEventKind.Flush, 1380, 8, 30),
        new(HeatEventKind.Shot, 1500, 30, 45, 14),
        new(HeatEventKind.Shot, 1740, 30, 45, 14),
        new(HeatEventKind.Off, 2300),
    ];

    /// <summary>Another one, later and quicker.</summary>
    private static readonly HeatEvent[] Another =
    [
        new(HeatEventKind.On, 0),
        new(HeatEventKind.Bleed, 400, 12),
        .. Enumerable.Range(0, 4).Select(i => new HeatEvent(HeatEventKind.Shot, 1260 + (i * 150), 35, 50, 14)),
    ];

    private static Machine OwnWorld(SeededRandom random)
    {
        double Around(double value, double spread) => value * Math.Exp(random.Normal(spread));
        var usual = HeatConstants.Of(Dipper);
        return Dipper with
        {
            MetalHeatCapacity = Math.Clamp(
                Around(Dipper.MetalHeatCapacity, 0.25),
                0.6 * Dipper.MetalHeatCapacity,
                1.6 * Dipper.MetalHeatCapacity
            ),
            Heat = usual with
            {
                GroupAmbientWPerK = Around(usual.GroupAmbientWPerK, 0.5),
                BoilerGroupWPerK = Around(usual.BoilerGroupWPerK, 0.5),
                PassWPerK = Around(usual.PassWPerK, 0.4),
                BoilerLossWPerK = Around(usual.BoilerLossWPerK, 0.5),
                HeaterWatts = Around(usual.HeaterWatts, 0.15),
                AirAtStart = Around(1, 0.3),
            },
        };
    }

    private static double Value(Machine machine, string field) =>
        field switch
        {
            "groupAmbientWPerK" => machine.Heat!.GroupAmbientWPerK,
            "boilerGroupWPerK" => machine.Heat!.BoilerGroupWPerK,
            "metalHeatCapacity" => machine.MetalHeatCapacity,
            "passWPerK" => machine.Heat!.PassWPerK,
            "boilerLossWPerK" => machine.Heat!.BoilerLossWPerK,
            "heaterWatts" => machine.Heat!.HeaterWatts,
            _ => machine.Heat!.AirAtStart,
        };

    private static HeatLog Readings(Machine truth, SeededRandom random)
    {
        var seat = random.Normal(0.7);
        var readings = Enumerable
            .Range(1, 10)
            .Select(i =>
            {
                var c =
                    HeatRun.Play(truth, 20, 500, Morning, i * 240, records: false).GroupC
                    + seat
                    + random.Normal(HeatReading.SeatingK);
                return new HeatReading(
                    HeatReadingKind.Strip,
                    i * 240,
                    Math.Round(c / HeatReading.StripStepK) * HeatReading.StripStepK
                );
            })
            .ToList();
        readings.AddRange(
            Enumerable
                .Range(0, 6)
                .Select(i =>
                {
                    var at = 150 + (i * 60);
                    return new HeatReading(
                        HeatReadingKind.BoilerGauge,
                        at,
                        Math.Max(
                            0,
                            HeatRun.Play(truth, 20, 500, Morning, at, records: false).GaugeBar!.Value + random.Normal(0.03)
                        )
                    );
                })
        );
        return new(Morning, readings, 20, 500);
    }

    private static HeatLog Readings(OtherBoiler truth, SeededRandom random)
    {
        double[] at = [.. Enumerable.Range(1, 10).Select(i => i * 240.0)];
        var bell = truth.Bell(Morning, at);
        return new(
            Morning,
            [.. at.Select((t, i) => new HeatReading(HeatReadingKind.Strip, t, truth.Strip(bell[i], random)))],
            20,
            500
        );
    }

    [Fact]
    public void Ninety_per_cent_intervals_hold_the_truth_as_often_as_they_say()
    {
        var covered = new Dictionary<string, int>();
        const int machines = 30;
        for (var n = 0; n < machines; n++)
        {
            var random = new SeededRandom((ulong)((2 * n) + 90001));
            var truth = OwnWorld(random);
            var fit = HeatFit.Of(Dipper, [Readings(truth, random)]);
            foreach (var c in fit.Constants)
                covered[c.Field] =
                    covered.GetValueOrDefault(c.Field)
                    + (Value(truth, c.Field) >= c.Low && Value(truth, c.Field) <= c.High ? 1 : 0);
        }

        foreach (var (field, count) in covered)
            output.WriteLine($"{field}: {100.0 * count / machines:0}");
        var all = 100.0 * covered.Values.Sum() / (machines * covered.Count);
        output.WriteLine($"90 % intervals cover {all:0.0} of 100");
        Assert.Equal(7, covered.Count);
        Assert.InRange(all, 84, 96);
        // 30 machines: three standard errors under 90
        Assert.All(covered.Values, c => Assert.InRange(100.0 * c / machines, 73, 100));
    }

    [Fact]
    public void Fitting_twice_gives_the_same_answer()
    {
        var random = new SeededRandom(90501);
        var log = Readings(OwnWorld(random), random);
        var once = HeatFit.Of(Dipper, [log]);
        var twice = HeatFit.Of(once.Changed, [log]);
        Assert.Equal(once.Constants.Select(c => c.Value), twice.Constants.Select(c => c.Value));
        Assert.Equal(once.Changed, twice.Changed);
        var logged = HeatFit.Measured(Dipper, log);
        Assert.Equal(logged.Constants.Select(c => c.Value), HeatFit.Measured(logged.Changed, log).Constants.Select(c => c.Value));
        // what was logged is where a fit to sessions starts from
        Assert.Equal(
            logged.Changed.MetalHeatCapacity,
            HeatFit.Of(logged.Changed, [log]).Constants.Single(c => c.Field == "metalHeatCapacity").Before
        );
    }

    [Fact] // where the group has settled, the strip tells a ratio of conductances and nothing about mass
    public void What_a_strip_cannot_tell_keeps_the_width_of_its_prior()
    {
        var still = new HeatLog(
            [new(HeatEventKind.On, 0), new(HeatEventKind.Bleed, 345, 14)],
            [.. Enumerable.Range(0, 6).Select(i => new HeatReading(HeatReadingKind.Strip, 9000 + (i * 60), 80))],
            20,
            500
        );
        var mass = HeatFit.Of(Dipper, [still]).Constants.Single(c => c.Field == "metalHeatCapacity");
        Assert.Equal(Math.Exp(2 * NinetyPercent * 0.25), mass.High / mass.Low, 0.1);
    }

    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public void A_group_at_lever_up_lies_in_its_band_as_often_as_the_band_says(bool fitted)
    {
        int inBand = 0,
            all = 0;
        double misses = 0,
            width = 0;
        for (var n = 0; n < 30; n++)
        {
            var random = new SeededRandom((ulong)((2 * n) + 95001));
            var truth = new OtherBoiler(random);
            var machine = fitted ? HeatFit.Of(Dipper, [Readings(truth, random)]).Changed : Dipper;
            double[] at = [.. Another.Where(e => e.Kind == HeatEventKind.Shot).Select(e => e.AtSeconds)];
            var really = truth.Bell(Another, at);
            for (var i = 0; i < at.Length; i++)
            {
                var run = HeatRun.Play(machine, 20, 500, Another, at[i], records: false);
                if (Math.Abs(run.GroupC - really[i]) <= NinetyPercent * run.PlusMinusK)
                    inBand++;
                misses += Math.Abs(run.GroupC - really[i]);
                width += run.PlusMinusK;
                all++;
            }
        }

        output.WriteLine(
            $"{(fitted ? "fitted to ten readings of a strip" : "family")}: 90 % band holds {100.0 * inBand / all:0} of 100; "
                + $"off by {misses / all:0.0} K, said {width / all:0.0} K"
        );
        Assert.InRange(100.0 * inBand / all, 84, 96);
    }
}
