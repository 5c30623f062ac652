namespace RuddySpring.Core.Water;

/// <summary>
/// Liquid water, IAPWS-IF97 region 1 (equation 7 and table 2), 0 to 350 degC, saturation to 1000 bar.
/// </summary>
public static class LiquidWater
{
    private static readonly FieldRange TemperatureRange = new("temperatureC", "Water temperature", 0, 349.9, "degC");
    private const double GasConstant = 461.526; // J/(kg K)

    private static readonly int[] I =
    [
        0,
        0,
        0,
        0,
        0,
        0,
        0,
        0,
        1,
        1,
        1,
        1,
        1,
        1,
        2,
        2,
        2,
        2,
        2,
        3,
        3,
        3,
        4,
        4,
        4,
        5,
        8,
        8,
        21,
        23,
        29,
        30,
        31,
        32,
    ];

    private static readonly int[] J =
    [
        -2,
        -1,
        0,
        1,
        2,
        3,
        4,
        5,
        -9,
        -7,
        -1,
        0,
        1,
        3,
        -3,
        0,
        1,
        3,
        17,
        -4,
        0,
        6,
        -5,
        -2,
        10,
        -8,
        -11,
        -6,
        -29,
        -31,
        -38,
        -39,
        -40,
        -41,
    ];

    private static readonly double[] N =
    [
        0.14632971213167,
        -0.84548187169114,
        -0.37563603672040e1,
        0.33855169168385e1,
        -0.95791963387872,
        0.15772038513228,
        -0.16616417199501e-1,
        0.81214629983568e-3,
        0.28319080123804e-3,
        -0.60706301565874e-3,
        -0.18990068218419e-1,
        -0.32529748770505e-1,
        -0.21841717175414e-1,
        -0.52838357969930e-4,
        -0.47184321073267e-3,
        -0.30001780793026e-3,
        0.47661393906987e-4,
        -0.44141845330846e-5,
        -0.72694996297594e-15,
        -0.31679644845054e-4,
        -0.28270797985312e-5,
        -0.85205128120103e-9,
        -0.22425281908000e-5,
        -0.65171222895601e-6,
        -0.14341729937924e-12,
        -0.40516996860117e-6,
        -0.12734301741641e-8,
        -0.17424871230634e-9,
        -0.68762131295531e-18,
        0.14478307828521e-19,
        0.26335781662795e-22,
        -0.11947622640071e-22,
        0.18228094581404e-23,
        -0.93537087292458e-25,
    ];

    /// <summary>Specific volume in m3/kg at a temperature in degC and an absolute pressure in bar.</summary>
    public static double SpecificVolume(double temperatureC, double pressureBarAbsolute)
    {
        var (t, pi, tau) = Reduced(temperatureC, pressureBarAbsolute);
        var sum = 0.0;
        for (var i = 0; i < N.Length; i++)
        {
            if (I[i] != 0)
                sum -= N[i] * I[i] * Math.Pow(7.1 - pi, I[i] - 1) * Math.Pow(tau - 1.222, J[i]);
        }

        return pi * sum * GasConstant * t / (pressureBarAbsolute * 1e5);
    }

    /// <summary>Isobaric heat capacity in J/(g K) at a temperature in degC and an absolute pressure in bar.</summary>
    public static double HeatCapacity(double temperatureC, double pressureBarAbsolute)
    {
        var (_, pi, tau) = Reduced(temperatureC, pressureBarAbsolute);
        var sum = 0.0;
        for (var i = 0; i < N.Length; i++)
        {
            sum += N[i] * Math.Pow(7.1 - pi, I[i]) * J[i] * (J[i] - 1) * Math.Pow(tau - 1.222, J[i] - 2);
        }

        return -tau * tau * sum * GasConstant / 1000.0;
    }

    /// <summary>Density in g/ml of liquid water at a temperature in degC, at one atmosphere or on the saturation line above
    /// it.</summary>
    public static double DensityGramsPerMl(double temperatureC)
    {
        TemperatureRange.Check(temperatureC);
        return 0.001 / SpecificVolume(temperatureC, Math.Max(Atmosphere.SeaLevelBar, Saturation.PressureBar(temperatureC)));
    }

    private static (double Kelvin, double Pi, double Tau) Reduced(double temperatureC, double pressureBarAbsolute)
    {
        TemperatureRange.Check(temperatureC);
        var t = temperatureC + Units.KelvinAtZeroC;
        return (t, pressureBarAbsolute / 165.3, 1386.0 / t);
    }
}
