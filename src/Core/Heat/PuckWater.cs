using RuddySpring.Core.Shots;

namespace RuddySpring.Core.Heat;

/// <summary>
/// The water of the shot under way as it reaches the puck: its course and its mean. Water that comes hotter than it boils here
/// gives the rest up as steam before it meets the coffee.
/// </summary>
internal sealed class PuckWater(double atSeconds, double leverUpC, double plusMinusK, double boilingC)
{
    private readonly List<WaterPoint> _course = [];
    private double _heat,
        _mass,
        _hottestC = double.NegativeInfinity;

    /// <summary>The same, to go on with separately.</summary>
    public PuckWater Clone()
    {
        var copy = new PuckWater(atSeconds, leverUpC, plusMinusK, boilingC)
        {
            _heat = _heat,
            _mass = _mass,
            _hottestC = _hottestC,
        };
        copy._course.AddRange(_course);
        return copy;
    }

    /// <summary>Some grams at a temperature in degC, reaching the puck around a time in s since the session's start.</summary>
    public void Add(double seconds, double grams, double waterC)
    {
        if (grams <= 0)
            return;
        _hottestC = Math.Max(_hottestC, waterC);
        var atPuck = Math.Min(waterC, boilingC);
        _heat += grams * atPuck;
        _mass += grams;
        _course.Add(new(seconds - atSeconds, atPuck));
    }

    /// <summary>The shot's heat once it is over.</summary>
    public ShotHeat Over(HeatEvent shot)
    {
        var water = _mass > 0 ? _heat / _mass : leverUpC;
        // a kettle shot's own clock starts when the pressing does
        var course =
            _course.Count > 0
                ? new WaterCourse([.. _course.Select(p => p with { Seconds = Math.Max(0, p.Seconds - shot.BloomSeconds) })])
                : WaterCourse.Steady(water);
        return new(shot.AtSeconds, leverUpC, plusMinusK, water, course, Math.Max(0, _hottestC - boilingC));
    }
}
