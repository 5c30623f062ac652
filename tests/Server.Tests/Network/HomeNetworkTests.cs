using System.Diagnostics;
using System.Net;
using System.Net.Http.Json;
using System.Net.Sockets;
using System.Net.WebSockets;
using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;
using System.Text.Json.Nodes;
using RuddySpring.Server.Hosting;
using RuddySpring.Server.Network;

namespace RuddySpring.Server.Tests.Network;

/// <summary>Attacks from the home network, each tried: nothing is read or written without signing in, and what is revoked is
/// over.</summary>
public sealed class HomeNetworkTests
{
    private const string Passphrase = "barley on the saddle";
    private const int FreeGuesses = 4; // of one address, before it has to wait
    private static readonly TimeSpan FirstWait = TimeSpan.FromSeconds(2); // and twice as long after each one more

    [Fact]
    public async Task NothingButThisMachineAnswersUntilTheOwnerTurnsItOn()
    {
        await using var server = await StartAsync();
        Assert.False((bool)(await server.GetAsync("/api/network"))["isOn"]!);
        Assert.False(Answers(server.HomePort));
        var (status, problem) = await server.SendAsync(HttpMethod.Post, "/api/network/on", new { passphrase = (string?)null });
        Assert.Equal(400, status);
        Assert.Equal("passphrase", (string)problem!["field"]!);
        Assert.False(Answers(server.HomePort));
        foreach (var bad in new[] { "", "elevenchars", "aaaaaaaaaaaaaaaa", new string('x', 5000) })
            Assert.Equal(400, (await server.SendAsync(HttpMethod.Post, "/api/network/on", new { passphrase = bad })).Status);

        await OnAsync(server);
        Assert.True(Answers(server.HomePort));
        await server.PostAsync("/api/network/off");
        await UntilAsync(() => !Answers(server.HomePort));
        Assert.Equal(200, (int)(await server.Http.GetAsync("/api/household")).StatusCode); // this machine works on
    }

    [Fact]
    public async Task NoAddressIsReadOrWrittenWithoutSigningIn()
    {
        await using var server = await StartAsync();
        await OnAsync(server);
        using var stranger = Client(server);
        var tried = 0;
        foreach (var (path, methods) in (await server.GetAsync("/api/openapi.json"))["paths"]!.AsObject())
        foreach (var (method, _) in methods!.AsObject())
        {
            if (path.StartsWith(NetworkGuard.SignInPath, StringComparison.Ordinal))
                continue;
            var address = System.Text.RegularExpressions.Regex.Replace(path, @"\{[^}]+\}", "1");
            using var request = new HttpRequestMessage(new HttpMethod(method.ToUpperInvariant()), address);
            if (method is not ("get" or "delete"))
                request.Content = JsonContent.Create(new { });
            using var answer = await stranger.SendAsync(request);
            Assert.True(answer.StatusCode == HttpStatusCode.Unauthorized, $"{method} {address}: {answer.StatusCode}");
            tried++;
        }

        Assert.InRange(tried, 100, 1000);
        foreach (
            var path in new[] { "/live/negotiate?negotiateVersion=1", "/instruments", "/LIVE/negotiate", "/api/OpenAPI.json" }
        )
            Assert.Equal(HttpStatusCode.Unauthorized, (await stranger.PostAsync(path, JsonContent.Create(new { }))).StatusCode);
        foreach (var path in new[] { "/live", "/instruments", "/instruments?key=guess" })
        {
            using var socket = new ClientWebSocket();
            var refused = await Assert.ThrowsAsync<WebSocketException>(() =>
                socket.ConnectAsync(new Uri($"ws://127.0.0.1:{server.HomePort}{path}"), default)
            );
            Assert.Contains("401", refused.Message, StringComparison.Ordinal);
        }
    }

