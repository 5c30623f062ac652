namespace RuddySpring.Core.Machines;

/// <summary>One machine: a family plus its own numbers.</summary>
public sealed record Machine
{
    /// <summary>Its family.</summary>
    public required MachineFamily Family { get; init; }

    /// <summary>Diameter of the piston in mm, 6 to 80.</summary>
    public required double PistonDiameterMm { get; init; }

    /// <summary>Handle travel over piston travel, 1 to 30; twin arms count both together. For strokes: 1.</summary>
    public required double LeverRatio { get; init; }

    /// <summary>Share of the hand's work that reaches the water, 0.3 to 1.</summary>
    public double Efficiency { get; init; } = 1.0;

    /// <summary>Seal friction in N, 0 to 500.</summary>
    public double FrictionNewtons { get; init; }

    /// <summary>Water the chamber takes up to its line, ml, 10 to 400. For boiler levers: what one full stroke moves.</summary>
    public required double ChamberMl { get; init; }

    /// <summary>Strokes a shot may use; 1 for a chamber that is filled once.</summary>
    public int StrokesAShot { get; init; } = 1;

    /// <summary>Inner diameter of the basket in mm, 35 to 65.</summary>
    public required double BasketDiameterMm { get; init; }

    /// <summary>Water that stays in machine and basket whatever one does, g, 0 to 30.</summary>
    public required double DeadWaterGrams { get; init; }

    /// <summary>Heat capacity in J/K of the metal the kettle's water meets (chamber and piston), or of the group on a boiler lever.</summary>
    public required double MetalHeatCapacity { get; init; }

    /// <summary>Force in kgf that the brewer is willing to use at the handle, 2 to 60.</summary>
    public double WillingForceKgf { get; init; } = 20;

    /// <summary>Boiler gauge pressure in bar, 0.2 to 2; null where a kettle gives the water.</summary>
    public double? BoilerGaugeBar { get; init; }

    /// <summary>Pressure in bar of the cocked spring at the top of its stroke; null without a spring.</summary>
    public double? SpringTopBar { get; init; }

    /// <summary>Pressure in bar that the spring still gives when its stroke has run out.</summary>
    public double? SpringEndBar { get; init; }

    /// <summary>Orifice constant in bar s2/ml2 of a flow-restricting basket; 0 for an ordinary one.</summary>
    public double RestrictorBarS2PerMl2 { get; init; }

    /// <summary>What the hand does.</summary>
    public PressureBy PressureBy => Family switch
    {
        MachineFamily.BoilerSpring => PressureBy.Spring,
        MachineFamily.SteppedLever or MachineFamily.HandPump => PressureBy.Strokes,
        _ => PressureBy.Arm,
    };

    /// <summary>Whether a boiler of its own gives the water.</summary>
    public bool HasBoiler => BoilerGaugeBar is not null;

    /// <summary>The machine with every number checked.</summary>
    /// <exception cref="FieldRangeException">A number is out of range; the exception names it.</exception>
    public Machine Checked()
    {
        MachineRanges.PistonDiameter.Check(PistonDiameterMm);
        MachineRanges.LeverRatio.Check(LeverRatio);
        MachineRanges.Efficiency.Check(Efficiency);
        MachineRanges.Friction.Check(FrictionNewtons);
        MachineRanges.Chamber.Check(ChamberMl);
        MachineRanges.BasketDiameter.Check(BasketDiameterMm);
        MachineRanges.DeadWater.Check(DeadWaterGrams);
        MachineRanges.MetalHeat.Check(MetalHeatCapacity);
        MachineRanges.WillingForce.Check(WillingForceKgf);
        if (BoilerGaugeBar is { } boiler) MachineRanges.BoilerGauge.Check(boiler);
        if (SpringTopBar is { } top) MachineRanges.SpringTop.Check(top);
        if (SpringEndBar is { } end) MachineRanges.SpringEnd.Check(end);
        if (SpringTopBar < SpringEndBar)
            throw new DoesNotFitException("springEndBar", "The spring cannot push harder at the end of its stroke than at the top.");
        return this;
    }
}

/// <summary>Ranges of a machine's numbers (common practice, widened so that odd machines fit).</summary>
public static class MachineRanges
{
    public static readonly FieldRange PistonDiameter = new("pistonDiameterMm", "Piston diameter", 6, 80, "mm");
    public static readonly FieldRange LeverRatio = new("leverRatio", "Lever ratio", 1, 30, "");
    public static readonly FieldRange Efficiency = new("efficiency", "Efficiency", 0.3, 1, "");
    public static readonly FieldRange Friction = new("frictionNewtons", "Seal friction", 0, 500, "N");
    public static readonly FieldRange Chamber = new("chamberMl", "Chamber or stroke", 10, 400, "ml");
    public static readonly FieldRange BasketDiameter = new("basketDiameterMm", "Basket diameter", 35, 65, "mm");
    public static readonly FieldRange DeadWater = new("deadWaterGrams", "Dead water", 0, 30, "g");
    public static readonly FieldRange MetalHeat = new("metalHeatCapacity", "Heat capacity of the metal", 20, 8000, "J/K");
    public static readonly FieldRange WillingForce = new("willingForceKgf", "Force you are willing to use", 2, 60, "kgf");
    public static readonly FieldRange BoilerGauge = new("boilerGaugeBar", "Boiler pressure", 0.2, 2, "bar");
    public static readonly FieldRange SpringTop = new("springTopBar", "Spring pressure at the top", 3, 14, "bar");
    public static readonly FieldRange SpringEnd = new("springEndBar", "Spring pressure at the end", 1, 12, "bar");
}
