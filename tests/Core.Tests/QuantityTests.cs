namespace RuddySpring.Core.Tests;

public sealed class QuantityTests
{
    [Fact]
    public void A_quantity_marks_itself_in_a_sentence_and_is_said_plainly_to_programs()
    {
        var sentence =
            $"From {Quantity.Bar(2) with { Bare = true }:0} to {Quantity.Bar(3.2):0.0}, {Quantity.Celsius(-4):0}, "
            + $"{Quantity.Kgf(18):0.0}, worth {Quantity.Kelvin(5):0}.";
        Assert.Equal("From {2 bar!} to {3.2 bar}, {-4 degC}, {18.0 kgf}, worth {5 K}.", sentence);
        Assert.Equal("From 2 to 3.2 bar, -4 degC, 18.0 kgf, worth 5 K.", Quantity.Plain(sentence));
    }

    [Fact]
    public void Braces_that_are_no_quantity_stay() => Assert.Equal("{bar} {3} {4 stone}", Quantity.Plain("{bar} {3} {4 stone}"));

    [Fact]
    public void A_range_names_field_value_and_ends()
    {
        Assert.Equal(
            "Tamp is 99 kgf; it must lie between 0 and 40 kgf.",
            Quantity.Plain(Core.Puck.Preparation.Tamp.Sentence(99))
        );
        Assert.Equal("Dose is 2 g; it must lie between 5 and 40 g.", new FieldRange("doseGrams", "Dose", 5, 40, "g").Sentence(2));
    }
}
