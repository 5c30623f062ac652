using System.Collections.Concurrent;
using System.Diagnostics;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.SignalR.Client;

namespace RuddySpring.Measure;

/// <summary>A full house: twenty screens that read and hear the frames while four people pull, each with a gauge and a scale at
/// 50 samples a second. Everything runs on this machine, the readers too.</summary>
internal static class LoadTimes
{
    private const int Readers = 20;
    private const int Pulls = 4;
    private const double MostGrowthMegabytes = 15;
    private const double WarmUpSeconds = 10;

    // so that no yield is reached, and no two have their first drops at once
    private const double SlowestGramsPerSecond = 0.02;

    // a person looks at what came before asking for more
    private static readonly TimeSpan Looks = TimeSpan.FromMilliseconds(500);

    private static readonly string[] Pages =
    [
        "/api/shots?size=50",
        "/api/prepare",
        "/api/bench",
        "/api/shots/{0}",
        "/api/session",
        "/api/pull",
        "/api/shots?size=50&search=tomo",
        "/api/care/due",
    ];

    public static async Task<IReadOnlyList<Row>> MeasureAsync(int seconds)
    {
        var folder = Directory.CreateTempSubdirectory("ruddy-load-").FullName;
        try
        {
            await using var server = await ServerProgram.StartAsync(folder);
            var machines = await MachinesAsync(server.Http);
            var gauges = new List<MeasuredGauge>();
            foreach (var machine in machines)
            {
                // a device tells of the pull that is made ready while it is free
                var gauge = await MeasuredGauge.ConnectAsync(
                    server.Address,
                    $"Measure {machine}",
                    SlowestGramsPerSecond * (gauges.Count + 1)
                );
                gauges.Add(gauge);
                gauge.PullId = await ReadyAsync(server.Http, machine);
            }

            var pages = new ConcurrentBag<double>();
            var faults = new ConcurrentBag<string>();
            using var over = new CancellationTokenSource();
            var memory = new List<(double At, double Megabytes)>();
            var clock = Stopwatch.StartNew();
            var readers = Enumerable
                .Range(0, Readers)
                .Select(i => ReadAsync(server.Address, i, pages, faults, over.Token))
                .ToList();
            var watch = WatchAsync(server, memory, clock, over.Token);
            // once warm
            await Task.WhenAll(gauges.Select(g => g.RunAsync(WarmUpSeconds)));
            pages.Clear();
            memory.Clear();
            clock.Restart();
            await Task.WhenAll(gauges.Select(g => g.RunAsync(seconds)));
            await over.CancelAsync();
            await Task.WhenAll([.. readers, watch]);
            var stages = (await server.Http.GetFromJsonAsync<JsonNode>("/api/pull"))!["frame"]!["pulls"]!.AsArray();
            var running = stages.Count(p => (string)p!["stage"]! == "Running");
            foreach (var fault in faults.Take(3))
                Console.Error.WriteLine(fault);
            double Mean(double from, double to) =>
                memory.Where(m => m.At >= from * seconds && m.At < to * seconds).Average(m => m.Megabytes);
            var rows = new List<Row>
            {
                Row.AtMost(
                    $"load: {Readers} readers and {Pulls} pulls for {seconds} s, faults of {pages.Count} pages",
                    faults.Count,
                    "faults",
                    0
                ),
                Row.AtLeast("load: pulls under way to the end", running, "pulls", Pulls),
                Row.AtMost("load: a page (p95)", Row.Percentile(pages, 0.95), "ms", 100),
                Row.AtMost(
                    "load: sample in to screen's frame (p99)",
                    Row.Percentile([.. gauges.SelectMany(g => g.Took)], 0.99),
                    "ms",
                    100
                ),
                Row.AtMost($"load: samples lost of {gauges.Sum(g => g.Count)}", gauges.Sum(g => g.Lost), "samples", 0),
                Row.AtMost(
                    "load: memory, last quarter over second quarter",
                    Mean(0.75, 1) - Mean(0.25, 0.5),
                    "MB",
                    MostGrowthMegabytes
                ),
            };
            foreach (var gauge in gauges)
                await gauge.DisposeAsync();
            return rows;
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }
    }

