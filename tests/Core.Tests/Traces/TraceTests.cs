using CsCheck;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Tests.Puck;
using RuddySpring.Core.Traces;
using RuddySpring.Core.Water;

namespace RuddySpring.Core.Tests.Traces;

public sealed class TraceTests
{
    private static readonly PuckParameters Puck = new() { DoseGrams = 15, ResistanceBarSPerMl = 6.5 };

    [Fact] // a lone spike is replaced by its window's median, an instrument's step is not (Hampel 1974)
    public void Hampel_takes_spikes_and_leaves_steps()
    {
        double[] values = [1, 1, 1.1, 1, 9, 1, 1.1, 1, 1];
        var (clean, replaced) = Hampel.Filter(values, 3, 3, 0.2);
        Assert.Equal(1, replaced);
        Assert.Equal(1, clean[4], 1e-12);
        Assert.Equal(0, Hampel.Filter([0, 0, 0, 0.1, 0.1, 0.1, 0.2, 0.2], 3, 3, 0.2).Replaced);
    }

    [Fact] // as it is defined, with both medians of every window
    public void Hampel_is_what_it_is_defined_as()
    {
        static double Median(IEnumerable<double> values)
        {
            double[] sorted = [.. values.Order()];
            return (sorted[(sorted.Length - 1) / 2] + sorted[sorted.Length / 2]) / 2;
        }

        Gen.Double[-3, 3]
            .Array[1, 60]
            .Sample(
                values =>
                {
                    double[] expected =
                    [
                        .. values.Select(
                            (value, i) =>
                            {
                                double[] window = values[Math.Max(0, i - 4)..Math.Min(values.Length, i + 5)];
                                var median = Median(window);
                                var deviation = 1.4826 * Median(window.Select(v => Math.Abs(v - median)));
                                return Math.Abs(value - median) > 1.5 * Math.Max(deviation, 0.25) ? median : value;
                            }
                        ),
                    ];
                    var (filtered, replaced) = Hampel.Filter(values, 4, 1.5, 0.25);
                    Assert.Equal(expected, filtered);
                    Assert.Equal(values.Zip(expected).Count(pair => pair.First != pair.Second), replaced);
                },
                iter: 2000
            );
    }

    [Fact]
    public void Order_duplicates_and_nonsense_are_put_right()
    {
        var ordered = TraceCleaning.Ordered(new(Channel.Pressure, Origin.Imported, [0, 2, 1, 1, 3], [0, 2, 1, 1.5, double.NaN]));
        Assert.Equal([0, 1, 2], ordered.Seconds);
        Assert.Equal([0, 1.5, 2], ordered.Values);
    }

    [Fact]
    public void The_scales_lag_is_taken_out()
    {
        var shot = ReferenceShots.Flat(Puck, 8, 32);
        var clean = TraceCleaning.Clean(ReferenceShots.Noisy(shot, 3));
        var at = 200;
        var truth = shot.Samples.First(s => s.Seconds >= at * clean.StepSeconds).CupGrams;
        Assert.Equal(truth, clean.WeightGrams[at], 0.25);
    }

    [Fact]
    public void Flow_comes_back_from_a_noisy_weight()
    {
        var shot = ReferenceShots.Flat(Puck, 8, 32);
        var clean = TraceCleaning.Clean(ReferenceShots.Noisy(shot, 5));
        var errors = Enumerable
            .Range(100, 120)
            .Select(i =>
            {
                var j = Math.Min(shot.Samples.Count - 2, i);
                var truth =
                    (shot.Samples[j + 1].CupGrams - shot.Samples[j - 1].CupGrams)
                    / (shot.Samples[j + 1].Seconds - shot.Samples[j - 1].Seconds);
                return Math.Abs(clean.FlowGramsPerS[i] - truth);
            });
        Assert.True(errors.Average() < 0.12, $"mean error {errors.Average():0.000} g/s");
    }

    [Fact]
    public void Moments_are_found_where_they_are()
    {
        var shot = PuckShots.Run(Puck, ShippedPlans.EarlyPeak, ReferenceShots.Unlimited, 32);
        foreach (var trace in new[] { ReferenceShots.Perfect(shot), ReferenceShots.Noisy(shot, 11) })
        {
            var moments = MomentFinder.Find(TraceCleaning.Clean(trace));
            Assert.Equal(shot.FirstDropsSeconds!.Value, moments.FirstDrops!.Value, 0.8);
            Assert.Equal(shot.FirstDropsSeconds!.Value, moments.Ramp!.Value, 1.5);
            Assert.InRange(moments.Peak!.Value, moments.Ramp.Value + 3, moments.Ease!.Value);
            Assert.Equal(shot.Seconds, moments.Stop!.Value, 0.3);
        }
    }

