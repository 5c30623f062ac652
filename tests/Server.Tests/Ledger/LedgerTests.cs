using System.Text.Json.Nodes;
using RuddySpring.Server.Ledger;
using RuddySpring.Store;

namespace RuddySpring.Server.Tests.Ledger;

public sealed class LedgerTests(LiveServer server) : IClassFixture<LiveServer>
{
    [Fact]
    public async Task Pages_run_newest_first_and_do_not_overlap()
    {
        var first = await server.GetAsync("/api/shots?page=0&size=10");
        var second = await server.GetAsync("/api/shots?page=1&size=10");
        int[] ids = [.. first["shots"]!.AsArray().Concat(second["shots"]!.AsArray()).Select(s => (int)s!["id"]!)];
        Assert.Equal(20, ids.Distinct().Count());
        Assert.Equal(ids.OrderDescending(), ids);
        Assert.Equal(60, Convert.FromBase64String((string)first["shots"]![0]!["smallPressure"]!).Length);
    }

    [Fact]
    public async Task Lines_come_in_the_order_of_their_numbers_without_those_that_are_gone()
    {
        using var db = new RuddyContext(StoreFile.Options(server.Folder));
        var lines = await LedgerLines.ReadAsync(db, [7, 1_000_000, 3, 9], CancellationToken.None);
        Assert.Equal([7, 3, 9], lines.Select(l => l.Id));
    }

    [Fact]
    public async Task A_shot_is_the_same_in_a_page_and_by_itself()
    {
        foreach (var line in (await server.GetAsync("/api/shots?size=200"))["shots"]!.AsArray())
        {
            var whole = await server.GetAsync($"/api/shots/{line!["id"]}");
            Assert.True(JsonNode.DeepEquals(line, whole["shot"]), $"Shot {line["id"]} is\n{line}\nand\n{whole["shot"]}");
        }
    }

    [Fact]
    public async Task A_page_comes_in_one_piece_with_its_length()
    {
        using var answer = await server.Http.GetAsync(
            new Uri("/api/shots?size=50", UriKind.Relative),
            HttpCompletionOption.ResponseHeadersRead
        );
        var length = answer.Content.Headers.ContentLength;
        Assert.Equal("application/json", answer.Content.Headers.ContentType?.MediaType);
        var body = await answer.Content.ReadAsByteArrayAsync();
        // more than the framework sends at a time
        Assert.True(body.Length > 20_000, $"{body.Length} bytes are no test of it");
        Assert.Equal(body.Length, length);
        Assert.Equal(50, JsonNode.Parse(body)!["shots"]!.AsArray().Count);
    }

    [Fact]
    public async Task Search_and_filters_narrow()
    {
        var all = (int)(await server.GetAsync("/api/shots?size=1"))["total"]!;
        var ember = await server.GetAsync("/api/shots?size=200&search=EMBER%20pack");
        Assert.InRange((int)ember["total"]!, 1, all - 1);
        Assert.All(ember["shots"]!.AsArray(), s => Assert.Equal("Stove Ember", (string)s!["bag"]!));
        Assert.All(ember["shots"]!.AsArray(), s => Assert.Equal("Pack lever", (string)s!["machine"]!));
        var liked = await server.GetAsync("/api/shots?size=200&minLiking=4");
        Assert.All(liked["shots"]!.AsArray(), s => Assert.True((int)s!["taste"]!["liking"]! >= 4));
        Assert.Equal(0, (int)(await server.GetAsync("/api/shots?search=walrus"))["total"]!);
        Assert.Equal(400, (await server.SendAsync(HttpMethod.Get, "/api/shots?size=5000")).Status);
    }

    /// <summary>A page may come before its count; both ways say the same, whatever is looked for.</summary>
    [Theory]
    [InlineData("")]
    [InlineData("minLiking=4")]
    [InlineData("search=ember%20pack")]
    [InlineData("search=ember&machineId=3")]
    [InlineData("search=walrus")]
    [InlineData("bin=true")]
    public async Task What_fits_is_counted_with_its_page_or_beside_it(string filter)
    {
        var with = await server.GetAsync($"/api/shots?size=3&{filter}");
        var without = await server.GetAsync($"/api/shots?size=3&count=false&{filter}");
        var beside = await server.GetAsync($"/api/shots/count?{filter}");
        Assert.Equal(((int)with["total"]!, (bool)with["isMore"]!), ((int)beside["total"]!, (bool)beside["isMore"]!));
        Assert.Equal(with["shots"]!.ToJsonString(), without["shots"]!.ToJsonString());
        // a first page that holds all that fits says so, the other does not count
        Assert.Equal((bool)with["hasOlder"]! ? null : (int)with["total"]!, (int?)without["total"]);
        // in another order what has no number to order by is left out, so that a page says nothing of all
        Assert.Null((await server.GetAsync($"/api/shots?size=200&order=R10&count=false&{filter}"))["total"]);
    }

