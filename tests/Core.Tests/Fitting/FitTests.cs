using RuddySpring.Core.Fitting;

namespace RuddySpring.Core.Tests.Fitting;

public sealed class FitTests
{
    [Fact] // NIST StRD Norris (certified values; data from memory): intercept, slope, residual deviation 0.884796396144373
    public void A_straight_line_agrees_with_the_certified_values_of_Norris()
    {
        double[] y =
        [
            0.1,
            338.8,
            118.1,
            888.0,
            9.2,
            228.1,
            668.5,
            998.5,
            449.1,
            778.9,
            559.2,
            0.3,
            0.1,
            778.1,
            668.8,
            339.3,
            448.9,
            10.8,
            557.7,
            228.3,
            998.0,
            888.8,
            119.6,
            0.3,
            0.6,
            557.6,
            339.3,
            888.0,
            998.5,
            778.9,
            10.2,
            117.6,
            228.9,
            668.4,
            449.2,
            0.2,
        ];
        double[] x =
        [
            0.2,
            337.4,
            118.2,
            884.6,
            10.1,
            226.5,
            666.3,
            996.3,
            448.6,
            777.0,
            558.2,
            0.4,
            0.6,
            775.5,
            666.9,
            338.0,
            447.5,
            11.6,
            556.0,
            228.1,
            995.8,
            887.6,
            120.2,
            0.3,
            0.3,
            556.8,
            339.1,
            887.2,
            999.0,
            779.0,
            11.1,
            118.3,
            229.2,
            669.1,
            448.9,
            0.5,
        ];
        var fit = LinearFit.Of([.. x.Select(v => new[] { 1.0, v })], y);
        Assert.Equal(-0.262323073774029, fit.Coefficients[0], 1e-10);
        Assert.Equal(1.00211681802045, fit.Coefficients[1], 1e-12);
        Assert.Equal(0.884796396144373, fit.ResidualDeviation, 1e-10);
        Assert.Equal(0.232818234301152, fit.StandardErrors[0], 1e-10);
        Assert.Equal(34, fit.DegreesOfFreedom);
        // and through the Bayesian fit with nothing believed before
        var flat = BayesianFit.Of(
            [new(0, double.PositiveInfinity), new(0, double.PositiveInfinity)],
            1,
            0,
            [.. x.Select(v => new[] { 1.0, v })],
            y
        );
        Assert.Equal(-0.262323073774029, flat.Coefficients[0], 1e-8);
        Assert.Equal(1.00211681802045, flat.Coefficients[1], 1e-10);
        Assert.Equal(0.884796396144373, flat.NoiseDeviation, 1e-8);
        Assert.Equal(0.232818234301152, flat.Deviation(0), 1e-8);
    }

    [Fact] // NIST StRD Misra1a (certified values; data from memory), from its first, far start
    public void A_curve_agrees_with_the_certified_values_of_Misra1a()
    {
        double[] y = [10.07, 14.73, 17.94, 23.93, 29.61, 35.18, 40.02, 44.82, 50.76, 55.05, 61.01, 66.40, 75.47, 81.78];
        double[] x = [77.6, 114.9, 141.1, 190.8, 239.9, 289.0, 332.8, 378.4, 434.8, 477.3, 536.8, 593.1, 689.1, 760.0];
        var fit = NonlinearFit.Of(p => [.. x.Select((v, i) => y[i] - (p[0] * (1 - Math.Exp(-p[1] * v))))], [500, 0.0001]);
        Assert.True(fit.Converged);
        Assert.Equal(238.94212918, fit.Parameters[0], 238.9 * 1e-6);
        Assert.Equal(5.5015643181e-4, fit.Parameters[1], 5.5e-4 * 1e-6);
        // residual variance times (J'J)^-1 gives the certified standard deviation of the first parameter, 2.7070075241
        var variance = fit.Residuals.Sum(r => r * r) / (x.Length - 2);
        Assert.Equal(2.7070075241, fit.StandardError(0) * Math.Sqrt(variance), 2.7e-3);
    }

    [Fact] // Student's t for 2 degrees of freedom, two-sided 95 %: 4.303 (any table)
    public void An_interval_uses_students_t()
    {
        var fit = LinearFit.Of(
            [
                [1.0],
                [1.0],
                [1.0],
            ],
            [4.0, 5.0, 6.0]
        );
        Assert.Equal(5.0, fit.Coefficients[0], 1e-12);
        Assert.Equal(4.303 / Math.Sqrt(3), fit.PlusMinus(0)!.Value, 1e-3);
        Assert.Null(
            LinearFit
                .Of(
                    [
                        [1.0],
                    ],
                    [4.0]
                )
                .PlusMinus(0)
        );
    }

    [Fact] // readings that agree to the last digit are still read off a scale
    public void An_interval_is_never_narrower_than_the_scale_that_was_read()
    {
        var exact = LinearFit.Of(
            [
                [1.0, 1.0],
                [1.0, 2.0],
                [1.0, 3.0],
            ],
            [2.0, 4.0, 6.0],
            leastDeviation: 0.1
        );
        Assert.Equal(0.1, exact.ResidualDeviation);
        Assert.True(exact.PlusMinus(1) > 0.5);
    }

    [Fact]
    public void Too_few_rows_and_rows_too_alike_are_refused()
    {
        Assert.Equal(
            "rows",
            Assert
                .Throws<DoesNotFitException>(() =>
                    LinearFit.Of(
                        [
                            [1.0, 2.0],
                        ],
                        [1.0]
                    )
                )
                .Field
        );
        Assert.Contains(
            "too alike",
            Assert
                .Throws<DoesNotFitException>(() =>
                    LinearFit.Of(
                        [
                            [1.0, 2.0],
                            [1.0, 2.0],
                            [1.0, 2.0],
                        ],
                        [1.0, 1.1, 0.9]
                    )
                )
                .Sentence,
            StringComparison.Ordinal
        );
    }
}
