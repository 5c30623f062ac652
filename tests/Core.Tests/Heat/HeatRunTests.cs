using CsCheck;
using RuddySpring.Core.Heat;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Water;

namespace RuddySpring.Core.Tests.Heat;

public sealed class HeatRunTests
{
    private static readonly Machine Dipper = FamilyDefaults.Of(MachineFamily.BoilerDirect).Machine with { BoilerGaugeBar = 1.1 };
    private static readonly Machine Spring = FamilyDefaults.Of(MachineFamily.BoilerSpring).Machine;

    // switched on, bled when its gauge first moves, as people do it
    private static readonly HeatEvent[] Warm = [new(HeatEventKind.On, 0), new(HeatEventKind.Bleed, 325, 14)];

    private static HeatRun Dip(double untilMinutes, params HeatEvent[] more) =>
        HeatRun.Play(Dipper, 20, 0, [.. Warm, .. more], untilMinutes * 60);

    [Theory] // common practice on a small dipper at sea level in a room at 20 degC
    [InlineData(20, 72, 1.5)]
    [InlineData(25, 76, 1.5)]
    [InlineData(150, 81, 1.5)]
    public void A_dippers_group_warms_as_people_report(double minutes, double expected, double tolerance) =>
        Assert.Equal(expected, Dip(minutes).GroupC, tolerance);

    [Fact] // common practice: the boiler is at its set pressure after about 8 min
    public void A_dippers_boiler_is_up_after_about_eight_minutes()
    {
        var run = Dip(12);
        var up = run.Points.First(p => p.GaugeBar >= 1.0 && p.Seconds > 345).Seconds / 60;
        Assert.InRange(up, 7, 9.5);
        Assert.Equal(122.0, run.SetC, 0.1); // IAPWS-IF97: 1.1 bar gauge at sea level
    }

    // common practice: about 5 K a shot, 95 degC after five shots 3 min apart; the third lever-up is in the band, the fourth is
    // out
    [Fact]
    public void Shots_in_a_row_heat_the_group_out_of_its_band()
    {
        var shots = Enumerable.Range(0, 5).Select(i => new HeatEvent(HeatEventKind.Shot, 1500 + (i * 180), 30, 45, 14)).ToArray();
        var run = Dip(25 + 15, shots);
        var first = run.Points.First(p => p.Seconds >= 1530).GroupC - run.Shots[0].LeverUpC;
        Assert.InRange(first, 4, 6.5);
        Assert.InRange(run.Shots[2].LeverUpC, 70, 85);
        Assert.True(run.Shots[3].LeverUpC > 85, $"{run.Shots[3].LeverUpC}");
        var after = run.Points.Where(p => p.Seconds <= 1500 + (4 * 180) + 60).Max(p => p.GroupC);
        Assert.InRange(after, 91, 98);
        Assert.All(run.Shots, s => Assert.True(s.Course.Points[^1].WaterC >= s.Course.StartC())); // the group warms under it
        Assert.InRange(run.Shots[0].WaterC, 88, 93.5); // 88 to 92 at the puck, give or take the probe
    }

    [Fact] // steam is water that is gone: 14 g of it are 14 g less in the boiler
    public void Steam_takes_its_water_out_of_the_boiler()
    {
        var before = Dip(14).WaterGrams;
        Assert.Equal(14, before - Dip(16, new HeatEvent(HeatEventKind.Steam, 840, 60, 14)).WaterGrams, 0.5);
    }

    [Fact] // water that stood in the cold metal through a bloom has cooled by the time that it is pressed
    public void A_bloom_is_no_part_of_the_water_that_is_pressed()
    {
        var portable = FamilyDefaults.Of(MachineFamily.PortableLever).Machine;
        double Water(double bloom) =>
            HeatRun.Play(portable, 20, 0, [new(HeatEventKind.Shot, 0, 60, 58, 15, 95, bloom)], 80).Shots[0].WaterC;
        Assert.True(Water(30) < Water(0) - 0.5, $"{Water(30)} {Water(0)}");
        Assert.True(Water(50) < Water(30) - 0.1);
    }

