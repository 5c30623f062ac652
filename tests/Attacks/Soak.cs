using System.Diagnostics;
using System.Net.Http.Json;
using System.Net.WebSockets;
using System.Text.Json.Nodes;
using RuddySpring.Core;

namespace RuddySpring.Attacks;

/// <summary>What a soak came to.</summary>
/// <param name="Sent">Samples of the pull's own gauge that were sent.</param>
/// <param name="Kept">Those that are in the shot.</param>
/// <param name="GrownMegabytes">Growth of the server's memory from the first quarter to the last.</param>
/// <param name="FullDisks">How often the disk was full.</param>
/// <param name="Faults">What must not be.</param>
public sealed record SoakOutcome(int Sent, int Kept, double GrownMegabytes, int FullDisks, IReadOnlyList<string> Faults);

/// <summary>
/// A pull that runs while everything round it goes wrong: devices send garbage, values out of range and floods, set their clocks
/// and hang up; another client edits everything; the disk fills and empties.
/// </summary>
public static class Soak
{
    public static async Task<SoakOutcome> RunAsync(double seconds, ulong seed)
    {
        var folder = Directory.CreateTempSubdirectory("ruddy-soak-").FullName;
        var faults = new List<string>();
        try
        {
            using var server = await ServerProcess.StartAsync(folder, diskKilobytes: 24 * 1024);
            using var gauge = await Gauge.ConnectAsync(server.Address, "The one gauge");
            var pull = await server.ReadyAsync();
            using var over = new CancellationTokenSource();
            // the first sample before anything goes wrong: a gauge that has been silent may be replaced by one of its name
            var clock = Stopwatch.StartNew();
            var lastSaid = 0.0;
            async Task SayAsync(int i)
            {
                await gauge.SayAsync(
                    FormattableString.Invariant($"{{\"t\":{i * 0.04:0.000},\"pressure\":{4 + Math.Sin(i * 0.01):0.000}}}")
                );
                Volatile.Write(ref lastSaid, clock.Elapsed.TotalSeconds);
            }

            await SayAsync(0);
            var nuisances = new[]
            {
                Guarded(
                    () =>
                        GarbageAsync(
                            server.Address,
                            seed,
                            () => clock.Elapsed.TotalSeconds - Volatile.Read(ref lastSaid) < 1,
                            over.Token
                        ),
                    over.Token
                ),
                Guarded(() => ClocksAsync(server.Address, seed + 1, over.Token), over.Token),
                Guarded(() => EditAsync(server, seed + 2, over.Token), over.Token),
            };
            var disk = FillAndEmptyAsync(server, folder, seconds, over.Token);
            var memory = new List<double>();
            var (sent, lastLook) = (1, 0.0);
            while (clock.Elapsed.TotalSeconds < seconds && !server.Process.HasExited)
            {
                var due = (int)(clock.Elapsed.TotalSeconds * 25);
                for (; sent < due; sent++)
                    await SayAsync(sent);
                if (clock.Elapsed.TotalSeconds - lastLook > seconds / 40)
                {
                    lastLook = clock.Elapsed.TotalSeconds;
                    memory.Add(await server.MemoryAsync());
                }

                await Task.Delay(10);
            }

            await over.CancelAsync();
            await Task.WhenAll(nuisances);
            var fullDisks = await disk;
            if (server.Process.HasExited)
            {
                faults.Add($"the server ended: {server.Errors}");
                return new(sent, 0, 0, fullDisks, faults);
            }

            await server.PostAsync($"/api/pull/stop?pull={pull}");
            var (status, saved) = await server.PostAsync($"/api/pull/save?pull={pull}");
            if (status != 200)
                faults.Add($"the pull could not be saved: {status} {saved}");
            var kept = 0;
            if (status == 200)
            {
                var shot = await server.GetAsync($"/api/shots/{saved!["shotId"]}");
                kept = (int?)shot["origins"]!.AsArray().SingleOrDefault(o => (string)o!["channel"]! == "Pressure")?["samples"]
                    ?? 0;
                var notices = (string)shot["notices"]!;
                if (notices.Length > 2000)
                    faults.Add($"the shot holds {notices.Length} characters of notices");
            }

            var quarter = Math.Max(1, memory.Count / 4);
            return new(
                sent,
                kept,
                memory.TakeLast(quarter).Average() - memory.Skip(quarter / 2).Take(quarter).Average(),
                fullDisks,
                faults
            );
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }
    }