    [Fact]
    public async Task ADeviceSignsInReadsWritesAndSignsOut()
    {
        await using var server = await StartAsync();
        await OnAsync(server);
        using var tablet = Client(server);
        using var wrong = await SignInAsync(tablet, "not the passphrase");
        Assert.Equal(HttpStatusCode.Forbidden, wrong.StatusCode);
        using var right = await SignInAsync(tablet);
        Assert.Equal(HttpStatusCode.NoContent, right.StatusCode);
        var cookie = right.Headers.GetValues("Set-Cookie").Single();
        Assert.Contains("httponly", cookie, StringComparison.OrdinalIgnoreCase);
        Assert.Contains("samesite=strict", cookie, StringComparison.OrdinalIgnoreCase);
        Assert.DoesNotContain("domain", cookie, StringComparison.OrdinalIgnoreCase);
        tablet.DefaultRequestHeaders.Add("Cookie", cookie.Split(';')[0]);

        Assert.Equal(HttpStatusCode.OK, (await tablet.GetAsync("/api/household")).StatusCode);
        Assert.Equal("Tablet", (string)(await tablet.GetFromJsonAsync<JsonNode>("/api/access"))!["device"]!);
        tablet.DefaultRequestHeaders.Add("Origin", $"http://127.0.0.1:{server.HomePort}");
        Assert.Equal(HttpStatusCode.NoContent, (await tablet.DeleteAsync("/api/shots/3")).StatusCode);

        var listed = (await server.GetAsync("/api/network"))["devices"]!.AsArray().Single()!;
        Assert.Equal("Tablet", (string)listed["name"]!);
        Assert.Equal(HttpStatusCode.NoContent, (await tablet.PostAsync("/api/access/sign-out", null)).StatusCode);
        // a cookie that somebody has copied is worth nothing either
        Assert.Equal(HttpStatusCode.Unauthorized, (await tablet.GetAsync("/api/household")).StatusCode);
        Assert.Empty((await server.GetAsync("/api/network"))["devices"]!.AsArray());
    }

    [Fact]
    public async Task AnotherSitesPageCannotUseTheCookie()
    {
        await using var server = await StartAsync();
        await OnAsync(server);
        using var tablet = await SignedInAsync(server);
        Assert.Equal(HttpStatusCode.Forbidden, (await tablet.DeleteAsync("/api/shots/3")).StatusCode); // says no origin
        using var foreign = new HttpRequestMessage(HttpMethod.Delete, "/api/shots/3");
        foreign.Headers.Add("Origin", "http://elsewhere.example");
        Assert.Equal(HttpStatusCode.Forbidden, (await tablet.SendAsync(foreign)).StatusCode);
        using var neighbour = new HttpRequestMessage(HttpMethod.Delete, "/api/shots/3");
        neighbour.Headers.Add("Origin", "http://127.0.0.1:1");
        Assert.Equal(HttpStatusCode.Forbidden, (await tablet.SendAsync(neighbour)).StatusCode);
        foreach (var origin in new[] { null, "http://elsewhere.example" })
        {
            using var socket = new ClientWebSocket();
            socket.Options.SetRequestHeader("Cookie", tablet.DefaultRequestHeaders.GetValues("Cookie").Single());
            if (origin is not null)
                socket.Options.SetRequestHeader("Origin", origin);
            var refused = await Assert.ThrowsAsync<WebSocketException>(() =>
                socket.ConnectAsync(new Uri($"ws://127.0.0.1:{server.HomePort}/live"), default)
            );
            Assert.Contains("403", refused.Message, StringComparison.Ordinal);
        }

        Assert.Equal(0, (int)(await server.GetAsync("/api/storage"))["binCount"]!);
    }

