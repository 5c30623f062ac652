using System.Reflection;
using System.Text.Json;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.AspNetCore.Http.Metadata;
using Microsoft.Extensions.Options;

namespace RuddySpring.Server.Hosting;

/// <summary>
/// An answer that is written whole and sent with its length. The framework sends what it has after every 15 kB, so that a page
/// of the ledger comes in five pieces, and whoever asks for it is woken five times.
/// </summary>
/// <param name="answer">What is answered; some 100 kB at most, as all of it stands in memory.</param>
public sealed class JsonAtOnce<T>(T answer) : IResult, IEndpointMetadataProvider
{
    public Task ExecuteAsync(HttpContext httpContext)
    {
        ArgumentNullException.ThrowIfNull(httpContext);
        var options = httpContext.RequestServices.GetRequiredService<IOptions<JsonOptions>>().Value.SerializerOptions;
        var json = JsonSerializer.SerializeToUtf8Bytes(answer, options);
        httpContext.Response.ContentType = "application/json; charset=utf-8";
        httpContext.Response.ContentLength = json.Length;
        return httpContext.Response.BodyWriter.WriteAsync(json, httpContext.RequestAborted).AsTask();
    }

    static void IEndpointMetadataProvider.PopulateMetadata(MethodInfo method, EndpointBuilder builder)
    {
        ArgumentNullException.ThrowIfNull(builder);
        builder.Metadata.Add(new ProducesResponseTypeMetadata(StatusCodes.Status200OK, typeof(T), ["application/json"]));
    }
}
