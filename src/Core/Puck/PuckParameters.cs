namespace RuddySpring.Core.Puck;

/// <summary>One puck as the equations see it: what <c>ShotConditions</c> works out of grind, dose, basket and water.</summary>
public sealed record PuckParameters
{
    /// <summary>Dry coffee in g, 5 to 30.</summary>
    public required double DoseGrams { get; init; }

    /// <summary>
    /// Resistance R_b in bar s/ml of this puck fully wet, swollen and fresh at 93 degC, before compaction; 0.2 to 200. This is
    /// what the grind sets.
    /// </summary>
    public required double ResistanceBarSPerMl { get; init; }

    /// <summary>Water temperature at the puck in degC, 20 to 100.</summary>
    public double WaterC { get; init; } = 93;

    /// <summary>How its coffee behaves.</summary>
    public PuckBehaviour Behaviour { get; init; } = PuckBehaviour.Usual;

    /// <summary>Parallel lanes, 1 to 15.</summary>
    public int Lanes { get; init; } = 5;

    /// <summary>Spread (standard deviation of the logarithm) of the lanes' permeability: how evenly the puck was prepared; 0 to
    /// 1.</summary>
    public double LaneSpread { get; init; } = 0.12;

    /// <summary>Orifice constant in bar s2/ml2 below the puck (flow-restricting basket), 0 for none.</summary>
    public double RestrictorBarS2PerMl2 { get; init; }

    public static readonly FieldRange Dose = new("doseGrams", "Dose", 5, 30, "g");
    public static readonly FieldRange Resistance = new("resistanceBarSPerMl", "Puck resistance", 0.2, 200, "bar s/ml");
    public static readonly FieldRange WaterTemperature = new("waterC", "Water at the puck", 20, 100, "degC");
    public static readonly FieldRange Spread = new("laneSpread", "Lane spread", 0, 1, "");

    /// <summary>Parameters with every number checked.</summary>
    /// <exception cref="FieldRangeException">A number is out of range.</exception>
    public PuckParameters Checked()
    {
        Dose.Check(DoseGrams);
        Resistance.Check(ResistanceBarSPerMl);
        WaterTemperature.Check(WaterC);
        Spread.Check(LaneSpread);
        return this;
    }
}
