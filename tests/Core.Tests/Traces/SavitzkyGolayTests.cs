using RuddySpring.Core.Traces;

namespace RuddySpring.Core.Tests.Traces;

public sealed class SavitzkyGolayTests
{
    [Fact] // Savitzky and Golay (1964), table I: 5-point quadratic smoothing
    public void Five_point_quadratic_smoothing() =>
        AssertClose([-3 / 35.0, 12 / 35.0, 17 / 35.0, 12 / 35.0, -3 / 35.0], SavitzkyGolay.Weights(2, 2, 0));

    [Fact] // the same, 7-point
    public void Seven_point_quadratic_smoothing() =>
        AssertClose([-2 / 21.0, 3 / 21.0, 6 / 21.0, 7 / 21.0, 6 / 21.0, 3 / 21.0, -2 / 21.0], SavitzkyGolay.Weights(3, 2, 0));

    [Fact] // the same, table IV: first derivative
    public void Five_point_first_derivative() => AssertClose([-0.2, -0.1, 0, 0.1, 0.2], SavitzkyGolay.Weights(2, 2, 1));

    [Fact] // scipy.signal.savgol_coeffs, see tests/reference
    public void Coefficients_agree_with_SciPy()
    {
        foreach (var row in ReferenceFile.Rows("savitzky_golay.csv"))
        {
            var weights = SavitzkyGolay.Weights((int)row[0], (int)row[1], (int)row[2], (int)row[3]);
            AssertClose([.. row.Skip(4).Take(weights.Length)], weights);
        }
    }

    [Fact]
    public void A_parabola_and_its_slope_come_back_exactly_to_the_ends()
    {
        double[] values = [.. Enumerable.Range(0, 40).Select(i => 3.0 + (0.5 * i * 0.1) + (2.0 * i * 0.1 * i * 0.1))];
        AssertClose(values, SavitzkyGolay.Filter(values, 5, 2, 0, 0.1));
        AssertClose([.. Enumerable.Range(0, 40).Select(i => 0.5 + (4.0 * i * 0.1))], SavitzkyGolay.Filter(values, 5, 2, 1, 0.1));
    }

    [Fact]
    public void Short_records_do_not_fail()
    {
        Assert.Equal([5.0], SavitzkyGolay.Filter([5.0], 7, 2, 0, 0.1));
        Assert.Equal(2, SavitzkyGolay.Filter([1.0, 2.0], 7, 2, 1, 0.1).Length);
        Assert.Empty(SavitzkyGolay.Filter([], 7, 2, 0, 0.1));
    }

    private static void AssertClose(double[] expected, double[] actual)
    {
        Assert.Equal(expected.Length, actual.Length);
        for (var i = 0; i < expected.Length; i++)
            Assert.Equal(expected[i], actual[i], 1e-9);
    }
}
