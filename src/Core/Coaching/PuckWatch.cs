using MathNet.Numerics.LinearAlgebra;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Shots;

namespace RuddySpring.Core.Coaching;

/// <summary>
/// Learns a puck while water runs through it. A <see cref="ShotRun"/> is driven by the pressure that is measured; until the first drops
/// only the time that the front took is known of it (<see cref="Wetting"/>). Then the whole pull is fitted anew, with spout and scale among
/// the unknowns, and from there on an extended Kalman filter (Kalman 1960; Jazwinski 1970) follows what hangs at the spout, what is in
/// the cup, what the late scale shows, and the logarithm of how easily water passes.
/// </summary>
public sealed class PuckWatch
{
    private const double LongestStep = 0.05;
    private const double DropsShownGrams = 0.4;
    private const double DrySd = 0.12;
    private const double DrySdWithoutGauge = 0.35;
    private const double FitsForSeconds = 2.5;
    private const double FitEverySeconds = 0.3;
    private const double FitSd = 0.03;
    private const int Rounds = 3;
    private const double Nudge = 0.02;
    private const double MostStep = 0.5;
    private const double MostLog = 2.5;
    private const double WanderPerRootSecond = 0.03;
    private const double ScaleSdGrams = 0.085;
    private const int Shown = 2, Ease = 3;
    private const int Unknowns = 4;
    private const double LaneSpread = 0.18;     // of a puck prepared by hand; a wider one lets the first drops come sooner

    private readonly ShotConditions _expected;
    private readonly double _sd;
    private readonly CupPathBelief _path;
    private readonly List<(double Seconds, double Bar)> _pressures = [];
    private readonly List<(double Seconds, double Grams)> _weights = [];
    private readonly double[] _x = new double[4];      // at the spout g, in the cup g, shown g, ln of the flow factor
    private readonly double[,] _p = new double[4, 4];
    private readonly double[,] _f = new double[4, 4];
    private ShotRun _run;
    private bool _gauge;
    private int _inARow;
    private double _firstShown;
    private readonly double[] _theta = new double[Unknowns]; // ln of resistance, dry share, spout's delay and scale's lag over what was expected
    private double _fittedAt;
    private double _surprise = 1;

    /// <param name="expected">The shot as the sheet makes one expect it.</param>
    /// <param name="expectedSd">Standard deviation of the logarithm of its resistance, 0.05 to 1.</param>
    /// <param name="path">What is believed of spout and scale.</param>
    public PuckWatch(ShotConditions expected, double expectedSd, CupPathBelief path)
    {
        _path = path;
        _expected = expected with { Path = path.Middle };
        _sd = Math.Clamp(expectedSd, 0.05, 1.0);
        _run = Begun(0, 0);
        for (var i = 0; i < 3; i++) _p[i, i] = 1e-4;
        _p[Ease, Ease] = _sd * _sd;
    }

    /// <summary>Time of the newest sample, s since the lever moved.</summary>
    public double Seconds { get; private set; }

    /// <summary>Pressure that drives the model now, bar.</summary>
    public double PressureBar { get; private set; }

    /// <summary>When the first drops fell, s; null before.</summary>
    public double? FirstDropsSeconds { get; private set; }

    /// <summary>In the cup now, g.</summary>
    public double CupGrams => Math.Max(0.0, _x[1]);

    /// <summary>What falls into the cup now, g/s.</summary>
    public double FallingGramsPerS => Math.Max(0.0, _x[0] / _run.Path.SpoutDelaySeconds);

    /// <summary>Water that has entered the puck, ml.</summary>
    public double MovedMl => _run.Puck.InflowMl;

    /// <summary>What the puck takes now, ml/s.</summary>
    public double InflowMlPerS => _run.InflowMlPerS;

    /// <summary>Resistance in bar s/ml of the puck swollen and fresh, as it is known now.</summary>
    public double ResistanceBarSPerMl => _expected.Bed.ResistanceBarSPerMl * Math.Exp(_theta[0]) / _run.Puck.FlowFactor;

    /// <summary>Takes a pressure in bar at a time in s; one that runs backwards counts as now.</summary>
    public void Pressure(double seconds, double bar, bool measured = true)
    {
        Advance(seconds);
        _gauge |= measured;
        PressureBar = Math.Max(0.0, bar);
        _pressures.Add((Seconds, PressureBar));
    }

