using RuddySpring.Core.Shots;
using RuddySpring.Core.Traces;

namespace RuddySpring.Core.Reasoning;

/// <summary>A number of a puck that was read back.</summary>
/// <param name="Name">Which.</param>
/// <param name="Unit">Of it; empty for a share.</param>
/// <param name="Value">Best value.</param>
/// <param name="Low">Lower end of nine in ten.</param>
/// <param name="High">Upper end.</param>
/// <param name="Told">Whether the trace told it at all.</param>
public sealed record PuckNumber(string Name, string Unit, double Value, double Low, double High, bool Told);

/// <summary>A shot's puck as it was read back from its trace.</summary>
/// <param name="Numbers">With their intervals.</param>
/// <param name="MisfitGrams">What is left between scale and fit, one standard deviation, g.</param>
/// <param name="CannotTell">What this trace cannot tell, in words.</param>
/// <param name="Cup">The fitted cup, g, at the steps of the trace.</param>
public sealed record ReadPuck(
    IReadOnlyList<PuckNumber> Numbers,
    double MisfitGrams,
    IReadOnlyList<string> CannotTell,
    IReadOnlyList<double> Cup
)
{
    private const double NineInTen = 1.645;
    private const double ToldBelow = 0.8;
    private const double UnknownGrind = 0.4;
    private const double LeastGrindSd = 0.15;

    /// <summary>What was believed of a shot's puck before it was pulled.</summary>
    public static PuckBelief Before(ShotFacts shot) =>
        PuckBelief.Before(
            shot.Expected is { } expected ? GrindResistivity.With(shot.Sheet, expected.Median)
                : FromTheGrind.Resistivity(shot) is { } told ? GrindResistivity.With(shot.Sheet, told)
                : shot.Sheet,
            Math.Max(LeastGrindSd, shot.Expected?.Scale ?? UnknownGrind)
        );

    /// <summary>Reads the puck of a shot back; null where gauge or scale did not tell it.</summary>
    public static PuckReadBack? Back(ShotFacts shot, Trace trace) =>
        shot.Reading is { } reading && !shot.Restricted
            ? PuckReadBack.Of(Before(shot), trace, reading, PuckReadBack.ForItsResistance)
            : null;

    /// <summary>With its intervals and its curve.</summary>
    public static ReadPuck? Of(ShotFacts shot, Trace trace)
    {
        if (Back(shot, trace) is not { } read)
            return null;
        var before = Before(shot);
        var (clean, _) = shot.Reading!.SinceLever;
        var run = new ShotRun(read.After.Middle);
        var cup = new double[clean.Seconds.Length];
        for (var i = 0; i < cup.Length; i++)
        {
            cup[i] = Math.Round(run.Stream.ShownGrams, 2);
            run.Press(Math.Max(0, clean.PressureBar[i]), clean.StepSeconds);
        }

        return new(
            [
                .. PuckUnknown.All.Select(u =>
                {
                    var (value, fitted) = (u.Get(read.After.Middle), read.After.Sd(u));
                    var ways = u == PuckUnknown.Resistance ? PuckDraws.OwnWaysSd : 0;
                    var sd = Math.Sqrt((fitted * fitted) + (ways * ways));
                    return new PuckNumber(
                        u.Name,
                        u.Unit,
                        value,
                        value * Math.Exp(-NineInTen * sd),
                        value * Math.Exp(NineInTen * sd),
                        fitted < ToldBelow * before.Sd(u)
                    );
                }),
            ],
            read.Misfit,
            read.CannotTell,
            cup
        );
    }
}
