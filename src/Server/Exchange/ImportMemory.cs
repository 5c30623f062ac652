using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using RuddySpring.Store;

namespace RuddySpring.Server.Exchange;

/// <summary>Remembers how a kind of file was read, by the names of its columns: the next file of the same source is read alike,
/// without being asked again.</summary>
public static class ImportMemory
{
    private const int Most = 100;

    /// <summary>How files with these columns were read last; null where none was, or it cannot be understood any more.</summary>
    public static async Task<T?> FindAsync<T>(RuddyContext db, string kind, IReadOnlyList<string> names, CancellationToken cancel)
        where T : class
    {
        var fingerprint = Fingerprint(kind, names);
        var kept = await db.ImportSources.AsNoTracking().SingleOrDefaultAsync(s => s.Fingerprint == fingerprint, cancel);
        try
        {
            return kept is null ? null : JsonSerializer.Deserialize<T>(kept.Answers, RuddyContext.Json);
        }
        catch (JsonException)
        {
            return null;
        }
    }

    /// <summary>Notes how files with these columns are read; saved with what is imported.</summary>
    public static async Task NoteAsync<T>(
        RuddyContext db,
        string kind,
        IReadOnlyList<string> names,
        T answers,
        DateTime nowUtc,
        CancellationToken cancel
    )
    {
        var fingerprint = Fingerprint(kind, names);
        var kept = await db.ImportSources.SingleOrDefaultAsync(s => s.Fingerprint == fingerprint, cancel);
        if (kept is null)
        {
            db.ImportSources.Add(kept = new() { Fingerprint = fingerprint });
            var old = await db.ImportSources.OrderByDescending(s => s.UsedAt).Skip(Most - 1).ToListAsync(cancel);
            db.ImportSources.RemoveRange(old);
        }

        kept.Answers = JsonSerializer.Serialize(answers, RuddyContext.Json);
        kept.UsedAt = nowUtc;
    }

    private static string Fingerprint(string kind, IReadOnlyList<string> names) =>
        $"{kind}:{Convert.ToHexString(SHA256.HashData(Encoding.UTF8.GetBytes(string.Join('\u001f', names))))}";
}
