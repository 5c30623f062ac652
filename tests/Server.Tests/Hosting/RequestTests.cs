using System.Net;
using System.Net.WebSockets;
using System.Text;
using System.Text.Json.Nodes;
using RuddySpring.Server.Hosting;

namespace RuddySpring.Server.Tests.Hosting;

/// <summary>Who may ask, and what is said to requests that cannot be read.</summary>
public sealed class RequestTests(LiveServer server) : IClassFixture<LiveServer>
{
    private async Task<(HttpResponseMessage Response, string Text)> SendAsync(
        HttpMethod method,
        string path,
        params (string Name, string Value)[] headers
    )
    {
        using var request = new HttpRequestMessage(method, new Uri(path, UriKind.Relative));
        foreach (var (name, value) in headers)
            request.Headers.TryAddWithoutValidation(name, value);
        var response = await server.Http.SendAsync(request, HttpCompletionOption.ResponseHeadersRead);
        return (response, response.StatusCode == HttpStatusCode.OK ? "" : await response.Content.ReadAsStringAsync());
    }

    [Theory]
    [InlineData("/live?id=x", "http://evil.example")]
    [InlineData("/live", "http://127.0.0.1:9")]
    [InlineData("/instruments", "null")]
    public async Task No_page_of_another_origin_opens_a_socket(string path, string origin)
    {
        using var socket = new ClientWebSocket();
        socket.Options.SetRequestHeader("Origin", origin);
        socket.Options.CollectHttpResponseDetails = true;
        await Assert.ThrowsAsync<WebSocketException>(() =>
            socket.ConnectAsync(new Uri($"ws://{server.Address.Authority}{path}"), CancellationToken.None)
        );
        Assert.Equal(HttpStatusCode.Forbidden, socket.HttpStatusCode);
    }

    [Fact]
    public async Task Our_own_page_opens_both_sockets()
    {
        using var socket = new ClientWebSocket();
        socket.Options.SetRequestHeader("Origin", $"http://{server.Address.Authority}");
        await socket.ConnectAsync(server.Instruments, CancellationToken.None);
        Assert.Equal(WebSocketState.Open, socket.State);
    }

    [Theory]
    [InlineData("GET", "/live?id=x", "Accept", "text/event-stream")]
    [InlineData("GET", "/api/shots", "Accept", "application/json")]
    [InlineData("POST", "/live/negotiate?negotiateVersion=1", "Accept", "*/*")]
    public async Task Nor_reads_a_stream_or_an_answer(string method, string path, string header, string value)
    {
        var (response, text) = await SendAsync(new(method), path, (header, value), ("Origin", "http://evil.example"));
        Assert.Equal(HttpStatusCode.Forbidden, response.StatusCode);
        Assert.Contains("another site's page", text, StringComparison.Ordinal);
        (response, _) = await SendAsync(
            new(method),
            path,
            (header, value),
            ("Sec-Fetch-Site", "cross-site"),
            ("Sec-Fetch-Mode", "no-cors")
        );
        Assert.Equal(HttpStatusCode.Forbidden, response.StatusCode);
    }

    [Fact]
    public async Task A_link_from_elsewhere_may_be_followed()
    {
        var (response, _) = await SendAsync(
            HttpMethod.Get,
            "/api/household",
            ("Sec-Fetch-Site", "cross-site"),
            ("Sec-Fetch-Mode", "navigate")
        );
        Assert.Equal(HttpStatusCode.OK, response.StatusCode);
    }

    [Theory]
    [InlineData("/api/household", 200)]
    [InlineData("/api/shots?page=x", 400)]
    [InlineData("/api/nothing", 404)]
    [InlineData("/api/shots/99999", 404)]
    public async Task Every_answer_carries_every_directive_of_the_policy(string path, int status)
    {
        var (response, _) = await SendAsync(HttpMethod.Get, path);
        Assert.Equal(status, (int)response.StatusCode);
        var policy = response.Headers.GetValues("Content-Security-Policy").Single().Split(';', StringSplitOptions.TrimEntries);
        Assert.Equal(
            [
                "default-src 'self'",
                "img-src 'self' data: blob:",
                "style-src 'self' 'unsafe-inline'",
                $"connect-src 'self' ws://{server.Address.Authority}",
                "object-src 'none'",
                "base-uri 'none'",
                "frame-ancestors 'none'",
                "form-action 'self'",
            ],
            policy
        );
        Assert.Equal("nosniff", response.Headers.GetValues("X-Content-Type-Options").Single());
        Assert.Equal("no-referrer", response.Headers.GetValues("Referrer-Policy").Single());
    }