    [Fact] // the chamber of a kettle machine cools while it is pressed: a course that falls, about its mean
    public void A_kettle_shot_has_a_course_that_falls_from_when_it_is_pressed()
    {
        var portable = FamilyDefaults.Of(MachineFamily.PortableLever).Machine;
        var shot = HeatRun.Play(portable, 20, 0, [new(HeatEventKind.Shot, 0, 60, 58, 15, 95, 30)], 80).Shots[0];
        Assert.InRange(shot.Course.Points[0].Seconds, 0, 2);
        Assert.InRange(shot.Course.Points[^1].Seconds, 28, 30);
        Assert.True(shot.Course.Points.Zip(shot.Course.Points.Skip(1)).All(p => p.Second.WaterC < p.First.WaterC));
        Assert.InRange(shot.WaterC, shot.Course.Points[^1].WaterC, shot.Course.StartC());
    }

    [Fact] // open to the air, water is never hotter than it boils: 93.3 degC at 2000 m (IAPWS-IF97, ISO 2533)
    public void Water_at_the_puck_is_never_above_boiling_and_the_steam_is_said()
    {
        var shots = Enumerable.Range(0, 6).Select(i => new HeatEvent(HeatEventKind.Shot, 1500 + (i * 90), 30, 45, 14)).ToArray();
        var run = HeatRun.Play(
            FamilyDefaults.Of(MachineFamily.BoilerDirect).Machine,
            20,
            2000,
            [new(HeatEventKind.On, 0), new(HeatEventKind.Bleed, 345, 14), .. shots],
            2100
        );
        Assert.All(run.Shots, s => Assert.All(s.Course.Points, p => Assert.True(p.WaterC <= 93.35)));
        Assert.True(run.Shots[^1].FlashedK > 1);
        Assert.Contains(run.Notices, n =>
            n.Kind == HeatNoticeKind.WaterFlashes && n.Sentence().Contains("steam", StringComparison.Ordinal)
        );
    }

    [Fact]
    public void A_boiler_that_runs_dry_says_so_and_holds_nothing_less_than_nothing()
    {
        var shots = Enumerable
            .Range(0, 10)
            .Select(i => new HeatEvent(HeatEventKind.Shot, 1500 + (i * 120), 30, 100, 14))
            .ToArray();
        var run = Dip(48, shots);
        Assert.Equal(0, run.WaterGrams);
        var dry = run.Notices.Where(n => n.Kind == HeatNoticeKind.BoilerRunsDry).ToArray();
        // ten times 100 g out of 760: 240 g were not there
        Assert.InRange(dry.Sum(n => n.Amount), 215, 245);
        Assert.Contains(run.Notices, n => n.Kind == HeatNoticeKind.ElementUncovered && n.AtSeconds < dry[0].AtSeconds);
        Assert.True(
            Math.Abs(
                run.Account.StoredJ
                    - (
                        run.Account.StoredAtStartJ
                        + run.Account.HeaterJ
                        + run.Account.BroughtJ
                        - run.Account.LostJ
                        - run.Account.CarriedJ
                    )
            ) < 1e-3
        );
    }

    [Fact]
    public void A_refill_beyond_the_boilers_volume_is_said_and_the_rest_stays_out()
    {
        var run = HeatRun.Play(
            FamilyDefaults.Of(MachineFamily.BoilerDirect).Machine,
            20,
            0,
            [new(HeatEventKind.Refill, 60, 0, 400)],
            120
        );
        // 900 ml of boiler less 5 ml, at 0.998 g/ml, held 760 g
        Assert.Equal(893.4, run.WaterGrams, 0.5);
        var notice = Assert.Single(run.Notices);
        Assert.Equal(HeatNoticeKind.RefillDoesNotFit, notice.Kind);
        Assert.Equal(266.6, notice.Amount, 0.5);
        Assert.Contains("1 min", notice.Sentence(), StringComparison.Ordinal);
        Assert.Empty(Dip(40).Notices);
    }

