using RuddySpring.Core.Dialing;
using RuddySpring.Core.Fitting;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Shots;
using RuddySpring.Core.Tests.SecondWorld;

namespace RuddySpring.Core.Tests.Dialing;

public sealed class GrindAdviceTests(ITestOutputHelper output)
{
    private static readonly GrinderSteps Clicks = new(1, true);
    private static readonly WantedResistance Wanted = new(8, 10, 12.5);

    private static double R10(double setting, double age, double dose) =>
        10 * Math.Exp((-0.09 * (setting - 21)) - (0.012 * (age - 8))) * dose / 15;

    private static List<GrindShot> Shots(int count, double noise, SeededRandom random, double from = 17) =>
        [
            .. Enumerable
                .Range(0, count)
                .Select(i => new GrindShot(
                    1,
                    1,
                    from + (i % 6),
                    6 + (i * 0.5),
                    15,
                    R10(from + (i % 6), 6 + (i * 0.5), 15) * Math.Exp(random.Normal(noise))
                )),
        ];

    // NIST StRD Norris (certified; data from memory, see FitTests): with a flat prior the closed form is ordinary least squares
    [Fact]
    public void With_a_flat_prior_the_closed_form_is_least_squares()
    {
        double[] x = [1, 2, 4, 7, 9.5],
            y = [2.1, 3.9, 8.4, 13.8, 19.3];
        var rows = x.Select(v => new[] { 1.0, v }).ToArray();
        var flat = BayesianFit.Of([new(0, double.PositiveInfinity), new(0, double.PositiveInfinity)], 1, 0, rows, y);
        var least = LinearFit.Of(rows, y);
        Assert.Equal(least.Coefficients[0], flat.Coefficients[0], 1e-10);
        Assert.Equal(least.Coefficients[1], flat.Coefficients[1], 1e-10);
        Assert.Equal(least.ResidualDeviation, flat.NoiseDeviation, 1e-10);
        Assert.Equal(least.StandardErrors[1], flat.Deviation(1), 1e-10);
    }

    [Fact] // the normal-normal update by hand: precision-weighted mean of belief and reading
    public void A_belief_and_one_reading_meet_by_their_precisions()
    {
        var fit = BayesianFit.Of(
            [new(10, 2)],
            1,
            1e9,
            [
                [1.0],
            ],
            [13.0]
        );
        Assert.Equal(((10 / 4.0) + 13) / (1 + (1 / 4.0)), fit.Coefficients[0], 1e-6);
        Assert.Equal(Math.Sqrt(1 / 1.25), fit.Deviation(0), 1e-6);
    }

    [Fact]
    public void One_shot_already_moves_the_right_way_and_ten_learn_the_grinder()
    {
        var random = new SeededRandom(3);
        var coarse = new GrindShot(1, 1, 26, 8, 15, R10(26, 8, 15)); // far too fast
        var one = GrindAdvice.Learn(Clicks, [coarse]).Suggest(1, 1, 8, 15, Wanted)!;
        Assert.True(one.Setting < 26);
        Assert.True(one.High - one.Low > 1);
        var ten = GrindAdvice.Learn(Clicks, Shots(12, 0.05, random));
        Assert.Equal(-0.09, ten.PerUnit, 0.025);
        var advice = ten.Suggest(1, 1, 9, 15, Wanted)!;
        Assert.Equal(21, advice.Setting, 1.01);
        Assert.True(advice.High - advice.Low < one.High - one.Low);
        Assert.InRange(advice.Chance, 0.5, 1.0);
        Assert.Equal(12, advice.Shots);
    }

    // two settings side by side hardly tell a slope, and noise may even turn it round: the advice stays near them all the same
    [Fact]
    public void No_household_is_sent_far_away()
    {
        var worst = 0.0;
        var random = new SeededRandom(11);
        for (var household = 0; household < 6000; household++)
        {
            var finerIsLower = random.Uniform() < 0.5;
            var step = random.Uniform() < 0.5 ? 1.0 : 0.5;
            var at = 10 + random.Below(30);
            var share = Math.Exp(Math.Log(0.08) + random.Normal(0.6)) * (finerIsLower ? -1 : 1);
            var coffee = 10 * Math.Exp(random.Normal(0.5));
            var count = 2 + random.Below(4);
            GrindShot[] shots =
            [
                .. Enumerable
                    .Range(0, count)
                    .Select(i => new GrindShot(
                        1,
                        1,
                        at + ((i % 2) * step),
                        8,
                        15,
                        coffee * Math.Exp((share * (i % 2)) + random.Normal(random.Uniform() < 0.1 ? 0.6 : 0.12))
                    )),
            ];
            var advice = GrindAdvice.Learn(new(step, finerIsLower), shots);
            var suggested = advice.Suggest(1, 1, 8, 15, Wanted)!;
            Assert.True(Math.Sign(advice.PerUnit) == (finerIsLower ? -1 : 1));
            worst = Math.Max(worst, Math.Max(at - suggested.Setting, suggested.Setting - (at + step)) / step);
            // what it would take is further away: that is said
            if (Math.Abs(Math.Log(10 / coffee)) > 6 * 0.25)
                Assert.True(suggested.HeldBack);
        }

        Assert.InRange(worst, 1, 5 + 1e-9);
    }

