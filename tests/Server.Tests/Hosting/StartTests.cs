using System.Diagnostics;
using System.Globalization;
using System.Net;
using System.Net.Sockets;
using Microsoft.AspNetCore.SignalR.Client;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;
using RuddySpring.Server.Hosting;
using RuddySpring.Store;

namespace RuddySpring.Server.Tests.Hosting;

/// <summary>A start on a folder that is taken, or on a database that something happened to.</summary>
public sealed class StartTests : IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("ruddy-start-").FullName;

    public void Dispose()
    {
        SqliteConnection.ClearAllPools();
        Directory.Delete(_folder, recursive: true);
    }

    private string Database => StoreFile.PathIn(_folder);

    private ServerOptions Options => new(0, _folder, true, _folder);

    private void Start() => RuddyServer.PrepareData(Options, DateTime.UtcNow).Dispose();

    private string Refusal(ServerOptions? options = null)
    {
        SqliteConnection.ClearAllPools();
        var before = File.Exists(Database)
            ? Convert.ToHexString(System.Security.Cryptography.SHA256.HashData(File.ReadAllBytes(Database)))
            : "";
        var sentence = Assert
            .Throws<StoreProblemException>(() => RuddyServer.PrepareData(options ?? Options, DateTime.UtcNow))
            .Message;
        SqliteConnection.ClearAllPools();
        if (before.Length > 0)
            Assert.Equal(before, Convert.ToHexString(System.Security.Cryptography.SHA256.HashData(File.ReadAllBytes(Database))));
        Assert.DoesNotContain("Exception", sentence, StringComparison.Ordinal);
        return sentence;
    }

    private void Sql(string sql)
    {
        SqliteConnection.ClearAllPools();
        using var db = new SqliteConnection($"Data Source={Database};Pooling=False");
        db.Open();
        using var command = db.CreateCommand();
        command.CommandText = sql;
        command.ExecuteNonQuery();
    }

    private int Count(string table)
    {
        using var db = new SqliteConnection($"Data Source={Database};Pooling=False");
        db.Open();
        using var command = db.CreateCommand();
        command.CommandText = $"SELECT count(*) FROM {table}";
        return (int)(long)command.ExecuteScalar()!;
    }

    [Fact]
    public void A_second_one_on_the_same_folder_says_so_and_stops()
    {
        using var first = RuddyServer.PrepareData(Options, DateTime.UtcNow);
        var clock = Stopwatch.StartNew();
        var sentence = Assert
            .Throws<StoreProblemException>(() => FolderLock.Take(_folder, TimeSpan.FromSeconds(0.3), _ => { }))
            .Message;
        Assert.Contains("Another Ruddy Spring is using", sentence, StringComparison.Ordinal);
        Assert.InRange(clock.Elapsed.TotalSeconds, 0.2, 5);
    }

    [Fact]
    public async Task One_that_waits_says_for_what_and_goes_on_when_the_folder_is_free()
    {
        var first = FolderLock.Take(_folder, TimeSpan.Zero, _ => { });
        var said = new List<string>();
        var second = Task.Run(() => FolderLock.Take(_folder, TimeSpan.FromSeconds(20), said.Add));
        await LiveServer.UntilAsync(() => Task.FromResult(said.Count > 0), "it says that it waits");
        Assert.Contains("Waiting for another Ruddy Spring", said[0], StringComparison.Ordinal);
        first.Dispose();
        (await second.WaitAsync(TimeSpan.FromSeconds(60))).Dispose();
        Assert.Single(said);
    }

    [Fact] // what a killed migration leaves behind made every later start wait for ever
    public async Task A_stale_lock_of_migrations_is_cleared()
    {
        using (var db = new RuddyContext(StoreFile.Options(_folder)))
            db.GetService<IMigrator>().Migrate("Practice");
        Sql(
            "CREATE TABLE IF NOT EXISTS __EFMigrationsLock (Id INTEGER NOT NULL CONSTRAINT PK___EFMigrationsLock PRIMARY "
                + "KEY, Timestamp TEXT NOT NULL); INSERT OR REPLACE INTO __EFMigrationsLock VALUES (1, '2026-01-01');"
        );
        await Task.Run(Start).WaitAsync(TimeSpan.FromSeconds(60));
        Assert.True(Count("Shots") > 30);
    }

    [Fact]
    public void A_sample_that_was_interrupted_is_made_anew_and_whole()
    {
        StoreFile.Migrate(_folder);
        Assert.Throws<InvalidOperationException>(() => StoreFile.Begin(_folder, false, context =>
            {
                using var whole = context.Database.BeginTransaction();
                context.Households.Add(new() { Name = "half" });
                context.SaveChanges();
                throw new InvalidOperationException("the power failed");
            }));
        Assert.Equal(0, Count("Households"));
        Start();
        Assert.Equal(3, Count("Machines"));
        Assert.True(Count("Shots") > 30);
    }

    [Fact]
    public void A_database_of_a_newer_version_is_not_touched()
    {
        Start();
        Sql("INSERT INTO __EFMigrationsHistory VALUES ('29990101000000_FromTheFuture', '99.0.0');");
        Assert.Contains("written by a newer Ruddy Spring", Refusal(), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData(0, "no database at all, but long enough to be looked at")]
    [InlineData(200_000, null)]
    public void A_damaged_database_is_told_with_the_way_on(int at, string? text)
    {
        using (var db = new RuddyContext(StoreFile.Options(_folder)))
            db.GetService<IMigrator>().Migrate("Practice");
        Start(); // leaves a copy of the older form behind
        Sql("PRAGMA wal_checkpoint(TRUNCATE); PRAGMA journal_mode=DELETE;");
        SqliteConnection.ClearAllPools();
        using (var file = new FileStream(Database, FileMode.Open, FileAccess.ReadWrite))
        {
            // damage in a later page is damage too
            file.Position = at;
            file.Write(text is null ? [.. Enumerable.Repeat((byte)0x5A, 30_000)] : System.Text.Encoding.UTF8.GetBytes(text));
            if (text is not null)
                file.SetLength(text.Length);
        }

        var sentence = Refusal();
        Assert.Contains("is damaged", sentence, StringComparison.Ordinal);
        Assert.Contains("--restore", sentence, StringComparison.Ordinal);
        using (RuddyServer.PrepareData(Options with { Restore = true }, DateTime.UtcNow))
            Assert.True(Count("Shots") > 30);
        Assert.Single(Directory.GetFiles(_folder, "ruddy-spring.set-aside-*.db"));
    }

    [Fact]
    public async Task Damage_in_a_large_database_is_told_on_the_screens_a_moment_after_the_start()
    {
        static void Damage(string file)
        {
            using var stream = new FileStream(file, FileMode.Open, FileAccess.ReadWrite);
            stream.Position = stream.Length - 30_000;
            stream.Write(new byte[20_000]);
        }

        await using var server = new LiveServer { LookOverBytes = 0, Before = Damage };
        await server.InitializeAsync();
        await using var screen = new HubConnectionBuilder().WithUrl(new Uri(server.Address, "/live")).Build();
        var told = new TaskCompletionSource<string>();
        screen.On<System.Text.Json.Nodes.JsonNode>("frame", frame =>
        {
            if (frame["troubles"] is System.Text.Json.Nodes.JsonArray { Count: > 0 } troubles)
                told.TrySetResult((string)troubles[0]!);
        });
        await screen.StartAsync();
        Assert.StartsWith(
            "The database is damaged. Stop the application",
            await told.Task.WaitAsync(TimeSpan.FromSeconds(60)),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void A_truncated_database_is_told()
    {
        Start();
        Sql("PRAGMA wal_checkpoint(TRUNCATE); PRAGMA journal_mode=DELETE;");
        SqliteConnection.ClearAllPools();
        using (var file = new FileStream(Database, FileMode.Open, FileAccess.ReadWrite))
            file.SetLength(file.Length / 2);
        Assert.Contains("is damaged", Refusal(), StringComparison.Ordinal);
        Assert.Contains("no intact copy", Refusal(), StringComparison.Ordinal);
    }

    [Fact]
    public void A_lost_household_does_not_pour_the_sample_over_the_rest()
    {
        Start();
        Sql("DELETE FROM Households; DELETE FROM Bags WHERE Id NOT IN (SELECT BagId FROM Shots);");
        var shots = Count("Shots");
        Assert.Contains("--new-household", Refusal(), StringComparison.Ordinal);
        using (RuddyServer.PrepareData(Options with { NewHousehold = true }, DateTime.UtcNow))
            Assert.Equal(shots, Count("Shots"));
        Assert.Equal(1, Count("Households"));
    }

    [Fact]
    public void A_database_that_another_program_holds_is_told()
    {
        Start();
        SqliteConnection.ClearAllPools();
        using var other = new SqliteConnection($"Data Source={Database};Pooling=False");
        other.Open();
        using var hold = other.CreateCommand();
        hold.CommandText = "PRAGMA locking_mode=EXCLUSIVE; BEGIN EXCLUSIVE; UPDATE Households SET Name = 'held'";
        hold.ExecuteNonQuery();
        var sentence = Assert.Throws<StoreProblemException>(() => RuddyServer.PrepareData(Options, DateTime.UtcNow)).Message;
        Assert.Contains("is in use by another program. Close that and start again", sentence, StringComparison.Ordinal);
    }

    [Fact]
    public void A_copy_before_a_migration_holds_what_still_lay_in_the_log()
    {
        using var db = new RuddyContext(StoreFile.Options(_folder));
        db.GetService<IMigrator>().Migrate("Practice");
        db.Database.OpenConnection();
        db.Database.ExecuteSqlRaw(
            "PRAGMA journal_mode=WAL; PRAGMA wal_autocheckpoint=0; INSERT INTO Brewers (Name) VALUES ('Ilva');"
        );
        StoreFile.Migrate(_folder);
        var copy = Assert.Single(Directory.GetFiles(_folder, "ruddy-spring.before-*.db"));
        using var kept = new SqliteConnection($"Data Source={copy};Mode=ReadOnly;Pooling=False");
        kept.Open();
        using var command = kept.CreateCommand();
        command.CommandText = "SELECT Name FROM Brewers";
        Assert.Equal("Ilva", command.ExecuteScalar());
    }

    [Fact]
    public async Task A_disk_that_is_full_at_the_first_start_gets_a_sentence()
    {
        using var server = Attacks.ServerProcess.Launch(_folder, diskKilobytes: 300);
        var error = await Assert.ThrowsAsync<InvalidOperationException>(() => server.ListeningAsync(TimeSpan.FromSeconds(90)));
        Assert.Contains("is full. Make room and start again", error.Message, StringComparison.Ordinal);
        Assert.DoesNotContain("   at ", error.Message, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_port_that_is_taken_gets_a_sentence_and_no_trace()
    {
        using var other = new TcpListener(IPAddress.Loopback, 0);
        other.Start();
        var port = ((IPEndPoint)other.LocalEndpoint).Port.ToString(CultureInfo.InvariantCulture);
        using var server = Attacks.ServerProcess.Launch(_folder, ["--port", port]);
        var error = await Assert.ThrowsAsync<InvalidOperationException>(() => server.ListeningAsync(TimeSpan.FromSeconds(90)));
        Assert.StartsWith(
            "The server ended with 4: The port is taken by another program.",
            error.Message,
            StringComparison.Ordinal
        );
        Assert.DoesNotContain("   at ", error.Message, StringComparison.Ordinal);
    }
}
