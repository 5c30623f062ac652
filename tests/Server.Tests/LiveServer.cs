using System.Diagnostics;
using System.Net.Http.Json;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.Builder;
using Microsoft.Extensions.DependencyInjection;
using RuddySpring.Server.Hosting;
using RuddySpring.Store;

namespace RuddySpring.Server.Tests;

/// <summary>The real application on a real port over a real file, in a folder of its own.</summary>
public sealed class LiveServer : IAsyncLifetime
{
    private WebApplication? _app;
    private IDisposable? _held;

    /// <summary>The data folder.</summary>
    public string Folder { get; } = Directory.CreateTempSubdirectory("ruddy-").FullName;

    /// <summary>Whether the sample household is in it.</summary>
    public bool Demo { get; init; } = true;

    /// <summary>How many times as fast as life pulls run.</summary>
    public double Speed { get; init; } = 1;

    /// <summary>Up to which size the database is looked over before the start.</summary>
    public long LookOverBytes { get; init; } = long.MaxValue;

    /// <summary>Port for the home network, once it is turned on.</summary>
    public int HomePort { get; init; } = 5190;

    /// <summary>Certificate and key for the home network.</summary>
    public (string File, string Key)? Certificate { get; init; }

    /// <summary>Does something to the database's file before the start.</summary>
    public Action<string>? Before { get; init; }

    public HttpClient Http { get; private set; } = new();

    public Uri Address => Http.BaseAddress!;

    public Uri Instruments => new($"ws://{Address.Authority}/instruments");

    // the sample takes a second or two to make: it is made once and copied
    private static readonly Lazy<byte[]> Sample = new(() =>
    {
        var folder = Directory.CreateTempSubdirectory("ruddy-sample-").FullName;
        RuddyServer.PrepareData(new ServerOptions(0, folder, true, folder), DateTime.UtcNow).Dispose();
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools(); // the last one to close puts everything into the one file
        var bytes = File.ReadAllBytes(StoreFile.PathIn(folder));
        Directory.Delete(folder, recursive: true);
        return bytes;
    });

    public async ValueTask InitializeAsync()
    {
        if (Demo)
            await File.WriteAllBytesAsync(StoreFile.PathIn(Folder), Sample.Value);
        Before?.Invoke(StoreFile.PathIn(Folder));
        var options = new ServerOptions(0, Folder, Demo, Folder, Speed, LookOverBytes: LookOverBytes, LookOverAfterSeconds: 1)
        {
            HomePort = HomePort,
            Certificate = Certificate?.File,
            CertificateKey = Certificate?.Key,
        };
        _held = RuddyServer.PrepareData(options, DateTime.UtcNow);
        _app = RuddyServer.Build(options);
        await _app.StartAsync();
        Http = new HttpClient { BaseAddress = new Uri(_app.Urls.First()) };
    }

    /// <summary>Ends the application as Ctrl-C does, and waits until it has said goodbye to everyone.</summary>
    public Task StopAsync() => _app!.StopAsync();

    public async ValueTask DisposeAsync()
    {
        Http.Dispose();
        if (_app is not null)
        {
            await _app.StopAsync();
            await _app.DisposeAsync();
        }

        _held?.Dispose();
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        Directory.Delete(Folder, recursive: true);
    }

    /// <summary>One of the application's own parts.</summary>
    public T Service<T>()
        where T : notnull => _app!.Services.GetRequiredService<T>();

    /// <summary>GET as JSON; the status must be 200.</summary>
    public async Task<JsonNode> GetAsync(string path) => (await Http.GetFromJsonAsync<JsonNode>(path))!;

    /// <summary>Sends JSON and gives status and answer; a change without a version goes with the one that is there, as from a
    /// fresh page.</summary>
    public async Task<(int Status, JsonNode? Body)> SendAsync(HttpMethod method, string path, object? body = null)
    {
        if ((method == HttpMethod.Put || method == HttpMethod.Patch) && !path.Contains("version=", StringComparison.Ordinal))
            path = $"{path}?version={await VersionAsync(path)}";
        using var request = new HttpRequestMessage(method, path);
        if (body is not null)
            request.Content = JsonContent.Create(body);
        using var response = await Http.SendAsync(request);
        var text = await response.Content.ReadAsStringAsync();
        return ((int)response.StatusCode, text.Length == 0 ? null : JsonNode.Parse(text));
    }