    [Fact] // a forgotten preheat, a clogged hole: one shot far off does not move the advice of a dozen
    public void One_odd_shot_does_not_drag_the_advice()
    {
        for (ulong seed = 1; seed <= 20; seed++)
        {
            var shots = Shots(10, 0.06, new SeededRandom(seed));
            var before = GrindAdvice.Learn(Clicks, shots).Suggest(1, 1, 11, 15, Wanted)!;
            var odd = shots.Append(new GrindShot(1, 1, 21, 11, 15, R10(21, 11, 15) * (seed % 2 == 0 ? 2.5 : 0.4))).ToList();
            var after = GrindAdvice.Learn(Clicks, odd).Suggest(1, 1, 11, 15, Wanted)!;
            Assert.True(Math.Abs(after.Setting - before.Setting) <= 1, $"{before.Setting} to {after.Setting}");
        }
    }

    [Fact] // common practice: as a bag ages the grind has to go finer, a little every week
    public void Ageing_asks_for_finer_and_more_dose_for_coarser()
    {
        var advice = GrindAdvice.Learn(Clicks, Shots(10, 0.04, new SeededRandom(9)));
        var now = advice.Suggest(1, 1, 9, 15, Wanted)!;
        Assert.True(now.InAWeek < now.Setting + 0.5);
        Assert.True(advice.PerDay < 0);
        // more coffee resists more, so the grind that is wanted for it resists less
        double Ideal(double dose)
        {
            var (machine, _, yield) = FamilyDefaults.Of(MachineFamily.PortableLever);
            var wanted = WantedResistance.Of(ShotConditions.Of(machine, ShippedPlans.EarlyPeak, dose, yield, 93), 31, 37, 44)!;
            var suggested = advice.Suggest(1, 1, 9, dose, wanted)!;
            return (suggested.Low + suggested.High) / 2;
        }

        Assert.True(Ideal(17) > Ideal(15)); // coarser is higher on this scale
    }

    [Fact]
    public void A_scale_that_runs_the_other_way_is_followed()
    {
        var shots = Shots(10, 0.03, new SeededRandom(4)).Select(s => s with { Setting = 40 - s.Setting }).ToArray();
        var advice = GrindAdvice.Learn(new(1, false), shots);
        Assert.True(advice.PerUnit > 0);
        Assert.Equal(19, advice.Suggest(1, 1, 9, 15, Wanted)!.Setting, 1.01);
    }

    [Fact]
    public void A_new_bag_starts_from_the_grinders_others_with_a_wider_interval()
    {
        var advice = GrindAdvice.Learn(Clicks, Shots(12, 0.04, new SeededRandom(6)));
        var known = advice.Suggest(1, 1, 9, 15, Wanted)!;
        var fresh = advice.Suggest(2, 1, 9, 15, Wanted)!;
        Assert.Equal(0, fresh.Shots);
        Assert.True(fresh.High - fresh.Low > 1.5 * (known.High - known.Low));
        Assert.True(fresh.Chance < known.Chance);
        Assert.Null(GrindAdvice.Learn(Clicks, []).Suggest(1, 1, 9, 15, Wanted));
    }

    [Fact] // common practice: a grinder with too few steps cannot be dialled in
    public void Steps_that_are_too_coarse_are_told()
    {
        var shots = Enumerable
            .Range(0, 8)
            .Select(i => new GrindShot(1, 1, i % 3, 8, 15, 10 * Math.Exp(-0.7 * ((i % 3) - 1))))
            .ToArray();
        Assert.True(GrindAdvice.Learn(Clicks, shots).Suggest(1, 1, 8, 15, Wanted)!.TooCoarse);
        Assert.False(GrindAdvice.Learn(Clicks, Shots(10, 0.03, new SeededRandom(2))).Suggest(1, 1, 8, 15, Wanted)!.TooCoarse);
    }

    [Fact]
    public void The_wanted_resistance_gives_the_wanted_time()
    {
        var (machine, dose, yield) = FamilyDefaults.Of(MachineFamily.PortableLever);
        foreach (var plan in new[] { ShippedPlans.EarlyPeak, ShippedPlans.FlatAndFirm, ShippedPlans.LongSoft })
        {
            var unit = ShotConditions.Of(machine, plan, dose, yield, 93);
            var (low, best, high) = plan.LandingSeconds;
            var wanted = WantedResistance.Of(unit, low, best, high)!;
            Assert.True(wanted.Low < wanted.Best && wanted.Best < wanted.High);
            foreach (var (resistivity, seconds) in new[] { (wanted.Low, low), (wanted.Best, best), (wanted.High, high) })
            {
                var shot = SimulatedShot.Pull(GrindResistivity.With(unit, resistivity));
                Assert.Equal(seconds, shot.Seconds, seconds * 0.06);
            }
        }
    }

    [Fact] // the advice is worth having, in both worlds, against chasing the time
    public void The_advice_misses_less_than_chasing_the_time()
    {
        foreach (var world in World.Both)
        {
            var all = Enumerable.Range(1, 12).AsParallel().Select(i => DialingTrial.Household(world, (ulong)i)).ToList();
            int grindByTime = all.Sum(o => o.GrindMissedByTime),
                grindByAdvice = all.Sum(o => o.GrindMissedByAdvice);
            int cupByTime = all.Sum(o => o.CupMissedByTime),
                cupByAdvice = all.Sum(o => o.CupMissedByAdvice);
            output.WriteLine(
                $"{world.Name}: of {all.Sum(o => o.Shots)}, grinds missed {grindByTime} by time, {grindByAdvice} by the "
                    + $"advice; cups out of their time {cupByTime} and {cupByAdvice}"
            );
            Assert.True(grindByAdvice <= 0.5 * grindByTime);
            Assert.True(cupByAdvice <= 0.67 * cupByTime);
        }
    }
}
