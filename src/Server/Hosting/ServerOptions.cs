namespace RuddySpring.Server.Hosting;

/// <summary>What the command line says. Loopback only: there is no option to listen anywhere else.</summary>
/// <param name="Port">Port, 0 for any free one.</param>
/// <param name="DataFolder">Where the database and the journal lie.</param>
/// <param name="Demo">Whether an empty database is filled with the sample household.</param>
/// <param name="WebRoot">Folder of the built front end.</param>
/// <param name="Restore">Whether the newest whole copy takes the database's place before the start.</param>
/// <param name="NewHousehold">Whether a database that has lost its household's row gets a new one.</param>
/// <param name="LookOverBytes">A database up to this size is looked over before the start, a larger one just after it.</param>
/// <param name="Speed">How many times as fast as life the clock of pulls runs, 1 to 20; for trying a pull without waiting for
/// it.</param>
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
    string? Home = null
)
{
    /// <summary>Reads <c>--port N --data DIR --empty --restore --new-household --web DIR --speed N</c>.</summary>
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
                "--port" => options with { Port = ParsePort(Next()) },
                "--data" => options with { DataFolder = Path.GetFullPath(Next()) },
                "--web" => options with { WebRoot = Path.GetFullPath(Next()) },
                "--empty" => options with { Demo = false },
                "--restore" => options with { Restore = true },
                "--new-household" => options with { NewHousehold = true },
                "--speed" => options with { Speed = ParseSpeed(Next()) },
                _ => throw new ArgumentException(
                    $"{args[i]} is not an option. Options are --port N, --data DIR, --empty, --restore, --new-household, "
                        + "--web DIR, --speed N."
                ),
            };
        }

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

    private static int ParsePort(string text) =>
        int.TryParse(text, out var port) && port is >= 0 and <= 65535
            ? port
            : throw new ArgumentException($"--port {text} is not a port; it must be a whole number from 0 to 65535.");
}
