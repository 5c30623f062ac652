using System.Text.Json.Nodes;

namespace RuddySpring.Server.Tests.Ledger;

/// <summary>The ledger's filters, each held against going through all shots by hand; kept views; changes of many.</summary>
public sealed class FilterTests : IAsyncLifetime
{
    private readonly LiveServer _server = new();

    public ValueTask InitializeAsync() => _server.InitializeAsync();

    public ValueTask DisposeAsync() => _server.DisposeAsync();

    private async Task<List<JsonNode>> AllAsync(string query = "") =>
        [.. (await _server.GetAsync($"/api/shots?size=200&{query}"))["shots"]!.AsArray().Select(s => s!)];

    private async Task HoldsAsync(string query, Func<JsonNode, bool> fits, int least = 1)
    {
        var byHand = (await AllAsync()).Where(fits).Select(s => (int)s["id"]!).ToList();
        Assert.True(byHand.Count >= least, $"{query} fits {byHand.Count} shots of the sample");
        Assert.Equal(byHand, (await AllAsync(query)).Select(s => (int)s["id"]!));
    }

    private static double? Number(JsonNode shot, string name) => (double?)shot["measures"]![name];

    [Fact]
    public async Task Filters_give_what_going_through_all_shots_gives()
    {
        await HoldsAsync("roaster=Ninth%20Switchback", s => (string)s["roaster"]! == "Ninth Switchback");
        await HoldsAsync("plan=Free%20spring", s => (string)s["plan"]! == "Free spring");
        await HoldsAsync("waterFromC=88&waterUntilC=92", s => (double?)s["waterC"] is >= 88 and <= 92);
        await HoldsAsync("r10From=8&r10Until=10", s => Number(s, "r10") is >= 8 and <= 10);
        await HoldsAsync("taste=Sweet&atLeast=3", s => (int?)s["taste"]!["sweet"] >= 3);
        await HoldsAsync("taste=Sour", s => (int?)s["taste"]!["sour"] >= 1);
        await HoldsAsync("taste=Body&atLeast=2&plan=Free%20spring&minLiking=4", s =>
            (int?)s["taste"]!["body"] >= 2 && (string)s["plan"]! == "Free spring" && (int?)s["taste"]!["liking"] >= 4
        );
        await HoldsAsync("roaster=Nobody", _ => false, 0);
    }

    [Fact]
    public async Task The_age_of_the_beans_is_that_of_the_day_of_the_shot()
    {
        var roasted = (await _server.GetAsync("/api/bench"))["bags"]!
            .AsArray()
            .Where(b => b!["frozenOn"] is null)
            .ToDictionary(b => (string)b!["name"]!, b => DateOnly.Parse((string)b!["roastedOn"]!));
        int? Age(JsonNode s) =>
            roasted.TryGetValue((string)s["bag"]!, out var day)
                ? DateOnly.FromDateTime(((DateTime)s["pulledAt"]!).ToLocalTime()).DayNumber - day.DayNumber
                : null;
        await HoldsAsync("ageFrom=7&ageUntil=10", s => Age(s) is >= 7 and <= 10);
        await HoldsAsync("ageFrom=12", s => Age(s) >= 12);
        await HoldsAsync("ageUntil=6", s => Age(s) <= 6);
        await HoldsAsync("ageFrom=10&ageUntil=9", _ => false, 0);
    }

    [Fact]
    public async Task A_cause_that_was_named_is_found_by_it()
    {
        var named = new Dictionary<int, string?>();
        foreach (var shot in (await AllAsync()).Take(30))
        {
            var id = (int)shot["id"]!;
            var why = await _server.GetAsync($"/api/shots/{id}/why");
            var diagnosis = why["diagnosis"]!;
            named[id] =
                (string)diagnosis["verdict"]! == "NothingWrong"
                    ? null
                    : (string?)diagnosis["causes"]!.AsArray().FirstOrDefault()?["key"];
        }

        var cause = named.Values.First(c => c is not null)!;
        Assert.Equal(
            named.Where(n => n.Value == cause).Select(n => n.Key).OrderDescending(),
            (await AllAsync($"cause={cause}")).Select(s => (int)s["id"]!).OrderDescending()
        );
        var choices = await _server.GetAsync("/api/ledger/choices");
        Assert.Contains(cause, choices["causes"]!.AsArray().Select(c => (string)c!["key"]!));
        Assert.Contains("Free spring", choices["plans"]!.AsArray().Select(p => (string)p!));
    }