    /// <summary>The sample's machines, and copies of the first until there are enough.</summary>
    private static async Task<IReadOnlyList<int>> MachinesAsync(HttpClient http)
    {
        async Task<JsonArray> All() => (await http.GetFromJsonAsync<JsonNode>("/api/bench"))!["machines"]!.AsArray();
        for (var i = 1; (await All()).Count < Pulls; i++)
        {
            var answer = await http.PostAsJsonAsync(
                "/api/bench/machines",
                new { name = $"Spare {i}", spec = (await All())[0]!["spec"] }
            );
            answer.EnsureSuccessStatusCode();
        }

        return [.. (await All()).Take(Pulls).Select(m => (int)m!["id"]!)];
    }

    private static async Task<string> ReadyAsync(HttpClient http, int machine)
    {
        var now = (await http.GetFromJsonAsync<JsonNode>("/api/prepare"))!;
        var sheet = now["sheet"]!.DeepClone();
        sheet["machineId"] = machine;
        var kept = await http.PutAsJsonAsync($"/api/prepare?version={now["version"]}", sheet);
        kept.EnsureSuccessStatusCode();
        var version = (int)(await kept.Content.ReadFromJsonAsync<JsonNode>())!["version"]!;
        var ready = await http.PostAsJsonAsync("/api/pull/ready", new { sheetVersion = version });
        ready.EnsureSuccessStatusCode();
        var id = (string)(await ready.Content.ReadFromJsonAsync<JsonNode>())!["frame"]!["pullId"]!;
        // by hand, because what a gauge shows at first may be its rest
        (await http.PostAsync(new Uri($"/api/pull/begin?pull={id}", UriKind.Relative), null)).EnsureSuccessStatusCode();
        return id;
    }

    /// <summary>A screen: it hears every frame, and asks for one page after another.</summary>
    private static async Task ReadAsync(
        Uri address,
        int reader,
        ConcurrentBag<double> took,
        ConcurrentBag<string> faults,
        CancellationToken over
    )
    {
        try
        {
            await using var hub = new HubConnectionBuilder().WithUrl(new Uri(address, "/live")).Build();
            using var http = new HttpClient { BaseAddress = address };
            hub.Closed += error =>
            {
                if (!over.IsCancellationRequested)
                    faults.Add($"A screen lost its connection: {error?.Message}");
                return Task.CompletedTask;
            };
            await hub.StartAsync(over);
            for (var i = reader; ; i++)
            {
                var path = string.Format(null, Pages[i % Pages.Length], 1 + (i % 40));
                var from = Stopwatch.GetTimestamp();
                using var answer = await http.GetAsync(new Uri(path, UriKind.Relative), over);
                await answer.Content.ReadAsByteArrayAsync(over);
                took.Add(Stopwatch.GetElapsedTime(from).TotalMilliseconds);
                if (!answer.IsSuccessStatusCode)
                    faults.Add($"{path}: {(int)answer.StatusCode}");
                await Task.Delay(Looks, over);
            }
        }
        catch (OperationCanceledException)
        {
            // the time is over
        }
        catch (Exception error) when (error is HttpRequestException or IOException)
        {
            faults.Add(error.Message);
        }
    }

    private static async Task WatchAsync(
        ServerProgram server,
        List<(double, double)> memory,
        Stopwatch clock,
        CancellationToken over
    )
    {
        while (!over.IsCancellationRequested)
        {
            memory.Add((clock.Elapsed.TotalSeconds, await server.MemoryMegabytesAsync()));
            await Task.Delay(250, CancellationToken.None);
        }
    }
}
