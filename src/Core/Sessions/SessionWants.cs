using RuddySpring.Core.Heat;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Milk;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Shots;

namespace RuddySpring.Core.Sessions;

/// <summary>One drink.</summary>
/// <param name="For">Whom it is for; empty where nobody is named.</param>
/// <param name="MilkGrams">Milk to steam for it, g, 0 to 400; 0 for none.</param>
/// <param name="Milk">Which milk.</param>
/// <param name="Stretch">How foamy.</param>
/// <param name="MilkFromC">Milk as it comes, degC, 0 to 40; null for the fridge's.</param>
/// <param name="MilkToC">Milk as it is drunk, degC, 40 to 75; null for what is usual for its kind.</param>
public sealed record Drink(
    string For,
    double MilkGrams,
    MilkKind Milk = MilkKind.Whole,
    MilkStretch Stretch = MilkStretch.Silky,
    double? MilkFromC = null,
    double? MilkToC = null
)
{
    /// <summary>Its milk.</summary>
    public MilkOrder Order() => new(MilkGrams, Milk, Stretch, MilkFromC ?? MilkOrder.FridgeC, MilkToC);
}

/// <summary>What a session is to give, and how the bench works.</summary>
public sealed record SessionWants
{
    private const int LongestName = 40;

    /// <summary>The drinks in the order they are wanted, 1 to 12.</summary>
    public required IReadOnlyList<Drink> Drinks { get; init; }

    /// <summary>Coffee a pull, g.</summary>
    public required double DoseGrams { get; init; }

    /// <summary>Yield a pull, g.</summary>
    public required double YieldGrams { get; init; }

    /// <summary>Drinks that one pull is shared into, 1 or 2.</summary>
    public int CupsAPull { get; init; } = 1;

    /// <summary>Spare baskets or heads that can be filled while it warms, 0 to 6.</summary>
    public int SpareBaskets { get; init; }

    /// <summary>Grinding a dose, s, 0 to 600. By hand a minute or more.</summary>
    public double GrindSeconds { get; init; } = 60;

    /// <summary>Whether a cold wet cloth may be put round the group; otherwise it rests switched off.</summary>
    public bool Cloth { get; init; } = true;

    /// <summary>Whether milk is steamed while the arm pulls.</summary>
    public bool SteamAlongside { get; init; }

    /// <summary>How a kettle machine is warmed.</summary>
    public PreheatMethod Preheat { get; init; } = PreheatMethod.SteamBath;

    /// <summary>Fills or blank presses of that preheat, 1 to 10; null for the usual number.</summary>
    public int? PreheatTimes { get; init; }

    /// <summary>Step of an electrically heated group, degC; null for its top one.</summary>
    public double? HeaterStepC { get; init; }

    /// <summary>Wait between pouring and pressing on a kettle machine, s.</summary>
    public double BloomSeconds { get; init; } = 10;

    /// <summary>Water the kettle holds, g, 200 to 3000.</summary>
    public double KettleGrams { get; init; } = 800;

    /// <summary>Pulls that the drinks take.</summary>
    public int Pulls => (Drinks.Count + CupsAPull - 1) / CupsAPull;

    /// <summary>How a machine is warmed.</summary>
    /// <exception cref="FieldRangeException">The number of fills is out of range.</exception>
    /// <exception cref="DoesNotFitException">The heater has no such step.</exception>
    public Preheat PreheatOn(Machine machine) => KettlePreheat.Usual(machine, Preheat, HeaterStepC, PreheatTimes);

    /// <summary>The wants with every number checked.</summary>
    /// <exception cref="FieldRangeException">A number is out of range; the exception names it.</exception>
    public SessionWants Checked()
    {
        SessionRanges.Drinks.Check(Drinks.Count);
        foreach (var drink in Drinks)
        {
            drink.Order().Checked();
            if (drink.For.Length > LongestName || drink.For.Any(char.IsControl))
                throw new DoesNotFitException(
                    "drinks",
                    $"The name of whom a drink is for has at most {LongestName} characters on one line."
                );
        }

        PuckParameters.Dose.Check(DoseGrams);
        CupVolumes.Yield.Check(YieldGrams);
        SessionRanges.CupsAPull.Check(CupsAPull);
        SessionRanges.SpareBaskets.Check(SpareBaskets);
        SessionRanges.Grind.Check(GrindSeconds);
        SessionRanges.Kettle.Check(KettleGrams);
        KettlePreheat.Bloom.Check(BloomSeconds);
        if (PreheatTimes is { } times)
            KettlePreheat.Fills.Check(times);
        if (HeaterStepC is { } step)
            HeatRanges.HeaterStep.Check(step);
        return this;
    }
}

/// <summary>Ranges of what a session may be asked.</summary>
public static class SessionRanges
{
    public static readonly FieldRange Drinks = new("drinks", "Number of drinks", 1, 12, "");
    public static readonly FieldRange CupsAPull = new("cupsAPull", "Cups from one pull", 1, 2, "");
    public static readonly FieldRange SpareBaskets = new("spareBaskets", "Spare baskets", 0, 6, "");
    public static readonly FieldRange Grind = new("grindSeconds", "Grinding a dose", 0, 600, "s");
    public static readonly FieldRange Kettle = new("kettleGrams", "Water in the kettle", 200, 3000, "g");
}
