using RuddySpring.Core.Machines;

namespace RuddySpring.Core.Care;

/// <summary>
/// How much water leaves how much scale. Where water boils, the whole of its temporary hardness falls out as calcium carbonate:
/// Ca(HCO3)2 gives CaCO3 + CO2 + H2O, one for one, so that hardness told in mg/l of CaCO3 is the scale of each litre (any
/// textbook
/// of water chemistry; WHO, Hardness in Drinking-water, 2011, for the unit).
/// </summary>
public static class Descaling
{
    /// <summary>Hardness of the water, mg/l of CaCO3.</summary>
    public static readonly FieldRange Hardness = new("waterHardness", "Hardness of the water", 0, 1000, "mg/l");

    /// <summary>Where nobody knows it: hard, as most tap water that people complain of, mg/l of CaCO3 (common
    /// practice).</summary>
    public const double UsualHardness = 150;

    /// <summary>A German degree of hardness in mg/l of CaCO3: 10 mg/l of CaO, times 100.09 / 56.08 (DIN 38409-6).</summary>
    public const double MgPerLitreOfDegree = 17.85;

    // about a quarter of a millimetre on the walls of a small boiler (common practice: well before the element is covered)
    private const double BoilerScaleGramsPerLitre = 10;
    private const double KettleScaleGrams = 5;

    /// <summary>Scale in g that litres of water leave where they boil.</summary>
    public static double ScaleGrams(double litres, double hardness) => litres * hardness / 1000;

    /// <summary>Hardness in mg/l of CaCO3 as German degrees.</summary>
    public static double Degrees(double hardness) => hardness / MgPerLitreOfDegree;

    /// <summary>Litres until a boiler wants descaling; null for water without hardness.</summary>
    /// <param name="boilerLitres">What the boiler holds, l.</param>
    /// <param name="hardness">mg/l of CaCO3.</param>
    private static double? BoilerLitres(double boilerLitres, double hardness) =>
        Litres(BoilerScaleGramsPerLitre * boilerLitres, hardness);

    /// <summary>The same for a kettle.</summary>
    private static double? KettleLitres(double hardness) => Litres(KettleScaleGrams, hardness);

    /// <summary>The interval of a machine's boiler or of its kettle.</summary>
    public static CareInterval IntervalOf(Machine machine, double hardness)
    {
        const int years = 2; // whatever the water, boilers are opened about every two years (common practice)
        var litres = machine.HasBoiler
            ? BoilerLitres(HeatConstants.Of(machine).FillGrams / 1000, hardness)
            : KettleLitres(hardness);
        return new(Litres: litres, Days: machine.HasBoiler ? years * 365 : 180);
    }

    private static double? Litres(double scaleGrams, double hardness) =>
        hardness < 1 ? null : Math.Min(5000, Math.Max(0.5, scaleGrams * 1000 / hardness));
}