    [Fact]
    public async Task Taste_is_kept_found_and_checked()
    {
        var taste = new
        {
            sour = 1,
            bitter = 0,
            dry = (int?)null,
            sweet = 3,
            body = 2,
            liking = 4,
            words = "  quince and smoke ",
        };
        Assert.Equal(200, (await server.SendAsync(HttpMethod.Put, "/api/shots/5/taste", taste)).Status);
        var shot = await server.GetAsync("/api/shots/5");
        Assert.Equal("quince and smoke", (string)shot["shot"]!["taste"]!["words"]!);
        Assert.Equal(5, (int)(await server.GetAsync("/api/shots?search=quince"))["shots"]![0]!["id"]!);
        var (status, problem) = await server.SendAsync(HttpMethod.Put, "/api/shots/5/taste", taste with { sour = 9 });
        Assert.Equal(400, status);
        Assert.Equal("sour", (string)problem!["field"]!);
        Assert.Equal(4, (int)(await server.GetAsync("/api/shots/5"))["shot"]!["taste"]!["liking"]!);
    }

    [Fact]
    public async Task Comparison_shows_only_what_differs()
    {
        var comparison = await server.GetAsync("/api/shots/compare?ids=10,11,12");
        Assert.Equal(3, comparison["shots"]!.AsArray().Count);
        Assert.NotEmpty(comparison["differences"]!.AsArray());
        Assert.All(comparison["differences"]!.AsArray(), d =>
            Assert.True(d!["values"]!.AsArray().Select(v => v!.ToJsonString()).Distinct().Count() > 1)
        );
        var itself = await server.SendAsync(HttpMethod.Get, "/api/shots/compare?ids=10");
        Assert.Equal(400, itself.Status);
        Assert.Contains("Between 2 and 20", (string)itself.Body!["detail"]!, StringComparison.Ordinal);
        Assert.Equal(404, (await server.SendAsync(HttpMethod.Get, "/api/shots/compare?ids=10,99999")).Status);
    }

    [Fact]
    public async Task A_moved_moment_moves_the_measures()
    {
        var before = await server.GetAsync("/api/shots/8");
        var drops = (double)before["moments"]!["firstDrops"]! + 2;
        var marked = new JsonObject { ["firstDrops"] = drops };
        foreach (var other in new[] { "firstPressure", "ramp", "peak", "ease", "blonding", "stop" })
            marked[other] = null;
        var (status, after) = await server.SendAsync(HttpMethod.Put, "/api/shots/8/moments", marked);
        Assert.Equal(200, status);
        Assert.Equal(drops, (double)after!["shot"]!["measures"]!["secondsToDrops"]!, 1e-9);
        marked["firstDrops"] = 900;
        Assert.Equal(400, (await server.SendAsync(HttpMethod.Put, "/api/shots/8/moments", marked)).Status);
        // a stop cannot come before first drops that were found, nor drops after a stop that was
        marked["firstDrops"] = null;
        marked["stop"] = 1;
        Assert.Equal("stop", (string)(await RefusedAsync(marked))["field"]!);
        marked["stop"] = null;
        marked["firstDrops"] = 200;
        Assert.Equal("firstDrops", (string)(await RefusedAsync(marked))["field"]!);
        Assert.Equal(drops, (double)(await server.GetAsync("/api/shots/8"))["shot"]!["measures"]!["secondsToDrops"]!, 1e-9);
        // the start is checked like the others
        marked = new JsonObject
        {
            ["firstPressure"] = null,
            ["firstDrops"] = null,
            ["ramp"] = null,
            ["peak"] = null,
            ["ease"] = null,
            ["blonding"] = null,
            ["stop"] = null,
            ["start"] = 1e300,
        };
        Assert.Equal(400, (await server.SendAsync(HttpMethod.Put, "/api/shots/8/moments", marked)).Status);
    }

    private async Task<JsonNode> RefusedAsync(JsonNode marked)
    {
        var (status, body) = await server.SendAsync(HttpMethod.Put, "/api/shots/8/moments", marked);
        Assert.Equal(400, status);
        return body!;
    }

    [Fact]
    public async Task A_binned_shot_comes_back_whole()
    {
        async Task<string> WithoutVersionAsync()
        {
            var shot = await server.GetAsync("/api/shots/20");
            shot["shot"]!["version"] = 0;
            return shot.ToJsonString();
        }

        var before = await WithoutVersionAsync();
        Assert.Equal(204, (await server.SendAsync(HttpMethod.Delete, "/api/shots/20")).Status);
        Assert.Equal(404, (await server.SendAsync(HttpMethod.Get, "/api/shots/20")).Status);
        await server.PostAsync("/api/shots/20/restore");
        Assert.Equal(before, await WithoutVersionAsync());
    }
}
