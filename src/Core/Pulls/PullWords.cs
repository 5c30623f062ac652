using RuddySpring.Core.Machines;

namespace RuddySpring.Core.Pulls;

/// <summary>One thing to make sure of before any pressure.</summary>
/// <param name="Text">What to look at.</param>
/// <param name="IsCaution">Whether it can hurt.</param>
public sealed record BeforePressure(string Text, bool IsCaution);

/// <summary>What the hand does on each family, in the trade's words (common practice).</summary>
public static class PullWords
{
    /// <summary>How a pull ends, as an imperative.</summary>
    public static string LetGo(Machine machine) => machine.Family switch
    {
        MachineFamily.BoilerSpring => "take the cup aside and let the spring run out, hand on the lever",
        MachineFamily.HandPump => "stop pumping and let the pressure off",
        MachineFamily.SteppedLever => "stop and free the piston with the release move",
        MachineFamily.TwinArmBasket or MachineFamily.TwinArmChamber => "raise both arms",
        _ => "lift the lever",
    };

    /// <summary>What to make sure of before any pressure, in order.</summary>
    public static IReadOnlyList<BeforePressure> Before(Machine machine, bool screen)
    {
        var list = new List<BeforePressure>
        {
            new("The holder is fully seated and locked: one that is not comes off under pressure.", true),
            new(screen ? "The screen or paper lies on the puck." : "Nothing lies on the puck, as on the sheet; the shower screen is in.", false),
        };
        list.AddRange(machine.Family switch
        {
            MachineFamily.BoilerSpring =>
            [
                new("Draw the lever down all the way until the spring is cocked, and keep the hand on it: without resistance it flies up. Face away.", true),
            ],
            MachineFamily.BoilerDirect => [new("Raise the lever until water enters, and hold the machine down.", true)],
            MachineFamily.PortableLever or MachineFamily.HeatedGroup =>
            [
                new("Fill to the brim, or draw the water under the piston slowly: no air is left under it.", false),
                new("Pour slowly with the hand off the stream; it scalds.", true),
            ],
            MachineFamily.TwinArmBasket => [new("The water is on the screen in the basket; press both arms evenly on a table that does not give.", true)],
            MachineFamily.TwinArmChamber => [new("Raise both arms to let the water through, then press them evenly on a table that does not give.", true)],
            MachineFamily.SteppedLever => [new("The plunger is freed and at its top; the reservoir is filled to its line.", false)],
            _ => [new("The chamber is closed hand-tight and filled; let the pressure off before it is opened again.", true)],
        });
        list.Add(new("The cup stands under it.", false));
        return list;
    }
}