    [Fact] // common practice: 72 degC again after 15 min switched off
    public void Switched_off_it_cools_back()
    {
        var shots = Enumerable.Range(0, 3).Select(i => new HeatEvent(HeatEventKind.Shot, 1500 + (i * 180), 30, 45, 14)).ToArray();
        var run = Dip(46, [.. shots, new(HeatEventKind.Off, 1500 + 390)]);
        Assert.InRange(run.GroupC, 66, 77);
    }

    [Fact] // common practice: with an insulating joint the group settles near 66 and more shots fit in its band
    public void An_insulating_joint_raises_the_number_of_shots()
    {
        var joined = Dipper with { Heat = HeatConstants.Of(Dipper) with { InsulatingJoint = true } };
        Assert.Equal(66, HeatRun.Play(joined, 20, 0, Warm, 9000).GroupC, 1.5);
        Assert.True(InBand(joined) > InBand(Dipper));

        static int InBand(Machine machine)
        {
            var flush = new HeatEvent(HeatEventKind.Flush, 1420, 8, 30);
            var shots = Enumerable.Range(0, 8).Select(i => new HeatEvent(HeatEventKind.Shot, 1500 + (i * 180), 30, 45, 14));
            var run = HeatRun.Play(machine, 20, 0, [.. Warm, flush, .. shots], 3600);
            return run.Shots.TakeWhile(s => s.LeverUpC <= 85).Count();
        }
    }

    [Fact] // common practice: a blank flush is worth 3 to 5 K, a cloth takes several in a minute
    public void Flush_and_cloth_move_the_group()
    {
        var before = Dip(25).GroupC;
        var flushed = Dip(25.3, new HeatEvent(HeatEventKind.Flush, 1500, 10, 30)).GroupC;
        Assert.InRange(flushed - before, 2, 5.5);
        var clothed = Dip(27, new HeatEvent(HeatEventKind.Cloth, 1500, 120)).GroupC;
        Assert.InRange(before - clothed, 12, 35);
    }

    [Fact] // an unbled boiler at 1.1 bar gauge is only at about 84 to 92 degC, and says so behind its gauge
    public void Unbled_the_element_goes_off_while_the_water_is_cool()
    {
        var run = HeatRun.Play(Dipper, 20, 0, [new(HeatEventKind.On, 0)], 900);
        var off = run.ElementChanges.First(c => !c.On).Seconds;
        var then = run.Points.Last(p => p.Seconds <= off);
        Assert.InRange(then.BoilerC!.Value, 84, 92.5);
        Assert.Equal(1.1, run.Points.First(p => p.Seconds >= off).GaugeBar!.Value, 0.06);
    }

    [Fact]
    public void Spring_machine_is_stable_in_its_band()
    {
        var shots = Enumerable.Range(0, 5).Select(i => new HeatEvent(HeatEventKind.Shot, 2700 + (i * 180), 45, 53, 16)).ToArray();
        var run = HeatRun.Play(Spring, 20, 0, [new(HeatEventKind.On, 0), new(HeatEventKind.Bleed, 600, 15), .. shots], 3600);
        Assert.All(run.Shots, s => Assert.InRange(s.LeverUpC, 82, 98));
        Assert.InRange(run.Shots[^1].LeverUpC - run.Shots[0].LeverUpC, 0, 4);
        Assert.InRange(run.Shots[0].WaterC, 88, 99);
    }

