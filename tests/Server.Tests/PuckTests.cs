using System.Text.Json.Nodes;

namespace RuddySpring.Server.Tests;

/// <summary>Baskets, preparation, "same as that shot, but", and what the shelf has learned.</summary>
public sealed class PuckTests(LiveServer server) : IClassFixture<LiveServer>
{
    private async Task<JsonNode> FindAsync(string list, string name) =>
        (await server.GetAsync("/api/bench"))[list]!.AsArray().Single(m => (string)m!["name"]! == name)!;

    private async Task<int> ShotOfAsync(string machine) =>
        (int)
            (await server.GetAsync("/api/shots?page=0&size=50"))["shots"]!
                .AsArray()
                .First(s => (string)s!["machine"]! == machine)!["id"]!;

    [Fact]
    public async Task A_basket_is_added_chosen_and_says_how_the_dose_lies_in_it()
    {
        await server.ChangeSheetAsync("machineId", (int)(await FindAsync("machines", "Pack lever"))["id"]!);
        await server.PostAsync(
            "/api/bench/baskets",
            new
            {
                name = "Shallow",
                spec = new
                {
                    diameterMm = 51,
                    depthMm = 12,
                    nominalDoseGrams = 12,
                },
            }
        );
        await server.ChangeSheetAsync("doseGrams", 15.0);
        var answer = await server.ChangeSheetAsync("basketId", (int)(await FindAsync("baskets", "Shallow"))["id"]!);
        Assert.Equal("TooMuch", (string)answer["puck"]!["headspace"]!);
        Assert.Contains("will not close", (string)answer["puck"]!["sentence"]!, StringComparison.Ordinal);
        answer = await server.ChangeSheetAsync("basketId", null);
        Assert.NotEqual("TooMuch", (string)answer["puck"]!["headspace"]!);
        var (status, problem) = await server.SendAsync(
            HttpMethod.Post,
            "/api/bench/baskets",
            new
            {
                name = "Wrong",
                spec = new
                {
                    diameterMm = 20,
                    depthMm = 12,
                    nominalDoseGrams = 12,
                },
            }
        );
        Assert.Equal(400, status);
        Assert.Equal("diameterMm", (string)problem!["field"]!);
    }

    [Fact]
    public async Task Ratios_go_by_the_roast_and_say_what_the_machine_cannot_give()
    {
        await server.ChangeSheetAsync("machineId", (int)(await FindAsync("machines", "Pack lever"))["id"]!);
        await server.ChangeSheetAsync("doseGrams", 15.0);
        await server.ChangeSheetAsync("yieldGrams", 30.0);
        var light = await server.ChangeSheetAsync("bagId", (int)(await FindAsync("bags", "Blue Gentian"))["id"]!);
        Assert.Equal([1.5, 2.5, 3.0], light["ratios"]!.AsArray().Select(r => (double)r!["ratio"]!));
        Assert.False((bool)light["ratios"]![2]!["fits"]!); // 45 g of a 60 ml chamber
        var dark = await server.ChangeSheetAsync("bagId", (int)(await FindAsync("bags", "Stove Ember"))["id"]!);
        Assert.Equal(2.0, (double)dark["ratios"]![2]!["ratio"]!);
    }

    [Fact]
    public async Task A_sheet_starts_from_a_shot_and_says_what_is_no_longer_the_same()
    {
        var id = await ShotOfAsync("Pack lever");
        var answer = (await server.PostAsync($"/api/prepare/same-as/{id}", new { }))!;
        Assert.Equal(id, (int)answer["since"]!["shotId"]!);
        Assert.Empty(answer["since"]!["things"]!.AsArray());
        answer = await server.ChangeSheetAsync("grindSetting", 17.0);
        Assert.Equal("grind", (string)Assert.Single(answer["since"]!["things"]!.AsArray())!["what"]!);
        Assert.Null(answer["since"]!["warning"]);
        var preparation = answer["sheet"]!["preparation"]!.DeepClone();
        preparation["tampKgf"] = 12.5;
        answer = await server.ChangeSheetAsync("preparation", preparation);
        Assert.Contains("2 things change at once", (string)answer["since"]!["warning"]!, StringComparison.Ordinal);
        var (status, _) = await server.SendAsync(HttpMethod.Post, "/api/prepare/same-as/99999");
        Assert.Equal(404, status);
    }

    [Fact]
    public async Task A_tamp_out_of_range_is_named_and_kept_as_typed()
    {
        var answer = await server.ChangeSheetAsync("preparation", JsonNode.Parse("""{"tampKgf":90}""")!);
        Assert.Equal("tampKgf", (string)answer["problems"]![0]!["field"]!);
        Assert.Equal(90, (double)(await server.GetAsync("/api/prepare"))["sheet"]!["preparation"]!["tampKgf"]!);
        await server.ChangeSheetAsync("preparation", null);
    }

    [Fact] // the hut's straight basket really flows 8 % faster: its shots have shown it
    public async Task The_shelf_says_what_age_will_ask_and_what_a_basket_is_worth()
    {
        var learned = await server.GetAsync("/api/bench/learned");
        Assert.NotEmpty(learned["bags"]!.AsArray());
        foreach (var bag in learned["bags"]!.AsArray())
        {
            // ageing asks for finer, and smaller numbers are finer on both of the hut's mills
            Assert.True((double)bag!["inAWeek"]! < (double)bag["now"]!);
            Assert.Contains("finer", (string)bag["sentence"]!, StringComparison.Ordinal);
        }

        var straight = (int)(await FindAsync("baskets", "Straight 51"))["id"]!;
        var basket = learned["baskets"]!.AsArray().Single(b => (int)b!["basketId"]! == straight)!;
        Assert.InRange((double)basket["factor"]!, 0.82, 1.0);
        Assert.True((int)basket["shots"]! > 5);
    }

    [Fact] // common practice: a flow-restricting basket takes coarser or shop-ground coffee; no dial-in by grind
    public async Task Behind_a_small_hole_there_is_no_dialling_in_by_the_grind()
    {
        await server.ChangeSheetAsync("machineId", (int)(await FindAsync("machines", "Pack lever"))["id"]!);
        await server.ChangeSheetAsync("grinderId", (int)(await FindAsync("grinders", "Hand mill"))["id"]!);
        await server.ChangeSheetAsync("doseGrams", 15.0);
        await server.ChangeSheetAsync("yieldGrams", 30.0);
        await server.PostAsync(
            "/api/bench/baskets",
            new
            {
                name = "With a hole",
                spec = new
                {
                    diameterMm = 51,
                    depthMm = 18,
                    nominalDoseGrams = 15,
                    restrictorBarS2PerMl2 = 2.5,
                },
            }
        );
        await server.ChangeSheetAsync("basketId", (int)(await FindAsync("baskets", "With a hole"))["id"]!);
        var view = await server.GetAsync("/api/prepare/prediction");
        Assert.Null(view["grind"]!["suggestion"]);
        Assert.Contains("no dialling in by the grind", (string)view["grind"]!["sentences"]![0]!, StringComparison.Ordinal);
        Assert.Empty((await server.GetAsync("/api/prepare/landing"))["changes"]!.AsArray());
        await server.ChangeSheetAsync("basketId", null);
        Assert.NotNull((await server.GetAsync("/api/prepare/prediction"))["grind"]!["suggestion"]);
    }
}
