using System.Globalization;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Water;

namespace RuddySpring.Core.Heat;

/// <summary>How the metal of a kettle-filled machine is warmed (common practice).</summary>
public enum PreheatMethod
{
    /// <summary>Not at all: a school of its own.</summary>
    None,

    /// <summary>Filled with boiling water, left, emptied; once or several times.</summary>
    FillAndHold,

    /// <summary>Kettle steam under the cylinder.</summary>
    SteamBath,

    /// <summary>The cylinder lies in the boiling kettle.</summary>
    Submersion,

    /// <summary>Boiling water pressed through with nothing in the basket; once or several times.</summary>
    BlankPresses,

    /// <summary>An electric heater on the group, portafilter and screen in place.</summary>
    ElectricStep,
}

/// <summary>An estimate with its uncertainty.</summary>
/// <param name="Value">Best value.</param>
/// <param name="PlusMinus">One standard deviation's worth, rounded up to what a person can use.</param>
/// <param name="NarrowedBy">What would make it narrower.</param>
public record Estimate(double Value, double PlusMinus, string NarrowedBy);

/// <summary>One way to warm a kettle machine.</summary>
/// <param name="Method">Which.</param>
/// <param name="Seconds">How long in all, s, 0 to 3600.</param>
/// <param name="Times">How many fills or presses share those seconds, 1 to 10.</param>
/// <param name="StepC">Heater step in degC, for an electric one.</param>
public sealed record Preheat(PreheatMethod Method, double Seconds, int Times = 1, double StepC = 0);

/// <summary>
/// Water at the puck of a kettle-filled machine: kettle at its boiling point, less what pouring costs, in contact with metal that
/// a preheat has warmed. Played through <see cref="HeatRun"/>; the quick limit is the energy balance T = (m c T_w + C T_m) / (m c
/// + C).
/// </summary>
public static class KettlePreheat
{
    /// <summary>Loss on pouring in K, 2 to 4 (common practice).</summary>
    public const double PourLossK = 3.0;

    /// <summary>A usual press of a kettle machine, s.</summary>
    public const double PressSeconds = 30.0;

    private const double PourLossSpreadK = 1.0;
    private const double MetalSpreadShare = 0.25;
    private const double BetweenFillsSeconds = 8.0;
    private const double HoldSeconds = 60.0;
    private const double BlankPressSeconds = 15.0;
    private const int UsualBlankPresses = 3;
    private static readonly FieldRange Held = new("heldSeconds", "Preheat time", 0, 3600, "s");
    public static readonly FieldRange Fills = new("times", "Number of fills", 1, 10, "");
    public static readonly FieldRange Bloom = new("bloomSeconds", "Bloom", 0, 180, "s");

    /// <summary>The ways that suit a machine.</summary>
    public static IReadOnlyList<PreheatMethod> Methods(Machine machine) =>
        machine.Family switch
        {
            MachineFamily.HeatedGroup =>
            [
                PreheatMethod.ElectricStep,
                PreheatMethod.FillAndHold,
                PreheatMethod.BlankPresses,
                PreheatMethod.None,
            ],
            MachineFamily.TwinArmBasket => [PreheatMethod.FillAndHold, PreheatMethod.None],
            _ =>
            [
                PreheatMethod.SteamBath,
                PreheatMethod.Submersion,
                PreheatMethod.FillAndHold,
                PreheatMethod.BlankPresses,
                PreheatMethod.None,
            ],
        };

