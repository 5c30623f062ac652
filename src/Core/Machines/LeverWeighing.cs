using System.Globalization;
using RuddySpring.Core.Fitting;

namespace RuddySpring.Core.Machines;

/// <summary>One reading: the handle held by a luggage or bathroom scale while the gauge stands still.</summary>
/// <param name="HandKgf">Force at the handle, 0.5 to 60 kgf.</param>
/// <param name="PressureBar">Gauge, 0.2 to 15 bar.</param>
/// <param name="StrokeShare">How far the stroke was done, 0 to 1; null where that was not noted.</param>
public sealed record HandleReading(double HandKgf, double PressureBar, double? StrokeShare = null);

/// <summary>
/// Lever ratio and seal friction from weighing the handle: p A = r eta F - F_friction is a straight line in the hand's force F.
/// Where the readings were taken at different shares s of the stroke, r = r_0 + r_1 s as far as they tell it.
/// </summary>
public static class LeverWeighing
{
    /// <summary>How well a gauge's needle can be read, bar.</summary>
    internal const double GaugeReadTo = 0.05;

    private const double LeastSpan = 0.25;

    public static readonly FieldRange Hand = new("handKgf", "Force at the handle", 0.5, 60, "kgf");
    public static readonly FieldRange Gauge = new("pressureBar", "Gauge", 0.2, 15, "bar");

    /// <summary>Fits at least two readings at different forces; friction below zero is taken as none.</summary>
    public static Measurement Fit(Machine machine, IReadOnlyList<HandleReading> readings, DateOnly on)
    {
        foreach (var r in readings)
        {
            Hand.Check(r.HandKgf);
            Gauge.Check(r.PressureBar);
            if (r.StrokeShare is { } share)
                MachineRanges.StrokeShare.Check(share);
        }

        if (
            readings.Count >= 4
            && readings.All(r => r.StrokeShare is not null)
            && readings.Max(r => r.StrokeShare) - readings.Min(r => r.StrokeShare) > LeastSpan
        )
            return OverTheStroke(machine, readings, on);
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
            changes,
            [.. readings.Select((r, i) => new FitPoint(r.HandKgf, r.PressureBar, fit.Fitted[i] / perBar))],
            "hand, kgf",
            "gauge, bar",
            string.Create(
                CultureInfo.InvariantCulture,
                $"The lever multiplies by {ratio:0.0}{Measurement.PlusMinusText(changes[0].PlusMinus, "", "0.0")}, and the "
                    + $"seal takes {Quantity.Kgf(friction / Units.NewtonsPerKgf):0.0}. {Quantity.Bar(9):0} takes "
                    + $"{Quantity.Kgf(Lever.HandForceKgf(changed, 9)):0.0}."
            ),
            changed
        );
    }

    private static Measurement OverTheStroke(Machine machine, IReadOnlyList<HandleReading> readings, DateOnly on)
    {
        var area = machine.PistonDiameterMm;
        var force = readings.Select(r => Lever.PistonForceNewtons(r.PressureBar, area)).ToArray();
        double[] Row(HandleReading r)
        {
            var hand = r.HandKgf * Units.NewtonsPerKgf;
            return [hand * (1.0 - r.StrokeShare!.Value), hand * r.StrokeShare.Value, -1.0];
        }

        var fit = LinearFit.Of([.. readings.Select(Row)], force, Lever.PistonForceNewtons(GaugeReadTo, area));
        var (top, bottom, friction) = (
            fit.Coefficients[0] / machine.Efficiency,
            fit.Coefficients[1] / machine.Efficiency,
            Math.Max(0, fit.Coefficients[2])
        );
        MachineRanges.LeverRatio.Check(top);
        MachineRanges.LeverRatio.Check(bottom);
        var middle = (top + bottom) / 2.0;
        MeasuredChange[] changes =
        [
            new(
                "leverRatio",
                "Lever ratio half-way",
                "",
                machine.LeverRatio,
                middle,
                (fit.PlusMinus(0) + fit.PlusMinus(1)) / 2.0 / machine.Efficiency
            ),
            new("frictionNewtons", "Seal friction", "N", machine.FrictionNewtons, friction, fit.PlusMinus(2)),
        ];
        var changed = Measurement.Keep(machine, changes, "weighing the handle over the stroke", readings.Count, on) with
        {
            LeverRatio = middle,
            FrictionNewtons = friction,
            LeverRatioTable = [new(0, top), new(1, bottom)],
        };
        return new(
            changes,
            [
                .. readings.Select(
                    (r, i) => new FitPoint(r.HandKgf, r.PressureBar, fit.Fitted[i] / (Lever.PistonAreaM2(area) * 1e5))
                ),
            ],
            "hand, kgf",
            "gauge, bar",
            string.Create(
                CultureInfo.InvariantCulture,
                $"The lever multiplies by {top:0.0} at the top of its stroke and {bottom:0.0} at the bottom, and the seal "
                    + $"takes {Quantity.Kgf(friction / Units.NewtonsPerKgf):0.0}. {Quantity.Bar(9):0} takes "
                    + $"{Quantity.Kgf(Lever.HandForceKgf(changed, 9, 0)):0.0} at the top and "
                    + $"{Quantity.Kgf(Lever.HandForceKgf(changed, 9, 1)):0.0} at the bottom."
            ),
            changed
        );
    }
}
