using RuddySpring.Core.Machines;

namespace RuddySpring.Core.Care;

/// <summary>What a machine of each family needs. Intervals are common practice, and every one is the owner's to change; the
/// manual of the machine goes before all of it.</summary>
public static class CareList
{
    /// <summary>Key of the rinse after use.</summary>
    public const string Rinse = "rinse";

    /// <summary>Key of soaking a flow-restricting basket.</summary>
    public const string Restrictor = "restrictor";

    /// <summary>Key of the piston's seal.</summary>
    public const string Seal = "seal";

    /// <summary>Key of the spring.</summary>
    public const string SpringService = "spring";

    /// <summary>Key of descaling.</summary>
    public const string Descale = "descale";

    /// <summary>Key of the boiler's service.</summary>
    public const string Boiler = "boiler";

    private const string CoolFirst =
        "Metal parts stay hot long after switching off. Switch off, let the pressure go and everything cool down first.";

    private const string Technician =
        "Leave pressurestat, safety valve, wiring and covers to a licensed technician, and unplug the machine. Local "
        + "electrical and "
        + "pressure-vessel rules come first.";

    /// <summary>What a machine needs, the most frequent first.</summary>
    /// <param name="machine">The machine.</param>
    /// <param name="hardness">Of its water, mg/l of CaCO3.</param>
    public static IReadOnlyList<CareTask> For(Machine machine, double hardness) =>
        [.. All(machine, hardness).Where(t => t is not null).Select(t => t!)];

    /// <summary>Every key there is.</summary>
    public static bool IsKey(string key) =>
        Enum.GetValues<MachineFamily>()
            .SelectMany(f => All(FamilyDefaults.Of(f).Machine, Descaling.UsualHardness))
            .Append(RestrictorTask)
            .Any(t => t?.Key == key);

    private static readonly CareTask RestrictorTask = new(
        Restrictor,
        "Soak the restricting basket",
        "Fines and oil close the small hole; the same pressure then lets less water through.",
        ["Soak the basket for 20 minutes in vinegar.", "Rinse it well and blow the hole free.", "Pull a blank once."],
        null,
        new(Shots: 40, Days: 60)
    );

    private static IEnumerable<CareTask?> All(Machine machine, double hardness)
    {
        yield return new(
            Rinse,
            "Wash basket, screen and piston face",
            "Oil turns rancid and tastes of it; rinsing after each use does not remove all of it.",
            [
                "Take basket and screen out and brush them in warm water. Some machines take no soap: see the manual.",
                "Wipe the piston's face and the seat of the gasket.",
                "Rinse and let them dry.",
            ],
            machine.HasBoiler ? CoolFirst : null,
            new(Shots: 20, Days: 14)
        );
        yield return machine.RestrictorBarS2PerMl2 > 0 ? RestrictorTask : null;
        yield return new(
            "screen",
            "Clean the shower screen",
            "A blocked screen wets the puck unevenly.",
            [
                "Take the screen off.",
                "Soak it in hot water, with detergent if the manual allows it.",
                "Hold it against the light.",
            ],
            machine.HasBoiler ? CoolFirst : null,
            new(Shots: 60, Days: 30)
        );
        yield return new(
            Seal,
            "Clean and grease the piston seal",
            "A dry seal costs the arm force and lets water past.",
            [
                "Take the piston out as the manual says and wipe the old grease off.",
                "Look at the lip: cracks and flat spots mean a new seal.",
                "Put a thin film of food-grade silicone grease on it and move the piston through once.",
            ],
            machine.HasBoiler ? CoolFirst : null,
            new(Shots: 120, Days: 30),
            "Grease, or size of the seal"
        );
        yield return machine.PressureBy == PressureBy.Strokes
            ? null
            : new(
                "pivots",
                "Grease the pivots and look at pins and fork",
                "Dry pivots wear, and a worn pin breaks under force.",
                [
                    "Wipe pins and links and put a drop of food-grade grease on each.",
                    "Move the lever without load: it must not catch. Replace a bent fork or a loose pin before "
                        + "the next pull.",
                ],
                null,
                new(Shots: 300, Days: 180)
            );
        yield return new(
            "seal-new",
            "Replace the piston seal",
            "Seals harden with heat and age, whatever their grease.",
            [
                "Take the piston out as the manual says.",
                "Replace the seal, lip towards the water, and grease it.",
                "Hold against a blind basket and see whether the pressure stays.",
            ],
            machine.HasBoiler ? CoolFirst : null,
            new(Shots: 1200, Days: 365),
            "Size of the seal"
        );
        yield return machine.HasBoiler
            ? new(
                "gasket",
                "Replace the group gasket",
                "A hard gasket leaks at the holder's rim.",
                ["Prise the old gasket out without scratching its seat.", "Clean the seat and press the new one in."],
                CoolFirst,
                new(Shots: 1200, Days: 365),
                "Size of the gasket"
            )
            : null;
        yield return machine.HasBoiler
            ? new(
                "wand",
                "Take the tip off the steam wand and clean it",
                "Milk that is sucked back dries inside, spoils and makes people ill. Purging and wiping at once does "
                    + "not reach all "
                    + "of it.",
                ["Unscrew the tip and soak it.", "Free the holes with a needle.", "Put it back and blow steam through once."],
                "Steam burns. Let the wand cool before you touch it, and point it away when you open the valve.",
                new(Days: 14)
            )
            : null;
        yield return machine.PressureBy == PressureBy.Spring
            ? new(
                SpringService,
                "Have the spring looked at",
                "A spring sags with the years; the first bars go first.",
                [
                    "Hang a luggage scale on the lever and cock it slowly: note the force.",
                    "Compare with what it took when it was new. If it is a tenth less, have the spring replaced.",
                ],
                "A spring under load breaks bones. Taking it out is for a licensed technician or the maker's instructions.",
                new(Shots: 3000, Days: 730),
                "Spring"
            )
            : null;
        yield return new(
            Descale,
            machine.HasBoiler ? "Descale the boiler" : "Descale the kettle",
            "Scale keeps heat from the water and comes off in flakes.",
            machine.HasBoiler
                ?
                [
                    "Fill with the descaler that the manual names, as strong as it says.",
                    "Warm it if the manual says so, never under pressure with acid in it, and let it work.",
                    "Empty and fill with fresh water three times; taste the last.",
                ]
                :
                [
                    "Boil a mix of water and vinegar or citric acid and let it stand for an hour.",
                    "Boil fresh water twice and pour it away.",
                ],
            machine.HasBoiler
                ? "Never open the filler cap while there is pressure: cool down and release the steam first. Acid "
                    + "burns eyes and skin, "
                    + "and some boilers take none: the manual comes first."
                : "Acid burns eyes and skin.",
            Descaling.IntervalOf(machine, hardness),
            Source: "hardness of the water and litres; the longest interval is common practice"
        );
        yield return machine.HasBoiler
            ? new(
                Boiler,
                "Have the boiler serviced",
                "Element, safety valve and pressurestat are checked where a failure would hurt.",
                ["Make an appointment with a licensed technician.", "Ask for safety valve, pressurestat, element and seals."],
                Technician,
                new(Days: 730),
                "What was replaced"
            )
            : null;
    }
}