    [Theory]
    [InlineData("taste=Salt", "taste", "one of Sour, Bitter")]
    [InlineData("order=Colour", "order", "one of Date, Grind")]
    [InlineData("taste=Sour&atLeast=9", "atLeast", "between 1 and 4")]
    [InlineData("ageFrom=-1", "age", "between 0 and 1000")]
    [InlineData("r10From=1e308", "r10", "between 0 and 100")]
    [InlineData("waterUntilC=NaN", "water", "")]
    public async Task A_filter_out_of_range_is_said(string query, string field, string part)
    {
        var (status, problem) = await _server.SendAsync(HttpMethod.Get, $"/api/shots?{query}", null);
        Assert.Equal(400, status);
        Assert.Equal(field, (string)problem!["field"]!);
        Assert.Contains(part, (string)problem["detail"]!, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_view_is_kept_under_a_name_changed_by_it_and_forgotten()
    {
        async Task<(int Status, JsonNode? Body)> KeepAsync(string name, string query) =>
            await _server.SendAsync(HttpMethod.Post, "/api/ledger/views", new JsonObject { ["name"] = name, ["query"] = query });
        Assert.Equal(200, (await KeepAsync("Good ones", "liked=4&order=R10")).Status);
        var (_, kept) = await KeepAsync(" Good ones ", "liked=5");
        Assert.Equal("liked=5", (string)kept!.AsArray().Single()!["query"]!);
        Assert.Equal(400, (await KeepAsync("", "liked=5")).Status);
        Assert.Equal(400, (await KeepAsync(new string('x', 41), "liked=5")).Status);
        Assert.Equal(400, (await KeepAsync("Nothing", "")).Status);
        for (var i = 1; i < 30; i++)
            Assert.Equal(200, (await KeepAsync($"View {i}", "liked=5")).Status);
        var (status, problem) = await KeepAsync("One more", "liked=5");
        Assert.Equal(400, status);
        Assert.Contains("At most 30 views", (string)problem!["detail"]!, StringComparison.Ordinal);
        var id = (int)kept.AsArray().Single()!["id"]!;
        var (_, left) = await _server.SendAsync(HttpMethod.Delete, $"/api/ledger/views/{id}", null);
        Assert.Equal(29, left!.AsArray().Count);
        Assert.Equal(404, (await _server.SendAsync(HttpMethod.Delete, $"/api/ledger/views/{id}", null)).Status);
    }

    private static JsonObject Change(string field, int? to, params int[] shots) =>
        new()
        {
            ["shots"] = new JsonArray([.. shots.Select(s => JsonValue.Create(s))]),
            ["field"] = field,
            ["to"] = to,
        };

    [Fact]
    public async Task Many_shots_are_changed_at_once_and_taken_back_but_for_those_changed_since()
    {
        var (before, three) = (await AllAsync(), new[] { 50, 51, 52 });
        string Brewer(JsonNode shot) => (string)shot["brewer"]!;
        var were = before.ToDictionary(s => (int)s["id"]!, Brewer);
        var changed = await _server.PostAsync("/api/shots/change", Change("Brewer", 2, three));
        Assert.All((await AllAsync()).Where(s => three.Contains((int)s["id"]!)), s => Assert.Equal("Tomo", Brewer(s)));
        // the search goes by the new name at once
        Assert.All(three, id => Assert.Contains(id, SearchedAsync("tomo").Result));

        var one = (await _server.GetAsync("/api/shots/51"))["shot"]!;
        var taste = one["taste"]!.DeepClone();
        taste["words"] = "changed meanwhile";
        await _server.SendAsync(HttpMethod.Put, $"/api/shots/51/taste?version={(int)one["version"]!}", taste);
        var back = await _server.PostAsync("/api/shots/change/undo", changed!.DeepClone());
        Assert.Equal((2, 1), ((int)back!["done"]!, (int)back["left"]!));
        var after = (await AllAsync()).ToDictionary(s => (int)s["id"]!, Brewer);
        Assert.Equal(were[50], after[50]);
        Assert.Equal(were[52], after[52]);
        Assert.Equal("Tomo", after[51]);
    }

    private async Task<List<int>> SearchedAsync(string words) =>
        [.. (await AllAsync($"search={words}")).Select(s => (int)s["id"]!)];

    [Fact]
    public async Task Many_shots_go_to_the_bin_and_come_back()
    {
        var changed = await _server.PostAsync("/api/shots/change", Change("Bin", 1, 10, 11));
        Assert.DoesNotContain(10, (await AllAsync()).Select(s => (int)s["id"]!));
        Assert.Equal(2, (await AllAsync("bin=true")).Count);
        await _server.PostAsync("/api/shots/change/undo", changed!.DeepClone());
        Assert.Contains(10, (await AllAsync()).Select(s => (int)s["id"]!));
    }

    [Fact]
    public async Task A_change_that_cannot_be_changes_nothing()
    {
        var before = (await AllAsync()).Select(s => s.ToJsonString()).ToList();
        Assert.Equal(400, (await _server.SendAsync(HttpMethod.Post, "/api/shots/change", Change("Beans", 999, 50))).Status);
        Assert.Equal(404, (await _server.SendAsync(HttpMethod.Post, "/api/shots/change", Change("Beans", 1, 50, 9999))).Status);
        Assert.Equal(400, (await _server.SendAsync(HttpMethod.Post, "/api/shots/change", Change("Beans", 1))).Status);
        Assert.Equal(400, (await _server.SendAsync(HttpMethod.Post, "/api/shots/change", Change("Bin", 2, 50))).Status);
        Assert.Equal(before, (await AllAsync()).Select(s => s.ToJsonString()));
    }

    [Fact]
    public async Task A_person_can_judge_by_a_school_and_read_in_units_of_their_own()
    {
        var brewer = (await _server.GetAsync("/api/bench"))["brewers"]!.AsArray().First(b => (string)b!["name"]! == "Tomo")!;
        var path = $"/api/bench/brewers/{(int)brewer["id"]!}?version={(int)brewer["version"]!}";
        var (status, bench) = await _server.SendAsync(
            HttpMethod.Patch,
            path,
            JsonNode.Parse("""{"school":"flow-led","pressureUnit":"psi"}""")
        );
        Assert.Equal(200, status);
        var now = bench!["brewers"]!.AsArray().First(b => (string)b!["name"]! == "Tomo")!;
        Assert.Equal(("flow-led", "psi"), ((string)now["school"]!, (string)now["pressureUnit"]!));
        var shots = await AllAsync();
        var theirs = (int)shots.First(s => (string)s["brewer"]! == "Tomo")["id"]!;
        var others = (int)shots.First(s => (string)s["brewer"]! == "Ilva")["id"]!;
        async Task<string> OwnAsync(int id) =>
            (string)(await _server.GetAsync($"/api/shots/{id}/schools")).AsArray().First(s => (bool)s!["isOwn"]!)!["key"]!;
        Assert.Equal("flow-led", await OwnAsync(theirs));
        Assert.NotEqual("flow-led", await OwnAsync(others));

        var again = $"/api/bench/brewers/{(int)now["id"]!}?version={(int)now["version"]!}";
        Assert.Equal(400, (await _server.SendAsync(HttpMethod.Patch, again, JsonNode.Parse("""{"school":"none"}"""))).Status);
        Assert.Equal(400, (await _server.SendAsync(HttpMethod.Patch, again, JsonNode.Parse("""{"forceUnit":"lb"}"""))).Status);
        var bag = (await _server.GetAsync("/api/bench"))["bags"]![0]!;
        Assert.Equal(
            400,
            (
                await _server.SendAsync(
                    HttpMethod.Patch,
                    $"/api/bench/bags/{(int)bag["id"]!}?version={(int)bag["version"]!}",
                    JsonNode.Parse("""{"brewerId":99}""")
                )
            ).Status
        );
    }
}
