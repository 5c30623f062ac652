using System.Text;
using System.Text.Json.Nodes;
using RuddySpring.Core.Traces;
using RuddySpring.Server.Instruments;

namespace RuddySpring.Server.Tests.Instruments;

/// <summary>Devices that are slow, stay for a day, come and go, or are not the ones that are meant.</summary>
public sealed class DeviceTests : IAsyncLifetime
{
    private readonly LiveServer _server = new();

    public ValueTask InitializeAsync() => _server.InitializeAsync();

    public ValueTask DisposeAsync() => _server.DisposeAsync();

    private async Task<JsonNode> FrameAsync() => (await _server.GetAsync("/api/pull"))["frame"]!;

    private Task DevicesAsync(int count) =>
        LiveServer.UntilAsync(
            async () => (await FrameAsync())["devices"]!.AsArray().Count == count,
            $"{count} devices are there"
        );

    private static string Line(double t, double bar) =>
        FormattableString.Invariant($"{{\"t\":{t:0.000},\"pressure\":{bar:0.00}}}\n");

    [Fact] // the server's least speed for a request cut it off after seven seconds
    public async Task One_that_posts_a_reading_a_second_is_listened_to()
    {
        var readings = 0;
        using var content = new Slowly(async body =>
        {
            await body.WriteAsync(Encoding.UTF8.GetBytes(DeviceClient.Hello("Slow thermometer", "temperature", "degC") + "\n"));
            for (; readings < 10; readings++)
            {
                await body.WriteAsync(
                    Encoding.UTF8.GetBytes(FormattableString.Invariant($"{{\"t\":{readings},\"temperature\":{20 + readings}}}\n"))
                );
                await body.FlushAsync();
                await Task.Delay(1000);
            }
        });
        using var request = new HttpRequestMessage(HttpMethod.Post, "/instruments") { Content = content };
        request.Headers.TransferEncodingChunked = true;
        using var answer = await _server.Http.SendAsync(request);
        Assert.Equal(200, (int)answer.StatusCode);
        Assert.Equal(10, readings);
    }

    [Fact]
    public void One_that_sends_for_a_day_is_kept_up_with()
    {
        var device = new Device(LineProtocol.ParseHello(DeviceClient.Hello("Shelf gauge", "pressure", "bar")));
        device.Connected(5);
        TimedSample last = default;
        const int ASecond = 10;
        for (var i = 1; i <= 86_400 * ASecond; i++)
        {
            // its clock is a tenth of a percent fast: a minute and a half in a day
            var server = 5 + (i / (double)ASecond);
            var kept = device.Take(
                FormattableString.Invariant($"{{\"t\":{i / (double)ASecond * 1.001:0.0000},\"pressure\":3}}"),
                server
            );
            if (kept.Count > 0)
                last = kept[^1];
        }

        Assert.Equal(86_400L * ASecond, device.Samples);
        Assert.Equal(86_405, last.ServerSeconds, 0.2);
        Assert.Empty(device.Problems);
    }

    [Fact]
    public async Task One_that_comes_and_goes_spoils_no_pull()
    {
        using var gauge = await DeviceClient.ConnectAsync(_server.Instruments, DeviceClient.Hello("Gauge", "pressure", "bar"));
        await DevicesAsync(1);
        await _server.ReadyAsync();
        for (var i = 0; i < 40; i++)
        {
            await gauge.SendAsync(Line(1 + i, 3));
            using var flaky = await DeviceClient.ConnectAsync(
                _server.Instruments,
                DeviceClient.Hello($"Flaky {i}", "pressure", "bar")
            );
            await flaky.SendAsync(Line(1, 12));
            flaky.Vanish();
        }

        await LiveServer.UntilAsync(async () => (await FrameAsync())["devices"]!.AsArray().Count == 1, "all but one are gone");
        var frame = await FrameAsync();
        Assert.Equal(3, (double)frame["reading"]!["pressureBar"]!);
        Assert.All(frame["pressure"]!.AsArray(), p => Assert.Equal(3, (double)p![1]!));
        // two thousand of them once put four thousand notices into every frame
        Assert.Empty(frame["notices"]!.AsArray());
    }

