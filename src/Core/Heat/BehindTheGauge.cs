using RuddySpring.Core.Machines;
using RuddySpring.Core.Water;

namespace RuddySpring.Core.Heat;

/// <summary>A boiler at a temperature, with the air of its filling still in it, and without.</summary>
/// <param name="WaterC">Temperature of the water, degC.</param>
/// <param name="UnbledBar">Gauge with the air, bar.</param>
/// <param name="BledBar">Gauge without, bar.</param>
/// <param name="UnderTopMm">Level under the top of the boiler, mm.</param>
/// <param name="HeadspaceMl">Steam space, ml.</param>
public sealed record BoilerPoint(double WaterC, double UnbledBar, double BledBar, double UnderTopMm, double HeadspaceMl);

/// <summary>What a boiler's gauge hides until it is bled: pressure, level and headspace against the water's
/// temperature.</summary>
/// <param name="SetBar">Set pressure, bar.</param>
/// <param name="SetC">Temperature there, bled, degC.</param>
/// <param name="UnbledC">Temperature there with the air of its filling, degC.</param>
/// <param name="HeightMm">Height of the boiler inside, mm.</param>
/// <param name="Points">41 points from room temperature to the set pressure.</param>
public sealed record BehindTheGauge(
    double SetBar,
    double SetC,
    double UnbledC,
    double HeightMm,
    IReadOnlyList<BoilerPoint> Points
)
{
    private const int Steps = 40;

    /// <summary>Of a boiler machine filled cold in a room of a temperature in degC at a height in m.</summary>
    /// <exception cref="DoesNotFitException">The machine has no boiler.</exception>
    public static BehindTheGauge Of(Machine machine, double ambientC, double altitudeMetres)
    {
        var set = machine.BoilerGaugeBar ?? throw new DoesNotFitException("machine", "This machine has no boiler.");
        var heat = HeatConstants.Of(machine);
        var air = new TrappedAir(
            heat.BoilerVolumeMl,
            heat.FillGrams,
            1,
            Math.Max(1, ambientC),
            Atmosphere.PressureBar(altitudeMetres)
        );
        var bled = air with { AirShare = 0 };
        var top = Saturation.BoilerTemperatureC(set, altitudeMetres);
        var start = Math.Max(20, ambientC);
        return new(
            set,
            top,
            air.WaterC(set),
            heat.BoilerHeightMm,
            [
                .. Enumerable
                    .Range(0, Steps + 1)
                    .Select(i =>
                    {
                        var c = start + ((top - start) * i / Steps);
                        return new BoilerPoint(
                            c,
                            air.GaugeBar(c),
                            bled.GaugeBar(c),
                            (1 - air.FilledShare(c)) * heat.BoilerHeightMm,
                            air.HeadspaceMl(c)
                        );
                    }),
            ]
        );
    }
}
