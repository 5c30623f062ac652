namespace RuddySpring.Core.Beans;

/// <summary>
/// How a grinder's setting goes with the resistance it makes: ln R = ln R_0 + b (setting - s_0). Permeability goes with the
/// square of particle size (Kozeny-Carman), and size goes near enough in proportion over the few steps espresso uses.
/// </summary>
/// <param name="ReferenceSetting">Setting s_0 on the grinder's own scale.</param>
/// <param name="LogResistancePerStep">b; negative where larger numbers grind coarser.</param>
public sealed record GrinderScale(double ReferenceSetting, double LogResistancePerStep)
{
    /// <summary>Resistance in bar s/ml at a setting, from the resistance at the reference setting.</summary>
    public double Resistance(double setting, double atReference) =>
        atReference * Math.Exp(LogResistancePerStep * (setting - ReferenceSetting));
}
