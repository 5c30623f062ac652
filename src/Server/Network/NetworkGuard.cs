using System.Security.Claims;
using Microsoft.AspNetCore.Authentication;

namespace RuddySpring.Server.Network;

/// <summary>
/// Lets nothing in from the home network that has not signed in. The page itself is nobody's secret; everything that reads or
/// writes stands behind the passphrase, the live hub and the line protocol with it. What came in at this machine's own address
/// is let through.
/// </summary>
public sealed class NetworkGuard(RequestDelegate next, Access access)
{
    /// <summary>Where a device asks who it is, and signs in.</summary>
    public const string SignInPath = "/api/access";

    private const string Instruments = "/instruments";

    public async Task InvokeAsync(HttpContext context)
    {
        if (OwnSeat.Is(context))
        {
            await next(context);
            return;
        }

        var path = context.Request.Path;
        if (path.StartsWithSegments(Instruments) && KeyOf(context.Request) is { } key)
        {
            var instrument = access.Instrument(key) ?? throw new NotSignedInException("That key is unknown or was deleted.");
            await access.HoldAsync(context, instrument.Id, () => next(context));
            return;
        }

        var known = await context.AuthenticateAsync(HomeCookie.Scheme);
        if (known.Principal?.FindFirstValue(HomeCookie.Device) is { } device)
        {
            context.User = known.Principal;
            if (!IsRead(context.Request) && !IsFromOwnPage(context.Request))
                throw new NotAllowedException("The request did not come from Ruddy Spring's own page.");
            await access.HoldAsync(context, device, () => next(context));
            return;
        }

        if (NeedsSignIn(path))
            throw new NotSignedInException(
                path.StartsWithSegments(Instruments)
                    ? "An instrument on the home network needs its key; see docs/line-protocol.md."
                    : "Sign in first."
            );
        await next(context);
    }

    private static bool NeedsSignIn(PathString path) =>
        (path.StartsWithSegments("/api") && !path.StartsWithSegments(SignInPath))
        || path.StartsWithSegments("/live")
        || path.StartsWithSegments(Instruments);

    private static bool IsRead(HttpRequest request) =>
        HttpMethods.IsGet(request.Method) && !request.HttpContext.WebSockets.IsWebSocketRequest
        || HttpMethods.IsHead(request.Method);

    /// <summary>A change or a socket that comes with a cookie must say that our own page sent it (browsers do); what it says was
    /// looked at before.</summary>
    private static bool IsFromOwnPage(HttpRequest request) =>
        request.Headers.Origin.Count > 0 || request.Headers["Sec-Fetch-Site"] == "same-origin";

    private static string? KeyOf(HttpRequest request)
    {
        const string bearer = "Bearer ";
        var header = request.Headers.Authorization.ToString();
        if (header.StartsWith(bearer, StringComparison.OrdinalIgnoreCase))
            return header[bearer.Length..].Trim();
        // small boards' socket libraries often cannot send a header
        return request.Query["key"].ToString() is { Length: > 0 } key ? key : null;
    }
}

/// <summary>Who asks has not signed in.</summary>
public sealed class NotSignedInException(string why) : Exception(why);
