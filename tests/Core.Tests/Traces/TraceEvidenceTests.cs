using RuddySpring.Core.Machines;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Shots;
using RuddySpring.Core.Tests.Coaching;
using RuddySpring.Core.Tests.SecondWorld;
using RuddySpring.Core.Traces;

namespace RuddySpring.Core.Tests.Traces;

/// <summary>What a recorded trace says beside its numbers: gaps, a channel, resistance against grams, the arm beside its
/// plan.</summary>
public sealed class TraceEvidenceTests(ITestOutputHelper output)
{
    private static Trace TraceOf(CoachedPull pull) =>
        new([
            new(Channel.Pressure, Origin.Measured, [.. pull.Pressures.Select(p => p.At)], [.. pull.Pressures.Select(p => p.Bar)]),
            new(Channel.Weight, Origin.Measured, [.. pull.Weights.Select(w => w.At)], [.. pull.Weights.Select(w => w.Grams)]),
        ]);

    private static ChannelEvidence? Sign(Trace trace, double dose = 15)
    {
        var (clean, moments) = MeasureShot.Read(trace, Moments.None, dose, 90).SinceLever;
        return ChannelEvidence.Of(ResistanceCourse.Of(clean, moments, 90), moments, dose);
    }

    private static Trace Without(Trace trace, Channel channel, double from, double to) =>
        new([
            .. trace.Series.Select(s =>
                s.Channel != channel
                    ? s
                    : s with
                    {
                        Seconds = [.. s.Seconds.Where(t => t < from || t > to)],
                        Values = [.. s.Values.Where((_, i) => s.Seconds[i] < from || s.Seconds[i] > to)],
                    }
            ),
        ]);

    [Fact]
    public void A_channel_is_found_in_the_record_and_none_is_made_up()
    {
        int found = 0,
            madeUp = 0;
        const int each = 30;
        for (ulong seed = 1; seed <= each; seed++)
        {
            var whole = new CoachedPull(seed, ShippedPlans.FlatAndFirm, resistance: 3.5);
            whole.Run();
            if (Sign(TraceOf(whole)) is not null)
                madeUp++;
            if (SaysWhereItOpened(new CoachedPull(seed, ShippedPlans.FlatAndFirm, resistance: 3.5), 15))
                found++;
        }

        output.WriteLine($"{found} of {each} channels found, {madeUp} made up");
        Assert.True(found >= each * 0.8);
        Assert.True(madeUp <= each * 0.07);
    }

    /// <summary>Pulls with a channel that opens at 9 g in the cup; whether its trace tells of it there.</summary>
    private static bool SaysWhereItOpened(CoachedPull pull, double dose)
    {
        double? opened = null;
        pull.Run(
            happens: (t, puck) =>
            {
                if (opened is not null || puck.CupGrams <= 9)
                    return;
                opened = t;
                puck.OpenChannel(6);
            }
        );
        return Sign(TraceOf(pull), dose) is { } sign && sign.AtSeconds > opened - 2 && sign.AtSeconds < opened + 4;
    }

    /// <summary>A lever whose stroke gives less than the cup is lifted again on the way.</summary>
    [Fact]
    public void The_second_stroke_of_a_lever_is_not_taken_for_a_channel()
    {
        int strokes = 0,
            madeUp = 0,
            found = 0;
        const int each = 60;
        for (ulong seed = 1; seed <= each; seed++)
        {
            var pull = Dipper(seed);
            pull.Run();
            var trace = TraceOf(pull);
            if (Lifted([.. pull.Pressures.Select(p => p.Bar)]))
                strokes++;
            if (Sign(trace, 14) is not null)
                madeUp++;
            if (seed % 3 == 0 && SaysWhereItOpened(Dipper(seed), 14))
                found++;
        }

        output.WriteLine($"{strokes} of {each} lifted again, {madeUp} channels made up, {found} of {each / 3} found");
        Assert.True(strokes >= each * 0.8);
        Assert.True(madeUp <= each * 0.03);
        Assert.True(found >= each / 3 * 0.8);
    }

    private static CoachedPull Dipper(ulong seed) =>
        new(seed, ShippedPlans.FlatAndFirm, resistance: 3 + (0.5 * (seed % 12)), MachineFamily.BoilerDirect, dose: 14, yield: 32);

