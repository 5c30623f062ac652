using MathNet.Numerics.LinearAlgebra;

namespace RuddySpring.Core.Heat;

/// <summary>
/// A lumped heat network, stepped exactly. Every node i has a heat capacity C_i in J/K, conductances G_ij in W/K to other nodes
/// and an outward conductance H_i to surroundings of fixed temperature: C_i dT_i/dt = sum_j G_ij (T_j - T_i) - H_i T_i +
/// inflow_i, where inflow_i = sum H_ik S_k + q_i in W. Written with D = diag(C) the matrix D^-1/2 K D^-1/2 is symmetric, so its
/// eigenvectors give the matrix exponential and its integral in closed form (any text on linear systems).
/// </summary>
public sealed class HeatNetwork
{
    private const double SeriesBelow = 1e-2;
    private const double AtOnceSeconds = 0.01;
    private readonly int _n;
    private readonly double[] _rootHeat;
    private readonly double[] _rate;
    private readonly double[,] _vector;
    private readonly double[] _state;
    private readonly double[] _drive;

    /// <summary>Makes a network of n nodes.</summary>
    /// <param name="heatJPerK">Heat capacities in J/K, n values above 0.</param>
    /// <param name="links">Conductances in W/K between pairs of nodes, 0 or more.</param>
    /// <param name="outwardWPerK">Conductances in W/K to surroundings, n values, 0 or more.</param>
    public HeatNetwork(
        IReadOnlyList<double> heatJPerK,
        IReadOnlyList<(int A, int B, double WPerK)> links,
        IReadOnlyList<double> outwardWPerK
    )
    {
        _n = heatJPerK.Count;
        _rootHeat = [.. heatJPerK.Select(Math.Sqrt)];
        _state = new double[_n];
        _drive = new double[_n];
        var matrix = Matrix<double>.Build.Dense(_n, _n);
        for (var i = 0; i < _n; i++)
            matrix[i, i] = outwardWPerK[i];
        foreach (var (a, b, g) in links)
        {
            matrix[a, a] += g;
            matrix[b, b] += g;
            matrix[a, b] -= g;
            matrix[b, a] -= g;
        }

        for (var i = 0; i < _n; i++)
        {
            for (var j = 0; j < _n; j++)
                matrix[i, j] /= _rootHeat[i] * _rootHeat[j];
        }

        var eigen = matrix.Evd(Symmetricity.Symmetric);
        _rate = [.. eigen.EigenValues.Select(v => Math.Max(0.0, v.Real))];
        _vector = eigen.EigenVectors.ToArray();
    }

    /// <summary>Sets the temperatures in degC from which <see cref="At"/> and <see cref="Advance"/> go on, and the inflow in
    /// W.</summary>
    public void Begin(ReadOnlySpan<double> temperaturesC, ReadOnlySpan<double> inflowW)
    {
        for (var k = 0; k < _n; k++)
        {
            double state = 0,
                drive = 0;
            for (var i = 0; i < _n; i++)
            {
                state += _vector[i, k] * _rootHeat[i] * temperaturesC[i];
                drive += _vector[i, k] * inflowW[i] / _rootHeat[i];
            }

            _state[k] = state;
            _drive[k] = drive;
        }
    }

    /// <summary>Temperature in degC of one node some seconds after <see cref="Begin"/>.</summary>
    public double At(int node, double seconds)
    {
        var sum = 0.0;
        for (var k = 0; k < _n; k++)
        {
            var phi = Phi(_rate[k], seconds);
            sum += _vector[node, k] * (_state[k] + (phi * (_drive[k] - (_rate[k] * _state[k]))));
        }

        return sum / _rootHeat[node];
    }

    /// <summary>
    /// Writes all temperatures in degC after some seconds, and adds to <paramref name="integralKs"/> the time integral of each in
    /// K s.
    /// </summary>
    public void Advance(double seconds, Span<double> temperaturesC, Span<double> integralKs)
    {
        Span<double> after = stackalloc double[_n];
        Span<double> integral = stackalloc double[_n];
        for (var k = 0; k < _n; k++)
        {
            var phi = Phi(_rate[k], seconds);
            after[k] = _state[k] + (phi * (_drive[k] - (_rate[k] * _state[k])));
            integral[k] = (_state[k] * phi) + (_drive[k] * Psi(_rate[k], seconds));
        }

        for (var i = 0; i < _n; i++)
        {
            double t = 0,
                sum = 0;
            for (var k = 0; k < _n; k++)
            {
                t += _vector[i, k] * after[k];
                sum += _vector[i, k] * integral[k];
            }

            temperaturesC[i] = t / _rootHeat[i];
            integralKs[i] += sum / _rootHeat[i];
        }
    }

    /// <summary>(1 - exp(-rt))/r, by its series where the difference would lose digits.</summary>
    private static double Phi(double rate, double t)
    {
        var x = rate * t;
        return x < SeriesBelow
            ? t * (1.0 - (x / 2.0 * (1.0 - (x / 3.0 * (1.0 - (x / 4.0 * (1.0 - (x / 5.0 * (1.0 - (x / 6.0))))))))))
            : (1.0 - Math.Exp(-x)) / rate;
    }

    /// <summary>(t - Phi)/r, likewise.</summary>
    private static double Psi(double rate, double t)
    {
        var x = rate * t;
        return x < SeriesBelow
            ? t * t / 2.0 * (1.0 - (x / 3.0 * (1.0 - (x / 4.0 * (1.0 - (x / 5.0 * (1.0 - (x / 6.0 * (1.0 - (x / 7.0))))))))))
            : (t - Phi(rate, t)) / rate;
    }

    /// <summary>
    /// When a node, from where <see cref="Begin"/> set it, first reaches a temperature in degC from below (rising) or above; null
    /// when it does not within so many s. A node already past it crosses at once, 0.01 s on. Found by false position with the
    /// Illinois rule (Dowell and Jarratt 1971, from memory): the curve is nearly straight over a step, so a few trials do.
    /// </summary>
    public double? FirstCrossing(int node, double limitC, bool rising, double seconds)
    {
        bool Past(double over) => rising ? over >= 0 : over <= 0;
        var before = At(node, 0.0) - limitC;
        var after = At(node, seconds) - limitC;
        if (Past(before))
            return Math.Min(seconds, AtOnceSeconds);
        if (!Past(after))
            return null;
        double low = 0,
            high = seconds;
        for (var i = 0; i < 40 && high - low > 1e-6; i++)
        {
            var middle = high - (after * (high - low) / (after - before));
            var value = At(node, middle) - limitC;
            if (Math.Abs(value) < 1e-9)
                return middle;
            if (value < 0 == after < 0)
            {
                (high, after) = (middle, value);
                before /= 2.0;
            }
            else
            {
                (low, before) = (middle, value);
                after /= 2.0;
            }
        }

        return high;
    }
}
