using RuddySpring.Core.Shots;
using RuddySpring.Core.Traces;

namespace RuddySpring.Core.Reasoning;

/// <summary>A point of the resistance that was to be expected.</summary>
/// <param name="Grams">In the cup.</param>
/// <param name="LowBarSPerMl">One in ten lies below.</param>
/// <param name="MiddleBarSPerMl">The middle.</param>
/// <param name="HighBarSPerMl">One in ten lies above.</param>
public sealed record ExpectedPoint(double Grams, double LowBarSPerMl, double MiddleBarSPerMl, double HighBarSPerMl);

/// <summary>
/// What this grind, at its setting, age and dose, was to be expected to resist under the pressure that was recorded: eight in
/// ten, from the shots before it. Judged like this the arm is not taken for the grind.
/// </summary>
public static class ExpectedResistance
{
    private const double EightInTen = 1.2816; // standard deviations, of a normal distribution
    private const double LeastFlow = 0.15;

    /// <summary>Against grams in the cup, at the same times as the measured course; empty where nothing was expected.</summary>
    /// <param name="shot">The shot.</param>
    /// <param name="measured">Its own course (<see cref="ResistanceCourse"/>).</param>
    public static IReadOnlyList<ExpectedPoint> Of(ShotFacts shot, IReadOnlyList<ResistancePoint> measured)
    {
        if (shot.Restricted || shot.Expected is not { } expected || shot.Reading is not { } reading || measured.Count == 0)
            return [];
        var (clean, _) = reading.SinceLever;
        var spread = EightInTen * FromTheGrind.Spread(expected);
        double[] factors = [Math.Exp(-spread), 1, Math.Exp(spread)];
        var courses = factors.Select(f => Played(shot, expected.Median * f, clean)).ToArray();
        var mlPerGram = MeasureShot.WaterMlPerGram(shot.Sheet.Water.StartC());
        return
        [
            .. measured
                .Select(p => (p.Grams, At: (int)Math.Round(p.Seconds / clean.StepSeconds)))
                .Where(p => p.At < clean.PressureBar.Length && courses.All(c => c[p.At] > LeastFlow))
                .Select(p =>
                {
                    var r = courses.Select(c => clean.PressureBar[p.At] / (c[p.At] * mlPerGram)).ToArray();
                    return new ExpectedPoint(p.Grams, r[0], r[1], r[2]);
                }),
        ];
    }

    private static double[] Played(ShotFacts shot, double resistivity, CleanTrace clean)
    {
        var run = new ShotRun(GrindResistivity.With(shot.Sheet, resistivity));
        var leaves = new double[clean.PressureBar.Length];
        for (var i = 0; i < leaves.Length; i++)
        {
            run.Press(Math.Max(0, clean.PressureBar[i]), clean.StepSeconds);
            leaves[i] = run.LeavesGramsPerS;
        }

        return leaves;
    }
}
