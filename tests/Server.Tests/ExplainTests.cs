using System.Text.Json.Nodes;

namespace RuddySpring.Server.Tests;

/// <summary>Why a number is what it is, as the pages ask it.</summary>
public sealed class ExplainTests : IAsyncLifetime
{
    private readonly LiveServer _server = new();

    public ValueTask InitializeAsync() => _server.InitializeAsync();

    public ValueTask DisposeAsync() => _server.DisposeAsync();

    [Fact]
    public async Task The_cards_of_the_sheet_carry_what_the_sheet_says()
    {
        var answer = await _server.GetAsync("/api/prepare");
        var forecast = (await _server.GetAsync("/api/prepare/prediction"))["shot"]!;
        var cards = (await _server.GetAsync("/api/explain/sheet")).AsArray();
        JsonNode Card(string key) => cards.Single(c => (string)c!["key"]! == key)!;
        string Input(string key, string name) =>
            (string)Card(key)["inputs"]!.AsArray().Single(i => (string)i!["name"]! == name)!["value"]!;
        Assert.Equal($"{(double)answer["sheet"]!["doseGrams"]!:0.0} g", Input("ratio", "Dose"));
        Assert.Equal($"{(double)answer["mostWaterGrams"]!:0.0} g", Input("water", "The machine moves at most"));
        Assert.Equal($"{(double)answer["largestYieldGrams"]!:0.0} g", Input("water", "Largest cup from this dose"));
        Assert.Contains(
            $"{(double)forecast["secondsLow"]!:0} to {(double)forecast["secondsHigh"]!:0} s",
            (string)Card("seconds")["howSure"]!,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task A_sheet_that_does_not_do_says_so_instead()
    {
        var sheet = (await _server.GetAsync("/api/prepare"))["sheet"]!;
        sheet["doseGrams"] = 99;
        await _server.SendAsync(HttpMethod.Put, "/api/prepare", sheet);
        var (status, problem) = await _server.SendAsync(HttpMethod.Get, "/api/explain/sheet");
        Assert.Equal(400, status);
        Assert.Contains("Dose is 99 g", (string)problem!["title"]!, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_shots_measures_are_explained_and_one_that_is_not_there_is_not()
    {
        var cards = (await _server.GetAsync("/api/explain/shots/1")).AsArray();
        Assert.Contains(cards, c => (string)c!["key"]! == "meanFlow");
        var (status, _) = await _server.SendAsync(HttpMethod.Get, "/api/explain/shots/99999");
        Assert.Equal(404, status);
        Assert.InRange((await _server.GetAsync("/api/explain/glossary")).AsArray().Count, 20, 100);
    }

    [Fact]
    public async Task The_session_and_every_machine_explain_their_numbers()
    {
        foreach (var machine in (await _server.GetAsync("/api/bench"))["machines"]!.AsArray())
        {
            var id = (int)machine!["id"]!;
            await _server.ChangeSheetAsync("machineId", id);
            var session = await _server.GetAsync("/api/session");
            var heat = (await _server.GetAsync("/api/explain/session")).AsArray();
            Assert.Equal((bool)session["hasBoiler"]!, heat.Any(c => (string)c!["key"]! == "boiler"));
            var group = heat.Single(c => (string)c!["key"]! == "group")!;
            Assert.Contains($"{(double)session["now"]!["plusMinusK"]!:0.0}", (string)group["howSure"]!, StringComparison.Ordinal);
            var cards = (await _server.GetAsync($"/api/explain/machines/{id}")).AsArray();
            var spring = (string)machine["spec"]!["family"]! == "BoilerSpring";
            Assert.Equal(!spring, cards.Any(c => (string)c!["key"]! == "reach"));
            Assert.All(heat.Concat(cards), c => Assert.NotEmpty(c!["inputs"]!.AsArray()));
        }
    }
}
