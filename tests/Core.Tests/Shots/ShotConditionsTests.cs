using CsCheck;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Shots;

namespace RuddySpring.Core.Tests.Shots;

/// <summary>One description of a shot: change one thing with <c>with</c>, and all that follows from it follows.</summary>
public sealed class ShotConditionsTests
{
    private static readonly Machine Strong = FamilyDefaults.Of(MachineFamily.PortableLever).Machine with
    {
        WillingForceKgf = 40,
        ChamberMl = 120,
    };

    private static ShotConditions Shot(double resistivity = 5) =>
        ShotConditions.Of(Strong, ShippedPlans.EarlyPeak, 15, 32, 92, resistivity);

    [Fact] // Darcy: the length of the bed goes as dose over area, the flow as area: R goes as dose / area^2
    public void Resistance_follows_dose_and_basket()
    {
        var shot = Shot();
        var more = shot with { Bed = shot.Bed with { DoseGrams = 20 } };
        Assert.Equal(20.0 / 15, more.Puck.ResistanceBarSPerMl / shot.Puck.ResistanceBarSPerMl, 1e-9);
        var wide = shot with { Bed = shot.Bed with { Basket = shot.Bed.Basket with { DiameterMm = 58 } } };
        Assert.Equal(
            Math.Pow(shot.Bed.Basket.DiameterMm / 58, 4),
            wide.Puck.ResistanceBarSPerMl / shot.Puck.ResistanceBarSPerMl,
            1e-9
        );
        Assert.Equal(
            5,
            (shot with { Bed = shot.Bed with { DoseGrams = 15, Basket = shot.Bed.Basket with { DiameterMm = 51 } } })
                .Puck
                .ResistanceBarSPerMl,
            1e-9
        );
    }

    [Fact] // common practice: straight baskets flow faster than tapered ones; more coffee, a finer grind, colder water run slower
    public void The_shot_follows_too()
    {
        var shot = Shot();
        double Seconds(ShotConditions s) => SimulatedShot.Pull(s).Seconds;
        var usual = Seconds(shot);
        Assert.True(
            Seconds(shot with { Bed = shot.Bed with { Basket = shot.Bed.Basket with { Shape = BasketShape.Tapered } } }) > usual
        );
        Assert.True(Seconds(shot with { Bed = shot.Bed with { DoseGrams = 17 } }) > usual);
        Assert.True(Seconds(shot with { Bed = shot.Bed with { Resistivity = 6 } }) > usual);
        Assert.True(Seconds(shot with { Water = shot.Water.Shifted(-8) }) > usual);
        Assert.True(Seconds(shot with { YieldGrams = 26 }) < usual);
    }

    [Fact] // common practice: what is stirred, tapped and tamped the same runs more evenly
    public void A_rough_preparation_widens_the_lanes()
    {
        var rough = new Preparation();
        var careful = new Preparation(Misted: true, Stirred: true, Tapped: true, TampKgf: 10, Cover: PuckCover.Screen);
        Assert.True(rough.LaneSpread() > Preparation.UsualLaneSpread && careful.LaneSpread() < Preparation.UsualLaneSpread);
        double Uneven(Preparation p) =>
            SimulatedShot.Pull(Shot() with { Bed = Shot().Bed with { Preparation = p } }).ExtractionSpread;
        Assert.True(Uneven(rough) > 1.3 * Uneven(careful));
    }

    [Fact] // the grind's number is the same whatever it is weighed into
    public void Resistivity_is_the_grinds_own() =>
        Gen.Select(Gen.Double[2, 12], Gen.Double[10, 22], Gen.Double[45, 60])
            .Sample(
                (resistivity, dose, diameter) =>
                {
                    var shot = Shot(resistivity) with { Bed = Shot(resistivity).Bed with { DoseGrams = dose } };
                    shot = shot with { Bed = shot.Bed with { Basket = shot.Bed.Basket with { DiameterMm = diameter } } };
                    var back = GrindResistivity.Of(Core.Traces.GrindResistance.Of(shot.Puck), dose, shot.Bed.Basket);
                    return Math.Abs((back / GrindResistivity.Of(shot)) - 1) < 1e-9
                        && Math.Abs(
                            (GrindResistivity.With(shot, back).Bed.ResistanceBarSPerMl / shot.Bed.ResistanceBarSPerMl) - 1
                        ) < 1e-9;
                }
            );

