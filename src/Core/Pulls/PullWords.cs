using RuddySpring.Core.Machines;

namespace RuddySpring.Core.Pulls;

/// <summary>One thing to make sure of before or after the pressure.</summary>
/// <param name="Text">What to look at, or to do.</param>
/// <param name="IsCaution">Whether it can hurt.</param>
public sealed record PullCheck(string Text, bool IsCaution);

/// <summary>What the hand does on each family, in the trade's words (common practice).</summary>
public static class PullWords
{
    /// <summary>How a pull ends, as an imperative.</summary>
    public static string LetGo(Machine machine) =>
        machine.Family switch
        {
            MachineFamily.BoilerSpring => "take the cup aside and let the spring run out, hand on the lever",
            MachineFamily.HandPump => "stop pumping and let the pressure off",
            MachineFamily.SteppedLever => "stop and free the piston with the release move",
            MachineFamily.TwinArmBasket or MachineFamily.TwinArmChamber => "raise both arms",
            _ => "lift the lever",
        };

    /// <summary>What to make sure of before any pressure, in order.</summary>
    public static IReadOnlyList<PullCheck> Before(Machine machine, bool screen)
    {
        var list = new List<PullCheck>
        {
            new("The holder is fully seated and locked: one that is not comes off under pressure.", true),
            new(
                screen
                    ? "The screen or paper lies on the puck."
                    : "Nothing lies on the puck, as on the sheet; the shower screen is in.",
                false
            ),
        };
        list.AddRange(
            machine.Family switch
            {
                MachineFamily.BoilerSpring =>
                [
                    new(
                        "Draw the lever down all the way until the spring is cocked, and keep the hand on it: without "
                            + "resistance it flies up. Face away.",
                        true
                    ),
                ],
                MachineFamily.BoilerDirect => [new("Raise the lever until water enters, and hold the machine down.", true)],
                MachineFamily.PortableLever or MachineFamily.HeatedGroup =>
                [
                    new("Fill to the brim, or draw the water under the piston slowly: no air is left under it.", false),
                    new("Pour slowly with the hand off the stream; it scalds, and the metal stays hot.", true),
                ],
                MachineFamily.TwinArmBasket =>
                [
                    new("The water is on the screen in the basket; press both arms evenly on a table that does not give.", true),
                ],
                MachineFamily.TwinArmChamber =>
                [
                    new("Raise both arms to let the water through, then press them evenly on a table that does not give.", true),
                ],
                MachineFamily.SteppedLever =>
                [
                    new("The plunger is freed and at its top; the reservoir is filled to its line.", false),
                ],
                _ => [new("The chamber is closed hand-tight and filled; let the pressure off before it is opened again.", true)],
            }
        );
        if (machine.PressureBy == PressureBy.Arm)
            list.Add(
                new(
                    "Stop if one arm cannot move the lever, and grind coarser: forced, forks and frames bend and break, and "
                        + "the machine can tip.",
                    true
                )
            );
        if (machine.HasBoiler)
            list.Add(
                new(
                    "Group and boiler stay hot long after switching off: hold only the insulated parts. The machine's "
                        + "manual comes first.",
                    true
                )
            );
        list.Add(new("The cup stands under it.", false));
        return list;
    }

    /// <summary>What to do once the hand has let go, in order, until the puck is out.</summary>
    public static IReadOnlyList<PullCheck> After(Machine machine)
    {
        var list = new List<PullCheck> { new("Swap the cup: it drips on.", false) };
        list.AddRange(
            machine.Family switch
            {
                MachineFamily.BoilerSpring =>
                [
                    new("Keep a hand on the lever until the spring has run out and it stands still.", true),
                ],
                MachineFamily.BoilerDirect => [new("The lever stays up; what stood over the puck drains through it.", false)],
                MachineFamily.SteppedLever =>
                [
                    new("Free the piston with the release move and bring the plunger back to its top.", false),
                ],
                MachineFamily.TwinArmBasket or MachineFamily.TwinArmChamber =>
                [
                    new("Press the water that is left into another cup, so that the puck comes out dry.", false),
                ],
                MachineFamily.HandPump => [new("Let the pressure off, then pump what is left into another cup.", false)],
                _ => [new("Push the water that is left into another cup, so that the puck comes out dry.", false)],
            }
        );
        if (machine.RestrictorBarS2PerMl2 > 0)
            list.Add(new("A basket with a small hole holds its pressure for long: let it down gently.", true));
        list.Add(
            new(
                machine.Family is MachineFamily.HandPump or MachineFamily.TwinArmBasket
                    ? "Wait until the pressure is gone before you open it: opened under pressure it sprays hot grounds. The "
                        + "metal stays hot."
                    : "Wait until the pressure is gone, then turn the holder slowly: one taken off under pressure sprays "
                        + "hot grounds. The metal stays hot.",
                true
            )
        );
        return list;
    }
}
