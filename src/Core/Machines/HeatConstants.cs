namespace RuddySpring.Core.Machines;

/// <summary>
/// What a machine's heat goes by, apart from the heat capacity of its group or chamber, which is
/// <see cref="Machine.MetalHeatCapacity"/> and counts the portafilter that sits in it. Family defaults are rounded common
/// practice and the fit to what people report (a small dipper's group at 72 degC after 20 min and 76 after 25, about 5 K a shot);
/// the owner's readings replace them.
/// </summary>
public sealed record HeatConstants
{
    /// <summary>Heat capacity of the boiler's metal in J/K, 100 to 20 000; its water comes on top.</summary>
    public double BoilerMetalJPerK { get; init; } = 1000;

    /// <summary>Inner volume of the boiler in ml, 200 to 8000.</summary>
    public double BoilerVolumeMl { get; init; } = 900;

    /// <summary>Height of the boiler inside, mm, 40 to 400; turns its filling into a level on the sight glass.</summary>
    public double BoilerHeightMm { get; init; } = 110;

    /// <summary>Water at a cold fill, g, 100 to 7500.</summary>
    public double FillGrams { get; init; } = 760;

    /// <summary>Water that must stay over the element, g, 50 to 7000.</summary>
    public double MinimumGrams { get; init; } = 370;

    /// <summary>Power of the element in W, 50 to 4000; of the group's heater on an electrically heated group.</summary>
    public double HeaterWatts { get; init; } = 1000;

    /// <summary>Loss of the boiler to the room, W/K, 0.1 to 20.</summary>
    public double BoilerLossWPerK { get; init; } = 1.5;

    /// <summary>Between boiler and group, W/K, 0.05 to 20.</summary>
    public double BoilerGroupWPerK { get; init; } = 0.9;

    /// <summary>Between group (or chamber) and room, W/K, 0.05 to 10.</summary>
    public double GroupAmbientWPerK { get; init; } = 0.6;

    /// <summary>Water passing the group: hA in W/K of the effectiveness-NTU relation, 0.5 to 60.</summary>
    public double PassWPerK { get; init; } = 7.0;

    /// <summary>How far the pressurestat lets the pressure fall before it heats again, bar, 0.02 to 0.5.</summary>
    public double HysteresisBar { get; init; } = 0.12;

    /// <summary>Steam through the open valve, g/s, 0.05 to 5.</summary>
    public double SteamGramsPerS { get; init; } = 0.6;

    /// <summary>
    /// Air that is sealed in when the boiler is closed cold, as a share of what its headspace holds by the numbers, 0 to 3: 1
    /// without a valve that lets it out, near 0 with one.
    /// </summary>
    public double AirAtStart { get; init; } = 1;

    /// <summary>Band of the group at lever-up, degC: its lower end, 20 to 140.</summary>
    public double BandLowC { get; init; } = 70;

    /// <summary>Upper end of the band, degC, 20 to 140.</summary>
    public double BandHighC { get; init; } = 85;

    /// <summary>Whether an insulating joint sits between boiler and group.</summary>
    public bool InsulatingJoint { get; init; }

    /// <summary>Heater steps of an electrically heated group, degC; empty elsewhere.</summary>
    public IReadOnlyList<double> HeaterStepsC { get; init; } = [];

    /// <summary>How far the computed group may be off, K (one standard deviation): 4 before readings, less once it is
    /// fitted.</summary>
    public double SpreadK { get; init; } = 4;

    /// <summary>Readings that these constants were fitted to; 0 for the family's.</summary>
    public int FittedReadings { get; init; }

    /// <summary>What the last fit started from, so that fitting again gives the same answer; null for constants that no fit has
    /// touched.</summary>
    public HeatPrior? Prior { get; init; }

    /// <summary>What the last log of temperatures started from; null where none was made.</summary>
    public HeatPrior? BeforeMeasuring { get; init; }

    /// <summary>With an insulating joint the way from boiler to group is narrower: 0.5 instead of 0.9 W/K on a small
    /// dipper.</summary>
    public double EffectiveBoilerGroupWPerK => BoilerGroupWPerK * (InsulatingJoint ? 0.5 / 0.9 : 1.0);

    /// <summary>The constants of a machine: its own, or its family's.</summary>
    public static HeatConstants Of(Machine machine) => machine.Heat ?? OfFamily(machine.Family);

