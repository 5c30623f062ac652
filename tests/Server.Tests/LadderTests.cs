using System.Text.Json.Nodes;
using System.Text.RegularExpressions;

namespace RuddySpring.Server.Tests;

/// <summary>Blind ladders: nobody is told before they have tasted.</summary>
public sealed class LadderTests(LiveServer server) : IClassFixture<LiveServer>
{
    private async Task<JsonNode> PlanAsync(string of = "Temperature", double from = 86, double to = 95, int cups = 4) =>
        (
            await server.PostAsync(
                "/api/ladders",
                new
                {
                    of,
                    from,
                    to,
                    cups,
                }
            )
        )!;

    private async Task<double> CupAsync(JsonNode ladder, int cup) =>
        (double)(await server.GetAsync($"/api/ladders/{ladder["id"]}/cups/{cup}"))["value"]!;

    private Task<(int Status, JsonNode? Body)> AnswerAsync(JsonNode ladder, int[] places, int?[]? liked = null) =>
        server.SendAsync(
            HttpMethod.Put,
            $"/api/ladders/{ladder["id"]}/answer?version={ladder["version"]}",
            new { places, liked = liked ?? new int?[places.Length] }
        );

    [Fact]
    public async Task A_taster_who_is_right_is_told_so_and_nothing_was_given_away_before()
    {
        var ladder = await PlanAsync();
        Assert.Empty(ladder["uncovered"]!.AsArray());
        Assert.Null(ladder["score"]);
        // the time it was planned at may hold any figures
        var told = Regex.Replace(ladder.ToJsonString(), "\"\\d{4}-\\d\\d-\\d\\dT[^\"]+\"", "");
        Assert.DoesNotContain("86", told, StringComparison.Ordinal);
        double[] values =
        [
            await CupAsync(ladder, 0),
            await CupAsync(ladder, 1),
            await CupAsync(ladder, 2),
            await CupAsync(ladder, 3),
        ];
        Assert.Equal([86, 89, 92, 95], values.Order());
        var places = values.Select(v => values.Count(other => other <= v)).ToArray();
        var (status, view) = await AnswerAsync(ladder, places, [3, null, 5, 1]);
        Assert.Equal(200, status);
        Assert.Equal(6, (int)view!["score"]!["right"]!);
        Assert.Equal(1 / 24.0, (double)view["score"]!["luck"]!, 9);
        Assert.Equal(values, view["uncovered"]!.AsArray().Select(c => (double)c!["value"]!));
        // who has seen it cannot taste it blind
        var (again, problem) = await AnswerAsync(view, places);
        Assert.Equal(400, again);
        Assert.Contains("uncovered", (string)problem!["detail"]!, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Answers_that_do_not_do_are_refused_and_uncover_nothing()
    {
        var ladder = await PlanAsync(cups: 3);
        Assert.Equal(400, (await AnswerAsync(ladder, [1, 1, 2])).Status);
        Assert.Equal(400, (await AnswerAsync(ladder, [1, 2])).Status);
        Assert.Equal(400, (await AnswerAsync(ladder, [1, 2, 3], [9, null, null])).Status);
        Assert.Equal(400, (await AnswerAsync(ladder, [int.MinValue, 2, 3])).Status);
        Assert.Empty((await server.GetAsync($"/api/ladders/{ladder["id"]}"))["uncovered"]!.AsArray());
        Assert.Equal(404, (await server.SendAsync(HttpMethod.Get, $"/api/ladders/{ladder["id"]}/cups/3")).Status);
        Assert.Equal(404, (await server.SendAsync(HttpMethod.Get, "/api/ladders/99999")).Status);
    }

    [Theory]
    [InlineData("Temperature", 20, 95, 4, "from")]
    [InlineData("Ratio", 1, 9, 4, "to")]
    [InlineData("Grind", 10, 20, 40, "cups")]
    [InlineData("Rest", 7, 7, 4, "to")]
    public async Task Ladders_that_cannot_be_are_refused_by_their_field(string of, double from, double to, int cups, string field)
    {
        var (status, problem) = await server.SendAsync(
            HttpMethod.Post,
            "/api/ladders",
            new
            {
                of,
                from,
                to,
                cups,
            }
        );
        Assert.Equal(400, status);
        Assert.Equal(field, (string)problem!["field"]!);
    }

    [Fact]
    public async Task A_cup_of_ratio_or_grind_goes_onto_the_sheet_and_heat_does_not()
    {
        var ratio = await PlanAsync("Ratio", 1.5, 3, 4);
        var made = await CupAsync(ratio, 2);
        var sheet = (await server.PostAsync($"/api/ladders/{ratio["id"]}/cups/2/sheet"))!["sheet"]!;
        Assert.Equal(made * (double)sheet["doseGrams"]!, (double)sheet["yieldGrams"]!, 1);
        var heat = await PlanAsync();
        Assert.Equal(400, (await server.SendAsync(HttpMethod.Post, $"/api/ladders/{heat["id"]}/cups/0/sheet")).Status);
        Assert.Equal(204, (await server.SendAsync(HttpMethod.Delete, $"/api/ladders/{heat["id"]}")).Status);
        Assert.DoesNotContain((await server.GetAsync("/api/ladders")).AsArray(), l => (int)l!["id"]! == (int)heat["id"]!);
    }
}
