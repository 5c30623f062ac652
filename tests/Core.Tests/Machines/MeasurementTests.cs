using RuddySpring.Core.Machines;

namespace RuddySpring.Core.Tests.Machines;

public sealed class MeasurementTests
{
    private static readonly DateOnly Today = new(2030, 5, 1);
    private static readonly Machine Portable = FamilyDefaults.Of(MachineFamily.PortableLever).Machine;
    private static readonly Machine SpringLever = FamilyDefaults.Of(MachineFamily.BoilerSpring).Machine;

    [Fact] // worked example: a 45 mm piston at 9 bar with r = 8.1 needs 18 kgf at the handle
    public void Weighing_the_handle_gives_the_ratio_of_the_worked_example()
    {
        var measured = LeverWeighing.Fit(Portable, [new(6.005, 3), new(12.01, 6), new(18.015, 9)], Today);
        Assert.Equal(8.1, measured.Changed.LeverRatio, 0.05);
        Assert.Equal(0, measured.Changed.FrictionNewtons, 3.0);
        Assert.Equal(18.0, Lever.HandForceKgf(measured.Changed, 9), 0.1);
        Assert.Equal(3, measured.Points.Count);
        Assert.Contains("{9 bar} takes {18.0 kgf}", measured.Sentence, StringComparison.Ordinal);
    }

    [Fact]
    public void Noisy_weighings_of_a_stiff_lever_cover_the_truth()
    {
        var random = new SeededRandom(5);
        var truth = Portable with { LeverRatio = 9.2, FrictionNewtons = 60 };
        var covered = 0;
        const int runs = 200;
        for (var n = 0; n < runs; n++)
        {
            var rows = Enumerable
                .Range(2, 6)
                .Select(bar => new HandleReading(Lever.HandForceKgf(truth, bar) + random.Normal(0.2), bar))
                .ToArray();
            var ratio = LeverWeighing.Fit(Portable, rows, Today).Changes[0];
            if (Math.Abs(ratio.Value - 9.2) <= ratio.PlusMinus)
                covered++;
        }

        Assert.InRange(covered / (double)runs, 0.9, 1.0);
    }

    [Fact] // a linkage whose ratio grows over its stroke is told from readings at both ends
    public void Weighing_the_handle_over_the_stroke_gives_a_table()
    {
        var truth = Portable with { LeverRatioTable = [new(0, 6), new(1, 11)], FrictionNewtons = 40 };
        var rows = (
            from share in new[] { 0.1, 0.5, 0.9 }
            from bar in new[] { 3.0, 8 }
            select new HandleReading(Lever.HandForceKgf(truth, bar, share), bar, share)
        ).ToArray();
        var measured = LeverWeighing.Fit(Portable, rows, Today).Changed;
        Assert.Equal(6, Lever.RatioAt(measured, 0), 1e-6);
        Assert.Equal(11, Lever.RatioAt(measured, 1), 1e-6);
        Assert.Equal(40, measured.FrictionNewtons, 1e-6);
        Assert.Equal(
            "strokeShare",
            Assert.Throws<FieldRangeException>(() => LeverWeighing.Fit(Portable, [new(6, 3, 2), new(9, 5, 0)], Today)).Range.Field
        );
    }

    [Fact]
    public void A_lever_that_seems_to_help_is_taken_to_have_no_friction()
    {
        var measured = LeverWeighing.Fit(Portable, [new(5, 3), new(11.5, 6), new(18, 9)], Today);
        Assert.Equal(0, measured.Changed.FrictionNewtons);
    }

    [Fact] // 60 ml at 95 degC weighs 57.7 g
    public void Weighing_the_water_gives_volume_and_dead_water()
    {
        var measured = WaterWeighing.Stroke(Portable, [new(57.7, 52.6, 95), new(57.9, 53.0, 95), new(57.5, 52.4, 95)], Today);
        Assert.Equal(60.0, measured.Changed.ChamberMl, 0.1);
        Assert.Equal(5.03, measured.Changed.DeadWaterGrams, 0.05);
        Assert.NotNull(measured.Changes[0].PlusMinus);
        var once = WaterWeighing.Stroke(SpringLever, [new(null, 34.8, 60)], Today);
        Assert.Single(once.Changes);
        Assert.Null(once.Changes[0].PlusMinus);
        Assert.Contains("One stroke moves", once.Sentence, StringComparison.Ordinal);
    }

    [Fact] // common practice: a puck keeps about its own weight in water
    public void Weighing_pucks_gives_retention()
    {
        var measured = WaterWeighing.Puck(Portable, [new(15, 30.9), new(15, 31.2), new(16, 32.5)], Today);
        Assert.Equal(1.057, measured.Changed.RetentionPerGram, 0.01);
        Assert.Equal("weighing spent pucks", measured.Changed.Measured.Single().Way);
        Assert.Equal(Today, measured.Changed.Measured.Single().On);
    }

