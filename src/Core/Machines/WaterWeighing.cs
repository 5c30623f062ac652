using System.Globalization;
using MathNet.Numerics.Distributions;
using MathNet.Numerics.Statistics;
using RuddySpring.Core.Fitting;
using RuddySpring.Core.Water;

namespace RuddySpring.Core.Machines;

/// <summary>One stroke, or one filled chamber, without coffee.</summary>
/// <param name="PouredGrams">Water that went in, g, 1 to 500; null where a boiler gives it.</param>
/// <param name="CaughtGrams">Water that came out, g, 0.1 to 500.</param>
/// <param name="WaterC">Its temperature when it was moved, degC, 5 to 130.</param>
public sealed record StrokeReading(double? PouredGrams, double CaughtGrams, double WaterC);

/// <summary>A spent puck on the scale.</summary>
/// <param name="DoseGrams">Dry dose, 5 to 30 g.</param>
/// <param name="WetGrams">The puck after the shot, 5 to 80 g.</param>
public sealed record PuckReading(double DoseGrams, double WetGrams);

/// <summary>What weighing water says: how much one stroke moves, what stays behind, what a puck keeps.</summary>
public static class WaterWeighing
{
    public static readonly FieldRange Poured = new("pouredGrams", "Water poured", 1, 500, "g");
    public static readonly FieldRange Caught = new("caughtGrams", "Water caught", 0.1, 500, "g");
    public static readonly FieldRange Warmth = new("waterC", "Water temperature", 5, 130, "degC");
    public static readonly FieldRange Dose = new("doseGrams", "Dose", 5, 30, "g");
    public static readonly FieldRange Wet = new("wetGrams", "Wet puck", 5, 80, "g");

    /// <summary>Volume of a stroke or chamber as the mean of its weighings over the water's density; dead water as poured less
    /// caught.</summary>
    public static Measurement Stroke(Machine machine, IReadOnlyList<StrokeReading> readings, DateOnly on)
    {
        Need(readings.Count);
        foreach (var r in readings)
        {
            if (r.PouredGrams is { } poured)
            {
                Poured.Check(poured);
                if (r.CaughtGrams > poured)
                    throw new DoesNotFitException(
                        "caughtGrams",
                        $"{r.CaughtGrams:0.#} g came out of {poured:0.#} g; more cannot come out than went in."
                    );
            }

            Caught.Check(r.CaughtGrams);
            Warmth.Check(r.WaterC);
        }

        var volumes = readings.Select(r => (r.PouredGrams ?? r.CaughtGrams) / LiquidWater.DensityGramsPerMl(r.WaterC)).ToArray();
        var (volume, plusMinus) = MeanOf(volumes);
        MachineRanges.Chamber.Check(volume);
        var changes = new List<MeasuredChange>
        {
            new(
                "chamberMl",
                machine.HasBoiler ? "Water of one stroke" : "Chamber up to its line",
                "ml",
                machine.ChamberMl,
                volume,
                plusMinus
            ),
        };
        var changed = machine with { ChamberMl = volume };
        var left = readings.Where(r => r.PouredGrams is not null).Select(r => r.PouredGrams!.Value - r.CaughtGrams).ToArray();
        if (left.Length > 0)
        {
            var (dead, error) = MeanOf(left);
            MachineRanges.DeadWater.Check(dead);
            changes.Add(new("deadWaterGrams", "Water that stays behind", "g", machine.DeadWaterGrams, dead, error));
            changed = changed with { DeadWaterGrams = dead };
        }

        return new(
            changes,
            [.. volumes.Select((v, i) => new FitPoint(i + 1, v, volume))],
            "weighing",
            "volume, ml",
            string.Create(
                CultureInfo.InvariantCulture,
                $"{(machine.HasBoiler ? "One stroke moves" : "The chamber takes")} "
                    + $"{volume:0.0}{Measurement.PlusMinusText(plusMinus, "ml", "0.0")}{(plusMinus is null ? " ml" : "")}{(left.Length > 0 ? $", and {changed.DeadWaterGrams:0.0} g stays behind" : "")}."
            ),
            Measurement.Keep(changed, changes, "weighing water", readings.Count, on)
        );
    }

    /// <summary>Retention: what a wet puck weighs over its dose, less the dose, g/g.</summary>
    public static Measurement Puck(Machine machine, IReadOnlyList<PuckReading> readings, DateOnly on)
    {
        Need(readings.Count);
        foreach (var r in readings)
        {
            Dose.Check(r.DoseGrams);
            Wet.Check(r.WetGrams);
        }

        var kept = readings.Select(r => (r.WetGrams - r.DoseGrams) / r.DoseGrams).ToArray();
        var (value, plusMinus) = MeanOf(kept);
        MachineRanges.Retention.Check(value);
        MeasuredChange[] changes =
        [
            new("retentionPerGram", "Water a puck keeps", "g/g", machine.RetentionPerGram, value, plusMinus),
        ];
        return new(
            changes,
            [.. readings.Select((r, i) => new FitPoint(r.DoseGrams, kept[i], value))],
            "dose, g",
            "water kept, g/g",
            string.Create(
                CultureInfo.InvariantCulture,
                $"A puck keeps {value:0.00}{Measurement.PlusMinusText(plusMinus, "")} g of water for each gram of coffee."
            ),
            Measurement.Keep(machine with { RetentionPerGram = value }, changes, "weighing spent pucks", readings.Count, on)
        );
    }

    private static void Need(int count)
    {
        if (count == 0)
            throw new DoesNotFitException("rows", "At least one weighing is needed.");
    }

    private static (double Mean, double? PlusMinus) MeanOf(double[] values)
    {
        var mean = values.Mean();
        return values.Length < 2
            ? (mean, null)
            : (mean, StudentT.InvCDF(0, 1, values.Length - 1, 0.975) * values.StandardDeviation() / Math.Sqrt(values.Length));
    }
}
