using System.Text.Json;
using System.Text.Json.Nodes;

namespace RuddySpring.Server.Tests;

public sealed class BenchTests : IAsyncLifetime
{
    private readonly LiveServer _server = new() { Demo = false };

    public ValueTask InitializeAsync() => _server.InitializeAsync();

    public ValueTask DisposeAsync() => _server.DisposeAsync();

    [Fact]
    public async Task An_empty_bench_says_what_to_do_and_is_brewing_after_one_machine()
    {
        var (status, problem) = await _server.SendAsync(HttpMethod.Get, "/api/prepare");
        Assert.Equal(404, status);
        Assert.Contains("Add one under Machines", (string)problem!["detail"]!, StringComparison.Ordinal);

        var family = (await _server.GetAsync("/api/bench"))["families"]!
            .AsArray()
            .Single(f => (string)f!["family"]! == "HeatedGroup")!;
        await _server.PostAsync("/api/bench/machines", new { name = "Kitchen lever", spec = family["defaults"] });
        var answer = await _server.GetAsync("/api/prepare");
        Assert.Equal(18, (double)answer["sheet"]!["doseGrams"]!);
        Assert.True((bool)answer["fits"]!);
    }

    [Fact]
    public async Task Every_family_can_be_put_on_the_bench()
    {
        foreach (var family in (await _server.GetAsync("/api/bench"))["families"]!.AsArray())
            await _server.PostAsync("/api/bench/machines", new { name = $"My {family!["family"]}", spec = family["defaults"] });
        Assert.Equal(8, (await _server.GetAsync("/api/bench"))["machines"]!.AsArray().Count);
    }

    [Theory]
    [InlineData("pistonDiameterMm", -3, "Piston diameter")]
    [InlineData("chamberMl", 5, "Chamber or stroke")]
    [InlineData("leverRatio", 99, "Lever ratio")]
    public async Task A_wrong_number_is_named_with_its_range_and_nothing_is_stored(string field, double value, string label)
    {
        var spec = (await _server.GetAsync("/api/bench"))["families"]![2]!["defaults"]!.DeepClone();
        spec[field] = value;
        var (status, problem) = await _server.SendAsync(HttpMethod.Post, "/api/bench/machines", new { name = "Odd", spec });
        Assert.Equal(400, status);
        Assert.Equal(field, (string)problem!["field"]!);
        Assert.StartsWith(label, (string)problem["detail"]!, StringComparison.Ordinal);
        Assert.NotNull(problem["min"]);
        Assert.Empty((await _server.GetAsync("/api/bench"))["machines"]!.AsArray());
    }

    [Fact] // a form shows what is wrong beside the field of that name: under another one nobody would see it
    public async Task Every_number_out_of_range_is_named_as_its_field_is()
    {
        var bench = await _server.GetAsync("/api/bench");
        await RefusesAsync(
            "/api/bench/baskets",
            "spec",
            new()
            {
                ["diameterMm"] = 51,
                ["depthMm"] = 20,
                ["nominalDoseGrams"] = 16,
                ["restrictorBarS2PerMl2"] = 0,
                ["screenMm"] = 1,
            }
        );
        await RefusesAsync(
            "/api/bench/grinders",
            null,
            new()
            {
                ["scaleUnit"] = "clicks",
                ["finerIsLower"] = true,
                ["step"] = 1,
                ["zeroPoint"] = 0,
                ["retentionGrams"] = 0,
                ["purgeGrams"] = 0,
            }
        );
        await RefusesAsync(
            "/api/bench/bags",
            null,
            new()
            {
                ["roaster"] = "",
                ["roastedOn"] = "2026-01-01",
                ["roastLevel"] = "light",
                ["finished"] = false,
                ["gramsLeft"] = 200,
            }
        );
        foreach (var family in bench["families"]!.AsArray())
        {
            var spec = (JsonObject)family!["defaults"]!.DeepClone();
            spec.Remove("waterMl"); // is worked out, not typed
            await RefusesAsync("/api/bench/machines", "spec", spec);
        }
    }

