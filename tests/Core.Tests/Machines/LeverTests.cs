using CsCheck;
using RuddySpring.Core.Machines;

namespace RuddySpring.Core.Tests.Machines;

public sealed class LeverTests
{
    private static Machine Portable => FamilyDefaults.Of(MachineFamily.PortableLever).Machine;

    [Fact] // Pascal's law by hand: 9e5 Pa on pi/4 (0.049 m)^2
    public void Nine_bar_on_49_mm_is_1697_N() => Assert.Equal(1697, Lever.PistonForceNewtons(9, 49), 0.5);

    [Fact] // the same in kilograms-force, 1 kgf = 9.80665 N (NIST SP 811)
    public void Nine_bar_on_49_mm_is_173_kgf() =>
        Assert.Equal(173.1, Lever.PistonForceNewtons(9, 49) / Units.NewtonsPerKgf, 0.05);

    [Fact] // statics of a lever: 45 mm piston, ratio 8.1
    public void Nine_bar_through_a_ratio_of_8_1_needs_18_kgf() =>
        Assert.Equal(18.0, Lever.HandForceKgf(Portable with { PistonDiameterMm = 45, LeverRatio = 8.1 }, 9), 0.05);

    [Fact] // geometry: 35 ml over the area of a 50 mm circle
    public void Stroke_follows_from_the_volume() => Assert.Equal(17.83, Lever.TravelMm(35, 50), 0.01);

    [Fact]
    public void Force_and_pressure_are_inverse_for_every_machine() =>
        Gen.Select(Gen.Double[20, 60], Gen.Double[2, 20], Gen.Double[0.4, 1], Gen.Double[0, 200], Gen.Double[0.1, 14])
            .Sample(
                (piston, ratio, efficiency, friction, bar) =>
                {
                    var machine = Portable with
                    {
                        PistonDiameterMm = piston,
                        LeverRatio = ratio,
                        Efficiency = efficiency,
                        FrictionNewtons = friction,
                    };
                    return Math.Abs(Lever.PressureBar(machine, Lever.HandForceKgf(machine, bar)) - bar) < 1e-9;
                }
            );

    [Fact]
    public void Friction_can_eat_the_whole_force() =>
        Assert.Equal(0.0, Lever.PressureBar(Portable with { FrictionNewtons = 400 }, 2));

    [Fact]
    public void A_free_spring_falls_on_a_straight_line_to_its_end()
    {
        var spring = FamilyDefaults.Of(MachineFamily.BoilerSpring).Machine;
        var top = Spring.PressureBar(spring, 0)!.Value;
        var middle = Spring.PressureBar(spring, spring.ChamberMl / 2)!.Value;
        Assert.Equal(spring.SpringTopBar!.Value, top, 1e-12);
        Assert.Equal((top + spring.SpringEndBar!.Value) / 2, middle, 1e-12);
        Assert.Equal(0.0, Spring.PressureBar(spring, spring.ChamberMl + 1));
        Assert.Null(Spring.PressureBar(Portable, 0));
    }

    [Fact]
    public void Every_family_has_defaults_that_pass_its_own_checks()
    {
        foreach (var family in Enum.GetValues<MachineFamily>())
        {
            var (machine, dose, yield) = FamilyDefaults.Of(family);
            Assert.Equal(family, machine.Checked().Family);
            Assert.InRange(yield / dose, 1.8, 2.5);
        }
    }

    [Fact] // common practice: 15 to 20 kgf on a portable's handle for 6 to 9 bar, 40 kgf at most on both arms of a press
    public void Default_ratios_give_the_forces_people_report()
    {
        Assert.InRange(Lever.HandForceKgf(Portable, 8), 13, 20);
        Assert.InRange(Lever.HandForceKgf(FamilyDefaults.Of(MachineFamily.BoilerDirect).Machine, 8), 12, 20);
        Assert.InRange(Lever.HandForceKgf(FamilyDefaults.Of(MachineFamily.TwinArmBasket).Machine, 8), 15, 40);
    }

    [Theory]
    [InlineData("pistonDiameterMm")]
    [InlineData("chamberMl")]
    [InlineData("leverRatio")]
    public void A_number_out_of_range_is_named(string field)
    {
        var machine = field switch
        {
            "pistonDiameterMm" => Portable with { PistonDiameterMm = -1 },
            "chamberMl" => Portable with { ChamberMl = 5000 },
            _ => Portable with { LeverRatio = 0 },
        };
        Assert.Equal(field, Assert.Throws<FieldRangeException>(machine.Checked).Range.Field);
    }

    [Fact]
    public void A_spring_that_pushes_harder_at_its_end_is_refused() =>
        Assert.Equal(
            "springEndBar",
            Assert
                .Throws<DoesNotFitException>(() =>
                    (FamilyDefaults.Of(MachineFamily.BoilerSpring).Machine with { SpringEndBar = 11 }).Checked()
                )
                .Field
        );
}
