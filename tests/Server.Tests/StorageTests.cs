using System.Net;
using System.Net.Http.Headers;
using System.Text.Json.Nodes;
using Microsoft.Data.Sqlite;
using RuddySpring.Store;

namespace RuddySpring.Server.Tests;

/// <summary>Backups that are taken, looked at, put back, brought and refused; the bin that is emptied.</summary>
public sealed class StorageTests
{
    private static readonly DateTime Now = new(2026, 11, 28, 7, 0, 0, DateTimeKind.Utc);

    [Fact]
    public void ADailyBackupAYearLongLeavesTheLastDaysWeeksAndMonths()
    {
        var kept = new HashSet<DateTime>();
        for (var day = 0; day < 400; day++)
        {
            kept.Add(Now.AddDays(day));
            kept = [.. BackupRotation.Kept(kept)];
        }

        var last = Now.AddDays(399);
        Assert.InRange(kept.Count, 18, 24);
        Assert.All(Enumerable.Range(0, 7), back => Assert.Contains(last.AddDays(-back), kept));
        Assert.InRange((last - kept.Min()).TotalDays, 335, 366); // a year back, the newest of that month
        // no gap within the last five weeks is longer than a week, none in the year longer than two months
        var sorted = kept.OrderDescending().ToList();
        var gaps = sorted.Zip(sorted.Skip(1), (a, b) => (From: (last - a).TotalDays, Days: (a - b).TotalDays)).ToList();
        Assert.All(gaps.Where(g => g.From < 28), g => Assert.InRange(g.Days, 1, 7));
        Assert.All(gaps, g => Assert.InRange(g.Days, 1, 62));
    }

    [Fact]
    public async Task ABackupIsPutBackWithWhatItHeldAndWhatWasThereIsKept()
    {
        await using var server = new LiveServer();
        await server.InitializeAsync();
        var before = await server.GetAsync("/api/shots?size=1");
        var backup = (string)(await server.PostAsync("/api/storage/backups"))!["name"]!;
        await server.SendAsync(HttpMethod.Delete, "/api/shots/3");
        await server.SendAsync(HttpMethod.Delete, "/api/shots/4");
        Assert.Equal(2, (int)(await server.PostEmptyBinAsync())["shots"]!);

        var changes = await server.GetAsync($"/api/storage/backups/{backup}/changes");
        Assert.Equal(0, (int)changes["shotsLost"]!);
        Assert.Equal(2, (int)changes["shotsBack"]!);
        var shots = changes["counts"]!.AsArray().Single(c => (string)c!["what"]! == "shots")!;
        Assert.Equal((int)before["total"]!, (int)shots["then"]!);
        Assert.Equal((int)before["total"]! - 2, (int)shots["now"]!);

        var restored = await server.PostAsync($"/api/storage/backups/{backup}/restore");
        Assert.Equal((int)before["total"]!, (int)(await server.GetAsync("/api/shots?size=1"))["total"]!);
        Assert.NotEmpty((await server.GetAsync("/api/shots/3"))["curves"]!.AsObject());
        // and the other way again
        var undo = (string)restored!["before"]!["name"]!;
        Assert.Contains("before-restore", undo, StringComparison.Ordinal);
        await server.PostAsync($"/api/storage/backups/{undo}/restore");
        Assert.Equal((int)before["total"]! - 2, (int)(await server.GetAsync("/api/shots?size=1"))["total"]!);
        // the store still takes what is written to it
        await server.SendAsync(HttpMethod.Delete, "/api/shots/5");
        Assert.Equal(1, (int)(await server.GetAsync("/api/storage"))["binCount"]!);
    }

    [Fact]
    public async Task ABackupGoesToAnotherMachineAndBack()
    {
        await using var here = new LiveServer();
        await using var there = new LiveServer { Demo = false };
        await here.InitializeAsync();
        await there.InitializeAsync();
        var name = (string)(await here.PostAsync("/api/storage/backups"))!["name"]!;
        var file = await here.Http.GetByteArrayAsync($"/api/storage/backups/{name}");
        var (status, brought) = await BringAsync(there, file);
        Assert.Equal(200, status);
        Assert.Equal(0, (int)(await there.GetAsync("/api/shots?size=1"))["total"]!); // brought, not restored
        await there.PostAsync($"/api/storage/backups/{brought!["name"]}/restore");
        Assert.Equal((await here.GetAsync("/api/shots/7")).ToJsonString(), (await there.GetAsync("/api/shots/7")).ToJsonString());
    }