    /// <summary>A way as people usually go about it; after so long little more is won.</summary>
    /// <param name="machine">The machine.</param>
    /// <param name="method">How.</param>
    /// <param name="stepC">Which of its heater steps, degC; null for its top one.</param>
    /// <param name="times">How many fills or presses, 1 to 10; null for the usual number.</param>
    /// <exception cref="FieldRangeException">The number of fills is out of range.</exception>
    /// <exception cref="DoesNotFitException">The heater has no such step.</exception>
    public static Preheat Usual(Machine machine, PreheatMethod method, double? stepC = null, int? times = null)
    {
        if (times is { } n)
            Fills.Check(n);
        switch (method)
        {
            case PreheatMethod.FillAndHold:
                return new(method, HoldSeconds * (times ?? 1), times ?? 1);
            case PreheatMethod.BlankPresses:
                return new(method, BlankPressSeconds * (times ?? UsualBlankPresses), times ?? UsualBlankPresses);
            case PreheatMethod.SteamBath:
                return new(method, 240);
            case PreheatMethod.Submersion:
                return new(method, 150);
            case PreheatMethod.ElectricStep:
                var step = Step(machine, stepC);
                return new(method, ElectricSeconds(machine, step), 1, step);
            default:
                return new(method, 0);
        }
    }

    /// <summary>The events of a preheat that begins at a time in s.</summary>
    /// <param name="machine">The machine.</param>
    /// <param name="way">How.</param>
    /// <param name="atSeconds">When it begins.</param>
    /// <param name="kettleC">Kettle temperature, 20 to 101 degC.</param>
    /// <exception cref="FieldRangeException">A value is out of range.</exception>
    public static IReadOnlyList<HeatEvent> Events(Machine machine, Preheat way, double atSeconds, double kettleC)
    {
        HeatRanges.Kettle.Check(kettleC);
        Held.Check(way.Seconds);
        Fills.Check(way.Times);
        var poured = kettleC - PourLossK;
        switch (way.Method)
        {
            case PreheatMethod.FillAndHold or PreheatMethod.BlankPresses:
                var each = way.Seconds / way.Times;
                var wet = Math.Max(0, each - (way.Times > 1 ? BetweenFillsSeconds : 0));
                return
                [
                    .. Enumerable
                        .Range(0, way.Times)
                        .Select(i => new HeatEvent(
                            HeatEventKind.FillAndHold,
                            atSeconds + (i * each),
                            wet,
                            FillGrams(machine, kettleC),
                            0,
                            poured
                        )),
                ];
            case PreheatMethod.SteamBath:
                return [new(HeatEventKind.SteamBath, atSeconds, way.Seconds, 0, 0, kettleC)];
            case PreheatMethod.Submersion:
                return [new(HeatEventKind.Submersion, atSeconds, way.Seconds, 0, 0, kettleC)];
            case PreheatMethod.ElectricStep:
                return [new(HeatEventKind.HeaterStep, atSeconds, 0, 0, 0, way.StepC), new(HeatEventKind.On, atSeconds)];
            default:
                return [];
        }
    }

    /// <summary>Temperature in degC of mixing water (g, degC) with metal (J/K, degC), nothing lost.</summary>
    public static double MixC(double waterGrams, double waterC, double metalJPerK, double metalC)
    {
        var water = waterGrams * LiquidWater.HeatCapacity(Math.Max(1.0, waterC), Atmosphere.SeaLevelBar);
        return ((water * waterC) + (metalJPerK * metalC)) / (water + metalJPerK);
    }

    /// <summary>Temperature in degC of the metal right after a preheat.</summary>
    /// <param name="machine">The machine.</param>
    /// <param name="way">How it was warmed.</param>
    /// <param name="kettleC">Kettle temperature, 20 to 101 degC.</param>
    /// <param name="ambientC">Room, -10 to 45 degC.</param>
    public static double MetalC(Machine machine, Preheat way, double kettleC, double ambientC) =>
        HeatRun.Play(machine, ambientC, 0, Events(machine, way, 0, kettleC), way.Seconds, records: false).GroupC;

