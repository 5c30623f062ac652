using Microsoft.Data.Sqlite;
using RuddySpring.Store;

namespace RuddySpring.Server.Tests.Hosting;

/// <summary>Another program, a backup or a curious owner's, holds the database while the application runs.</summary>
public sealed class HeldDatabaseTests
{
    [Fact]
    public async Task It_is_said_reading_goes_on_and_a_change_goes_through_once_it_is_free()
    {
        await using var server = new LiveServer();
        await server.InitializeAsync();
        using (var other = new SqliteConnection($"Data Source={StoreFile.PathIn(server.Folder)};Pooling=False"))
        {
            other.Open();
            using var hold = other.CreateCommand();
            hold.CommandText = "BEGIN IMMEDIATE";
            hold.ExecuteNonQuery();
            Assert.Equal(200, (await server.SendAsync(HttpMethod.Get, "/api/shots")).Status);
            var (status, problem) = await server.SendAsync(HttpMethod.Post, "/api/bench/brewers", new { name = "Late guest" });
            Assert.Equal(503, status);
            Assert.Equal(
                "The database is in use by another program. Nothing was changed; try again in a moment.",
                (string)problem!["detail"]!
            );
        }

        Assert.DoesNotContain(
            "Late guest",
            (await server.GetAsync("/api/bench"))["brewers"]!.ToJsonString(),
            StringComparison.Ordinal
        );
        Assert.Equal(200, (await server.SendAsync(HttpMethod.Post, "/api/bench/brewers", new { name = "Late guest" })).Status);
    }

    [Fact]
    public async Task Why_a_shot_was_as_it_was_is_told_all_the_same()
    {
        await using var server = new LiveServer();
        await server.InitializeAsync();
        var told = await server.GetAsync("/api/shots/14/why");
        using var other = new SqliteConnection($"Data Source={StoreFile.PathIn(server.Folder)};Pooling=False");
        other.Open();
        using var hold = other.CreateCommand();
        // the cause of one shot is kept, that of the other has changed since
        hold.CommandText = "UPDATE Shots SET Cause = 'long ago' WHERE Id = 15; BEGIN IMMEDIATE";
        hold.ExecuteNonQuery();
        // a change waits ten
        await LiveServer.WithinAsync(5, async () =>
            Assert.Equal(told.ToJsonString(), (await server.GetAsync("/api/shots/14/why")).ToJsonString())
        );
        Assert.Equal(200, (await server.SendAsync(HttpMethod.Get, "/api/shots/15/why")).Status);
    }
}
