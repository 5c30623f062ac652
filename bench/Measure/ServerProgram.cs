using System.Diagnostics;
using System.Globalization;
using RuddySpring.Server.Hosting;

namespace RuddySpring.Measure;

/// <summary>A server in a process of its own, as <c>./run</c> starts it; it ends with this object.</summary>
public sealed class ServerProgram : IAsyncDisposable
{
    private const double KilobytesPerMegabyte = 1024;

    private ServerProgram(Process process, Uri address)
    {
        Process = process;
        Address = address;
        Http = new HttpClient { BaseAddress = address };
    }

    /// <summary>Path of its program: the one built beside these measures where nothing else is named.</summary>
    public static string Location { get; } =
        Environment.GetEnvironmentVariable("RUDDY_SERVER") is { Length: > 0 } named
            ? named
            : typeof(RuddyServer).Assembly.Location;

    /// <summary>The process.</summary>
    public Process Process { get; }

    /// <summary>Where it answers.</summary>
    public Uri Address { get; }

    /// <summary>A client of it.</summary>
    public HttpClient Http { get; }

    /// <summary>Starts the application on a data folder, at any free port.</summary>
    public static Task<ServerProgram> StartAsync(string folder) => StartAsync([Location, "--port", "0", "--data", folder]);

    /// <summary>Starts a program that says where it listens.</summary>
    public static async Task<ServerProgram> StartAsync(string[] command)
    {
        var process = Process.Start(new ProcessStartInfo("dotnet", command) { RedirectStandardOutput = true })!;
        string? line;
        do line = await process.StandardOutput.ReadLineAsync();
        while (line is not null && !line.StartsWith("Listening on ", StringComparison.Ordinal));
        return new(process, new Uri(line!["Listening on ".Length..]));
    }

    /// <summary>Memory that it holds, MB.</summary>
    public async Task<double> MemoryMegabytesAsync()
    {
        var status = await File.ReadAllLinesAsync($"/proc/{Process.Id}/status");
        var resident = status
            .First(l => l.StartsWith("VmRSS", StringComparison.Ordinal))
            .Split(' ', StringSplitOptions.RemoveEmptyEntries)[1];
        return double.Parse(resident, CultureInfo.InvariantCulture) / KilobytesPerMegabyte;
    }

    public async ValueTask DisposeAsync()
    {
        Http.Dispose();
        Process.Kill();
        await Process.WaitForExitAsync();
        Process.Dispose();
    }
}
