using RuddySpring.Core.Puck;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Traces;

namespace RuddySpring.Core.Coaching;

/// <summary>
/// Learns a puck while water runs through it. A <see cref="PuckModel"/> is driven by the pressure that is measured; until the first drops
/// only the time that the front took is known of it (<see cref="Wetting"/>), from then on an extended Kalman filter (Kalman 1960; Jazwinski
/// 1970) follows what hangs at the spout, what is in the cup, what the late scale shows, and the logarithm of how easily water passes.
/// </summary>
public sealed class PuckWatch
{
    /// <summary>How late a kitchen scale reads, s.</summary>
    public const double ScaleLagSeconds = TraceCleaning.ScaleLagSeconds;

    private const double LongestStep = 0.05;
    private const double DropsShownGrams = 0.4;
    private const double DrySd = 0.12;
    private const double DrySdWithoutGauge = 0.35;
    private const double FitsForSeconds = 1.2;
    private const double FitEverySeconds = 0.3;
    private const double LaneSpread = 0.18;     // of a puck prepared by hand; a wider one lets the first drops come sooner
    private const double FitSd = 0.03;
    private const int Rounds = 3;
    private const double Nudge = 0.02;
    private const double WanderPerRootSecond = 0.03;
    private const double ScaleSdGrams = 0.085;
    private const int Shown = 2, Ease = 3;

    private readonly PuckParameters _expected;
    private readonly double _expectedSd;
    private readonly List<(double Seconds, double Bar)> _pressures = [];
    private readonly List<(double Seconds, double Grams)> _weights = [];
    private readonly double[] _x = new double[4];      // at the spout g, in the cup g, shown g, ln of the flow factor
    private readonly double[,] _p = new double[4, 4];
    private readonly double[,] _f = new double[4, 4];
    private PuckModel _puck;
    private bool _gauge;
    private int _inARow;
    private double _firstShown;
    private double _outGramsPerS;
    private double _log;
    private double _dryLog;
    private double _fittedAt;
    private double _surprise = 1;

