namespace RuddySpring.Core.Puck;

/// <summary>
/// How a coffee's puck behaves under water and pressure, whatever its dose and grind. The usual one is a first calibration: 18 g
/// in 58.5 mm at 5 bar s/ml runs 36 g in about 27 s at 9 bar and 93 degC and gives about 19 % extraction (values from memory of
/// common practice; see the tests).
/// </summary>
public sealed record PuckBehaviour
{
    /// <summary>What is taken for a coffee that nobody has measured.</summary>
    public static readonly PuckBehaviour Usual = new();

    /// <summary>Rise of resistance per bar (beta): flow grows less than pressure.</summary>
    public double CompactionPerBar { get; init; } = 0.08;

    /// <summary>Share of the full resistance just after wetting, before the grounds swell.</summary>
    public double SwellFrom { get; init; } = 0.55;

    /// <summary>Time constant of swelling in s, 4 to 10.</summary>
    public double SwellSeconds { get; init; } = 6;

    /// <summary>Share of the resistance left when fines and solubles have gone.</summary>
    public double ErodedTo { get; init; } = 0.55;

    /// <summary>Water passed over dose (ml/g) at which that loss is 63 % done.</summary>
    public double ErosionRatio { get; init; } = 1.8;

    /// <summary>Share of the resistance lost by standing wet for long; waiting lets a choked puck run.</summary>
    public double SoftensBy { get; init; } = 0.3;

    /// <summary>Time constant of that softening in s.</summary>
    public double SoftenSeconds { get; init; } = 60;

    /// <summary>Water held, g per g of dry coffee. What a person weighs, spent puck less dose, is less by the solids that left
    /// (<see cref="WaterBalance"/>).</summary>
    public double WaterHeldPerGram { get; init; } = WaterBalance.UsualHeldPerGram;

    /// <summary>Resistance of the dry bed to the wetting front, as a share of R_b.</summary>
    public double DryShare { get; init; } = 0.25;

    /// <summary>Suction of the dry bed in bar.</summary>
    public double CapillaryBar { get; init; } = 0.1;

    /// <summary>Time constant in s with which the flow comes in once the front is through: it is no step at first
    /// drops.</summary>
    public double OnsetSeconds { get; init; } = 0.8;

    /// <summary>
    /// Logarithm of the resistance R_b that a puck of this coffee has, over the one that R10 says: R10 takes every coffee to
    /// behave as the usual one does. 0 for the usual one.
    /// </summary>
    public double OverR10 { get; init; }

    /// <summary>Soluble share of the dry coffee.</summary>
    public double SolubleShare { get; init; } = 0.30;
}