    private async Task RefusesAsync(string path, string? within, JsonObject usual)
    {
        var numbers = usual.Where(p => p.Value?.GetValueKind() == JsonValueKind.Number).Select(p => p.Key).ToList();
        Assert.NotEmpty(numbers);
        foreach (var field in numbers)
        {
            var odd = (JsonObject)usual.DeepClone();
            odd[field] = 99_999_999;
            if (within is null)
                odd["name"] = "Odd";
            var body = within is null ? odd : new JsonObject { ["name"] = "Odd", [within] = odd };
            var (status, problem) = await _server.SendAsync(HttpMethod.Post, path, body);
            Assert.True(status == 400, $"{path}: {field} is taken");
            Assert.Equal((path, field), (path, (string)problem!["field"]!));
        }
    }

    [Fact]
    public async Task A_roast_date_in_the_future_is_refused()
    {
        var bag = new
        {
            name = "Tomorrow",
            roaster = "",
            roastedOn = DateTime.Today.AddDays(2).ToString("yyyy-MM-dd"),
            roastLevel = "light",
            finished = false,
        };
        var (status, problem) = await _server.SendAsync(HttpMethod.Post, "/api/bench/bags", bag);
        Assert.Equal(400, status);
        Assert.Equal("roastedOn", (string)problem!["field"]!);
    }

    [Fact]
    public async Task Bags_and_grinders_are_kept_and_changed()
    {
        var today = DateTime.Today.ToString("yyyy-MM-dd");
        var bench = await _server.PostAsync(
            "/api/bench/bags",
            new
            {
                name = " Cellar ",
                roaster = "",
                roastedOn = today,
                roastLevel = "dark",
                finished = false,
            }
        );
        var bag = bench!["bags"]![0]!;
        Assert.Equal("Cellar", (string)bag["name"]!);
        Assert.Equal("TooFresh", (string)bag["rest"]!);
        var (_, changed) = await _server.SendAsync(
            HttpMethod.Patch,
            $"/api/bench/bags/{bag["id"]}",
            new
            {
                name = "Cellar",
                roaster = "",
                roastedOn = today,
                roastLevel = "dark",
                finished = true,
            }
        );
        Assert.True((bool)changed!["bags"]![0]!["finished"]!);
        var (status, _) = await _server.SendAsync(
            HttpMethod.Post,
            "/api/bench/grinders",
            new
            {
                name = "Mill",
                scaleUnit = "turns",
                step = 0,
                finerIsLower = true,
            }
        );
        Assert.Equal(400, status);
    }

