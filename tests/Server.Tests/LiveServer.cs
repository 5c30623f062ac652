using System.Net.Http.Json;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.Builder;
using RuddySpring.Server.Hosting;

namespace RuddySpring.Server.Tests;

/// <summary>The real application on a real port over a real file, in a folder of its own.</summary>
public sealed class LiveServer : IAsyncLifetime
{
    private WebApplication? _app;

    /// <summary>The data folder.</summary>
    public string Folder { get; } = Directory.CreateTempSubdirectory("ruddy-").FullName;

    /// <summary>Whether the sample household is in it.</summary>
    public bool Demo { get; init; } = true;

    /// <summary>How many times as fast as life pulls run.</summary>
    public double Speed { get; init; } = 1;

    public HttpClient Http { get; private set; } = new();

    public Uri Address => Http.BaseAddress!;

    public Uri Instruments => new($"ws://{Address.Authority}/instruments");

    public async ValueTask InitializeAsync()
    {
        var options = new ServerOptions(0, Folder, Demo, Folder, Speed);
        RuddyServer.PrepareData(options, DateTime.UtcNow);
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

        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        Directory.Delete(Folder, recursive: true);
    }

    /// <summary>GET as JSON; the status must be 200.</summary>
    public async Task<JsonNode> GetAsync(string path) => (await Http.GetFromJsonAsync<JsonNode>(path))!;

    /// <summary>Sends JSON and gives status and answer.</summary>
    public async Task<(int Status, JsonNode? Body)> SendAsync(HttpMethod method, string path, object? body = null)
    {
        using var request = new HttpRequestMessage(method, path);
        if (body is not null) request.Content = JsonContent.Create(body);
        using var response = await Http.SendAsync(request);
        var text = await response.Content.ReadAsStringAsync();
        return ((int)response.StatusCode, text.Length == 0 ? null : JsonNode.Parse(text));
    }

    /// <summary>POST that must succeed.</summary>
    public async Task<JsonNode?> PostAsync(string path, object? body = null)
    {
        var (status, answer) = await SendAsync(HttpMethod.Post, path, body);
        Assert.True(status is 200 or 204, $"{path}: {status} {answer}");
        return answer;
    }

    /// <summary>Waits until something holds, at most 20 s.</summary>
    public static async Task UntilAsync(Func<Task<bool>> holds, string what)
    {
        var end = DateTime.UtcNow.AddSeconds(20);
        while (DateTime.UtcNow < end)
        {
            if (await holds()) return;
            await Task.Delay(20);
        }

        Assert.Fail($"Waited in vain until {what}.");
    }

    /// <summary>The sheet as it stands, changed in one field and put back.</summary>
    public async Task<JsonNode> ChangeSheetAsync(string field, object? value)
    {
        var sheet = (await GetAsync("/api/prepare"))["sheet"]!.DeepClone();
        sheet[field] = value is null ? null : JsonSerializer.SerializeToNode(value);
        var (status, body) = await SendAsync(HttpMethod.Put, "/api/prepare", sheet);
        Assert.Equal(200, status);
        return body!;
    }
}
