using RuddySpring.Core;

namespace RuddySpring.Server.Household;

/// <summary>The units that people can read their numbers in.</summary>
public static class DisplayUnits
{
    /// <summary>Checks three units; null stands for somebody else's choice.</summary>
    /// <exception cref="DoesNotFitException">One is none of them; the sentence names them.</exception>
    public static void Check(string? pressureUnit, string? temperatureUnit, string? forceUnit)
    {
        OneOf(pressureUnit, "pressureUnit", "bar", "psi", "kPa");
        OneOf(temperatureUnit, "temperatureUnit", "degC", "degF");
        OneOf(forceUnit, "forceUnit", "kgf", "N");
    }

    private static void OneOf(string? value, string field, params string[] allowed)
    {
        if (value is not null && !allowed.Contains(value))
            throw new DoesNotFitException(field, $"{field} must be one of {string.Join(", ", allowed)}.");
    }
}
