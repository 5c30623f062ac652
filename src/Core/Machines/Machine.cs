namespace RuddySpring.Core.Machines;

/// <summary>What a person can read on or beside a machine.</summary>
public enum Reads
{
    /// <summary>A gauge of the brew pressure.</summary>
    Gauge,

    /// <summary>A stick-on strip on the group.</summary>
    Strip,

    /// <summary>A thermometer on the group or in the chamber.</summary>
    Probe,

    /// <summary>A gauge of the boiler's pressure.</summary>
    BoilerGauge,

    /// <summary>The lamp of the element.</summary>
    Lamp,

    /// <summary>A scale.</summary>
    Scale,
}

/// <summary>What a lit lamp means: it is one thing on one machine and the other on the next.</summary>
public enum LampMeans
{
    /// <summary>Not asked yet.</summary>
    Unknown,

    /// <summary>Lit while the element heats.</summary>
    Heating,

    /// <summary>Lit when it is ready, out while it heats.</summary>
    Ready,
}

/// <summary>The lever's ratio at a share of its stroke, 0 (top) to 1 (bottom).</summary>
public sealed record LeverRatioPoint(double StrokeShare, double Ratio);

/// <summary>A number that was measured instead of taken from the family.</summary>
/// <param name="Field">Which field of the machine.</param>
/// <param name="Value">What came out.</param>
/// <param name="PlusMinus">Half width of its 95 % interval; null when there was no reading to spare.</param>
/// <param name="Way">How it was measured, in words.</param>
/// <param name="Readings">From how many readings.</param>
/// <param name="On">When.</param>
public sealed record MeasuredNumber(string Field, double Value, double? PlusMinus, string Way, int Readings, DateOnly On)
{
    private const int LongestWord = 80;
    private static readonly FieldRange AnyNumber = new("measured", "Measured number", -1e6, 1e6, "");
    private static readonly FieldRange Count = new("measured", "Number of readings", 0, 10_000, "");

