using System.Globalization;
using RuddySpring.Core.Machines;

namespace RuddySpring.Core.Pulls;

/// <summary>What ends a phase of a pull.</summary>
public enum PhaseEnding
{
    /// <summary>The first drops in the cup.</summary>
    FirstDrops,

    /// <summary>A number of seconds since the phase began.</summary>
    Seconds,

    /// <summary>A share of the yield in the cup, 0 to 1.</summary>
    YieldShare,

    /// <summary>A weight in the cup, g.</summary>
    Grams,

    /// <summary>The stream turns pale.</summary>
    Blonding,

    /// <summary>A number of strokes of the piston since the phase began: 0.5 is a half pull, on a pump or a stepped lever each
    /// stroke counts 1.</summary>
    Strokes,
}

/// <summary>What the hand does in a phase.</summary>
public enum PhaseMove
{
    /// <summary>Presses to a pressure.</summary>
    Press,

    /// <summary>Eases so that the flow stays as it is wanted, never above a pressure.</summary>
    HoldFlow,

    /// <summary>Lifts the lever of a boiler machine: the group fills at boiler pressure and the stroke begins again.</summary>
    Lift,

    /// <summary>Makes no pressure of its own.</summary>
    Rest,
}

/// <summary>
/// One phase: the pressure goes from where the last phase left it to <paramref name="ToBar"/>, over the phase itself where its
/// length is known, over <paramref name="LeadSeconds"/> where it ends on an event.
/// </summary>
/// <param name="Name">The trade's word: pre-infuse, ramp, peak, ease.</param>
/// <param name="ToBar">Pressure at the end, bar gauge, 0 to 12; the most that holding a flow may take.</param>
/// <param name="Ending">What ends it.</param>
/// <param name="EndsAt">Seconds, share of the yield, g or strokes; unused for first drops and blonding.</param>
/// <param name="LeadSeconds">Seconds to reach the pressure when the phase ends on an event, 0 to 60.</param>
/// <param name="AtMostSeconds">Longest the phase may last when its event does not come, 1 to 180.</param>
/// <param name="Cue">What to do, as an imperative without its ending; <see cref="OwnPressure"/> in it is the phase's
/// pressure.</param>
/// <param name="Move">What the hand does.</param>
/// <param name="FlowGramsPerS">Flow to hold, g/s, 0.2 to 6; unused otherwise.</param>
public sealed record PullPhase(
    string Name,
    double ToBar,
    PhaseEnding Ending,
    double EndsAt,
    double LeadSeconds,
    double AtMostSeconds,
    string Cue,
    PhaseMove Move = PhaseMove.Press,
    double FlowGramsPerS = 0
)
{
    /// <summary>Stands in a cue for the phase's own pressure, so that the cue follows it and is said in the reader's
    /// unit.</summary>
    public const string OwnPressure = "{bar}";

    /// <summary>The pressure as cues of old name it.</summary>
    internal string PressureInWords => FormattableString.Invariant($"{ToBar:0.#} bar");

    /// <summary>The cue with the phase's own pressure in it, marked as a <see cref="Quantity"/>.</summary>
    public string CueInWords() =>
        Cue.Replace(PressureInWords, OwnPressure, StringComparison.Ordinal)
            .Replace(OwnPressure, FormattableString.Invariant($"{Quantity.Bar(ToBar):0.#}"), StringComparison.Ordinal);

    /// <summary>How the phase ends, in words.</summary>
    public string EndsOn(double yieldGrams) =>
        Ending switch
        {
            PhaseEnding.FirstDrops => "until first drops",
            PhaseEnding.Seconds => $"for {EndsAt:0.#} s",
            PhaseEnding.Grams => $"until {EndsAt:0.#} g",
            PhaseEnding.Blonding => "until the stream turns pale",
            PhaseEnding.Strokes => EndsAt == 0.5 ? "for half a pull"
            : EndsAt == 1 ? "for one full pull"
            : $"for {EndsAt:0.#} pulls",
            _ => $"until {EndsAt * yieldGrams:0.#} g",
        };
}

