using System.Text.Json;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using RuddySpring.Server.Care;
using RuddySpring.Server.Pull;
using RuddySpring.Store;

namespace RuddySpring.Server.Tests;

/// <summary>What is learned from many shots is kept between requests: it must never be older than the shots.</summary>
public sealed class ShotMemoryTests
{
    private static readonly CancellationToken Cancel = CancellationToken.None;

    // one moment for all that is compared, after the sample's newest shot, which is of today
    private readonly DateTimeOffset _now = DateTimeOffset.UtcNow.AddDays(1);

    [Fact]
    public async Task WhatIsKeptIsWhatWouldBeReadAnewAfterEveryKindOfChange()
    {
        await using var server = new LiveServer();
        await server.InitializeAsync();
        var shots = (await server.GetAsync("/api/shots?size=50"))["shots"]!.AsArray();
        var shot = shots.First(s => s!["measures"]!["r10"] is not null && s["grindSetting"] is not null)!;
        var (id, bag) = ((int)shot["id"]!, (int)(await server.GetAsync("/api/prepare"))["sheet"]!["bagId"]!);
        var kept = await LearnedAsync(server);
        Assert.Equal(kept, await LearnedAsync(server));

        var changes = new (string What, Func<Task> Do)[]
        {
            ("a shot goes to the bin", () => SendAsync(HttpMethod.Delete, $"/api/shots/{id}")),
            ("a shot comes back", () => server.PostAsync($"/api/shots/{id}/restore")),
            ("shots lose their grinder", () =>
                server.PostAsync("/api/shots/change", new { shots = new[] { id }, field = "Grinder" })
            ),
            ("a bag gets older", () => SendAsync(HttpMethod.Patch, $"/api/bench/bags/{bag}", new { roastedOn = "2026-09-20" })),
            ("a shot is gone for good", () =>
                SqlAsync($"DELETE FROM Traces WHERE ShotId = {id}; DELETE FROM Shots WHERE Id = {id}")
            ),
            ("a machine keeps more water", () => SqlAsync("UPDATE Machines SET Spec = json_set(Spec, '$.deadWaterGrams', 9)")),
            ("a pull has taught something", () =>
                SqlAsync("UPDATE Traces SET Learned = '{\"holder\":\"1 spout\",\"letGoSeconds\":0.4}' WHERE ShotId = 5")
            ),
        };
        foreach (var (what, change) in changes)
        {
            await change();
            var now = await LearnedAsync(server);
            Assert.True(now != kept, what);
            kept = now;
        }

        async Task SendAsync(HttpMethod method, string path, object? body = null) =>
            Assert.InRange((await server.SendAsync(method, path, body)).Status, 200, 204);

        async Task SqlAsync(string sql)
        {
            await using var connection = new SqliteConnection($"Data Source={StoreFile.PathIn(server.Folder)}");
            await connection.OpenAsync(Cancel);
            await using var command = connection.CreateCommand();
            command.CommandText = sql;
            Assert.True(await command.ExecuteNonQueryAsync(Cancel) > 0, sql);
        }
    }

    [Fact]
    public async Task ATasteACauseOrAPhotoForgetsNothing()
    {
        await using var server = new LiveServer();
        await server.InitializeAsync();
        var before = await StampAsync(server);
        await server.SendAsync(HttpMethod.Put, "/api/shots/5/taste", new { liking = 5, words = "plum" });
        await server.GetAsync("/api/shots/5/why");
        await server.ChangeSheetAsync("doseGrams", 14.6);
        Assert.Equal(before, await StampAsync(server));
        await server.SendAsync(HttpMethod.Delete, "/api/shots/5");
        Assert.NotEqual(before, await StampAsync(server));
    }

    private static async Task<long> StampAsync(LiveServer server)
    {
        using var scope = server.Service<IServiceScopeFactory>().CreateScope();
        return await ShotStamp.OfAsync(scope.ServiceProvider.GetRequiredService<RuddyContext>(), Cancel);
    }

    /// <summary>Everything that is kept, which must be what a context without a memory reads from the same file.</summary>
    private async Task<string> LearnedAsync(LiveServer server)
    {
        using var scope = server.Service<IServiceScopeFactory>().CreateScope();
        var kept = await ReadAsync(scope.ServiceProvider.GetRequiredService<RuddyContext>());
        await using var bare = new RuddyContext(StoreFile.Options(server.Folder));
        Assert.Equal(await ReadAsync(bare), kept);
        return kept;
    }

    private async Task<string> ReadAsync(RuddyContext db)
    {
        var grinders = await db.Grinders.AsNoTracking().Select(g => g.Id).ToListAsync(Cancel);
        var known = new List<object>();
        foreach (var grinder in grinders)
            known.Add(await Prepare.ShotBelief.KnownAsync(grinder, db, Cancel));
        return JsonSerializer.Serialize(
            new
            {
                Taught = await PullLearning.TaughtAsync(db, Cancel),
                Care = await CareReader.AllAsync(db, _now, Cancel),
                Known = known,
            },
            RuddyContext.Json
        );
    }
}
