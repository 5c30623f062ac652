namespace RuddySpring.Server.Tests;

/// <summary>Trends over the sample household and their questions that make no sense.</summary>
public sealed class TrendsTests : IAsyncLifetime
{
    private readonly LiveServer _server = new();

    public ValueTask InitializeAsync() => _server.InitializeAsync();

    public ValueTask DisposeAsync() => _server.DisposeAsync();

    [Fact]
    public async Task R10_falls_as_a_bag_ages()
    {
        // common practice: as a bag ages the grind has to go finer, because the same setting resists less
        var trend = await _server.GetAsync("/api/trends?x=age&y=r10&bagId=1&machineId=1");
        Assert.True((double)trend["line"]!["slope"]! < 0);
        var points = trend["points"]!.AsArray();
        Assert.True(points.Count > 10);
        Assert.Equal(
            points.OrderBy(p => (string)p!["pulledAt"]!).Select(p => (int)p!["shotId"]!),
            points.Select(p => (int)p!["shotId"]!)
        );
        Assert.Contains("R10 falls by", (string)trend["sentence"]!, StringComparison.Ordinal);
        Assert.Equal(points.Count, trend["control"]!["points"]!.AsArray().Count);
        // each point is the shot's own number
        var first = points[0]!;
        var shot = await _server.GetAsync($"/api/shots/{first["shotId"]}");
        Assert.Equal((double)shot["shot"]!["measures"]!["r10"]!, (double)first["y"]!, 9);
    }

    [Fact]
    public async Task Every_pair_of_quantities_has_an_answer()
    {
        var keys = (await _server.GetAsync("/api/trends/quantities")).AsArray().Select(q => (string)q!["key"]!).ToList();
        foreach (var x in keys)
            Assert.NotEqual("", (string)(await _server.GetAsync($"/api/trends?x={x}&y=liking"))["sentence"]!);
        foreach (var y in keys)
            Assert.NotNull((await _server.GetAsync($"/api/trends?x=age&y={y}"))["points"]);
    }

    [Theory]
    [InlineData("/api/trends?x=colour", "x")]
    [InlineData("/api/trends?y=", "y")]
    public async Task A_quantity_that_there_is_not_is_refused_by_name(string path, string field)
    {
        var (status, problem) = await _server.SendAsync(HttpMethod.Get, path, null);
        Assert.Equal(400, status);
        Assert.Equal(field, (string)problem!["field"]!);
    }

    [Fact]
    public async Task The_arm_is_told_of_the_plan_that_is_asked_for()
    {
        var most = await _server.GetAsync("/api/trends/arm");
        var choices = most["choices"]!.AsArray();
        Assert.True(choices.Count > 2);
        Assert.Equal((string)choices[0]!["planName"]!, (string)most["of"]!["planName"]!);
        var other = choices[1]!;
        var view = await _server.GetAsync(
            $"/api/trends/arm?machineId={other["machineId"]}&planName={Uri.EscapeDataString((string)other["planName"]!)}"
        );
        Assert.Equal((string)other["planName"]!, (string)view["of"]!["planName"]!);
        Assert.NotEmpty(view["arm"]!["phases"]!.AsArray());
        Assert.NotEqual("", (string)view["arm"]!["sentence"]!);
        Assert.NotEmpty(view["arm"]!["band"]!.AsArray());
        var none = await _server.GetAsync("/api/trends/arm?planName=No%20such%20plan");
        Assert.Null(none["arm"]);
    }

    [Fact]
    public async Task What_is_liked_goes_by_who_is_asked_for()
    {
        var all = await _server.GetAsync("/api/trends/liking");
        var one = await _server.GetAsync("/api/trends/liking?brewerId=1");
        Assert.True((int)one["tasted"]! > 0 && (int)one["tasted"]! < (int)all["tasted"]!);
        var nobody = await _server.GetAsync("/api/trends/liking?brewerId=999");
        Assert.Equal(0, (int)nobody["tasted"]!);
        Assert.Empty(nobody["with"]!.AsArray());
    }
}
