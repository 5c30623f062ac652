using System.Collections.Concurrent;
using System.Diagnostics;
using System.Net.Http.Json;
using System.Net.WebSockets;
using System.Text;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.SignalR.Client;

namespace RuddySpring.Measure;

/// <summary>A gauge at 50 samples a second: how long until a screen hears of each, whether any is lost, and what it
/// costs.</summary>
internal static class LiveTimes
{
    public static async Task<IReadOnlyList<Row>> MeasureAsync(int seconds)
    {
        var folder = Directory.CreateTempSubdirectory("ruddy-live-").FullName;
        using var process = Process.Start(
            new ProcessStartInfo("dotnet", [ServerProgram.Location, "--port", "0", "--data", folder])
            {
                RedirectStandardOutput = true,
            }
        )!;
        try
        {
            string? line;
            do line = await process.StandardOutput.ReadLineAsync();
            while (line is not null && !line.StartsWith("Listening on ", StringComparison.Ordinal));
            var address = new Uri(line!["Listening on ".Length..]);
            using var http = new HttpClient { BaseAddress = address };
            var sent = new ConcurrentDictionary<int, long>();
            var took = new ConcurrentBag<double>();
            await using var hub = new HubConnectionBuilder().WithUrl(new Uri(address, "/live")).Build();
            hub.On<JsonNode>("frame", frame =>
            {
                var now = Stopwatch.GetTimestamp();
                foreach (var point in frame["pressure"]!.AsArray())
                {
                    // the value says which sample it is: 1 bar and a thousandth for each
                    var number = (int)Math.Round(((double)point![1]! - 1.0) * 1000);
                    if (sent.TryRemove(number, out var from))
                        took.Add(Stopwatch.GetElapsedTime(from, now).TotalMilliseconds);
                }
            });
            await hub.StartAsync();
            using var socket = new ClientWebSocket();
            await socket.ConnectAsync(new Uri($"ws://{address.Authority}/instruments"), CancellationToken.None);
            Task Send(string text) =>
                socket.SendAsync(Encoding.UTF8.GetBytes(text), WebSocketMessageType.Text, true, CancellationToken.None);
            await Send("""{"hello":"ruddy-line/1","device":"Measure","channels":{"pressure":"bar"}}""" + "\n");
            var sheet = (await http.GetFromJsonAsync<JsonNode>("/api/prepare"))!;
            await http.PostAsJsonAsync("/api/pull/ready", new { sheetVersion = (int)sheet["version"]! });
            var clock = Stopwatch.StartNew();
            var cpu = TimeSpan.Zero;
            double? settledAt = null;
            var count = 0;
            while (clock.Elapsed.TotalSeconds < seconds)
            {
                var due = (int)(clock.Elapsed.TotalSeconds * 50);
                while (count < due)
                {
                    count++;
                    var number = count % 9000;
                    sent[number] = Stopwatch.GetTimestamp();
                    await Send(
                        FormattableString.Invariant($"{{\"t\":{count * 0.02:0.00},\"pressure\":{1 + (number * 0.001):0.000}}}\n")
                    );
                }

                if (settledAt is null && clock.Elapsed.TotalSeconds > seconds / 2.0)
                {
                    // the first half lets the compiler finish; the steady state is what a kitchen sees
                    process.Refresh();
                    (settledAt, cpu) = (clock.Elapsed.TotalSeconds, process.TotalProcessorTime);
                }

                await Task.Delay(4);
            }

            process.Refresh();
            var share = (process.TotalProcessorTime - cpu).TotalSeconds / (clock.Elapsed.TotalSeconds - settledAt!.Value) * 100;
            await Task.Delay(500);
            return
            [
                Row.AtMost(
                    $"live: sample in to screen's frame at 50/s for {seconds} s (p99)",
                    Row.Percentile([.. took], 0.99),
                    "ms",
                    100
                ),
                Row.AtMost($"live: samples lost of {count}", sent.Count, "samples", 0),
                Row.AtMost("live: server's share of one core, second half", share, "%", 10),
            ];
        }
        finally
        {
            process.Kill();
            await process.WaitForExitAsync();
            Directory.Delete(folder, recursive: true);
        }
    }
}
