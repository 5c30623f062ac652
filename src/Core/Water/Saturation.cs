namespace RuddySpring.Core.Water;

/// <summary>
/// The saturation line of water, IAPWS-IF97 region 4 (equations 30 and 31), 273.15 K to 647.096 K.
/// </summary>
public static class Saturation
{
    private static readonly FieldRange TemperatureRange = new("temperatureC", "Temperature", 0, 373.946, "degC");
    private static readonly FieldRange PressureRange = new("pressureBarAbsolute", "Absolute pressure", 0.00611213, 220.64, "bar");

    private const double N1 = 0.11670521452767e4;
    private const double N2 = -0.72421316703206e6;
    private const double N3 = -0.17073846940092e2;
    private const double N4 = 0.12020824702470e5;
    private const double N5 = -0.32325550322333e7;
    private const double N6 = 0.14915108613530e2;
    private const double N7 = -0.48232657361591e4;
    private const double N8 = 0.40511340542057e6;
    private const double N9 = -0.23855557567849;
    private const double N10 = 0.65017534844798e3;

    /// <summary>Absolute saturation pressure in bar at a temperature in degC.</summary>
    /// <exception cref="FieldRangeException">Outside 0 to 373.946 degC.</exception>
    public static double PressureBar(double temperatureC)
    {
        TemperatureRange.Check(temperatureC);
        var t = temperatureC + Units.KelvinAtZeroC;
        var theta = t + (N9 / (t - N10));
        var a = (theta * theta) + (N1 * theta) + N2;
        var b = (N3 * theta * theta) + (N4 * theta) + N5;
        var c = (N6 * theta * theta) + (N7 * theta) + N8;
        var root = 2.0 * c / (-b + Math.Sqrt((b * b) - (4.0 * a * c)));
        return 10.0 * Math.Pow(root, 4);
    }

    /// <summary>Saturation temperature in degC at an absolute pressure in bar.</summary>
    /// <exception cref="FieldRangeException">Outside 0.00611 to 220.64 bar.</exception>
    public static double TemperatureC(double pressureBarAbsolute)
    {
        PressureRange.Check(pressureBarAbsolute);
        var beta = Math.Pow(pressureBarAbsolute / 10.0, 0.25);
        var e = (beta * beta) + (N3 * beta) + N6;
        var f = (N1 * beta * beta) + (N4 * beta) + N7;
        var g = (N2 * beta * beta) + (N5 * beta) + N8;
        var d = 2.0 * g / (-f - Math.Sqrt((f * f) - (4.0 * e * g)));
        return ((N10 + d - Math.Sqrt(((N10 + d) * (N10 + d)) - (4.0 * (N9 + (N10 * d))))) / 2.0) - Units.KelvinAtZeroC;
    }

    /// <summary>Boiling point in degC of an open kettle at an altitude in metres.</summary>
    public static double BoilingPointC(double altitudeMetres) => TemperatureC(Atmosphere.PressureBar(altitudeMetres));

    /// <summary>Boiler temperature in degC at a gauge pressure in bar with no air in it, at an altitude in metres.</summary>
    public static double BoilerTemperatureC(double gaugeBar, double altitudeMetres) =>
        TemperatureC(gaugeBar + Atmosphere.PressureBar(altitudeMetres));
}
