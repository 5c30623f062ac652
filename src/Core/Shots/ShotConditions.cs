using RuddySpring.Core.Machines;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Pulls;

namespace RuddySpring.Core.Shots;

/// <summary>
/// The one description of a shot: everything that decides what comes of it, but the hand. "5 g less", "the other basket" or "3 K
/// cooler" is this record <c>with</c> one of its parts changed; resistance, lanes and water follow by themselves.
/// <see cref="ShotRun"/> pulls it.
/// </summary>
public sealed record ShotConditions
{
    /// <summary>Grind, dose, basket and preparation.</summary>
    public required Bed Bed { get; init; }

    /// <summary>How the coffee behaves.</summary>
    public PuckBehaviour Behaviour { get; init; } = PuckBehaviour.Usual;

    /// <summary>Its water.</summary>
    public WaterCourse Water { get; init; } = WaterCourse.Steady(93);

    /// <summary>The machine.</summary>
    public required Machine Machine { get; init; }

    /// <summary>The plan.</summary>
    public required PullPlan Plan { get; init; }

    /// <summary>Where it ends, g, the drip after included.</summary>
    public required double YieldGrams { get; init; }

    /// <summary>How the coffee gets to the cup and onto the scale.</summary>
    public CupPath Path { get; init; } = CupPath.Usual;

    /// <summary>A shot as a sheet has it, on a machine with its own basket where no other is named.</summary>
    public static ShotConditions Of(
        Machine machine,
        PullPlan plan,
        double doseGrams,
        double yieldGrams,
        double waterC,
        double resistivity = 1,
        Basket? basket = null,
        Preparation? preparation = null
    ) =>
        new()
        {
            Bed = new()
            {
                Resistivity = resistivity,
                DoseGrams = doseGrams,
                Basket = basket ?? Basket.Of(machine),
                Preparation = preparation,
            },
            Behaviour = PuckBehaviour.Usual with { WaterHeldPerGram = WaterBalance.HeldPerGram(machine.RetentionPerGram) },
            Water = WaterCourse.Steady(waterC),
            Machine = machine,
            Plan = plan,
            YieldGrams = yieldGrams,
        };

    /// <summary>The puck that the equations see, at the water's first temperature.</summary>
    public PuckParameters Puck =>
        new()
        {
            DoseGrams = Bed.DoseGrams,
            ResistanceBarSPerMl = Bed.ResistanceBarSPerMl,
            WaterC = Water.StartC(),
            Behaviour = Behaviour,
            LaneSpread = Bed.LaneSpread,
            RestrictorBarS2PerMl2 = Bed.Basket.RestrictorBarS2PerMl2,
        };

    /// <summary>The same shot of a grind whose bed resists so many bar s/ml.</summary>
    public ShotConditions WithResistance(double resistanceBarSPerMl)
    {
        var per = Bed.PerResistivity(Bed.DoseGrams, Bed.Basket);
        var resistivity = resistanceBarSPerMl / per;
        // at the ends of the range the last digit of a division must not lead out of it
        var range = PuckParameters.Resistance;
        if (range.Holds(resistanceBarSPerMl) && !range.Holds(resistivity * per))
            resistivity = resistivity * per > range.Max ? Math.BitDecrement(resistivity) : Math.BitIncrement(resistivity);
        return this with { Bed = Bed with { Resistivity = resistivity } };
    }
}
