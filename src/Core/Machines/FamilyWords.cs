namespace RuddySpring.Core.Machines;

/// <summary>A machine to start from: a family, or a family with a basket of its own kind.</summary>
/// <param name="Key">Short key.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Pressure">How it makes pressure.</param>
/// <param name="Water">Where the hot water comes from.</param>
/// <param name="Defaults">Its numbers to start from.</param>
/// <param name="DoseGrams">Usual dose.</param>
/// <param name="YieldGrams">Usual yield.</param>
public sealed record StartingPoint(
    string Key,
    string Name,
    string Pressure,
    string Water,
    Machine Defaults,
    double DoseGrams,
    double YieldGrams
);

/// <summary>The machines to start from, in the trade's words (common practice).</summary>
public static class FamilyWords
{
    // a hole that takes 6 bar at about 1.5 ml/s
    private const double UsualRestrictor = 2.5;

    /// <summary>What a family is called.</summary>
    public static string Name(MachineFamily family) =>
        family switch
        {
            MachineFamily.BoilerDirect => "Boiler lever, direct (dipper)",
            MachineFamily.BoilerSpring => "Boiler lever with a spring",
            MachineFamily.PortableLever => "Portable lever, kettle-filled",
            MachineFamily.HeatedGroup => "Kettle-filled lever with a heated group",
            MachineFamily.TwinArmBasket => "Twin-arm press, water in the basket",
            MachineFamily.TwinArmChamber => "Twin-arm press with an open chamber",
            MachineFamily.SteppedLever => "Stepped lever, several pulls a shot",
            _ => "Hand-pump portable",
        };

    /// <summary>All of them, boilers first.</summary>
    public static IReadOnlyList<StartingPoint> StartingPoints { get; } =
    [
        Of(
            MachineFamily.BoilerDirect,
            "The arm pushes the piston.",
            "Its own small boiler; the raised lever lets water over the puck."
        ),
        Of(
            MachineFamily.BoilerSpring,
            "The arm cocks a spring; the spring pushes and eases by itself.",
            "A larger, very stable boiler."
        ),
        Of(MachineFamily.PortableLever, "The arm, through one lever.", "A kettle; the cylinder is filled up to a line."),
        Restricted(),
        Of(MachineFamily.HeatedGroup, "The arm, through one lever.", "A kettle; a heater holds the group at a step."),
        Of(
            MachineFamily.TwinArmBasket,
            "Both arms, evenly.",
            "A kettle; water weighed into one deep basket on top of the coffee."
        ),
        Of(MachineFamily.TwinArmChamber, "Both arms, evenly.", "Boiling water poured in the top; raised arms let it through."),
        Of(MachineFamily.SteppedLever, "Each pull moves a plunger one step.", "A kettle; a reservoir is filled up to a line."),
        Of(MachineFamily.HandPump, "A small pump, stroke by stroke.", "A kettle; a chamber filled near boiling."),
    ];

    private static StartingPoint Of(MachineFamily family, string pressure, string water)
    {
        var (machine, dose, yield) = FamilyDefaults.Of(family);
        return new(family.ToString(), Name(family), pressure, water, machine, dose, yield);
    }

    private static StartingPoint Restricted()
    {
        var (machine, dose, yield) = FamilyDefaults.Of(MachineFamily.PortableLever);
        return new(
            "RestrictedBasket",
            "Portable with a flow-restricting basket",
            "The arm; a small hole in the basket gives the back-pressure.",
            "A kettle; shop-ground coffee will do.",
            machine with
            {
                RestrictorBarS2PerMl2 = UsualRestrictor,
            },
            dose,
            yield
        );
    }
}
