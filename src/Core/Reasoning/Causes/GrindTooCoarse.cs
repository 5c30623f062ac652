namespace RuddySpring.Core.Reasoning.Causes;

/// <summary>A bed too open for the plan runs too fast; so open that it gushes, the lever falls away.</summary>
public sealed class GrindTooCoarse : GrindOff
{
    public override string Key => "grind-coarse";

    public override string Name => "The grind is too coarse";

    protected override int Way => -1;

    public override string? Caution => "A spring lever without resistance flies up: keep the hand on it and the face away.";
}
