namespace RuddySpring.Core.Shots;

/// <summary>The water's temperature at the puck through a shot.</summary>
/// <param name="Points">Seconds since the lever moved, rising, and degC; at least one.</param>
public sealed record WaterCourse(IReadOnlyList<WaterPoint> Points)
{
    private const int MostPoints = 1000;

    /// <summary>One temperature in degC all the way.</summary>
    public static WaterCourse Steady(double waterC) => new([new(0, waterC)]);

    /// <summary>Where it begins, degC.</summary>
    public double StartC() => Points[0].WaterC;

    /// <summary>Whether it changes at all.</summary>
    public bool Changes() => Points.Count > 1;

    /// <summary>Temperature in degC at a time in s: straight between the points, level outside of them.</summary>
    public double At(double seconds)
    {
        if (Points.Count == 1 || seconds <= Points[0].Seconds)
            return Points[0].WaterC;
        for (var i = 1; i < Points.Count; i++)
        {
            var ((fromSeconds, fromC), (toSeconds, toC)) = (Points[i - 1], Points[i]);
            if (seconds <= toSeconds)
                return fromC + ((toC - fromC) * (seconds - fromSeconds) / Math.Max(1e-9, toSeconds - fromSeconds));
        }

        return Points[^1].WaterC;
    }

    /// <summary>The same course, warmer or colder by some K all the way.</summary>
    public WaterCourse Shifted(double kelvin) => new([.. Points.Select(p => p with { WaterC = p.WaterC + kelvin })]);

    /// <summary>The same course, nowhere under or over a temperature in degC.</summary>
    public WaterCourse Within(double lowC, double highC) =>
        new([.. Points.Select(p => p with { WaterC = Math.Clamp(p.WaterC, lowC, highC) })]);

    /// <summary>The course with its numbers checked, as it comes from a file.</summary>
    /// <exception cref="FieldRangeException">A temperature is out of range.</exception>
    /// <exception cref="DoesNotFitException">It has no points, too many, or they are not in order of time.</exception>
    public WaterCourse Checked()
    {
        if (
            Points is null
            || Points.Count is 0 or > MostPoints
            || Points.Zip(Points.Skip(1)).Any(p => !(p.Second.Seconds >= p.First.Seconds))
        )
            throw new DoesNotFitException(
                "water",
                "The water's course has no points, too many, or they are not in order of time."
            );
        foreach (var point in Points)
            Puck.PuckParameters.WaterTemperature.Check(point.WaterC);
        return this;
    }
}

/// <summary>A point of the water's course.</summary>
/// <param name="Seconds">Since the lever moved.</param>
/// <param name="WaterC">degC.</param>
public sealed record WaterPoint(double Seconds, double WaterC);