    [Theory]
    [InlineData("rebound.example")]
    [InlineData("192.0.2.77")]
    [InlineData("localhost.rebound.example")]
    [InlineData("localhost")] // not a name of this listener: only an address or the machine's own name is
    public async Task ANameThatWasReboundToThisMachineIsRefused(string host)
    {
        await using var server = await StartAsync();
        await OnAsync(server);
        using var tablet = await SignedInAsync(server);
        using var request = new HttpRequestMessage(HttpMethod.Get, "/api/household");
        request.Headers.Host = $"{host}:{server.HomePort}";
        Assert.Equal(HttpStatusCode.Forbidden, (await tablet.SendAsync(request)).StatusCode);
        using var own = new HttpRequestMessage(HttpMethod.Get, "/api/household");
        own.Headers.Host = $"{Environment.MachineName}.local:{server.HomePort}";
        Assert.Equal(HttpStatusCode.OK, (await tablet.SendAsync(own)).StatusCode);
    }

    [Fact]
    public async Task ADeviceMayNotOpenTheDoorWiderOrTakeTheHouseholdsCopiesAlong()
    {
        await using var server = await StartAsync();
        await OnAsync(server);
        var backup = (string)(await server.PostAsync("/api/storage/backups"))!["name"]!;
        using var tablet = await SignedInAsync(server);
        tablet.DefaultRequestHeaders.Add("Origin", $"http://127.0.0.1:{server.HomePort}");
        Assert.Equal(HttpStatusCode.OK, (await tablet.GetAsync("/api/storage")).StatusCode);
        Assert.Equal(HttpStatusCode.Forbidden, (await tablet.GetAsync("/api/network")).StatusCode);
        Assert.Equal(HttpStatusCode.Forbidden, (await tablet.GetAsync($"/api/storage/backups/{backup}")).StatusCode);
        foreach (
            var path in new[]
            {
                "/api/network/on",
                "/api/network/off",
                "/api/network/keys",
                "/api/storage/backups",
                $"/api/storage/backups/{backup}/restore",
                "/api/sample/open",
            }
        )
        {
            using var body = JsonContent.Create(new { passphrase = Passphrase, name = "x" });
            Assert.Equal(HttpStatusCode.Forbidden, (await tablet.PostAsync(path, body)).StatusCode);
        }

        Assert.True((bool)(await server.GetAsync("/api/network"))["isOn"]!);
    }

    [Fact]
    public async Task ARevokedDeviceIsHungUpOnAndANewPassphraseSignsEverybodyOut()
    {
        await using var server = await StartAsync();
        await OnAsync(server);
        using var tablet = await SignedInAsync(server);
        using var phone = await SignedInAsync(server, "Phone");
        using var live = await LiveAsync(server, tablet);
        var id = (string)
            (await server.GetAsync("/api/network"))["devices"]!.AsArray().Single(d => (string)d!["name"]! == "Tablet")!["id"]!;
        await server.SendAsync(HttpMethod.Delete, $"/api/network/devices/{id}");
        await Assert.ThrowsAnyAsync<WebSocketException>(() => ListenAsync(live));
        Assert.Equal(HttpStatusCode.Unauthorized, (await tablet.GetAsync("/api/household")).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await phone.GetAsync("/api/household")).StatusCode);

