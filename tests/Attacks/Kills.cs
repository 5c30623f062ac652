using System.Diagnostics;
using System.Net.WebSockets;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;
using RuddySpring.Core;
using RuddySpring.Core.Machines;
using RuddySpring.Server.Hosting;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Attacks;

/// <summary>What a series of kills came to.</summary>
/// <param name="Kills">How many.</param>
/// <param name="Faults">What must not be: a start that is not whole, something acknowledged that is gone, a pull stored twice,
/// too much of one lost.</param>
/// <param name="LongestStartSeconds">The start after a kill that needed most of the processor, s.</param>
/// <param name="MostLostSeconds">The most that was lost of a pull under way.</param>
public sealed record KillOutcome(int Kills, IReadOnlyList<string> Faults, double LongestStartSeconds, double MostLostSeconds);

/// <summary>
/// Kills the server at random moments and starts it again: every other time while it makes its data or brings them up to date, by
/// a power cut or by Ctrl-C, and otherwise while a pull runs and shots are being stored.
/// </summary>
public static class Kills
{
    /// <summary>Most of a running pull that may be lost, s: what comes between two writes of its journal.</summary>
    public const double MostLost = 0.5;

    // a pull of a second is offered again, and half a second of it may have been lost
    private const double HardlyBegun = 1.6;

    /// <summary>Longest start after a kill, processor time, s.</summary>
    public const double LongestStart = 30;

    public static async Task<KillOutcome> RunAsync(int kills, ulong seed)
    {
        var random = new SeededRandom(seed);
        var faults = new List<string>();
        double slowest = 0,
            lost = 0;
        var sample = MakeSample();
        var older = MakeOlder();
        for (var i = 0; i < kills; i++)
        {
            var folder = Directory.CreateTempSubdirectory("ruddy-kills-").FullName;
            try
            {
                var (start, gone) =
                    i % 2 == 0
                        ? (await WhileStartingAsync(folder, i % 8 < 4 ? null : older, random, interrupt: i % 4 == 0, faults), 0)
                        : await WhilePullingAsync(folder, sample, random, interrupt: i % 4 == 1, faults);
                slowest = Math.Max(slowest, start);
                lost = Math.Max(lost, gone);
            }
            catch (Exception error)
                when (error is InvalidOperationException or HttpRequestException or OperationCanceledException)
            {
                faults.Add($"kill {i + 1}: {error.Message}");
            }
            finally
            {
                Directory.Delete(folder, recursive: true);
            }
        }

        return new(kills, faults, slowest, lost);
    }

    private static byte[] MakeSample()
    {
        var folder = Directory.CreateTempSubdirectory("ruddy-sample-").FullName;
        RuddyServer.PrepareData(new ServerOptions(0, folder, true, folder), DateTime.UtcNow).Dispose();
        using (var db = new RuddyContext(StoreFile.Options(folder)))
            db.Database.ExecuteSqlRaw("PRAGMA wal_checkpoint(TRUNCATE)");
        return TakeDatabase(folder);
    }

    /// <summary>A database of an older form, with two machines, a sheet, and two sessions left open on one machine.</summary>
    private static byte[] MakeOlder()
    {
        var folder = Directory.CreateTempSubdirectory("ruddy-older-").FullName;
        using (var db = new RuddyContext(StoreFile.Options(folder)))
        {
            db.GetService<IMigrator>().Migrate("PutAway");
            db.Database.ExecuteSqlRaw(
                "INSERT INTO Households (Id, Name, AltitudeMetres, AmbientC, MadeUp, PressureUnit, TemperatureUnit, "
                    + "ForceUnit) VALUES (1, 'Older', 1640, 18, 0, 'bar', 'degC', 'kgf')"
            );
            foreach (var family in new[] { MachineFamily.PortableLever, MachineFamily.BoilerSpring })
            {
                var spec = JsonSerializer.Serialize(FamilyDefaults.Of(family).Machine, RuddyContext.Json);
                db.Database.ExecuteSql($"INSERT INTO Machines (Name, Spec) VALUES ({family.ToString()}, {spec})");
            }

            var wants = JsonSerializer.Serialize(new Session().Wants, RuddyContext.Json);
            for (var i = 0; i < 2; i++)
            {
                db.Database.ExecuteSql(
                    $"""
                    INSERT INTO Sessions (MachineId, CreatedAt, AmbientC, AltitudeMetres, Wants, Log)
                    VALUES (2, {DateTime.UtcNow.Ticks + i}, 18, 1640, {wants}, {"{}"})
                    """
                );
            }

            db.Database.ExecuteSqlRaw("PRAGMA wal_checkpoint(TRUNCATE)");
        }

        return TakeDatabase(folder);
    }