/// <summary>Times to the yield that count as landing, s from the lever's first move.</summary>
public sealed record TimeBand(double Low, double Best, double High)
{
    /// <summary>Whether a time in s lies in it.</summary>
    public bool Holds(double seconds) => seconds >= Low && seconds <= High;
}

/// <summary>A pull as phases of pressure, with the width of the band that counts as on plan.</summary>
/// <param name="Key">Stable key.</param>
/// <param name="Name">Plain name.</param>
/// <param name="Why">Why people pull this way, and who disagrees (common practice).</param>
/// <param name="BandBar">Half width of the band, bar, 0.1 to 3.</param>
/// <param name="Phases">In order; the last one ends at the yield.</param>
/// <param name="Lands">Times to the yield that count as landing; null for the usual 31 to 44 s.</param>
/// <param name="Families">Machines it is meant for; null for any.</param>
public sealed record PullPlan(
    string Key,
    string Name,
    string Why,
    double BandBar,
    IReadOnlyList<PullPhase> Phases,
    TimeBand? Lands = null,
    IReadOnlyList<MachineFamily>? Families = null
)
{
    private const double WobbleBar = 0.2;

    public static readonly FieldRange PlanPressure = new("toBar", "Plan pressure", 0, 12, "bar");
    public static readonly FieldRange Band = new("bandBar", "Width of the band", 0.1, 3, "bar");
    public static readonly FieldRange PhaseSeconds = new("endsAt", "Seconds of a phase", 0.5, 180, "s");
    public static readonly FieldRange PhaseGrams = new("endsAt", "Grams in the cup", 0.5, 120, "g");
    public static readonly FieldRange PhaseStrokes = new("endsAt", "Strokes of a phase", 0.1, 60, "");
    public static readonly FieldRange Lead = new("leadSeconds", "Seconds to reach the pressure", 0, 60, "s");
    public static readonly FieldRange AtMost = new("atMostSeconds", "Longest a phase may last", 1, 180, "s");
    public static readonly FieldRange HeldFlow = new("flowGramsPerS", "Flow to hold", 0.2, 6, "g/s");
    public static readonly FieldRange Unused = new("phases", "A number of a phase that its ending does not use", 0, 600, "");
    public static readonly FieldRange LandingTime = new("lands", "Time to the yield", 5, 240, "s");
    public static readonly FieldRange Scale = new("factor", "Factor on the pressures", 0.5, 1.5, "");
    private static readonly TimeBand UsualBand = new(31, 37, 44);

    /// <summary>Key of a plan that nobody knows, of a shot from elsewhere.</summary>
    public const string UnknownKey = "unknown";

    /// <summary>Highest pressure of the plan, bar.</summary>
    public double PeakBar => Phases.Max(p => p.ToBar);

    /// <summary>Times to the yield that count as landing, from the lever's first move (common practice).</summary>
    public TimeBand LandingSeconds => Lands ?? ShippedPlans.Find(Key)?.Lands ?? UsualBand;

    /// <summary>Whether the pull begins with a wait without pressure, as a bloom does.</summary>
    public bool WaitsFirst => Phases is [{ Move: PhaseMove.Rest }, ..] or [{ ToBar: < 0.5 }, ..];

    /// <summary>Which of its phases the hand eases into: the pressure falls by more than a hand's own wobble, and not because the
    /// lever is lifted.</summary>
    public IReadOnlyList<bool> Easing() =>
        [.. Phases.Select((p, i) => i > 0 && p.Move != PhaseMove.Lift && p.ToBar < Phases[i - 1].ToBar - WobbleBar)];

    /// <summary>Whether a machine makes pressure the way this plan needs it.</summary>
    public bool Suits(Machine machine) =>
        (Families is not { Count: > 0 } families || families.Contains(machine.Family))
        && (machine.HasBoiler || Phases.All(p => p.Move != PhaseMove.Lift));

    /// <summary>The plan with every pressure of the hand times a factor, 0.5 to 1.5, under a name that says so.</summary>
    /// <exception cref="FieldRangeException">The factor is out of range.</exception>
    public PullPlan Scaled(double factor)
    {
        Scale.Check(factor);
        double Bar(PullPhase p) =>
            p.Move is PhaseMove.Lift or PhaseMove.Rest ? p.ToBar : Math.Round(Math.Min(PlanPressure.Max, p.ToBar * factor), 2);
        return this with
        {
            Name = FormattableString.Invariant($"{Name}, {Math.Abs(factor - 1) * 100:0} % {(factor > 1 ? "harder" : "softer")}"),
            // a cue that names the old pressure as a number would mislead
            Phases =
            [
                .. Phases.Select(p =>
                    p with
                    {
                        ToBar = Bar(p),
                        Cue = p.Cue.Replace(p.PressureInWords, PullPhase.OwnPressure, StringComparison.Ordinal),
                    }
                ),
            ],
            Lands = LandingSeconds,
        };
    }

    /// <summary>The plan with its numbers checked.</summary>
    /// <exception cref="FieldRangeException">A number is out of range.</exception>
    /// <exception cref="DoesNotFitException">The plan has no phase, or its points run backwards.</exception>
    public PullPlan Checked()
    {
        if (Phases.Count is 0 or > 20)
            throw new DoesNotFitException("phases", "A plan has between 1 and 20 phases.");
        Band.Check(BandBar);
        if (Families is { Count: > 20 })
            throw new DoesNotFitException("families", "A plan names at most 20 families.");
        if (Lands is { } lands)
        {
            LandingTime.Check(lands.Low);
            LandingTime.Check(lands.High);
            if (lands.Low >= lands.Best || lands.Best >= lands.High)
                throw new DoesNotFitException(
                    "lands",
                    "The shortest time that counts as landing has to lie below the wanted one, and that below the longest."
                );
        }

        double share = 0.0,
            grams = 0.0;
        for (var i = 0; i < Phases.Count; i++)
        {
            var phase = Phases[i];
            var which = $"Phase {i + 1}, {phase.Name},";
            PlanPressure.Check(phase.ToBar);
            Lead.Check(phase.LeadSeconds);
            if (phase.Move == PhaseMove.HoldFlow)
                HeldFlow.Check(phase.FlowGramsPerS);
            foreach (var number in new[] { phase.EndsAt, phase.AtMostSeconds, phase.FlowGramsPerS })
                Unused.Check(number);
            switch (phase.Ending)
            {
                case PhaseEnding.Seconds:
                    PhaseSeconds.Check(phase.EndsAt);
                    break;
                case PhaseEnding.Strokes:
                    PhaseStrokes.Check(phase.EndsAt);
                    AtMost.Check(phase.AtMostSeconds);
                    break;
                case PhaseEnding.FirstDrops or PhaseEnding.Blonding:
                    AtMost.Check(phase.AtMostSeconds);
                    break;
                case PhaseEnding.Grams:
                    PhaseGrams.Check(phase.EndsAt);
                    if (phase.EndsAt <= grams)
                        throw new DoesNotFitException(
                            "phases",
                            string.Create(
                                CultureInfo.InvariantCulture,
                                $"{which} ends at {phase.EndsAt:0.#} g, before the phase ahead of it at {grams:0.#} g: its "
                                    + $"points cross. It must lie above {grams:0.#} g."
                            )
                        );
                    grams = phase.EndsAt;
                    break;
                default:
                    if (phase.EndsAt <= share || phase.EndsAt > 1.0)
                        throw new DoesNotFitException(
                            "phases",
                            string.Create(
                                CultureInfo.InvariantCulture,
                                $"{which} ends at {phase.EndsAt:0.##} of the yield, so its points cross; it must lie above "
                                    + $"{share:0.##} and at most 1."
                            )
                        );
                    share = phase.EndsAt;
                    break;
            }
        }

        return this;
    }
}
