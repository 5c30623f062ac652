using System.Globalization;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using RuddySpring.Core;

namespace RuddySpring.Attacks;

/// <summary>What a run of odd requests came to.</summary>
/// <param name="Requests">How many were sent.</param>
/// <param name="Accepted">How many were taken.</param>
/// <param name="Faults">What must not be: a 5xx, an answer that is no sentence, one that names no field; at most twenty.</param>
public sealed record FuzzOutcome(int Requests, int Accepted, IReadOnlyList<string> Faults);

/// <summary>
/// Odd requests made from the application's own description: mostly right, with one thing wrong. A refusal must be a sentence
/// without a programmer's words in it that names the field.
/// </summary>
public sealed class Fuzz(JsonNode openApi, ulong seed)
{
    private const int MostFaults = 20;
    private static readonly string[] Verbs = ["get", "put", "post", "patch", "delete"];
    private static readonly string[] ProgrammersWords =
    [
        "System.",
        "Exception",
        "Microsoft.",
        "   at ",
        "Nullable",
        "Int32",
        "JsonElement",
        "RuddySpring.",
    ];

    // a lesson that is begun takes a place until it is forgotten: too many of them are refused, rightly
    private static readonly string[] LeftOut = ["/api/openapi.json"];

    private readonly SeededRandom _random = new(seed);
    private readonly JsonObject _schemas = openApi["components"]!["schemas"]!.AsObject();

    /// <summary>Sends odd requests, one after the other.</summary>
    public async Task<FuzzOutcome> RunAsync(HttpClient http, int requests)
    {
        var operations = openApi["paths"]!
            .AsObject()
            .Where(p => !LeftOut.Contains(p.Key))
            .SelectMany(p =>
                p.Value!.AsObject().Where(o => Verbs.Contains(o.Key)).Select(o => (Path: p.Key, Verb: o.Key, Operation: o.Value!))
            )
            .ToList();
        var faults = new List<string>();
        var accepted = 0;
        for (var i = 0; i < requests && faults.Count < MostFaults; i++)
        {
            var (path, verb, operation) = operations[i % operations.Count];
            using var request = Make(path, verb, operation, out var body);
            using var answer = await http.SendAsync(request);
            var text = await answer.Content.ReadAsStringAsync();
            if (answer.IsSuccessStatusCode)
                accepted++;
            else if (FaultOf((int)answer.StatusCode, text) is { } fault)
                faults.Add(
                    $"{verb.ToUpperInvariant()} {request.RequestUri} {Cut(body)} -> {(int)answer.StatusCode} {Cut(text)}: {fault}"
                );
        }

        return new(requests, accepted, faults);
    }

    private static string Cut(string text) => text.Length <= 400 ? text : text[..400] + "...";

    private static string? FaultOf(int status, string text)
    {
        if (status >= 500)
            return "a server's fault";
        // an address that is too long is refused before any of our code is asked
        if (status == 414 && text.Length == 0)
            return null;
        if (text.Length > 4000)
            return "an endless answer";
        JsonNode? problem;
        try
        {
            problem = JsonNode.Parse(text);
        }
        catch (JsonException)
        {
            return "no problem details";
        }

        var detail = (string?)problem?["detail"];
        if (string.IsNullOrWhiteSpace(detail))
            return "no sentence";
        if (ProgrammersWords.FirstOrDefault(w => detail.Contains(w, StringComparison.Ordinal)) is { } word)
            return $"a programmer's word: {word}";
        return
            status == 400
            && problem!["field"] is null
            && !detail.Contains("JSON", StringComparison.Ordinal)
            && !detail.Contains("body", StringComparison.Ordinal)
            ? "names no field"
            : null;
    }

    private HttpRequestMessage Make(string path, string verb, JsonNode operation, out string body)
    {
        var query = new List<string>();
        foreach (var parameter in operation["parameters"]?.AsArray() ?? [])
        {
            var name = (string)parameter!["name"]!;
            var schema = parameter["schema"]!;
            if ((string)parameter["in"]! == "path")
                path = path.Replace(
                    $"{{{name}}}",
                    Uri.EscapeDataString(OneIn(6) ? OddText() : PlainText(name, schema)),
                    StringComparison.Ordinal
                );
            else if (!OneIn(8))
                query.Add($"{name}={Uri.EscapeDataString(OneIn(5) ? OddText() : PlainText(name, schema))}");
        }

        var request = new HttpRequestMessage(
            new HttpMethod(verb.ToUpperInvariant()),
            new Uri(query.Count > 0 ? $"{path}?{string.Join('&', query)}" : path, UriKind.Relative)
        );
        body = "";
        if (operation["requestBody"]?["content"]?.AsObject().FirstOrDefault().Value?["schema"] is not { } bodySchema)
            return request;
        var made = Value(bodySchema, 0);
        if (!OneIn(6))
            made = Spoilt(made, bodySchema);
        body = OneIn(25) ? "{ \"no\": json" : made?.ToJsonString() ?? "null";
        request.Content = new StringContent(body, Encoding.UTF8, "application/json");
        if (OneIn(40))
            request.Content.Headers.TryAddWithoutValidation("Content-Type", "application/json; charset=klingon");
        return request;
    }

