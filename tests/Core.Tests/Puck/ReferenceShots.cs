using RuddySpring.Core.Machines;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Shots;
using RuddySpring.Core.Traces;

namespace RuddySpring.Core.Tests.Puck;

/// <summary>Shots that several tests look at.</summary>
internal static class ReferenceShots
{
    /// <summary>A machine that limits nothing.</summary>
    public static Machine Unlimited { get; } =
        FamilyDefaults.Of(MachineFamily.HeatedGroup).Machine with
        {
            WillingForceKgf = 60,
            ChamberMl = 400,
        };

    /// <summary>Up to a pressure in 3 s, held to the yield.</summary>
    public static SimulatedShot Flat(PuckParameters puck, double bar, double yieldGrams) =>
        PuckShots.Run(
            puck,
            new(
                "flat",
                "Flat",
                "",
                0.5,
                [
                    new("ramp", bar, PhaseEnding.Seconds, 3, 0, 3, "Ramp"),
                    new("hold", bar, PhaseEnding.YieldShare, 1, 0, 90, "Hold"),
                ]
            ),
            Unlimited,
            yieldGrams
        );

    /// <summary>What perfect instruments would record.</summary>
    public static Trace Perfect(SimulatedShot shot)
    {
        double[] seconds = [.. shot.Samples.Select(s => s.Seconds)];
        return new([
            new(Channel.Pressure, Origin.Imported, seconds, [.. shot.Samples.Select(s => s.PressureBar)]),
            new(Channel.Weight, Origin.Imported, seconds, [.. shot.Samples.Select(s => s.CupGrams)]),
        ]);
    }

    /// <summary>What a kitchen's gauge and scale would record, from a seed.</summary>
    public static Trace Noisy(SimulatedShot shot, ulong seed)
    {
        var random = new SeededRandom(seed);
        var gauge = new GaugeModel(random);
        var scale = new ScaleModel(random);
        var last = 0.0;
        List<double> seconds = [],
            pressure = [],
            weight = [];
        foreach (var s in shot.Samples)
        {
            seconds.Add(s.Seconds);
            pressure.Add(gauge.Read(s.PressureBar));
            weight.Add(scale.Read(s.CupGrams, s.FlowGramsPerS, s.Seconds - last));
            last = s.Seconds;
        }

        return new([
            new(Channel.Pressure, Origin.Measured, seconds, pressure),
            new(Channel.Weight, Origin.Measured, seconds, weight),
        ]);
    }
}
