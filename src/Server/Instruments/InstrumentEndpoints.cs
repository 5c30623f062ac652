using System.Net.WebSockets;
using System.Text;
using System.Text.Json;
using RuddySpring.Core;

namespace RuddySpring.Server.Instruments;

/// <summary>The listening end of the open line protocol, over a WebSocket or the body of a long POST.</summary>
public static class InstrumentEndpoints
{
    public static void MapInstruments(this IEndpointRouteBuilder app)
    {
        app.Map("/instruments", async (HttpContext context, InstrumentDesk desk, IHostApplicationLifetime lifetime) =>
            {
                // a device would talk for ever; a server that is told to stop hangs up on it
                using var ending = CancellationTokenSource.CreateLinkedTokenSource(
                    context.RequestAborted,
                    lifetime.ApplicationStopping
                );
                if (context.WebSockets.IsWebSocketRequest)
                {
                    using var socket = await context.WebSockets.AcceptWebSocketAsync();
                    await ListenAsync(socket, desk, ending.Token);
                }
                else if (HttpMethods.IsPost(context.Request.Method))
                {
                    await ListenAsync(context, desk, ending.Token);
                }
                else
                {
                    context.Response.StatusCode = StatusCodes.Status426UpgradeRequired;
                    await context.Response.WriteAsync("Connect with a WebSocket or POST lines; see docs/line-protocol.md.");
                }
            })
            .ExcludeFromDescription();
    }

    private static async Task ListenAsync(WebSocket socket, InstrumentDesk desk, CancellationToken cancel)
    {
        using var ending = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        var conversation = new Conversation(desk);
        Task? speaking = null;
        var sending = new SemaphoreSlim(1);
        async Task SayAsync(string line)
        {
            await sending.WaitAsync(ending.Token);
            try
            {
                if (socket.State == WebSocketState.Open)
                    await socket.SendAsync(Encoding.UTF8.GetBytes(line + "\n"), WebSocketMessageType.Text, true, ending.Token);
            }
            finally
            {
                sending.Release();
            }
        }

        var buffer = new byte[4096];
        try
        {
            while (socket.State == WebSocketState.Open)
            {
                var got = await socket.ReceiveAsync(buffer.AsMemory(), ending.Token);
                if (got.MessageType == WebSocketMessageType.Close)
                    break;
                foreach (var answer in conversation.Take(buffer.AsSpan(0, got.Count)))
                    await SayAsync(answer);
                if (speaking is null && conversation.ToDevice is { } toDevice)
                {
                    speaking = Task.Run(
                        async () =>
                        {
                            await foreach (var line in toDevice.Reader.ReadAllAsync(ending.Token))
                                await SayAsync(line);
                        },
                        ending.Token
                    );
                }

                if (conversation.IsOver)
                    break;
            }

            if (socket.State is WebSocketState.Open or WebSocketState.CloseReceived)
                await socket.CloseOutputAsync(WebSocketCloseStatus.NormalClosure, conversation.Farewell, CancellationToken.None);
        }
        catch (Exception error) when (error is WebSocketException or OperationCanceledException or IOException)
        {
            // the device vanished; the conversation is closed below and the pull goes on
        }
        finally
        {
            conversation.End();
            await ending.CancelAsync();
            if (speaking is not null)
                await speaking.ContinueWith(_ => { }, TaskScheduler.Default);
        }
    }

    private static async Task ListenAsync(HttpContext context, InstrumentDesk desk, CancellationToken cancel)
    {
        var feature = context.Features.Get<Microsoft.AspNetCore.Http.Features.IHttpMaxRequestBodySizeFeature>();
        if (feature is { IsReadOnly: false })
            feature.MaxRequestBodySize = null; // a stream has no end; its lines are limited one by one
        // nor has it a least speed: a thermometer may say a line a minute
        if (
            context.Features.Get<Microsoft.AspNetCore.Server.Kestrel.Core.Features.IHttpMinRequestBodyDataRateFeature>() is
            { } rate
        )
            rate.MinDataRate = null;
        var conversation = new Conversation(desk);
        var problems = new List<string>();
        var buffer = new byte[4096];
        try
        {
            int got;
            while (!conversation.IsOver && (got = await context.Request.Body.ReadAsync(buffer, cancel)) > 0)
            {
                problems.AddRange(conversation.Take(buffer.AsSpan(0, got)));
                if (problems.Count > 50)
                    problems.RemoveRange(50, problems.Count - 50);
            }
        }
        catch (Exception error) when (error is IOException or OperationCanceledException or BadHttpRequestException)
        {
            // as above
        }
        finally
        {
            conversation.End();
        }

        if (cancel.IsCancellationRequested)
            return;
        if (problems.Count > 0)
            context.Response.StatusCode = StatusCodes.Status400BadRequest;
        context.Response.ContentType = "application/x-ndjson";
        foreach (var problem in problems)
            await context.Response.WriteAsync(problem + "\n", cancel);
    }

    /// <summary>One device's talk from hello to its end, free of how the bytes travel.</summary>
    private sealed class Conversation(InstrumentDesk desk)
    {
        private readonly LineSplitter _splitter = new(LineProtocol.LongestLine);
        private Device? _device;
        private int _lineNumber;
        private int _tooLongSaid;

        public System.Threading.Channels.Channel<string>? ToDevice { get; private set; }

        public bool IsOver { get; private set; }

        public string Farewell { get; private set; } = "bye";

        /// <summary>Takes bytes; gives problem lines to send back.</summary>
        public List<string> Take(ReadOnlySpan<byte> piece)
        {
            var answers = new List<string>();
            var samples = new List<TimedSample>();
            foreach (var line in _splitter.Take(piece))
            {
                if (IsOver)
                    break;
                TakeLine(line, samples, answers);
            }

            if (_splitter.TooLong > _tooLongSaid)
            {
                _tooLongSaid = _splitter.TooLong;
                var sentence = $"a line was longer than {LineProtocol.LongestLine} bytes and was left out.";
                _device?.Note(sentence);
                answers.Add(Problem(sentence));
            }

            if (samples.Count > 0 && !desk.Deliver(_device!, samples))
            {
                // told, so that it does not talk to nobody for the rest of the day
                answers.Add(Problem($"another connection took the place of {_device!.Name} while it was silent. Connect again."));
                (IsOver, Farewell) = (true, "another took its place");
            }

            return answers;
        }

        public void End()
        {
            if (_device is null)
                return;
            if (_splitter.HasHalfLine)
                _device.Note("the last line was cut off and left out.");
            desk.Remove(_device);
            ToDevice?.Writer.TryComplete();
            _device = null;
        }

        private void TakeLine(string line, List<TimedSample> samples, List<string> answers)
        {
            _lineNumber++;
            try
            {
                if (_device is null)
                {
                    var device = new Device(LineProtocol.ParseHello(line));
                    ToDevice = desk.Add(device);
                    _device = device;
                    return;
                }

                var clocks = _device.NewClocks;
                samples.AddRange(_device.Take(line, desk.Now));
                if (_device.NewClocks > clocks)
                    desk.ClockSetBack(_device);
            }
            catch (LineProblemException problem)
            {
                answers.Add(Problem($"line {_lineNumber}: {problem.Message}"));
                if (_device is null || _device.IsHopeless)
                {
                    IsOver = true;
                    Farewell = _device is null ? "hello was refused" : "too many bad lines in a row";
                }
            }
        }

        private static string Problem(string sentence) => JsonSerializer.Serialize(new { problem = Quantity.Plain(sentence) });
    }
}