    [Fact]
    public void Energy_is_conserved_over_any_run()
    {
        var kinds = new[]
        {
            HeatEventKind.On,
            HeatEventKind.Off,
            HeatEventKind.Bleed,
            HeatEventKind.Flush,
            HeatEventKind.Shot,
            HeatEventKind.Cloth,
            HeatEventKind.Steam,
            HeatEventKind.Refill,
            HeatEventKind.PortafilterOut,
            HeatEventKind.PortafilterIn,
            HeatEventKind.FillAndHold,
            HeatEventKind.SteamBath,
        };
        var events = Gen.Select(
                Gen.Int[0, kinds.Length - 1],
                Gen.Double[0, 5000],
                Gen.Double[1, 120],
                Gen.Double[1, 60],
                Gen.Double[60, 99]
            )
            .Select((k, at, s, g, c) => new HeatEvent(kinds[k], at, s, g, 14, c))
            .Array[0, 14];
        Gen.Select(
                events,
                Gen.OneOf(
                    new[]
                    {
                        MachineFamily.BoilerDirect,
                        MachineFamily.BoilerSpring,
                        MachineFamily.PortableLever,
                        MachineFamily.HeatedGroup,
                    }
                        .Select(Gen.Const)
                        .ToArray()
                )
            )
            .Sample(
                (list, family) =>
                {
                    var run = HeatRun.Play(
                        FamilyDefaults.Of(family).Machine,
                        18,
                        1640,
                        list.Prepend(new HeatEvent(HeatEventKind.On, 0)),
                        6000,
                        records: false
                    );
                    var a = run.Account;
                    var balance = a.StoredAtStartJ + a.HeaterJ + a.BroughtJ - a.LostJ - a.CarriedJ;
                    return Math.Abs(balance - a.StoredJ)
                        <= 1e-9 * Math.Max(1e6, a.HeaterJ + Math.Abs(a.BroughtJ) + Math.Abs(a.CarriedJ));
                },
                iter: 300
            );
    }

    [Fact] // ordering: a longer rest with the heat off never leaves more energy in boiler and group together
    public void A_longer_rest_never_leaves_more_energy()
    {
        Gen.Select(Gen.Double[400, 3000], Gen.Double[10, 1500], Gen.Double[1, 900])
            .Sample(
                (off, rest, longer) =>
                {
                    var events = new HeatEvent[] { new(HeatEventKind.On, 0), new(HeatEventKind.Off, off) };
                    var sooner = HeatRun.Play(Dipper, 20, 500, events, off + rest, false).Account.StoredJ;
                    var later = HeatRun.Play(Dipper, 20, 500, events, off + rest + longer, false).Account.StoredJ;
                    return later <= sooner + 1e-6;
                },
                iter: 100
            );
    }

    [Fact]
    public void A_copy_goes_on_exactly_as_the_original()
    {
        var run = Dip(22);
        var copy = run.Clone();
        copy.Add(new(HeatEventKind.Shot, copy.Seconds, 30, 45, 14));
        run.Add(new(HeatEventKind.Shot, run.Seconds, 30, 45, 14));
        copy.AdvanceTo(2000);
        run.AdvanceTo(2000);
        Assert.Equal(run.GroupC, copy.GroupC, 2e-3);
        Assert.Equal(run.WaterGrams, copy.WaterGrams, 1e-9);
    }

    [Fact]
    public void Readings_pull_the_curve_and_narrow_it_and_the_doubt_returns()
    {
        var run = Dip(20);
        var (before, doubt) = (run.GroupC, run.PlusMinusK);
        run.CorrectGroup(before + 6, 1);
        Assert.InRange(run.GroupC, before + 4, before + 6);
        Assert.True(run.PlusMinusK < 1.1);
        run.AdvanceTo(run.Seconds + 3600);
        Assert.InRange(run.PlusMinusK, doubt - 0.7, 4.01);
        var hot = run.GroupC;
        run.CorrectGroupOneSided(60, atLeast: true, 1);
        Assert.Equal(hot, run.GroupC);
        run.CorrectBoilerByGauge(0.5);
        Assert.Equal(Saturation.BoilerTemperatureC(0.5, 0), run.BoilerC!.Value, 0.01);
    }

    [Fact]
    public void Wrong_input_is_named()
    {
        Assert.Throws<FieldRangeException>(() => new HeatRun(Dipper, 20, 12000));
        Assert.Equal("ambientC", Assert.Throws<FieldRangeException>(() => new HeatRun(Dipper, 80, 0)).Range.Field);
        var wrong = Dipper with
        {
            Heat = new HeatConstants { FillGrams = 100, MinimumGrams = 350 },
        };
        Assert.Equal("minimumGrams", Assert.Throws<DoesNotFitException>(() => new HeatRun(wrong, 20, 0)).Field);
    }
}
