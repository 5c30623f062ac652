using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using CsCheck;
using Json.Schema;
using Microsoft.Data.Sqlite;
using RuddySpring.Server.Exchange.Households;
using RuddySpring.Store;

namespace RuddySpring.Server.Tests.Exchange;

/// <summary>A household out to one file and in again.</summary>
public sealed class HouseholdFileTests(LiveServer server) : IClassFixture<LiveServer>
{
    private static readonly Lazy<byte[]> Empty = new(() =>
    {
        var folder = Directory.CreateTempSubdirectory("ruddy-household-").FullName;
        StoreFile.Migrate(folder);
        StoreFile.Begin(folder, false, c => c.Households.Add(new() { Name = "Empty" }));
        SqliteConnection.ClearAllPools(); // the last one to close puts everything into the one file
        var bytes = File.ReadAllBytes(StoreFile.PathIn(folder));
        Directory.Delete(folder, recursive: true);
        return bytes;
    });

    [Fact]
    public async Task Any_household_comes_back_equal_in_meaning()
    {
        await RandomHousehold.Any.SampleAsync(
            async household =>
            {
                var text = JsonSerializer.Serialize(household, HouseholdJson.Options);
                var (_, back) = await ThroughAsync(text);
                Assert.Equal(Meaning(text), Meaning(back));
            },
            iter: 60,
            threads: 1
        );
    }

    [Fact]
    public async Task The_sample_household_comes_back_equal_and_a_second_time_adds_nothing()
    {
        var text = await server.Http.GetStringAsync("/api/exchange/household.json");
        var (counts, back) = await ThroughAsync(text);
        Assert.Equal(Meaning(text), Meaning(back));
        Assert.Equal(55, counts.Single(c => c.List == "shots").New);

        var again = await ImportAsync(server, text);
        Assert.All(again["counts"]!.AsArray(), c => Assert.Equal(0, (int)c!["new"]!));
        Assert.Equal(Meaning(text), Meaning(await server.Http.GetStringAsync("/api/exchange/household.json")));
    }

    [Fact]
    public async Task Shots_of_one_machine_and_one_moment_stay_as_many_as_they_are()
    {
        // as moments that are typed may be; more of them than are stored at once
        var file = JsonNode.Parse(await server.Http.GetStringAsync("/api/exchange/household.json"))!;
        var shots = file["shots"]!.AsArray();
        var had = shots.Count;
        for (var i = 1; i <= 150; i++)
        {
            var alike = shots[3]!.DeepClone();
            alike["id"] = 10_000 + i;
            alike["doseGrams"] = 15 + (i / 100.0);
            shots.Add(alike);
        }

        var text = file.ToJsonString();
        await using var empty = new LiveServer { Demo = false };
        await empty.InitializeAsync();
        Assert.Equal((had + 150, 0), ShotsOf(await ImportAsync(empty, text)));
        Assert.Equal((0, had + 150), ShotsOf(await ImportAsync(empty, text)));
        var back = JsonNode.Parse(await empty.Http.GetStringAsync("/api/exchange/household.json"))!["shots"]!.AsArray();
        Assert.Equal(shots.Select(s => (double)s!["doseGrams"]!).Order(), back.Select(s => (double)s!["doseGrams"]!).Order());
    }

    [Fact]
    public async Task A_pull_that_is_in_a_file_twice_is_one_shot()
    {
        var file = JsonNode.Parse(await server.Http.GetStringAsync("/api/exchange/household.json"))!;
        var shots = file["shots"]!.AsArray();
        var had = shots.Count;
        shots[3]!["pullId"] = "one-pull";
        var twice = shots[3]!.DeepClone();
        twice["id"] = 10_000;
        twice["pulledAt"] = "2026-10-01T06:00:00Z";
        shots.Add(twice);
        var (counts, _) = await ThroughAsync(file.ToJsonString());
        var taken = counts.Single(c => c.List == "shots");
        Assert.Equal((had, 1), (taken.New, taken.Already));
    }

    private static (int New, int Already) ShotsOf(JsonNode state) =>
        state["counts"]!
            .AsArray()
            .Where(c => (string)c!["list"]! == "shots")
            .Select(c => ((int)c!["new"]!, (int)c["already"]!))
            .Single();

    [Fact]
    public async Task What_leaves_with_a_hundred_thousand_shots_is_small_enough_to_come_in_again()
    {
        var file = JsonNode.Parse(await server.Http.GetStringAsync("/api/exchange/household.json"))!;
        var shots = file["shots"]!.AsArray();
        var bytes = shots.Average(s => (double)Encoding.UTF8.GetByteCount(s!.ToJsonString())) * 100_000;
        Assert.InRange(bytes, 0.5e9, HouseholdImports.LargestFile / 2.0);
    }