    /// <summary>Does something again and again; a connection that breaks over it is what it is about.</summary>
    private static async Task Guarded(Func<Task> again, CancellationToken over)
    {
        while (!over.IsCancellationRequested)
        {
            try
            {
                await again();
            }
            catch (Exception error)
                when (error
                        is WebSocketException
                            or HttpRequestException
                            or OperationCanceledException
                            or IOException
                            or InvalidOperationException
                )
            {
                await Task.Delay(20, CancellationToken.None);
            }
        }
    }

    private static async Task GarbageAsync(Uri address, ulong seed, Func<bool> gaugeSends, CancellationToken over)
    {
        var random = new SeededRandom(seed);
        for (var round = 0; !over.IsCancellationRequested; round++)
        {
            // sometimes under the name of the gauge that the pull goes by, while that one sends
            using var device = await Gauge.ConnectAsync(
                address,
                random.Below(4) == 0 && gaugeSends() ? "The one gauge" : $"Nuisance {round}"
            );
            for (var i = 0; i < 60 && !over.IsCancellationRequested; i++)
            {
                await device.SayAsync(
                    random.Below(7) switch
                    {
                        0 => "garbage",
                        1 => FormattableString.Invariant($"{{\"t\":{i},\"pressure\":400}}"),
                        2 => FormattableString.Invariant($"{{\"t\":{i},\"pressure\":1e308}}"),
                        3 => new string('x', 3000),
                        4 => "{\"t\":-5}",
                        _ => FormattableString.Invariant(
                            $"{{\"t\":{i * 0.001:0.000},\"pressure\":{random.Uniform() * 12:0.00}}}"
                        ), // a flood
                    }
                );
            }

            await Task.Delay(30, over);
        }
    }

    private static async Task ClocksAsync(Uri address, ulong seed, CancellationToken over)
    {
        var random = new SeededRandom(seed);
        using var device = await Gauge.ConnectAsync(address, "Wandering probe", "group", "degC");
        var t = 1000.0;
        while (!over.IsCancellationRequested)
        {
            t += random.Below(20) == 0 ? (random.Uniform() - 0.5) * 4000 : 0.1;
            await device.SayAsync(
                FormattableString.Invariant($"{{\"t\":{Math.Max(0, t):0.000},\"group\":{-30 + (random.Uniform() * 230):0.0}}}")
            );
            await Task.Delay(50, over);
        }
    }

    private static async Task EditAsync(ServerProcess server, ulong seed, CancellationToken over)
    {
        var random = new SeededRandom(seed);
        while (!over.IsCancellationRequested)
        {
            var bench = await server.GetAsync("/api/bench");
            var kind = ((string[])["bags", "machines", "grinders", "brewers"])[random.Below(4)];
            var things = bench[kind]!.AsArray();
            var thing = things[random.Below(things.Count)]!;
            var patch = new JsonObject { ["name"] = $"{((string)thing["name"]!).Split('.')[0]}.{random.Below(100)}" };
            using (await server.Http.PatchAsJsonAsync($"/api/bench/{kind}/{thing["id"]}?version={thing["version"]}", patch, over))
            { }
            var shot = 1 + random.Below(30);
            var version = (await server.GetAsync($"/api/shots/{shot}"))["shot"]!["version"];
            var taste = new
            {
                sour = 1,
                bitter = random.Below(4),
                dry = 1,
                sweet = 2,
                body = 2,
                liking = 3,
                words = $"soak {random.Below(1000)}",
            };
            using (await server.Http.PutAsJsonAsync($"/api/shots/{shot}/taste?version={version}", taste, over)) { }
            using (await server.Http.GetAsync(new Uri("/api/prepare/prediction", UriKind.Relative), over)) { }
            await Task.Delay(40, over);
        }
    }

    private static async Task<int> FillAndEmptyAsync(ServerProcess server, string folder, double seconds, CancellationToken over)
    {
        var full = 0;
        var filler = server.Inside(Path.Combine(folder, "filler"));
        while (!over.IsCancellationRequested)
        {
            await Task.Delay(TimeSpan.FromSeconds(seconds / 12), CancellationToken.None);
            if (over.IsCancellationRequested || server.Process.HasExited)
                break;
            try
            {
                await using var file = new FileStream(filler, FileMode.Create, FileAccess.Write, FileShare.None, bufferSize: 0);
                var block = new byte[64 * 1024];
                for (var i = 0; i < 1000; i++)
                    file.Write(block);
            }
            catch (IOException)
            {
                full++; // that is what it is for
            }

            await Task.Delay(TimeSpan.FromSeconds(seconds / 24), CancellationToken.None);
            File.Delete(filler);
        }

        if (File.Exists(filler))
            File.Delete(filler);
        return full;
    }
}
