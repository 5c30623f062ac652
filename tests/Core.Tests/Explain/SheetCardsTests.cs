using System.Globalization;
using RuddySpring.Core.Dialing;
using RuddySpring.Core.Explain;
using RuddySpring.Core.Fitting;
using RuddySpring.Core.Heat;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Shots;
using RuddySpring.Core.Traces;

namespace RuddySpring.Core.Tests.Explain;

/// <summary>The cards say what the numbers are made of: worked by hand from a card's own inputs, its number comes out.</summary>
public sealed class SheetCardsTests
{
    private const double Dose = 15;
    private const double Yield = 32;
    private static readonly Machine Lever = FamilyDefaults.Of(MachineFamily.PortableLever).Machine;
    private static readonly PullPlan Plan = ShippedPlans.All.First(p => p.Key == "early-peak");

    private static IReadOnlyList<NumberCard> Cards(Machine machine, PullPlan plan, bool withForecast = true)
    {
        var water = new WaterAtPuck(90, 2, "a thermometer", WaterCourse.Steady(90));
        var fit = SheetFit.Of(machine, plan, null, true, Dose, Yield, 90, "medium", PuckCover.Nothing);
        var shot = ShotConditions.Of(machine, plan, Dose, Yield, 90);
        var believed = new Prediction(Math.Log(8), 0.2, 30);
        var facts = new ForecastFacts(shot, believed, ShotForecast.Of(shot, believed), 4, "pulling it", null, 0.6, "clicks");
        return SheetCards.Of(machine, plan, Basket.Of(machine), Dose, Yield, fit, water, withForecast ? facts : null);
    }

    private static double Number(NumberCard card, string input) =>
        double.Parse(Quantity.Plain(card.Inputs.Single(i => i.Name == input).Value).Split(' ')[0], CultureInfo.InvariantCulture);

    [Fact] // yield - solids + dose * (1.05 + solids that left the puck, about 0.2) + dead water: common practice for retention
    public void The_water_comes_out_of_its_inputs()
    {
        var card = Cards(Lever, Plan).Single(c => c.Key == "water");
        var kept = Number(card, "A spent puck weighs more than its dose by");
        // a spent puck is its dose less the solids plus the water it holds, so the solids cancel out
        var byHand = Number(card, "Yield") + (Number(card, "Dose") * kept) + Number(card, "Left in the machine");
        var asked = SheetFit.Of(Lever, Plan, null, true, Dose, Yield, 90, "medium", PuckCover.Nothing).NeedGrams!.Value;
        Assert.Equal(asked, byHand, 0.5);
    }

    [Fact] // statics of a lever: F = (p A + friction) / (ratio * efficiency)
    public void The_force_comes_out_of_its_inputs()
    {
        var card = Cards(Lever, Plan).Single(c => c.Key == "force");
        var area = Math.PI * Math.Pow(Number(card, "Piston") / 1000, 2) / 4;
        var newtons = (Number(card, "Peak pressure") * 1e5 * area) + (Number(card, "Seal's friction") * 9.80665);
        var kgf = newtons / Number(card, "Lever's ratio in mid stroke") / Lever.Efficiency / 9.80665;
        Assert.Equal(Core.Machines.Lever.HandForceKgf(Lever, Plan.PeakBar), kgf, 0.4);
    }

    [Fact]
    public void Every_card_says_what_it_is_how_it_is_computed_and_how_sure_it_is()
    {
        var cards = Cards(Lever, Plan);
        Assert.Equal(cards.Count, cards.Select(c => c.Key).Distinct().Count());
        string[] expected =
        [
            "ratio",
            "water",
            "waterC",
            "force",
            "headspace",
            "seconds",
            "firstDrops",
            "strength",
            "extraction",
            "chance",
        ];
        Assert.Equal(expected, cards.Select(c => c.Key));
        foreach (var card in cards)
        {
            Assert.NotEmpty(card.Inputs);
            foreach (var text in new[] { card.What, card.Equation, card.HowSure })
            {
                Assert.EndsWith(".", text, StringComparison.Ordinal);
                Assert.DoesNotContain("NaN", text, StringComparison.Ordinal);
            }
        }
    }

    [Fact]
    public void A_spring_asks_for_no_force_and_a_sheet_that_does_not_do_has_no_forecast()
    {
        var spring = FamilyDefaults.Of(MachineFamily.BoilerSpring).Machine;
        Assert.DoesNotContain(Cards(spring, ShippedPlans.All.First(p => p.Suits(spring))), c => c.Key == "force");
        Assert.DoesNotContain(Cards(Lever, Plan, withForecast: false), c => c.Key is "seconds" or "chance");
    }

    [Fact]
    public void A_shot_without_a_reading_of_its_resistance_has_no_card_of_it()
    {
        var trace = MeasureShot.Read(new Traces.LifelikePull().Record(), Moments.None, Dose).Measures;
        Assert.Contains(ShotCards.Of(trace with { R10 = 9 }, Dose), c =>
            c.Key == "r10" && c.HowSure.Contains("9.0", StringComparison.Ordinal)
        );
        Assert.DoesNotContain(ShotCards.Of(trace with { R10 = null }, Dose), c => c.Key == "r10");
    }

    [Fact] // the words of the trade that the pages use (common practice)
    public void The_glossary_is_in_order_and_knows_the_trades_words()
    {
        var names = Glossary.Terms.Select(t => t.Name).ToList();
        Assert.Equal(names.Order(StringComparer.OrdinalIgnoreCase), names);
        string[] trade =
        [
            "Dose",
            "Yield",
            "Ratio",
            "Pre-infusion",
            "Bloom",
            "Ramp",
            "Peak",
            "First drops",
            "Blonding",
            "Channel",
            "Puck",
        ];
        Assert.Empty(trade.Except(names));
        Assert.All(Glossary.Terms, t => Assert.InRange(t.Meaning.Length, 10, 200));
    }
}