    private bool OneIn(int n) => _random.Below(n) == 0;

    private string PlainText(string name, JsonNode schema) =>
        name.EndsWith('d') || name.Contains("ersion", StringComparison.Ordinal)
            ? (1 + _random.Below(4)).ToString(CultureInfo.InvariantCulture)
        : Value(schema, 0) is { } value ? value.ToString()
        : "1";

    private string OddText() =>
        (string[])
            [
                "",
                "-1",
                "0",
                "2147483647",
                "99999999999999999999",
                "1e308",
                "1e999",
                "NaN",
                "-Infinity",
                "0x10",
                "abc",
                new string('9', 3000),
                "..%2F..",
                "'; --",
                "\u200f\ud83e\udd80",
            ]
            is { } all
            ? all[_random.Below(all.Length)]
            : "";

    private JsonNode? Odd() =>
        _random.Below(16) switch
        {
            0 => null,
            1 => JsonValue.Create(-1),
            2 => JsonValue.Create(0),
            3 => JsonValue.Create(1e300),
            4 => JsonNode.Parse("1e999"),
            5 => JsonValue.Create(int.MaxValue),
            6 => JsonValue.Create(0.1 + 0.2),
            7 => JsonValue.Create(""),
            8 => JsonValue.Create(new string('x', 100_000)),
            9 => JsonValue.Create("line\nbreak\u0000"),
            10 => JsonValue.Create("17"),
            11 => JsonValue.Create(true),
            12 => new JsonArray(),
            13 => new JsonArray(null, null),
            14 => new JsonObject(),
            _ => JsonValue.Create("0001-01-01T00:00:00Z"),
        };

    /// <summary>One member somewhere in it taken away, doubled or made odd.</summary>
    private JsonNode? Spoilt(JsonNode? value, JsonNode schema)
    {
        switch (value)
        {
            case JsonObject { Count: > 0 } whole:
                var name = whole.ElementAt(_random.Below(whole.Count)).Key;
                if (OneIn(4))
                    whole.Remove(name);
                else
                    whole[name] = OneIn(2) ? Odd() : Spoilt(whole[name]?.DeepClone(), schema);
                return whole;
            case JsonArray { Count: > 0 } list:
                if (OneIn(4))
                {
                    for (var i = 0; i < 2000; i++)
                        list.Add(list[0]?.DeepClone());
                    return list;
                }

                var at = _random.Below(list.Count);
                list[at] = Spoilt(list[at]?.DeepClone(), schema);
                return list;
            default:
                return Odd();
        }
    }

    /// <summary>A value as a schema asks for it.</summary>
    private JsonNode? Value(JsonNode schema, int depth)
    {
        if ((string?)schema["$ref"] is { } reference)
            schema = _schemas[reference[(reference.LastIndexOf('/') + 1)..]]!;
        if ((schema["oneOf"] ?? schema["anyOf"]) is JsonArray { Count: > 0 } choices)
            return OneIn(3) ? null : Value(choices.Last(c => c!["type"]?.ToString() != "null")!, depth);
        if (schema["enum"] is JsonArray words)
            return words.Where(w => w is not null).ElementAt(_random.Below(words.Count(w => w is not null)))!.DeepClone();
        var type = schema["type"] is JsonArray types
            ? types.Select(t => (string)t!).First(t => t != "null")
            : (string?)schema["type"];
        return type switch
        {
            "object" => Whole(schema, depth),
            "array" => depth > 5
                ? new JsonArray()
                : new JsonArray([.. Enumerable.Range(0, 1 + _random.Below(3)).Select(_ => Value(schema["items"]!, depth + 1))]),
            "integer" => JsonValue.Create(1 + _random.Below(4)),
            "number" => JsonValue.Create(Math.Round(_random.Uniform() * ((double[])[1, 10, 40, 100])[_random.Below(4)], 2)),
            "boolean" => JsonValue.Create(OneIn(2)),
            _ => JsonValue.Create(
                (string?)schema["format"] switch
                {
                    "date-time" => DateTime.UtcNow.AddHours(_random.Below(30) - 6).ToString("O", CultureInfo.InvariantCulture),
                    "date" => DateTime.UtcNow.AddDays(-_random.Below(60)).ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
                    "byte" => Convert.ToBase64String(Encoding.UTF8.GetBytes("time,pressure\n0,1\n1,2\n2,3\n3,2\n4,1\n5,1\n")),
                    _ => ((string[])["early-peak", "medium", "bar", "drops", "hold-3", "a word"])[_random.Below(6)],
                }
            ),
        };
    }

    private JsonObject Whole(JsonNode schema, int depth)
    {
        var whole = new JsonObject();
        if (depth > 6 || schema["properties"] is not JsonObject properties)
            return whole;
        foreach (var (name, of) in properties)
        {
            if ((bool?)of!["readOnly"] != true)
                whole[name] = Value(of, depth + 1);
        }

        return whole;
    }
}
