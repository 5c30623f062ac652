using RuddySpring.Core.Machines;

namespace RuddySpring.Core.Heat;

/// <summary>Heat constants from temperatures logged for some minutes, as one of a machine's measurements.</summary>
public static class HeatMeasurement
{
    /// <summary>Fits a machine to one log and puts the outcome into the words of a measurement.</summary>
    public static Measurement Of(Machine machine, HeatLog log, DateOnly on)
    {
        var fit = HeatFit.Measured(machine, log);
        MeasuredChange[] changes =
        [
            .. fit.Constants.Select(c => new MeasuredChange(c.Field, c.Label, c.Unit, c.Before, c.Value, (c.High - c.Low) / 2.0)),
        ];
        return new(
            changes,
            fit.Points,
            "time, min",
            "group, degC",
            fit.Sentence,
            Measurement.Keep(fit.Changed, changes, "logging temperatures", fit.Readings, on)
        );
    }
}
