using CsCheck;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Shots;

namespace RuddySpring.Core.Tests.Shots;

/// <summary>Pressure stroke by stroke against the air in a chamber: dp/dt = (Q_piston - Q_puck) / C.</summary>
public sealed class StrokePressureTests
{
    private static Machine Of(MachineFamily family) => FamilyDefaults.Of(family).Machine;

    [Fact] // a shut outlet and no hand: the pressure stays; an open one: it falls by Q dt / C
    public void Between_strokes_the_puck_lets_the_pressure_fall()
    {
        var machine = Of(MachineFamily.HandPump);
        var drive = new StrokePressure(machine);
        Assert.Equal(4, drive.Next(0, 4, 0, 0.01), 1e-12);
        var fell = 4 - drive.Next(0, 4, 1.2, 0.01);
        Assert.Equal(1.2 * 0.01 / Compliance.OfChamber(machine, 4), fell, 1e-12);
    }

    [Fact]
    public void Pressure_is_never_below_none() =>
        Gen.Select(Gen.Double[0, 2], Gen.Double[0, 8])
            .Sample((bar, flow) => new StrokePressure(Of(MachineFamily.HandPump)).Next(0, bar, flow, 0.05) >= 0);

    [Theory]
    [InlineData(MachineFamily.HandPump)]
    [InlineData(MachineFamily.SteppedLever)]
    public void Strokes_bring_the_pressure_to_what_is_wanted_and_hold_it_about_there(MachineFamily family)
    {
        var drive = new StrokePressure(Of(family));
        double bar = 0,
            sum = 0;
        var count = 0;
        for (var t = 0.0; t < 40; t += 0.01)
        {
            bar = drive.Next(5, bar, 0.09 * bar, 0.01); // a puck that lets 0.45 ml/s through at 5 bar
            if (t < 20)
                continue;
            sum += bar;
            count++;
            Assert.InRange(bar, 0.5, 5.6);
        }

        Assert.InRange(sum / count, 2.5, 5.3);
    }

    [Fact] // common practice: a pump's stroke is short and has its way back, in which nothing is pushed
    public void A_pump_has_a_way_back_after_every_stroke()
    {
        var machine = Of(MachineFamily.HandPump);
        var drive = new StrokePressure(machine);
        double bar = 3,
            pushed = 0;
        var rests = 0;
        var resting = false;
        for (var t = 0.0; t < 10; t += 0.01)
        {
            var give = Compliance.OfChamber(machine, bar);
            var next = drive.Next(8, bar, 1.0, 0.01);
            var push = ((next - bar) * give / 0.01) + 1.0;
            pushed += Math.Max(0, push) * 0.01;
            if (push < 1e-6 && !resting)
                rests++;
            resting = push < 1e-6;
            bar = next;
        }

        Assert.InRange(rests, (pushed / Strokes.VolumeMl(machine)) - 1.5, (pushed / Strokes.VolumeMl(machine)) + 1.5);
        Assert.True(rests > 3);
    }

    [Fact] // Boyle: more air is a softer lever
    public void More_air_is_softer_and_pressure_makes_it_stiffer()
    {
        var machine = Of(MachineFamily.SteppedLever);
        Assert.True(
            Compliance.OfChamber(machine with { TrappedAirMl = 8 }, 3)
                > Compliance.OfChamber(machine with { TrappedAirMl = 4 }, 3)
        );
        Assert.True(
            Compliance.OfChamber(machine with { TrappedAirMl = 8 }, 6)
                < Compliance.OfChamber(machine with { TrappedAirMl = 8 }, 3)
        );
        Assert.True(Compliance.OfChamber(machine with { TrappedAirMl = 0 }, 12) > 0);
    }
}
