using RuddySpring.Core;
using RuddySpring.Core.Tests.Coaching;
using RuddySpring.Instruments;

namespace RuddySpring.Measure;

/// <summary>
/// How near the coach comes to what can be known at all. Beside him a particle filter (Gordon, Salmond and Smith 1993, "Novel approach to
/// nonlinear/non-Gaussian Bayesian state estimation", IEE Proceedings F 140: sampling, weighting, resampling) hears the same gauge and scale;
/// unlike him it knows the stand-in's own statistics: its lanes, constants, wandering and lags.
/// </summary>
public static class CoachLimit
{
    private const int Pucks = 100;
    private const int Particles = 1500;
    private const double FlowMlPerS = 1.2;
    private const double AfterDropsSeconds = 2.0;
    private const double Within = 0.10;
    private const double StepSeconds = 0.05;
    private const double ScaleSdGrams = 0.067;    // shaken by 0.06 g, rounded to 0.1 g
    private const double QuietScaleSdGrams = 0.035;

    private sealed record Particle(StandInPuck Puck)
    {
        public double ShownGrams { get; set; }

        public Particle Copy() => new(new StandInPuck(Puck)) { ShownGrams = ShownGrams };
    }

    /// <summary>Pressure that holds 1.2 ml/s two seconds after first drops, over pucks where 10 bar or less do.</summary>
    public static IEnumerable<Row> Measure()
    {
        var misses = new List<(double Coach, double Filter)>();
        Parallel.For(1, Pucks + 1, seed =>
        {
            if (Misses((ulong)seed) is not { } miss) return;
            lock (misses) misses.Add(miss);
        });
        double Rms(Func<(double Coach, double Filter), double> of) => Math.Sqrt(misses.Average(m => of(m) * of(m)));
        double Share(Func<(double Coach, double Filter), double> of) => misses.Average(m => Math.Abs(of(m)) <= Within ? 100.0 : 0.0);
        yield return Row.AtMost(
            FormattableString.Invariant($"coach: hold pressure off by more than 10 %, 2 s after first drops (that filter: {100 - Share(m => m.Filter):0.0} %)"),
            100 - Share(m => m.Coach), "% of pucks", 10);
        yield return Row.AtMost("coach: error of the hold pressure over that of a filter that knows the stand-in", Rms(m => m.Coach) / Rms(m => m.Filter), "ratio", 1.1);
    }

    private static (double Coach, double Filter)? Misses(ulong seed)
    {
        var pull = new CoachedPull(seed);
        double? truth = null, told = null, at = null;
        pull.Run(
            (t, _) =>
            {
                if (at is not null || pull.Seen is not { } drops || t < drops + AfterDropsSeconds) return;
                (at, truth, told) = (t, pull.TrueHoldBar(FlowMlPerS), pull.Coach.HoldBar(FlowMlPerS * pull.Coach.Watch.GramsPerMl));
            },
            longest: 60);
        return truth is <= 10 && told is { } bar && at is { } until
            ? ((bar / truth.Value) - 1, (Filtered(pull, until, new SeededRandom(seed + 100_000)) / truth.Value) - 1)
            : null;
    }

    private static double Filtered(CoachedPull pull, double until, SeededRandom random)
    {
        var particles = Enumerable.Range(0, Particles).Select(_ => new Particle(new StandInPuck(
            random, pull.Expected.WithResistance(pull.Expected.Bed.ResistanceBarSPerMl * Math.Exp(random.Normal(pull.ExpectedSd)))))).ToArray();
        var weights = new double[Particles];
        Array.Fill(weights, 1.0 / Particles);
        int pressure = 0, weighing = 0;
        var bar = 0.0;
        var lag = pull.Expected.Path.ShareThatShows(StepSeconds);
        for (var step = 1; step * StepSeconds <= until + 1e-9; step++)
        {
            var t = step * StepSeconds;
            var before = bar;
            while (pressure < pull.Pressures.Count && pull.Pressures[pressure].At <= t + 1e-9) bar = pull.Pressures[pressure++].Bar;
            foreach (var particle in particles)
            {
                particle.Puck.Step(Math.Max(0, (before + bar) / 2), StepSeconds);
                particle.ShownGrams += (particle.Puck.CupGrams - particle.ShownGrams) * lag;
            }

            for (; weighing < pull.Weights.Count && pull.Weights[weighing].At <= t + 1e-9; weighing++)
            {
                Weigh(particles, weights, pull.Weights[weighing].Grams);
                if (1 / weights.Sum(w => w * w) < Particles / 3.0) particles = Resampled(particles, weights, random);
            }
        }

        return MostProbable([.. particles.Select((p, i) => (CoachedPull.HoldBar(p.Puck, FlowMlPerS) ?? 12.0, weights[i]))]);
    }

    private static void Weigh(Particle[] particles, double[] weights, double grams)
    {
        for (var i = 0; i < particles.Length; i++)
        {
            var sd = particles[i].Puck.FallingGramsPerS > 0.02 ? ScaleSdGrams : QuietScaleSdGrams;
            var off = (grams - particles[i].ShownGrams) / sd;
            weights[i] *= Math.Exp(-0.5 * Math.Min(off * off, 60)) / sd;
        }

        var sum = weights.Sum();
        for (var i = 0; i < weights.Length; i++) weights[i] = sum > 0 ? weights[i] / sum : 1.0 / weights.Length;
    }

    /// <summary>Systematic resampling.</summary>
    private static Particle[] Resampled(Particle[] particles, double[] weights, SeededRandom random)
    {
        var next = new Particle[particles.Length];
        double at = random.Uniform() / particles.Length, reached = weights[0];
        int from = 0, last = -1;
        for (var i = 0; i < next.Length; i++, at += 1.0 / next.Length)
        {
            while (at > reached && from < particles.Length - 1) reached += weights[++from];
            next[i] = from == last ? particles[from].Copy() : particles[from];
            last = from;
        }

        Array.Fill(weights, 1.0 / weights.Length);
        return next;
    }

    /// <summary>The pressure that has the most of the probability within a tenth of it.</summary>
    private static double MostProbable((double Bar, double Weight)[] held) =>
        held.Where((_, i) => i % 5 == 0).MaxBy(c => held.Where(h => Math.Abs((c.Bar / h.Bar) - 1) <= Within).Sum(h => h.Weight)).Bar;
}