    /// <summary>Rounded defaults of a family.</summary>
    public static HeatConstants OfFamily(MachineFamily family) =>
        family switch
        {
            MachineFamily.BoilerDirect => new(),
            MachineFamily.BoilerSpring => new()
            {
                BoilerMetalJPerK = 3000,
                BoilerVolumeMl = 2000,
                BoilerHeightMm = 180,
                FillGrams = 1550,
                MinimumGrams = 750,
                HeaterWatts = 1400,
                BoilerLossWPerK = 2.5,
                BoilerGroupWPerK = 4.0,
                GroupAmbientWPerK = 1.6,
                PassWPerK = 12.0,
                SteamGramsPerS = 1.0,
                BandLowC = 82,
                BandHighC = 98,
            },
            MachineFamily.HeatedGroup => Kettle(0.35) with
            {
                HeaterWatts = 110,
                HeaterStepsC = [85, 90, 95, 103],
                BandLowC = 83,
                BandHighC = 105,
            },
            MachineFamily.TwinArmBasket => Kettle(0.15),
            MachineFamily.HandPump => Kettle(0.12),
            _ => Kettle(0.25),
        };

    /// <summary>The constants with every number checked.</summary>
    /// <exception cref="FieldRangeException">A number is out of range; the exception names it.</exception>
    /// <exception cref="DoesNotFitException">Two numbers do not go together.</exception>
    public HeatConstants Checked()
    {
        HeatRanges.BoilerMetal.Check(BoilerMetalJPerK);
        HeatRanges.BoilerVolume.Check(BoilerVolumeMl);
        HeatRanges.BoilerHeight.Check(BoilerHeightMm);
        HeatRanges.Fill.Check(FillGrams);
        HeatRanges.Minimum.Check(MinimumGrams);
        HeatRanges.Heater.Check(HeaterWatts);
        HeatRanges.BoilerLoss.Check(BoilerLossWPerK);
        HeatRanges.BoilerGroup.Check(BoilerGroupWPerK);
        HeatRanges.GroupAmbient.Check(GroupAmbientWPerK);
        HeatRanges.Pass.Check(PassWPerK);
        HeatRanges.Hysteresis.Check(HysteresisBar);
        HeatRanges.Steam.Check(SteamGramsPerS);
        HeatRanges.AirAtStart.Check(AirAtStart);
        HeatRanges.BandLow.Check(BandLowC);
        HeatRanges.BandHigh.Check(BandHighC);
        HeatRanges.Spread.Check(SpreadK);
        HeatRanges.FittedReadings.Check(FittedReadings);
        HeatRanges.HeaterSteps.Check(HeaterStepsC.Count);
        foreach (var step in HeaterStepsC)
            HeatRanges.HeaterStep.Check(step);
        if (MinimumGrams >= FillGrams)
            throw new DoesNotFitException(
                "minimumGrams",
                "The water that must cover the element has to be less than a full boiler."
            );
        if (FillGrams > BoilerVolumeMl)
            throw new DoesNotFitException(
                "fillGrams",
                $"A boiler of {BoilerVolumeMl:0} ml cannot be filled with {FillGrams:0} g; leave a headspace."
            );
        if (BandLowC >= BandHighC)
            throw new DoesNotFitException("bandLowC", "The lower end of the group's band must lie under its upper end.");
        return this;
    }

    private static HeatConstants Kettle(double ambient) => new() { GroupAmbientWPerK = ambient, SpreadK = 4 };
}