    [Fact]
    public async Task ABackupOfAnOlderFormIsBroughtUpToDateAndOneOfANewerFormIsRefused()
    {
        await using var server = new LiveServer();
        await server.InitializeAsync();
        var older = await AlteredAsync(
            server,
            "ALTER TABLE Households DROP COLUMN BinDays; ALTER TABLE Households DROP COLUMN WaterHardness; DROP TABLE "
                + "CareDone; DROP TABLE CareChoices; DROP INDEX IX_Shots_Use; DROP INDEX IX_Shots_Bag; DROP INDEX IX_Shots_Grinder; "
                + "DELETE FROM __EFMigrationsHistory WHERE MigrationId LIKE '%CareAndStorage' OR MigrationId LIKE '%LedgerIndex'"
        );
        var (_, brought) = await BringAsync(server, older);
        var changes = await server.GetAsync($"/api/storage/backups/{brought!["name"]}/changes");
        Assert.True((bool)changes["isOlderForm"]!);
        await server.PostAsync($"/api/storage/backups/{brought["name"]}/restore");
        await server.SendAsync(HttpMethod.Put, "/api/storage/bin", new { days = 30 });
        Assert.Equal(30, (int)(await server.GetAsync("/api/storage"))["binDays"]!);

        var newer = await AlteredAsync(server, "INSERT INTO __EFMigrationsHistory VALUES ('29990101000000_Later', '99.0')");
        var (status, problem) = await BringAsync(server, newer);
        Assert.Equal(400, status);
        Assert.Contains("newer Ruddy Spring", (string)problem!["detail"]!, StringComparison.Ordinal);
        // one that only claims to be of this form
        var hollow = await AlteredAsync(server, "ALTER TABLE Bags DROP COLUMN OpenedOn");
        (_, brought) = await BringAsync(server, hollow);
        var shotsBefore = (int)(await server.GetAsync("/api/shots?size=1"))["total"]!;
        (status, problem) = await server.SendAsync(HttpMethod.Post, $"/api/storage/backups/{brought!["name"]}/restore");
        Assert.Equal(400, status);
        Assert.Contains("form", (string)problem!["detail"]!, StringComparison.Ordinal);
        Assert.Equal(shotsBefore, (int)(await server.GetAsync("/api/shots?size=1"))["total"]!);
    }

    [Fact]
    public async Task WhatIsNoBackupIsRefusedAndLeavesNothingBehind()
    {
        await using var server = new LiveServer();
        await server.InitializeAsync();
        var good = await AlteredAsync(server, "SELECT 1");
        var cut = good[..(good.Length / 2)];
        var spoilt = (byte[])good.Clone();
        for (var i = 4096 * 9; i < 4096 * 40; i++)
            spoilt[i] = 0x5a;
        var foreign = await MakeAsync("CREATE TABLE a (b)");
        foreach (
            var (bytes, said) in new[]
            {
                (cut, "damaged"),
                (spoilt, "damaged"),
                ("not a database at all"u8.ToArray(), "not a database"),
                ([], "not one of Ruddy Spring"),
                (foreign, "not one of Ruddy Spring"),
            }
        )
        {
            var (status, problem) = await BringAsync(server, bytes);
            Assert.Equal(400, status);
            Assert.Contains(said, (string)problem!["detail"]!, StringComparison.Ordinal);
        }

        Assert.Empty((await server.GetAsync("/api/storage"))["backups"]!.AsArray());
        Assert.DoesNotContain(Directory.GetFiles(server.Folder), f => f.Contains("incoming", StringComparison.Ordinal));
    }

    [Theory]
    [InlineData("..%2F..%2Fetc%2Fpasswd")]
    [InlineData("..%2Fruddy-spring.db")]
    [InlineData("ruddy-spring.db")]
    [InlineData("ruddy-spring.daily-20260101-000000.db%2F..%2F..%2Fruddy-spring.db")]
    [InlineData("ruddy-spring.daily-20260101-000000.db%0A")]
    [InlineData("ruddy-spring.daily-20260101-000000.db")]
    public async Task ANameThatLeadsElsewhereIsNoBackup(string name)
    {
        await using var server = new LiveServer { Demo = false };
        await server.InitializeAsync();
        foreach (var method in new[] { HttpMethod.Get, HttpMethod.Delete })
        {
            using var request = new HttpRequestMessage(method, $"/api/storage/backups/{name}");
            using var answer = await server.Http.SendAsync(request);
            Assert.Equal(HttpStatusCode.NotFound, answer.StatusCode);
        }

        Assert.True(File.Exists(StoreFile.PathIn(server.Folder)));
    }

    [Fact]
    public async Task NothingIsRestoredWhileAPullIsUnderWay()
    {
        await using var server = new LiveServer();
        await server.InitializeAsync();
        var name = (string)(await server.PostAsync("/api/storage/backups"))!["name"]!;
        await server.ReadyAsync();
        var (status, problem) = await server.SendAsync(HttpMethod.Post, $"/api/storage/backups/{name}/restore");
        Assert.Equal(409, status);
        Assert.Contains("pull is under way", (string)problem!["detail"]!, StringComparison.Ordinal);
    }

