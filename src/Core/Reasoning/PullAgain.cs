using RuddySpring.Core.Dialing;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Shots;

namespace RuddySpring.Core.Reasoning;

/// <summary>
/// A puck that was read back, pulled another way: another plan, water, dose, yield, basket or grind. Draws of what is believed of
/// it are played, so the band is as wide as the trace left it.
/// </summary>
public static class PullAgain
{
    private const int Draws = 24;
    private const double Edge = 0.1;

    /// <summary>Pulls it again.</summary>
    /// <param name="read">What is believed of the puck.</param>
    /// <param name="next">The shot to pull; its grind is taken from the puck.</param>
    /// <param name="grindLog">Logarithm of the resistivity of the next grind over this one's.</param>
    /// <param name="random">For the draws.</param>
    public static ShotForecast Of(PuckBelief read, ShotConditions next, double grindLog, SeededRandom random)
    {
        SimulatedShot Pull(ShotConditions puck, double log)
        {
            var shot = next with
            {
                Bed = next.Bed with { Resistivity = puck.Bed.Resistivity * Math.Exp(log) },
                Behaviour = puck.Behaviour,
                Path = puck.Path,
            };
            return SimulatedShot.Pull(shot.WithResistance(PuckParameters.Resistance.Nearest(shot.Bed.ResistanceBarSPerMl)));
        }

        var pulled = PuckDraws
            .Of(read, Draws, random)
            .AsParallel()
            .AsOrdered()
            .Select(puck => Pull(puck, grindLog))
            .OrderBy(s => s.Seconds)
            .ToList();
        return new(
            pulled[(int)Math.Round(Edge * (Draws - 1))],
            Pull(read.Middle, grindLog),
            pulled[(int)Math.Round((1 - Edge) * (Draws - 1))]
        );
    }
}
