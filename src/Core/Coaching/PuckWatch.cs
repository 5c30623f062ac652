using MathNet.Numerics.LinearAlgebra;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Shots;

namespace RuddySpring.Core.Coaching;

/// <summary>
/// Learns a puck while water runs through it. A <see cref="ShotRun"/> is driven by the pressure that is measured; until the first
/// drops only the time that the front took is known of it (<see cref="Wetting"/>). Then the whole pull is refitted, with spout
/// and scale among the unknowns, and from there on an extended Kalman filter (Kalman 1960; Jazwinski 1970) follows what hangs at
/// the spout, what is in the cup, what the late scale shows, and the logarithm of how easily water passes.
/// </summary>
public sealed class PuckWatch
{
    private const double LongestStep = 0.05;
    private const double DropsShownGrams = 0.4;
    private const double DrySdWithoutGauge = 0.35;
    private const double FitsForSeconds = 2.5;
    private const double FitEverySeconds = 0.3;

    // a fit takes its time for every sample, and noise that was heard twice tells nothing new
    private const double GaugeEverySeconds = 0.04;
    private const double ScaleEverySeconds = 0.08;
    private const double SameSeconds = 1e-6;
    private const double LaneSpread = 0.2; // of a puck prepared by hand; a wider one lets the first drops come sooner
    private const double FitSd = 0.03;
    private const int FirstRounds = 3;
    private const int Rounds = 2; // from where the last fit stood
    private const double WanderPerRootSecond = 0.03;
    private const double ScaleSdGrams = 0.1;
    private const int Shown = 2,
        Ease = 3;
    private const int Resistance = 0,
        Dry = 1; // places in every belief

    private readonly List<(double Seconds, double Value)> _pressures = [];
    private readonly List<(double Seconds, double Value)> _weights = [];
    private readonly double[] _x = new double[4]; // at the spout g, in the cup g, shown g, ln of the flow factor
    private readonly double[,] _p = new double[4, 4];
    private readonly double[,] _f = new double[4, 4];
    private readonly PuckBelief _expected;
    private PuckBelief _believed;
    private ShotRun _run;
    private bool _gauge;
    private int _inARow;
    private double _firstShown;
    private double _fittedAt;
    private double _gaugeAt = double.NegativeInfinity;
    private double _surprise = 1;