    [Fact]
    public async Task ADayBringsABackupWhereSomethingWasChangedAndOldOnesMakeRoom()
    {
        await using var server = new LiveServer { Demo = false };
        await server.InitializeAsync();
        var backups = new Backups(server.Folder);
        var upkeep = server.Service<Storage.Upkeep>();
        await upkeep.DoAsync(DateTime.UtcNow, default);
        Assert.Single(backups.All());
        await upkeep.DoAsync(DateTime.UtcNow.AddHours(2), default); // the same day
        Assert.Single(backups.All());
        for (var day = 1; day <= 40; day++)
        {
            var at = DateTime.UtcNow.AddDays(day);
            File.SetLastWriteTimeUtc(StoreFile.PathIn(server.Folder), at);
            await upkeep.DoAsync(at.AddMinutes(1), default);
        }

        Assert.InRange(backups.All().Count, 10, 14);
        var count = backups.All().Count;
        await upkeep.DoAsync(DateTime.UtcNow.AddDays(50), default); // nothing was changed
        Assert.Equal(count, backups.All().Count);
        // one by hand stays whatever comes
        var byHand = backups.Take(BackupKind.ByHand, DateTime.UtcNow.AddYears(-3));
        backups.Rotate();
        Assert.Contains(backups.All(), b => b.Name == byHand.Name);
    }

    [Fact]
    public async Task TheBinEmptiesItselfAfterTheDaysThatWereSetAndNotBefore()
    {
        await using var server = new LiveServer();
        await server.InitializeAsync();
        var total = (int)(await server.GetAsync("/api/shots?size=1"))["total"]!;
        await server.SendAsync(HttpMethod.Delete, "/api/shots/3");
        var upkeep = server.Service<Storage.Upkeep>();
        await upkeep.DoAsync(DateTime.UtcNow.AddDays(4000), default); // kept until emptied
        Assert.Equal(1, (int)(await server.GetAsync("/api/storage"))["binCount"]!);
        await server.SendAsync(HttpMethod.Put, "/api/storage/bin", new { days = 30 });
        await upkeep.DoAsync(DateTime.UtcNow.AddDays(29), default);
        Assert.Equal(1, (int)(await server.GetAsync("/api/storage"))["binCount"]!);
        await upkeep.DoAsync(DateTime.UtcNow.AddDays(31), default);
        Assert.Equal(0, (int)(await server.GetAsync("/api/storage"))["binCount"]!);
        Assert.Equal(total - 1, (int)(await server.GetAsync("/api/shots?size=1"))["total"]!);
        var (status, problem) = await server.SendAsync(HttpMethod.Put, "/api/storage/bin", new { days = 0 });
        Assert.Equal(400, status);
        Assert.Contains("between 1 and 3650", (string)problem!["detail"]!, StringComparison.Ordinal);
    }

    [Fact]
    public async Task ADamagedDatabaseIsPutBackFromTheNewestBackup()
    {
        var server = new LiveServer();
        await server.InitializeAsync();
        await server.PostAsync("/api/storage/backups");
        var folder = Directory.CreateTempSubdirectory("ruddy-").FullName;
        Directory.CreateDirectory(Path.Combine(folder, Backups.FolderName));
        foreach (var file in new Backups(server.Folder).Files())
            File.Copy(file, Path.Combine(folder, Backups.FolderName, Path.GetFileName(file)));
        await server.DisposeAsync();
        await File.WriteAllTextAsync(StoreFile.PathIn(folder), "no database any more");
        Assert.Contains("by-hand", StoreFile.Restore(folder, Now), StringComparison.Ordinal);
        Assert.True(StoreFile.IsWhole(StoreFile.PathIn(folder)));
        SqliteConnection.ClearAllPools();
        Directory.Delete(folder, recursive: true);
    }

    /// <summary>A backup of the server's database that something was done to.</summary>
    private static async Task<byte[]> AlteredAsync(LiveServer server, string sql)
    {
        var name = (string)(await server.PostAsync("/api/storage/backups"))!["name"]!;
        var path = Path.Combine(server.Folder, Backups.FolderName, name);
        var bytes = await AlterAsync(path, sql);
        File.Delete(path);
        return bytes;
    }

    private static async Task<byte[]> MakeAsync(string sql)
    {
        var path = Path.GetTempFileName();
        File.Delete(path);
        var bytes = await AlterAsync(path, sql);
        File.Delete(path);
        return bytes;
    }

    private static async Task<byte[]> AlterAsync(string path, string sql)
    {
        await using (var connection = new SqliteConnection($"Data Source={path};Pooling=False"))
        {
            await connection.OpenAsync();
            await using var command = connection.CreateCommand();
            command.CommandText = $"{sql}; PRAGMA journal_mode=DELETE;";
            await command.ExecuteNonQueryAsync();
        }

        return await File.ReadAllBytesAsync(path);
    }

    private static async Task<(int Status, JsonNode? Body)> BringAsync(LiveServer server, byte[] file)
    {
        using var content = new ByteArrayContent(file);
        content.Headers.ContentType = new MediaTypeHeaderValue("application/octet-stream");
        using var answer = await server.Http.PostAsync(new Uri("/api/storage/backups/bring", UriKind.Relative), content);
        return ((int)answer.StatusCode, JsonNode.Parse(await answer.Content.ReadAsStringAsync()));
    }
}

internal static class StorageCalls
{
    public static async Task<JsonNode> PostEmptyBinAsync(this LiveServer server)
    {
        var (status, body) = await server.SendAsync(HttpMethod.Delete, "/api/storage/bin");
        Assert.Equal(200, status);
        return body!;
    }
}