    private static byte[] TakeDatabase(string folder)
    {
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        var bytes = File.ReadAllBytes(StoreFile.PathIn(folder));
        Directory.Delete(folder, recursive: true);
        return bytes;
    }

    /// <summary>Kills a first start, or where there is an older database its upgrade.</summary>
    private static async Task<double> WhileStartingAsync(
        string folder,
        byte[]? older,
        SeededRandom random,
        bool interrupt,
        List<string> faults
    )
    {
        if (older is not null)
            await File.WriteAllBytesAsync(StoreFile.PathIn(folder), older);
        using (var server = ServerProcess.Launch(folder))
        {
            // a first start takes a second or two: any moment of it
            await Task.Delay(TimeSpan.FromMilliseconds(100 + random.Below(2200)));
            if (interrupt)
                await server.InterruptAsync();
            else
                await server.KillAsync();
        }

        using var again = await ServerProcess.StartAsync(folder);
        var shots = (int)(await again.GetAsync("/api/shots?size=1"))["total"]!;
        var machines = (await again.GetAsync("/api/bench"))["machines"]!.AsArray().Count;
        if (
            older is null
                ? shots < 30 || machines != 3
                : machines != 2 || (int)(await again.GetAsync("/api/session"))["machineId"]! != 1
        )
            faults.Add($"a start that was interrupted left {machines} machines and {shots} shots");
        if (again.StartSeconds > LongestStart)
            faults.Add($"a start after a kill took {again.StartSeconds:0.0} s of the processor");
        return again.StartSeconds;
    }

    private static async Task<(double Start, double Lost)> WhilePullingAsync(
        string folder,
        byte[] sample,
        SeededRandom random,
        bool interrupt,
        List<string> faults
    )
    {
        await File.WriteAllBytesAsync(StoreFile.PathIn(folder), sample);
        var stored = new List<int>();
        var acknowledged = "";
        double heard = 0;
        var storing = random.Below(3) == 0;
        using (var server = await ServerProcess.StartAsync(folder))
        {
            // a shot is stored, a thing renamed and a pull begun; the blow falls somewhere among them
            var before = await server.GetAsync("/api/shots?size=1");
            using var gauge = await Gauge.ConnectAsync(server.Address);
            await server.ReadyAsync();
            await gauge.PlayAsync(1.2, 3);
            await server.PostAsync("/api/pull/stop");
            var (status, saved) = await server.PostAsync("/api/pull/save");
            if (status == 200)
                stored.Add((int)saved!["shotId"]!);
            var brewer = (await server.GetAsync("/api/bench"))["brewers"]![0]!;
            var name = $"Ilva {random.Below(1000)}";
            using var patch = new HttpRequestMessage(
                HttpMethod.Patch,
                $"/api/bench/brewers/{brewer["id"]}?version={brewer["version"]}"
            )
            {
                Content = new StringContent(new JsonObject { ["name"] = name }.ToJsonString(), Encoding.UTF8, "application/json"),
            };
            using (var answer = await server.Http.SendAsync(patch))
                if (answer.IsSuccessStatusCode)
                    acknowledged = name;
            await server.ReadyAsync();
            using var blow = new CancellationTokenSource();
            var playing = gauge.PlayAsync(60, 4, blow.Token);
            await Task.Delay(TimeSpan.FromSeconds(1.6 + (random.Uniform() * 2)));
            heard = await HeardAsync(server);
            Task? save = null;
            if (storing)
            {
                await server.PostAsync("/api/pull/stop");
                save = server.Http.PostAsync(new Uri("/api/pull/save", UriKind.Relative), null);
                await Task.Delay(random.Below(60));
            }

            if (interrupt)
                await server.InterruptAsync();
            else
                await server.KillAsync();
            await blow.CancelAsync();
            await playing.ContinueWith(_ => { }, TaskScheduler.Default);
            if (save is not null)
                await save.ContinueWith(_ => { }, TaskScheduler.Default);
            if ((int)before["total"]! < 30)
                faults.Add("the sample was not whole");
        }

        using var again = await ServerProcess.StartAsync(folder);
        foreach (var id in stored)
        {
            using var shot = await again.Http.GetAsync(new Uri($"/api/shots/{id}", UriKind.Relative));
            if (!shot.IsSuccessStatusCode)
                faults.Add($"shot {id} had been stored and is gone");
        }

        if (acknowledged.Length > 0 && (string)(await again.GetAsync("/api/bench"))["brewers"]![0]!["name"]! != acknowledged)
            faults.Add($"the name {acknowledged} was kept and is gone");
        var offered = (await again.GetAsync("/api/pull/recovered")).AsArray();
        var pulled = (int)(await again.GetAsync("/api/shots?size=1"))["total"]!;
        // one that was stored just before the blow is not offered, nor one that had hardly begun
        var kept =
            offered.Count == 1 ? (double)offered[0]!["seconds"]!
            : storing || heard < HardlyBegun ? heard
            : 0;
        var lost = Math.Max(0, heard - kept);
        if (offered.Count > 1)
            faults.Add($"{offered.Count} pulls were offered back");
        if (lost > MostLost + Gauge.StepSeconds)
            faults.Add(FormattableString.Invariant($"{lost:0.00} s of a pull were lost"));
        foreach (var pull in offered)
        {
            // twice at once, as a hasty hand presses
            var path = $"/api/pull/recovered/{pull!["id"]}/save";
            var answers = await Task.WhenAll(again.PostAsync(path), again.PostAsync(path));
            if (answers.Select(a => (int?)a.Body?["shotId"]).Distinct().Count() != 1)
                faults.Add("one pull became two shots");
            var shot = await again.GetAsync($"/api/shots/{answers[0].Body!["shotId"]}");
            if (
                Math.Abs((double)shot["shot"]!["measures"]!["peakBar"]! - 4) > 0.05
                || !((string)shot["notices"]!).Contains("interrupted", StringComparison.Ordinal)
            )
                faults.Add("a pull that was brought back is not what was pulled");
        }

        var after = (int)(await again.GetAsync("/api/shots?size=1"))["total"]!;
        if (after != pulled + offered.Count)
            faults.Add($"{offered.Count} pulls made {after - pulled} shots");
        if ((await again.GetAsync("/api/pull/recovered")).AsArray().Count > 0)
            faults.Add("a pull that was kept is offered again");
        if (again.StartSeconds > LongestStart)
            faults.Add($"a start after a kill took {again.StartSeconds:0.0} s of the processor");
        return (again.StartSeconds, lost);
    }