    [Fact]
    public async Task The_file_fits_its_schema_by_a_validator_that_knows_nothing_of_it()
    {
        var schema = JsonSchema.FromText(await server.Http.GetStringAsync("/api/exchange/household.schema.json"));
        var file = JsonNode.Parse(await server.Http.GetStringAsync("/api/exchange/household.json"))!;
        Assert.True(schema.Evaluate(file).IsValid);
        foreach (
            var break_ in new Action<JsonNode>[]
            {
                f => f["format"] = "something-else",
                f => f["shots"]![0]!["doseGrams"] = "15",
                f => f["shots"]![0]!.AsObject().Remove("pulledAt"),
                f => f["machines"]![0]!["spec"]!["family"] = "Pump",
            }
        )
        {
            var broken = JsonNode.Parse(file.ToJsonString())!;
            break_(broken);
            Assert.False(schema.Evaluate(broken).IsValid);
        }

        var published = await File.ReadAllTextAsync(Path.Combine(Root(), "docs", "household.schema.json"));
        Assert.True(
            JsonNode.DeepEquals(JsonNode.Parse(published), HouseholdJson.Schema()),
            "docs/household.schema.json is not what the program says; fetch it again from /api/exchange/household.schema.json."
        );
    }

    [Theory]
    [InlineData("{", "cut off")]
    [InlineData("[]", "must be one JSON object")]
    [InlineData("not json", "not valid JSON")]
    [InlineData("{\"format\":\"another\"}", "not a household")]
    [InlineData("{\"shots\":[]}", "not a household")]
    [InlineData("{\"format\":\"ruddy-spring-household\",\"version\":9}", "version 9")]
    [InlineData("{\"format\":\"ruddy-spring-household\",\"colour\":1}", "colour")]
    public async Task What_is_no_household_is_said(string text, string part) =>
        Assert.Contains(part, await RefusedAsync(text), StringComparison.Ordinal);

    [Theory]
    [InlineData("\"doseGrams\":15", "\"doseGrams\":1e308", "Dose")]
    [InlineData("\"doseGrams\":15", "\"doseGrams\":NaN", "not valid JSON")]
    [InlineData("\"doseGrams\":15", "\"doseGrams\":null", "doseGrams")]
    [InlineData("\"machineId\":1,", "\"machineId\":77,", "no such entry in machines")]
    [InlineData("\"source\":\"MadeUp\"", "\"source\":\"Stolen\"", "source")]
    [InlineData("\"pulledAt\":\"YEAR", "\"pulledAt\":\"0000", "pulledAt")]
    [InlineData("\"pulledAt\":\"YEAR", "\"pulledAt\":\"9999", "must lie between")]
    [InlineData("\"words\":\"", "\"words\":\"\\u0000", "cannot be shown")]
    [InlineData("\"id\":2,\"pulledAt\"", "\"id\":1,\"pulledAt\"", "appears twice")]
    [InlineData("\"seconds\":[0,", "\"seconds\":[5000,", "Time of a sample")]
    [InlineData("\"values\":[", "\"values\":[1,", "as many of each")]
    [InlineData("\"marked\":{\"firstPressure\":null", "\"marked\":{\"firstPressure\":1e300", "FirstPressure is")]
    public async Task A_faulty_shot_is_named_by_its_line_and_nothing_changes(string from, string to, string part)
    {
        var text = await server.Http.GetStringAsync("/api/exchange/household.json");
        var shots = text.IndexOf("\"shots\":[", StringComparison.Ordinal);
        const string pulledAt = "\"pulledAt\":\"";
        from = from.Replace(
            "YEAR",
            text.Substring(text.IndexOf(pulledAt, shots, StringComparison.Ordinal) + pulledAt.Length, 4),
            StringComparison.Ordinal
        );
        var at = text.IndexOf(from, shots, StringComparison.Ordinal);
        Assert.True(at > 0);
        var line = text[..at].Count(c => c == '\n') + 1;
        var problem = await RefusedAsync(text[..at] + to + text[(at + from.Length)..]);
        Assert.Contains(part, problem, StringComparison.Ordinal);
        Assert.Contains($"line {line}", problem, StringComparison.OrdinalIgnoreCase);
    }

    [Fact]
    public async Task A_file_cut_off_anywhere_is_refused()
    {
        var text = await server.Http.GetStringAsync("/api/exchange/household.json");
        foreach (var share in new[] { 0.001, 0.1, 0.5, 0.9, 0.9999 })
        {
            var problem = await RefusedAsync(text[..(int)(share * (text.Length - 3))]);
            Assert.Contains("cut off", problem, StringComparison.Ordinal);
        }
    }

