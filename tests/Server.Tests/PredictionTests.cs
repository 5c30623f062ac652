namespace RuddySpring.Server.Tests;

/// <summary>The predicted shot and the grind advice of the hut's sheet.</summary>
public sealed class PredictionTests(LiveServer server) : IClassFixture<LiveServer>
{
    private async Task<int> IdAsync(string list, string name) =>
        (int)(await server.GetAsync("/api/bench"))[list]!.AsArray().Single(m => (string)m!["name"]! == name)!["id"]!;

    private async Task SetAsync(double setting)
    {
        await server.ChangeSheetAsync("machineId", await IdAsync("machines", "Pack lever"));
        await server.ChangeSheetAsync("grinderId", await IdAsync("grinders", "Hand mill"));
        await server.ChangeSheetAsync("bagId", await IdAsync("bags", "Saddle Wind"));
        await server.ChangeSheetAsync("planKey", "early-peak");
        await server.ChangeSheetAsync("doseGrams", 15);
        await server.ChangeSheetAsync("yieldGrams", 32);
        await server.ChangeSheetAsync("grindSetting", setting);
    }

    [Fact]
    public async Task The_sheets_shot_is_predicted_with_a_band()
    {
        await SetAsync(20);
        var shot = (await server.GetAsync("/api/prepare/prediction"))["shot"]!;
        Assert.True((bool)shot["reachesYield"]!);
        Assert.InRange((double)shot["seconds"]!, 20, 90);
        Assert.True(
            (double)shot["secondsLow"]! < (double)shot["seconds"]! && (double)shot["seconds"]! < (double)shot["secondsHigh"]!
        );
        Assert.InRange((double)shot["strength"]!, 0.05, 0.16);
        Assert.InRange((double)shot["extractionShare"]!, 0.14, 0.26);
        Assert.Equal(shot["points"]!.AsArray().Count, shot["fasterGrams"]!.AsArray().Count);
        Assert.Equal(32, (double)shot["points"]!.AsArray()[^1]!["cupGrams"]!, 1.5);
    }

    [Fact] // ordering: finer never flows faster
    public async Task A_finer_setting_is_predicted_slower()
    {
        await SetAsync(22);
        var coarse = (double)(await server.GetAsync("/api/prepare/prediction"))["shot"]!["seconds"]!;
        await SetAsync(18);
        var fine = (double)(await server.GetAsync("/api/prepare/prediction"))["shot"]!["seconds"]!;
        Assert.True(fine > coarse * 1.1, $"{fine} {coarse}");
    }

    [Fact]
    public async Task The_grind_advice_has_a_setting_a_chance_and_a_why()
    {
        await SetAsync(20);
        var grind = (await server.GetAsync("/api/prepare/prediction"))["grind"]!;
        var suggestion = grind["suggestion"]!;
        Assert.InRange((double)suggestion["setting"]!, 10, 30);
        Assert.True((double)suggestion["low"]! < (double)suggestion["high"]!);
        Assert.InRange((double)suggestion["chance"]!, 0.2, 1);
        Assert.True((double)suggestion["chance"]! >= (double)grind["chanceNow"]! - 1e-9);
        Assert.Contains("chance to land between 31 and 44 s", (string)grind["sentences"]![0]!, StringComparison.Ordinal);
        // how it is found out stands on its card, and not again beside it
        var card = (await server.GetAsync("/api/explain/sheet")).AsArray().Single(c => (string)c!["key"]! == "grind")!;
        Assert.Contains("not blamed on the grind", (string)card["equation"]!, StringComparison.Ordinal);
    }

    [Fact] // the other machine's setting is on the grinder: what else lands the cup
    public async Task With_the_grind_left_alone_other_changes_are_offered_that_land_the_time()
    {
        await SetAsync(19.5); // too fine for 32 g in 44 s
        await server.ChangeSheetAsync("locked", new[] { "Grind", "Dose" });
        var landing = await server.GetAsync("/api/prepare/landing");
        Assert.Null(landing["sentence"]);
        var changes = landing["changes"]!.AsArray();
        Assert.NotEmpty(changes);
        Assert.DoesNotContain(changes, c => c!["parts"]!.AsArray().Any(p => (string)p!["of"]! is "Grind" or "Dose"));
        var cup = changes.Single(c => (string)c!["parts"]![0]!["of"]! == "Yield")!;
        Assert.InRange((double)cup["parts"]![0]!["value"]!, 18, 31);
        Assert.Contains("in the cup instead of 32.0 g", (string)cup["sentence"]!, StringComparison.Ordinal);
        await server.ChangeSheetAsync("yieldGrams", (double)cup["parts"]![0]!["value"]!);
        var view = await server.GetAsync("/api/prepare/prediction");
        Assert.InRange((double)view["shot"]!["seconds"]!, 31, 44);
        Assert.Equal((double)cup["seconds"]!, (double)view["shot"]!["seconds"]!, 1.0);
        landing = await server.GetAsync("/api/prepare/landing");
        Assert.Empty(landing["changes"]!.AsArray());
        Assert.Contains("lands as it stands", (string)landing["sentence"]!, StringComparison.Ordinal);
        await server.ChangeSheetAsync("locked", null);
        await SetAsync(20);
    }

    [Fact]
    public async Task A_sheet_with_a_wrong_number_has_no_prediction_and_a_new_grinder_no_advice()
    {
        await SetAsync(20);
        await server.ChangeSheetAsync("doseGrams", 99);
        Assert.Null((await server.GetAsync("/api/prepare/prediction"))["shot"]);
        await server.ChangeSheetAsync("doseGrams", 15);
        await server.PostAsync(
            "/api/bench/grinders",
            new
            {
                name = "Fresh mill",
                scaleUnit = "clicks",
                step = 1,
                finerIsLower = true,
            }
        );
        await server.ChangeSheetAsync("grinderId", await IdAsync("grinders", "Fresh mill"));
        var view = await server.GetAsync("/api/prepare/prediction");
        Assert.Null(view["grind"]!["suggestion"]);
        Assert.Contains("Begin on the fine side", (string)view["grind"]!["sentences"]![0]!, StringComparison.Ordinal);
        // nothing known: the band is wide
        Assert.True((double)view["shot"]!["secondsHigh"]! > 1.5 * (double)view["shot"]!["secondsLow"]!);
        await SetAsync(20);
    }
}
