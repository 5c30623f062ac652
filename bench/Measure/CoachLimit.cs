using System.Globalization;
using RuddySpring.Core;
using RuddySpring.Core.Tests.SecondWorld;

namespace RuddySpring.Measure;

/// <summary>
/// How near the coach comes to what can be known at all, in both worlds. Beside him a particle filter (Gordon, Salmond and Smith
/// 1993, "Novel approach to nonlinear/non-Gaussian Bayesian state estimation", IEE Proceedings F 140: sampling, weighting,
/// resampling) hears the same gauge and scale; unlike him it knows the world's own statistics: its physics, its coffee, its
/// wandering and its instruments.
/// </summary>
public static class CoachLimit
{
    private const int Pucks = 60;
    private const int Particles = 500;
    private const double Within = 0.10;
    private const double StepSeconds = 0.05;
    private const double ScaleSdGrams = 0.067; // shaken by 0.05 to 0.06 g, rounded to 0.1 g
    private const double QuietScaleSdGrams = 0.035;

    /// <summary>Pressure that holds the wanted flow two seconds after first drops, over pucks where 10 bar or less do.</summary>
    public static IEnumerable<Row> Measure()
    {
        foreach (var world in World.Both)
        {
            foreach (var known in Enum.GetValues<PathKnown>())
            {
                var off = Enumerable
                    .Range(0, Pucks)
                    .Select(i => (ulong)((2 * i) + 1))
                    .AsParallel()
                    .AsOrdered()
                    .Select(seed =>
                        CoachTrial.Of(world, seed, known) is { Hold: { } hold, TrueHoldBar: { } truth } trial
                            ? (Coach: hold, Filter: (Filtered(world, seed, trial, known) / truth) - 1)
                            : ((double Coach, double Filter)?)null
                    )
                    .OfType<(double Coach, double Filter)>()
                    .ToList();
                double Share(Func<(double Coach, double Filter), double> of) =>
                    off.Average(m => Math.Abs(of(m)) <= Within ? 100.0 : 0.0);
                yield return Row.AtLeast(
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"coach in the {world.Name} world, {CoachTrial.Words(known)}: hold "
                            + $"pressure within 10 % ({Share(m => m.Coach):0} %) over what a filter that knows that world has "
                            + $"({Share(m => m.Filter):0} %)"
                    ),
                    Share(m => m.Coach) / Share(m => m.Filter),
                    "ratio",
                    0.9
                );
            }
        }
    }

    private static double Filtered(World world, ulong seed, CoachTrial trial, PathKnown known)
    {
        var random = new SeededRandom(seed + 100_000);
        var house = world.Household(seed);
        var particles = Enumerable
            .Range(0, Particles)
            .Select(_ =>
                house.Imagine(
                    CoachTrial.Sheet,
                    Math.Exp(random.Normal(CoachTrial.GrindSd)),
                    known != PathKnown.Nothing ? house.SpoutSeconds : 0.2 + random.Uniform(),
                    known == PathKnown.Both ? house.ScaleSeconds : 0.2 + (0.6 * random.Uniform()),
                    new SeededRandom((ulong)random.Below(int.MaxValue))
                )
            )
            .ToArray();
        var weights = new double[Particles];
        Array.Fill(weights, 1.0 / Particles);
        int pressure = 0,
            weighing = 0;
        var bar = 0.0;
        for (var step = 1; step * StepSeconds <= trial.SaidAt + 1e-9; step++)
        {
            var t = step * StepSeconds;
            var before = bar;
            while (pressure < trial.Pressures.Count && trial.Pressures[pressure].At <= t + 1e-9)
                bar = trial.Pressures[pressure++].Bar;
            foreach (var particle in particles)
                particle.Step(Math.Max(0, (before + bar) / 2), StepSeconds);
            for (; weighing < trial.Weights.Count && trial.Weights[weighing].At <= t + 1e-9; weighing++)
            {
                Weigh(particles, weights, trial.Weights[weighing].Grams);
                if (1 / weights.Sum(w => w * w) < Particles / 3.0)
                    particles = Resampled(particles, weights, random);
            }
        }

        return MostProbable([
            .. particles.Select((p, i) => (CoachTrial.HoldBar(p.FlowSoon) ?? 12.0, weights[i])).Where(p => p.Item2 > 1e-5),
        ]);
    }

    private static void Weigh(IImagined[] particles, double[] weights, double grams)
    {
        for (var i = 0; i < particles.Length; i++)
        {
            var sd = particles[i].Drips ? ScaleSdGrams : QuietScaleSdGrams;
            var off = (grams - particles[i].ShownGrams) / sd;
            weights[i] *= Math.Exp(-0.5 * Math.Min(off * off, 60)) / sd;
        }

        var sum = weights.Sum();
        for (var i = 0; i < weights.Length; i++)
            weights[i] = sum > 0 ? weights[i] / sum : 1.0 / weights.Length;
    }

    /// <summary>Systematic resampling.</summary>
    private static IImagined[] Resampled(IImagined[] particles, double[] weights, SeededRandom random)
    {
        var next = new IImagined[particles.Length];
        double at = random.Uniform() / particles.Length,
            reached = weights[0];
        int from = 0,
            last = -1;
        for (var i = 0; i < next.Length; i++, at += 1.0 / next.Length)
        {
            while (at > reached && from < particles.Length - 1)
                reached += weights[++from];
            next[i] = from == last ? particles[from].Copy(new SeededRandom((ulong)random.Below(int.MaxValue))) : particles[from];
            last = from;
        }

        Array.Fill(weights, 1.0 / weights.Length);
        return next;
    }

    /// <summary>The pressure that has the most of the probability within a tenth of it.</summary>
    private static double MostProbable((double Bar, double Weight)[] held) =>
        held.Where((_, i) => i % 3 == 0)
            .MaxBy(c => held.Where(h => Math.Abs((c.Bar / h.Bar) - 1) <= Within).Sum(h => h.Weight))
            .Bar;
}
