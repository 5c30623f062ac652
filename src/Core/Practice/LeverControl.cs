using RuddySpring.Core.Machines;

namespace RuddySpring.Core.Practice;

/// <summary>What the virtual lever's hand does, for its words and keys.</summary>
public enum LeverControl
{
    /// <summary>More effort presses harder.</summary>
    Press,

    /// <summary>More effort presses harder, none lifts the lever and fills the group.</summary>
    PressOrLift,

    /// <summary>Held down it fills, let go the spring works.</summary>
    HoldBack,

    /// <summary>Up and down.</summary>
    Pump,
}

/// <summary>Which machine is moved how.</summary>
public static class LeverControls
{
    /// <summary>What the hand does on a machine.</summary>
    public static LeverControl Of(Machine machine) =>
        machine.PressureBy switch
        {
            PressureBy.Spring => LeverControl.HoldBack,
            PressureBy.Strokes => LeverControl.Pump,
            _ => machine.HasBoiler ? LeverControl.PressOrLift : LeverControl.Press,
        };
}
