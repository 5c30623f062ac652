using System.Globalization;
using System.Text.Json;
using Microsoft.AspNetCore.Http.Metadata;
using RuddySpring.Core;

namespace RuddySpring.Server.Hosting;

/// <summary>
/// Reads a request's query as its endpoint will: the framework answers an optional parameter of the wrong kind with a bare 400,
/// and who sent it is told which one it was and what would do.
/// </summary>
public sealed class QueryGuard(RequestDelegate next)
{
    public Task InvokeAsync(HttpContext context)
    {
        if (context.Request.Query.Count > 0 && context.GetEndpoint() is { } endpoint)
        {
            foreach (var parameter in endpoint.Metadata.GetOrderedMetadata<IParameterBindingMetadata>())
            {
                if (
                    !context.Request.Query.TryGetValue(parameter.Name, out var sent)
                    || sent.ToString() is not { Length: > 0 } text
                )
                    continue;
                var type = parameter.ParameterInfo.ParameterType;
                type = Nullable.GetUnderlyingType(type) ?? type;
                if (type.IsEnum && !Parses(type, text))
                {
                    var field = JsonNamingPolicy.CamelCase.ConvertName(parameter.Name);
                    throw new DoesNotFitException(
                        field,
                        $"{field} is \"{RequestSentences.Short(text)}\"; it must be one of "
                            + $"{string.Join(", ", Enum.GetNames(type))}."
                    );
                }

                if (!Parses(type, text))
                    throw new BadHttpRequestException(
                        $"Failed to bind parameter \"{type.Name} {parameter.Name}\" from \"{text}\"."
                    );
            }
        }

        return next(context);
    }

    private static bool Parses(Type type, string text) =>
        Type.GetTypeCode(type) switch
        {
            _ when type.IsEnum => Enum.TryParse(type, text, ignoreCase: true, out var value) && Enum.IsDefined(type, value),
            TypeCode.Int32 => int.TryParse(text, CultureInfo.InvariantCulture, out _),
            TypeCode.Int64 => long.TryParse(text, CultureInfo.InvariantCulture, out _),
            TypeCode.Double => double.TryParse(text, CultureInfo.InvariantCulture, out _),
            TypeCode.Boolean => bool.TryParse(text, out _),
            _ when type == typeof(DateOnly) => DateOnly.TryParse(text, CultureInfo.InvariantCulture, out _),
            _ => true, // read by the endpoint itself
        };
}
