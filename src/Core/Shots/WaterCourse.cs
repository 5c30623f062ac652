namespace RuddySpring.Core.Shots;

/// <summary>The water's temperature at the puck through a shot.</summary>
/// <param name="Points">Seconds since the lever moved, rising, and degC; at least one.</param>
public sealed record WaterCourse(IReadOnlyList<(double Seconds, double WaterC)> Points)
{
    /// <summary>One temperature in degC all the way.</summary>
    public static WaterCourse Steady(double waterC) => new([(0, waterC)]);

    /// <summary>Where it begins, degC.</summary>
    public double StartC => Points[0].WaterC;

    /// <summary>Whether it changes at all.</summary>
    public bool Changes => Points.Count > 1;

    /// <summary>Temperature in degC at a time in s: straight between the points, level outside of them.</summary>
    public double At(double seconds)
    {
        if (Points.Count == 1 || seconds <= Points[0].Seconds) return Points[0].WaterC;
        for (var i = 1; i < Points.Count; i++)
        {
            var ((fromSeconds, fromC), (toSeconds, toC)) = (Points[i - 1], Points[i]);
            if (seconds <= toSeconds) return fromC + ((toC - fromC) * (seconds - fromSeconds) / Math.Max(1e-9, toSeconds - fromSeconds));
        }

        return Points[^1].WaterC;
    }

    /// <summary>The same course, warmer or colder by some K all the way.</summary>
    public WaterCourse Shifted(double kelvin) => new([.. Points.Select(p => (p.Seconds, p.WaterC + kelvin))]);
}
