using RuddySpring.Core.Machines;

namespace RuddySpring.Core.Tests.SecondWorld;

/// <summary>A spring that is no straight line: coils that touch near the top make it stiffer there, seals and pivots rub more on
/// one day than on the next, and a hand on the lever holds it back in some pulls.</summary>
public sealed class OtherSpring(SeededRandom random, Machine machine)
{
    private const double Stiffening = 0.06;
    private const double RubSd = 0.035;
    private const double HeldOften = 0.12;
    private const double MostHeldBar = 1.2;
    private readonly bool _isOne = machine.PressureBy == PressureBy.Spring;
    private readonly double _rub = machine.PressureBy == PressureBy.Spring ? 1 - Math.Abs(random.Normal(RubSd)) : 1;
    private readonly double _heldBar =
        machine.PressureBy == PressureBy.Spring && random.Uniform() < HeldOften ? MostHeldBar * random.Uniform() : 0;

    /// <summary>Most that it gives after so much water was moved, bar; the lever is cocked again when its stroke has run
    /// out.</summary>
    public double PressureBar(double movedMl)
    {
        if (!_isOne)
            return 0;
        var (top, end) = (machine.SpringTopBar!.Value, machine.SpringEndBar!.Value);
        var run = movedMl % machine.ChamberMl / machine.ChamberMl;
        var straight = top + ((end - top) * run);
        return Math.Max(0, (straight * (1 + (Stiffening * (1 - run) * (1 - run))) * _rub) - _heldBar);
    }
}