    [Fact]
    public async Task What_is_put_away_leaves_bench_and_sheet_and_comes_back_as_it_was()
    {
        var families = (await _server.GetAsync("/api/bench"))["families"]!.AsArray();
        object Named(string family, string name) =>
            new { name, spec = families.Single(f => (string)f!["family"]! == family)!["defaults"] };
        await _server.PostAsync("/api/bench/machines", Named("PortableLever", "Old lever"));
        await _server.PostAsync("/api/bench/machines", Named("HeatedGroup", "New lever"));
        await _server.PostAsync(
            "/api/bench/grinders",
            new
            {
                name = "Mill",
                scaleUnit = "turns",
                step = 1,
                finerIsLower = true,
            }
        );
        await _server.PostAsync(
            "/api/bench/bags",
            new
            {
                name = "Cellar",
                roaster = "",
                roastedOn = DateTime.Today.ToString("yyyy-MM-dd"),
                roastLevel = "dark",
                finished = false,
            }
        );
        var sheet = (JsonObject)(await _server.GetAsync("/api/prepare"))["sheet"]!;
        Assert.Equal(1, (int)sheet["machineId"]!);
        Assert.Equal(1, (int)sheet["grinderId"]!);
        await _server.SendAsync(HttpMethod.Put, "/api/prepare", sheet.DeepClone());

        await _server.SendAsync(HttpMethod.Delete, "/api/bench/grinders/1");
        await _server.SendAsync(HttpMethod.Delete, "/api/bench/bags/1");
        var (status, bench) = await _server.SendAsync(HttpMethod.Delete, "/api/bench/machines/1");
        Assert.Equal(200, status);
        Assert.Equal("New lever", (string)Assert.Single(bench!["machines"]!.AsArray())!["name"]!);
        Assert.Empty(bench["grinders"]!.AsArray());
        Assert.Equal(["Old lever", "Cellar", "Mill"], bench["putAway"]!.AsArray().Select(a => (string)a!["name"]!));
        var now = (await _server.GetAsync("/api/prepare"))["sheet"]!;
        Assert.Equal(2, (int)now["machineId"]!);
        Assert.Null(now["grinderId"]);
        Assert.Null(now["bagId"]);
        Assert.Equal(404, (await _server.SendAsync(HttpMethod.Put, "/api/prepare", sheet.DeepClone())).Status);

        foreach (var thing in new[] { "machines", "grinders", "bags" })
            bench = await _server.PostAsync($"/api/bench/{thing}/1/restore", new { });
        Assert.Empty(bench!["putAway"]!.AsArray());
        Assert.Equal(1, (int)(await _server.GetAsync("/api/prepare"))["sheet"]!["machineId"]!);
        Assert.Equal(404, (await _server.SendAsync(HttpMethod.Delete, "/api/bench/baskets/9")).Status);
    }

    [Fact]
    public async Task Freezing_stops_a_bags_clock_and_the_window_is_the_households()
    {
        string Day(int ago) => DateTime.Today.AddDays(-ago).ToString("yyyy-MM-dd");
        var body = new
        {
            name = "Cellar",
            roaster = "",
            roastedOn = Day(40),
            roastLevel = "light",
            finished = false,
            process = "washed",
            openedOn = Day(5),
            frozenOn = Day(35),
            thawedOn = Day(6),
            gramsLeft = 120,
        };
        var bag = (await _server.PostAsync("/api/bench/bags", body))!["bags"]![0]!;
        Assert.Equal(11, (int)bag["daysFromRoast"]!); // 40 days less 29 in the freezer
        Assert.Equal("Ready", (string)bag["rest"]!);
        Assert.Equal("washed", (string)bag["process"]!);
        var (_, bench) = await _server.SendAsync(
            HttpMethod.Put,
            "/api/bench/rest",
            new
            {
                usableFrom = 4,
                bestFrom = 12,
                bestTo = 30,
                cremaTo = 50,
            }
        );
        Assert.Equal("Resting", (string)bench!["bags"]![0]!["rest"]!);
        var (status, problem) = await _server.SendAsync(
            HttpMethod.Put,
            "/api/bench/rest",
            new
            {
                usableFrom = 4,
                bestFrom = 12,
                bestTo = 10,
                cremaTo = 50,
            }
        );
        Assert.Equal(400, status);
        Assert.Equal("bestTo", (string)problem!["field"]!);
        (status, problem) = await _server.SendAsync(HttpMethod.Post, "/api/bench/bags", body with { frozenOn = Day(60) });
        Assert.Equal("frozenOn", (string)problem!["field"]!);
        Assert.Equal(400, status);
    }

    [Theory]
    [InlineData("altitudeMetres", 12000)]
    [InlineData("ambientC", 80)]
    public async Task Settings_out_of_range_are_named_and_the_old_ones_stay(string field, double value)
    {
        var household = (JsonObject)await _server.GetAsync("/api/household");
        var before = household[field]!.ToJsonString();
        household[field] = value;
        var (status, problem) = await _server.SendAsync(HttpMethod.Put, "/api/household", household);
        Assert.Equal(400, status);
        Assert.Equal(field, (string)problem!["field"]!);
        Assert.Equal(before, (await _server.GetAsync("/api/household"))[field]!.ToJsonString());
    }
}
