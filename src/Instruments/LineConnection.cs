using System.Net.WebSockets;
using System.Text;
using System.Text.Json;
using System.Text.Json.Serialization;

namespace RuddySpring.Instruments;

/// <summary>
/// A device's end of the open line protocol over a WebSocket: says hello, sends samples, hears what the server says. It comes
/// back by itself when the connection is lost.
/// </summary>
public sealed class LineConnection(Uri server, StandInInstrument instrument) : IAsyncDisposable
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        Converters = { new JsonStringEnumConverter() },
    };
    private readonly SemaphoreSlim _sending = new(1);
    private ClientWebSocket? _socket;

    /// <summary>Raised when the server says that a pull is ready.</summary>
    public event Action<ReadyPull>? Ready;

    /// <summary>Raised when the coach says that it is time to let go.</summary>
    public event Action? Cued;

    /// <summary>Raised when the server says that the pull has ended.</summary>
    public event Action? Ended;

    /// <summary>Raised when the server says what has happened to the heat of a session.</summary>
    public event Action<SessionHeat>? Heated;

    /// <summary>Keeps the connection until cancelled.</summary>
    public async Task RunAsync(CancellationToken cancel)
    {
        while (!cancel.IsCancellationRequested)
        {
            try
            {
                using var socket = new ClientWebSocket();
                await socket.ConnectAsync(server, cancel);
                var hello = new Dictionary<string, object>
                {
                    ["hello"] = "ruddy-line/1",
                    ["device"] = instrument.Device,
                    ["channels"] = new Dictionary<string, string> { [instrument.Channel] = instrument.Unit },
                };
                await SendAsync(socket, JsonSerializer.Serialize(hello, Json), cancel);
                _socket = socket;
                await ListenAsync(socket, cancel);
            }
            catch (Exception error) when (error is WebSocketException or IOException or HttpRequestException)
            {
                // the server is not there yet, or went away: try again below
            }
            finally
            {
                _socket = null;
            }

            await Task.Delay(500, cancel).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
        }
    }

    /// <summary>Sends one sample at a time in s of the device's clock; does nothing while not connected.</summary>
    public async Task SampleAsync(double seconds, double value, CancellationToken cancel)
    {
        if (_socket is not { State: WebSocketState.Open } socket)
            return;
        try
        {
            await SendAsync(
                socket,
                FormattableString.Invariant($"{{\"t\":{seconds:0.000},\"{instrument.Channel}\":{value:0.###}}}"),
                cancel
            );
        }
        catch (WebSocketException)
        {
            // the listening side notices and connects again
        }
    }

    public async ValueTask DisposeAsync()
    {
        _sending.Dispose();
        await ValueTask.CompletedTask;
    }

    private async Task SendAsync(ClientWebSocket socket, string line, CancellationToken cancel)
    {
        await _sending.WaitAsync(cancel);
        try
        {
            await socket.SendAsync(Encoding.UTF8.GetBytes(line + "\n"), WebSocketMessageType.Text, true, cancel);
        }
        finally
        {
            _sending.Release();
        }
    }

    private async Task ListenAsync(ClientWebSocket socket, CancellationToken cancel)
    {
        var buffer = new byte[16384];
        var text = new StringBuilder();
        while (socket.State == WebSocketState.Open)
        {
            var got = await socket.ReceiveAsync(buffer.AsMemory(), cancel);
            if (got.MessageType == WebSocketMessageType.Close)
                return;
            text.Append(Encoding.UTF8.GetString(buffer, 0, got.Count));
            if (!got.EndOfMessage)
                continue;
            Hear(text.ToString());
            text.Clear();
        }
    }

    private void Hear(string line)
    {
        using var said = JsonDocument.Parse(line);
        if (said.RootElement.TryGetProperty("problem", out var problem))
        {
            Console.Error.WriteLine($"{instrument.Device}: {problem.GetString()}");
            return;
        }

        if (said.RootElement.TryGetProperty("session", out _))
        {
            if (said.RootElement.Deserialize<SessionHeat>(Json) is { } heat)
                Heated?.Invoke(heat);
            return;
        }

        if (!said.RootElement.TryGetProperty("pull", out var pull))
            return;
        if (pull.GetString() == "ended")
            Ended?.Invoke();
        else if (pull.GetString() == "let go")
            Cued?.Invoke();
        else if (pull.GetString() == "ready" && said.RootElement.Deserialize<ReadyPull>(Json) is { } ready)
            Ready?.Invoke(ready);
    }
}