    [Fact]
    public void A_marked_moment_takes_the_place_of_the_found_one()
    {
        var found = new Moments(0.5, 7, 8, 12, 15, null, 40);
        var both = found.With(Moments.None with { FirstDrops = 6.2, Blonding = 33 });
        Assert.Equal(6.2, both.FirstDrops);
        Assert.Equal(33, both.Blonding);
        Assert.Equal(40, both.Stop);
    }

    [Fact]
    public void Measures_agree_with_the_shot_they_measure()
    {
        var shot = ReferenceShots.Flat(Puck, 8, 32);
        var (_, moments, measures, _) = MeasureShot.Read(ReferenceShots.Perfect(shot), Moments.None, 15);
        // the perfect record ends as the hand lets go
        var cup = shot.Samples[^1].CupGrams;
        Assert.Equal(cup, measures.CupGrams!.Value, 0.3);
        Assert.Equal(cup / 15, measures.Ratio!.Value, 0.03);
        Assert.Equal(8, measures.PeakBar!.Value, 0.05);
        Assert.Equal(measures.SecondsFromLever!.Value - moments.FirstDrops!.Value, measures.SecondsFromDrops!.Value, 1e-9);
        Assert.Equal(measures.CupGrams!.Value / measures.SecondsFromDrops!.Value, measures.MeanFlowGramsPerS!.Value, 0.02);
        // 8 bar, 1 bar ml = 0.1 J, and the water that left the puck: its grams are no millilitres, and a part of the cup is
        // solids
        var ml = cup * (1 - shot.Strength) / LiquidWater.DensityGramsPerMl(93);
        Assert.Equal(0.8 * ml, measures.WorkJoules!.Value, 1.0);
    }

    [Fact] // by hand: 8 bar for the pull's seconds; a stream that grows by 0.04 g/s each second
    public void Bar_seconds_and_the_flows_slope_are_what_they_are_by_hand()
    {
        double[] at = [.. Enumerable.Range(0, 401).Select(i => i * 0.1)];
        double Bar(double t) => t is > 2 and < 32 ? 8 : 0;
        double Grams(double t) =>
            t < 8 ? 0
            : Math.Min(t, 32) - 8 is var s ? (0.6 * s) + (0.02 * s * s)
            : 0;
        var trace = new Trace([
            new(Channel.Pressure, Origin.Imported, at, [.. at.Select(Bar)]),
            new(Channel.Weight, Origin.Imported, at, [.. at.Select(Grams)]),
        ]);
        var (_, moments, measures, _) = MeasureShot.Read(trace, Moments.None, 15);
        Assert.Equal(8 * (moments.Stop!.Value - moments.FirstPressure!.Value), measures.BarSeconds!.Value, 4.0);
        Assert.InRange(measures.BarSeconds.Value, 225, 245);
        Assert.Equal(0.04, measures.FlowSlope!.Value, 0.01);
    }

    [Theory]
    [InlineData(14, 86)]
    [InlineData(14, 93)]
    [InlineData(18, 86)]
    [InlineData(18, 93)]
    public void One_puck_gives_one_R10_under_every_shipped_plan(double dose, double waterC)
    {
        foreach (var resistance in new[] { 3.0, 5.0, 7.0, 10.0 })
        {
            var puck = new PuckParameters
            {
                DoseGrams = dose,
                ResistanceBarSPerMl = resistance,
                WaterC = waterC,
            };
            foreach (var plan in ShippedPlans.All)
            {
                var shot = PuckShots.Run(puck, plan, ReferenceShots.Unlimited, dose * 2.1);
                var r10 = MeasureShot.Read(ReferenceShots.Perfect(shot), Moments.None, dose, waterC).Measures.R10;
                Assert.InRange(r10!.Value / GrindResistance.Of(puck), 0.95, 1.05);
            }
        }
    }

    [Fact]
    public void R10_from_kitchen_instruments_stays_within_ten_percent() =>
        Gen.Select(Gen.Double[4, 10], Gen.ULong, Gen.Int[0, 2])
            .Sample(
                (resistance, seed, plan) =>
                {
                    var puck = Puck with { ResistanceBarSPerMl = resistance };
                    var shot = PuckShots.Run(puck, ShippedPlans.All[plan], ReferenceShots.Unlimited, 32);
                    var r10 = MeasureShot.Read(ReferenceShots.Noisy(shot, seed), Moments.None, 15).Measures.R10!.Value;
                    return Math.Abs((r10 / GrindResistance.Of(puck)) - 1) < 0.10;
                },
                iter: 60
            );

