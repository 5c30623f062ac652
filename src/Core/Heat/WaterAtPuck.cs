using RuddySpring.Core.Shots;

namespace RuddySpring.Core.Heat;

/// <summary>Water at the puck of a shot that is yet to be pulled: its mean as an estimate, and its course.</summary>
/// <param name="Value">Mean over the shot, degC.</param>
/// <param name="PlusMinus">One standard deviation, K.</param>
/// <param name="NarrowedBy">What would make it better known.</param>
/// <param name="Course">Through the shot, from the moment that pressing begins.</param>
public sealed record WaterAtPuck(double Value, double PlusMinus, string NarrowedBy, WaterCourse Course)
    : Estimate(Value, PlusMinus, NarrowedBy);
