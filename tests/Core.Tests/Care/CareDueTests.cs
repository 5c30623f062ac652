using RuddySpring.Core.Care;
using RuddySpring.Core.Machines;

namespace RuddySpring.Core.Tests.Care;

/// <summary>When something is due, what belongs to which machine, and when water asks for descaling.</summary>
public sealed class CareDueTests
{
    private static readonly DateOnly Today = new(2026, 11, 28);

    private static List<DayOfUse> Use(int days, int shotsADay, double litresADay) =>
        [.. Enumerable.Range(0, days).Select(back => new DayOfUse(Today.AddDays(-back), shotsADay, litresADay))];

    [Fact]
    public void WhatIsUsedUpFirstMakesItDue()
    {
        var due = CareDue.Of(new(Shots: 40, Days: 60), Today.AddDays(-10), Use(30, 3, 0.2), Today);
        Assert.Equal(30, due.Shots); // ten days of three, the day itself not counted
        Assert.Equal(CareState.Soon, due.State);
        Assert.Equal("30 of 40 shots", due.By);
        Assert.Equal(Today.AddDays(4), due.On); // ten more at three a day
        Assert.Equal(CareState.Due, CareDue.Of(new(Shots: 40), Today.AddDays(-14), Use(30, 3, 0.2), Today).State);
        Assert.Equal(CareState.Overdue, CareDue.Of(new(Shots: 40), Today.AddDays(-20), Use(30, 3, 0.2), Today).State);
        var byDays = CareDue.Of(new(Shots: 4000, Days: 30), Today.AddDays(-31), Use(30, 3, 0.2), Today);
        Assert.Equal((CareState.Due, "31 of 30 days"), (byDays.State, byDays.By));
        Assert.True(byDays.On <= Today);
    }

    [Fact]
    public void WhatCameAfterTheDayThatIsAskedAboutDoesNotCount()
    {
        var before = CareDue.Of(new(Shots: 40), Today.AddDays(-25), Use(30, 3, 0.2), Today.AddDays(-15));
        Assert.Equal(30, before.Shots); // of the ten days between, not of the fifteen that followed
        Assert.Equal(CareState.Soon, before.State);
    }

    [Fact]
    public void AMachineThatRestsIsDueByDaysAlone()
    {
        var due = CareDue.Of(new(Shots: 40, Litres: 10, Days: 60), Today.AddDays(-5), [], Today);
        Assert.Equal((CareState.Fine, 0, 5), (due.State, due.Shots, due.Days));
        Assert.Equal(Today.AddDays(55), due.On);
        // nothing is ever due in the year 12 000
        Assert.Equal(Today.AddDays(3650), CareDue.Of(new(Shots: 20_000), Today, [], Today).On);
    }

    [Fact]
    public void MoreUseIsNeverDueLater()
    {
        for (var shots = 0; shots < 12; shots++)
        {
            var (less, more) = (
                CareDue.Of(new(Shots: 100, Litres: 9, Days: 90), Today.AddDays(-20), Use(40, shots, shots * 0.06), Today),
                CareDue.Of(
                    new(Shots: 100, Litres: 9, Days: 90),
                    Today.AddDays(-20),
                    Use(40, shots + 1, (shots + 1) * 0.06),
                    Today
                )
            );
            Assert.True(more.Share >= less.Share && more.On <= less.On, $"{shots} shots a day: {less.On} then {more.On}");
        }
    }

    [Fact]
    public void EveryFamilyHasWhatItNeedsAndNothingElse()
    {
        foreach (var family in Enum.GetValues<MachineFamily>())
        {
            var machine = FamilyDefaults.Of(family).Machine;
            var keys = CareList.For(machine, Descaling.UsualHardness).Select(t => t.Key).ToList();
            Assert.Equal(keys.Count, keys.Distinct().Count());
            Assert.All(keys, k => Assert.True(CareList.IsKey(k)));
            Assert.Contains(CareList.Rinse, keys);
            Assert.Equal(machine.HasBoiler, keys.Contains(CareList.Boiler));
            Assert.Equal(machine.HasBoiler, keys.Contains("wand"));
            Assert.Equal(machine.PressureBy == PressureBy.Spring, keys.Contains(CareList.SpringService));
            Assert.Equal(machine.RestrictorBarS2PerMl2 > 0, keys.Contains(CareList.Restrictor));
            var restricted = CareList.For(machine with { RestrictorBarS2PerMl2 = 4 }, 0);
            Assert.Contains(restricted, t => t.Key == CareList.Restrictor);
        }
    }

    [Fact]
    public void WhatCanHurtIsSaidWhereItIsDone()
    {
        var spring = CareList.For(FamilyDefaults.Of(MachineFamily.BoilerSpring).Machine, 150).ToDictionary(t => t.Key);
        Assert.Contains("licensed technician", spring[CareList.Boiler].Caution, StringComparison.Ordinal);
        Assert.Contains("licensed technician", spring[CareList.SpringService].Caution, StringComparison.Ordinal);
        Assert.Contains("filler cap", spring[CareList.Descale].Caution, StringComparison.Ordinal);
        Assert.Contains("Steam burns", spring["wand"].Caution, StringComparison.Ordinal);
        Assert.All(spring.Values, t => t.Usual.Checked());
    }

    /// <summary>100 mg of CaO are 1.783 mmol, and as many mmol of CaCO3 weigh 178.5 mg (atomic weights of IUPAC): what ten litres
    /// at ten German degrees (DIN 38409-6: 10 mg/l of CaO each) leave when they boil is 1.785 g.</summary>
    [Fact]
    public void ScaleOfTenLitresAtTenDegreesIsTheTextbooks()
    {
        const double calcium = 40.078,
            oxygen = 15.999,
            carbon = 12.011;
        var perDegree = 10 * (calcium + carbon + (3 * oxygen)) / (calcium + oxygen);
        Assert.InRange(Descaling.MgPerLitreOfDegree, perDegree - 0.01, perDegree + 0.01);
        Assert.Equal(1.785, Descaling.ScaleGrams(10, 10 * Descaling.MgPerLitreOfDegree), 3);
    }

    /// <summary>Common practice: a boiler on soft water about every two years, on hard water every few months.</summary>
    [Fact]
    public void HardWaterAsksForDescalingWithinMonthsAndSoftWaterDoesNot()
    {
        var dipper = FamilyDefaults.Of(MachineFamily.BoilerDirect).Machine;
        int DaysAt(double hardness)
        {
            var interval = CareList.For(dipper, hardness).Single(t => t.Key == CareList.Descale).Usual;
            return CareDue.Of(interval, Today, Use(30, 3, 0.25), Today).On.DayNumber - Today.DayNumber;
        }

        Assert.InRange(DaysAt(320), 60, 150);
        Assert.InRange(DaysAt(150), 150, 300);
        Assert.InRange(DaysAt(30), 700, 730);
        Assert.Equal(730, DaysAt(0));
    }

    [Theory]
    [InlineData(0, null, null, "shots")]
    [InlineData(null, 0.1, null, "litres")]
    [InlineData(null, double.NaN, null, "litres")]
    [InlineData(null, null, 3651, "days")]
    public void AnIntervalOutOfRangeNamesItsField(int? shots, double? litres, int? days, string field) =>
        Assert.Equal(
            field,
            Assert.Throws<FieldRangeException>(() => new CareInterval(shots, litres, days).Checked()).Range.Field
        );

    [Fact]
    public void AnIntervalWithoutAnythingIsNone() => Assert.Throws<DoesNotFitException>(() => new CareInterval().Checked());
}
