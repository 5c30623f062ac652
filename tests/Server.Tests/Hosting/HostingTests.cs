using System.Net;
using RuddySpring.Server.Hosting;

namespace RuddySpring.Server.Tests.Hosting;

public sealed class HostingTests(LiveServer server) : IClassFixture<LiveServer>
{
    [Fact]
    public async Task An_unknown_address_of_the_api_is_a_404_and_not_the_page()
    {
        using var response = await server.Http.GetAsync(new Uri("/api/nothing/here", UriKind.Relative));
        Assert.Equal(HttpStatusCode.NotFound, response.StatusCode);
        Assert.Equal("application/problem+json", response.Content.Headers.ContentType!.MediaType);
    }

    [Fact]
    public async Task Broken_json_gets_a_sentence_and_no_stack_trace()
    {
        using var content = new StringContent("{ this is none", System.Text.Encoding.UTF8, "application/json");
        using var response = await server.Http.PutAsync(new Uri("/api/prepare", UriKind.Relative), content);
        Assert.Equal(HttpStatusCode.BadRequest, response.StatusCode);
        var text = await response.Content.ReadAsStringAsync();
        Assert.Contains("not valid JSON", text, StringComparison.Ordinal);
        Assert.DoesNotContain("   at ", text, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_field_of_the_wrong_kind_is_named()
    {
        using var content = new StringContent(
            """{"machineId":1,"doseGrams":"many","yieldGrams":30,"planKey":"x"}""",
            System.Text.Encoding.UTF8,
            "application/json"
        );
        using var response = await server.Http.PutAsync(new Uri("/api/prepare", UriKind.Relative), content);
        Assert.Contains("doseGrams", await response.Content.ReadAsStringAsync(), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("Host", "evil.example")]
    [InlineData("Origin", "http://evil.example")]
    public async Task Other_hosts_and_other_sites_pages_are_refused(string header, string value)
    {
        using var request = new HttpRequestMessage(HttpMethod.Post, "/api/warm/reset");
        request.Headers.TryAddWithoutValidation(header, value);
        using var response = await server.Http.SendAsync(request);
        Assert.Equal(HttpStatusCode.Forbidden, response.StatusCode);
    }

    [Fact]
    public async Task Answers_carry_a_strict_content_policy()
    {
        using var response = await server.Http.GetAsync(new Uri("/api/household", UriKind.Relative));
        Assert.Contains(
            "default-src 'self'",
            response.Headers.GetValues("Content-Security-Policy").Single(),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task An_upload_over_the_limit_is_refused()
    {
        using var content = new ByteArrayContent(new byte[RuddyServer.LargestUpload + 1]);
        content.Headers.ContentType = new("application/json");
        using var request = new HttpRequestMessage(HttpMethod.Post, "/api/exchange/preview") { Content = content };
        // asks before it sends, as browsers' large uploads are cut off otherwise, and waits for the answer
        request.Headers.ExpectContinue = true;
        using var patient = new HttpClient(new SocketsHttpHandler { Expect100ContinueTimeout = TimeSpan.FromMinutes(1) })
        {
            BaseAddress = server.Http.BaseAddress,
        };
        using var response = await patient.SendAsync(request);
        Assert.Equal(HttpStatusCode.RequestEntityTooLarge, response.StatusCode);
    }

    [Theory]
    [InlineData("--port", "many", "--port many is not a port")]
    [InlineData("--port", "70000", "from 0 to 65535")]
    [InlineData("--colour", "red", "--colour is not an option")]
    public void Options_that_are_not_understood_are_named(string option, string value, string sentence) =>
        Assert.Contains(
            sentence,
            Assert.Throws<ArgumentException>(() => ServerOptions.Parse([option, value])).Message,
            StringComparison.Ordinal
        );
}
