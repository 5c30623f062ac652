namespace RuddySpring.Core.Water;

/// <summary>Viscosity of water, IAPWS R12-08 (equations 10 to 12, without the critical enhancement).</summary>
public static class Viscosity
{
    private static readonly double[] H0 = [1.67752, 2.20462, 0.6366564, -0.241605];

    // rows are the power of density, columns the power of inverse temperature (table 2 of the release)
    private static readonly double[][] H1 =
    [
        [0.520094, 0.0850895, -1.08374, -0.289555, 0, 0],
        [0.222531, 0.999115, 1.88797, 1.26613, 0, 0.120573],
        [-0.281378, -0.906851, -0.772479, -0.489837, -0.257040, 0],
        [0.161913, 0.257399, 0, 0, 0, 0],
        [-0.0325372, 0, 0, 0.0698452, 0, 0],
        [0, 0, 0, 0, 0.00872102, 0],
        [0, 0, 0, -0.00435673, 0, -0.000593264],
    ];

    /// <summary>Dynamic viscosity in micropascal seconds.</summary>
    /// <param name="kelvin">Temperature in K, 273.15 to 1173.15.</param>
    /// <param name="densityKgPerM3">Density in kg/m3, 0 to 1200.</param>
    public static double MicroPascalSeconds(double kelvin, double densityKgPerM3)
    {
        var t = kelvin / 647.096;
        var rho = densityKgPerM3 / 322.0;
        var dilute = 0.0;
        for (var i = 0; i < 4; i++)
            dilute += H0[i] / Math.Pow(t, i);
        var sum = 0.0;
        for (var j = 0; j < H1.Length; j++)
        {
            for (var i = 0; i < 6; i++)
                sum += H1[j][i] * Math.Pow((1.0 / t) - 1.0, i) * Math.Pow(rho - 1.0, j);
        }

        return 100.0 * Math.Sqrt(t) / dilute * Math.Exp(rho * sum);
    }

    /// <summary>How much more viscous water is at a temperature in degC (0 to 150) than at 93 degC; 1 at 93 degC.</summary>
    public static double RelativeTo93C(double temperatureC) => LiquidMicroPascalSeconds(temperatureC) / At93C;

    private static readonly double At93C = LiquidMicroPascalSeconds(93.0);

    private static double LiquidMicroPascalSeconds(double temperatureC) =>
        MicroPascalSeconds(temperatureC + Units.KelvinAtZeroC, 1000.0 * LiquidWater.DensityGramsPerMl(temperatureC));
}
