using RuddySpring.Attacks;

namespace RuddySpring.Server.Tests;

/// <summary>Odd requests, short; at length when measuring.</summary>
public sealed class FuzzTests
{
    [Fact]
    public async Task Five_hundred_odd_requests_get_sentences_and_store_nothing_odd()
    {
        await using var server = new LiveServer();
        await server.InitializeAsync();
        var outcome = await new Fuzz(await server.GetAsync("/api/openapi.json"), seed: 21).RunAsync(server.Http, 500);
        Assert.True(outcome.Faults.Count == 0, string.Join("\n", outcome.Faults));
        Assert.InRange(outcome.Accepted, 50, 450); // most are nearly right
        var bench = await server.GetAsync("/api/bench");
        Assert.All(bench["machines"]!.AsArray(), m => Assert.Null(m!["problem"]));
        Assert.All(bench["bags"]!.AsArray(), b => Assert.InRange((double?)b!["gramsLeft"] ?? 0, 0, 5000));
        foreach (var path in new[] { "/api/prepare", "/api/session", "/api/shots", "/api/practice", "/api/pull" })
        {
            var (status, answer) = await server.SendAsync(HttpMethod.Get, path);
            // where every machine was put away there is nothing to prepare or to warm, and that is said
            var isBare = status == 404 && bench["machines"]!.AsArray().Count == 0 && (path is "/api/prepare" or "/api/session");
            Assert.True(isBare ? $"{answer!["detail"]}".Contains("no machine") : status == 200, $"{path}: {status} {answer}");
        }
    }
}

/// <summary>Kills, few; two hundred when measuring.</summary>
public sealed class KillTests
{
    [Fact]
    public async Task Eight_kills_lose_nothing()
    {
        foreach (var outcome in await Task.WhenAll(Kills.RunAsync(4, seed: 5), Kills.RunAsync(4, seed: 6)))
        {
            Assert.True(outcome.Faults.Count == 0, string.Join("\n", outcome.Faults));
            Assert.True(outcome.LongestStartSeconds < Kills.LongestStart);
        }
    }

    [Fact]
    public async Task Kills_amid_backups_restores_and_imports_leave_what_was_or_what_is_to_be()
    {
        foreach (var outcome in await Task.WhenAll(DataKills.RunAsync(2, seed: 7), DataKills.RunAsync(2, seed: 8)))
            Assert.True(outcome.Faults.Count == 0, string.Join("\n", outcome.Faults));
    }
}

/// <summary>A soak of some seconds; of ten minutes when measuring.</summary>
public sealed class SoakTests
{
    [Fact]
    public async Task A_pull_goes_on_while_everything_round_it_goes_wrong()
    {
        var outcome = await Soak.RunAsync(14, seed: 9);
        Assert.True(outcome.Faults.Count == 0, string.Join("\n", outcome.Faults));
        Assert.Equal(outcome.Sent, outcome.Kept);
        Assert.True(outcome.FullDisks > 0, "the disk was never full");
    }
}
