using CsCheck;
using RuddySpring.Core.Traces;

namespace RuddySpring.Core.Tests.Traces;

/// <summary>Traces as life makes them: idling before, a gauge that does not rest at zero, a cup that is lifted or left dripping,
/// gaps.</summary>
public sealed class LifelikeTraceTests
{
    private const double Dose = 16;
    private static readonly Gen<LifelikePull> AnyPull =
        from lead in Gen.OneOf(Gen.Const(0.0), Gen.Double[2, 60])
        from pre in Gen.Select(Gen.Bool, Gen.Double[3, 15], (with, s) => with ? (double?)s : null)
        from preBar in Gen.Double[1, 3.5]
        from ramp in Gen.Double[1.5, 5]
        from peak in Gen.Double[6, 9.5]
        from hold in Gen.Double[2, 12]
        from ease in Gen.Double[6, 20]
        from end in Gen.OneOf(Gen.Const(12.0), Gen.Double[3.5, 5])
        from letGo in Gen.Double[0.05, 1.2]
        from flow in Gen.Double[0.8, 2.2]
        from drip in Gen.OneOf(Gen.Const(0.0), Gen.Double[3, 60])
        from dripGrams in Gen.Double[0.6, 4]
        from lifted in Gen.Bool
        from rest in Gen.OneOf(Gen.Const(0.0), Gen.Double[-0.5, 1.0])
        from rate in Gen.Double[10, 100]
        from gap in Gen.Double[0, 1]
        from seed in Gen.ULong
        select WithGap(
            new LifelikePull
            {
                LeadSeconds = lead,
                PreInfusionSeconds = pre,
                PreInfusionBar = preBar,
                RampSeconds = ramp,
                PeakBar = peak,
                HoldSeconds = hold,
                EaseSeconds = ease,
                EndBar = Math.Min(end, peak),
                LetGoSeconds = letGo,
                FlowGramsPerS = flow,
                DripSeconds = drip,
                DripGrams = drip > 0 ? dripGrams : 0,
                CupLifted = lifted,
                GaugeRestBar = rest,
                SamplesPerS = rate,
                Seed = seed,
            },
            gap
        );

    /// <summary>A gap where no moment falls into it: what no instrument saw cannot be told.</summary>
    private static LifelikePull WithGap(LifelikePull pull, double where)
    {
        var m = pull.Moments;
        double[] moments =
        [
            0,
            m.Start!.Value,
            m.FirstPressure!.Value,
            m.FirstDrops!.Value,
            m.Ramp ?? 0,
            m.Peak!.Value,
            m.Ease ?? 0,
            m.Stop!.Value,
            pull.LiftedAt,
        ];
        var at = where * m.Stop.Value;
        return moments.All(s => Math.Abs(s - at - 0.5) > 2) ? pull with { GapAt = at } : pull;
    }

    [Fact]
    public void Any_made_pull_is_read_as_it_was()
    {
        AnyPull.Sample(
            pull =>
            {
                foreach (var origin in new[] { Origin.Measured, Origin.Imported })
                {
                    var reading = MeasureShot.Read(pull.Record(origin), Moments.None, Dose);
                    var (truth, found, measures) = (pull.Moments, reading.Moments, reading.Measures);
                    // times
                    Near(truth.Start, found.Start, pull.LeadSeconds > 0 ? 0.3 : 0.01, "start");
                    Near(truth.FirstPressure, found.FirstPressure, 0.3, "first pressure");
                    Near(truth.FirstDrops, found.FirstDrops, 0.3, "first drops");
                    Near(truth.Stop, found.Stop, 0.3, "stop");
                    // two ends, each within 0.3 s and neither knowing of the other
                    Near(truth.Stop - truth.Start, measures.SecondsFromLever, 0.3 * Math.Sqrt(2), "seconds from lever");
                    Near(truth.Peak, found.Peak, 0.4, "peak"); // the end of a shallow rise lies in the noise
                    // no moment that is not there
                    Near(truth.Ramp, found.Ramp, 0.4, "ramp");
                    Near(truth.Ease, found.Ease, 1.3, "ease"); // a slow turn in noise
                    // figures
                    Near(pull.CupGrams, measures.CupGrams, 0.2, "cup");
                    // a rest too small to be believed is left in
                    var left = Math.Abs(pull.GaugeRestBar) < GaugeRest.LeastBar ? pull.GaugeRestBar : 0;
                    Near(pull.PeakBar + left, measures.PeakBar, 0.2, "peak pressure");
                    Near(
                        pull.TrueGrams(pull.StopAt) / (pull.StopAt - pull.DropsAt),
                        measures.MeanFlowGramsPerS,
                        0.06 * pull.FlowGramsPerS,
                        "mean flow"
                    );
                    // what was corrected is said
                    Said(
                        reading,
                        CorrectionKind.GaugeRest,
                        pull.GaugeRestBar,
                        Math.Abs(pull.GaugeRestBar) > 0.2,
                        Math.Abs(pull.GaugeRestBar) < 0.03,
                        0.1
                    );
                    Said(reading, CorrectionKind.IdleBefore, pull.LeadSeconds, pull.LeadSeconds > 0, pull.LeadSeconds == 0, 0.3);
                    Said(
                        reading,
                        CorrectionKind.CupLifted,
                        pull.LiftedAt - pull.LeadSeconds,
                        pull.CupLifted,
                        !pull.CupLifted,
                        1.0
                    );
                    Said(reading, CorrectionKind.DrippedAfter, pull.DripGrams, pull.DripGrams > 2.1, pull.DripGrams == 0, 0.6);
                }
            },
            iter: 300
        );
    }

