using System.Globalization;

namespace RuddySpring.Core.Traces;

/// <summary>The moments of a pull, s since its record began; null where the trace does not show one.</summary>
/// <param name="FirstPressure">Pressure first above 0.5 bar.</param>
/// <param name="FirstDrops">First drops in the cup.</param>
/// <param name="Ramp">Pressure begins to rise from pre-infusion; null for a pull without one.</param>
/// <param name="Peak">The highest pressure is reached; of a flat top its beginning.</param>
/// <param name="Ease">Pressure begins to fall from there, while the pull goes on.</param>
/// <param name="Blonding">Seen by the brewer; no instrument shows it.</param>
/// <param name="Stop">The pressure is let go, or the cup taken, or the brewer said so; what drips after is no part of the
/// pull.</param>
/// <param name="Start">The lever begins to move.</param>
public sealed record Moments(
    double? FirstPressure,
    double? FirstDrops,
    double? Ramp,
    double? Peak,
    double? Ease,
    double? Blonding,
    double? Stop,
    double? Start = null
)
{
    /// <summary>No moment at all.</summary>
    public static readonly Moments None = new(null, null, null, null, null, null, null);

    /// <summary>These moments with those of <paramref name="marked"/>, which a person set, in their place.</summary>
    public Moments With(Moments marked) =>
        new(
            marked.FirstPressure ?? FirstPressure,
            marked.FirstDrops ?? FirstDrops,
            marked.Ramp ?? Ramp,
            marked.Peak ?? Peak,
            marked.Ease ?? Ease,
            marked.Blonding ?? Blonding,
            marked.Stop ?? Stop,
            marked.Start ?? Start
        );

    /// <summary>These moments on a clock whose zero lies at a time in s of this one.</summary>
    public Moments Since(double zero) =>
        new(
            FirstPressure - zero,
            FirstDrops - zero,
            Ramp - zero,
            Peak - zero,
            Ease - zero,
            Blonding - zero,
            Stop - zero,
            Start - zero
        );

    /// <summary>Refuses what a person set where it leaves a stop before the pull has begun: whatever is measured from there
    /// would be less than nothing. What a trace shows by itself is never refused.</summary>
    /// <param name="marked">Those of these moments that a person set.</param>
    /// <exception cref="DoesNotFitException">The stop is not after the first pressure or not after the first drops; the field is
    /// the one that was set.</exception>
    public void Check(Moments marked)
    {
        foreach (
            var (earlier, set, field, name) in new[]
            {
                (FirstPressure, marked.FirstPressure, "firstPressure", "the first pressure"),
                (FirstDrops, marked.FirstDrops, "firstDrops", "first drops"),
            }
        )
        {
            if (!(Stop <= earlier) || (marked.Stop ?? set) is null)
                continue;
            throw marked.Stop is null
                ? new DoesNotFitException(
                    field,
                    string.Create(CultureInfo.InvariantCulture, $"This must come before the stop, which is at {Stop:0.0} s.")
                )
                : new DoesNotFitException(
                    "stop",
                    string.Create(CultureInfo.InvariantCulture, $"Stop must come after {name}, at {earlier:0.0} s.")
                );
        }
    }
}