    [Fact]
    public void R10_is_not_made_up_where_it_cannot_be_known()
    {
        var shot = ReferenceShots.Flat(Puck, 8, 32);
        var whole = ReferenceShots.Perfect(shot);
        var noScale = new Trace([whole.Series[0]]);
        var noGauge = new Trace([whole.Series[1]]);
        Assert.Null(MeasureShot.Read(noScale, Moments.None, 15).Measures.R10);
        Assert.Null(MeasureShot.Read(noGauge, Moments.None, 15).Measures.R10);
        Assert.Null(MeasureShot.Read(ReferenceShots.Perfect(ReferenceShots.Flat(Puck, 8, 8)), Moments.None, 15).Measures.R10);
    }

    [Fact]
    public void Empty_and_tiny_traces_are_measured_without_failing()
    {
        Assert.Null(MeasureShot.Read(Trace.Empty, Moments.None, 15).Measures.CupGrams);
        var one = new Trace([new(Channel.Pressure, Origin.Measured, [0.0], [1.0])]);
        Assert.Equal(1.0, MeasureShot.Read(one, Moments.None, 15).Measures.PeakBar);
    }

    [Fact]
    public void Packing_is_lossless_to_the_quantum() =>
        Gen.Select(Gen.Double[0, 60].Array[0, 300], Gen.Double[-1, 25].Array[300])
            .Sample(
                (times, values) =>
                {
                    double[] seconds = [.. times.Order().Select(t => Math.Round(t, 3))];
                    double[] bars = [.. values.Take(seconds.Length).Select(v => Math.Round(v, 3))];
                    var back = TraceCodec.Decode(TraceCodec.Encode(new([new(Channel.Pressure, Origin.Followed, seconds, bars)])));
                    return back.Series[0].Origin == Origin.Followed
                        && back.Series[0].Seconds.SequenceEqual(seconds)
                        && back.Series[0].Values.SequenceEqual(bars);
                }
            );

    [Fact] // budget: at most 8 bytes a sample of three channels
    public void Packing_is_small()
    {
        var shot = ReferenceShots.Flat(Puck, 8, 32);
        var noisy = ReferenceShots.Noisy(shot, 1);
        var probe = noisy.Series[1] with
        {
            Channel = Channel.Temperature,
            Values = [.. noisy.Series[1].Seconds.Select(s => Math.Round(88 + Math.Sin(s), 1))],
        };
        var trace = new Trace([.. noisy.Series, probe]);
        Assert.True(TraceCodec.Encode(trace).Length <= 8 * shot.Samples.Count);
    }

    [Fact]
    public void Bytes_that_are_no_trace_are_refused()
    {
        Assert.Throws<InvalidDataException>(() => TraceCodec.Decode([1, 2, 3, 4]));
        var good = TraceCodec.Encode(ReferenceShots.Perfect(ReferenceShots.Flat(Puck, 8, 20)));
        Assert.Throws<InvalidDataException>(() => TraceCodec.Decode(good[..(good.Length / 2)]));
    }

    [Fact] // common practice: the cup is drunk before the scale has settled
    public void A_cup_that_is_taken_away_does_not_empty_the_shot()
    {
        double[] seconds = [.. Enumerable.Range(0, 100).Select(i => i * 0.1)];
        double[] weight =
        [
            .. seconds.Select(t =>
                t < 8 ? 4 * t
                : t < 8.2 ? 60
                : -63
            ),
        ];
        var (kept, lifted) = CupOnScale.Of(new(Channel.Weight, Origin.Measured, seconds, weight));
        Assert.InRange(lifted!.Value, 7.8, 8.1);
        Assert.InRange(kept.Seconds[^1], 7.4, 7.7);
        Assert.InRange(kept.Values[^1], 29, 31);
        // put back: the hand in between is left out, the cup stands to the end
        (kept, lifted) = CupOnScale.Of(
            new(
                Channel.Weight,
                Origin.Measured,
                seconds,
                [.. seconds.Select(t => t is > 3 and < 4 ? -140 : Math.Max(0, 4 * (t - 1)))]
            )
        );
        Assert.Null(lifted);
        Assert.Equal(4 * 8.9, kept.Values[^1], 0.1);
        Assert.DoesNotContain(kept.Values, v => v < -1);
        // a cup that is set down before the pull, on a scale that nobody sets to zero
        (kept, lifted) = CupOnScale.Of(
            new(Channel.Weight, Origin.Measured, seconds, [.. seconds.Select(t => t < 2 ? 0 : 143 + Math.Max(0, 4 * (t - 4)))])
        );
        Assert.Null(lifted);
        Assert.Equal(4 * 5.9, kept.Values[^1], 0.1);
        Assert.InRange(kept.Seconds[0], 1.9, 2.1);
    }
}