    [Fact]
    public async Task An_import_can_be_given_up_and_one_goes_at_a_time()
    {
        var text = await server.Http.GetStringAsync("/api/exchange/household.json");
        await using var empty = new LiveServer { Demo = false };
        await empty.InitializeAsync();
        var state = await BeginAsync(empty, text);
        var token = (string)state["token"]!;
        await UntilAsync(empty, token, "Checked");
        Assert.Equal(204, (await empty.SendAsync(HttpMethod.Delete, $"/api/exchange/household/{token}", null)).Status);
        Assert.Equal(404, (await empty.SendAsync(HttpMethod.Get, $"/api/exchange/household/{token}", null)).Status);
        Assert.Equal(0, (int)(await empty.GetAsync("/api/shots"))["total"]!);
        Assert.Empty(Directory.GetFiles(empty.Folder, "*.incoming"));
    }

    [Fact]
    public async Task A_piece_that_never_ends_is_refused()
    {
        var text =
            "{\"format\":\"ruddy-spring-household\",\"shots\":[{\"words\":\""
            + $"{new string('x', SectionReader.LargestPiece + 10)}\"}}]}}";
        Assert.Contains("larger than 16 MB", await RefusedAsync(text), StringComparison.Ordinal);
    }

    private static string Root()
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (!File.Exists(Path.Combine(folder.FullName, "RuddySpring.slnx")))
            folder = folder.Parent!;
        return folder.FullName;
    }

    /// <summary>Without what differs though the meaning is the same: when it was written, and what is worked out of
    /// traces.</summary>
    private static string Meaning(string text)
    {
        var file = JsonNode.Parse(text)!.AsObject();
        file.Remove("writtenAt");
        foreach (var shot in file["shots"]!.AsArray())
        {
            if (shot!["trace"]!.AsArray().Any(s => s!["seconds"]!.AsArray().Count > 0))
                shot["measures"] = null;
        }

        return file.ToJsonString();
    }

    private static async Task<(IReadOnlyList<TakenIn> Counts, string Back)> ThroughAsync(string text)
    {
        var folder = Directory.CreateTempSubdirectory("ruddy-household-").FullName;
        try
        {
            await File.WriteAllBytesAsync(StoreFile.PathIn(folder), Empty.Value);
            await using var db = new RuddyContext(StoreFile.Options(folder));
            var intake = new HouseholdIntake(db, TimeProvider.System, isStored: true, withSettings: true);
            using var file = new MemoryStream(Encoding.UTF8.GetBytes(text));
            await foreach (var piece in new SectionReader(file).ReadAsync(CancellationToken.None))
                await intake.TakeAsync(piece, CancellationToken.None);
            await intake.EndAsync(CancellationToken.None);
            using var back = new MemoryStream();
            await new HouseholdWriter(db, back).WriteAsync(DateTime.UtcNow, CancellationToken.None);
            return (intake.Counts, Encoding.UTF8.GetString(back.ToArray()));
        }
        finally
        {
            SqliteConnection.ClearAllPools();
            Directory.Delete(folder, recursive: true);
        }
    }

    private static async Task<JsonNode> BeginAsync(LiveServer server, string text)
    {
        using var content = new StringContent(text, Encoding.UTF8, "application/json");
        using var answer = await server.Http.PostAsync("/api/exchange/household", content);
        return JsonNode.Parse(await answer.Content.ReadAsStringAsync())!;
    }

    private static async Task<JsonNode> UntilAsync(LiveServer server, string token, params string[] phases)
    {
        using var limit = new CancellationTokenSource(TimeSpan.FromSeconds(60));
        while (true)
        {
            var state = await server.GetAsync($"/api/exchange/household/{token}");
            if (phases.Contains((string)state["phase"]!))
                return state;
            await Task.Delay(20, limit.Token);
        }
    }

    private static async Task<JsonNode> ImportAsync(LiveServer server, string text)
    {
        var token = (string)(await BeginAsync(server, text))["token"]!;
        var state = await UntilAsync(server, token, "Checked", "Failed");
        Assert.True((string)state["phase"]! == "Checked", state.ToJsonString());
        await server.PostAsync($"/api/exchange/household/{token}/store", new JsonObject());
        return await UntilAsync(server, token, "Stored", "Failed");
    }

    private async Task<string> RefusedAsync(string text)
    {
        var before = Meaning(await server.Http.GetStringAsync("/api/exchange/household.json"));
        var token = (string)(await BeginAsync(server, text))["token"]!;
        var state = await UntilAsync(server, token, "Checked", "Failed");
        Assert.Equal("Failed", (string)state["phase"]!);
        Assert.Equal(
            409,
            (await server.SendAsync(HttpMethod.Post, $"/api/exchange/household/{token}/store", new JsonObject())).Status
        );
        Assert.Equal(before, Meaning(await server.Http.GetStringAsync("/api/exchange/household.json")));
        return (string)state["problem"]!;
    }
}
