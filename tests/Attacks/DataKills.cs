using System.Text;
using RuddySpring.Core;
using RuddySpring.Server.Hosting;
using RuddySpring.Store;

namespace RuddySpring.Attacks;

/// <summary>
/// Kills the server at random moments while backups are taken, backups are put back and a household is imported, one after the
/// other. Afterwards every backup that is there is whole, the database is sound, and it holds either what it held before the last
/// of these or what it holds after it, nothing between.
/// </summary>
public static class DataKills
{
    public static async Task<KillOutcome> RunAsync(int kills, ulong seed)
    {
        var random = new SeededRandom(seed);
        var faults = new List<string>();
        var slowest = 0.0;
        var sample = Directory.CreateTempSubdirectory("ruddy-sample-").FullName;
        RuddyServer.PrepareData(new ServerOptions(0, sample, true, sample), DateTime.UtcNow).Dispose();
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        for (var i = 0; i < kills; i++)
        {
            var folder = Directory.CreateTempSubdirectory("ruddy-kills-").FullName;
            try
            {
                File.Copy(StoreFile.PathIn(sample), StoreFile.PathIn(folder));
                slowest = Math.Max(slowest, await OneAsync(folder, random, interrupt: i % 4 == 3, faults));
            }
            catch (Exception error)
                when (error is InvalidOperationException or HttpRequestException or OperationCanceledException)
            {
                faults.Add($"kill {i + 1}: {error.Message}");
            }
            finally
            {
                Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
                Directory.Delete(folder, recursive: true);
            }
        }

        Directory.Delete(sample, recursive: true);
        return new(kills, faults, slowest, 0);
    }

    private static async Task<double> OneAsync(string folder, SeededRandom random, bool interrupt, List<string> faults)
    {
        int whole;
        using (var server = await ServerProcess.StartAsync(folder))
        {
            whole = (int)(await server.GetAsync("/api/shots?size=1"))["total"]!;
            var file = await server.Http.GetByteArrayAsync(new Uri("/api/exchange/household.json", UriKind.Relative));
            var full = (string)(await server.PostAsync("/api/storage/backups")).Body!["name"]!;
            for (var id = 1; id <= Fewer; id++)
                using (await server.Http.DeleteAsync(new Uri($"/api/shots/{id}", UriKind.Relative))) { }
            using (await server.Http.DeleteAsync(new Uri("/api/storage/bin", UriKind.Relative))) { }
            var less = (string)(await server.PostAsync("/api/storage/backups")).Body!["name"]!;
            using var stop = new CancellationTokenSource();
            var work = WorkAsync(server, full, less, file, stop.Token);
            await Task.Delay(random.Below(1500), CancellationToken.None);
            if (interrupt)
                await server.InterruptAsync();
            else
                await server.KillAsync();
            await stop.CancelAsync();
            await work;
        }

        using var again = await ServerProcess.StartAsync(folder);
        var shots = (int)(await again.GetAsync("/api/shots?size=1"))["total"]!;
        if (shots != whole && shots != whole - Fewer)
            faults.Add($"{shots} shots are neither {whole} nor {whole - Fewer}");
        if (!StoreFile.IsWhole(StoreFile.PathIn(folder)))
            faults.Add("the database is not sound");
        foreach (var backup in new Backups(folder).Files())
        {
            if (!StoreFile.IsWhole(backup))
                faults.Add($"{Path.GetFileName(backup)} is not whole");
        }

        // and one that is taken now has everything
        if ((await again.PostAsync("/api/storage/backups")).Status != 200)
            faults.Add("no backup could be taken after the kill");
        if (again.StartSeconds > Kills.LongestStart)
            faults.Add($"a start after a kill took {again.StartSeconds:0.0} s of the processor");
        return again.StartSeconds;
    }

    private const int Fewer = 5;

    /// <summary>Goes on until the server is gone.</summary>
    private static async Task WorkAsync(ServerProcess server, string full, string less, byte[] household, CancellationToken stop)
    {
        try
        {
            for (var turn = 0; !stop.IsCancellationRequested; turn++)
            {
                await server.PostAsync($"/api/storage/backups/{(turn % 2 == 0 ? full : less)}/restore");
                await server.PostAsync("/api/storage/backups");
                if (turn % 2 == 0)
                    continue;
                // what was lost comes back by the household's file as well
                using var content = new ByteArrayContent(household);
                content.Headers.ContentType = new("application/json");
                using var begun = await server.Http.PostAsync(
                    new Uri("/api/exchange/household", UriKind.Relative),
                    content,
                    stop
                );
                var token = (string)
                    System.Text.Json.Nodes.JsonNode.Parse(
                        Encoding.UTF8.GetString(await begun.Content.ReadAsByteArrayAsync(stop))
                    )!["token"]!;
                for (var phase = ""; phase is not ("Stored" or "Failed"); )
                {
                    phase = (string)(await server.GetAsync($"/api/exchange/household/{token}"))["phase"]!;
                    if (phase == "Checked")
                        await server.PostAsync($"/api/exchange/household/{token}/store");
                }
            }
        }
        catch (Exception error)
            when (error is HttpRequestException or OperationCanceledException or InvalidOperationException or IOException)
        {
            // the server is gone, as it should be
        }
    }
}
