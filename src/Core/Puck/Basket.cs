using System.Globalization;
using RuddySpring.Core.Machines;

namespace RuddySpring.Core.Puck;

/// <summary>How a basket's wall runs.</summary>
public enum BasketShape
{
    /// <summary>Straight: flows faster.</summary>
    Straight,

    /// <summary>Narrower at the bottom.</summary>
    Tapered,
}

/// <summary>What lies on the puck.</summary>
public enum PuckCover
{
    /// <summary>Nothing.</summary>
    Nothing,

    /// <summary>A metal screen.</summary>
    Screen,

    /// <summary>A paper disc.</summary>
    Paper,
}

/// <summary>Where the top of the dry puck stands under the rim.</summary>
public enum Headspace
{
    /// <summary>The handle will not close.</summary>
    TooMuch,

    /// <summary>It closes hard; the screen presses a deep print.</summary>
    Tight,

    /// <summary>A faint print, or a hair's breadth.</summary>
    Right,

    /// <summary>No print; the handle closes too far and water stands over the puck.</summary>
    TooLittle,
}

/// <summary>One basket.</summary>
public sealed record Basket
{
    /// <summary>Inner diameter in mm, 35 to 65.</summary>
    public required double DiameterMm { get; init; }

    /// <summary>Inner depth in mm, 8 to 90.</summary>
    public required double DepthMm { get; init; }

    /// <summary>Whether a ridge in the wall holds it in the portafilter.</summary>
    public bool Ridged { get; init; }

    /// <summary>Dose it is made for, g, 5 to 30.</summary>
    public required double NominalDoseGrams { get; init; }

    /// <summary>Its wall.</summary>
    public BasketShape Shape { get; init; }

    /// <summary>Orifice constant in bar s2/ml2 of a flow-restricting basket; 0 for an ordinary one.</summary>
    public double RestrictorBarS2PerMl2 { get; init; }

    /// <summary>Thickness of the metal screen that is used with it, mm, 0.2 to 4.</summary>
    public double ScreenMm { get; init; } = 1.0;

    public static readonly FieldRange Diameter = MachineRanges.BasketDiameter with { Field = "diameterMm" };
    public static readonly FieldRange Depth = new("depthMm", "Basket depth", 8, 90, "mm");
    public static readonly FieldRange Nominal = new("nominalDoseGrams", "Dose it is made for", 5, 30, "g");
    public static readonly FieldRange Screen = new("screenMm", "Thickness of the screen", 0.2, 4, "mm");

    /// <summary>The basket that a machine's own numbers stand for.</summary>
    public static Basket Of(Machine machine)
    {
        var dose = FamilyDefaults.Of(machine.Family).DoseGrams;
        var cut = Cutaway.Of(machine, dose);
        return new()
        {
            DiameterMm = machine.BasketDiameterMm,
            DepthMm = cut.BasketDepthMm,
            NominalDoseGrams = dose,
            RestrictorBarS2PerMl2 = machine.RestrictorBarS2PerMl2,
        };
    }

    /// <summary>The basket with every number checked.</summary>
    /// <exception cref="FieldRangeException">A number is out of range.</exception>
    public Basket Checked()
    {
        Diameter.Check(DiameterMm);
        Depth.Check(DepthMm);
        Nominal.Check(NominalDoseGrams);
        MachineRanges.Restrictor.Check(RestrictorBarS2PerMl2);
        Screen.Check(ScreenMm);
        return this;
    }
}

/// <summary>How a dose lies in a basket.</summary>
/// <param name="PuckMm">Height of the tamped dry puck.</param>
/// <param name="HeadspaceMm">From the puck, or what lies on it, to the rim; negative where it stands over it.</param>
/// <param name="Headspace">What that means.</param>
/// <param name="Sentence">In words, with the check by the screen's imprint.</param>
/// <param name="FromGrams">Least dose that stands right, g.</param>
/// <param name="ToGrams">Most dose that stands right, g.</param>
public sealed record PuckFit(
    double PuckMm,
    double HeadspaceMm,
    Headspace Headspace,
    string Sentence,
    double FromGrams,
    double ToGrams
)
{
    // common practice: the dry puck stands 2 to 3 mm under the rim; light roasts are denser, so more fits
    private const double RightFromMm = 1.5;
    private const double RightToMm = 3.5;
    private const double PaperMm = 0.2;
    private const double TaperedArea = 0.93;

    /// <summary>Tamped bulk density of ground coffee, g/ml (common practice, from memory: light 0.50, medium 0.48, dark
    /// 0.44).</summary>
    public static double TampedGramsPerMl(string roastLevel) =>
        roastLevel.ToLowerInvariant() switch
        {
            var r when r.Contains("light", StringComparison.Ordinal) => 0.50,
            var r when r.Contains("dark", StringComparison.Ordinal) => 0.44,
            _ => 0.48,
        };

    /// <summary>Of a dose in g of a roast in a basket, with what lies on it.</summary>
    public static PuckFit Of(Basket basket, double doseGrams, string roastLevel, PuckCover cover)
    {
        PuckParameters.Dose.Check(doseGrams);
        var area = Lever.PistonAreaM2(basket.DiameterMm) * 1e6 * (basket.Shape == BasketShape.Tapered ? TaperedArea : 1);
        var mmPerGram = 1000.0 / TampedGramsPerMl(roastLevel) / area;
        var lid = cover switch
        {
            PuckCover.Screen => basket.ScreenMm,
            PuckCover.Paper => PaperMm,
            _ => 0,
        };
        var puck = doseGrams * mmPerGram;
        var head = basket.DepthMm - puck - lid;
        double from = (basket.DepthMm - lid - RightToMm) / mmPerGram,
            to = (basket.DepthMm - lid - RightFromMm) / mmPerGram;
        var state =
            head < 0 ? Headspace.TooMuch
            : head < RightFromMm ? Headspace.Tight
            : head <= RightToMm ? Headspace.Right
            : Headspace.TooLittle;
        var range = FormattableString.Invariant($"{from:0.0} to {to:0.0} g");
        return new(
            puck,
            head,
            state,
            state switch
            {
                Headspace.TooMuch => string.Create(
                    CultureInfo.InvariantCulture,
                    $"Does not fit: the puck stands {-head:0.0} mm over the rim and the handle will not close. This basket "
                        + $"takes {range} of this roast."
                ),
                Headspace.Tight => FormattableString.Invariant(
                    $"{head:0.0} mm under the rim is tight: locked in and out again it shows a deep print. {range} is right."
                ),
                Headspace.Right => FormattableString.Invariant(
                    $"{head:0.0} mm under the rim: lock in and out once; a faint print of the screen says that it is right."
                ),
                _ => string.Create(
                    CultureInfo.InvariantCulture,
                    $"{head:0.0} mm under the rim leaves no print: the handle closes too far and water stands over the "
                        + $"puck. {range} is right."
                ),
            },
            from,
            to
        );
    }

    /// <summary>
    /// Whether dose, screen and water go into one deep basket together, g of water that still fit; for machines whose basket is
    /// the chamber.
    /// </summary>
    public static double WaterRoomGrams(Basket basket, double doseGrams, string roastLevel, PuckCover cover, double gramsPerMl)
    {
        var area = Lever.PistonAreaM2(basket.DiameterMm) * 1e6;
        var lid =
            cover == PuckCover.Screen ? basket.ScreenMm
            : cover == PuckCover.Paper ? PaperMm
            : 0;
        return Math.Max(0, ((basket.DepthMm - lid) * area / 1000.0) - (doseGrams / TampedGramsPerMl(roastLevel))) * gramsPerMl;
    }
}
