namespace RuddySpring.Core.Reasoning.Causes;

/// <summary>A bed too tight for the plan runs too slow; so tight that it chokes, hardly at all.</summary>
public sealed class GrindTooFine : GrindOff
{
    public override string Key => "grind-fine";

    public override string Name => "The grind is too fine";

    protected override int Way => 1;

    public override string? Caution => "Never force a lever that will not move: stop, release, and grind coarser.";
}
