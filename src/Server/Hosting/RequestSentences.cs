using System.Globalization;
using System.Text.Json;
using System.Text.RegularExpressions;

namespace RuddySpring.Server.Hosting;

/// <summary>What the framework says of a request that it cannot read, in words that a person who writes requests by hand
/// understands.</summary>
public static partial class RequestSentences
{
    private const int MostQuoted = 40;

    /// <summary>The sentence and the field it is about, null where it is about none.</summary>
    /// <param name="error">What the framework says.</param>
    /// <param name="body">What the body was to be; null where nobody knows.</param>
    /// <param name="options">How bodies are read.</param>
    public static (string Sentence, string? Field) Of(BadHttpRequestException error, Type? body, JsonSerializerOptions options)
    {
        if (error.InnerException is JsonException json)
            return OfJson(json, body, options);
        if (FailedToBind().Match(error.Message) is { Success: true } bind)
            return (
                $"{bind.Groups["name"].Value} is \"{Short(bind.Groups["value"].Value)}\"; it must be "
                    + $"{Kind(bind.Groups["type"].Value)}.",
                bind.Groups["name"].Value
            );
        if (NotProvided().Match(error.Message) is { Success: true } missing)
            return (
                $"{missing.Groups["name"].Value} is missing; it must be {Kind(missing.Groups["type"].Value)}.",
                missing.Groups["name"].Value
            );
        return (
            error.StatusCode switch
            {
                StatusCodes.Status415UnsupportedMediaType =>
                    "The request must carry JSON, with the content type application/json.",
                StatusCodes.Status408RequestTimeout => "The request did not arrive in time. Send it again.",
                _ => "The request has no body, or did not arrive whole. Send it again.",
            },
            null
        );
    }

    private static (string Sentence, string? Field) OfJson(JsonException error, Type? body, JsonSerializerOptions options)
    {
        var field = FieldOf(error.Path);
        if (error is FieldValueException ours)
            return (ours.Sentence, ours.Field);
        if (MissingRequired().Match(error.Message) is { Success: true } missing)
        {
            var names = Quoted().Matches(missing.Groups["names"].Value).Select(m => m.Groups[1].Value).ToList();
            return (
                $"{(field is null ? "" : $"In {field}: ")}{string.Join(", ", names)} {(names.Count == 1 ? "is" : "are")} "
                    + "missing.",
                names.FirstOrDefault() ?? field
            );
        }

        if (NoNull().Match(error.Message) is { Success: true } empty)
        {
            var name = JsonNamingPolicy.CamelCase.ConvertName(empty.Groups["name"].Value);
            return ($"{name} must not be empty.", name);
        }

        if (field is null)
            return ("The request is not valid JSON.", null);
        return TypeAt(body, error.Path!, options) is { } type
            ? ($"{field} must be {Kind(type)}.", field)
            : ($"{field} has a value that is not understood.", field);
    }

    /// <summary>The type that a body has at a path such as <c>$.spec.measured[0].field</c>; null where there is none.</summary>
    private static Type? TypeAt(Type? type, string path, JsonSerializerOptions options)
    {
        foreach (var step in path.TrimStart('$').Split('.', StringSplitOptions.RemoveEmptyEntries))
        {
            if (type is null)
                return null;
            var name = step.Split('[')[0];
            type = options.GetTypeInfo(type).Properties.FirstOrDefault(p => p.Name == name)?.PropertyType;
            foreach (var _ in step.Where(c => c == '['))
                type = type?.GenericTypeArguments.LastOrDefault();
            type = type is null ? null : Nullable.GetUnderlyingType(type) ?? type;
        }

        return type;
    }

    /// <summary>The last name of a path such as <c>$.spec.measured[0].field</c>, without what a sender can make
    /// endless.</summary>
    private static string? FieldOf(string? path)
    {
        var name = path?.TrimStart('$').TrimStart('.') ?? "";
        return name.Length == 0 ? null : Short(name);
    }

    private static string Kind(Type type) => type.IsEnum ? $"one of {string.Join(", ", Enum.GetNames(type))}" : Kind(type.Name);

    /// <summary>What a type is to a person, by its short name.</summary>
    private static string Kind(string type)
    {
        var name = type.Replace("Nullable<", "", StringComparison.Ordinal).TrimEnd('>', '?');
        return name switch
        {
            "int" or "Int32" or "Int64" or "long" => "a whole number",
            "double" or "Double" or "Single" => "a number",
            "bool" or "Boolean" => "true or false",
            "string" or "String" => "a text",
            "DateTime" or "DateTimeOffset" => "a date and time such as 2026-02-01T07:30:00Z",
            "DateOnly" => "a date such as 2026-02-01",
            _ when name.Contains("List", StringComparison.Ordinal) || name.Contains("[]", StringComparison.Ordinal) => "a list",
            _ => "an object with the fields of its description",
        };
    }

    /// <summary>What is quoted of a value that was sent: never all of a long one.</summary>
    public static string Short(string text) =>
        text.Length <= MostQuoted ? text : string.Create(CultureInfo.InvariantCulture, $"{text[..MostQuoted]}...");

    [GeneratedRegex(
        """^Failed to bind parameter "(?<type>[^"]+) (?<name>[^" ]+)" from "(?<value>.*)"\.$""",
        RegexOptions.Singleline
    )]
    private static partial Regex FailedToBind();

    [GeneratedRegex("""^Required parameter "(?<type>[^"]+) (?<name>[^" ]+)" was not provided""")]
    private static partial Regex NotProvided();

    [GeneratedRegex("missing required properties including: (?<names>.+)$", RegexOptions.Singleline)]
    private static partial Regex MissingRequired();

    [GeneratedRegex("'([^']+)'")]
    private static partial Regex Quoted();

    [GeneratedRegex("(property or field|constructor parameter) '(?<name>[^']+)' on type .* doesn't allow")]
    private static partial Regex NoNull();
}
