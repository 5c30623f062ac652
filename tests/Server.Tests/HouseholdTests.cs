namespace RuddySpring.Server.Tests;

public sealed class HouseholdTests : IAsyncLifetime
{
    private readonly LiveServer _server = new() { Demo = false };

    public ValueTask InitializeAsync() => _server.InitializeAsync();

    public ValueTask DisposeAsync() => _server.DisposeAsync();

    [Fact] // ISO 2533 and IF97: water boils at 93.3 degC at 2000 m
    public async Task A_measured_boiling_point_sets_the_altitude()
    {
        var household = await _server.PostAsync("/api/household/altitude", new { boilingC = 93.3 });
        Assert.Equal(2000, (double)household!["altitudeMetres"]!, 30.0);
        Assert.Equal(93.3, (double)household["boilingPointC"]!, 0.05);
        var (status, problem) = await _server.SendAsync(HttpMethod.Post, "/api/household/altitude", new { boilingC = 120 });
        Assert.Equal(400, status);
        Assert.Equal("boilingC", (string)problem!["field"]!);
        Assert.Equal(2000, (double)(await _server.GetAsync("/api/household"))["altitudeMetres"]!, 30.0);
    }
}
