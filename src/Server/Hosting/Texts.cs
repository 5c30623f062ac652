using RuddySpring.Core;

namespace RuddySpring.Server.Hosting;

/// <summary>Checks of text that people type.</summary>
public static class Texts
{
    /// <summary>The trimmed text of one line, 1 to <paramref name="longest"/> characters.</summary>
    /// <exception cref="DoesNotFitException">Empty, too long, or of more than one line.</exception>
    public static string Required(string? text, string field, string label, int longest = 80)
    {
        var trimmed = text?.Trim() ?? "";
        if (trimmed.Length == 0)
            throw new DoesNotFitException(field, $"{label} must not be empty; it has 1 to {longest} characters.");
        return Optional(trimmed, field, label, longest);
    }

    /// <summary>The trimmed text of one line, at most <paramref name="longest"/> characters.</summary>
    /// <exception cref="DoesNotFitException">Too long, or of more than one line.</exception>
    public static string Optional(string? text, string field, string label, int longest = 80)
    {
        var trimmed = Lines(text, field, label, longest);
        return trimmed.Any(char.IsControl)
            ? throw new DoesNotFitException(
                field,
                $"{label} must be one line of at most {longest} characters, without line breaks."
            )
            : trimmed;
    }

    /// <summary>The trimmed text of any number of lines, at most <paramref name="longest"/> characters.</summary>
    /// <exception cref="DoesNotFitException">Too long, or with characters that cannot be shown.</exception>
    public static string Lines(string? text, string field, string label, int longest)
    {
        var trimmed = text?.Trim() ?? "";
        if (trimmed.Length > longest)
            throw new DoesNotFitException(field, $"{label} has {trimmed.Length} characters; at most {longest} are kept.");
        return trimmed.Any(c => char.IsControl(c) && c is not ('\n' or '\r' or '\t'))
            ? throw new DoesNotFitException(
                field,
                $"{label} holds characters that cannot be shown; use letters, digits and signs, at most {longest}."
            )
            : trimmed;
    }
}
