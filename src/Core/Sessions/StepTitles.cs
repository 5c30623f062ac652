namespace RuddySpring.Core.Sessions;

/// <summary>What a step that is over is called.</summary>
public static class StepTitles
{
    public static string Of(DoneStep step)
    {
        var number = step.Key.Contains('-', StringComparison.Ordinal)
            ? " " + step.Key[(step.Key.IndexOf('-', StringComparison.Ordinal) + 1)..]
            : "";
        return step.Kind switch
        {
            StepKind.Fill => "Boiler filled",
            StepKind.SwitchOn => "Switched on",
            StepKind.Bleed => "False pressure bled",
            StepKind.Boil => "Kettle boiled",
            StepKind.Preheat => "Preheated",
            StepKind.Flush => "Blank fill",
            StepKind.Grind => $"Dose{number} ground",
            StepKind.Prepare => $"Puck{number} prepared",
            StepKind.Cloth => "Cooled with a cloth",
            StepKind.Rest => "Rested, switched off",
            StepKind.Shot => $"Pull{number}",
            StepKind.Steam => "Milk steamed",
            StepKind.Wipe => "Wand wiped and purged",
            StepKind.Froth => "Milk frothed",
            StepKind.Depressurise => "Steam released",
            StepKind.Cool => "Cooled down",
            StepKind.Refill => "Boiler refilled",
            StepKind.Purge => "Purged",
            StepKind.Rinse => "Rinsed",
            StepKind.SwitchOff => "Switched off",
            _ => step.Key,
        };
    }
}
