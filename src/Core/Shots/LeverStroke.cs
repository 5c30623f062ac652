using RuddySpring.Core.Machines;

namespace RuddySpring.Core.Shots;

/// <summary>
/// The stroke of a lever: water that has left the piston is gone until the lever is up again. A boiler lever that has run out is
/// lifted, or its spring cocked, and the group fills, which takes its time; elsewhere the chamber is filled once.
/// </summary>
/// <param name="machine">The machine.</param>
/// <param name="refillSeconds">How long a refill takes, s.</param>
/// <param name="fromMl">Water in ml that had moved when the stroke under way began.</param>
public sealed class LeverStroke(Machine machine, double refillSeconds, double fromMl = 0)
{
    private readonly double _strokeMl = Strokes.VolumeMl(machine);
    private double _refillLeft;

    /// <summary>Water in ml that had moved when the stroke under way began.</summary>
    public double FromMl { get; private set; } = fromMl;

    /// <summary>Whether the lever is up and the group fills, after a step in s.</summary>
    /// <param name="movedMl">Water moved so far.</param>
    /// <param name="lifted">Whether the hand lifts it of itself.</param>
    /// <param name="stepSeconds">Length of the step.</param>
    public bool Fills(double movedMl, bool lifted, double stepSeconds)
    {
        if (machine.HasBoiler && _refillLeft <= 0 && movedMl - FromMl >= _strokeMl * (1 - 1e-3))
            _refillLeft = refillSeconds;
        var refills = _refillLeft > 0;
        if (refills)
            _refillLeft -= stepSeconds;
        if (lifted || refills)
            FromMl = movedMl;
        return lifted || refills;
    }
}
