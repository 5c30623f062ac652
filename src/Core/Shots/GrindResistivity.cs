using RuddySpring.Core.Puck;
using RuddySpring.Core.Traces;

namespace RuddySpring.Core.Shots;

/// <summary>
/// The grind's resistivity in bar s/ml at 6 bar: R10 (<see cref="GrindResistance"/>) with dose and basket taken out, what 15 g of
/// the grind would read in a straight basket of 51 mm (<see cref="Bed"/>). The puck's resistance tells how a shot ran; this tells
/// what the grinder made.
/// </summary>
public static class GrindResistivity
{
    /// <summary>Of a puck whose R10 was read.</summary>
    public static double Of(double r10, double doseGrams, Basket basket) => r10 / Bed.PerResistivity(doseGrams, basket);

    /// <summary>Of a shot that is described.</summary>
    public static double Of(ShotConditions shot) => shot.Bed.Resistivity * AtReference(shot);

    /// <summary>A shot of a grind with such a resistivity; no puck is looser or tighter than
    /// <see cref="PuckParameters.Resistance"/>.</summary>
    public static ShotConditions With(ShotConditions shot, double resistivity)
    {
        var bed = shot.Bed with { Resistivity = resistivity / AtReference(shot) };
        var range = PuckParameters.Resistance;
        return range.Holds(bed.ResistanceBarSPerMl)
            ? shot with
            {
                Bed = bed,
            }
            : shot.WithResistance(range.Nearest(bed.ResistanceBarSPerMl));
    }

    /// <summary>
    /// What a basket does to the resistance against another one: what was learned of it apart from its shape, and the shape.
    /// </summary>
    public static double BasketFactor(double learned, Basket basket, Basket against) =>
        learned * Bed.PerResistivity(1, basket) / Bed.PerResistivity(1, against);

    private static double AtReference(ShotConditions shot) =>
        FlowResistance.Compaction(PuckBehaviour.Usual, GrindResistance.ReferenceBar) * Math.Exp(-shot.Behaviour.OverR10);
}