    /// <summary>The number with its parts checked.</summary>
    /// <exception cref="FieldRangeException">A number is out of range.</exception>
    /// <exception cref="DoesNotFitException">A word is too long.</exception>
    public MeasuredNumber Checked()
    {
        AnyNumber.Check(Value);
        if (PlusMinus is { } half)
            AnyNumber.Check(half);
        Count.Check(Readings);
        if (Field.Length > LongestWord || Way.Length > LongestWord)
            throw new DoesNotFitException(
                "measured",
                $"Field and way of a measured number have at most {LongestWord} characters."
            );
        return this;
    }
}

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

    /// <summary>Heat capacity in J/K of the metal the kettle's water meets (chamber and piston), or of the group on a boiler
    /// lever.</summary>
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

    /// <summary>Ratio over the stroke, in order; empty where <see cref="LeverRatio"/> holds all the way.</summary>
    public IReadOnlyList<LeverRatioPoint> LeverRatioTable { get; init; } = [];

    /// <summary>Water a puck keeps, g per g of dose, 0.9 to 1.3.</summary>
    public double RetentionPerGram { get; init; } = 1.05;

    /// <summary>Air left under the piston, ml at atmospheric pressure, 0 to 30; makes the lever soft.</summary>
    public double TrappedAirMl { get; init; }

    /// <summary>Share of the pressure that the seal loses each second against a blind basket, 1/s, 0 to 0.5.</summary>
    public double SealLeakPerSecond { get; init; }

    /// <summary>What can be read on or beside it.</summary>
    public IReadOnlyList<Reads> Reads { get; init; } = [];

    /// <summary>What its lamp means.</summary>
    public LampMeans Lamp { get; init; }

    /// <summary>Its own heat constants; null for the family's.</summary>
    public HeatConstants? Heat { get; init; }

    /// <summary>Numbers that were measured, the newest of each field.</summary>
    public IReadOnlyList<MeasuredNumber> Measured { get; init; } = [];

    /// <summary>What the hand does.</summary>
    public PressureBy PressureBy =>
        Family switch
        {
            MachineFamily.BoilerSpring => PressureBy.Spring,
            MachineFamily.SteppedLever or MachineFamily.HandPump => PressureBy.Strokes,
            _ => PressureBy.Arm,
        };

    /// <summary>Water that one fill or one stroke takes, ml: what air left under the piston fills is lost to it.</summary>
    public double WaterMl => Math.Max(0.0, ChamberMl - TrappedAirMl);

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
        if (BoilerGaugeBar is { } boiler)
            MachineRanges.BoilerGauge.Check(boiler);
        if (SpringTopBar is { } top)
            MachineRanges.SpringTop.Check(top);
        if (SpringEndBar is { } end)
            MachineRanges.SpringEnd.Check(end);
        MachineRanges.Retention.Check(RetentionPerGram);
        MachineRanges.TrappedAir.Check(TrappedAirMl);
        MachineRanges.SealLeak.Check(SealLeakPerSecond);
        MachineRanges.Restrictor.Check(RestrictorBarS2PerMl2);
        MachineRanges.Strokes.Check(StrokesAShot);
        MachineRanges.RatioPoints.Check(LeverRatioTable.Count);
        var share = -1.0;
        foreach (var point in LeverRatioTable)
        {
            MachineRanges.StrokeShare.Check(point.StrokeShare);
            MachineRanges.LeverRatio.Check(point.Ratio);
            if (point.StrokeShare <= share)
                throw new DoesNotFitException(
                    "leverRatioTable",
                    "The points of the lever's ratio must go from the top of the stroke to its end, each below the one before."
                );
            share = point.StrokeShare;
        }

        MachineRanges.ReadsCount.Check(Reads.Count);
        MachineRanges.MeasuredCount.Check(Measured.Count);
        foreach (var number in Measured)
            number.Checked();
        Heat?.Checked();
        if (PressureBy == PressureBy.Spring && (SpringTopBar is null || SpringEndBar is null))
            throw new DoesNotFitException(
                "springTopBar",
                "A spring machine needs the pressures of its spring, at the top ({3 bar!} to {14 bar}) and at the end ({1 "
                    + "bar!} to {12 bar})."
            );
        if (Family is MachineFamily.BoilerDirect or MachineFamily.BoilerSpring && BoilerGaugeBar is null)
            throw new DoesNotFitException("boilerGaugeBar", "A boiler machine needs its boiler pressure, {0.2 bar!} to {2 bar}.");
        if (TrappedAirMl >= ChamberMl)
            throw new DoesNotFitException(
                "trappedAirMl",
                $"Air under the piston has to be less than the {ChamberMl:0} ml of the chamber."
            );
        if (SpringTopBar < SpringEndBar)
            throw new DoesNotFitException(
                "springEndBar",
                "The spring cannot push harder at the end of its stroke than at the top."
            );
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
    public static readonly FieldRange Retention = new("retentionPerGram", "Water a puck keeps", 0.9, 1.3, "g/g");
    public static readonly FieldRange TrappedAir = new("trappedAirMl", "Air under the piston", 0, 30, "ml");
    public static readonly FieldRange SealLeak = new("sealLeakPerSecond", "Seal leak", 0, 0.5, "1/s");
    public static readonly FieldRange Restrictor = new(
        "restrictorBarS2PerMl2",
        "Hole of the restricting basket",
        0,
        50,
        "bar s2/ml2"
    );
    public static readonly FieldRange StrokeShare = new("strokeShare", "Share of the stroke", 0, 1, "");
    public static readonly FieldRange Strokes = new("strokesAShot", "Strokes a shot", 1, 100, "");
    public static readonly FieldRange RatioPoints = new("leverRatioTable", "Points of the lever's ratio", 0, 50, "");
    public static readonly FieldRange ReadsCount = new("reads", "Things that can be read", 0, 12, "");
    public static readonly FieldRange MeasuredCount = new("measured", "Measured numbers", 0, 60, "");
    public static readonly FieldRange SpringEnd = new("springEndBar", "Spring pressure at the end", 1, 12, "bar");
}
