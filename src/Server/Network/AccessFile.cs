using System.Text.Json;
using RuddySpring.Store;

namespace RuddySpring.Server.Network;

/// <summary>A tablet, phone or laptop that has signed in.</summary>
/// <param name="Id">Its number in addresses.</param>
/// <param name="Name">What it is called.</param>
/// <param name="TokenHash">SHA-256 of what its cookie holds.</param>
/// <param name="Since">When it signed in, UTC.</param>
/// <param name="LastSeen">When it last asked for anything, UTC, to the quarter of an hour.</param>
/// <param name="Address">Where from.</param>
public sealed record SignedInDevice(string Id, string Name, string TokenHash, DateTime Since, DateTime LastSeen, string Address);

/// <summary>The key of a gauge, scale or thermometer.</summary>
/// <param name="Id">Its number in addresses.</param>
/// <param name="Name">What it is called.</param>
/// <param name="KeyHash">SHA-256 of the key.</param>
/// <param name="Since">When it was made, UTC.</param>
public sealed record InstrumentKey(string Id, string Name, string KeyHash, DateTime Since);

/// <summary>Who may come in from the home network.</summary>
/// <param name="IsOn">Whether anybody may.</param>
/// <param name="Port">Where, 1024 to 65535.</param>
/// <param name="PassphraseHash">The hash of the passphrase; null before one was set.</param>
public sealed record AccessState(
    bool IsOn,
    int Port,
    string? PassphraseHash,
    IReadOnlyList<SignedInDevice> Devices,
    IReadOnlyList<InstrumentKey> Keys
)
{
    /// <summary>Nobody but this machine.</summary>
    public static AccessState Closed(int port) => new(false, port, null, [], []);
}

/// <summary>
/// The file that says who may come in. It lies beside the database and not in it, because it belongs to this machine: backups and
/// household files carry nobody's way in. Only the user who runs the application may read it.
/// </summary>
public sealed class AccessFile(string dataFolder)
{
    /// <summary>Its name in the data folder.</summary>
    public const string FileName = "access.json";

    private static readonly JsonSerializerOptions Json = new() { WriteIndented = true };
    private readonly string _path = Path.Combine(dataFolder, FileName);

    /// <summary>What it says; null where there is none.</summary>
    /// <exception cref="StoreProblemException">It cannot be read; nobody may come in.</exception>
    public AccessState? Read()
    {
        if (!File.Exists(_path))
            return null;
        try
        {
            return JsonSerializer.Deserialize<AccessState>(File.ReadAllBytes(_path), Json);
        }
        catch (Exception error)
            when (error is JsonException or IOException or UnauthorizedAccessException or NotSupportedException)
        {
            throw new StoreProblemException(
                $"{_path} cannot be read, so the home network stays off. Delete the file and turn the network on again.",
                error
            );
        }
    }

    /// <summary>Writes it whole or not at all.</summary>
    public void Write(AccessState state)
    {
        var part = _path + ".part";
        var options = new FileStreamOptions { Mode = FileMode.Create, Access = FileAccess.Write };
        if (!OperatingSystem.IsWindows())
            options.UnixCreateMode = UnixFileMode.UserRead | UnixFileMode.UserWrite;
        using (var file = new FileStream(part, options))
        {
            JsonSerializer.Serialize(file, state, Json);
            file.Flush(flushToDisk: true);
        }

        File.Move(part, _path, overwrite: true);
    }
}
