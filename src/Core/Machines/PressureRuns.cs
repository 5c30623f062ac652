using System.Globalization;
using RuddySpring.Core.Fitting;

namespace RuddySpring.Core.Machines;

/// <summary>The gauge while the spring runs free over a stroke.</summary>
/// <param name="MovedMl">Water the piston has moved, ml, 0 to 400.</param>
/// <param name="PressureBar">Gauge, 0.2 to 15 bar.</param>
public sealed record SpringReading(double MovedMl, double PressureBar);

/// <summary>The gauge while the lever is held against a blind basket.</summary>
/// <param name="Seconds">Since the first reading, s, 0 to 600.</param>
/// <param name="PressureBar">Gauge, 0.2 to 15 bar.</param>
public sealed record HoldReading(double Seconds, double PressureBar);

/// <summary>What the gauge says by itself: the spring's line over its stroke, and how fast a seal lets go.</summary>
public static class PressureRuns
{
    public static readonly FieldRange Moved = new("movedMl", "Water moved", 0, 400, "ml");
    public static readonly FieldRange Held = new("seconds", "Time held", 0, 600, "s");

    /// <summary>The spring's line, p = p_top - slope V, from at least two readings; its end is taken at the stroke's
    /// volume.</summary>
    public static Measurement Spring(Machine machine, IReadOnlyList<SpringReading> readings, DateOnly on)
    {
        if (machine.SpringTopBar is not { } top || machine.SpringEndBar is not { } end)
            throw new DoesNotFitException("machine", "This machine has no spring.");
        foreach (var r in readings)
        {
            Moved.Check(r.MovedMl);
            LeverWeighing.Gauge.Check(r.PressureBar);
        }

        // columns are chosen so that the coefficients are the pressures at both ends of the stroke
        double[] Row(double ml) => [1.0 - (ml / machine.ChamberMl), ml / machine.ChamberMl];
        var fit = LinearFit.Of(
            [.. readings.Select(r => Row(r.MovedMl))],
            [.. readings.Select(r => r.PressureBar)],
            LeverWeighing.GaugeReadTo
        );
        if (fit.Coefficients[1] > fit.Coefficients[0])
            throw new DoesNotFitException(
                "pressureBar",
                "A spring that runs out gives less and less; these readings rise. Check their order."
            );
        MachineRanges.SpringTop.Check(fit.Coefficients[0]);
        MachineRanges.SpringEnd.Check(fit.Coefficients[1]);
        MeasuredChange[] changes =
        [
            new("springTopBar", "Spring at the top", "bar", top, fit.Coefficients[0], fit.PlusMinus(0)),
            new("springEndBar", "Spring at the end", "bar", end, fit.Coefficients[1], fit.PlusMinus(1)),
        ];
        return new(
            changes,
            [.. readings.Select((r, i) => new FitPoint(r.MovedMl, r.PressureBar, fit.Fitted[i]))],
            "water moved, ml",
            "gauge, bar",
            string.Create(
                CultureInfo.InvariantCulture,
                $"The spring gives {Quantity.Bar(fit.Coefficients[0]):0.0} at the top of its stroke and "
                    + $"{Quantity.Bar(fit.Coefficients[1]):0.0} at the end."
            ),
            Measurement.Keep(machine, changes, "letting the spring run free", readings.Count, on) with
            {
                SpringTopBar = fit.Coefficients[0],
                SpringEndBar = fit.Coefficients[1],
            }
        );
    }

    /// <summary>The seal: pressure held against a blind basket falls as p = p_0 exp(-a t); a is its leak in 1/s.</summary>
    public static Measurement Seal(Machine machine, IReadOnlyList<HoldReading> readings, DateOnly on)
    {
        foreach (var r in readings)
        {
            Held.Check(r.Seconds);
            LeverWeighing.Gauge.Check(r.PressureBar);
        }

        var fit = LinearFit.Of(
            [.. readings.Select(r => new[] { 1.0, -r.Seconds })],
            [.. readings.Select(r => Math.Log(r.PressureBar))],
            LeverWeighing.GaugeReadTo / readings.Max(r => r.PressureBar)
        );
        var leak = MachineRanges.SealLeak.Check(Math.Max(0, fit.Coefficients[1]));
        MeasuredChange[] changes =
        [
            new("sealLeakPerSecond", "Seal leak", "1/s", machine.SealLeakPerSecond, leak, fit.PlusMinus(1)),
        ];
        var word =
            leak < 0.002 ? "tight"
            : leak < 0.01 ? "a little worn; look at it at the next cleaning"
            : "leaking: clean, grease or renew the seal";
        return new(
            changes,
            [.. readings.Select((r, i) => new FitPoint(r.Seconds, r.PressureBar, Math.Exp(fit.Fitted[i])))],
            "held, s",
            "gauge, bar",
            string.Create(
                CultureInfo.InvariantCulture,
                $"The pressure falls by {leak * 100:0.0} % a second: the seal is {word}."
            ),
            Measurement.Keep(
                machine with
                {
                    SealLeakPerSecond = leak,
                },
                changes,
                "holding against a blind basket",
                readings.Count,
                on
            )
        );
    }
}
