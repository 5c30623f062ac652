using System.Diagnostics;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;
using RuddySpring.Server.Hosting;

namespace RuddySpring.Attacks;

/// <summary>The server as a process of its own, to be killed, starved and started again.</summary>
public sealed class ServerProcess : IDisposable
{
    private readonly StringBuilder _errors = new();

    private ServerProcess(Process process)
    {
        Process = process;
        process.ErrorDataReceived += (_, line) =>
        {
            lock (_errors)
                _errors.AppendLine(line.Data);
        };
        process.BeginErrorReadLine();
    }

    public Process Process { get; }

    public HttpClient Http { get; private set; } = new();

    public Uri Address => Http.BaseAddress!;

    /// <summary>Processor time that it needed before it listened, s: what else the machine was busy with is not in it.</summary>
    public double StartSeconds { get; private set; }

    /// <summary>What it has said on its error output.</summary>
    public string Errors
    {
        get
        {
            lock (_errors)
                return _errors.ToString();
        }
    }

    /// <summary>Begins to start one.</summary>
    /// <param name="folder">Its data folder.</param>
    /// <param name="arguments">More of its options.</param>
    /// <param name="diskKilobytes">Where given, the folder is a disk of that size that only the process sees, see
    /// <see cref="Inside"/>.</param>
    public static ServerProcess Launch(string folder, IEnumerable<string>? arguments = null, int? diskKilobytes = null)
    {
        // a shell's background job, as the tests may be, would have it deaf to Ctrl-C
        string[] command =
        [
            "env",
            "--default-signal=INT",
            "dotnet",
            typeof(RuddyServer).Assembly.Location,
            "--port",
            "0",
            "--data",
            folder,
            .. arguments ?? [],
        ];
        if (diskKilobytes is { } size)
            command =
            [
                "unshare",
                "--map-root-user",
                "--mount",
                "sh",
                "-c",
                $"mount -t tmpfs -o size={size}k tmpfs \"$0\" && exec \"$@\"",
                folder,
                .. command,
            ];
        return new(
            Process.Start(
                new ProcessStartInfo(command[0], command[1..]) { RedirectStandardOutput = true, RedirectStandardError = true }
            )!
        );
    }

    /// <summary>Starts one and waits until it listens.</summary>
    /// <exception cref="InvalidOperationException">It ended instead; the message is what it said.</exception>
    public static async Task<ServerProcess> StartAsync(
        string folder,
        IEnumerable<string>? arguments = null,
        int? diskKilobytes = null
    )
    {
        var server = Launch(folder, arguments, diskKilobytes);
        await server.ListeningAsync(TimeSpan.FromSeconds(120));
        return server;
    }

    /// <summary>Waits until it listens.</summary>
    /// <exception cref="InvalidOperationException">It ended instead, or took too long.</exception>
    public async Task ListeningAsync(TimeSpan patience)
    {
        using var late = new CancellationTokenSource(patience);
        var said = new StringBuilder();
        while (await Process.StandardOutput.ReadLineAsync(late.Token) is { } line)
        {
            if (!line.StartsWith("Listening on ", StringComparison.Ordinal))
            {
                said.AppendLine(line);
                continue;
            }

            StartSeconds = Process.TotalProcessorTime.TotalSeconds;
            Http = new HttpClient { BaseAddress = new Uri(line["Listening on ".Length..]), Timeout = TimeSpan.FromSeconds(30) };
            return;
        }

        await Process.WaitForExitAsync(CancellationToken.None);
        throw new InvalidOperationException($"The server ended with {Process.ExitCode}: {said}{Errors}");
    }

    /// <summary>A path as the process sees it, where its folder is a disk of its own.</summary>
    public string Inside(string path) => $"/proc/{Process.Id}/root{path}";

    /// <summary>GET as JSON.</summary>
    public async Task<JsonNode> GetAsync(string path) => (await Http.GetFromJsonAsync<JsonNode>(path))!;

    /// <summary>POST of JSON; status and answer.</summary>
    public async Task<(int Status, JsonNode? Body)> PostAsync(string path, object? body = null)
    {
        using var answer = await Http.PostAsJsonAsync(path, body ?? new { });
        var text = await answer.Content.ReadAsStringAsync();
        return ((int)answer.StatusCode, text.Length == 0 ? null : JsonNode.Parse(text));
    }

    /// <summary>Makes a pull ready of the sheet as it stands; its id.</summary>
    public async Task<string> ReadyAsync()
    {
        var (status, view) = await PostAsync(
            "/api/pull/ready",
            new { sheetVersion = (int)(await GetAsync("/api/prepare"))["version"]! }
        );
        return status == 200 ? (string)view!["frame"]!["pullId"]! : throw new InvalidOperationException($"{status} {view}");
    }

    /// <summary>Memory it holds, MB.</summary>
    public async Task<double> MemoryAsync()
    {
        var status = await File.ReadAllLinesAsync($"/proc/{Process.Id}/status");
        return double.Parse(
                status
                    .First(l => l.StartsWith("VmRSS", StringComparison.Ordinal))
                    .Split(' ', StringSplitOptions.RemoveEmptyEntries)[1]
            ) / 1024;
    }

    /// <summary>Ends it as a power cut does.</summary>
    public async Task KillAsync()
    {
        if (!Process.HasExited)
            Process.Kill(entireProcessTree: true);
        await Process.WaitForExitAsync();
    }

    /// <summary>
    /// Ends it as Ctrl-C does, pressed again after a while.
    /// </summary>
    /// <exception cref="TimeoutException">It went on all the same.</exception>
    public async Task InterruptAsync()
    {
        const int presses = 15;
        for (var i = 0; i < presses && !Process.HasExited; i++)
        {
            using (var kill = Process.Start("kill", ["-INT", Process.Id.ToString()]))
                await kill.WaitForExitAsync();
            await Task.WhenAny(Process.WaitForExitAsync(), Task.Delay(TimeSpan.FromSeconds(2)));
        }

        if (!Process.HasExited)
            throw new TimeoutException("The server does not hear Ctrl-C.");
        await Process.WaitForExitAsync();
    }

    public void Dispose()
    {
        if (!Process.HasExited)
            Process.Kill(entireProcessTree: true);
        Process.Dispose();
        Http.Dispose();
    }
}
