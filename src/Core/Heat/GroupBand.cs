using MathNet.Numerics.Distributions;
using RuddySpring.Core.Machines;

namespace RuddySpring.Core.Heat;

/// <summary>The band that a group should be in at lever-up, and how likely it is to be in it when its temperature is not known
/// exactly.</summary>
/// <param name="LowC">Its lower end, degC.</param>
/// <param name="HighC">Its upper end, degC.</param>
public readonly record struct GroupBand(double LowC, double HighC)
{
    // a plan keeps off each end by so many standard deviations: at most about one shot in three is off on that side
    private const double DeviationsOff = 0.4;
    private const double MostShareOff = 0.3;

    /// <summary>The band of a machine.</summary>
    public static GroupBand Of(HeatConstants heat) => new(heat.BandLowC, heat.BandHighC);

    /// <summary>Width, K.</summary>
    public double WidthK => HighC - LowC;

    /// <summary>Whether a temperature in degC lies in it.</summary>
    public bool Holds(double groupC) => groupC >= LowC && groupC <= HighC;

    /// <summary>Chance, 0 to 1, that a group is in the band.</summary>
    /// <param name="groupC">Where it is expected, degC.</param>
    /// <param name="plusMinusK">One standard deviation of it, K.</param>
    public double Chance(double groupC, double plusMinusK) =>
        plusMinusK <= 0 ? (Holds(groupC) ? 1 : 0) : Normal.CDF(groupC, plusMinusK, HighC) - Normal.CDF(groupC, plusMinusK, LowC);

    /// <summary>The part of the band that a plan aims for: the less is known, the further from its ends.</summary>
    public GroupBand ToAimFor(double plusMinusK)
    {
        var off = Math.Min(DeviationsOff * plusMinusK, MostShareOff * WidthK);
        return new(LowC + off, HighC - off);
    }
}
