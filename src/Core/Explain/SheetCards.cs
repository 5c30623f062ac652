using RuddySpring.Core.Dialing;
using RuddySpring.Core.Fitting;
using RuddySpring.Core.Heat;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Shots;

namespace RuddySpring.Core.Explain;

/// <summary>What is forecast of a sheet's shot.</summary>
/// <param name="Shot">The shot at the middle of what is believed.</param>
/// <param name="LogResistivity">What is believed of the logarithm of the grind's resistivity.</param>
/// <param name="Forecast">Its three edges.</param>
/// <param name="KnownShots">Shots of this bag on this grinder.</param>
/// <param name="NarrowedBy">What would narrow it.</param>
/// <param name="Suggestion">What to set on the grinder; null where there is nothing to go by.</param>
/// <param name="Chance">Chance that the sheet's own setting lands, 0 to 1; null without one.</param>
/// <param name="ScaleUnit">What the grinder's scale counts.</param>
public sealed record ForecastFacts(
    ShotConditions Shot,
    Prediction LogResistivity,
    ShotForecast Forecast,
    int KnownShots,
    string NarrowedBy,
    GrindSuggestion? Suggestion,
    double? Chance,
    string ScaleUnit
);

/// <summary>The numbers of a sheet explained, each by the equation that it is computed with.</summary>
public static class SheetCards
{
    /// <summary>A card for each number of the sheet.</summary>
    /// <param name="machine">The machine.</param>
    /// <param name="plan">The plan.</param>
    /// <param name="basket">The basket in use.</param>
    /// <param name="doseGrams">Dose, g.</param>
    /// <param name="yieldGrams">Yield, g.</param>
    /// <param name="fit">What the sheet asks of the machine.</param>
    /// <param name="water">Water at the puck.</param>
    /// <param name="forecast">What is forecast; null where the sheet does not do.</param>
    public static IReadOnlyList<NumberCard> Of(
        Machine machine,
        PullPlan plan,
        Basket basket,
        double doseGrams,
        double yieldGrams,
        SheetFit fit,
        WaterAtPuck water,
        ForecastFacts? forecast
    )
    {
        var dose = new CardInput("Dose", $"{doseGrams:0.0} g");
        var yield = new CardInput("Yield", $"{yieldGrams:0.#} g");
        var cards = new List<NumberCard>
        {
            new(
                "ratio",
                "Ratio",
                "How much drink comes from a gram of dry coffee.",
                "Yield divided by dose.",
                [dose, yield],
                "As exact as the scale.",
                ""
            ),
            Water(machine, dose, yield, fit),
            WaterTemperature(water),
        };
        if (fit.HandForceKgf is { } force)
            cards.Add(Force(machine, plan, force));
        if (fit.Puck is { } puck)
            cards.Add(Headspace(basket, dose, puck));
        if (forecast is not null)
            cards.AddRange(Forecast(forecast, plan, dose, yield, water));
        return cards;
    }

    private static NumberCard Water(Machine machine, CardInput dose, CardInput yield, SheetFit fit) =>
        new(
            "water",
            machine.HasBoiler ? "Water to move" : "Water to pour",
            "The water that has to go through the machine for this cup.",
            "Yield, less the dissolved coffee in it, plus the water that the puck and the machine keep.",
            [
                yield,
                dose,
                new("A spent puck weighs more than its dose by", $"{machine.RetentionPerGram:0.00} g a gram"),
                new("Left in the machine", $"{machine.DeadWaterGrams:0.#} g"),
                new("The machine moves at most", $"{fit.MostGrams:0.0} g"),
                new("Largest cup from this dose", fit.LargestYieldGrams is { } most ? $"{most:0.0} g" : "not known"),
            ],
            "Good to about 1 g; what a puck keeps differs by a tenth of a gram a gram between coffees.",
            "Weigh a spent puck and one full stroke: both are on the machine's page."
        );

    private static NumberCard WaterTemperature(WaterAtPuck water) =>
        new(
            "waterC",
            "Water at the puck",
            "The mean temperature of the water when it reaches the coffee.",
            "The boiler's or kettle's water, less the heat that group, piston and puck take from it on the way.",
            [
                new("Mean", $"{Quantity.Celsius(water.Value):0.0}"),
                new("When pressing begins", $"{Quantity.Celsius(water.Course.Points[0].WaterC):0.0}"),
                new("At the end", $"{Quantity.Celsius(water.Course.Points[^1].WaterC):0.0}"),
            ],
            $"Two times in three within {Quantity.Kelvin(water.PlusMinus):0.0}.",
            water.NarrowedBy
        );

    private static NumberCard Force(Machine machine, PullPlan plan, double forceKgf) =>
        new(
            "force",
            "Hand force",
            "What the hand presses at the handle when the plan's pressure is highest, halfway down the stroke.",
            "Pressure times piston area, plus the seal's friction, divided by the lever's ratio and its efficiency.",
            [
                new("Peak pressure", $"{Quantity.Bar(plan.PeakBar):0.0}"),
                new("Piston", $"{machine.PistonDiameterMm:0.0} mm"),
                new("Lever's ratio in mid stroke", $"{Lever.RatioAt(machine, 0.5):0.0}"),
                new("Seal's friction", $"{Quantity.Kgf(machine.FrictionNewtons / Units.NewtonsPerKgf):0.0}"),
                new("Willing to press", $"{Quantity.Kgf(machine.WillingForceKgf):0}"),
            ],
            $"At {Quantity.Kgf(forceKgf):0.0} it is as good as the machine's numbers: within a tenth for a family's numbers, "
                + "a few per cent for measured ones.",
            "Hang weights on the handle, or weigh it on a kitchen scale: the machine's page shows how."
        );

