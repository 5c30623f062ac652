using System.Collections.Concurrent;
using System.Threading.Channels;

namespace RuddySpring.Server.Hosting;

/// <summary>
/// The connected screens, each with a queue and a sender of its own, so that one that stops reading holds up nobody. Who falls
/// behind loses what waits and gets the newest; a gap in the frames' sequence tells the screen to ask for the whole again.
/// </summary>
public sealed class Screens
{
    private const int MostWaiting = 64;
    private readonly ConcurrentDictionary<string, Screen> _screens = [];

    /// <summary>Sends one message to a screen; waits as long as the screen's connection is full.</summary>
    public delegate Task Send(string message, object payload, CancellationToken gone);

    /// <summary>Screens there are.</summary>
    public int Count => _screens.Count;

    /// <summary>A screen has connected.</summary>
    public void Add(string id, Send send, CancellationToken gone)
    {
        var screen = new Screen();
        _screens[id] = screen;
        _ = Task.Run(() => SendAllAsync(id, screen, send, gone), CancellationToken.None);
    }

    /// <summary>A screen has gone.</summary>
    public void Remove(string id)
    {
        if (_screens.TryRemove(id, out var screen))
            screen.Waiting.Writer.TryComplete();
    }

    /// <summary>A screen hears a lesson from now on.</summary>
    public void Join(string id, string group)
    {
        if (_screens.TryGetValue(id, out var screen))
            screen.Group = group;
    }

    /// <summary>Hands a message to every screen, or to those that joined a group. Never waits.</summary>
    public void Tell(string message, object payload, string? group = null)
    {
        foreach (var (_, screen) in _screens)
        {
            if (group is not null && screen.Group != group)
                continue;
            if (screen.Waiting.Writer.TryWrite((message, payload)))
                continue;
            while (screen.Waiting.Reader.TryRead(out _)) { }
            screen.Waiting.Writer.TryWrite((message, payload));
        }
    }

    private async Task SendAllAsync(string id, Screen screen, Send send, CancellationToken gone)
    {
        try
        {
            await foreach (var (message, payload) in screen.Waiting.Reader.ReadAllAsync(gone))
                await send(message, payload, gone);
        }
        catch (Exception error) when (error is OperationCanceledException or IOException or InvalidOperationException)
        {
            // gone; its connection says so too
        }
        finally
        {
            Remove(id);
        }
    }

    private sealed class Screen
    {
        public Channel<(string Message, object Payload)> Waiting { get; } =
            Channel.CreateBounded<(string, object)>(
                new BoundedChannelOptions(MostWaiting) { FullMode = BoundedChannelFullMode.Wait }
            );

        public string? Group { get; set; }
    }
}
