using System.Net.Http.Json;
using System.Text.Json.Nodes;

namespace RuddySpring.Server.Tests;

/// <summary>The sample household that one looks around in: apart from one's own, and gone without a trace.</summary>
public sealed class SampleBenchTests : IAsyncLifetime
{
    private readonly LiveServer _server = new() { Demo = false };

    public ValueTask InitializeAsync() => _server.InitializeAsync();

    public ValueTask DisposeAsync() => _server.DisposeAsync();

    [Fact]
    public async Task It_has_its_own_store_and_knows_the_way_back()
    {
        var opened = await _server.PostAsync("/api/sample/open", null);
        using var sample = new HttpClient { BaseAddress = new Uri((string)opened!["url"]!) };
        var household = JsonNode.Parse(await sample.GetStringAsync("/api/household"))!;
        Assert.Equal(_server.Address.GetLeftPart(UriPartial.Authority), (string)household["home"]!);
        Assert.True((bool)household["madeUp"]!);
        Assert.InRange((int)JsonNode.Parse(await sample.GetStringAsync("/api/shots"))!["total"]!, 20, 1000);
        Assert.Equal(0, (int)(await _server.GetAsync("/api/shots"))["total"]!);
        Assert.Null((string?)(await _server.GetAsync("/api/household"))["home"]);

        // what is changed there stays there
        using var named = await sample.PostAsJsonAsync("/api/bench/brewers", new { name = "Passer-by" });
        named.EnsureSuccessStatusCode();
        Assert.Empty((await _server.GetAsync("/api/bench"))["brewers"]!.AsArray());

        // asked for twice it is the same one; left it is gone, and can be made again
        Assert.Equal((string)opened["url"]!, (string)(await _server.PostAsync("/api/sample/open", null))!["url"]!);
        await _server.PostAsync("/api/sample/close", null);
        await Assert.ThrowsAnyAsync<HttpRequestException>(() => sample.GetStringAsync("/api/household"));
        var again = await _server.PostAsync("/api/sample/open", null);
        using var second = new HttpClient { BaseAddress = new Uri((string)again!["url"]!) };
        Assert.DoesNotContain("Passer-by", await second.GetStringAsync("/api/bench"), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Its_store_is_removed_when_it_is_left_or_the_server_ends()
    {
        var before = Visits();
        await _server.PostAsync("/api/sample/open", null);
        var mine = Assert.Single(Visits().Except(before));
        await _server.StopAsync();
        Assert.False(Directory.Exists(mine));
    }

    [Fact]
    public async Task What_a_killed_server_left_behind_is_removed_and_what_is_in_use_is_not()
    {
        var left = Directory.CreateTempSubdirectory("ruddy-visit-").FullName;
        var used = Directory.CreateTempSubdirectory("ruddy-visit-").FullName;
        using (Store.FolderLock.Take(used, TimeSpan.Zero, _ => { }))
        {
            await _server.PostAsync("/api/sample/open", null);
            Assert.False(Directory.Exists(left));
            Assert.True(Directory.Exists(used));
        }

        Directory.Delete(used, true);
    }

    [Fact]
    public async Task A_sample_household_has_no_sample()
    {
        await using var sample = new LiveServer();
        await sample.InitializeAsync();
        var (status, _) = await sample.SendAsync(HttpMethod.Post, "/api/sample/open");
        Assert.Equal(404, status);
    }

    private static List<string> Visits() => [.. Directory.EnumerateDirectories(Path.GetTempPath(), "ruddy-visit-*")];
}
