using System.Data.Common;
using System.Globalization;
using System.Text;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore.Diagnostics;

namespace RuddySpring.Store;

/// <summary>Tells of one text whether it holds every word of a search, as the full-text index would: without regard to case and
/// accents, each as the beginning of a word.</summary>
public static class SearchWords
{
    private const char FirstAccented = '\u00c0';
    private const char LastAccented = '\u017f';

    // small letters of Latin-1 and Latin Extended-A by their canonical decomposition (Unicode Character Database); the runtime
    // cannot decompose where it is set to know no culture
    private const string WithoutAccents =
        "aaaaaa\u00e6ceeeeiiii\u00f0nooooo \u00f8uuuuy\u00fe\u00dfaaaaaa\u00e6ceeeeiiii\u00f0n"
        + "ooooo \u00f8uuuuy\u00feyaaaaaaccccccccdd\u0111\u0111eeeeeeeeeegggggggghh\u0127\u0127i"
        + "iiiiiiii\u0131\u0133\u0133jjkk\u0138llllll\u0140\u0140\u0142\u0142nnnnnn\u0149\u014b\u014b"
        + "oooooo\u0153\u0153rrrrrrsssssssstttt\u0167\u0167uuuuuuuuuuuuwwyyyzzzzzz\u017f";

    /// <summary>Name of the function in SQL: text, words with a space between; 1 or 0.</summary>
    internal const string Function = "holds_words";

    /// <summary>Whether a text holds all of some words.</summary>
    /// <param name="text">The text.</param>
    /// <param name="folded">The words, <see cref="Folded"/>, with a space between.</param>
    public static bool Holds(string text, string folded)
    {
        var within = Folded(text);
        foreach (var word in folded.Split(' ', StringSplitOptions.RemoveEmptyEntries))
        {
            if (!Begins(within, word))
                return false;
        }

        return true;
    }

    /// <summary>A text in small letters without accents, with a space for whatever is no letter and no digit.</summary>
    public static string Folded(string text)
    {
        var folded = new StringBuilder(text.Length);
        foreach (var c in text)
        {
            if (c is >= FirstAccented and <= LastAccented)
                folded.Append(WithoutAccents[c - FirstAccented]);
            else if (char.IsLetterOrDigit(c))
                folded.Append(char.ToLowerInvariant(c));
            else if (CharUnicodeInfo.GetUnicodeCategory(c) != UnicodeCategory.NonSpacingMark)
                folded.Append(' ');
        }

        return folded.ToString();
    }

    private static bool Begins(string text, string word)
    {
        for (
            var at = text.IndexOf(word, StringComparison.Ordinal);
            at >= 0;
            at = text.IndexOf(word, at + 1, StringComparison.Ordinal)
        )
        {
            if (at == 0 || text[at - 1] == ' ')
                return true;
        }

        return false;
    }

    /// <summary>Makes the function known to each connection.</summary>
    internal sealed class OnOpened : DbConnectionInterceptor
    {
        public static readonly OnOpened Only = new();

        public override void ConnectionOpened(DbConnection connection, ConnectionEndEventData eventData) => Add(connection);

        public override Task ConnectionOpenedAsync(
            DbConnection connection,
            ConnectionEndEventData eventData,
            CancellationToken cancellationToken = default
        )
        {
            Add(connection);
            return Task.CompletedTask;
        }

        private static void Add(DbConnection connection) =>
            ((SqliteConnection)connection).CreateFunction<string, string, bool>(Function, Holds, isDeterministic: true);
    }
}
