using System.Net;
using System.Net.NetworkInformation;
using System.Net.Sockets;
using RuddySpring.Core;
using RuddySpring.Server.Hosting;

namespace RuddySpring.Server.Network;

/// <summary>Opens and closes the port for the home network while the application runs.</summary>
public sealed class HomeListener(Access access, ServerOptions options, Troubles troubles, HomeEndpoint endpoint)
    : BackgroundService
{
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(5);
    private static readonly TimeSpan Between = TimeSpan.FromMilliseconds(50);
    private readonly SemaphoreSlim _one = new(1, 1);

    /// <summary>http or https.</summary>
    public string Scheme => options.Certificate is null ? "http" : "https";

    /// <summary>Addresses on the home network at which it answers, the likeliest first; empty where it does not.</summary>
    public IReadOnlyList<string> Addresses =>
        access.State is { IsOn: true, Port: var port } ? [.. OwnAddresses().Select(a => $"{Scheme}://{a}:{port}")] : [];

    /// <summary>Opens the port.</summary>
    /// <exception cref="DoesNotFitException">The port is taken.</exception>
    public async Task OpenAsync(CancellationToken cancel)
    {
        await _one.WaitAsync(cancel);
        try
        {
            var port = access.State.Port;
            if (endpoint.IsSet)
                return;
            if (IsTaken(port))
                throw Taken(port);
            endpoint.Set($"{Scheme}://0.0.0.0:{port}", options.Certificate, options.CertificateKey);
            for (var waited = TimeSpan.Zero; !IsTaken(port); waited += Between)
            {
                if (waited > Patience)
                {
                    endpoint.Set(null, null, null);
                    throw Taken(port);
                }

                await Task.Delay(Between, cancel);
            }
        }
        finally
        {
            _one.Release();
        }
    }

    /// <summary>Closes it.</summary>
    public async Task CloseAsync()
    {
        await _one.WaitAsync();
        try
        {
            endpoint.Set(null, null, null);
        }
        finally
        {
            _one.Release();
        }
    }

    public override void Dispose()
    {
        _one.Dispose();
        base.Dispose();
    }

    /// <summary>At the start, where it was on; a port that is taken by then keeps nobody at this machine from working.</summary>
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        if (!access.State.IsOn)
            return;
        try
        {
            await OpenAsync(stoppingToken);
        }
        catch (DoesNotFitException error)
        {
            troubles.Tell(error.Sentence);
        }
        catch (OperationCanceledException)
        {
            // stopped before it had begun
        }
    }

    private static DoesNotFitException Taken(int port) =>
        new("port", $"Port {port} cannot be opened for the home network; another program may have it. Start with --home-port N.");

    private static bool IsTaken(int port)
    {
        using var socket = new Socket(AddressFamily.InterNetwork, SocketType.Stream, ProtocolType.Tcp);
        try
        {
            socket.Bind(new IPEndPoint(IPAddress.Any, port));
            return false;
        }
        catch (SocketException)
        {
            return true;
        }
    }

    private static IEnumerable<IPAddress> OwnAddresses() =>
        NetworkInterface
            .GetAllNetworkInterfaces()
            .Where(i => i.OperationalStatus == OperationalStatus.Up && i.NetworkInterfaceType != NetworkInterfaceType.Loopback)
            .Select(i => i.GetIPProperties())
            // the one that leads to the router first
            .OrderByDescending(p => p.GatewayAddresses.Count > 0)
            .SelectMany(p => p.UnicastAddresses)
            .Select(a => a.Address)
            .Where(a => a.AddressFamily == AddressFamily.InterNetwork);
}

/// <summary>The server's second listener, as configuration that changes while it runs.</summary>
public sealed class HomeEndpoint : ConfigurationProvider, IConfigurationSource
{
    private readonly IConfigurationRoot _root;

    public HomeEndpoint() => _root = new ConfigurationBuilder().Add(this).Build();

    /// <summary>Whether it is to listen.</summary>
    public bool IsSet => Data.Count > 0;

    /// <summary>What Kestrel reads and watches.</summary>
    public IConfiguration Configuration => _root;

    public IConfigurationProvider Build(IConfigurationBuilder builder) => this;

    /// <summary>Listens at an address, with a certificate if it is a safe one; null stops.</summary>
    public void Set(string? url, string? certificate, string? key)
    {
        Data.Clear();
        if (url is not null)
            Data["Endpoints:Home:Url"] = url;
        if (url is not null && certificate is not null)
        {
            Data["Endpoints:Home:Certificate:Path"] = certificate;
            Data["Endpoints:Home:Certificate:KeyPath"] = key;
        }

        OnReload();
    }
}