    [Fact]
    public void A_gauge_that_drains_slowly_rests_at_its_end()
    {
        var pull = new LifelikePull
        {
            PeakBar = 8.8,
            EndBar = 8.8,
            LetGoSeconds = 1.1,
            GaugeRestBar = -0.37,
        };
        foreach (var seed in Enumerable.Range(0, 20))
        {
            var reading = MeasureShot.Read((pull with { Seed = (ulong)seed }).Record(), Moments.None, Dose);
            Said(reading, CorrectionKind.GaugeRest, -0.37, true, false, 0.07);
        }
    }

    [Fact] // common practice: lifting the lever of a dipper lets the boiler's pressure to the puck again
    public void A_boilers_pressure_after_the_pull_is_neither_pull_nor_rest()
    {
        double[] seconds = [.. Enumerable.Range(0, 500).Select(i => i * 0.1)];
        double Bar(double t) =>
            t < 8 ? 1.1
            : t < 11 ? 1.1 + ((t - 8) * 2.3)
            : t < 34 ? 8
            : 1.1 + (6.9 * Math.Exp(-(t - 34) / 0.3));
        var trace = new Trace([new(Channel.Pressure, Origin.Measured, seconds, [.. seconds.Select(Bar)])]);
        var reading = MeasureShot.Read(trace, Moments.None, new ShotContext(Dose, BoilerOnPuck: true));
        Near(34, reading.Moments.Stop, 0.3, "stop");
        Near(8, reading.Moments.Ramp, 0.5, "ramp");
        Near(8, reading.Measures.PeakBar, 0.05, "peak pressure");
        Assert.Empty(reading.Corrections);
    }

    [Fact]
    public void A_slow_rise_is_no_pre_infusion()
    {
        var pull = new LifelikePull
        {
            RampSeconds = 25,
            PeakBar = 9,
            EndBar = 5,
        };
        foreach (var seed in Enumerable.Range(0, 20))
            Assert.Null(MeasureShot.Read((pull with { Seed = (ulong)seed }).Record(), Moments.None, Dose).Moments.Ramp);
    }

    [Fact] // a bloom is a wait and no idling
    public void A_plan_that_begins_with_a_wait_counts_from_the_records_beginning()
    {
        var pull = new LifelikePull { LeadSeconds = 25, EndBar = 5 };
        Near(
            pull.StopAt,
            MeasureShot.Read(pull.Record(), Moments.None, new ShotContext(Dose, WaitsFirst: true)).Measures.SecondsFromLever,
            0.3,
            "seconds"
        );
        Near(
            pull.StopAt - 25,
            MeasureShot.Read(pull.Record(), Moments.None, new ShotContext(Dose)).Measures.SecondsFromLever,
            0.3,
            "seconds"
        );
    }

    [Fact]
    public void The_stop_is_what_was_said_unless_it_was_let_go_before()
    {
        var pull = new LifelikePull
        {
            EndBar = 5,
            DripSeconds = 20,
            DripGrams = 2,
        };
        var context = new ShotContext(Dose);
        Assert.Null(MeasureShot.StopToMark(pull.Record(), pull.StopAt + 4, context)); // let go, and the button pressed later
        Assert.Equal(pull.StopAt - 3, MeasureShot.StopToMark(pull.Record(), pull.StopAt - 3, context)); // said first
        // nobody saw a pressure: what was said counts
        Assert.Equal(30, MeasureShot.StopToMark(Trace.Empty, 30, context));
    }

    [Fact]
    public void A_cup_that_is_taken_under_pressure_ends_the_shot()
    {
        var pull = new LifelikePull { CupLifted = true };
        var trace = pull.Record();
        var lifted = pull.StopAt - 6;
        var weight = trace.Of(Channel.Weight)!;
        var taken = new Trace([
            trace.Of(Channel.Pressure)!,
            weight with
            {
                Values = [.. weight.Values.Select((v, i) => weight.Seconds[i] > lifted ? -140 : v)],
            },
        ]);
        var reading = MeasureShot.Read(taken, Moments.None, new ShotContext(Dose));
        Near(lifted, reading.Moments.Stop, 0.5, "stop");
        Near(pull.TrueGrams(lifted), reading.Measures.CupGrams, 0.8, "cup"); // the scale had not caught up
    }

    private static void Near(double? truth, double? found, double within, string what)
    {
        if (truth is null)
            Assert.True(found is null, $"{what} at {found:0.00} is not there");
        else
            Assert.True(
                found is { } value && Math.Abs(value - truth.Value) <= within + 1e-9,
                $"{what}: {found:0.00} for {truth:0.00}"
            );
    }

    private static void Said(ShotReading reading, CorrectionKind kind, double truth, bool must, bool mustNot, double within)
    {
        var said = reading.Corrections.SingleOrDefault(c => c.Kind == kind);
        Assert.False(must && said is null, $"{kind} of {truth:0.00} is not said");
        Assert.False(mustNot && said is not null, $"{kind} of {said?.Amount:0.00} is said and is not there");
        if (must)
            Near(truth, said!.Amount, within, kind.ToString());
    }
}
