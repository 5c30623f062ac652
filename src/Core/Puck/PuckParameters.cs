namespace RuddySpring.Core.Puck;

/// <summary>
/// What a puck is. The defaults are a first calibration: 18 g in 58.5 mm at 5 bar s/ml runs 36 g in about 27 s at 9 bar and 93 degC
/// and gives about 19 % extraction (values from memory of common practice; see the tests).
/// </summary>
public sealed record PuckParameters
{
    /// <summary>Dry coffee in g, 5 to 30.</summary>
    public required double DoseGrams { get; init; }

    /// <summary>
    /// Resistance R_b in bar s/ml of this puck fully wet, swollen and fresh at 93 degC, before compaction; 0.2 to 200. This is what the
    /// grind sets.
    /// </summary>
    public required double ResistanceBarSPerMl { get; init; }

    /// <summary>Water temperature at the puck in degC, 20 to 100.</summary>
    public double WaterC { get; init; } = 93;

    /// <summary>Rise of resistance per bar (beta): flow grows less than pressure.</summary>
    public double CompactionPerBar { get; init; } = 0.08;

    /// <summary>Share of the full resistance just after wetting, before the grounds swell.</summary>
    public double SwellFrom { get; init; } = 0.55;

    /// <summary>Time constant of swelling in s, 4 to 10.</summary>
    public double SwellSeconds { get; init; } = 6;

    /// <summary>Share of the resistance left when fines and solubles have gone.</summary>
    public double ErodedTo { get; init; } = 0.55;

    /// <summary>Water passed over dose (ml/g) at which that loss is 63 % done.</summary>
    public double ErosionRatio { get; init; } = 1.8;

    /// <summary>Share of the resistance lost by standing wet for long; waiting lets a choked puck run.</summary>
    public double SoftensBy { get; init; } = 0.3;

    /// <summary>Time constant of that softening in s.</summary>
    public double SoftenSeconds { get; init; } = 60;

    /// <summary>Water kept, g per g of dose.</summary>
    public double Retention { get; init; } = 1.05;

    /// <summary>Resistance of the dry bed to the wetting front, as a share of R_b.</summary>
    public double DryShare { get; init; } = 0.3;

    /// <summary>Suction of the dry bed in bar.</summary>
    public double CapillaryBar { get; init; } = 0.1;

    /// <summary>Parallel lanes, 1 to 15.</summary>
    public int Lanes { get; init; } = 5;

    /// <summary>Spread (standard deviation of the logarithm) of the lanes' permeability: how evenly the puck was prepared; 0 to 1.</summary>
    public double LaneSpread { get; init; } = 0.12;

    /// <summary>Orifice constant in bar s2/ml2 below the puck (flow-restricting basket), 0 for none.</summary>
    public double RestrictorBarS2PerMl2 { get; init; }

    /// <summary>Soluble share of the dry coffee.</summary>
    public double SolubleShare { get; init; } = 0.30;

    public static readonly FieldRange Resistance = new("resistanceBarSPerMl", "Puck resistance", 0.2, 200, "bar s/ml");
    public static readonly FieldRange WaterTemperature = new("waterC", "Water at the puck", 20, 100, "degC");
    public static readonly FieldRange Spread = new("laneSpread", "Lane spread", 0, 1, "");

    /// <summary>Parameters with every number checked.</summary>
    /// <exception cref="FieldRangeException">A number is out of range.</exception>
    public PuckParameters Checked()
    {
        Pulls.CupVolumes.Dose.Check(DoseGrams);
        Resistance.Check(ResistanceBarSPerMl);
        WaterTemperature.Check(WaterC);
        Spread.Check(LaneSpread);
        return this;
    }
}
