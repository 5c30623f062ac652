using RuddySpring.Store;

namespace RuddySpring.Server.Tests.Ledger;

/// <summary>Full-text search: what is typed is words, never a query language.</summary>
public sealed class SearchTests(LiveServer server) : IClassFixture<LiveServer>
{
    [Theory]
    [InlineData(null, null)]
    [InlineData("   ", null)]
    [InlineData("***", null)]
    [InlineData("blue gent", "\"blue\"* \"gent\"*")]
    [InlineData("a\" OR \"b", "\"a\"* \"OR\"* \"b\"*")]
    [InlineData("NEAR(x, 5)", "\"NEAR\"* \"x\"* \"5\"*")]
    public void Words_are_quoted(string? typed, string? match) => Assert.Equal(match, ShotSearch.Match(typed));

    [Theory]
    [InlineData("\"")]
    [InlineData("a OR")]
    [InlineData("-ember")]
    [InlineData("SearchText:ember")]
    [InlineData("'; DROP TABLE Shots; --")]
    public async Task Odd_searches_answer_and_harm_nothing(string typed)
    {
        var before = (int)(await server.GetAsync("/api/shots?size=1"))["total"]!;
        var (status, _) = await server.SendAsync(HttpMethod.Get, $"/api/shots?search={Uri.EscapeDataString(typed)}");
        Assert.Equal(200, status);
        Assert.Equal(before, (int)(await server.GetAsync("/api/shots?size=1"))["total"]!);
    }

    [Fact]
    public async Task The_index_follows_what_is_written_and_finds_without_accents()
    {
        async Task<int> Found(string word) =>
            (int)(await server.GetAsync($"/api/shots?search={Uri.EscapeDataString(word)}"))["total"]!;
        Assert.Equal(0, await Found("brulee"));
        await server.SendAsync(HttpMethod.Put, "/api/shots/7/taste", Words("cr\u00e8me br\u00fbl\u00e9e"));
        Assert.Equal(1, await Found("brulee"));
        Assert.Equal(1, await Found("BRUL"));
        await server.SendAsync(HttpMethod.Put, "/api/shots/7/taste", Words("plain"));
        Assert.Equal(0, await Found("brulee"));
    }

    [Fact]
    public async Task Only_the_beginning_of_a_word_is_needed()
    {
        var whole = (int)(await server.GetAsync("/api/shots?search=gentian"))["total"]!;
        Assert.True(whole > 0);
        Assert.Equal(whole, (int)(await server.GetAsync("/api/shots?search=gent"))["total"]!);
        Assert.Equal(0, (int)(await server.GetAsync("/api/shots?search=entian"))["total"]!);
    }

    private static object Words(string words) =>
        new
        {
            sour = (int?)null,
            bitter = (int?)null,
            dry = (int?)null,
            sweet = (int?)null,
            body = (int?)null,
            liking = (int?)null,
            words,
        };
}