    /// <summary>Whether the pressure fell to nearly nothing and came back.</summary>
    private static bool Lifted(List<double> bar)
    {
        var peak = bar.FindIndex(p => p > 5);
        var low = peak < 0 ? -1 : bar.FindIndex(peak, p => p < 2);
        return low >= 0 && bar.FindIndex(low, p => p > 5) >= 0;
    }

    [Fact] // layers, moving fines and an opening bed are no channels
    public void Pucks_of_other_physics_are_not_taken_for_channels()
    {
        var madeUp = 0;
        const int each = 40;
        for (var i = 0; i < each; i++)
        {
            var seed = (ulong)((2 * i) + 61001);
            var plan = R10Tests.Arms[i % R10Tests.Arms.Length];
            var strong = FamilyDefaults.Of(MachineFamily.PortableLever).Machine with { WillingForceKgf = 40, ChamberMl = 120 };
            var house = World.Other.Household(seed);
            if (Sign(World.Record(house.Pull(ShotConditions.Of(strong, plan, 15, 32, 91), 1, seed), 32).Trace) is not null)
                madeUp++;
        }

        output.WriteLine($"{madeUp} of {each} made up in the other world");
        Assert.True(madeUp <= each * 0.1);
    }

    /// <summary>The other world's arm lifts where its plan says so.</summary>
    [Fact]
    public void A_second_stroke_through_a_puck_of_other_physics_is_not_taken_for_a_channel()
    {
        int strokes = 0,
            madeUp = 0;
        const int each = 40;
        var twice = ShippedPlans.FlatAndFirm with
        {
            Phases =
            [
                .. ShippedPlans.FlatAndFirm.Phases.Take(2),
                new("hold", 7.5, PhaseEnding.YieldShare, 0.55, 0, 90, "Hold {bar}"),
                new("lift", 0.2, PhaseEnding.Seconds, 2, 0, 2, "Lift"),
                new("hold", 7.5, PhaseEnding.YieldShare, 1.0, 0, 90, "Hold {bar}"),
            ],
        };
        var strong = FamilyDefaults.Of(MachineFamily.PortableLever).Machine with { WillingForceKgf = 40, ChamberMl = 120 };
        for (ulong seed = 71001; seed < 71001 + each; seed++)
        {
            var house = World.Other.Household(seed);
            var trace = World.Record(house.Pull(ShotConditions.Of(strong, twice, 15, 32, 91), 1, seed), 32).Trace;
            if (Lifted([.. trace.Of(Channel.Pressure)!.Values]))
                strokes++;
            if (Sign(trace) is not null)
                madeUp++;
        }

        output.WriteLine($"{strokes} of {each} lifted again, {madeUp} channels made up in the other world");
        Assert.True(strokes >= each * 0.8);
        Assert.True(madeUp <= each * 0.1);
    }

    [Fact]
    public void A_gap_is_said_with_its_length_and_nothing_is_measured_from_it()
    {
        var pull = new CoachedPull(12, ShippedPlans.EarlyPeak, resistance: 5);
        pull.Run();
        var trace = TraceOf(pull);
        var whole = MeasureShot.Read(trace, Moments.None, 15, 90);
        Assert.DoesNotContain(whole.Corrections, c => c.Kind == CorrectionKind.Gap);
        var drops = whole.Moments.FirstDrops!.Value;
        var holed = MeasureShot.Read(Without(trace, Channel.Pressure, drops, drops + 6), Moments.None, 15, 90);
        Assert.Equal(6, Assert.Single(holed.Corrections, c => c.Kind == CorrectionKind.Gap).Amount, 0.4);
        Assert.NotNull(whole.Measures.R10);
        Assert.Null(holed.Measures.R10);
        var (clean, _) = holed.SinceLever;
        Assert.DoesNotContain(ResistanceCourse.Of(clean, holed.SinceLever.Moments, 90), p =>
            p.Seconds > drops + 0.3 && p.Seconds < drops + 5.7
        );
        // a scale that sends once a second has no gaps for that
        var slow = new Trace([
            .. trace.Series.Select(s =>
                s.Channel != Channel.Weight
                    ? s
                    : s with
                    {
                        Seconds = [.. s.Seconds.Where((_, i) => i % 10 == 0)],
                        Values = [.. s.Values.Where((_, i) => i % 10 == 0)],
                    }
            ),
        ]);
        Assert.DoesNotContain(MeasureShot.Read(slow, Moments.None, 15, 90).Corrections, c => c.Kind == CorrectionKind.Gap);
    }

