using System.Diagnostics;
using MathNet.Numerics.LinearAlgebra;
using MathNet.Numerics.OdeSolvers;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Tests;

namespace RuddySpring.Measure;

/// <summary>
/// The same shot as one system of ordinary differential equations for MathNet's general fourth-order Runge-Kutta solver: pressure
/// behind the hand, and for each lane its front, its flow and its cells' pools. Pressed flat, on even lanes, for 60 s. What is
/// asked is how many times longer the general solver takes for no smaller an error in the cup than the simulator's own steps
/// make.
/// </summary>
internal static class GeneralSolver
{
    private const double Seconds = 60;
    private const double Bar = 8;
    private const double RampSeconds = 3;
    private const double HandLagSeconds = 0.3;
    private const double FirstWetted = 1e-3;

    // the extraction's own constants; see Core/Puck/Extraction.cs
    private const double Fast = 0.65,
        FastRate = 0.24,
        SlowRate = 0.009,
        Saturation = 0.32;
    private const int PerCell = 4; // fast, slow, dissolved, water
    private const int PerLane = 3 + (Extraction.Cells * PerCell); // wetted, seconds of flow, passed

    private static readonly PuckParameters Puck = new()
    {
        DoseGrams = 18,
        ResistanceBarSPerMl = 9,
        LaneSpread = 0,
    };
    private static readonly double Density = Core.Water.LiquidWater.DensityGramsPerMl(Puck.WaterC);
    private static readonly double HeldMl = Puck.Behaviour.WaterHeldPerGram * Puck.DoseGrams / Density / Puck.Lanes;

    /// <summary>How many times longer the general solver takes at equal error.</summary>
    public static double Ratio(int runs)
    {
        var truth = Cup(Solve(60_000));
        var own = Own();
        var error = Math.Abs((own / truth) - 1);
        var steps = 75;
        while (steps < 20_000)
        {
            var cup = Cup(Solve(steps));
            if (double.IsFinite(cup) && Math.Abs((cup / truth) - 1) <= error)
                break;
            steps = (int)(steps * 1.5);
        }

        return Median(() => Solve(steps), Math.Max(3, runs / 10)) / Median(() => Own(), runs);
    }

    private static double Own() =>
        PuckShots
            .Run(
                Puck,
                new(
                    "flat",
                    "Flat",
                    "",
                    0.5,
                    [
                        new("ramp", Bar, PhaseEnding.Seconds, RampSeconds, 0, 3, "Ramp"),
                        new("hold", Bar, PhaseEnding.YieldShare, 1, 0, 90, "Hold"),
                    ]
                ),
                FamilyDefaults.Of(MachineFamily.HeatedGroup).Machine with
                {
                    WillingForceKgf = 60,
                    ChamberMl = 400,
                },
                120,
                Seconds
            )
            .CupGrams;

    private static double Median(Action act, int runs)
    {
        var times = new List<double>();
        for (var i = 0; i < runs; i++)
        {
            var from = Stopwatch.GetTimestamp();
            act();
            times.Add(Stopwatch.GetElapsedTime(from).TotalMilliseconds);
        }

        return Row.Percentile(times, 0.5);
    }

    private static Vector<double> Solve(int steps)
    {
        var y = Vector<double>.Build.Dense(2 + (Puck.Lanes * PerLane));
        for (var lane = 0; lane < Puck.Lanes; lane++)
        {
            var at = 2 + (lane * PerLane);
            y[at] = FirstWetted;
            for (var cell = 0; cell < Extraction.Cells; cell++)
            {
                var c = at + 3 + (cell * PerCell);
                var soluble = Puck.DoseGrams / Puck.Lanes * Puck.Behaviour.SolubleShare / Extraction.Cells;
                (y[c], y[c + 1]) = (soluble * Fast, soluble * (1 - Fast));
            }
        }

        return RungeKutta.FourthOrder(y, 0, Seconds, steps + 1, Slope)[^1];
    }

    private static double Cup(Vector<double> y)
    {
        var passed = 0.0;
        for (var lane = 0; lane < Puck.Lanes; lane++)
            passed += y[2 + (lane * PerLane) + 2];
        return (passed * Density) + y[1];
    }

    private static Vector<double> Slope(double t, Vector<double> y)
    {
        var d = Vector<double>.Build.Dense(y.Count);
        var pressure = Math.Max(0, y[0]);
        d[0] = (Math.Min(Bar, Bar / RampSeconds * t) - pressure) / HandLagSeconds;
        var share = 1.0 / Puck.Lanes;
        var wet =
            Puck.ResistanceBarSPerMl
            * FlowResistance.Thermal(Puck.WaterC)
            * FlowResistance.Compaction(Puck.Behaviour, pressure)
            * FlowResistance.Swell(Puck.Behaviour, t);
        var dry = Puck.ResistanceBarSPerMl * FlowResistance.Thermal(Puck.WaterC) * Puck.Behaviour.DryShare;
        for (var lane = 0; lane < Puck.Lanes; lane++)
        {
            var at = 2 + (lane * PerLane);
            double flow;
            if (y[at] < 1)
            {
                flow = (pressure + Puck.Behaviour.CapillaryBar) * share / (dry * y[at]);
                d[at] = flow / HeldMl;
            }
            else
            {
                flow =
                    pressure
                    * share
                    * FlowResistance.Onset(Puck.Behaviour, y[at + 1])
                    / (wet * FlowResistance.Erode(Puck.Behaviour, y[at + 2] / (Puck.DoseGrams * share)));
                d[at + 1] = 1;
                d[at + 2] = flow;
            }

            d[1] += Cells(y, d, at + 3, flow);
        }

        return d;
    }

    /// <summary>Slopes of a lane's cells under a flow in ml/s; gives the solids that leave it, g/s.</summary>
    private static double Cells(Vector<double> y, Vector<double> d, int at, double flow)
    {
        var room = HeldMl / Extraction.Cells;
        var carried = 0.0;
        for (var cell = 0; cell < Extraction.Cells; cell++)
        {
            var c = at + (cell * PerCell);
            var water = y[c + 3];
            if (water <= 0 && flow <= 0)
                return 0;
            var under = water > 0 ? Math.Max(0, 1 - (y[c + 2] / (water * Saturation))) : 1;
            var (fast, slow) = (y[c] * FastRate * under, y[c + 1] * SlowRate * under);
            var full = water >= room;
            var leaves = full ? flow * y[c + 2] / room : 0;
            d[c] = -fast;
            d[c + 1] = -slow;
            d[c + 2] = carried + fast + slow - leaves;
            d[c + 3] = full ? 0 : flow;
            carried = leaves;
            if (!full)
                return 0;
        }

        return carried;
    }
}
