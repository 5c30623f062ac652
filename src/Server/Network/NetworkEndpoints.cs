using System.Security.Claims;
using Microsoft.AspNetCore.Authentication;
using RuddySpring.Server.Hosting;

namespace RuddySpring.Server.Network;

/// <summary>Who this screen is to the server.</summary>
/// <param name="AtTheMachine">Whether it is on the computer that the application runs on: nobody needs to sign in there.</param>
/// <param name="SignedIn">Whether it may read and write.</param>
/// <param name="Device">What it is called where it has signed in; null otherwise.</param>
/// <param name="DeviceId">Its id; null likewise.</param>
/// <param name="IsSafe">Whether nobody on the way can read along: HTTPS, or this machine itself.</param>
public sealed record AccessView(bool AtTheMachine, bool SignedIn, string? Device, string? DeviceId, bool IsSafe);

/// <summary>Signing in.</summary>
/// <param name="Device">What the device is to be called in the list, 1 to 80 characters.</param>
public sealed record SignInRequest(string Passphrase, string Device);

/// <summary>The home network as the owner sees it.</summary>
/// <param name="IsOn">Whether devices on it may sign in.</param>
/// <param name="HasPassphrase">Whether one was set.</param>
/// <param name="Addresses">Where it answers, the likeliest first.</param>
/// <param name="Devices">That have signed in, the last seen first.</param>
/// <param name="Keys">Of instruments.</param>
/// <param name="IsSafe">Whether it answers by HTTPS.</param>
/// <param name="Proposal">A passphrase to take, made again at each look.</param>
public sealed record NetworkView(
    bool IsOn,
    bool HasPassphrase,
    int Port,
    IReadOnlyList<string> Addresses,
    IReadOnlyList<DeviceLine> Devices,
    IReadOnlyList<KeyLine> Keys,
    bool IsSafe,
    string Proposal
);

/// <summary>A device that has signed in.</summary>
public sealed record DeviceLine(string Id, string Name, DateTime Since, DateTime LastSeen, string Address);

/// <summary>The key of an instrument.</summary>
public sealed record KeyLine(string Id, string Name, DateTime Since);

/// <summary>Turning it on.</summary>
/// <param name="Passphrase">A new one, which signs everybody out; null keeps the one that was set.</param>
public sealed record NetworkOpening(string? Passphrase);

/// <summary>An instrument that is to get a key.</summary>
public sealed record KeyRequest(string Name);

/// <summary>A key that was made.</summary>
/// <param name="Key">The key itself, told this once.</param>
public sealed record MadeKey(string Id, string Name, string Key);

public static class NetworkEndpoints
{
    public static void MapNetwork(this IEndpointRouteBuilder api)
    {
        api.MapGet("/access", (HttpContext context) => View(context));
        api.MapPost("/access/sign-in", async (SignInRequest request, HttpContext context, Access access) =>
        {
            var name = Texts.Required(request.Device, "device", "The device's name");
            var (device, token) = access.SignIn(request.Passphrase ?? "", name, AddressOf(context));
            await HomeCookie.SignInAsync(context, device, token);
            return TypedResults.NoContent();
        });
        api.MapPost("/access/sign-out", async (HttpContext context, Access access) =>
        {
            if (context.User.FindFirstValue(HomeCookie.Device) is { } device)
                access.SignOut(device, context);
            await context.SignOutAsync(HomeCookie.Scheme);
            return TypedResults.NoContent();
        });

        var network = api.MapGroup("/network").AtTheMachineOnly();
        network.MapGet("", (Access access, HomeListener listener) => View(access, listener));
        network.MapPost("/on", OpenAsync);
        network.MapPost("/off", async (Access access, HomeListener listener) =>
        {
            access.Close();
            await listener.CloseAsync();
            return View(access, listener);
        });
        network.MapDelete("/devices/{id}", (string id, Access access, HomeListener listener) =>
        {
            access.SignOut(id);
            return View(access, listener);
        });
        network.MapPost("/keys", (KeyRequest request, Access access) =>
        {
            var (made, key) = access.MakeKey(Texts.Required(request.Name, "name", "Name"));
            return new MadeKey(made.Id, made.Name, key);
        });
        network.MapDelete("/keys/{id}", (string id, Access access, HomeListener listener) =>
        {
            access.DeleteKey(id);
            return View(access, listener);
        });
    }

    private static async Task<NetworkView> OpenAsync(
        NetworkOpening opening,
        Access access,
        HomeListener listener,
        CancellationToken cancel
    )
    {
        var was = access.State.IsOn;
        access.Open(opening.Passphrase);
        try
        {
            await listener.OpenAsync(cancel);
        }
        catch when (!was)
        {
            access.Close();
            throw;
        }

        return View(access, listener);
    }

    private static NetworkView View(Access access, HomeListener listener)
    {
        var state = access.State;
        return new(
            state.IsOn,
            state.PassphraseHash is not null,
            state.Port,
            listener.Addresses,
            [
                .. state
                    .Devices.OrderByDescending(d => d.LastSeen)
                    .Select(d => new DeviceLine(d.Id, d.Name, d.Since, d.LastSeen, d.Address)),
            ],
            [.. state.Keys.Select(k => new KeyLine(k.Id, k.Name, k.Since))],
            listener.Scheme == "https",
            Secrets.Propose()
        );
    }

    private static AccessView View(HttpContext context)
    {
        var own = OwnSeat.Is(context);
        var id = context.User.FindFirstValue(HomeCookie.Device);
        return new(own, own || id is not null, context.User.Identity?.Name, id, own || context.Request.IsHttps);
    }

    private static string AddressOf(HttpContext context) =>
        context.Connection.RemoteIpAddress is { } address
            ? (address.IsIPv4MappedToIPv6 ? address.MapToIPv4() : address).ToString()
            : "";
}
