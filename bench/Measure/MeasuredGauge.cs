using System.Collections.Concurrent;
using System.Diagnostics;
using System.Globalization;
using System.Net.WebSockets;
using System.Text;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.SignalR.Client;

namespace RuddySpring.Measure;

/// <summary>A gauge, and a scale where there is one, that sends 50 samples a second, and a screen that hears the frames of its
/// pull. The pressure says which sample it is: 1 bar and a thousandth for each, up to 10 bar.</summary>
internal sealed class MeasuredGauge : IAsyncDisposable
{
    private const int SamplesPerSecond = 50;
    private const int Numbers = 9000;
    private readonly ConcurrentDictionary<int, long> _sent = [];
    private readonly ConcurrentBag<double> _took = [];
    private readonly ClientWebSocket _socket = new();
    private readonly HubConnection _hub;
    private readonly double? _gramsPerSecond;

    private MeasuredGauge(Uri address, double? gramsPerSecond)
    {
        _gramsPerSecond = gramsPerSecond;
        _hub = new HubConnectionBuilder().WithUrl(new Uri(address, "/live")).Build();
        _hub.On<JsonNode>("frame", Hear);
    }

    /// <summary>Samples that were sent.</summary>
    public int Count { get; private set; }

    /// <summary>Samples that no frame has shown.</summary>
    public int Lost => _sent.Count;

    /// <summary>From each sample's sending to the frame that showed it, ms, in the last run.</summary>
    public IReadOnlyCollection<double> Took => _took;

    /// <summary>The pull that it tells of; null for any.</summary>
    public string? PullId { get; set; }

    /// <summary>Connects a device of a name.</summary>
    /// <param name="address">Of the server.</param>
    /// <param name="name">Of the device.</param>
    /// <param name="gramsPerSecond">How fast the weight rises; null for a gauge without a scale.</param>
    public static async Task<MeasuredGauge> ConnectAsync(Uri address, string name, double? gramsPerSecond = null)
    {
        var gauge = new MeasuredGauge(address, gramsPerSecond);
        await gauge._hub.StartAsync();
        await gauge._socket.ConnectAsync(new Uri($"ws://{address.Authority}/instruments"), CancellationToken.None);
        var channels = gramsPerSecond is not null ? """{"pressure":"bar","weight":"g"}""" : """{"pressure":"bar"}""";
        await gauge.SendAsync($$"""{"hello":"ruddy-line/1","device":"{{name}}","channels":{{channels}}}""" + "\n");
        return gauge;
    }

    /// <summary>Sends for so many seconds; waits for the last frames.</summary>
    /// <param name="seconds">How long, s.</param>
    /// <param name="then">Called now and then with the seconds gone.</param>
    public async Task RunAsync(double seconds, Action<double>? then = null)
    {
        _took.Clear();
        var (clock, before) = (Stopwatch.StartNew(), Count);
        while (clock.Elapsed.TotalSeconds < seconds)
        {
            var due = before + (int)(clock.Elapsed.TotalSeconds * SamplesPerSecond);
            while (Count < due)
            {
                Count++;
                var number = Count % Numbers;
                var at = (double)Count / SamplesPerSecond;
                _sent[number] = Stopwatch.GetTimestamp();
                var weight = _gramsPerSecond is { } rate
                    ? string.Create(CultureInfo.InvariantCulture, $",\"weight\":{at * rate:0.00}")
                    : "";
                await SendAsync(
                    string.Create(CultureInfo.InvariantCulture, $"{{\"t\":{at:0.00},\"pressure\":{1 + (number * 0.001):0.000}")
                        + $"{weight}}}\n"
                );
            }

            then?.Invoke(clock.Elapsed.TotalSeconds);
            await Task.Delay(4);
        }

        await Task.Delay(500);
    }

    public async ValueTask DisposeAsync()
    {
        _socket.Dispose();
        await _hub.DisposeAsync();
    }

    private Task SendAsync(string text) =>
        _socket.SendAsync(Encoding.UTF8.GetBytes(text), WebSocketMessageType.Text, true, CancellationToken.None);

    private void Hear(JsonNode frame)
    {
        if (PullId is not null && (string?)frame["pullId"] != PullId)
            return;
        var now = Stopwatch.GetTimestamp();
        foreach (var point in frame["pressure"]!.AsArray())
        {
            var number = (int)Math.Round(((double)point![1]! - 1.0) * 1000);
            if (_sent.TryRemove(number, out var from))
                _took.Add(Stopwatch.GetElapsedTime(from, now).TotalMilliseconds);
        }
    }
}