    /// <summary>Takes what the scale shows in g, the cup tared out.</summary>
    public void Weight(double seconds, double grams)
    {
        Advance(seconds);
        var young = FirstDropsSeconds is not { } drops || Seconds - drops < FitsForSeconds;
        if (young) _weights.Add((Seconds, grams));
        if (FirstDropsSeconds is null)
        {
            if (grams < DropsShownGrams)
            {
                _inARow = 0;
                return;
            }

            if (_inARow++ == 0) _firstShown = Seconds;
            if (_inARow >= 2) Begin(_firstShown, DropsShownGrams, throughScale: true);
        }
        else if (young && Seconds - _fittedAt >= FitEverySeconds)
        {
            Fit();
        }
        else
        {
            Correct(grams);
        }
    }

    /// <summary>The brewer saw the first drops.</summary>
    public void Drops(double seconds)
    {
        Advance(seconds);
        if (FirstDropsSeconds is null) Begin(Seconds, ShotRun.FirstDropsGrams, throughScale: false);
    }

    /// <summary>Lets time pass with the pressure held.</summary>
    public void Advance(double seconds)
    {
        while (seconds - Seconds > 1e-9)
        {
            var step = Math.Min(LongestStep, seconds - Seconds);
            Seconds += step;
            Predict(step);
        }
    }

    /// <summary>What would fall into the cup in g/s, once the spout has followed, at a pressure in bar.</summary>
    public double FlowAt(double pressureBar) => _run.Puck.OutflowMlPerS(pressureBar) * GramsPerMl;

    /// <summary>Grams of cup per ml that leaves the puck: water and the solids in it.</summary>
    public double GramsPerMl => _run.GramsPerMl;

    /// <summary>Spout and scale as they are taken to be now.</summary>
    public CupPath Path => _run.Path;

    /// <summary>The shot as it stands now, to be taken another way.</summary>
    public ShotRun Ahead()
    {
        var ahead = _run.Copy();
        ahead.Stream = new(_x[0], CupGrams, Math.Max(0.0, _x[Shown]));
        return ahead;
    }

    /// <summary>Grams that still fall when the hand lets go now and the pressure dies away with a time constant in s.</summary>
    public double DripAfterGrams(double letGoSeconds) => _x[0] + (_run.LeavesGramsPerS * letGoSeconds);

    private void Predict(double step)
    {
        var left = _run.Press(PressureBar, step);
        var (k, m) = (_run.Path.ShareThatFalls(step), _run.Path.ShareThatShows(step));
        (_x[0], _x[1], _x[Shown]) = new CupStream(_x[0], _x[1], _x[Shown]).After(left, k, m);
        if (FirstDropsSeconds is null) return;
        var da = left; // d(outflow) / d(ln factor)
        var f = _f;
        (f[0, 0], f[0, 3]) = (1 - k, da * (1 - k));
        (f[1, 0], f[1, 1], f[1, 3]) = (k, 1, k * da);
        (f[2, 0], f[2, 1], f[2, 2], f[2, 3]) = (m * k, m, 1 - m, m * k * da);
        f[3, 3] = 1;
        Propagate(step);
    }

    private void Propagate(double step)
    {
        Span<double> half = stackalloc double[16];
        for (var i = 0; i < 4; i++)
        {
            for (var j = 0; j < 4; j++)
            {
                var sum = 0.0;
                for (var n = 0; n < 4; n++) sum += _f[i, n] * _p[n, j];
                half[(i * 4) + j] = sum;
            }
        }

        for (var i = 0; i < 4; i++)
        {
            for (var j = 0; j < 4; j++)
            {
                var sum = 0.0;
                for (var n = 0; n < 4; n++) sum += half[(i * 4) + n] * _f[j, n];
                _p[i, j] = sum;
            }
        }

        _p[Ease, Ease] += WanderPerRootSecond * WanderPerRootSecond * step;
        _p[1, 1] += 4e-5 * step; // drops are lumps
    }

