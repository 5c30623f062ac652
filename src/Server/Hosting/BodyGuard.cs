using Microsoft.AspNetCore.Http.Features;
using Microsoft.Net.Http.Headers;
using RuddySpring.Server.Exchange.Households;
using RuddySpring.Server.Photos;
using RuddySpring.Server.Storage;

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
        var (kind, most) = BodyOf(context.Request.Path);
        // before the routing, which would not find an address for it
        if (context.Request.ContentLength > 0 && !IsOf(kind, context.Request))
            throw new UnreadableBodyException(
                StatusCodes.Status415UnsupportedMediaType,
                kind switch
                {
                    BodyKind.Photo =>
                        "The request must carry a picture, with the content type image/jpeg, image/png or image/webp.",
                    BodyKind.Backup => "The request must carry a backup, with the content type application/octet-stream.",
                    _ => "The request must carry JSON, with the content type application/json.",
                }
            );
        if (
            most != RuddyServer.LargestUpload
            && context.Features.Get<IHttpMaxRequestBodySizeFeature>() is { IsReadOnly: false } size
        )
            size.MaxRequestBodySize = most;
        try
        {
            if (context.Request.ContentLength > most)
                throw TooLarge(most);
            await next(context);
        }
        catch (Exception error)
            when (error is UnreadableBodyException or BadHttpRequestException { StatusCode: StatusCodes.Status413PayloadTooLarge }
            )
        {
            await DrainAsync(context);
            throw TooLarge(most);
        }
    }

    private enum BodyKind
    {
        Json,
        Photo,
        Backup,
    }

    /// <summary>What a body may be and how large, by where it is sent.</summary>
    private static (BodyKind Kind, long Most) BodyOf(PathString path) =>
        path.Equals("/api/exchange/household", StringComparison.OrdinalIgnoreCase) ? (BodyKind.Json, HouseholdImports.LargestFile)
        : path.Equals(StorageEndpoints.BringPath, StringComparison.OrdinalIgnoreCase)
            ? (BodyKind.Backup, StorageEndpoints.LargestBackup)
        : path.Value?.EndsWith("/photos", StringComparison.OrdinalIgnoreCase) == true ? (BodyKind.Photo, Photo.LargestFile)
        : (BodyKind.Json, RuddyServer.LargestUpload);

    private static bool IsOf(BodyKind kind, HttpRequest request) =>
        kind switch
        {
            BodyKind.Photo => request.ContentType?.StartsWith("image/", StringComparison.OrdinalIgnoreCase) == true,
            BodyKind.Backup => MediaTypeHeaderValue.TryParse(request.ContentType, out var type)
                && type.MediaType.Equals("application/octet-stream", StringComparison.OrdinalIgnoreCase),
            _ => request.HasJsonContentType(),
        };

    private static UnreadableBodyException TooLarge(long most) =>
        new(
            StatusCodes.Status413PayloadTooLarge,
            $"What was sent is larger than {most / 1024 / 1024} MB, the most that is read."
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
