namespace RuddySpring.Server.Hosting;

/// <summary>What the command line says. It listens on this machine alone, unless the owner has turned the home network
/// on.</summary>
/// <param name="Port">Port, 0 for any free one.</param>
/// <param name="DataFolder">Where the database and the journal lie.</param>
/// <param name="Demo">Whether an empty database is filled with the sample household.</param>
/// <param name="WebRoot">Folder of the built front end.</param>
/// <param name="Restore">Whether the newest intact copy takes the database's place before the start.</param>
/// <param name="NewHousehold">Whether a database that has lost its household's row gets a new one.</param>
/// <param name="LookOverBytes">A database up to this size is looked over before the start, a larger one after it.</param>
/// <param name="LookOverAfterSeconds">How long after the start that is, s: it keeps a core and the disk busy for some seconds, and
/// those who have just started it come first.</param>
/// <param name="Speed">How many times as fast as life the clock of pulls runs, 1 to 20; for trying a pull without waiting for
/// it.</param>
/// <param name="BackupFolder">Where backups go; null for a folder within the data folder.</param>
/// <param name="HomePort">Port for the home network, once the owner turns that on.</param>
/// <param name="Certificate">Certificate for the home network (PEM); null for none, which is plain HTTP.</param>
/// <param name="CertificateKey">Its private key (PEM).</param>
/// <param name="HomeNetwork">Whether the home network is turned on at this start, with a passphrase from standard input.</param>
/// <param name="Home">Of a sample household that is looked at: the address of the household to come back to; null
/// otherwise.</param>
public sealed record ServerOptions(
    int Port,
    string DataFolder,
    bool Demo,
    string WebRoot,
    double Speed = 1,
    bool Restore = false,
    bool NewHousehold = false,
    long LookOverBytes = 32L * 1024 * 1024,
    double LookOverAfterSeconds = 30,
    string? BackupFolder = null,
    int HomePort = 5190,
    string? Certificate = null,
    string? CertificateKey = null,
    bool HomeNetwork = false,
    string? Home = null
)
{
    /// <summary>Reads <c>--port N --data DIR --backups DIR --empty --restore --new-household --web DIR --speed N</c>.</summary>
    /// <exception cref="ArgumentException">An option is not understood; the message names it.</exception>
    public static ServerOptions Parse(IReadOnlyList<string> args)
    {
        var here = AppContext.BaseDirectory;
        var options = new ServerOptions(5180, Path.Combine(here, "data"), true, FrontEnd.DefaultRoot(here));
        for (var i = 0; i < args.Count; i++)
        {
            string Next() => ++i < args.Count ? args[i] : throw new ArgumentException($"{args[i - 1]} needs a value.");
            options = args[i] switch
            {
                "--port" => options with { Port = ParsePort(Next(), "--port", 0) },
                "--data" => options with { DataFolder = Path.GetFullPath(Next()) },
                "--backups" => options with { BackupFolder = Path.GetFullPath(Next()) },
                "--web" => options with { WebRoot = Path.GetFullPath(Next()) },
                "--empty" => options with { Demo = false },
                "--restore" => options with { Restore = true },
                "--new-household" => options with { NewHousehold = true },
                "--home-network" => options with { HomeNetwork = true },
                "--home-port" => options with { HomePort = ParsePort(Next(), "--home-port", 1024) },
                "--certificate" => options with { Certificate = ExistingFile(Next(), "--certificate") },
                "--certificate-key" => options with { CertificateKey = ExistingFile(Next(), "--certificate-key") },
                "--speed" => options with { Speed = ParseSpeed(Next()) },
                _ => throw new ArgumentException(
                    $"{args[i]} is not an option. Options are --port N, --data DIR, --backups DIR, --empty, "
                        + "--restore, --new-household, "
                        + "--web DIR, --speed N, --home-network, --home-port N, --certificate FILE, --certificate-key FILE."
                ),
            };
        }

        if (options.Certificate is null != options.CertificateKey is null)
            throw new ArgumentException("--certificate and --certificate-key go together.");
        return options;
    }

    private static double ParseSpeed(string text) =>
        double.TryParse(
            text,
            System.Globalization.NumberStyles.Float,
            System.Globalization.CultureInfo.InvariantCulture,
            out var speed
        ) && speed is >= 1 and <= 20
            ? speed
            : throw new ArgumentException($"--speed {text} is not a speed; it must be a number from 1 to 20.");

    private static int ParsePort(string text, string option, int least) =>
        int.TryParse(text, out var port) && port >= least && port <= 65535
            ? port
            : throw new ArgumentException($"{option} {text} is not a port; it must be a whole number from {least} to 65535.");

    private static string ExistingFile(string path, string option) =>
        File.Exists(path) ? Path.GetFullPath(path) : throw new ArgumentException($"{option} {path}: there is no such file.");
}
