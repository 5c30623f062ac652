using CsCheck;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Shots;

namespace RuddySpring.Core.Tests.Shots;

/// <summary>A hand that follows a plan on each kind of machine.</summary>
public sealed class PlanDriveTests
{
    // wanted at once: a lead of nothing would rise with the cup
    private static readonly PullPlan Steady = new(
        "steady",
        "Steady",
        "",
        0.5,
        [new("hold", 6, PhaseEnding.YieldShare, 1, 1e-6, 90, "Hold 6 bar")],
        new(20, 30, 40)
    );

    private static PlanDrive Hand(PullPlan plan, Machine machine, double factor = 1) =>
        new(new(plan, 30, Strokes.VolumeMl(machine)), machine, factor: factor);

    private static Machine Of(MachineFamily family) => FamilyDefaults.Of(family).Machine;

    [Fact] // a first-order lag of 0.3 s: 1 - 1/e of the way after one of them
    public void The_hand_is_a_little_late()
    {
        var hand = Hand(Steady, Of(MachineFamily.PortableLever));
        var bar = 0.0;
        for (var t = 0.001; t <= 0.3 + 1e-9; t += 0.001)
            bar = hand.Next(new(t, 0, false), 0, 0.001);
        Assert.Equal(6 * (1 - (1 / Math.E)), bar, 0.02);
    }

    [Fact]
    public void An_arm_never_gives_more_than_it_is_willing_to() =>
        Gen.Double[5, 25]
            .Sample(willing =>
            {
                var machine = Of(MachineFamily.PortableLever) with { WillingForceKgf = willing };
                var hand = Hand(Steady, machine);
                for (var t = 0.05; t < 5; t += 0.05)
                {
                    if (hand.Next(new(t, 0, false), 0, 0.05) > Lever.PressureBar(machine, willing) + 1e-9)
                        return false;
                }

                return true;
            });

    [Fact]
    public void With_no_water_left_there_is_no_pressure()
    {
        var hand = Hand(Steady, Of(MachineFamily.PortableLever));
        for (var t = 0.05; t < 3; t += 0.05)
            hand.Next(new(t, 0, false), 0, 0.05);
        Assert.Equal(6, hand.PressureBar, 0.01);
        for (var t = 3.0; t < 6; t += 0.05)
            hand.Next(new(t, 0, false, MovedMl: 100), 0, 0.05);
        Assert.Equal(0, hand.PressureBar, 0.01);
    }

    [Fact]
    public void A_lifted_lever_stands_at_boiler_pressure_and_begins_a_stroke_anew()
    {
        var machine = Of(MachineFamily.BoilerSpring);
        var hand = Hand(ShippedPlans.FreeSpring, machine);
        for (var t = 0.05; t < 5; t += 0.05)
            hand.Next(new(t, 0, false, MovedMl: 7), 0, 0.05);
        Assert.Equal(machine.BoilerGaugeBar!.Value, hand.PressureBar, 0.15);
        Assert.Equal(machine.BoilerGaugeBar!.Value, hand.MostBar, 1e-9);
        Assert.Equal(7, hand.StrokeFromMl);
        // drops: the lever goes up, and the spring is at the top of its line whatever has gone in before
        for (var t = 5.0; t < 7; t += 0.05)
            hand.Next(new(t, 1, true, MovedMl: 7.5), 0, 0.05);
        Assert.Equal(Spring.PressureBar(machine, 0.5)!.Value, hand.MostBar, 1e-9);
    }

    [Fact] // half the plan's pressure with half the factor, until a limit is reached
    public void A_factor_softens_what_the_plan_wants()
    {
        var (whole, half) = (
            Hand(Steady, Of(MachineFamily.PortableLever)),
            Hand(Steady, Of(MachineFamily.PortableLever), factor: 0.5)
        );
        for (var t = 0.05; t < 4; t += 0.05)
        {
            whole.Next(new(t, 0, false), 0, 0.05);
            half.Next(new(t, 0, false), 0, 0.05);
        }

        Assert.Equal(3, half.PressureBar, 0.01);
        Assert.Equal(whole.PressureBar / 2, half.PressureBar, 1e-9);
    }

    [Fact] // the length of the step is not felt: the lag is exact for a steady target
    public void The_step_is_not_felt() =>
        Gen.Int[1, 40]
            .Sample(cuts =>
            {
                var hand = Hand(Steady, Of(MachineFamily.PortableLever));
                var step = 0.6 / cuts;
                for (var i = 1; i <= cuts; i++)
                    hand.Next(new(i * step, 0, false), 0, step);
                return Math.Abs(hand.PressureBar - (6 * (1 - Math.Exp(-0.6 / PlanDrive.LagSeconds)))) < 1e-9;
            });
}
