using System.Net.Http.Json;
using System.Text.Json.Nodes;

namespace RuddySpring.Measure;

/// <summary>A gauge at 50 samples a second: how long until a screen hears of each, whether any is lost, and what it
/// costs.</summary>
internal static class LiveTimes
{
    public static async Task<IReadOnlyList<Row>> MeasureAsync(int seconds)
    {
        var folder = Directory.CreateTempSubdirectory("ruddy-live-").FullName;
        try
        {
            await using var server = await ServerProgram.StartAsync(folder);
            await using var gauge = await MeasuredGauge.ConnectAsync(server.Address, "Measure");
            var sheet = (await server.Http.GetFromJsonAsync<JsonNode>("/api/prepare"))!;
            await server.Http.PostAsJsonAsync("/api/pull/ready", new { sheetVersion = (int)sheet["version"]! });
            // by hand, because what a gauge shows at first may be its rest
            (await server.Http.PostAsync(new Uri("/api/pull/begin", UriKind.Relative), null)).EnsureSuccessStatusCode();
            var cpu = TimeSpan.Zero;
            double? settledAt = null;
            var end = 0.0;
            await gauge.RunAsync(seconds, gone =>
            {
                end = gone;
                if (settledAt is not null || gone < seconds / 2.0)
                    return;
                // the first half lets the compiler finish; the steady state is what a kitchen sees
                server.Process.Refresh();
                (settledAt, cpu) = (gone, server.Process.TotalProcessorTime);
            });
            server.Process.Refresh();
            var share = (server.Process.TotalProcessorTime - cpu).TotalSeconds / (end - settledAt!.Value) * 100;
            return
            [
                Row.AtMost(
                    $"live: sample in to screen's frame at 50/s for {seconds} s (p99)",
                    Row.Percentile(gauge.Took, 0.99),
                    "ms",
                    100
                ),
                Row.AtMost($"live: samples lost of {gauge.Count}", gauge.Lost, "samples", 0),
                Row.AtMost("live: server's share of one core, second half", share, "%", 10),
            ];
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }
    }
}
