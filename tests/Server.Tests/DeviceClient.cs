using System.Net.WebSockets;
using System.Text;

namespace RuddySpring.Server.Tests;

/// <summary>A home-made device as a test plays it: sends lines, hears lines.</summary>
public sealed class DeviceClient : IDisposable
{
    private readonly ClientWebSocket _socket = new();
    private readonly List<string> _heard = [];
    private Task? _listening;

    public static async Task<DeviceClient> ConnectAsync(Uri address, string? hello = null)
    {
        var client = new DeviceClient();
        await client._socket.ConnectAsync(address, CancellationToken.None);
        client._listening = client.ListenAsync();
        if (hello is not null)
            await client.SendAsync(hello + "\n");
        return client;
    }

    public static string Hello(string device, string channel, string unit) =>
        $$$"""{"hello":"ruddy-line/1","device":"{{{device}}}","channels":{"{{{channel}}}":"{{{unit}}}"}}""";

    public Task SendAsync(string text) =>
        _socket.SendAsync(Encoding.UTF8.GetBytes(text), WebSocketMessageType.Text, true, CancellationToken.None);

    /// <summary>Waits for a line that holds a text.</summary>
    public async Task<string> HearAsync(string part)
    {
        string? found = null;
        await LiveServer.UntilAsync(
            () =>
            {
                lock (_heard)
                    found = _heard.FirstOrDefault(l => l.Contains(part, StringComparison.Ordinal));
                return Task.FromResult(found is not null);
            },
            $"the device hears \"{part}\""
        );
        return found!;
    }

    /// <summary>Waits until the server has closed the connection.</summary>
    public async Task ClosedAsync() => await _listening!.WaitAsync(TimeSpan.FromSeconds(60));

    /// <summary>Vanishes without a word.</summary>
    public void Vanish() => _socket.Abort();

    public void Dispose() => _socket.Dispose();

    private async Task ListenAsync()
    {
        var buffer = new byte[16384];
        try
        {
            while (_socket.State == WebSocketState.Open)
            {
                var got = await _socket.ReceiveAsync(buffer.AsMemory(), CancellationToken.None);
                if (got.MessageType == WebSocketMessageType.Close)
                    return;
                lock (_heard)
                    _heard.AddRange(
                        Encoding.UTF8.GetString(buffer, 0, got.Count).Split('\n', StringSplitOptions.RemoveEmptyEntries)
                    );
            }
        }
        catch (Exception error) when (error is WebSocketException or ObjectDisposedException or OperationCanceledException)
        {
            // closed from either side
        }
    }
}
