using MathNet.Numerics.LinearAlgebra;

namespace RuddySpring.Core.Shots;

/// <summary>
/// A shot fitted to what gauge and scale have said of it: the pull is played again under its recorded pressure, and the unknowns
/// are moved until the scale would have shown what it did (Gauss and Newton's method, damped, with what was believed before as a
/// prior; the covariance from the curvature at the mode).
/// </summary>
/// <param name="Belief">What is believed now.</param>
/// <param name="Run">The fitted shot as it stands at the end of what was said.</param>
/// <param name="StateSlopes">Change of spout, cup and display, g, with the logarithm of each unknown: 3 rows.</param>
/// <param name="Misfit">Standard deviation of what is left between scale and fit, g.</param>
public sealed record TraceFit(PuckBelief Belief, ShotRun Run, Matrix<double> StateSlopes, double Misfit)
{
    /// <summary>A gauge that is silent for longer, s, tells nothing of the pressure between two readings.</summary>
    public const double GaugeGapSeconds = 0.5;

    private const double LongestStep = 0.05;
    private const double Nudge = 0.02;
    private const double MostStep = 0.5;

    /// <summary>Fits a shot.</summary>
    /// <param name="prior">What was believed before.</param>
    /// <param name="pressures">Seconds since the lever moved, rising, and bar.</param>
    /// <param name="weights">Seconds, rising, and what the scale showed, g, the cup tared out.</param>
    /// <param name="untilSeconds">Where the run is to stand at the end.</param>
    /// <param name="noise">How far weighings may be from the right puck of this model.</param>
    /// <param name="rounds">Rounds of the search, 2 or more.</param>
    /// <param name="from">Logarithms off the prior's middle to begin at; null for none.</param>
    public static TraceFit Of(
        PuckBelief prior,
        IReadOnlyList<(double Seconds, double Bar)> pressures,
        IReadOnlyList<(double Seconds, double Grams)> weights,
        double untilSeconds,
        WeighingNoise noise,
        int rounds,
        IReadOnlyList<double>? from = null
    )
    {
        var n = PuckUnknown.All.Count;
        var precision = prior.Covariance.Inverse();
        var at = from is null ? Vector<double>.Build.Dense(n) : Vector<double>.Build.DenseOfEnumerable(from);
        var weight = noise.Precision(weights);
        for (var round = 1; ; round++)
        {
            var shot = prior.At(at.ToArray());
            var replay = Replayed.Of(shot, pressures, weights, untilSeconds);
            var shown = replay.Shown(shot.Path, weights, out var state);
            var slopes = Matrix<double>.Build.Dense(weights.Count, n);
            var stateSlopes = Matrix<double>.Build.Dense(3, n);
            for (var k = 0; k < n; k++)
            {
                var nudged = at.Clone();
                nudged[k] += Nudge;
                var other = prior.At(nudged.ToArray());
                // what only delays the sight of it changes nothing in the puck
                var played = PuckUnknown.All[k].MovesWater ? Replayed.Of(other, pressures, weights, untilSeconds) : replay;
                var seen = played.Shown(other.Path, weights, out var then);
                for (var i = 0; i < weights.Count; i++)
                    slopes[i, k] = (seen[i] - shown[i]) / Nudge;
                stateSlopes.SetColumn(
                    k,
                    [
                        (then.AtSpoutGrams - state.AtSpoutGrams) / Nudge,
                        (then.CupGrams - state.CupGrams) / Nudge,
                        (then.ShownGrams - state.ShownGrams) / Nudge,
                    ]
                );
            }

            var off = Vector<double>.Build.Dense(weights.Count, i => weights[i].Grams - shown[i]);
            var weighted = weight * slopes;
            var normal = slopes.TransposeThisAndMultiply(weighted) + precision;
            if (round >= rounds)
            {
                replay.Run.Path = shot.Path;
                replay.Run.Stream = state;
                var misfit = weights.Count == 0 ? 0 : Math.Sqrt(off.DotProduct(off) / weights.Count);
                return new(prior with { Middle = shot, Covariance = normal.Inverse() }, replay.Run, stateSlopes, misfit);
            }

            var step = normal.Solve(weighted.TransposeThisAndMultiply(off) - (precision * at));
            at += step.PointwiseMaximum(-MostStep).PointwiseMinimum(MostStep);
        }
    }

    /// <summary>A pull played on a puck: what left it in each step. What the scale made of that is another question.</summary>
    private sealed record Replayed(ShotRun Run, List<(double Seconds, double Grams)> Steps)
    {
        public static Replayed Of(
            ShotConditions shot,
            IReadOnlyList<(double Seconds, double Bar)> pressures,
            IReadOnlyList<(double Seconds, double Grams)> weights,
            double untilSeconds
        )
        {
            var run = new ShotRun(shot);
            var steps = new List<(double Seconds, double Grams)>((int)(untilSeconds / LongestStep) + weights.Count + 2);
            double at = 0.0,
                bar = 0.0;
            int pressure = 0,
                weight = 0;
            while (untilSeconds - at > 1e-9)
            {
                while (pressure < pressures.Count && pressures[pressure].Seconds <= at + 1e-9)
                    bar = Math.Max(0, pressures[pressure++].Bar);
                while (weight < weights.Count && weights[weight].Seconds <= at + 1e-9)
                    weight++;
                var until = untilSeconds;
                if (pressure < pressures.Count)
                    until = Math.Min(until, pressures[pressure].Seconds);
                if (weight < weights.Count)
                    until = Math.Min(until, weights[weight].Seconds);
                var step = Math.Min(LongestStep, until - at);
                var pressed = pressure == 0 ? bar : Between(pressures, pressure, bar, at + (step / 2));
                at += step;
                steps.Add((step, run.Press(pressed, step)));
            }

            return new(run, steps);
        }

        /// <summary>The pressure in bar at a time between two readings of the gauge: on the line from one to the
        /// other.</summary>
        private static double Between(
            IReadOnlyList<(double Seconds, double Bar)> pressures,
            int next,
            double lastBar,
            double seconds
        )
        {
            if (next >= pressures.Count)
                return lastBar;
            var (from, to) = (pressures[next - 1], pressures[next]);
            var apart = to.Seconds - from.Seconds;
            return apart is <= 0 or > GaugeGapSeconds
                ? lastBar
                : Math.Max(0, from.Bar + ((to.Bar - from.Bar) * (seconds - from.Seconds) / apart));
        }

        public double[] Shown(CupPath path, IReadOnlyList<(double Seconds, double Grams)> weights, out CupStream state)
        {
            var shown = new double[weights.Count];
            state = default;
            var (at, weight) = (0.0, 0);
            double stepSeconds = 0,
                falls = 0,
                shows = 0;
            foreach (var (seconds, grams) in Steps)
            {
                while (weight < shown.Length && weights[weight].Seconds <= at + 1e-9)
                    shown[weight++] = state.ShownGrams;
                if (seconds != stepSeconds)
                    (stepSeconds, falls, shows) = (seconds, path.ShareThatFalls(seconds), path.ShareThatShows(seconds));
                state = state.After(grams, falls, shows);
                at += seconds;
            }

            while (weight < shown.Length)
                shown[weight++] = state.ShownGrams;
            return shown;
        }
    }
}