    // Darcy's law: 6 bar at 1.5 g/s of coffee with a tenth of solids at 93 degC (0.963 g/ml) is 6 / (1.5 * 0.9 / 0.963) = 4.28
    // bar s/ml
    [Fact]
    public void Resistance_is_pressure_over_the_water_that_flows()
    {
        double[] seconds = [.. Enumerable.Range(0, 400).Select(i => i * 0.1)];
        var trace = new Trace([
            new(
                Channel.Pressure,
                Origin.Imported,
                seconds,
                [
                    .. seconds.Select(t =>
                        t < 0.5 ? 0.0
                        : t < 35 ? 6.0
                        : 0.0
                    ),
                ]
            ),
            new(Channel.Weight, Origin.Imported, seconds, [.. seconds.Select(t => Math.Clamp((t - 5) * 1.5, 0, 45))]),
        ]);
        var (clean, moments) = MeasureShot.Read(trace, Moments.None, 15, 93).SinceLever;
        var course = ResistanceCourse.Of(clean, moments, 93);
        Assert.True(course.Count > 40);
        Assert.All(course.Where(p => p.Grams is > 4 and < 40), p => Assert.Equal(4.28, p.ResistanceBarSPerMl, 0.05));
    }

    [Fact] // a small hole's back-pressure is no resistance of a grind
    public void Behind_a_small_hole_there_is_no_R10()
    {
        var pull = new CoachedPull(12, ShippedPlans.EarlyPeak, resistance: 5);
        pull.Run();
        Assert.NotNull(MeasureShot.Read(TraceOf(pull), Moments.None, new ShotContext(15, 90)).Measures.R10);
        Assert.Null(MeasureShot.Read(TraceOf(pull), Moments.None, new ShotContext(15, 90, Restricted: true)).Measures.R10);
    }

    [Fact]
    public void An_arm_that_follows_its_plan_is_inside_and_one_that_presses_harder_is_off_by_what_it_presses()
    {
        PlanDistance Of(double harder)
        {
            var pull = new CoachedPull(31, ShippedPlans.EarlyPeak, resistance: 5);
            pull.Run();
            var trace = TraceOf(pull);
            trace = new([
                .. trace.Series.Select(s =>
                    s.Channel == Channel.Pressure ? s with { Values = [.. s.Values.Select(v => v > 1.5 ? v + harder : v)] } : s
                ),
            ]);
            var (clean, moments) = MeasureShot.Read(trace, Moments.None, 15, 90).SinceLever;
            return PlanDistance.Of(ShippedPlans.EarlyPeak, 32, clean, moments)!;
        }

        var (good, hard) = (Of(0), Of(1.5));
        Assert.True(good.Phases.Count >= 3);
        Assert.True(good.Phases.Average(p => p.InsideShare) > 0.6, $"{good.Phases.Average(p => p.InsideShare)}");
        Assert.True(hard.Phases.Average(p => p.InsideShare) < 0.4);
        Assert.Equal(1.5, hard.Phases[^1].OffBar - good.Phases[^1].OffBar, 0.3);
        Assert.InRange(good.ShakeBar!.Value, 0.01, 0.5);
        Assert.Equal(0, good.Missed);
    }

    // a sine of 0.3 bar over a second and a half has a root mean square of 0.21 bar; a window of a second takes some of it with
    // it
    [Fact]
    public void Shake_is_what_a_hand_does_about_its_own_mean()
    {
        double Shake(double amplitude) =>
            ArmShake
                .Of(
                    [.. Enumerable.Range(0, 200).Select(i => 6 + (amplitude * Math.Sin(i * 0.1 * 2 * Math.PI / 0.7)))],
                    [.. Enumerable.Repeat(6.0, 200)],
                    5
                )!
                .Value;
        Assert.Equal(0, Shake(0), 1e-9);
        Assert.InRange(Shake(0.3), 0.15, 0.26);
        Assert.Equal(2, Shake(0.3) / Shake(0.15), 1e-6);
        Assert.Null(ArmShake.Of([1, 2, 3], [1, 2, 3], 5));
    }
}
