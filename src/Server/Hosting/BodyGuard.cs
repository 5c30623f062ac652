using Microsoft.AspNetCore.Http.Features;
using Microsoft.Net.Http.Headers;

namespace RuddySpring.Server.Hosting;

/// <summary>A body that cannot be read, with the status that says so.</summary>
public sealed class UnreadableBodyException(int status, string sentence) : Exception(sentence)
{
    public int Status { get; } = status;
}

/// <summary>
/// Looks at the head of a body before anything reads it: one that is too large is let run out, up to a limit, so that its sender
/// reads the answer instead of a broken connection; one in an unknown alphabet is refused.
/// </summary>
public sealed class BodyGuard(RequestDelegate next)
{
    private const long MostDrained = 64L * 1024 * 1024;

    public async Task InvokeAsync(HttpContext context)
    {
        if (!context.Request.Path.StartsWithSegments("/api"))
        {
            await next(context);
            return;
        }

        if (
            MediaTypeHeaderValue.TryParse(context.Request.ContentType, out var type)
            && type.Charset.Length > 0
            && !HeaderUtilities.RemoveQuotes(type.Charset).Equals("utf-8", StringComparison.OrdinalIgnoreCase)
        )
            throw new UnreadableBodyException(StatusCodes.Status415UnsupportedMediaType, "The text of a request must be UTF-8.");
        // before the routing, which would not find an address for it
        if (context.Request.ContentLength > 0 && !context.Request.HasJsonContentType())
            throw new UnreadableBodyException(
                StatusCodes.Status415UnsupportedMediaType,
                "The request must carry JSON, with the content type application/json."
            );
        try
        {
            if (context.Request.ContentLength > RuddyServer.LargestUpload)
                throw TooLarge();
            await next(context);
        }
        catch (Exception error)
            when (error is UnreadableBodyException or BadHttpRequestException { StatusCode: StatusCodes.Status413PayloadTooLarge }
            )
        {
            await DrainAsync(context);
            throw TooLarge();
        }
    }

    private static UnreadableBodyException TooLarge() =>
        new(
            StatusCodes.Status413PayloadTooLarge,
            $"What was sent is larger than {RuddyServer.LargestUpload / 1024 / 1024} MB, the most that is read."
        );

    private static async Task DrainAsync(HttpContext context)
    {
        // whoever asked first whether to send has not begun
        if (context.Request.Headers.Expect.Count > 0)
            return;
        if (context.Features.Get<IHttpMaxRequestBodySizeFeature>() is { IsReadOnly: false } limit)
            limit.MaxRequestBodySize = MostDrained;
        try
        {
            var buffer = new byte[64 * 1024];
            for (
                long read = 0, got;
                read < MostDrained && (got = await context.Request.Body.ReadAsync(buffer, context.RequestAborted)) > 0;

            )
                read += got;
        }
        catch (Exception error) when (error is IOException or BadHttpRequestException or OperationCanceledException)
        {
            // cut off: whoever sent it reads no answer
        }
    }
}