        await server.PostAsync("/api/network/on", new { passphrase = "another one altogether" });
        Assert.Equal(HttpStatusCode.Unauthorized, (await phone.GetAsync("/api/household")).StatusCode);
        using var old = await SignInAsync(phone);
        Assert.Equal(HttpStatusCode.Forbidden, old.StatusCode);
    }

    [Fact]
    public async Task GuessingAtTheSignInIsSlowedDown()
    {
        await using var server = await StartAsync();
        await OnAsync(server);
        using var guesser = Client(server);
        var clock = Stopwatch.StartNew();
        var (wrong, lastSent) = (0, TimeSpan.Zero);
        while (true)
        {
            var sent = clock.Elapsed;
            using var answer = await SignInAsync(guesser, $"guess number {wrong}");
            if (answer.StatusCode == HttpStatusCode.TooManyRequests)
            {
                Assert.InRange(answer.Headers.RetryAfter!.Delta!.Value.TotalSeconds, 1, 900);
                break;
            }

            Assert.Equal(HttpStatusCode.Forbidden, answer.StatusCode);
            (wrong, lastSent) = (wrong + 1, sent);
            Assert.InRange(wrong, 1, MostGuesses(clock.Elapsed));
        }

        Assert.True(wrong >= FreeGuesses, $"refused after {wrong} guesses");
        using var evenTheRightOne = await SignInAsync(guesser);
        // a computer with other work may have stood still until the wait was over
        if (clock.Elapsed - lastSent < FirstWait * (1 << (wrong - FreeGuesses)))
            Assert.Equal(HttpStatusCode.TooManyRequests, evenTheRightOne.StatusCode);
    }

    [Fact]
    public async Task ManyGuessesAtOnceAreNoMoreThanOneAfterTheOther()
    {
        await using var server = await StartAsync();
        await OnAsync(server);
        using var guesser = Client(server);
        var clock = Stopwatch.StartNew();
        var answers = await Task.WhenAll(
            Enumerable
                .Range(0, 60)
                .Select(async i =>
                {
                    using var answer = await SignInAsync(guesser, $"guess number {i}");
                    return answer.StatusCode;
                })
        );
        Assert.InRange(answers.Count(a => a == HttpStatusCode.Forbidden), 1, MostGuesses(clock.Elapsed));
        Assert.All(answers, a => Assert.Contains(a, new[] { HttpStatusCode.Forbidden, HttpStatusCode.TooManyRequests }));
    }

    [Fact]
    public async Task AFloodFromOneAddressIsTurnedAwayAndTheMachineItselfIsNot()
    {
        await using var server = await StartAsync();
        await OnAsync(server);
        using var flood = Client(server);
        var answers = await Task.WhenAll(
            Enumerable.Range(0, 900).Select(async _ => (await flood.GetAsync("/api/access")).StatusCode)
        );
        Assert.Contains(HttpStatusCode.TooManyRequests, answers);
        Assert.Equal(200, (int)(await server.Http.GetAsync("/api/household")).StatusCode);
    }

    [Fact]
    public async Task AnInstrumentComesInWithItsKeyAloneAndGoesWhenThatIsDeleted()
    {
        await using var server = await StartAsync();
        await OnAsync(server);
        var made = (await server.PostAsync("/api/network/keys", new { name = "Kitchen scale" }))!;
        var key = (string)made["key"]!;
        using var byQuery = new ClientWebSocket();
        await byQuery.ConnectAsync(new Uri($"ws://127.0.0.1:{server.HomePort}/instruments?key={key}"), default);
        using var byHeader = new ClientWebSocket();
        byHeader.Options.SetRequestHeader("Authorization", $"Bearer {key}");
        await byHeader.ConnectAsync(new Uri($"ws://127.0.0.1:{server.HomePort}/instruments"), default);
        // it opens the line protocol and nothing else
        using var curious = Client(server);
        curious.DefaultRequestHeaders.Add("Authorization", $"Bearer {key}");
        Assert.Equal(HttpStatusCode.Unauthorized, (await curious.GetAsync($"/api/household?key={key}")).StatusCode);

        await server.SendAsync(HttpMethod.Delete, $"/api/network/keys/{made["id"]}");
        await Assert.ThrowsAnyAsync<WebSocketException>(() => ListenAsync(byQuery));
        using var late = new ClientWebSocket();
        await Assert.ThrowsAsync<WebSocketException>(() =>
            late.ConnectAsync(new Uri($"ws://127.0.0.1:{server.HomePort}/instruments?key={key}"), default)
        );
    }

    [Fact]
    public async Task ItIsOnAgainAfterARestartAndItsFileHoldsNoSecret()
    {
        var port = FreePort();
        await using var server = await StartAsync(port);
        await OnAsync(server);
        using var tablet = await SignedInAsync(server);
        var key = (string)(await server.PostAsync("/api/network/keys", new { name = "Scale" }))!["key"]!;
        var file = Path.Combine(server.Folder, AccessFile.FileName);
        var text = await File.ReadAllTextAsync(file);
        var token = tablet.DefaultRequestHeaders.GetValues("Cookie").Single().Split('=')[1];
        foreach (var secret in new[] { Passphrase, key, token })
            Assert.DoesNotContain(secret, text, StringComparison.Ordinal);
        if (!OperatingSystem.IsWindows())
            Assert.Equal(UnixFileMode.UserRead | UnixFileMode.UserWrite, File.GetUnixFileMode(file));
        var again = new LiveServer
        {
            Demo = false,
            HomePort = port,
            Before = database => File.WriteAllText(Path.Combine(Path.GetDirectoryName(database)!, AccessFile.FileName), text),
        };
        await server.StopAsync();
        await UntilAsync(() => !Answers(port));
        await using (again)
        {
            await again.InitializeAsync();
            await UntilAsync(() => Answers(port));
            Assert.Equal(HttpStatusCode.OK, (await tablet.GetAsync("/api/household")).StatusCode);
        }
    }

    [Fact]
    public async Task AFileThatCannotBeReadKeepsTheDoorShut()
    {
        var port = FreePort();
        await using var server = new LiveServer
        {
            Demo = false,
            HomePort = port,
            Before = database =>
                File.WriteAllText(Path.Combine(Path.GetDirectoryName(database)!, AccessFile.FileName), "{\"IsOn\":true,"),
        };
        await server.InitializeAsync();
        Assert.False((bool)(await server.GetAsync("/api/network"))["isOn"]!);
        Assert.False(Answers(port));
        Assert.Contains(server.Service<Troubles>().Sentences, s =>
            s.Contains("home network stays off", StringComparison.Ordinal)
        );
    }

    [Fact]
    public async Task APortThatIsTakenIsSaidAndTheNetworkStaysOff()
    {
        using var other = new TcpListener(IPAddress.Any, 0);
        other.Start();
        await using var server = await StartAsync(((IPEndPoint)other.LocalEndpoint).Port);
        var (status, problem) = await server.SendAsync(HttpMethod.Post, "/api/network/on", new { passphrase = Passphrase });
        Assert.Equal(400, status);
        Assert.Contains("--home-port", (string)problem!["detail"]!, StringComparison.Ordinal);
        Assert.False((bool)(await server.GetAsync("/api/network"))["isOn"]!);
    }

    [Fact]
    public async Task WithACertificateOfOnesOwnItAnswersByHttpsAndTheCookieStaysThere()
    {
        var folder = Directory.CreateTempSubdirectory("ruddy-").FullName;
        using var rsa = RSA.Create(2048);
        var request = new CertificateRequest("CN=hut.example", rsa, HashAlgorithmName.SHA256, RSASignaturePadding.Pkcs1);
        using var certificate = request.CreateSelfSigned(DateTimeOffset.UtcNow.AddDays(-1), DateTimeOffset.UtcNow.AddDays(9));
        var (file, key) = (Path.Combine(folder, "own.pem"), Path.Combine(folder, "own.key"));
        await File.WriteAllTextAsync(file, certificate.ExportCertificatePem());
        await File.WriteAllTextAsync(key, rsa.ExportPkcs8PrivateKeyPem());
        await using var server = new LiveServer { HomePort = FreePort(), Certificate = (file, key) };
        await server.InitializeAsync();
        var view = await server.PostAsync("/api/network/on", new { passphrase = Passphrase });
        Assert.True((bool)view!["isSafe"]!);
        using var handler = new HttpClientHandler
        {
            ServerCertificateCustomValidationCallback = (_, c, _, _) => c!.Subject == "CN=hut.example",
        };
        using var tablet = new HttpClient(handler) { BaseAddress = new Uri($"https://127.0.0.1:{server.HomePort}") };
        using var answer = await SignInAsync(tablet);
        Assert.Contains("secure", answer.Headers.GetValues("Set-Cookie").Single(), StringComparison.OrdinalIgnoreCase);
        Assert.Contains("wss://", answer.Headers.GetValues("Content-Security-Policy").Single(), StringComparison.Ordinal);
        Directory.Delete(folder, recursive: true);
    }

    [Fact]
    public void AProposedPassphraseMayBeOneAndNoTwoAreEqual()
    {
        var proposals = Enumerable.Range(0, 200).Select(_ => Secrets.Propose()).ToHashSet();
        Assert.Equal(200, proposals.Count);
        Assert.All(proposals.Where(p => p.Distinct().Count() > 5), p => Assert.Equal(p, Secrets.Passphrase(p)));
    }

    /// <summary>How many guesses an address has at most within some time: a slow computer lets waits go by.</summary>
    private static int MostGuesses(TimeSpan within)
    {
        var most = FreeGuesses;
        for (var wait = FirstWait; within >= wait; wait *= 2)
            (most, within) = (most + 1, within - wait);
        return most;
    }

    private static async Task<LiveServer> StartAsync(int? port = null)
    {
        var server = new LiveServer { HomePort = port ?? FreePort() };
        await server.InitializeAsync();
        return server;
    }

    private static async Task OnAsync(LiveServer server) =>
        await server.PostAsync("/api/network/on", new { passphrase = Passphrase });

    private static HttpClient Client(LiveServer server) =>
        new(new HttpClientHandler { UseCookies = false }) { BaseAddress = new Uri($"http://127.0.0.1:{server.HomePort}") };

    private static Task<HttpResponseMessage> SignInAsync(
        HttpClient client,
        string passphrase = Passphrase,
        string device = "Tablet"
    ) => client.PostAsJsonAsync("/api/access/sign-in", new { passphrase, device });

    private static async Task<HttpClient> SignedInAsync(LiveServer server, string device = "Tablet")
    {
        var client = Client(server);
        using var answer = await SignInAsync(client, Passphrase, device);
        client.DefaultRequestHeaders.Add("Cookie", answer.Headers.GetValues("Set-Cookie").Single().Split(';')[0]);
        return client;
    }

    private static async Task<ClientWebSocket> LiveAsync(LiveServer server, HttpClient client)
    {
        var socket = new ClientWebSocket();
        socket.Options.SetRequestHeader("Cookie", client.DefaultRequestHeaders.GetValues("Cookie").Single());
        socket.Options.SetRequestHeader("Origin", $"http://127.0.0.1:{server.HomePort}");
        await socket.ConnectAsync(new Uri($"ws://127.0.0.1:{server.HomePort}/live"), default);
        return socket;
    }

    /// <summary>Reads until the other end hangs up.</summary>
    private static async Task ListenAsync(ClientWebSocket socket)
    {
        using var patience = new CancellationTokenSource(TimeSpan.FromSeconds(60));
        var buffer = new byte[1024];
        while ((await socket.ReceiveAsync(buffer, patience.Token)).MessageType != WebSocketMessageType.Close) { }
    }

    private static bool Answers(int port)
    {
        using var socket = new Socket(AddressFamily.InterNetwork, SocketType.Stream, ProtocolType.Tcp);
        try
        {
            socket.Connect(IPAddress.Loopback, port);
            return true;
        }
        catch (SocketException)
        {
            return false;
        }
    }

    private static int FreePort()
    {
        using var listener = new TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        return ((IPEndPoint)listener.LocalEndpoint).Port;
    }

    private static async Task UntilAsync(Func<bool> isSo)
    {
        using var patience = new CancellationTokenSource(TimeSpan.FromSeconds(60));
        while (!isSo())
            await Task.Delay(20, patience.Token);
    }
}
