using System.Text.Json.Nodes;

namespace RuddySpring.Server.Tests.Shell;

/// <summary>What every page shows, told in one answer.</summary>
public sealed class EveryPageTests
{
    [Theory]
    [InlineData("household", "/api/household")]
    [InlineData("bench", "/api/bench")]
    [InlineData("prepare", "/api/prepare")]
    public async Task It_is_what_is_told_one_by_one(string part, string path)
    {
        await using var server = new LiveServer();
        await server.InitializeAsync();
        var whole = await server.GetAsync("/api/every-page");
        Assert.True(JsonNode.DeepEquals(await server.GetAsync(path), whole[part]), $"{whole[part]}");
    }

    [Fact] // its heat moves from one question to the next, so the session is told apart by what stands still
    public async Task The_session_is_that_of_the_sheets_machine()
    {
        await using var server = new LiveServer();
        await server.InitializeAsync();
        var (alone, whole) = (await server.GetAsync("/api/session"), await server.GetAsync("/api/every-page"));
        foreach (var member in new[] { "id", "machineId", "wants", "wantsVersion", "begun" })
            Assert.True(JsonNode.DeepEquals(alone[member], whole["session"]![member]), member);
        Assert.Equal((int)whole["prepare"]!["sheet"]!["machineId"]!, (int)whole["session"]!["machineId"]!);
        Assert.Equal(alone["steps"]!.AsArray().Count, whole["session"]!["steps"]!.AsArray().Count);
    }

    [Fact]
    public async Task Without_a_machine_there_is_neither_sheet_nor_session()
    {
        await using var server = new LiveServer { Demo = false };
        await server.InitializeAsync();
        var whole = await server.GetAsync("/api/every-page");
        Assert.Empty(whole["bench"]!["machines"]!.AsArray());
        Assert.NotNull(whole["household"]);
        Assert.Null(whole["prepare"]);
        Assert.Null(whole["session"]);
    }
}
