using System.Net;
using Microsoft.AspNetCore.Mvc;
using RuddySpring.Server.Network;

namespace RuddySpring.Server.Hosting;

/// <summary>
/// Guards the door before anybody is asked who they are: the host must be this machine (against name rebinding), every request
/// that a browser sends must come from our own page, whatever its method and whether it upgrades to a
/// socket or streams events, and the page may load nothing from elsewhere. Stands first, so that every answer carries its
/// headers.
/// </summary>
public sealed class RequestGuard(RequestDelegate next)
{
    public Task InvokeAsync(HttpContext context)
    {
        // set when the answer starts: whatever made the answer, a fault's included
        context.Response.OnStarting(SetHeaders, context);
        if (!IsOwnName(context))
            return Refuse(
                context,
                OwnSeat.Is(context)
                    ? "This server answers only on this computer, at 127.0.0.1 or localhost."
                    : "This server answers only at its own address on the home network."
            );
        return ComesFromElsewhere(context.Request)
            ? Refuse(context, "The request came from another site's page.")
            : next(context);
    }

    /// <summary>The machine's own names; another site's name that leads here is none.</summary>
    private static bool IsOwnName(HttpContext context)
    {
        var host = context.Request.Host.Host;
        if (OwnSeat.Is(context))
            return host is "127.0.0.1" or "localhost" or "[::1]";
        var own = context.Connection.LocalIpAddress;
        return IPAddress.TryParse(host, out var address)
            ? own is not null && address.Equals(own.IsIPv4MappedToIPv6 ? own.MapToIPv4() : own)
            : host.Equals(Environment.MachineName, StringComparison.OrdinalIgnoreCase)
                || host.Equals($"{Environment.MachineName}.local", StringComparison.OrdinalIgnoreCase);
    }

    /// <summary>
    /// Browsers send <c>Origin</c> with every change, socket and event stream, and with what a page of another site would read;
    /// <c>Sec-Fetch-Site</c> with the rest. A link that is followed to this server is no fault. Home-made devices send neither.
    /// </summary>
    private static bool ComesFromElsewhere(HttpRequest request)
    {
        if (request.Headers.Origin is { Count: > 0 } origin)
            return !string.Equals(origin.ToString(), $"{request.Scheme}://{request.Host}", StringComparison.OrdinalIgnoreCase);
        return request.Headers["Sec-Fetch-Site"] == "cross-site" && request.Headers["Sec-Fetch-Mode"] != "navigate";
    }

    private static Task SetHeaders(object of)
    {
        var context = (HttpContext)of;
        var headers = context.Response.Headers;
        headers.ContentSecurityPolicy =
            "default-src 'self'; img-src 'self' data: blob:; style-src 'self' 'unsafe-inline'; connect-src 'self' "
            + $"{(context.Request.IsHttps ? "wss" : "ws")}://{context.Request.Host}; "
            + "object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'self'";
        headers.XContentTypeOptions = "nosniff";
        // what is stored is nobody's to keep a copy of on the way
        if (context.Request.Path.StartsWithSegments("/api") && headers.CacheControl.Count == 0)
            headers.CacheControl = "no-store";
        headers["Referrer-Policy"] = "no-referrer";
        headers["Cross-Origin-Resource-Policy"] = "same-origin";
        return Task.CompletedTask;
    }

    private static Task Refuse(HttpContext context, string why)
    {
        context.Response.StatusCode = StatusCodes.Status403Forbidden;
        return context.Response.WriteAsJsonAsync(
            new ProblemDetails
            {
                Status = 403,
                Title = why,
                Detail = why,
            },
            options: null,
            "application/problem+json",
            context.RequestAborted
        );
    }
}