    [Fact] // Hooke's law over a piston: a straight line against volume
    public void A_free_spring_gives_its_line_and_the_area_is_work()
    {
        var rows = new[] { 2.0, 10, 20, 30 }.Select(v => new SpringReading(v, 10.0 - (0.1 * v))).ToArray();
        var measured = PressureRuns.Spring(SpringLever, rows, Today);
        Assert.Equal(10.0, measured.Changed.SpringTopBar!.Value, 1e-6);
        Assert.Equal(10.0 - (0.1 * SpringLever.ChamberMl), measured.Changed.SpringEndBar!.Value, 1e-6);
        // mean pressure times volume, 1 bar ml = 0.1 J
        Assert.Equal(
            (10.0 + measured.Changed.SpringEndBar.Value) / 2 * SpringLever.ChamberMl * 0.1,
            Spring.WorkJ(measured.Changed)!.Value,
            1e-6
        );
        Assert.Throws<DoesNotFitException>(() => PressureRuns.Spring(Portable, rows, Today));
        Assert.Throws<DoesNotFitException>(() => PressureRuns.Spring(SpringLever, [new(0, 5), new(30, 8)], Today));
    }

    [Fact] // p = p_0 exp(-a t)
    public void A_leaking_seal_is_told()
    {
        var measured = PressureRuns.Seal(
            Portable,
            [.. Enumerable.Range(0, 6).Select(i => new HoldReading(i * 5, 6 * Math.Exp(-0.02 * i * 5)))],
            Today
        );
        Assert.Equal(0.02, measured.Changed.SealLeakPerSecond, 1e-6);
        Assert.Contains("leaking", measured.Sentence, StringComparison.Ordinal);
        Assert.Contains(
            "tight",
            PressureRuns.Seal(Portable, [new(0, 6), new(20, 6), new(40, 5.99)], Today).Sentence,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void Numbers_say_where_they_come_from()
    {
        var measured = LeverWeighing.Fit(Portable, [new(6, 3), new(12.2, 6), new(18, 9)], Today).Changed with { ChamberMl = 58 };
        var numbers = MachineNumbers.Of(measured).ToDictionary(n => n.Field);
        Assert.Equal(NumberOrigin.Measured, numbers["leverRatio"].Origin);
        Assert.Equal(NumberOrigin.Owner, numbers["chamberMl"].Origin);
        Assert.Equal(NumberOrigin.Family, numbers["pistonDiameterMm"].Origin);
        Assert.False(numbers.ContainsKey("springTopBar"));
        Assert.Equal(
            NumberOrigin.Owner,
            MachineNumbers.Of(measured with { LeverRatio = 9 }).Single(n => n.Field == "leverRatio").Origin
        );
    }

    [Theory]
    [InlineData(0.1, 3, "handKgf")]
    [InlineData(8, 40, "pressureBar")]
    public void Wrong_rows_are_named(double hand, double bar, string field) =>
        Assert.Equal(
            field,
            Assert.Throws<FieldRangeException>(() => LeverWeighing.Fit(Portable, [new(hand, bar), new(9, 5)], Today)).Range.Field
        );

    [Fact]
    public void More_cannot_come_out_than_went_in()
    {
        Assert.Equal(
            "caughtGrams",
            Assert.Throws<DoesNotFitException>(() => WaterWeighing.Stroke(Portable, [new(50, 60, 90)], Today)).Field
        );
        Assert.Throws<DoesNotFitException>(() => WaterWeighing.Puck(Portable, [], Today));
    }

    [Fact] // Boyle's law: 10 ml of air at 1 bar squeezed to 10 bar absolute leaves 1 ml
    public void Trapped_air_makes_a_soft_lever()
    {
        Assert.Equal(9.0, Compliance.LostMl(10, 9, 1), 1e-12);
        Assert.Equal(10.0 / 100, Compliance.MlPerBar(10, 9, 1), 1e-12);
        // the slope of Boyle's curve by a small difference
        var slope = (Compliance.LostMl(5, 4.0001, 1.013) - Compliance.LostMl(5, 3.9999, 1.013)) / 0.0002;
        Assert.Equal(slope, Compliance.MlPerBar(5, 4, 1.013), 1e-6);
    }

    [Fact] // 35 ml on a 50 mm piston is 17.8 mm of stroke
    public void A_section_is_drawn_from_the_numbers()
    {
        var cut = Cutaway.Of(
            FamilyDefaults.Of(MachineFamily.BoilerDirect).Machine with
            {
                PistonDiameterMm = 50,
                ChamberMl = 35,
            },
            14
        );
        Assert.Equal(17.8, cut.StrokeMm, 0.05);
        Assert.InRange(cut.PuckMm, 10, 20);
        Assert.InRange(cut.BoilerFilledShare, 0.7, 0.95);
        foreach (var start in FamilyWords.StartingPoints)
        {
            var section = Cutaway.Of(start.Defaults.Checked(), start.DoseGrams);
            Assert.True(section.StrokeMm > 5 && section.PuckMm > 5 && section.BasketDepthMm > section.PuckMm);
        }
    }

    [Fact]
    public void A_ratio_over_the_stroke_is_straight_between_its_points()
    {
        var machine = Portable with { LeverRatioTable = [new(0, 6), new(0.5, 8), new(1, 12)] };
        Assert.Equal(7, Lever.RatioAt(machine, 0.25), 1e-12);
        Assert.Equal(12, Lever.RatioAt(machine, 2), 1e-12);
        Assert.True(Lever.HandForceKgf(machine, 9, 0) > Lever.HandForceKgf(machine, 9, 1));
        Assert.Equal(6.0, Lever.PressureBar(machine, Lever.HandForceKgf(machine, 6, 0.3), 0.3), 1e-9);
    }
}
