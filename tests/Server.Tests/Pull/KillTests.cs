using System.Diagnostics;
using System.Net.Http.Json;
using System.Text.Json.Nodes;

namespace RuddySpring.Server.Tests.Pull;

/// <summary>The server as a process of its own, killed in the middle of a pull.</summary>
public sealed class KillTests : IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("ruddy-kill-").FullName;

    public void Dispose() => Directory.Delete(_folder, recursive: true);

    private async Task<(Process Process, HttpClient Http)> StartAsync()
    {
        var start = new ProcessStartInfo("dotnet", [typeof(RuddySpring.Server.Hosting.RuddyServer).Assembly.Location, "--port", "0", "--data", _folder])
        {
            RedirectStandardOutput = true,
        };
        var process = Process.Start(start)!;
        while (await process.StandardOutput.ReadLineAsync() is { } line)
        {
            if (line.StartsWith("Listening on ", StringComparison.Ordinal))
                return (process, new HttpClient { BaseAddress = new Uri(line["Listening on ".Length..]) });
        }

        throw new InvalidOperationException("The server ended before it listened.");
    }

    [Fact]
    public async Task A_killed_server_offers_the_pull_back_with_at_most_a_second_lost()
    {
        var (process, http) = await StartAsync();
        var sent = 0.0;
        try
        {
            using var gauge = await DeviceClient.ConnectAsync(
                new Uri($"ws://{http.BaseAddress!.Authority}/instruments"), DeviceClient.Hello("Gauge", "pressure", "bar"));
            await LiveServer.UntilAsync(
                async () => (await http.GetFromJsonAsync<JsonNode>("/api/pull"))!["frame"]!["devices"]!.AsArray().Count == 1, "the gauge is there");
            (await http.PostAsync("/api/pull/ready", null)).EnsureSuccessStatusCode();
            var clock = Stopwatch.StartNew();
            while (clock.Elapsed.TotalSeconds < 4)
            {
                sent = clock.Elapsed.TotalSeconds;
                await gauge.SendAsync(FormattableString.Invariant($"{{\"t\":{10 + sent:0.000},\"pressure\":3.1}}\n"));
                await Task.Delay(20);
            }
        }
        finally
        {
            process.Kill(); // SIGKILL: no chance to tidy up
            await process.WaitForExitAsync();
            http.Dispose();
        }

        (process, http) = await StartAsync();
        try
        {
            var offered = (await http.GetFromJsonAsync<JsonNode>("/api/pull/recovered"))!.AsArray().Single()!;
            Assert.InRange((double)offered["seconds"]!, sent - 1.0, sent + 0.3);
            var saved = await http.PostAsync($"/api/pull/recovered/{offered["id"]}/save", null);
            var id = (int)(await saved.Content.ReadFromJsonAsync<JsonNode>())!["shotId"]!;
            var shot = (await http.GetFromJsonAsync<JsonNode>($"/api/shots/{id}"))!;
            Assert.Equal(3.1, (double)shot["shot"]!["measures"]!["peakBar"]!, 0.01);
            Assert.Contains("interrupted", (string)shot["notices"]!, StringComparison.Ordinal);
            Assert.Empty((await http.GetFromJsonAsync<JsonNode>("/api/pull/recovered"))!.AsArray());
        }
        finally
        {
            process.Kill();
            await process.WaitForExitAsync();
            http.Dispose();
        }
    }
}
