using System.Text.Json.Nodes;
using Microsoft.AspNetCore.SignalR.Client;

namespace RuddySpring.Server.Tests.Practice;

/// <summary>Lessons played over the real hub; the clock runs ten times as fast as life.</summary>
public sealed class PracticeTests : IAsyncLifetime
{
    private readonly LiveServer _server = new() { Speed = 10 };

    public ValueTask InitializeAsync() => _server.InitializeAsync();

    public ValueTask DisposeAsync() => _server.DisposeAsync();

    private async Task<JsonNode> BeginAsync(string lesson, int? machineId = null) =>
        (await _server.PostAsync("/api/practice", new { lesson, machineId }))!;

    private async Task<JsonNode> LessonAsync(string key) =>
        (await _server.GetAsync("/api/practice"))["lessons"]!.AsArray().Single(l => (string)l!["key"]! == key)!;

    [Fact]
    public async Task A_lesson_is_played_over_the_hub_scored_and_remembered_apart_from_the_shots()
    {
        var shots = (int)(await _server.GetAsync("/api/shots?size=1"))["total"]!;
        Assert.Equal("hold-3", (string)(await _server.GetAsync("/api/practice"))["next"]!);
        var view = await BeginAsync("hold-3");
        var id = (string)view["id"]!;
        Assert.Equal("Press", (string)view["control"]!);
        await using var hub = new HubConnectionBuilder().WithUrl(new Uri(_server.Address, "/live")).Build();
        double bar = 0,
            effort = 0.3;
        var frames = 0;
        var over = new TaskCompletionSource();
        hub.On<JsonNode>("practice", f =>
        {
            frames++;
            if ((double?)f["frame"]!["reading"]!["pressureBar"] is { } seen)
                bar = seen;
            if ((bool)f["over"]!)
                over.TrySetResult();
        });
        await hub.StartAsync();
        await hub.InvokeAsync("JoinPractice", id);
        for (var i = 0; i < 400 && !over.Task.IsCompleted; i++)
        {
            effort = Math.Clamp(effort + ((3 - bar) * 0.02), 0, 1);
            await hub.InvokeAsync("Practise", id, effort);
            await Task.Delay(10);
        }

        await over.Task.WaitAsync(TimeSpan.FromSeconds(60));
        Assert.True(frames > 20);
        var result = (await _server.PostAsync($"/api/practice/{id}/end"))!;
        Assert.InRange((int)result["score"]!["points"]!, 40, 100);
        Assert.Null((int?)result["best"]);
        Assert.Equal("first-drops", (string)result["next"]!);
        var played = Assert.Single((await LessonAsync("hold-3"))["played"]!.AsArray())!;
        Assert.Equal((int)result["score"]!["points"]!, (int)played["points"]!);
        Assert.Equal(404, (await _server.SendAsync(HttpMethod.Post, $"/api/practice/{id}/end")).Status);
        // never mixed with real shots
        Assert.Equal(shots, (int)(await _server.GetAsync("/api/shots?size=1"))["total"]!);
        Assert.Equal("Idle", (string)(await _server.GetAsync("/api/pull"))["frame"]!["stage"]!);
    }

    [Fact]
    public async Task A_lesson_that_needs_a_spring_or_a_pump_brings_its_own()
    {
        var view = await BeginAsync("half-pulls");
        Assert.Equal("HoldBack", (string)view["control"]!);
        Assert.Equal("Spring", (string)view["pressureBy"]!);
        Assert.Equal("Pump", (string)(await BeginAsync("pump-rest"))["control"]!);
        var machines = (await _server.GetAsync("/api/bench"))["machines"]!.AsArray();
        var spring = machines.First(m => (string)m!["spec"]!["family"]! == "BoilerSpring")!;
        Assert.Equal((string)spring["name"]!, (string)(await BeginAsync("half-pulls", (int)spring["id"]!))["machineName"]!);
        // an arm's lesson on a machine without an arm is played on a portable lever
        Assert.Equal("Press", (string)(await BeginAsync("hold-3", (int)spring["id"]!))["control"]!);
    }

    [Fact]
    public async Task First_drops_are_marked_and_letting_go_ends_it()
    {
        var view = await BeginAsync("first-drops");
        var id = (string)view["id"]!;
        await using var hub = new HubConnectionBuilder().WithUrl(new Uri(_server.Address, "/live")).Build();
        await hub.StartAsync();
        await hub.InvokeAsync("Practise", id, 0.4);
        await Task.Delay(400);
        await _server.PostAsync($"/api/practice/{id}/drops");
        await _server.PostAsync($"/api/practice/{id}/let-go");
        var parts = (await _server.PostAsync($"/api/practice/{id}/end"))!["score"]!["parts"]!.AsArray();
        Assert.Equal(["Drops", "Phases"], parts.Select(p => (string)p!["of"]!));
    }

    [Fact]
    public async Task What_makes_no_sense_is_said()
    {
        var (status, problem) = await _server.SendAsync(
            HttpMethod.Post,
            "/api/practice",
            new { lesson = "juggling", machineId = (int?)null }
        );
        Assert.Equal(400, status);
        Assert.Equal("lesson", (string)problem!["field"]!);
        Assert.Equal(
            404,
            (await _server.SendAsync(HttpMethod.Post, "/api/practice", new { lesson = "hold-3", machineId = 999 })).Status
        );
        Assert.Equal(404, (await _server.SendAsync(HttpMethod.Post, "/api/practice/nothing/drops")).Status);
        await using var hub = new HubConnectionBuilder().WithUrl(new Uri(_server.Address, "/live")).Build();
        await hub.StartAsync();
        await hub.InvokeAsync("Practise", "nothing", 0.5); // left out
        for (var i = 0; i < 8; i++)
            await BeginAsync("hold-3");
        var (full, sentence) = await _server.SendAsync(
            HttpMethod.Post,
            "/api/practice",
            new { lesson = "hold-3", machineId = (int?)null }
        );
        Assert.Equal(409, full);
        Assert.Contains("8 lessons", (string)sentence!["detail"]!, StringComparison.Ordinal);
    }
}
