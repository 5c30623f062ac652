using RuddySpring.Core.Machines;

namespace RuddySpring.Core.Heat;

/// <summary>
/// One number of a machine's heat that readings can tell: what it is before them, how far machines of a family stray from it, and
/// how it is turned. A turn is in natural logarithms, or in kelvin for what a strip reads too high or low.
/// </summary>
/// <param name="Label">What it is called.</param>
/// <param name="Range">Field, unit and bounds.</param>
/// <param name="Spread">One standard deviation of the prior, in turns.</param>
/// <param name="Get">Its value on a machine.</param>
/// <param name="Set">The machine with another value.</param>
internal sealed record HeatKnob(
    string Label,
    FieldRange Range,
    double Spread,
    Func<Machine, double> Get,
    Func<Machine, double, Machine> Set
)
{
    /// <summary>How far a strip may sit off, K: its seating, the same all session long.</summary>
    public const double StripSpreadK = 0.7;

    // machines of one family differ by so much: conductances by a half, a group from 0.6 to 1.6 times the usual mass of metal
    // (1.9 standard deviations), an element by its tolerance and the mains (common practice, from memory)
    private const double ConductanceSpread = 0.5;
    private const double HeatCapacitySpread = 0.25;
    private const double PassSpread = 0.4;
    private const double AirSpread = 0.3;
    private const double PowerSpread = 0.15;

    /// <summary>The machine with this number turned by so many logarithms, held to the range that machines have.</summary>
    public Machine Turn(Machine from, Machine onto, double turns) =>
        Set(onto, Math.Clamp(Get(from) * Math.Exp(turns), Range.Min, Range.Max));

    /// <summary>What the readings of these sessions can tell about a machine; nothing that they are blind to.</summary>
    public static IReadOnlyList<HeatKnob> For(Machine machine, IReadOnlyList<HeatLog> logs)
    {
        var knobs = new List<HeatKnob>
        {
            new(
                "Group to room",
                HeatRanges.GroupAmbient,
                ConductanceSpread,
                m => m.Heat!.GroupAmbientWPerK,
                (m, v) => m with { Heat = m.Heat! with { GroupAmbientWPerK = v } }
            ),
        };
        if (machine.HasBoiler)
            knobs.Add(
                new(
                    "Boiler to group",
                    HeatRanges.BoilerGroup,
                    ConductanceSpread,
                    m => m.Heat!.BoilerGroupWPerK,
                    (m, v) => m with { Heat = m.Heat! with { BoilerGroupWPerK = v } }
                )
            );
        knobs.Add(
            new(
                "Heat capacity of the group",
                MachineRanges.MetalHeat,
                HeatCapacitySpread,
                m => m.MetalHeatCapacity,
                (m, v) => m with { MetalHeatCapacity = v }
            )
        );
        if (machine.HasBoiler && logs.Any(l => l.Events.Any(e => e.Kind is HeatEventKind.Shot or HeatEventKind.Flush)))
            knobs.Add(
                new(
                    "Passing water to group",
                    HeatRanges.Pass,
                    PassSpread,
                    m => m.Heat!.PassWPerK,
                    (m, v) => m with { Heat = m.Heat! with { PassWPerK = v } }
                )
            );
        var aboutTheBoiler = logs.Any(l =>
            l.Readings.Any(r => r.Kind == HeatReadingKind.BoilerGauge || r.ElementOn(machine.Lamp) is not null)
        );
        if (!machine.HasBoiler || !aboutTheBoiler)
            return knobs;
        knobs.Add(
            new(
                "Boiler loss",
                HeatRanges.BoilerLoss,
                ConductanceSpread,
                m => m.Heat!.BoilerLossWPerK,
                (m, v) => m with { Heat = m.Heat! with { BoilerLossWPerK = v } }
            )
        );
        knobs.Add(
            new(
                "Element",
                HeatRanges.Heater,
                PowerSpread,
                m => m.Heat!.HeaterWatts,
                (m, v) => m with { Heat = m.Heat! with { HeaterWatts = v } }
            )
        );
        if (machine.Heat!.AirAtStart > 0.05)
        {
            knobs.Add(
                new(
                    "Air sealed in",
                    HeatRanges.AirAtStart,
                    AirSpread,
                    m => m.Heat!.AirAtStart,
                    (m, v) => m with { Heat = m.Heat! with { AirAtStart = v } }
                )
            );
        }

        return knobs;
    }
}