    /// <param name="expected">The puck as the sheet makes one expect it.</param>
    /// <param name="expectedSd">Standard deviation of the logarithm of its resistance, 0.05 to 1.</param>
    public PuckWatch(PuckParameters expected, double expectedSd)
    {
        _expected = expected.Checked() with { LaneSpread = LaneSpread };
        _expectedSd = Math.Clamp(expectedSd, 0.05, 1.0);
        _puck = new PuckModel(_expected);
        for (var i = 0; i < 3; i++) _p[i, i] = 1e-4;
        _p[Ease, Ease] = _expectedSd * _expectedSd;
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
    public double FallingGramsPerS => Math.Max(0.0, _x[0] / Spout.DelaySeconds);

    /// <summary>Water that has entered the puck, ml.</summary>
    public double MovedMl => _puck.InflowMl;

    /// <summary>What the puck takes now, ml/s.</summary>
    public double InflowMlPerS { get; private set; }

    /// <summary>Resistance in bar s/ml of the puck swollen and fresh, as it is known now.</summary>
    public double ResistanceBarSPerMl => _expected.ResistanceBarSPerMl * Math.Exp(_log) / _puck.FlowFactor;

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
        if (FirstDropsSeconds is null) Begin(Seconds, ShotSimulator.FirstDropsGrams, throughScale: false);
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
    public double FlowAt(double pressureBar) => _puck.OutflowMlPerS(pressureBar) * GramsPerMl;

    /// <summary>Grams of cup per ml that leaves the puck: water and the solids in it.</summary>
    public double GramsPerMl { get; private set; } = 1.0;

    /// <summary>The puck as it stands now, to be taken another way.</summary>
    public PuckModel CopyOfPuck() => _puck.Copy();

    /// <summary>Grams that still fall when the hand lets go now and the pressure dies away with a time constant in s.</summary>
    public double DripAfterGrams(double letGoSeconds) => _x[0] + (_outGramsPerS * letGoSeconds);

    /// <summary>What hangs at the spout, g.</summary>
    public double AtSpoutGrams => _x[0];

    private void Predict(double step)
    {
        var result = _puck.Step(PressureBar, step);
        if (result.OutflowMl > 1e-9) GramsPerMl = result.CupGrams / result.OutflowMl;
        InflowMlPerS = result.InflowMl / step;
        _outGramsPerS = result.CupGrams / step;
        var (k, m) = Shares(step);
        Cascade(_x, result.CupGrams, k, m);
        if (FirstDropsSeconds is null) return;
        var da = result.CupGrams; // d(outflow) / d(ln factor)
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
        _puck.FlowFactor = Math.Exp(_x[Ease]);
    }

    /// <summary>
    /// The pull from its beginning, fitted anew: which resistance, wet and dry, explains what the scale has shown (Gauss and Newton's
    /// method with the expectation as a prior). The filter goes on from there.
    /// </summary>
    private void Fit()
    {
        _fittedAt = Seconds;
        Span<double> theta = [_log, _dryLog];
        double[] prior = [1 / (_expectedSd * _expectedSd), 1 / (_gauge ? DrySd * DrySd : DrySdWithoutGauge * DrySdWithoutGauge)];
        Span<double> normal = stackalloc double[3];
        double[] slopeLog = [], slopeDry = [];
        for (var round = 0; round < Rounds; round++)
        {
            var at = Replay(theta[0], theta[1], out _, out var state);
            var byLog = Replay(theta[0] + Nudge, theta[1], out _, out var stateLog);
            var byDry = Replay(theta[0], theta[1] + Nudge, out _, out var stateDry);
            normal[0] = prior[0];
            normal[1] = 0;
            normal[2] = prior[1];
            double pullLog = -theta[0] * prior[0], pullDry = -theta[1] * prior[1];
            for (var i = 0; i < _weights.Count; i++)
            {
                double a = (byLog[i] - at[i]) / Nudge, b = (byDry[i] - at[i]) / Nudge, off = _weights[i].Grams - at[i];
                var weight = 1 / (ScaleSdGrams * ScaleSdGrams);
                normal[0] += a * a * weight;
                normal[1] += a * b * weight;
                normal[2] += b * b * weight;
                pullLog += a * off * weight;
                pullDry += b * off * weight;
            }

            var det = (normal[0] * normal[2]) - (normal[1] * normal[1]);
            if (round + 1 < Rounds)
            {
                theta[0] = Math.Clamp(theta[0] + Math.Clamp(((normal[2] * pullLog) - (normal[1] * pullDry)) / det, -0.5, 0.5), -2.5, 2.5);
                theta[1] = Math.Clamp(theta[1] + Math.Clamp(((normal[0] * pullDry) - (normal[1] * pullLog)) / det, -0.5, 0.5), -2.5, 2.5);
                continue;
            }

            slopeLog = [.. stateLog.Zip(state, (x, y) => (x - y) / Nudge), -1];
            slopeDry = [.. stateDry.Zip(state, (x, y) => (x - y) / Nudge), 0];
            double v11 = normal[2] / det, v12 = -normal[1] / det, v22 = normal[0] / det;
            for (var i = 0; i < 4; i++)
            {
                for (var j = 0; j < 4; j++)
                    _p[i, j] = (slopeLog[i] * slopeLog[j] * v11) + (((slopeLog[i] * slopeDry[j]) + (slopeDry[i] * slopeLog[j])) * v12) + (slopeDry[i] * slopeDry[j] * v22);
            }
        }

        (_log, _dryLog) = (theta[0], theta[1]);
        Replay(_log, _dryLog, out _puck, out var now);
        now.CopyTo(_x, 0);
        _x[Ease] = 0;
        _p[Ease, Ease] += FitSd * FitSd;
        for (var i = 0; i < 3; i++) _p[i, i] += 1e-4;
    }

    /// <summary>The pull so far on the expected puck with its resistance times e^<paramref name="log"/> and the dry one's share times
    /// e^<paramref name="dryLog"/>; the scale as it would have read at each weighing.</summary>
    private double[] Replay(double log, double dryLog, out PuckModel puck, out double[] state)
    {
        var parameters = Described(log, dryLog);
        puck = new PuckModel(parameters);
        state = new double[3];
        var shown = new double[_weights.Count];
        double at = 0.0, bar = 0.0;
        int pressure = 0, weight = 0;
        while (Seconds - at > 1e-9)
        {
            while (pressure < _pressures.Count && _pressures[pressure].Seconds <= at + 1e-9) bar = _pressures[pressure++].Bar;
            while (weight < shown.Length && _weights[weight].Seconds <= at + 1e-9) shown[weight++] = state[Shown];
            var until = Seconds;
            if (pressure < _pressures.Count) until = Math.Min(until, _pressures[pressure].Seconds);
            if (weight < shown.Length) until = Math.Min(until, _weights[weight].Seconds);
            var step = Math.Min(LongestStep, until - at);
            at += step;
            var result = puck.Step(bar, step);
            var (k, m) = Shares(step);
            Cascade(state, result.CupGrams, k, m);
        }

        while (weight < shown.Length) shown[weight++] = state[Shown];
        return shown;
    }

    private PuckParameters Described(double log, double dryLog) => _expected with
    {
        ResistanceBarSPerMl = Math.Clamp(_expected.ResistanceBarSPerMl * Math.Exp(log), 0.2, 200),
        DryShare = Math.Clamp(_expected.DryShare * Math.Exp(dryLog), 0.02, 3),
    };

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
        var share = _expectedSd * _expectedSd / ((_expectedSd * _expectedSd) + (sd * sd));
        (_log, _dryLog) = (both * share, both * (1 - share));
        FirstDropsSeconds = Math.Min(seenAt, SeenAt(both, ShotSimulator.FirstDropsGrams, throughScale: false));
        Fit();
    }

    /// <summary>When so much would have been seen with the dry puck's resistance times e^<paramref name="both"/>; infinity if not by now.</summary>
    private double SeenAt(double both, double grams, bool throughScale)
    {
        var puck = new PuckModel(Described(both, 0));
        var state = new double[3];
        double at = 0.0, bar = 0.0;
        var pressure = 0;
        while (Seconds - at > 1e-9)
        {
            while (pressure < _pressures.Count && _pressures[pressure].Seconds <= at + 1e-9) bar = _pressures[pressure++].Bar;
            at += LongestStep;
            var (k, m) = Shares(LongestStep);
            Cascade(state, puck.Step(bar, LongestStep).CupGrams, k, m);
            if (state[throughScale ? Shown : 1] >= grams) return at;
        }

        return double.PositiveInfinity;
    }

    private static (double Spout, double Scale) Shares(double step) =>
        (Spout.ShareThatFalls(step), 1 - Math.Exp(-step / ScaleLagSeconds));

    /// <summary>Out of the puck, to the spout, into the cup, onto the scale's display.</summary>
    private static void Cascade(double[] x, double outGrams, double k, double m)
    {
        var falls = (x[0] + outGrams) * k;
        x[0] += outGrams - falls;
        x[1] += falls;
        x[2] += (x[1] - x[2]) * m;
    }
}
