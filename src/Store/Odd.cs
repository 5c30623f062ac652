using System.Runtime.CompilerServices;

namespace RuddySpring.Store;

/// <summary>
/// Remembers which stored values could not be read, by the instance that stands in their place. An odd value takes nothing down
/// but itself: the rest is shown, and whoever shows it says what to do.
/// </summary>
public static class Odd
{
    private static readonly ConditionalWeakTable<object, string> Reasons = [];

    /// <summary>Why a value is only a stand-in; null for one that was read.</summary>
    public static string? Reason(object? value) =>
        value is not null && Reasons.TryGetValue(value, out var reason) ? reason : null;

    /// <summary>A stand-in for what could not be read.</summary>
    internal static T StandIn<T>(T value, string reason)
        where T : class
    {
        Reasons.AddOrUpdate(value, reason);
        return value;
    }
}
