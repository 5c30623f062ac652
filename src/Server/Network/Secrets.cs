using System.Security.Cryptography;
using System.Text;
using Microsoft.AspNetCore.Identity;
using Microsoft.Extensions.Options;
using RuddySpring.Core;

namespace RuddySpring.Server.Network;

/// <summary>Passphrases, tokens and keys: how they are made, kept and compared. Nothing of them is stored as it is.</summary>
public static class Secrets
{
    /// <summary>Fewest characters of a passphrase (OWASP ASVS 4.0.3, 2.1.1).</summary>
    public const int ShortestPassphrase = 12;

    /// <summary>Most characters of a passphrase (OWASP ASVS 4.0.3, 2.1.2).</summary>
    public const int LongestPassphrase = 128;

    private const int FewestLetters = 5;
    private const int TokenBytes = 32;
    private const int KeyCharacters = 26; // 5 bits each: 130 bits
    private const string KeyLetters = "abcdefghijkmnpqrstuvwxyz23456789"; // none that are mistaken for another
    private const string Consonants = "bdfgklmnprstvz";
    private const string Vowels = "aeiou";

    // PBKDF2 with HMAC-SHA-512; OWASP Password Storage Cheat Sheet (2023): 210 000 rounds or more
    private static readonly PasswordHasher<string> Hasher = new(
        Options.Create(new PasswordHasherOptions { IterationCount = 210_000 })
    );

    /// <summary>The passphrase, if it may be one.</summary>
    /// <exception cref="DoesNotFitException">It is too short, too long or too plain.</exception>
    public static string Passphrase(string? text)
    {
        var length = text?.EnumerateRunes().Count() ?? 0;
        if (length is < ShortestPassphrase or > LongestPassphrase)
            throw new DoesNotFitException(
                "passphrase",
                $"The passphrase has {length} characters; it must have {ShortestPassphrase} to {LongestPassphrase}."
            );
        if (text!.ToLowerInvariant().Distinct().Count() < FewestLetters)
            throw new DoesNotFitException(
                "passphrase",
                $"The passphrase must have at least {FewestLetters} different characters."
            );
        return text;
    }

    /// <summary>Hash of a passphrase, salted and slow.</summary>
    public static string HashOf(string passphrase) => Hasher.HashPassword("", passphrase);

    /// <summary>Whether a passphrase is the one that was hashed; takes as long for a wrong one as for the right one.</summary>
    public static bool IsPassphrase(string hash, string passphrase) =>
        Hasher.VerifyHashedPassword("", hash, passphrase) != PasswordVerificationResult.Failed;

    /// <summary>A passphrase to propose, easy to read out: 49 bits.</summary>
    public static string Propose() =>
        string.Join(
            '-',
            Enumerable
                .Range(0, 4)
                .Select(_ => string.Concat(Enumerable.Range(0, 2).Select(_ => $"{Any(Consonants)}{Any(Vowels)}")))
        );

    /// <summary>What a cookie holds: 256 bits.</summary>
    public static string Token() => Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(TokenBytes));

    /// <summary>A key to type into an instrument's program: 130 bits.</summary>
    public static string Key() => RandomNumberGenerator.GetString(KeyLetters, KeyCharacters);

    /// <summary>A short name in addresses.</summary>
    public static string Id() => RandomNumberGenerator.GetString(KeyLetters, 8);

    /// <summary>Hash of a token or key; they are random and long, so that a fast one does.</summary>
    public static string FastHashOf(string secret) => Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(secret)));

    /// <summary>Whether two hashes are equal, in the same time whether they are or not.</summary>
    public static bool AreEqual(string a, string b) =>
        CryptographicOperations.FixedTimeEquals(Encoding.ASCII.GetBytes(a), Encoding.ASCII.GetBytes(b));

    private static char Any(string letters) => letters[RandomNumberGenerator.GetInt32(letters.Length)];
}
