namespace RuddySpring.Core.Coaching;

/// <summary>
/// Weight and flow while the scale is still telling: a Kalman filter with constant flow (Kalman 1960; the constant-velocity model
/// of any text on tracking), run forward by the scale's known lag.
/// </summary>
/// <param name="lagSeconds">How late the scale reads, s.</param>
/// <param name="weightNoiseGrams">Standard deviation of a reading, g.</param>
/// <param name="flowWander">How fast the flow may change, g/s per root second.</param>
public sealed class LiveFlow(double lagSeconds = 0.4, double weightNoiseGrams = 0.12, double flowWander = 0.18)
{
    private double _weight;
    private double _flow;
    private double _pww = 1.0;
    private double _pwf;
    private double _pff = 0.25;
    private double? _last;

    /// <summary>Flow now, g/s; never negative.</summary>
    public double FlowGramsPerS => Math.Max(0.0, _flow);

    /// <summary>Weight now, g, with the lag taken out.</summary>
    public double WeightGrams => _weight + (FlowGramsPerS * lagSeconds);

    /// <summary>Forgets what was and starts at a weight in g, nothing flowing.</summary>
    public void Restart(double seconds, double grams)
    {
        (_weight, _flow, _pww, _pwf, _pff, _last) = (grams, 0.0, 1.0, 0.0, 0.25, seconds);
    }

    /// <summary>Takes a reading in g at a time in s; readings that run backwards are ignored.</summary>
    public void Take(double seconds, double grams)
    {
        if (_last is not { } last)
        {
            _last = seconds;
            _weight = grams;
            return;
        }

        var dt = seconds - last;
        if (dt <= 0.0)
            return;
        _last = seconds;
        var q = flowWander * flowWander;
        _weight += _flow * dt;
        _pww += (2.0 * dt * _pwf) + (dt * dt * _pff) + (q * dt * dt * dt / 3.0);
        _pwf += (dt * _pff) + (q * dt * dt / 2.0);
        _pff += q * dt;

        var innovation = grams - _weight;
        var variance = _pww + (weightNoiseGrams * weightNoiseGrams);
        var gainWeight = _pww / variance;
        var gainFlow = _pwf / variance;
        _weight += gainWeight * innovation;
        _flow += gainFlow * innovation;
        _pff -= gainFlow * _pwf;
        _pwf *= 1.0 - gainWeight;
        _pww *= 1.0 - gainWeight;
    }
}