    [Fact] // water that cools on its way is thicker and takes less out: between a hot and a cold shot
    public void The_waters_course_counts_and_not_its_mean_alone()
    {
        double Seconds(WaterCourse water) => SimulatedShot.Pull(Shot() with { Water = water }).Seconds;
        var cooling = Seconds(new([new(0, 95), new(20, 85), new(40, 80)]));
        Assert.InRange(cooling, Seconds(WaterCourse.Steady(95)), Seconds(WaterCourse.Steady(80)));
        Assert.NotEqual(cooling, Seconds(new([new(0, 80), new(20, 85), new(40, 95)])));
        Assert.Equal(90, new WaterCourse([new(0, 95), new(20, 85)]).At(10), 1e-9);
    }

    [Fact] // at the puck water never boils: more is an error and is not cut off
    public void Water_above_boiling_is_refused() =>
        Assert.Equal(
            "waterC",
            Assert
                .Throws<FieldRangeException>(() => SimulatedShot.Pull(Shot() with { Water = new([new(0, 95), new(5, 104)]) }))
                .Range.Field
        );

    [Theory] // one water balance: the largest cup of the sheet is what is pulled until the chamber is empty
    [InlineData(MachineFamily.PortableLever, 15)]
    [InlineData(MachineFamily.HeatedGroup, 18)]
    [InlineData(MachineFamily.TwinArmChamber, 16)]
    [InlineData(MachineFamily.SteppedLever, 18)]
    public void The_largest_cup_of_sheet_and_simulation_agree(MachineFamily family, double dose)
    {
        var machine = FamilyDefaults.Of(family).Machine with { WillingForceKgf = 60 };
        var plan = machine.PressureBy == PressureBy.Strokes ? ShippedPlans.Steps : ShippedPlans.FlatAndFirm;
        var sheet = CupVolumes.LargestYieldGrams(machine, dose, 92);
        var pulled = SimulatedShot.Pull(ShotConditions.Of(machine, plan, dose, 110, 92).WithResistance(4));
        Assert.False(pulled.ReachedYield);
        Assert.Equal(sheet, pulled.CupGrams, 0.5);
        // a spent puck, weighed, tells the same water: what stayed less what dissolved
        Assert.Equal(1.05, WaterBalance.WeighedPerGram(PuckBehaviour.Usual.WaterHeldPerGram), 1e-9);
    }

    [Fact] // a shot under its own recorded pressure is the same shot
    public void A_recorded_pressure_drives_the_same_shot()
    {
        var shot = Shot();
        var pulled = SimulatedShot.Pull(shot);
        var run = new ShotRun(shot);
        var drive = new RecordedDrive([.. pulled.Samples.Select(s => (s.Seconds, s.PressureBar))]);
        while (run.Seconds < pulled.Seconds - 1e-9)
            run.Step(drive, ShotRun.UsualStepSeconds);
        Assert.Equal(pulled.CupGrams, run.Stream.LeftPuckGrams, 0.35);
        Assert.Equal(run.Stream.LeftPuckGrams, run.Copy().Stream.LeftPuckGrams);
    }

    [Fact] // a lever whose ratio falls over the stroke gives less pressure at its end for the same hand
    public void A_ratio_that_changes_over_the_stroke_counts_in_the_run()
    {
        var falling = Strong with { WillingForceKgf = 15, LeverRatioTable = [new(0, 12), new(1, 5)] };
        var run = SimulatedShot.Pull(ShotConditions.Of(falling, ShippedPlans.FlatAndFirm, 15, 32, 92, 4));
        var early = run.Samples.First(s => s.MovedMl > 5).MostBar;
        Assert.True(run.Samples[^1].MostBar < 0.85 * early);
    }
}
