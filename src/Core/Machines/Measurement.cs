using RuddySpring.Core.Fitting;

namespace RuddySpring.Core.Machines;

/// <summary>A number of a machine that a measurement changes.</summary>
/// <param name="Field">Its field.</param>
/// <param name="Label">What people call it.</param>
/// <param name="Unit">Unit as printed.</param>
/// <param name="Before">What it was.</param>
/// <param name="Value">What came out.</param>
/// <param name="PlusMinus">Half width of the 95 % interval; null when there was no reading to spare.</param>
public sealed record MeasuredChange(string Field, string Label, string Unit, double Before, double Value, double? PlusMinus);

/// <summary>Outcome of measuring a machine with kitchen things: what changes, how well the readings agree, and the machine as
/// changed.</summary>
/// <param name="Changes">What it changes.</param>
/// <param name="Points">Each reading beside what the fit says.</param>
/// <param name="XLabel">What the points' X is, with unit.</param>
/// <param name="YLabel">What the points' Y is, with unit.</param>
/// <param name="Sentence">What came out, in one sentence.</param>
/// <param name="Changed">The machine with the numbers in place.</param>
public sealed record Measurement(
    IReadOnlyList<MeasuredChange> Changes,
    IReadOnlyList<FitPoint> Points,
    string XLabel,
    string YLabel,
    string Sentence,
    Machine Changed
)
{
    /// <summary>Puts measured numbers into the machine's list, the newest of each field.</summary>
    internal static Machine Keep(Machine machine, IReadOnlyList<MeasuredChange> changes, string way, int readings, DateOnly on) =>
        machine with
        {
            Measured =
            [
                .. machine.Measured.Where(m => changes.All(c => c.Field != m.Field)),
                .. changes.Select(c => new MeasuredNumber(c.Field, c.Value, c.PlusMinus, way, readings, on)),
            ],
        };

    internal static string PlusMinusText(double? plusMinus, string unit, string format = "0.##") =>
        plusMinus is { } p
            ? $" \u00b1{p.ToString(format, System.Globalization.CultureInfo.InvariantCulture)} {unit}".TrimEnd()
            : "";
}