    /// <summary>How far the server has heard the pull, s since it began: what a screen shows of it at that moment. What a busy
    /// machine has not read yet from the line is not the journal's to lose.</summary>
    private static async Task<double> HeardAsync(ServerProcess server) =>
        (double?)(await server.GetAsync("/api/pull"))["frame"]!["pressure"]!.AsArray().LastOrDefault()?[0] ?? 0;
}

/// <summary>A home-made gauge that sends at a steady pace.</summary>
public sealed class Gauge : IDisposable
{
    /// <summary>Time between two readings, s.</summary>
    public const double StepSeconds = 0.02;

    private readonly ClientWebSocket _socket = new();
    private readonly Stopwatch _clock = Stopwatch.StartNew();

    public static async Task<Gauge> ConnectAsync(
        Uri server,
        string name = "Gauge",
        string channel = "pressure",
        string unit = "bar"
    )
    {
        var gauge = new Gauge();
        await gauge._socket.ConnectAsync(new Uri($"ws://{server.Authority}/instruments"), CancellationToken.None);
        await gauge.SayAsync($$$"""{"hello":"ruddy-line/1","device":"{{{name}}}","channels":{"{{{channel}}}":"{{{unit}}}"}}""");
        return gauge;
    }

    /// <summary>Sends a line.</summary>
    public Task SayAsync(string line) =>
        _socket.SendAsync(Encoding.UTF8.GetBytes(line + "\n"), WebSocketMessageType.Text, true, CancellationToken.None);

    /// <summary>Sends a pressure at the pace.</summary>
    /// <param name="seconds">For how long, s.</param>
    /// <param name="bar">The pressure.</param>
    /// <param name="enough">Ends it before.</param>
    public async Task PlayAsync(double seconds, double bar, CancellationToken enough = default)
    {
        var end = _clock.Elapsed.TotalSeconds + seconds;
        while (_clock.Elapsed.TotalSeconds < end && !enough.IsCancellationRequested)
        {
            await SayAsync(FormattableString.Invariant($"{{\"t\":{_clock.Elapsed.TotalSeconds:0.000},\"pressure\":{bar:0.00}}}"));
            await Task.Delay(TimeSpan.FromSeconds(StepSeconds), CancellationToken.None); // a step is short
        }
    }

    public void Dispose()
    {
        _socket.Abort();
        _socket.Dispose();
    }
}
