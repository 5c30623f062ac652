using System.Reflection;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Http;
using Microsoft.Extensions.Hosting;
using Microsoft.Extensions.Logging;

namespace RuddySpring.Measure;

/// <summary>The answers of <see cref="PlainLedger"/> behind a bare web server, a process of its own: what they cost where they
/// have to be fetched, as a page has to.</summary>
internal static class PlainServer
{
    /// <summary>What has this program be one, with the data folder after it.</summary>
    public const string Argument = "--plain-server";

    /// <summary>Starts one as a process.</summary>
    public static Task<ServerProgram> StartAsync(string folder) =>
        ServerProgram.StartAsync([Assembly.GetExecutingAssembly().Location, Argument, folder]);

    /// <summary>Is one, until it is ended.</summary>
    public static async Task RunAsync(string folder)
    {
        var builder = WebApplication.CreateSlimBuilder();
        builder.WebHost.UseUrls("http://127.0.0.1:0");
        builder.Logging.SetMinimumLevel(LogLevel.Warning);
        var app = builder.Build();
        using var plain = new PlainLedger(folder);
        app.MapGet("/", (string where, string order, int page) =>
            Results.Bytes(plain.Answer(where, order, page), "application/json")
        );
        await app.StartAsync();
        Console.WriteLine($"Listening on {app.Urls.First()}");
        await app.WaitForShutdownAsync();
    }
}
