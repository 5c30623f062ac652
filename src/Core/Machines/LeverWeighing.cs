using System.Globalization;
using RuddySpring.Core.Fitting;

namespace RuddySpring.Core.Machines;

/// <summary>One reading: the handle held by a luggage or bathroom scale while the gauge stands still.</summary>
/// <param name="HandKgf">Force at the handle, 0.5 to 60 kgf.</param>
/// <param name="PressureBar">Gauge, 0.2 to 15 bar.</param>
public sealed record HandleReading(double HandKgf, double PressureBar);

/// <summary>Lever ratio and seal friction from weighing the handle: p A = r eta F - F_friction is a straight line in the hand's force F.</summary>
public static class LeverWeighing
{
    /// <summary>How well a gauge's needle can be read, bar.</summary>
    internal const double GaugeReadTo = 0.05;

    public static readonly FieldRange Hand = new("handKgf", "Force at the handle", 0.5, 60, "kgf");
    public static readonly FieldRange Gauge = new("pressureBar", "Gauge", 0.2, 15, "bar");

    /// <summary>Fits at least two readings at different forces; friction below zero is taken as none.</summary>
    public static Measurement Fit(Machine machine, IReadOnlyList<HandleReading> readings, DateOnly on)
    {
        foreach (var r in readings)
        {
            Hand.Check(r.HandKgf);
            Gauge.Check(r.PressureBar);
        }

        var force = readings.Select(r => Lever.PistonForceNewtons(r.PressureBar, machine.PistonDiameterMm)).ToArray();
        var least = Lever.PistonForceNewtons(GaugeReadTo, machine.PistonDiameterMm);
        var fit = LinearFit.Of([.. readings.Select(r => new[] { r.HandKgf * Units.NewtonsPerKgf, -1.0 })], force, least);
        var friction = fit.Coefficients[1];
        var frictionError = fit.PlusMinus(1);
        if (friction < 0)
        {
            fit = LinearFit.Of([.. readings.Select(r => new[] { r.HandKgf * Units.NewtonsPerKgf })], force, least);
            (friction, frictionError) = (0, null);
        }

        var ratio = fit.Coefficients[0] / machine.Efficiency;
        MachineRanges.LeverRatio.Check(ratio);
        MachineRanges.Friction.Check(friction);
        MeasuredChange[] changes =
        [
            new("leverRatio", "Lever ratio", "", machine.LeverRatio, ratio, fit.PlusMinus(0) / machine.Efficiency),
            new("frictionNewtons", "Seal friction", "N", machine.FrictionNewtons, friction, frictionError),
        ];
        var perBar = Lever.PistonAreaM2(machine.PistonDiameterMm) * 1e5;
        var changed = Measurement.Keep(machine, changes, "weighing the handle", readings.Count, on) with
        {
            LeverRatio = ratio,
            FrictionNewtons = friction,
            LeverRatioTable = [],
        };
        return new(
            changes, [.. readings.Select((r, i) => new FitPoint(r.HandKgf, r.PressureBar, fit.Fitted[i] / perBar))],
            "hand, kgf", "gauge, bar",
            string.Create(CultureInfo.InvariantCulture, $"The lever multiplies by {ratio:0.0}{Measurement.PlusMinusText(changes[0].PlusMinus, "", "0.0")}, and the seal takes {friction:0} N. Nine bar needs {Lever.HandForceKgf(changed, 9):0.0} kgf."),
            changed);
    }
}
