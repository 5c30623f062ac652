using CsCheck;

namespace RuddySpring.Core.Tests;

/// <summary>What is out of range is said with the field's name and its range, in every language the machine may speak.</summary>
public sealed class FieldRangeTests
{
    private static readonly FieldRange Dose = new("doseGrams", "Dose", 5, 30, "g");

    [Fact]
    public void What_lies_inside_is_given_back() => Gen.Double[5, 30].Sample(v => Dose.Check(v) == v);

    [Theory]
    [InlineData(4.999)]
    [InlineData(30.001)]
    [InlineData(-1)]
    [InlineData(double.NaN)]
    [InlineData(double.PositiveInfinity)]
    [InlineData(double.NegativeInfinity)]
    public void What_does_not_names_field_and_range(double value)
    {
        var error = Assert.Throws<FieldRangeException>(() => Dose.Check(value));
        Assert.Same(Dose, error.Range);
        Assert.Equal("doseGrams", error.ParamName);
        Assert.StartsWith("Dose", error.Sentence);
        Assert.Contains("between 5 and 30 g", error.Sentence);
    }

    [Fact]
    public void The_sentence_has_the_value_that_was_typed()
    {
        Assert.Equal(
            "Dose is 31.5 g; it must lie between 5 and 30 g.",
            Assert.Throws<FieldRangeException>(() => Dose.Check(31.5)).Sentence
        );
        Assert.Equal("Dose must be a number between 5 and 30 g.", Dose.Sentence(double.NaN));
        // a number without a unit leaves no gap
        Assert.Equal("Cups is 9; it must lie between 3 and 6.", new FieldRange("cups", "Cups", 3, 6, "").Sentence(9));
    }
}
