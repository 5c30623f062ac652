namespace RuddySpring.Server.Hosting;

/// <summary>
/// Guards a server that has no passwords because it only listens on this machine: the host must be this machine (against name
/// rebinding), changes and sockets must come from our own page or from no page at all, and the page may load nothing from elsewhere.
/// </summary>
public sealed class RequestGuard(RequestDelegate next)
{
    private const string Policy =
        "default-src 'self'; img-src 'self' data: blob:; style-src 'self' 'unsafe-inline'; connect-src 'self' ws://127.0.0.1:* ws://localhost:*; "
        + "object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'self'";

    public async Task InvokeAsync(HttpContext context)
    {
        var host = context.Request.Host.Host;
        if (host is not ("127.0.0.1" or "localhost" or "[::1]"))
        {
            await Refuse(context, "This server answers only on this machine, at 127.0.0.1 or localhost.");
            return;
        }

        var origin = context.Request.Headers.Origin.ToString();
        var changes = !HttpMethods.IsGet(context.Request.Method) && !HttpMethods.IsHead(context.Request.Method);
        if ((changes || context.WebSockets.IsWebSocketRequest) && origin.Length > 0
            && !string.Equals(origin, $"{context.Request.Scheme}://{context.Request.Host}", StringComparison.OrdinalIgnoreCase))
        {
            await Refuse(context, "The request came from another site's page.");
            return;
        }

        var headers = context.Response.Headers;
        headers.ContentSecurityPolicy = Policy;
        headers.XContentTypeOptions = "nosniff";
        headers["Referrer-Policy"] = "no-referrer";
        await next(context);
    }

    private static Task Refuse(HttpContext context, string why)
    {
        context.Response.StatusCode = StatusCodes.Status403Forbidden;
        return context.Response.WriteAsync(why);
    }
}
