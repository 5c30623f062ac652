using RuddySpring.Core;
using RuddySpring.Core.Traces;
using RuddySpring.Server.Instruments;

namespace RuddySpring.Server.Tests.Instruments;

/// <summary>The open line protocol, line by line, as docs/line-protocol.md describes it.</summary>
public sealed class LineProtocolTests
{
    private static Hello Gauge(string unit = "bar") => LineProtocol.ParseHello(DeviceClient.Hello("Gauge", "pressure", unit));

    [Theory] // NIST SP 811: 1 psi = 6894.757 Pa
    [InlineData("bar", 9.0, 9.0)]
    [InlineData("psi", 130.0, 8.963184)]
    [InlineData("kPa", 900.0, 9.0)]
    public void Units_are_brought_to_bar(string unit, double sent, double bar) =>
        Assert.Equal(
            bar,
            LineProtocol.ParseSamples(FormattableString.Invariant($"{{\"t\":1,\"pressure\":{sent}}}"), Gauge(unit))[0].Value,
            1e-5
        );

    [Fact]
    public void One_line_may_hold_several_channels()
    {
        var hello = LineProtocol.ParseHello(
            """{"hello":"ruddy-line/1","device":"All in one","channels":{"pressure":"bar","weight":"oz","temperature":"degF"}}"""
        );
        var samples = LineProtocol.ParseSamples("""{"t":2.5,"pressure":3,"weight":1,"temperature":212}""", hello);
        Assert.Equal([Channel.Pressure, Channel.Weight, Channel.Temperature], samples.Select(s => s.Channel));
        Assert.Equal(Units.GramsPerOunce, samples[1].Value, 1e-9);
        Assert.Equal(100, samples[2].Value, 1e-9);
    }

    [Theory]
    [InlineData("hello there", "not a JSON object")]
    [InlineData("""{"device":"x"}""", "first line must say hello")]
    [InlineData("""{"hello":"ruddy-line/9","device":"x","channels":{"pressure":"bar"}}""", "speaks ruddy-line/1")]
    [InlineData("""{"hello":"ruddy-line/1","device":"","channels":{"pressure":"bar"}}""", "1 to 60 characters")]
    [InlineData("""{"hello":"ruddy-line/1","device":"x","channels":{"pressure":"atm"}}""", "use one of bar, psi, kPa")]
    [InlineData(
        """{"hello":"ruddy-line/1","device":"x","channels":{"humidity":"%"}}""",
        "known are pressure, weight, temperature"
    )]
    [InlineData("""{"hello":"ruddy-line/1","device":"x","channels":{}}""", "channels is empty")]
    public void A_bad_hello_says_what_would_do(string line, string part) =>
        Assert.Contains(
            part,
            Assert.Throws<LineProblemException>(() => LineProtocol.ParseHello(line)).Message,
            StringComparison.Ordinal
        );

    [Theory]
    [InlineData("\u0000\u0001garbage", "not a JSON object")]
    [InlineData("""{"pressure":3}""", "t must be")]
    [InlineData("""{"t":"now","pressure":3}""", "t must be")]
    [InlineData("""{"t":-1,"pressure":3}""", "t must be")]
    [InlineData("""{"t":1}""", "holds no reading")]
    [InlineData("""{"t":1,"pressure":"high"}""", "pressure must be a number")]
    [InlineData("""{"t":1,"pressure":99}""", "between -1 and 25 bar")]
    [InlineData("""{"t":1,"weight":20}""", "was not declared in hello")]
    [InlineData("""{"t":1,"pressure":[[[[[[1]]]]]]}""", "not a JSON object")]
    public void A_bad_line_says_what_is_wrong(string line, string part) =>
        Assert.Contains(
            part,
            RuddySpring.Core.Quantity.Plain(
                Assert.Throws<LineProblemException>(() => LineProtocol.ParseSamples(line, Gauge())).Message
            ),
            StringComparison.Ordinal
        );

    [Fact]
    public void Lines_are_put_together_from_any_pieces()
    {
        var splitter = new LineSplitter(50);
        Assert.Empty(splitter.Take("{\"t\":1,"u8));
        Assert.True(splitter.HasHalfLine);
        Assert.Equal(["{\"t\":1,\"a\":2}", "{\"t\":2}"], splitter.Take("\"a\":2}\r\n\n{\"t\":2}\n{"u8));
        Assert.Equal("{", splitter.Rest());
    }