    /// <param name="expected">What is believed of the shot as the sheet and earlier pulls have it.</param>
    public PuckWatch(PuckBelief expected)
    {
        _expected = _believed = expected with
        {
            Covariance = expected.Covariance.Clone(),
            Middle = expected.Middle with { Bed = expected.Middle.Bed with { OwnLaneSpread = LaneSpread } },
        };
        _run = new ShotRun(_expected.Middle);
        for (var i = 0; i < 3; i++)
            _p[i, i] = 1e-4;
        _p[Ease, Ease] = _expected.Covariance[Resistance, Resistance];
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
    public double ResistanceBarSPerMl => _believed.Middle.Bed.ResistanceBarSPerMl / _run.Puck.FlowFactor;

    /// <summary>Takes a pressure in bar at a time in s; one that runs backwards counts as now.</summary>
    public void Pressure(double seconds, double bar, bool measured = true)
    {
        var now = Math.Max(0.0, bar);
        // between two readings the pressure went from one to the other
        if (seconds - _gaugeAt <= TraceFit.GaugeGapSeconds)
            PressureBar = (PressureBar + now) / 2;
        Advance(seconds);
        _gaugeAt = Seconds;
        _gauge |= measured;
        PressureBar = now;
        if (IsDue(_pressures, GaugeEverySeconds))
            _pressures.Add((Seconds, PressureBar));
        else
            _pressures[^1] = (_pressures[^1].Seconds, PressureBar); // it may be the last for long
    }

    /// <summary>Takes what the scale shows in g, the cup tared out.</summary>
    public void Weight(double seconds, double grams)
    {
        Advance(seconds);
        var young = FirstDropsSeconds is not { } drops || Seconds - drops < FitsForSeconds;
        if (young && IsDue(_weights, ScaleEverySeconds))
            _weights.Add((Seconds, grams));
        if (FirstDropsSeconds is null)
        {
            if (grams < DropsShownGrams)
            {
                _inARow = 0;
                return;
            }

            if (_inARow++ == 0)
                _firstShown = Seconds;
            if (_inARow >= 2)
                Begin(_firstShown, DropsShownGrams, throughScale: true);
        }
        else if (young && Seconds - _fittedAt >= FitEverySeconds)
        {
            Fit(Logs(), Rounds);
        }
        else
        {
            Correct(grams);
        }
    }

    private bool IsDue(List<(double Seconds, double Value)> heard, double everySeconds) =>
        heard.Count == 0 || Seconds - heard[^1].Seconds >= everySeconds - SameSeconds;

    /// <summary>The brewer saw the first drops.</summary>
    public void Drops(double seconds)
    {
        Advance(seconds);
        if (FirstDropsSeconds is null)
            Begin(Seconds, ShotRun.FirstDropsGrams, throughScale: false);
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

    /// <summary>What would leave the puck, g/s, after some seconds of a pressure in bar from now on.</summary>
    public double FlowAfter(double seconds, double pressureBar) => _run.FlowAfter(seconds, pressureBar);

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
    public double DripAfterGrams(double letGoSeconds) => _x[0] + (FlowAt(PressureBar) * letGoSeconds);

    private void Predict(double step)
    {
        var left = _run.Press(PressureBar, step);
        var (k, m) = (_run.Path.ShareThatFalls(step), _run.Path.ShareThatShows(step));
        (_x[0], _x[1], _x[Shown]) = new CupStream(_x[0], _x[1], _x[Shown]).After(left, k, m);
        if (FirstDropsSeconds is null)
            return;
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
                for (var n = 0; n < 4; n++)
                    sum += _f[i, n] * _p[n, j];
                half[(i * 4) + j] = sum;
            }
        }

        for (var i = 0; i < 4; i++)
        {
            for (var j = 0; j < 4; j++)
            {
                var sum = 0.0;
                for (var n = 0; n < 4; n++)
                    sum += half[(i * 4) + n] * _f[j, n];
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
        for (var i = 0; i < 4; i++)
            (gain[i], row[i]) = (_p[i, Shown] / variance, _p[Shown, i]);
        for (var i = 0; i < 4; i++)
        {
            _x[i] += gain[i] * off;
            for (var j = 0; j < 4; j++)
                _p[i, j] -= gain[i] * row[j];
        }

        _x[0] = Math.Max(0.0, _x[0]);
        // a reading that the model cannot explain says that the puck has changed
        var surprise = off * off / variance;
        _surprise += (surprise - _surprise) * 0.15;
        if (_surprise > 4)
            _p[Ease, Ease] += 0.01;
        _x[Ease] = Math.Clamp(_x[Ease], -2.5, 2.5);
        _run.Puck.FlowFactor = Math.Exp(_x[Ease]);
    }

    /// <summary>The pull from its beginning, fitted again; the filter goes on from there.</summary>
    /// <param name="from">Logarithms off what was expected to begin at.</param>
    /// <param name="rounds">Rounds of the search.</param>
    private void Fit(IReadOnlyList<double> from, int rounds)
    {
        _fittedAt = Seconds;
        var fit = TraceFit.Of(_expected, _pressures, _weights, Seconds, new(ScaleSdGrams), rounds, from);
        (_believed, _run) = (fit.Belief, fit.Run);
        var state = fit.Run.Stream;
        (_x[0], _x[1], _x[Shown], _x[Ease]) = (state.AtSpoutGrams, state.CupGrams, state.ShownGrams, 0);
        var slopes = Matrix<double>.Build.Dense(4, fit.StateSlopes.ColumnCount);
        slopes.SetSubMatrix(0, 0, fit.StateSlopes);
        slopes[Ease, Resistance] = -1;
        var covariance = slopes * fit.Belief.Covariance * slopes.Transpose();
        for (var i = 0; i < 4; i++)
        {
            for (var j = 0; j < 4; j++)
                _p[i, j] = covariance[i, j];
        }

        _p[Ease, Ease] += FitSd * FitSd;
        for (var i = 0; i < 3; i++)
            _p[i, i] += 1e-4;
    }

    /// <summary>Where the last fit stands, as logarithms off what was expected.</summary>
    private double[] Logs() => [.. PuckUnknown.All.Select(u => Math.Log(u.Get(_believed.Middle) / u.Get(_expected.Middle)))];

    /// <summary>First drops were seen: how dry the front must have been held up for them to fall just then.</summary>
    private void Begin(double seenAt, double grams, bool throughScale)
    {
        // a hand that is only taken to have followed the plan says little of when the front came through
        if (!_gauge)
            _expected.Covariance[Dry, Dry] = Math.Max(_expected.Covariance[Dry, Dry], DrySdWithoutGauge * DrySdWithoutGauge);
        double low = -2,
            high = 2;
        for (var i = 0; i < 12; i++)
        {
            var middle = (low + high) / 2;
            if (SeenAt(middle, grams, throughScale) < seenAt)
                low = middle;
            else
                high = middle;
        }

        // as much of it as can be is put down to the grind
        var both = (low + high) / 2;
        double ofGrind = _expected.Covariance[Resistance, Resistance],
            ofDry = _expected.Covariance[Dry, Dry];
        var from = new double[PuckUnknown.All.Count];
        (from[Resistance], from[Dry]) = (both * ofGrind / (ofGrind + ofDry), both * ofDry / (ofGrind + ofDry));
        FirstDropsSeconds = Math.Min(seenAt, SeenAt(both, ShotRun.FirstDropsGrams, throughScale: false));
        Fit(from, FirstRounds);
    }

    /// <summary>When so much would have been seen with the dry puck's resistance times e^<paramref name="both"/>; infinity if not
    /// by now.</summary>
    private double SeenAt(double both, double grams, bool throughScale)
    {
        var logs = new double[PuckUnknown.All.Count];
        logs[Resistance] = both;
        var run = new ShotRun(_expected.At(logs));
        var drive = new RecordedDrive(_pressures);
        while (Seconds - run.Seconds > 1e-9)
        {
            run.Step(drive, LongestStep);
            if ((throughScale ? run.Stream.ShownGrams : run.Stream.CupGrams) >= grams)
                return run.Seconds;
        }

        return double.PositiveInfinity;
    }
}