    private async Task<int> VersionAsync(string path)
    {
        var parts = path.Split('/', StringSplitOptions.RemoveEmptyEntries);
        async Task<JsonNode?> OfBench(string things, string id) =>
            (await GetAsync("/api/bench"))[things]!.AsArray().FirstOrDefault(t => $"{t!["id"]}" == id)?["version"];
        var version = parts switch
        {
            ["api", "prepare"] => (await GetAsync("/api/prepare"))["version"],
            ["api", "session"] => (await GetAsync("/api/session"))["wantsVersion"],
            ["api", "household"] => (await GetAsync("/api/household"))["version"],
            ["api", "bench", "rest"] => (await GetAsync("/api/bench"))["householdVersion"],
            ["api", "bench", var things, var id] => await OfBench(things, id),
            ["api", "plans", var id] => await OfBench("planVersions", id),
            ["api", "shots", var id, ..] => (await GetAsync($"/api/shots/{id}"))["shot"]!["version"],
            _ => null,
        };
        return version is null ? 0 : (int)version;
    }

    /// <summary>POST that must succeed.</summary>
    public async Task<JsonNode?> PostAsync(string path, object? body = null)
    {
        var (status, answer) = await SendAsync(HttpMethod.Post, path, body);
        Assert.True(status is 200 or 204, $"{path}: {status} {answer}");
        return answer;
    }

    /// <summary>Waits until something holds, at most a minute.</summary>
    public static async Task UntilAsync(Func<Task<bool>> holds, string what)
    {
        var end = DateTime.UtcNow.AddMinutes(1);
        while (DateTime.UtcNow < end)
        {
            if (await holds())
                return;
            await Task.Delay(20);
        }

        Assert.Fail($"Waited in vain until {what}.");
    }

    /// <summary>That something takes less than some seconds. It is done four times at most: a computer that has other work is
    /// slow now and then, and what is slow by itself is so each time.</summary>
    public static Task WithinAsync(double seconds, Func<Task> act) => WithinAsync(seconds, () => TimeAsync(act));

    /// <inheritdoc cref="WithinAsync(double, Func{Task})"/>
    /// <param name="seconds">The limit.</param>
    /// <param name="time">Does it, and says how long it took, s.</param>
    public static async Task WithinAsync(double seconds, Func<Task<double>> time)
    {
        var took = new List<double>();
        do took.Add(await time());
        while (took.Count < 4 && took[^1] >= seconds);
        Assert.True(
            took[^1] < seconds,
            FormattableString.Invariant($"took {took[^1]:0.0} s, after {took.Count - 1} other tries")
        );
    }

    /// <summary>How long something takes, s.</summary>
    public static async Task<double> TimeAsync(Func<Task> act)
    {
        var clock = Stopwatch.StartNew();
        await act();
        return clock.Elapsed.TotalSeconds;
    }

    /// <summary>The sheet as it stands, changed in one field and put back.</summary>
    public async Task<JsonNode> ChangeSheetAsync(string field, object? value)
    {
        var answer = await GetAsync("/api/prepare");
        var sheet = answer["sheet"]!.DeepClone();
        sheet[field] = value is null ? null : JsonSerializer.SerializeToNode(value);
        return await PutSheetAsync(sheet, (int)answer["version"]!);
    }

    /// <summary>Puts a whole sheet, in the place of the version given or of the one that is there.</summary>
    public async Task<JsonNode> PutSheetAsync(JsonNode sheet, int? version = null)
    {
        var (status, body) = await SendAsync(
            HttpMethod.Put,
            version is null ? "/api/prepare" : $"/api/prepare?version={version}",
            sheet
        );
        Assert.True(status == 200, $"{status} {body}");
        return body!;
    }

    /// <summary>Makes a pull ready of the sheet as it stands.</summary>
    public async Task<JsonNode> ReadyAsync() =>
        (await PostAsync("/api/pull/ready", new { sheetVersion = (int)(await GetAsync("/api/prepare"))["version"]! }))!;
}