    [Theory]
    [InlineData("/api/shots?page=x", "page", "page is \"x\"; it must be a whole number.")]
    [InlineData("/api/shots?page=99999999999", "page", "it must be a whole number")]
    [InlineData("/api/shots?page=2000000", "page", "between 0 and 1000000")]
    [InlineData("/api/warm/bleed", "wantedC", "wantedC is missing; it must be a number.")]
    [InlineData("/api/warm/bleed?wantedC=NaN", "wantedC", "between 75 and 105")]
    [InlineData("/api/shots/compare?ids=1,zwei", "ids", "zwei is not a shot's number")]
    public async Task A_parameter_that_does_not_do_is_named_with_what_would(string path, string field, string part)
    {
        var (status, problem) = await server.SendAsync(HttpMethod.Get, path);
        Assert.Equal(400, status);
        Assert.Equal(field, (string)problem!["field"]!);
        Assert.Contains(part, (string)problem["detail"]!, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("POST", "/api/bench/brewers", "{}", "name", "name is missing.")]
    [InlineData("POST", "/api/bench/brewers", "{\"name\":null}", "name", "name must not be empty.")]
    [InlineData("POST", "/api/bench/brewers", "{\"name\":7}", "name", "name must be a text.")]
    [InlineData("POST", "/api/bench/brewers", "{\"name\":\"a\\u0000b\"}", "name", "cannot be shown")]
    [InlineData("POST", "/api/bench/brewers", "{\"name\":\"two\\nlines\"}", "name", "without line breaks")]
    [InlineData("POST", "/api/bench/machines", "{\"name\":\"x\"}", "spec", "spec is missing.")]
    [InlineData(
        "POST",
        "/api/bench/machines",
        "{\"name\":\"x\",\"spec\":{\"family\":3}}",
        "spec.family",
        "must be one of BoilerDirect, BoilerSpring"
    )]
    [InlineData(
        "POST",
        "/api/bench/baskets",
        "{\"name\":\"x\",\"spec\":{\"diameterMm\":\"wide\"}}",
        "spec.diameterMm",
        "must be a number"
    )]
    [InlineData("POST", "/api/pull/mark", "{}", "moment", "moment is missing.")]
    [InlineData(
        "POST",
        "/api/session/preview",
        "{\"wants\":{\"drinks\":[{}],\"doseGrams\":15,\"yieldGrams\":30},\"readyAt\":null}",
        "for",
        "for, milkGrams are missing."
    )]
    [InlineData(
        "POST",
        "/api/session/preview",
        "{\"wants\":{\"drinks\":[null],\"doseGrams\":15,\"yieldGrams\":30},\"readyAt\":null}",
        "drinks",
        "no empty entries"
    )]
    [InlineData(
        "POST",
        "/api/plans/import",
        "{\"format\":\"ruddy-spring-plan\",\"version\":1,\"plan\":null}",
        "plan",
        "plan must not be empty."
    )]
    [InlineData(
        "POST",
        "/api/bench/bags",
        "{\"name\":\"x\",\"roaster\":\"\",\"roastedOn\":\"yesterday\",\"roastLevel\":\"dark\",\"finished\":false}",
        "roastedOn",
        "a date such as 2026-02-01"
    )]
    [InlineData("POST", "/api/pull/ready", "{\"sheetVersion\":1.5}", "sheetVersion", "a whole number")]
    public async Task A_member_that_does_not_do_is_named_with_what_would(
        string method,
        string path,
        string body,
        string field,
        string part
    )
    {
        var (response, problem) = await PutAsync(method, path, body, "application/json");
        Assert.Equal(400, response);
        Assert.Equal(field, (string)problem["field"]!);
        Assert.Contains(part, (string)problem["detail"]!, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("application/json; charset=klingon", "{}", 415, "UTF-8")]
    [InlineData("text/plain", "{}", 415, "application/json")]
    [InlineData("application/json", "", 400, "no body")]
    [InlineData("application/json", "[1,2", 400, "not valid JSON")]
    public async Task A_body_that_cannot_be_read_gets_a_sentence(string type, string body, int status, string part)
    {
        foreach (var path in new[] { "/api/bench/brewers", "/api/plans/preview", "/api/exchange/preview" })
        {
            var (got, problem) = await PutAsync("POST", path, body, type);
            Assert.Equal(status, got);
            Assert.Contains(part, (string)problem["detail"]!, StringComparison.Ordinal);
        }
    }

    [Fact] // an endless value once came back twice as long
    public async Task A_long_value_is_not_sent_back()
    {
        var endless = new string('x', 1_000_000);
        foreach (
            var (path, body) in new[]
            {
                ("/api/bench/brewers", $"{{\"name\":\"{endless}\"}}"),
                ("/api/pull/mark", $"{{\"{endless}\":1}}"),
                ("/api/pull/instrument", $"{{\"device\":\"{endless[..3900]}\"}}"),
            }
        )
        {
            var (status, problem) = await PutAsync("POST", path, body, "application/json");
            Assert.InRange(status, 400, 499);
            Assert.InRange(problem.ToJsonString().Length, 10, 1000);
        }
    }

    [Fact]
    public async Task Whoever_sends_too_much_reads_the_answer()
    {
        // whole, without asking first, as browsers do
        using var content = new ByteArrayContent(new byte[RuddyServer.LargestUpload + 500_000]);
        content.Headers.ContentType = new("application/json");
        using var response = await server.Http.PostAsync(new Uri("/api/exchange/preview", UriKind.Relative), content);
        Assert.Equal(HttpStatusCode.RequestEntityTooLarge, response.StatusCode);
        Assert.Contains("larger than 8 MB", await response.Content.ReadAsStringAsync(), StringComparison.Ordinal);
    }

    private async Task<(int Status, JsonNode Problem)> PutAsync(string method, string path, string body, string type)
    {
        using var request = new HttpRequestMessage(new(method), new Uri(path, UriKind.Relative))
        {
            Content = new ByteArrayContent(Encoding.UTF8.GetBytes(body)),
        };
        request.Content.Headers.TryAddWithoutValidation("Content-Type", type);
        using var response = await server.Http.SendAsync(request);
        var text = await response.Content.ReadAsStringAsync();
        Assert.True(text.Length > 0, $"{path} answered {(int)response.StatusCode} with nothing");
        return ((int)response.StatusCode, JsonNode.Parse(text)!);
    }
}
