using Microsoft.Data.Sqlite;
using RuddySpring.Server.Pull;
using RuddySpring.Store;

namespace RuddySpring.Server.Tests.Pull;

/// <summary>One pull is one shot, whatever happens while it is kept; and what is thrown away lies in the bin.</summary>
public sealed class KeepingTests : IAsyncLifetime
{
    private readonly LiveServer _server = new() { Speed = 4 };

    public ValueTask InitializeAsync() => _server.InitializeAsync();

    public ValueTask DisposeAsync() => _server.DisposeAsync();

    /// <summary>Lines of a journal as a gauge would have told them: ten seconds of a pull.</summary>
    private static string SomePressure =>
        string.Concat(
            Enumerable.Range(0, 200).Select(i => PullJournal.SampleLine(new(Core.Traces.Channel.Pressure, 2 + (i * 0.05), 3)))
        );

    private async Task<int> ShotsAsync() => (int)(await _server.GetAsync("/api/shots?size=1"))["total"]!;

    private async Task<double> GramsLeftAsync(int bag) =>
        (double)(await _server.GetAsync("/api/bench"))["bags"]!.AsArray().Single(b => (int)b!["id"]! == bag)!["gramsLeft"]!;

    /// <summary>A pull of the sheet's bag that has begun; its id and its bag.</summary>
    private async Task<(string Id, int Bag)> BeginAsync()
    {
        var sheet = (await _server.GetAsync("/api/prepare"))["sheet"]!;
        var id = (string)(await _server.ReadyAsync())["frame"]!["pullId"]!;
        await _server.PostAsync("/api/pull/begin");
        await LiveServer.UntilAsync(
            async () => (double?)(await _server.GetAsync("/api/pull"))["frame"]!["reading"]!["seconds"] > 1.5,
            "it runs"
        );
        return (id, (int)sheet["bagId"]!);
    }

    private void Sql(string sql)
    {
        using var db = new SqliteConnection($"Data Source={StoreFile.PathIn(_server.Folder)};Pooling=False");
        db.Open();
        using var command = db.CreateCommand();
        command.CommandText = sql;
        command.ExecuteNonQuery();
    }

    [Fact]
    public async Task Keeping_is_pressed_many_times_and_one_shot_comes_of_it()
    {
        var (_, bag) = await BeginAsync();
        var (shots, grams) = (await ShotsAsync(), await GramsLeftAsync(bag));
        var dose = (double)(await _server.GetAsync("/api/prepare"))["sheet"]!["doseGrams"]!;
        await _server.PostAsync("/api/pull/stop");
        var answers = await Task.WhenAll(Enumerable.Range(0, 6).Select(_ => _server.PostAsync("/api/pull/save")));
        Assert.Single(answers.Select(a => (int)a!["shotId"]!).Distinct());
        Assert.Equal(shots + 1, await ShotsAsync());
        Assert.Equal(grams - dose, await GramsLeftAsync(bag), 0.11);
    }

    [Fact] // a crash between storing and removing the journal offered the pull again, and took the dose twice
    public async Task A_journal_that_outlives_its_shot_is_the_same_shot()
    {
        var (id, bag) = await BeginAsync();
        var file = Path.Combine(_server.Folder, "journal", id + ".pull");
        await LiveServer.UntilAsync(() => Task.FromResult(File.Exists(file)), "the journal is written");
        var journal = await File.ReadAllTextAsync(file);
        await _server.PostAsync("/api/pull/stop");
        var shot = (int)(await _server.PostAsync("/api/pull/save"))!["shotId"]!;
        var (shots, grams) = (await ShotsAsync(), await GramsLeftAsync(bag));
        await File.WriteAllTextAsync(file, journal + SomePressure);
        Assert.Empty((await _server.GetAsync("/api/pull/recovered")).AsArray());
        Assert.Equal(shot, (int)(await _server.PostAsync($"/api/pull/recovered/{id}/save"))!["shotId"]!);
        Assert.Equal((shots, grams), (await ShotsAsync(), await GramsLeftAsync(bag)));
        Assert.False(File.Exists(file));
    }

    [Fact]
    public async Task A_recovered_pull_that_is_kept_by_a_double_click_is_one_shot()
    {
        var (id, _) = await BeginAsync();
        var file = Path.Combine(_server.Folder, "journal", id + ".pull");
        await LiveServer.UntilAsync(
            () => Task.FromResult(File.Exists(file) && new FileInfo(file).Length > 200),
            "the journal is written"
        );
        await LiveServer.UntilAsync(
            async () => (double?)(await _server.GetAsync("/api/pull"))["frame"]!["reading"]!["seconds"] > 4,
            "it runs on"
        );
        await _server.PostAsync("/api/pull/mark", new { moment = "drops" });
        await LiveServer.UntilAsync(
            async () => (await File.ReadAllTextAsync(file)).Contains("mark drops", StringComparison.Ordinal),
            "the mark is in it"
        );
        var journal = await File.ReadAllTextAsync(file);
        await _server.PostAsync("/api/pull/discard?forGood=true");
        // as a gauge would have told it
        await File.WriteAllTextAsync(file, journal + SomePressure);
        var shots = await ShotsAsync();
        Assert.Single((await _server.GetAsync("/api/pull/recovered")).AsArray());
        var answers = await Task.WhenAll(Enumerable.Range(0, 3).Select(_ => _server.PostAsync($"/api/pull/recovered/{id}/save")));
        Assert.Single(answers.Select(a => (int)a!["shotId"]!).Distinct());
        Assert.Equal(shots + 1, await ShotsAsync());
        Assert.Empty((await _server.GetAsync("/api/pull/recovered")).AsArray());
    }