/// <summary>What a fit moves, as it was </summary>
/// <param name="GroupAmbientWPerK">Between group and room, W/K.</param>
/// <param name="BoilerGroupWPerK">Between boiler and group, W/K.</param>
/// <param name="MetalHeatCapacity">Heat capacity of group or chamber, J/K.</param>
/// <param name="PassWPerK">Between passing water and group, W/K.</param>
/// <param name="BoilerLossWPerK">Between boiler and room, W/K.</param>
/// <param name="HeaterWatts">Power of the element, W.</param>
/// <param name="AirAtStart">Air that is sealed in, as a share of what the headspace holds.</param>
public sealed record HeatPrior(
    double GroupAmbientWPerK,
    double BoilerGroupWPerK,
    double MetalHeatCapacity,
    double PassWPerK,
    double BoilerLossWPerK,
    double HeaterWatts,
    double AirAtStart
)
{
    /// <summary>What a machine has now.</summary>
    public static HeatPrior Of(Machine machine)
    {
        var heat = HeatConstants.Of(machine);
        return new(
            heat.GroupAmbientWPerK,
            heat.BoilerGroupWPerK,
            machine.MetalHeatCapacity,
            heat.PassWPerK,
            heat.BoilerLossWPerK,
            heat.HeaterWatts,
            heat.AirAtStart
        );
    }

    /// <summary>
    /// A machine as its owner now has it: where the heat capacity of its metal was set by hand, what fits started from is no
    /// more.
    /// </summary>
    public static Machine Kept(Machine machine, Machine? before) =>
        machine.Heat is null || machine.MetalHeatCapacity == before?.MetalHeatCapacity
            ? machine
            : machine with
            {
                Heat = machine.Heat with { Prior = null, BeforeMeasuring = null },
            };

    /// <summary>The machine as it was.</summary>
    public Machine On(Machine machine) =>
        machine with
        {
            MetalHeatCapacity = MetalHeatCapacity,
            Heat = HeatConstants.Of(machine) with
            {
                GroupAmbientWPerK = GroupAmbientWPerK,
                BoilerGroupWPerK = BoilerGroupWPerK,
                PassWPerK = PassWPerK,
                BoilerLossWPerK = BoilerLossWPerK,
                HeaterWatts = HeaterWatts,
                AirAtStart = AirAtStart,
            },
        };
}

/// <summary>Ranges of the heat constants (common practice, widened so that odd machines fit).</summary>
public static class HeatRanges
{
    public static readonly FieldRange BoilerMetal = new(
        "boilerMetalJPerK",
        "Heat capacity of the boiler's metal",
        100,
        20000,
        "J/K"
    );
    public static readonly FieldRange BoilerVolume = new("boilerVolumeMl", "Boiler volume", 200, 8000, "ml");
    public static readonly FieldRange BoilerHeight = new("boilerHeightMm", "Boiler height", 40, 400, "mm");
    public static readonly FieldRange Fill = new("fillGrams", "Cold fill", 100, 7500, "g");
    public static readonly FieldRange Minimum = new("minimumGrams", "Water over the element", 50, 7000, "g");
    public static readonly FieldRange Heater = new("heaterWatts", "Element", 50, 4000, "W");
    public static readonly FieldRange BoilerLoss = new("boilerLossWPerK", "Boiler loss", 0.1, 20, "W/K");
    public static readonly FieldRange BoilerGroup = new("boilerGroupWPerK", "Boiler to group", 0.05, 20, "W/K");
    public static readonly FieldRange GroupAmbient = new("groupAmbientWPerK", "Group to room", 0.05, 10, "W/K");
    public static readonly FieldRange Pass = new("passWPerK", "Water to group", 0.5, 60, "W/K");
    public static readonly FieldRange Hysteresis = new("hysteresisBar", "Pressurestat difference", 0.02, 0.5, "bar");
    public static readonly FieldRange Steam = new("steamGramsPerS", "Steam", 0.05, 5, "g/s");
    public static readonly FieldRange AirAtStart = new("airAtStart", "Air sealed in", 0, 3, "");
    public static readonly FieldRange BandLow = new("bandLowC", "Band of the group from", 20, 140, "degC");
    public static readonly FieldRange BandHigh = new("bandHighC", "Band of the group to", 20, 140, "degC");
    public static readonly FieldRange HeaterStep = new("heaterStepsC", "Heater step", 40, 130, "degC");
    public static readonly FieldRange Ambient = new("ambientC", "Room temperature", -10, 45, "degC");
    public static readonly FieldRange Kettle = new("kettleC", "Kettle", 20, 101, "degC");
    public static readonly FieldRange HeaterSteps = new("heaterStepsC", "Number of heater steps", 0, 12, "");
    public static readonly FieldRange Spread = new("spreadK", "Uncertainty", 0.1, 20, "K");
    public static readonly FieldRange FittedReadings = new("fittedReadings", "Readings fitted to", 0, 1_000_000, "");
    public static readonly FieldRange GaugeReading = new("value", "Boiler gauge reading", 0, 3, "bar");
}
