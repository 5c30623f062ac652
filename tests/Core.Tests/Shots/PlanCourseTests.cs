using RuddySpring.Core.Machines;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Shots;
using RuddySpring.Core.Tests.Puck;
using RuddySpring.Core.Traces;

namespace RuddySpring.Core.Tests.Shots;

public sealed class PlanCourseTests
{
    private static readonly Machine Weak = FamilyDefaults.Of(MachineFamily.PortableLever).Machine with
    {
        WillingForceKgf = 5,
        ChamberMl = 20,
    };

    [Fact] // the picture of a plan is the plan's: neither a weak arm nor a small chamber bends it
    public void The_usual_course_goes_through_every_phase_to_the_peak()
    {
        foreach (var plan in ShippedPlans.All.Where(p => p != ShippedPlans.FreeSpring))
        {
            var (points, seconds) = PlanCourse.Usual(plan, Weak, 15, 32);
            // a held flow may take its most pressure and on an ordinary puck does not: the peak is the ramp's, seen up to a tenth
            // of a second before its end, where it rises by 1.1 bar/s
            var holds = plan.Phases.Any(p => p.Move == PhaseMove.HoldFlow);
            var peak = plan.Phases.Where(p => p.Move != PhaseMove.HoldFlow).Max(p => p.ToBar);
            Assert.Equal(peak, points.Max(p => p.Bar), holds ? 0.12 : 0.1);
            Assert.Equal(Enumerable.Range(0, plan.Phases.Count), points.Select(p => p.Phase).Distinct());
            Assert.Equal(points.Select(p => p.Seconds).Order(), points.Select(p => p.Seconds));
            Assert.InRange(seconds, 25, 70); // common practice: lever shots take from half a minute to a minute
        }
    }

    [Fact] // common practice: the flow is held level by easing
    public void A_held_flow_eases()
    {
        var (points, _) = PlanCourse.Usual(ShippedPlans.HoldTheFlow, Weak, 15, 32);
        var held = points.Where(p => p.Phase == 2).ToList();
        Assert.True(held[^1].Bar < held.Max(p => p.Bar) * 0.75, $"{held.Max(p => p.Bar):0.0} to {held[^1].Bar:0.0} bar");
    }

    [Fact]
    public void The_course_of_a_real_pull_follows_its_own_drops_and_ends_at_its_stop()
    {
        var shot = ReferenceShots.Flat(new() { DoseGrams = 15, ResistanceBarSPerMl = 6.5 }, 8, 28);
        var (clean, moments, _, _) = MeasureShot.Read(ReferenceShots.Perfect(shot), Moments.None, 15);
        var points = PlanCourse.Of(ShippedPlans.EarlyPeak, 32, clean, moments with { Stop = 20 });
        Assert.Equal(20, points[^1].Seconds, 0.11);
        Assert.All(points.Where(p => p.Seconds < moments.FirstDrops), p => Assert.Equal(0, p.Phase));
        Assert.Contains(points, p => p.Seconds > moments.FirstDrops && p.Phase == 1);
    }

    [Fact]
    public void Without_a_scale_nobody_knows_the_course() =>
        Assert.Empty(
            PlanCourse.Of(
                ShippedPlans.EarlyPeak,
                32,
                TraceCleaning.Clean(new([new(Channel.Pressure, Origin.Measured, [0, 1, 2], [0, 2, 3])])),
                Moments.None
            )
        );
}