    [Fact] // the tick came after the commit: four presses made four shots
    public async Task A_session_that_cannot_be_ticked_keeps_no_shot_back()
    {
        var machine = (int)(await _server.GetAsync("/api/prepare"))["sheet"]!["machineId"]!;
        var wants = (await _server.GetAsync("/api/session"))["wants"]!.DeepClone();
        Assert.Equal(
            200,
            (await _server.SendAsync(HttpMethod.Put, "/api/session", new { wants, readyAt = (DateTime?)null })).Status
        );
        var first = (string)(await _server.GetAsync("/api/session"))["steps"]![0]!["key"]!;
        await _server.PostAsync("/api/session/done", new { key = first });
        var (_, _) = await BeginAsync();
        Sql(
            $"UPDATE Sessions SET Log = '{{\"done\":[null,{{\"kind\":\"Shot\"}}]}}' WHERE MachineId = {machine} AND EndedAt "
                + "IS NULL"
        );
        var shots = await ShotsAsync();
        await _server.PostAsync("/api/pull/stop");
        for (var i = 0; i < 4; i++)
            await _server.PostAsync("/api/pull/save");
        Assert.Equal(shots + 1, await ShotsAsync());
    }

    [Fact]
    public async Task What_is_thrown_away_lies_in_the_bin_and_comes_back()
    {
        await BeginAsync();
        var shots = await ShotsAsync();
        var id = (int)(await _server.PostAsync("/api/pull/discard"))!["shotId"]!;
        Assert.Equal("Idle", (string)(await _server.GetAsync("/api/pull"))["frame"]!["stage"]!);
        Assert.Equal(shots, await ShotsAsync());
        Assert.Equal(id, (int)(await _server.GetAsync("/api/shots?bin=true"))["shots"]![0]!["id"]!);
        await _server.PostAsync($"/api/shots/{id}/restore");
        Assert.Equal(shots + 1, await ShotsAsync());
    }

    [Fact]
    public async Task A_pull_that_never_began_leaves_nothing_behind()
    {
        await _server.ReadyAsync();
        Assert.Null((int?)(await _server.PostAsync("/api/pull/discard"))!["shotId"]);
        var journal = Path.Combine(_server.Folder, "journal");
        Assert.True(!Directory.Exists(journal) || Directory.GetFiles(journal).Length == 0);
        Assert.Empty((await _server.GetAsync("/api/shots?bin=true"))["shots"]!.AsArray());
    }

    [Fact]
    public async Task The_sheet_that_is_pulled_is_the_one_that_was_seen()
    {
        var seen = (int)(await _server.GetAsync("/api/prepare"))["version"]!;
        await _server.ChangeSheetAsync("doseGrams", 14.5); // another tab
        var (status, problem) = await _server.SendAsync(HttpMethod.Post, "/api/pull/ready", new { sheetVersion = seen });
        Assert.Equal(409, status);
        Assert.Contains("changed on another screen", (string)problem!["detail"]!, StringComparison.Ordinal);
        Assert.Equal("Idle", (string)(await _server.GetAsync("/api/pull"))["frame"]!["stage"]!);
        Assert.Equal(14.5, (double)(await _server.ReadyAsync())["sheet"]!["doseGrams"]!);
    }

    [Fact]
    public async Task A_journal_that_cannot_be_written_stops_no_pull_and_the_trace_can_be_taken_along()
    {
        // a file where the folder should be: nothing can be written there
        await File.WriteAllTextAsync(Path.Combine(_server.Folder, "journal"), "in the way");
        var (id, _) = await BeginAsync();
        await LiveServer.UntilAsync(
            async () =>
                (await _server.GetAsync("/api/pull"))["frame"]!["notices"]!
                    .ToJsonString()
                    .Contains("kept in memory only", StringComparison.Ordinal),
            "it is told"
        );
        File.Delete(Path.Combine(_server.Folder, "journal"));
        await LiveServer.UntilAsync(
            () => Task.FromResult(File.Exists(Path.Combine(_server.Folder, "journal", id + ".pull"))),
            "it is written after all"
        );
        Assert.StartsWith(
            "{",
            await File.ReadAllTextAsync(Path.Combine(_server.Folder, "journal", id + ".pull")),
            StringComparison.Ordinal
        );
        await LiveServer.UntilAsync(
            async () =>
                !(await _server.GetAsync("/api/pull"))["frame"]!["notices"]!
                    .ToJsonString()
                    .Contains("memory only", StringComparison.Ordinal),
            "the notice is gone"
        );
        Assert.StartsWith(
            "time (s)",
            await _server.Http.GetStringAsync(new Uri($"/api/pull/trace.csv?pull={id}", UriKind.Relative)),
            StringComparison.OrdinalIgnoreCase
        );
        await _server.PostAsync("/api/pull/stop");
        Assert.True((int)(await _server.PostAsync("/api/pull/save"))!["shotId"]! > 0);
    }
}