    private void Correct(double grams)
    {
        var variance = _p[Shown, Shown] + (ScaleSdGrams * ScaleSdGrams);
        var off = grams - _x[Shown];
        Span<double> gain = stackalloc double[4];
        Span<double> row = stackalloc double[4];
        for (var i = 0; i < 4; i++) (gain[i], row[i]) = (_p[i, Shown] / variance, _p[Shown, i]);
        for (var i = 0; i < 4; i++)
        {
            _x[i] += gain[i] * off;
            for (var j = 0; j < 4; j++) _p[i, j] -= gain[i] * row[j];
        }

        _x[0] = Math.Max(0.0, _x[0]);
        // a reading that the model cannot explain says that the puck has changed
        var surprise = off * off / variance;
        _surprise += (surprise - _surprise) * 0.15;
        if (_surprise > 4) _p[Ease, Ease] += 0.01;
        _x[Ease] = Math.Clamp(_x[Ease], -2.5, 2.5);
        _run.Puck.FlowFactor = Math.Exp(_x[Ease]);
    }

    /// <summary>
    /// The pull from its beginning, fitted anew: which resistance, wet and dry, which spout and which scale explain what was shown (Gauss and
    /// Newton's method with the expectations as a prior). The filter goes on from there.
    /// </summary>
    private void Fit()
    {
        _fittedAt = Seconds;
        double[] sd = [_sd, _gauge ? DrySd : DrySdWithoutGauge, _path.Spout.SdLog, _path.Scale.SdLog];
        var slopes = Matrix<double>.Build.Dense(4, Unknowns);
        for (var round = 0; round < Rounds; round++)
        {
            var replay = Replay(_theta);
            var at = replay.Shown(PathAt(_theta), _weights, out var state);
            var normal = Matrix<double>.Build.DenseDiagonal(Unknowns, Unknowns, i => 1 / (sd[i] * sd[i]));
            var pull = Vector<double>.Build.Dense(Unknowns, i => -_theta[i] / (sd[i] * sd[i]));
            var by = new double[Unknowns][];
            for (var k = 0; k < Unknowns; k++)
            {
                double[] nudged = [.. _theta];
                nudged[k] += Nudge;
                // spout and scale change nothing in the puck
                by[k] = (k < 2 ? Replay(nudged) : replay).Shown(PathAt(nudged), _weights, out var other);
                slopes.SetColumn(k, [
                    (other.AtSpoutGrams - state.AtSpoutGrams) / Nudge, (other.CupGrams - state.CupGrams) / Nudge,
                    (other.ShownGrams - state.ShownGrams) / Nudge, k == 0 ? -1 : 0,
                ]);
            }

            const double weight = 1 / (ScaleSdGrams * ScaleSdGrams);
            for (var i = 0; i < _weights.Count; i++)
            {
                var off = _weights[i].Grams - at[i];
                for (var k = 0; k < Unknowns; k++)
                {
                    var slope = (by[k][i] - at[i]) / Nudge;
                    pull[k] += slope * off * weight;
                    for (var n = 0; n < Unknowns; n++) normal[k, n] += slope * (by[n][i] - at[i]) / Nudge * weight;
                }
            }

            if (round + 1 < Rounds)
            {
                var step = normal.Solve(pull);
                for (var k = 0; k < Unknowns; k++) _theta[k] = Math.Clamp(_theta[k] + Math.Clamp(step[k], -MostStep, MostStep), -MostLog, MostLog);
                continue;
            }

            var covariance = slopes * normal.Inverse() * slopes.Transpose();
            for (var i = 0; i < 4; i++)
            {
                for (var j = 0; j < 4; j++) _p[i, j] = covariance[i, j];
            }

            _run = replay.Run;
            _run.Path = PathAt(_theta);
            _run.Stream = state;
            (_x[0], _x[1], _x[Shown], _x[Ease]) = (state.AtSpoutGrams, state.CupGrams, state.ShownGrams, 0);
        }

        _p[Ease, Ease] += FitSd * FitSd;
        for (var i = 0; i < 3; i++) _p[i, i] += 1e-4;
    }

    private CupPath PathAt(double[] theta) => new(_path.Spout.Seconds * Math.Exp(theta[2]), _path.Scale.Seconds * Math.Exp(theta[3]));