    private static NumberCard Headspace(Basket basket, CardInput dose, PuckFit puck) =>
        new(
            "headspace",
            "Headspace",
            "The room between the puck, with what lies on it, and the rim of the basket.",
            "The basket's depth less the height of the puck: dose divided by its density and the basket's area.",
            [
                dose,
                new("Basket", $"{basket.DiameterMm:0.#} mm wide, {basket.DepthMm:0.#} mm deep"),
                new("Height of the puck", $"{puck.PuckMm:0.0} mm"),
                new("Right dose", $"{puck.FromGrams:0.0} to {puck.ToGrams:0.0} g"),
            ],
            "Good to about half a millimetre: roast and tamp change how tightly the coffee lies.",
            "Lock a puck in and out again, and look for the print of the screen."
        );

    private static IEnumerable<NumberCard> Forecast(
        ForecastFacts facts,
        PullPlan plan,
        CardInput dose,
        CardInput yield,
        WaterAtPuck water
    )
    {
        var (fast, middle, slow) = facts.Forecast;
        var resistance = facts.Shot.Bed.ResistanceBarSPerMl;
        var spread = Math.Exp(facts.LogResistivity.Scale) - 1;
        CardInput[] shared =
        [
            dose,
            yield,
            new("Puck's expected resistance", $"{Quantity.BarSPerMl(resistance):0.0}, give or take {spread * 100:0} %"),
            new("Shots of this bag on this grinder", $"{facts.KnownShots}"),
            new("Plan", plan.Name),
            new("Water at the puck", $"{Quantity.Celsius(water.Value):0}"),
        ];
        const string run =
            "The plan is pulled on this machine in small steps of time: the flow is pressure divided by the puck's resistance, "
            + "which falls as the coffee wets and washes out and rises as it is pressed together.";
        yield return new(
            "seconds",
            "Time to the yield",
            "From the lever's first move until the yield is in the cup.",
            run,
            shared,
            $"Eight shots in ten take {fast.Seconds:0} to {slow.Seconds:0} s.",
            Narrows(facts)
        );
        yield return new(
            "firstDrops",
            "First drops",
            "When the first coffee should fall, from the lever's first move.",
            "The water wets the puck and fills its pores; then it runs through the spout.",
            shared,
            $"Between {fast.FirstDropsSeconds:0} and {slow.FirstDropsSeconds:0} s in eight shots of ten.",
            Narrows(facts)
        );
        yield return new(
            "strength",
            "Strength",
            "The share of the drink that is dissolved coffee.",
            "Dissolved coffee in the cup divided by the yield.",
            [yield, new("Dissolved", $"{middle.ExtractionShare * facts.Shot.Bed.DoseGrams:0.0} g")],
            "Good to about one per cent of the drink: nothing in the cup was measured.",
            "A refractometer; otherwise trust the difference between two shots more than the number."
        );
        yield return new(
            "extraction",
            "Extraction",
            "The share of the dry coffee that ends up dissolved in the cup.",
            "Each layer of the puck gives what is left in it to the water that passes, faster when it is hotter and finer.",
            [dose, yield, new("Water at the puck", $"{Quantity.Celsius(water.Value):0}")],
            $"{Math.Min(fast.ExtractionShare, slow.ExtractionShare) * 100:0.0} to "
                + $"{Math.Max(fast.ExtractionShare, slow.ExtractionShare) * 100:0.0} % from the doubt about the puck alone; "
                + "how soluble this coffee is adds two or three per cent.",
            "A refractometer; otherwise trust the difference between two shots more than the number."
        );
        var lands = facts.Shot.Plan.LandingSeconds;
        if (facts.Chance is { } chance)
        {
            yield return new(
                "chance",
                "Chance to land",
                $"How often a shot set like this ends between {lands.Low:0} and {lands.High:0} s, as wanted.",
                "The probability that the puck's resistance lies between the two resistances that land.",
                shared,
                $"{chance * 100:0} of 100 pulls; more than 99 is never shown.",
                Narrows(facts)
            );
        }

        if (facts.Suggestion is { } advised)
        {
            yield return new(
                "grind",
                "Advised setting",
                "The setting on the grinder that lands most often.",
                "From every shot pulled with this grinder: how much one step changes the puck's resistance, with age, dose and "
                    + "basket taken out. What arm and heat did is not blamed on the grind.",
                [
                    new("Shots of this bag", $"{advised.Shots}"),
                    new("One step changes the resistance by", $"{advised.StepShare * 100:0} %"),
                    new("In a week", $"{advised.InAWeek:0.##} {facts.ScaleUnit}"),
                    new("Time that lands", $"{lands.Low:0} to {lands.High:0} s"),
                ],
                $"Eight times in ten the right one lies between {advised.Low:0.#} and {advised.High:0.#} {facts.ScaleUnit}.",
                advised.Shots < 3
                    ? "Pull this bag at two settings a few steps apart."
                    : "Change nothing else between shots: same dose, same preparation."
            );
        }
    }

    private static string Narrows(ForecastFacts facts) => $"{char.ToUpperInvariant(facts.NarrowedBy[0])}{facts.NarrowedBy[1..]}.";
}