    /// <summary>Water at the puck in degC with its uncertainty, the shot poured right after the preheat, mean over the
    /// press.</summary>
    /// <param name="machine">The machine.</param>
    /// <param name="way">How it was warmed.</param>
    /// <param name="kettleC">Kettle temperature, 20 to 101 degC.</param>
    /// <param name="ambientC">Room, -10 to 45 degC.</param>
    /// <param name="bloomSeconds">Wait between pouring and pressing, 0 to 180 s.</param>
    /// <exception cref="FieldRangeException">A value is out of range.</exception>
    public static WaterAtPuck WaterAtPuck(Machine machine, Preheat way, double kettleC, double ambientC, double bloomSeconds = 0)
    {
        var run = HeatRun.Play(machine, ambientC, 0, Events(machine, way, 0, kettleC), way.Seconds, records: false);
        return WaterAtPuck(machine, run, kettleC, bloomSeconds, MetalUncertaintyK(way.Method));
    }

    /// <summary>The same from a machine as it is now; <paramref name="metalPlusMinusK"/> is how far its metal may be
    /// off.</summary>
    public static WaterAtPuck WaterAtPuck(
        Machine machine,
        HeatRun now,
        double kettleC,
        double bloomSeconds,
        double metalPlusMinusK
    )
    {
        Bloom.Check(bloomSeconds);
        var poured = HeatRanges.Kettle.Check(kettleC) - PourLossK;
        var grams = FillGrams(machine, kettleC);
        var run = now.Clone();
        var seconds = bloomSeconds + PressSeconds;
        run.Add(new(HeatEventKind.Shot, run.Seconds, seconds, grams, 0, poured, bloomSeconds));
        run.AdvanceTo(run.Seconds + seconds);
        // partial derivatives of the energy balance: shares of water and metal
        var water = grams * Steam.WaterJPerGK;
        var waterShare = water / (water + machine.MetalHeatCapacity);
        var fromPour = PourLossSpreadK * waterShare;
        var fromMetalHeat = MetalSpreadShare * waterShare * (1.0 - waterShare) * (poured - now.GroupC);
        var fromMetal = (1.0 - waterShare) * metalPlusMinusK;
        var plusMinus = Math.Sqrt((fromPour * fromPour) + (fromMetalHeat * fromMetalHeat) + (fromMetal * fromMetal));
        return new(
            run.Shots[^1].WaterC,
            plusMinus,
            "a thermometer in the chamber, once, right after filling",
            run.Shots[^1].Course
        );
    }

    /// <summary>Water in g that fills the chamber to its line from a kettle of a temperature in degC.</summary>
    public static double FillGrams(Machine machine, double kettleC) => machine.WaterMl * LiquidWater.DensityGramsPerMl(kettleC);

    /// <summary>Seconds until an electric step is reached from a room at 20 degC, rounded up to half a minute.</summary>
    private static double ElectricSeconds(Machine machine, double stepC)
    {
        var run = new HeatRun(machine, 20, 0, records: false);
        foreach (var e in Events(machine, new(PreheatMethod.ElectricStep, 0, 1, stepC), 0, 95))
            run.Add(e);
        while (run.GroupC < stepC - 1.0 && run.Seconds < 1800)
            run.AdvanceTo(run.Seconds + 30);
        return run.Seconds;
    }

    private static double Step(Machine machine, double? stepC)
    {
        var steps = HeatConstants.Of(machine).HeaterStepsC;
        if (steps.Count == 0)
            return 0;
        if (stepC is not { } wanted)
            return steps[^1];
        if (steps.Contains(wanted))
            return wanted;
        throw new DoesNotFitException(
            "heaterStepC",
            string.Create(
                CultureInfo.InvariantCulture,
                $"This heater has no step of {Quantity.Celsius(wanted):0.#}; it has "
                    + $"{string.Join(", ", steps.Select(s => FormattableString.Invariant($"{Quantity.Celsius(s):0.#}")))}."
            )
        );
    }

    private static double MetalUncertaintyK(PreheatMethod method) =>
        method switch
        {
            PreheatMethod.None or PreheatMethod.Submersion => 3.0,
            PreheatMethod.ElectricStep => 2.0,
            _ => 5.0,
        };
}