    /// <summary>The pull so far on the expected puck with its resistance and its dry share times e to the given logarithms.</summary>
    private Replayed Replay(double[] theta)
    {
        var run = Begun(theta[0], theta[1]);
        var steps = new List<(double Seconds, double Grams)>((int)(Seconds / LongestStep) + _weights.Count + 2);
        double at = 0.0, bar = 0.0;
        int pressure = 0, weight = 0;
        while (Seconds - at > 1e-9)
        {
            while (pressure < _pressures.Count && _pressures[pressure].Seconds <= at + 1e-9) bar = _pressures[pressure++].Bar;
            while (weight < _weights.Count && _weights[weight].Seconds <= at + 1e-9) weight++;
            var until = Seconds;
            if (pressure < _pressures.Count) until = Math.Min(until, _pressures[pressure].Seconds);
            if (weight < _weights.Count) until = Math.Min(until, _weights[weight].Seconds);
            var step = Math.Min(LongestStep, until - at);
            at += step;
            steps.Add((step, run.Press(bar, step)));
        }

        return new(run, steps);
    }

    /// <summary>A pull played on a puck: what left it in each step. What the scale made of that is another question.</summary>
    private sealed record Replayed(ShotRun Run, List<(double Seconds, double Grams)> Steps)
    {
        public double[] Shown(CupPath path, List<(double Seconds, double Grams)> weights, out CupStream state)
        {
            var shown = new double[weights.Count];
            state = default;
            var (at, weight) = (0.0, 0);
            double stepSeconds = 0, falls = 0, shows = 0;
            foreach (var (seconds, grams) in Steps)
            {
                while (weight < shown.Length && weights[weight].Seconds <= at + 1e-9) shown[weight++] = state.ShownGrams;
                if (seconds != stepSeconds) (stepSeconds, falls, shows) = (seconds, path.ShareThatFalls(seconds), path.ShareThatShows(seconds));
                state = state.After(grams, falls, shows);
                at += seconds;
            }

            while (weight < shown.Length) shown[weight++] = state.ShownGrams;
            return shown;
        }
    }

    /// <summary>The expected shot before it begins, its resistance and its dry share times e to the given logarithms.</summary>
    private ShotRun Begun(double log, double dryLog)
    {
        var range = PuckParameters.Resistance;
        var puck = _expected.Puck;
        return new(
            puck with
            {
                ResistanceBarSPerMl = Math.Clamp(puck.ResistanceBarSPerMl * Math.Exp(log), range.Min, range.Max),
                LaneSpread = LaneSpread,
                Behaviour = puck.Behaviour with { DryShare = Math.Clamp(puck.Behaviour.DryShare * Math.Exp(dryLog), 0.02, 3) },
            }, _expected.Water, _expected.Path);
    }

    /// <summary>First drops were seen: how dry the front must have been held up for them to fall just then.</summary>
    private void Begin(double seenAt, double grams, bool throughScale)
    {
        double low = -2, high = 2;
        for (var i = 0; i < 12; i++)
        {
            var middle = (low + high) / 2;
            if (SeenAt(middle, grams, throughScale) < seenAt) low = middle;
            else high = middle;
        }

        // as much of it as can be is put down to the grind
        var both = (low + high) / 2;
        var sd = _gauge ? DrySd : DrySdWithoutGauge;
        var share = _sd * _sd / ((_sd * _sd) + (sd * sd));
        (_theta[0], _theta[1], _theta[2], _theta[3]) = (both * share, both * (1 - share), 0, 0);
        FirstDropsSeconds = Math.Min(seenAt, SeenAt(both, ShotRun.FirstDropsGrams, throughScale: false));
        Fit();
    }

    /// <summary>When so much would have been seen with the dry puck's resistance times e^<paramref name="both"/>; infinity if not by now.</summary>
    private double SeenAt(double both, double grams, bool throughScale)
    {
        var run = Begun(both, 0);
        var drive = new RecordedDrive(_pressures);
        while (Seconds - run.Seconds > 1e-9)
        {
            run.Step(drive, LongestStep);
            if ((throughScale ? run.Stream.ShownGrams : run.Stream.CupGrams) >= grams) return run.Seconds;
        }

        return double.PositiveInfinity;
    }
}
