namespace RuddySpring.Core.Machines;

/// <summary>What can hurt on a machine when a shot is made ready (common practice); the machine's manual comes first.</summary>
public static class MachineCautions
{
    /// <summary>Each in a sentence or two.</summary>
    public static IReadOnlyList<string> Before(Machine machine)
    {
        var cautions = new List<string>
        {
            "A holder that is not fully seated comes off under pressure. Check that it is locked in before you press.",
        };
        if (machine.PressureBy == PressureBy.Arm)
            cautions.Add(
                "Never force a lever that one arm cannot move: forks and frames bend and break, and the machine can tip. "
                    + "Hold it down."
            );
        if (machine.PressureBy == PressureBy.Spring)
            cautions.Add(
                "A cocked lever flies up if nothing resists it. Keep a hand on it and your face away until the pressure holds."
            );
        cautions.Add(
            machine.HasBoiler
                ? "Group and boiler stay hot long after switching off. Hold only the insulated parts; the machine's manual "
                    + "comes first."
                : "Pour boiling water slowly, hands off the stream. Metal stays hot; hold only the insulated parts."
        );
        return cautions;
    }
}
