using RuddySpring.Core.Machines;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Shots;
using RuddySpring.Core.Tests.SecondWorld;
using RuddySpring.Core.Traces;

namespace RuddySpring.Core.Tests.Shots;

/// <summary>A puck read back from its trace: what is known comes back, what is not known is said.</summary>
public sealed class TraceFitTests(ITestOutputHelper output)
{
    private static readonly Machine Portable = FamilyDefaults.Of(MachineFamily.PortableLever).Machine;

    private static ShotConditions Sheet(PullPlan? plan = null) =>
        ShotConditions.Of(Portable, plan ?? ShippedPlans.EarlyPeak, 15, 32, 90).WithResistance(3.2);

    [Fact] // without noise, and nothing but the fit's own unknowns changed
    public void What_made_the_trace_is_found()
    {
        var truth = Sheet().WithResistance(4.1) with
        {
            Path = new(0.9, 0.3),
            Behaviour = Sheet().Behaviour with { DryShare = 0.35, OnsetSeconds = 1.3 },
        };
        var run = new ShotRun(truth);
        var drive = new PlanDrive(new(truth.Plan, 32), Portable with { WillingForceKgf = 30 });
        List<(double, double)> pressures = [],
            weights = [];
        for (var step = 1; step <= 700; step++)
        {
            if (run.Stream.LeftPuckGrams < 32)
                run.Step(drive, 0.05);
            else
                run.Press(run.PressureBar * 0.8, 0.05);
            // a sample says what stood from then on: the drive holds it until the next
            pressures.Add(((step - 1) * 0.05, run.PressureBar));
            if (step % 4 == 0)
                weights.Add((step * 0.05, run.Stream.ShownGrams));
        }

        var prior = PuckBelief.Before(Sheet(), 0.3);
        var fit = TraceFit.Of(prior, pressures, weights, 35, new(0.1), 8);
        var found = fit.Belief.Middle;
        Assert.True(fit.Misfit < 0.05, $"{fit.Misfit}");
        Assert.Equal(1.2, found.Path.SpoutDelaySeconds + found.Path.ScaleLagSeconds, 0.1);
        Assert.Equal(1, found.Bed.ResistanceBarSPerMl / 4.1, 0.06);
        Assert.Equal(0.35, found.Behaviour.DryShare, 0.05);
        foreach (var unknown in PuckUnknown.All)
            Assert.True(fit.Belief.Sd(unknown) < prior.Sd(unknown), unknown.Name);
    }

    [Fact] // R_b and compaction cannot be told apart at one steady pressure, and nothing is learned where nothing is seen
    public void What_cannot_be_told_is_said()
    {
        var prior = PuckBelief.Before(Sheet(), 0.3);
        var blind = TraceFit.Of(prior, [(0, 6)], [], 20, new(0.1), 3).Belief;
        Assert.Equal(
            PuckUnknown.All.Count,
            blind.CannotTell(prior).Count(s => s.StartsWith("This trace says little", StringComparison.Ordinal))
        );
        Assert.All(PuckUnknown.All, u => Assert.Equal(prior.Sd(u), blind.Sd(u), 1e-6));
        var run = new ShotRun(Sheet());
        List<(double, double)> weights = [];
        for (var step = 1; step <= 500; step++)
        {
            run.Press(6, 0.05);
            weights.Add((run.Seconds, run.Stream.ShownGrams));
        }

        var steady = TraceFit.Of(prior, [(0, 6)], weights, 25, new(0.1), 6).Belief;
        Assert.True(steady.Correlation(PuckUnknown.Resistance, PuckUnknown.Compaction) < -0.5);
        Assert.True(steady.Sd(PuckUnknown.Compaction) > 0.7 * prior.Sd(PuckUnknown.Compaction));
        Assert.Contains(steady.CannotTell(prior), s => s.Contains("compaction", StringComparison.Ordinal));
    }

    [Theory] // the puck's resistance under the behaviour that was read with it, through each world's own instruments
    [InlineData(0.12)]
    public void The_delays_are_learned_from_pulls(double within)
    {
        foreach (var world in World.Both)
        {
            List<double> off = [];
            for (ulong seed = 1; seed <= 12; seed++)
            {
                var house = world.Household(seed);
                PuckBelief? belief = null;
                for (ulong n = 0; n < 3; n++)
                {
                    var (trace, _, _) = World.Record(house.Pull(Sheet(), 1, (seed * 100) + n), 32);
                    var read = PuckReadBack.Of(
                        belief?.Next(Sheet(), 0.3) ?? PuckBelief.Before(Sheet(), 0.3),
                        trace,
                        MeasureShot.Read(trace, Moments.None, 15, 90),
                        PuckReadBack.ForTheNextPull
                    );
                    if (read is not null)
                        belief = read.After;
                }

                var path = belief!.Middle.Path;
                off.Add(Math.Log((path.SpoutDelaySeconds + path.ScaleLagSeconds) / (house.SpoutSeconds + house.ScaleSeconds)));
            }

            var rms = Math.Sqrt(off.Average(o => o * o));
            output.WriteLine(
                FormattableString.Invariant($"{world.Name}: spout and scale together off by {rms:P0} after three pulls")
            );
            Assert.True(rms < (world == World.Own ? within : 1.5 * within));
        }
    }

    [Fact] // what is kept of a belief comes back
    public void A_memory_is_the_belief()
    {
        var belief = PuckBelief.Before(Sheet(), 0.3, new(new(0.7, 0.2), new(0.5, 0.1), -0.6)) with { Pulls = 3 };
        belief = belief with { Middle = belief.Middle with { Behaviour = belief.Middle.Behaviour with { OverR10 = 0.1 } } };
        var back = PuckMemory.Of(belief).Checked().Expect(Sheet(), 0.2);
        Assert.Equal(0.7, back.Middle.Path.SpoutDelaySeconds);
        Assert.Equal(-0.6, PuckMemory.Of(belief).LearnedPath.Correlation, 1e-4);
        Assert.Equal(0.2, back.Sd(PuckUnknown.Resistance), 1e-6);
        Assert.Equal(3.2 * Math.Exp(0.1), back.Middle.Bed.ResistanceBarSPerMl, 1e-9);
        Assert.Throws<DoesNotFitException>(() => (PuckMemory.Of(belief) with { Covariance = [1, 2] }).Checked());
        Assert.Throws<DoesNotFitException>(() => (PuckMemory.Of(belief) with { Path = new(0, 0.4) }).Checked());
    }
}
