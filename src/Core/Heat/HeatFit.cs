using System.Globalization;
using RuddySpring.Core.Fitting;
using RuddySpring.Core.Machines;

namespace RuddySpring.Core.Heat;

/// <summary>A heat constant that was fitted.</summary>
/// <param name="Field">Its field.</param>
/// <param name="Label">What it is called.</param>
/// <param name="Unit">Unit as printed.</param>
/// <param name="Before">What it was.</param>
/// <param name="Value">Best value.</param>
/// <param name="Low">Lower end of its 90 % interval.</param>
/// <param name="High">Upper end.</param>
public sealed record FittedConstant(
    string Field,
    string Label,
    string Unit,
    double Before,
    double Value,
    double Low,
    double High
);

/// <summary>
/// A machine's heat constants fitted to its readings: nonlinear least squares on the logarithms of the constants, each reading
/// over its own deviation, with a prior about what they were before any fit, so that few readings move them little, what the
/// readings cannot tell keeps its prior's width, and fitting twice gives the same answer. How far the strip sits off is one of
/// the unknowns. A strip is read in steps and counts so; a sizzling drop is a bound and counts only when it is broken; the lamp
/// counts by how long the element stayed on and off.
/// </summary>
/// <param name="Constants">What came out.</param>
/// <param name="Points">Each group reading beside what the fit says, against minutes since switch-on, sessions one after the
/// other.</param>
/// <param name="Readings">How many readings counted.</param>
/// <param name="RootMeanSquareK">Of the group readings' residuals, K.</param>
/// <param name="Changed">The machine with the constants in place.</param>
public sealed record HeatFit(
    IReadOnlyList<FittedConstant> Constants,
    IReadOnlyList<FitPoint> Points,
    int Readings,
    double RootMeanSquareK,
    Machine Changed
)
{
    /// <summary>Fewest readings that are worth a fit.</summary>
    public const int FewestReadings = 4;

    // the run finds its boiler's switching temperatures to 1e-7 K, so slopes are taken over steps that are wide beside that
    private const double SlopeStep = 0.01;
    private const double Tolerance = 1e-7;

    // no lumped model is a machine: what is left between them when the constants are known
    private const double ModelSpreadK = 0.3;
    private const double UnfittedSpreadK = 4.0;
    private const int Draws = 600;
    private const double FewDraws = 40;
    private const ulong Seed = 20250901;
    private const double Tail = 0.05;
    private const double Normal95 = 1.645;

    /// <summary>Fits a machine to its sessions.</summary>
    /// <exception cref="DoesNotFitException">There are fewer than <see cref="FewestReadings"/> readings that count.</exception>
    public static HeatFit Of(Machine machine, IReadOnlyList<HeatLog> logs)
    {
        var prior = HeatConstants.Of(machine).Prior ?? HeatPrior.Of(machine);
        return Of(prior, prior.On(machine), logs);
    }

    /// <summary>
    /// Fits a machine to a log of temperatures that is not kept: later fits start from what came out, and logging again starts
    /// from what was before.
    /// </summary>
    /// <exception cref="DoesNotFitException">There are fewer than <see cref="FewestReadings"/> readings that count.</exception>
    public static HeatFit Measured(Machine machine, HeatLog log)
    {
        var constants = HeatConstants.Of(machine);
        var before = constants.BeforeMeasuring ?? constants.Prior ?? HeatPrior.Of(machine);
        var fit = Of(before, before.On(machine), [log]);
        return fit with
        {
            Changed = fit.Changed with
            {
                Heat = fit.Changed.Heat! with { Prior = HeatPrior.Of(fit.Changed), BeforeMeasuring = before },
            },
        };
    }

    /// <summary>What came out, in one sentence.</summary>
    public string Sentence =>
        string.Create(
            CultureInfo.InvariantCulture,
            $"{Readings} readings; the curve passes within {Quantity.Kelvin(RootMeanSquareK):0.0} of the group's. From now "
                + $"on it is good to about {Quantity.Kelvin(Changed.Heat!.SpreadK):0.0}."
        );

    private static HeatFit Of(HeatPrior prior, Machine start, IReadOnlyList<HeatLog> logs)
    {
        var counted = logs.Sum(l => l.Readings.Count);
        if (counted < FewestReadings)
            throw new DoesNotFitException(
                "readings",
                $"At least {FewestReadings} readings are needed; there are {counted}. Every reading in Warm counts."
            );
        var knobs = HeatKnob.For(start, logs);
        Machine Turned(double[] p)
        {
            var turned = start;
            for (var i = 0; i < knobs.Count; i++)
                turned = knobs[i].Turn(start, turned, p[i]);
            return turned;
        }

        // the last parameter is how far the strip sits off, K
        double[] Residuals(double[] p)
        {
            var turned = Turned(p);
            var list = new List<double>(counted + p.Length);
            foreach (var log in logs)
                list.AddRange(ReadingAgainstRun.All(turned, log, p[^1]).Select(c => c.Residual));
            for (var i = 0; i < knobs.Count; i++)
                list.Add(p[i] / knobs[i].Spread);
            list.Add(p[^1] / HeatKnob.StripSpreadK);
            return [.. list];
        }

        var fit = NonlinearFit.Of(Residuals, new double[knobs.Count + 1], SlopeStep, Tolerance);
        var draws = WeightedDraws.Of(
            Residuals,
            fit,
            [.. knobs.Select(k => k.Spread), HeatKnob.StripSpreadK],
            Draws,
            new SeededRandom(Seed)
        );
        var best = Turned(fit.Parameters);
        var constants = knobs
            .Select(
                (k, i) =>
                {
                    double At(double turns) => k.Get(k.Turn(start, start, turns));
                    var (low, high) = (draws.Quantile(p => p[i], Tail), draws.Quantile(p => p[i], 1 - Tail));
                    var normal = Normal95 * fit.StandardError(i);
                    // draws of which only a few count are not to be trusted to be narrower than the covariance
                    if (draws.EffectiveCount < FewDraws)
                        (low, high) = (Math.Min(low, fit.Parameters[i] - normal), Math.Max(high, fit.Parameters[i] + normal));
                    return new FittedConstant(k.Range.Field, k.Label, k.Range.Unit, k.Get(start), k.Get(best), At(low), At(high));
                }
            )
            .ToArray();

        List<ReadingAgainstRun> OfGroup(double[] p) =>
            [.. logs.SelectMany(l => ReadingAgainstRun.All(Turned(p), l, p[^1])).Where(c => c.IsGroup)];
        var ofGroup = OfGroup(fit.Parameters);
        var rms = ofGroup.Count == 0 ? 0 : Math.Sqrt(ofGroup.Average(c => Math.Pow(c.Observed - c.Computed, 2)));
        var spread = ofGroup.Count < FewestReadings ? UnfittedSpreadK : Spread(fit, knobs.Count, OfGroup);
        var points = ofGroup.Select(c => new FitPoint(c.Seconds / 60.0, c.Observed, c.Computed)).ToArray();
        var changed = best with
        {
            Heat = best.Heat! with { SpreadK = Math.Min(UnfittedSpreadK, spread), FittedReadings = counted, Prior = prior },
        };
        return new(constants, points, counted, rms, changed);
    }

    /// <summary>
    /// One standard deviation of the group as the fitted machine computes it, K: what the constants' covariance leaves open at
    /// the readings, the model's own, and what the readings scatter more than they should.
    /// </summary>
    private static double Spread(NonlinearFit fit, int knobs, Func<double[], List<ReadingAgainstRun>> ofGroup)
    {
        var at = ofGroup(fit.Parameters);
        var slopes = Enumerable
            .Range(0, knobs + 1)
            .Select(k =>
            {
                var nudged = (double[])fit.Parameters.Clone();
                nudged[k] += SlopeStep;
                // the strip's offset is in what the strip shows and not in the group
                return k == knobs
                    ? new double[at.Count]
                    : ofGroup(nudged).Zip(at, (n, c) => (n.Computed - c.Computed) / SlopeStep).ToArray();
            })
            .ToArray();
        var open = 0.0;
        for (var i = 0; i < at.Count; i++)
        {
            for (var a = 0; a <= knobs; a++)
            {
                for (var b = 0; b <= knobs; b++)
                    open += slopes[a][i] * fit.Covariance[a, b] * slopes[b][i];
            }
        }

        var scatter = at.Average(c => c.Residual * c.Residual);
        return Math.Sqrt((Math.Max(0, open / at.Count) + (ModelSpreadK * ModelSpreadK)) * Math.Max(1, scatter));
    }
}
