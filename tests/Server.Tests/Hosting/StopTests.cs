using Microsoft.AspNetCore.SignalR.Client;

namespace RuddySpring.Server.Tests.Hosting;

/// <summary>A server that is told to stop.</summary>
public sealed class StopTests
{
    [Fact] // whoever presses Ctrl-C has the machine back at once, whatever still listens
    public Task A_device_and_a_screen_that_listen_do_not_hold_it_up() => LiveServer.WithinAsync(2, async () =>
        {
            await using var server = new LiveServer();
            await server.InitializeAsync();
            using var device = await DeviceClient.ConnectAsync(
                server.Instruments,
                DeviceClient.Hello("Gauge", "pressure", "bar")
            );
            await device.SendAsync("""{"t":1,"pressure":2}""" + "\n");
            await using var screen = new HubConnectionBuilder().WithUrl(new Uri(server.Address, "/live")).Build();
            await screen.StartAsync();
            await LiveServer.UntilAsync(
                async () => (await server.GetAsync("/api/pull"))["frame"]!["devices"]!.AsArray().Count == 1,
                "the device is there"
            );
            var took = await LiveServer.TimeAsync(server.StopAsync);
            await device.ClosedAsync();
            return took;
        });
}
