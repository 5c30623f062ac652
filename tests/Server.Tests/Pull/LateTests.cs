namespace RuddySpring.Server.Tests.Pull;

/// <summary>A screen that was out of reach tells afterwards what was done on it, and when.</summary>
public sealed class LateTests
{
    [Fact]
    public async Task WhatWasDoneMeanwhileStandsInTheShotAtItsOwnTimes()
    {
        await using var server = new LiveServer();
        await server.InitializeAsync();
        var pull = (string)(await server.ReadyAsync())["frame"]!["pullId"]!;
        await Task.Delay(2300);
        var deeds = new List<object> { new { what = "begin", secondsAgo = 2.0 } };
        for (var ago = 1.9; ago > 0.2; ago -= 0.1)
            deeds.Add(
                new
                {
                    what = "follow",
                    secondsAgo = ago,
                    bar = 6.5,
                }
            );
        deeds.Add(new { what = "drops", secondsAgo = 1.2 });
        deeds.Add(new { what = "stop", secondsAgo = 0.2 });
        var frame = await server.PostAsync($"/api/pull/late?pull={pull}", new { deeds });
        Assert.Equal("Settling", (string)frame!["stage"]!);
        var saved = await server.PostAsync($"/api/pull/save?pull={pull}");
        var shot = (await server.GetAsync($"/api/shots/{saved!["shotId"]}"))!;
        var measures = shot["shot"]!["measures"]!;
        Assert.Equal(1.8, (double)measures["secondsFromLever"]!, 0.15);
        Assert.Equal(0.8, (double)measures["secondsToDrops"]!, 0.15);
        Assert.Equal(6.5, (double)measures["peakBar"]!, 0.3);
    }

    [Fact]
    public async Task AMarkFromBeforeThePullBeganStopsNothingElse()
    {
        await using var server = new LiveServer();
        await server.InitializeAsync();
        var pull = (string)(await server.ReadyAsync())["frame"]!["pullId"]!;
        await Task.Delay(1200);
        var frame = await server.PostAsync(
            $"/api/pull/late?pull={pull}",
            new
            {
                deeds = new object[]
                {
                    new { what = "drops", secondsAgo = 1.1 },
                    new { what = "stop", secondsAgo = 1.05 },
                    new { what = "begin", secondsAgo = 1.0 },
                    new { what = "stop", secondsAgo = 0.1 },
                },
            }
        );
        Assert.Equal("Settling", (string)frame!["stage"]!);
    }

    [Theory]
    [InlineData("dance", 1.0, null, "what")]
    [InlineData("begin", -1.0, null, "secondsAgo")]
    [InlineData("begin", 1e9, null, "secondsAgo")]
    [InlineData("follow", 1.0, null, "pressure")]
    [InlineData("follow", 1.0, 1e308, "pressure")]
    public async Task WhatCannotHaveBeenIsRefusedAndThePullGoesOn(string what, double secondsAgo, double? bar, string field)
    {
        await using var server = new LiveServer();
        await server.InitializeAsync();
        var pull = (string)(await server.ReadyAsync())["frame"]!["pullId"]!;
        var (status, problem) = await server.SendAsync(
            HttpMethod.Post,
            $"/api/pull/late?pull={pull}",
            new
            {
                deeds = new[]
                {
                    new
                    {
                        what,
                        secondsAgo,
                        bar,
                    },
                },
            }
        );
        Assert.Equal((400, field), (status, (string)problem!["field"]!));
        Assert.Equal("Ready", (string)(await server.GetAsync($"/api/pull?pull={pull}"))["frame"]!["stage"]!);
    }
}
