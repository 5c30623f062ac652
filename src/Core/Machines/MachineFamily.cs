namespace RuddySpring.Core.Machines;

/// <summary>How a machine makes pressure and where its hot water comes from. Names are the trade's (common practice).</summary>
public enum MachineFamily
{
    /// <summary>The arm pushes the piston over a small boiler ("dipper").</summary>
    BoilerDirect,

    /// <summary>The arm cocks a spring over a larger boiler; the spring pushes.</summary>
    BoilerSpring,

    /// <summary>Portable lever, kettle-filled, loose brew head.</summary>
    PortableLever,

    /// <summary>Kettle-filled lever with an electrically heated group.</summary>
    HeatedGroup,

    /// <summary>Twin-arm press with coffee and water in one deep basket.</summary>
    TwinArmBasket,

    /// <summary>Twin-arm press with an open chamber.</summary>
    TwinArmChamber,

    /// <summary>Each pull of the lever moves a plunger one step.</summary>
    SteppedLever,

    /// <summary>Each stroke of a small pump forces a little water through.</summary>
    HandPump,
}

/// <summary>What the hand does to make pressure.</summary>
public enum PressureBy
{
    /// <summary>The arm pushes through a lever, all the time.</summary>
    Arm,

    /// <summary>A spring that the arm cocked.</summary>
    Spring,

    /// <summary>A small pump or a ratchet, stroke by stroke.</summary>
    Strokes,
}
