using System.Globalization;

namespace RuddySpring.Core.Reasoning.Causes;

/// <summary>
/// The grind is off, one way or the other: by its setting, which made one expect it; by more than its setting says, as with a new
/// lot, another weather or a slipped collar; or wholly.
/// </summary>
public abstract class GrindOff : Cause
{
    private const double MostSteps = 8;

    /// <summary>1 for too fine, -1 for too coarse.</summary>
    protected abstract int Way { get; }

    public override WorkingOrder Order => WorkingOrder.Grind;

    public override Sign? Proof => Sign.Resistance;

    public override double Odds(ShotFacts shot) => shot.Restricted ? 0 : 0.12;

    public override IReadOnlyList<CauseCase> Cases(ShotFacts shot)
    {
        Shift[] Tastes(double much) =>
            [
                new(Sign.Sour, -0.5 * Way * much, 0.5),
                new(Sign.Bitter, 0.4 * Way * much, 0.5),
                new(Sign.Body, 0.3 * Way * much, 0.4),
                new(Sign.Strength, 0.15 * Way * much, 0.1),
                new(Sign.Sweet, -0.7 * much, 0.5),
                new(Sign.Flow, -0.4 * Way * much, 0.2),
            ];
        return
        [
            new(0.5, 0.32 * Way, [new(Sign.Time, 0.27 * Way, 0.12), new(Sign.Setting, 0.27 * Way, 0.1), .. Tastes(0.6)]),
            new(0.15, 0.9 * Way, [new(Sign.Time, 0.65 * Way, 0.25), new(Sign.Setting, 0.7 * Way, 0.25), .. Tastes(1.5)]),
            new(0.15, 0.25 * Way, [new(Sign.Time, 0.22 * Way, 0.1), new(Sign.Resistance, 0.25 * Way, 0.12), .. Tastes(0.5)]),
            new(0.2, 0.9 * Way, [new(Sign.Time, 0.65 * Way, 0.25), new(Sign.Resistance, 0.9 * Way, 0.35), .. Tastes(1.5)]),
        ];
    }

    public override NextChange Change(ShotFacts shot, double size)
    {
        var way = Way > 0 ? "coarser" : "finer";
        const string leave = "Leave the dose and the plan as they are.";
        var expect = shot.School.GrindExpects;
        if (shot.Grind is not { } grind || Math.Abs(grind.LogPerUnit) < 1e-6)
            return new($"Grind {way}, a step at a time.", leave, expect);
        if (FromTheGrind.OverWanted(shot) is { } over && Math.Sign(over) == Way)
            size = over;
        var steps = Math.Clamp(Math.Round(Math.Abs(size / grind.LogPerUnit) / grind.Steps.Step), 1, MostSteps);
        var setting = grind.Setting - (Math.Sign(size) * Math.Sign(grind.LogPerUnit) * steps * grind.Steps.Step);
        return new(
            string.Create(
                CultureInfo.InvariantCulture,
                $"Grind {steps:0} {(steps == 1 ? "step" : "steps")} {way}: {setting:0.##} {grind.Unit} instead of "
                    + $"{grind.Setting:0.##}."
            ),
            leave,
            expect,
            setting
        );
    }
}
