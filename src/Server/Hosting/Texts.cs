using RuddySpring.Core;

namespace RuddySpring.Server.Hosting;

/// <summary>Checks of text and dates that people type.</summary>
public static class Texts
{
    /// <summary>The trimmed text, 1 to <paramref name="longest"/> characters.</summary>
    /// <exception cref="DoesNotFitException">Empty or too long.</exception>
    public static string Required(string? text, string field, string label, int longest = 80)
    {
        var trimmed = text?.Trim() ?? "";
        if (trimmed.Length == 0) throw new DoesNotFitException(field, $"{label} must not be empty.");
        return Optional(trimmed, field, label, longest);
    }

    /// <summary>The trimmed text, at most <paramref name="longest"/> characters.</summary>
    /// <exception cref="DoesNotFitException">Too long.</exception>
    public static string Optional(string? text, string field, string label, int longest = 80)
    {
        var trimmed = text?.Trim() ?? "";
        return trimmed.Length <= longest
            ? trimmed
            : throw new DoesNotFitException(field, $"{label} has {trimmed.Length} characters; at most {longest} are kept.");
    }
}