    [Fact]
    public void A_line_that_never_ends_is_dropped_and_the_next_is_read()
    {
        var splitter = new LineSplitter(50);
        Assert.Empty(splitter.Take(new byte[10_000]));
        Assert.Equal(["{}"], splitter.Take("\n{}\n"u8));
        Assert.Equal(1, splitter.TooLong);
    }

    /// <summary>How many of the lines of a device, ten a second, are not kept.</summary>
    private static int Lost(Device device, IEnumerable<double> deviceSeconds, double serverSeconds)
    {
        var lost = 0;
        foreach (var t in deviceSeconds)
        {
            serverSeconds += 0.1;
            try
            {
                var kept = device.Take(FormattableString.Invariant($"{{\"t\":{t:0.###},\"pressure\":2}}"), serverSeconds);
                Assert.Equal(serverSeconds, kept[0].ServerSeconds, 0.15);
            }
            catch (LineProblemException)
            {
                lost++;
            }
        }

        return lost;
    }

    [Theory]
    [InlineData(-3600)] // set back by an hour
    [InlineData(-100)] // started again
    [InlineData(-6)]
    public void A_clock_that_is_set_back_loses_less_than_a_second(double jump)
    {
        var device = new Device(Gauge());
        Assert.Equal(0, Lost(device, Enumerable.Range(0, 30).Select(i => 5000 + (i * 0.1)), 10));
        Assert.InRange(Lost(device, Enumerable.Range(30, 60).Select(i => 5000 + jump + (i * 0.1)), 13), 1, 9);
        Assert.Equal(1, device.NewClocks);
        Assert.Contains(device.Problems, p => p.Contains("clock restarted", StringComparison.Ordinal));
    }

    [Theory]
    [InlineData(3600)]
    [InlineData(2)]
    public void A_clock_that_is_set_forward_loses_nothing(double jump)
    {
        var device = new Device(Gauge());
        Assert.Equal(0, Lost(device, Enumerable.Range(0, 30).Select(i => 5000 + (i * 0.1)), 10));
        Assert.Equal(0, Lost(device, Enumerable.Range(30, 60).Select(i => 5000 + jump + (i * 0.1)), 13));
    }

    [Fact]
    public void Lines_that_were_held_up_on_the_way_are_left_out_and_the_clock_is_believed_as_before()
    {
        var device = new Device(Gauge());
        Lost(device, Enumerable.Range(0, 30).Select(i => 100 + (i * 0.1)), 10);
        Assert.Equal(10, Lost(device, Enumerable.Range(0, 10).Select(i => 101 + (i * 0.1)), 13));
        Assert.Contains("ran backwards", device.Problems[^1], StringComparison.Ordinal);
        Assert.Equal(0, device.NewClocks);
    }

    [Fact]
    public void A_thousand_samples_a_second_are_thinned_to_a_hundred()
    {
        var device = new Device(Gauge());
        for (var i = 0; i < 2000; i++)
            device.Take(FormattableString.Invariant($"{{\"t\":{i * 0.001},\"pressure\":2}}"), i * 0.001);
        Assert.InRange(device.Samples, 150, 230);
        Assert.Contains(device.Problems, p => p.Contains("more than 100 samples a second", StringComparison.Ordinal));
    }

    [Fact] // late lines do not shift the trace: the shortest delay tells the clocks apart
    public void Delay_on_the_way_does_not_bend_time()
    {
        var device = new Device(Gauge());
        device.Take("""{"t":5.0,"pressure":1}""", 100.02);
        var late = device.Take("""{"t":5.1,"pressure":1}""", 100.40);
        Assert.Equal(100.12, late[0].ServerSeconds, 1e-9);
    }

    [Fact] // 100 ppm slow over three hours would be a second off
    public void A_drifting_clock_is_followed()
    {
        var bridge = new ClockBridge();
        for (var s = 0.0; s < 3 * 3600; s += 1)
            bridge.Note(s * 0.9999, s + 0.01);
        Assert.Equal(3 * 3600, bridge.ToServer(3 * 3600 * 0.9999), 0.05);
    }

    [Fact]
    public void Samples_saved_up_and_sent_at_once_keep_their_times()
    {
        var device = new Device(Gauge());
        var kept = Enumerable
            .Range(0, 10)
            .SelectMany(i => device.Take(FormattableString.Invariant($"{{\"t\":{5 + (i * 0.05)},\"pressure\":2}}"), 50))
            .ToList();
        Assert.Equal(10, kept.Count);
        device.Take("""{"t":6,"pressure":2}""", 50.6);
        Assert.Equal(50.55, device.Take("""{"t":6.05,"pressure":2}""", 50.7)[0].ServerSeconds, 0.051);
    }
}
