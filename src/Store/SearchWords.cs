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
        var apart = Ascii.IsValid(text) ? text : text.Normalize(NormalizationForm.FormD);
        var folded = new StringBuilder(apart.Length);
        foreach (var c in apart)
        {
            if (char.IsLetterOrDigit(c))
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
