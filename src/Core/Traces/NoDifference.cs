namespace RuddySpring.Core.Traces;

/// <summary>
/// Differences between two shots that count as none, because people cannot set or read them that finely (common practice). In the
/// unit of each quantity.
/// </summary>
public static class NoDifference
{
    /// <summary>Dose and the yield that is aimed at, g: scales show a tenth.</summary>
    public const double WeighedGrams = 0.15;

    /// <summary>What fell into the cup, g: the last drop.</summary>
    public const double CupGrams = 0.5;

    /// <summary>Ratio of cup to dose.</summary>
    public const double Ratio = 0.05;

    /// <summary>A grinder's setting: none that it shows.</summary>
    public const double Setting = 0.001;

    /// <summary>Temperatures of water and group, K.</summary>
    public const double Kelvin = 1.0;

    /// <summary>To the first drops, s.</summary>
    public const double DropsSeconds = 0.5;

    /// <summary>Times to the end, s.</summary>
    public const double Seconds = 1.0;

    /// <summary>Peak pressure, bar: a needle's width.</summary>
    public const double PeakBar = 0.3;

    /// <summary>Mean pressure, bar.</summary>
    public const double MeanBar = 0.2;

    /// <summary>Mean flow, g/s.</summary>
    public const double FlowGramsPerS = 0.05;

    /// <summary>Work of the hand, J.</summary>
    public const double WorkJoules = 1.0;

    /// <summary>R10, bar s/ml.</summary>
    public const double ResistanceBarSPerMl = 0.5;

    /// <summary>A mark on a scale of taste.</summary>
    public const double Mark = 0.5;
}