    [Fact]
    public async Task One_of_the_same_name_is_sent_away_while_the_first_sends_and_takes_its_place_when_it_is_silent()
    {
        using var first = await DeviceClient.ConnectAsync(_server.Instruments, DeviceClient.Hello("Gauge", "pressure", "bar"));
        await DevicesAsync(1);
        using var second = await DeviceClient.ConnectAsync(_server.Instruments, DeviceClient.Hello("Gauge", "pressure", "bar"));
        await second.HearAsync("already connected and sending");
        await second.ClosedAsync();
        await LiveServer.UntilAsync(async () => (bool)(await FrameAsync())["devices"]![0]!["silent"]!, "the first is silent");
        using var third = await DeviceClient.ConnectAsync(_server.Instruments, DeviceClient.Hello("Gauge", "pressure", "bar"));
        await third.SendAsync(Line(1, 4));
        await LiveServer.UntilAsync(
            async () => (double?)(await FrameAsync())["devices"]![0]!["latest"]!["Pressure"] == 4,
            "it has taken its place"
        );
        await first.SendAsync(Line(2, 9)); // the old connection is nobody's any more, and told so
        await first.HearAsync("took the place of Gauge");
        await first.ClosedAsync();
        await third.SendAsync(Line(2, 5));
        await LiveServer.UntilAsync(
            async () => (double?)(await FrameAsync())["devices"]![0]!["latest"]!["Pressure"] == 5,
            "it goes on"
        );
        Assert.Single((await FrameAsync())["devices"]!.AsArray());
    }

    [Fact]
    public async Task One_that_was_not_given_to_the_pull_feeds_nothing_that_another_tells()
    {
        using var gauge = await DeviceClient.ConnectAsync(_server.Instruments, DeviceClient.Hello("Gauge", "pressure", "bar"));
        await DevicesAsync(1);
        await _server.ReadyAsync();
        using var stranger = await DeviceClient.ConnectAsync(
            _server.Instruments,
            DeviceClient.Hello("Stranger", "pressure", "bar")
        );
        using var scale = await DeviceClient.ConnectAsync(_server.Instruments, DeviceClient.Hello("Late scale", "weight", "g"));
        await DevicesAsync(3);
        for (var i = 0; i < 30; i++)
        {
            await gauge.SendAsync(Line(1 + (i * 0.05), 3));
            await stranger.SendAsync(Line(1 + (i * 0.05), 11));
            await scale.SendAsync(FormattableString.Invariant($"{{\"t\":{1 + (i * 0.05):0.00},\"weight\":60}}\n"));
            await Task.Delay(10);
        }

        var frame = await FrameAsync();
        Assert.All(frame["pressure"]!.AsArray(), p => Assert.Equal(3, (double)p![1]!));
        // what nobody else tells is welcome, also late
        Assert.Equal(["Gauge", "Late scale"], frame["pulls"]![0]!["devices"]!.AsArray().Select(d => (string)d!).Order());
        await _server.PostAsync("/api/pull/instrument", new { device = "Stranger" });
        await stranger.SendAsync(Line(9, 7));
        await LiveServer.UntilAsync(
            async () => (double?)(await FrameAsync())["reading"]!["pressureBar"] == 7,
            "it is heard once it is given"
        );
    }

    [Fact] // 160 degC was taken by the one and refused by the other, and stopped the server
    public async Task An_odd_reading_of_the_group_is_refused_where_it_comes_in_and_a_session_goes_on()
    {
        Assert.Equal(150, ChannelRanges.Group.Max);
        using var probe = await DeviceClient.ConnectAsync(_server.Instruments, DeviceClient.Hello("Probe", "group", "degC"));
        await probe.SendAsync("{\"t\":1,\"group\":160}\n{\"t\":2,\"group\":-15}\n{\"t\":3,\"group\":71}\n");
        await probe.HearAsync("Group temperature is 160 degC; it must lie between -10 and 150 degC.");
        await LiveServer.UntilAsync(
            async () => (double?)(await FrameAsync())["devices"]![0]!["latest"]!["Group"] == 71,
            "the good one is taken"
        );
    }

    private sealed class Slowly(Func<Stream, Task> write) : HttpContent
    {
        protected override Task SerializeToStreamAsync(Stream stream, System.Net.TransportContext? context) => write(stream);

        protected override bool TryComputeLength(out long length)
        {
            length = 0;
            return false;
        }
    }
}
