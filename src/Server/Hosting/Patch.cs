using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.Extensions.Options;

namespace RuddySpring.Server.Hosting;

/// <summary>
/// A change of something kept: only the members that change, as a JSON merge patch (RFC 7396), so that a screen never sends back
/// what it did not touch.
/// </summary>
public sealed class Patch<T>
    where T : class
{
    private readonly JsonObject _members;
    private readonly JsonSerializerOptions _json;

    private Patch(JsonObject members, JsonSerializerOptions json) => (_members, _json) = (members, json);

    /// <summary>Reads it from a request's body; the framework looks for a method of this name on the type itself.</summary>
    /// <exception cref="BadHttpRequestException">The body is no JSON object.</exception>
    [System.Diagnostics.CodeAnalysis.SuppressMessage("Design", "CA1000", Justification = "The framework asks for it.")]
    public static async ValueTask<Patch<T>> BindAsync(HttpContext context)
    {
        var json = context.RequestServices.GetRequiredService<IOptions<JsonOptions>>().Value.SerializerOptions;
        if (!context.Request.HasJsonContentType())
            throw new BadHttpRequestException("A patch is JSON.", StatusCodes.Status415UnsupportedMediaType);
        try
        {
            var members = await JsonSerializer.DeserializeAsync<JsonObject>(context.Request.Body, json, context.RequestAborted);
            return new(members ?? throw new JsonException("null"), json);
        }
        catch (JsonException error)
        {
            throw new BadHttpRequestException("The patch is not understood.", error);
        }
    }

    /// <summary>The changed whole: what it is now, with the members of the patch in their place.</summary>
    /// <exception cref="BadHttpRequestException">A member is not understood.</exception>
    public T Onto(T now)
    {
        try
        {
            var whole = Merge(JsonSerializer.SerializeToNode(now, _json), _members);
            return whole.Deserialize<T>(_json)!;
        }
        catch (JsonException error)
        {
            throw new BadHttpRequestException("The patch is not understood.", error);
        }
        catch (ArgumentException)
        {
            // the same member twice in one object is found when the object is first looked into
            throw new BadHttpRequestException(
                "The patch names a member twice.",
                new FieldValueException("body", "A member is named twice; name it once.")
            );
        }
    }

    private static JsonObject Merge(JsonNode? target, JsonObject patch)
    {
        var merged = target as JsonObject ?? [];
        foreach (var (name, value) in patch)
            merged[name] = value is JsonObject inner ? Merge(merged[name]?.DeepClone(), inner) : value?.DeepClone();
        return merged;
    }
}
